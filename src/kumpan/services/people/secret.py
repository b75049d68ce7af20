"""Secrets that are given out once: random, long, stored as a hash only."""

import hashlib
import secrets

BYTES = 32


def new_secret() -> str:
    """A new one: 256 bits in 43 characters that a link can hold."""
    return secrets.token_urlsafe(BYTES)


def hash_of(secret: str) -> str:
    """What is stored of it. A long random secret needs no slow hash."""
    return hashlib.sha256(secret.encode()).hexdigest()
