"""Use cases: load, ask the core, save. No words of HTTP in here."""
