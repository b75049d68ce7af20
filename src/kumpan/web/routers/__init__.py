"""Routes by noun; each is short: parse, call the use case, answer."""
