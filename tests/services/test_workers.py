"""Long arithmetic leaves the event loop: pages are served with functions that would fail in this process."""

import asyncio
import os
import signal
from concurrent.futures.process import BrokenProcessPool
from typing import Any

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.services.algae import queries as algae_queries
from kumpan.services.cache import remembered
from kumpan.services.pools import expectations, outlooks
from kumpan.services.workers import Workers
from tests.web.conftest import Api, api

__all__ = ["api"]


def not_here(*_: Any) -> Any:
    raise AssertionError("this took the event loop's time")


async def test_no_page_of_a_pool_fits_a_model_on_the_event_loop(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    pool = await api.new_pool()
    for _ in range(20):
        await api.test(pool, free_chlorine="3", ph="7.6", cyanuric_acid="40", total_alkalinity="90")
        api.pass_time(days=1)
    for one in (expectations._fitted, outlooks._outlook, algae_queries._board):
        one.clear()
        monkeypatch.setattr(one, "function", not_here)
    for view in (
        "/rescue",
        "/outlook",
        "",
        "/board",
        "/sheet",
        "/ways",
        "/history/free_chlorine",
        "/offer?plan=shock",
    ):
        for one in (expectations._fitted, outlooks._outlook, algae_queries._board):
            one.clear()
        reply = await api.client.get(f"/api/v1/pools/{pool}{view}")
        assert reply.status_code == 200, (view, reply.text)


async def test_right_after_a_test_nobody_waits_for_a_fit(api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    """The water is what was just read; the model is asked once hours have gone."""
    pool, asked = await api.new_pool(), list[Any]()

    async def run(_: Workers, *work: Any) -> None:
        asked.append(work)

    monkeypatch.setattr(Workers, "run", run)
    await api.test(pool, free_chlorine="3.1", ph="7.6", cyanuric_acid="40", total_alkalinity="90")
    expectations._fitted.clear()
    for view in ("", "/board", "/sheet"):
        await api.get(f"/pools/{pool}{view}")
    assert asked == []
    api.pass_time(hours=8)
    await api.get(f"/pools/{pool}/sheet")
    assert len(asked) == 1


async def test_others_are_served_while_a_worker_works() -> None:
    """Turns of the event loop pass while the work goes on elsewhere."""
    workers, turns = Workers(), 0
    work = asyncio.ensure_future(workers.run(sum, range(20_000_000)))
    while not work.done():
        await asyncio.wait({work}, timeout=0)
        turns += 1
    assert await work == 199_999_990_000_000
    assert turns > 100
    workers.stop()


async def test_it_is_another_process_and_a_killed_one_is_replaced() -> None:
    workers = Workers()
    first = await workers.run(os.getpid)
    assert first != os.getpid()
    with pytest.raises(BrokenProcessPool):
        await workers._running().submit(signal.raise_signal, signal.SIGKILL).result(60)  # type: ignore[misc]
    assert await workers.run(os.getpid) not in (first, os.getpid())
    workers.stop()


async def test_the_same_asked_twice_at_once_is_worked_out_once() -> None:
    done, gate = list[int](), asyncio.Event()
    answer = remembered(most=4)(lambda number: number)

    async def work() -> int:
        done.append(1)
        await gate.wait()
        return 7

    asyncio.get_running_loop().call_later(0.01, gate.set)
    assert await asyncio.gather(*(answer.awaited(work, 1) for _ in range(3))) == [7, 7, 7]
    assert done == [1]


def refuse() -> None:
    raise InvalidInput(Message("A {what} too many.", what=Verbatim("row")), "file")


async def test_a_refusal_comes_back_whole_from_another_process() -> None:
    workers = Workers()
    try:
        with pytest.raises(InvalidInput) as refused:
            await workers.run(refuse)
    finally:
        workers.stop()
    assert (refused.value.message, refused.value.field) == (
        Message("A {what} too many.", what=Verbatim("row")),
        "file",
    )
