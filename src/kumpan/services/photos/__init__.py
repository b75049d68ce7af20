"""Photos of a pool."""
