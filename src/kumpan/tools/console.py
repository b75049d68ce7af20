"""Stages on the console, each named with its time, and errors in one sentence."""

import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager


class Stop(Exception):
    """A clear sentence for the user; `./run` prints it and ends with status 1."""


@contextmanager
def stage(name: str) -> Iterator[None]:
    """Print the stage's name, then its time when it ends."""
    started = time.monotonic()
    print(f"{name} ...", flush=True)
    yield
    print(f"{name}: {time.monotonic() - started:.1f} s", flush=True)


def stop(message: str) -> int:
    """Say why it ends; the exit code."""
    print(message, file=sys.stderr, flush=True)
    return 1
