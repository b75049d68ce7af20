"""Processes we started, known by id and start time, so that no other one is ever ended."""

import json
import os
import signal
import time
from pathlib import Path


def start_time(pid: int) -> str | None:
    """The kernel's start time of a process (clock ticks since boot); None when it is not running."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    except OSError:
        return None
    return None if fields[0] == "Z" else fields[19]


def remember(file: Path, pid: int) -> None:
    """Write down a process by its id and start time."""
    file.write_text(json.dumps({"pid": pid, "start_time": start_time(pid)}))


def end_remembered(file: Path, seconds: float = 20.0) -> bool:
    """End the process that `file` remembers, if it is still the same one. True when it was running."""
    try:
        known = json.loads(file.read_text())
        pid, began = known["pid"], known["start_time"]
    except (OSError, ValueError, KeyError, TypeError):
        return False  # a torn note remembers nobody
    alive = began is not None and start_time(pid) == began
    if alive:
        end(pid, began, seconds)
    file.unlink(missing_ok=True)
    return alive


def end(pid: int, began: str, seconds: float) -> None:
    """Ask it to end, wait, then force it."""
    os.kill(pid, signal.SIGTERM)
    deadline = time.monotonic() + seconds
    while time.monotonic() < deadline:
        _reap(pid)
        if start_time(pid) != began:
            return
        time.sleep(0.05)
    os.kill(pid, signal.SIGKILL)
    _reap(pid)


def _reap(pid: int) -> None:
    try:
        os.waitpid(pid, os.WNOHANG)
    except ChildProcessError:
        return
