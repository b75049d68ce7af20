"""Long arithmetic away from the event loop: pure functions of the core, run by processes of their own.

While a model is fitted here, every other request is answered. The processes are started when first
needed, serve all apps of this process, and end with it.
"""

import asyncio
import os
import signal
import threading
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context, parent_process
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")

MOST_PROCESSES = 2


class Workers:
    """A few processes for functions that can be named and whose arguments can be pickled."""

    def __init__(self) -> None:
        self._pool: ProcessPoolExecutor | None = None

    async def run(self, function: Callable[P, R], /, *args: P.args, **kwargs: P.kwargs) -> R:
        """The function's answer. A process that was killed is replaced, and the work done once more."""
        assert not kwargs, "positional arguments only: they are what an executor passes on"
        loop = asyncio.get_running_loop()
        try:
            return await loop.run_in_executor(self._running(), function, *args)
        except BrokenProcessPool:
            self.stop()
            return await loop.run_in_executor(self._running(), function, *args)

    def stop(self) -> None:
        """End the processes; the next work starts new ones."""
        if self._pool is not None:
            self._pool.shutdown(wait=False, cancel_futures=True)
            self._pool = None

    def _running(self) -> ProcessPoolExecutor:
        if self._pool is None:
            # Spawned, not forked: a fork copies locks that other threads hold.
            self._pool = ProcessPoolExecutor(
                min(MOST_PROCESSES, os.cpu_count() or 1), get_context("spawn"), _begin
            )
        return self._pool


def _begin() -> None:
    """In a new process: load the models now, and never outlive the server."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the server is told, and ends its processes
    threading.Thread(target=_end_with_parent, daemon=True).start()
    import kumpan.core.forecast.outlook  # noqa: F401 - SciPy takes a second, before the work comes


def _end_with_parent() -> None:
    parent = parent_process()
    if parent is not None:
        parent.join()
        os._exit(0)


WORKERS = Workers()
