"""What a failing database means, by MariaDB's own error numbers (from memory of its manual)."""

import asyncio
from datetime import UTC, datetime
from uuid import UUID

import pytest
from sqlalchemy.exc import IntegrityError, OperationalError

from kumpan.core.errors import Collided, Unavailable
from kumpan.storage.transaction import Database, unavailable


def failed(number: int) -> OperationalError:
    return OperationalError("UPDATE pool", {}, Exception(number, "said the server"))


@pytest.mark.parametrize("number", [1213, 1205])
def test_two_in_each_others_way_are_told_to_try_again(number: int) -> None:
    assert isinstance(unavailable(failed(number)), Collided)


@pytest.mark.parametrize("number", [28, 1021, 1114, 2003, 2006, 2013, 1047])
def test_a_full_disk_and_a_gone_server_are_no_fault_of_ours(number: int) -> None:
    meant = unavailable(failed(number))
    assert isinstance(meant, Unavailable)
    assert not isinstance(meant, Collided)


def test_a_fault_of_ours_stays_one() -> None:
    assert unavailable(IntegrityError("INSERT", {}, Exception(1062, "twice"))) is None


async def test_a_proxy_without_a_node_behind_it_is_a_database_that_is_gone() -> None:
    """HAProxy takes the connection and closes it at once; asyncmy calls that a RuntimeError."""
    closing = await asyncio.start_server(lambda _, writer: writer.close(), "127.0.0.1", 0)
    port = closing.sockets[0].getsockname()[1]
    database = Database(f"mariadb+asyncmy://nobody@127.0.0.1:{port}/none")
    for _ in range(20):
        with pytest.raises(Unavailable):
            async with database.transaction():
                raise AssertionError("there is nothing to begin")
    closing.close()
    await database.close()


async def test_two_transactions_that_wait_for_each_other_end_in_one_collision(database_url: str) -> None:
    """A deadlock made on purpose: one of the two is told, the other one goes through."""
    database = Database(database_url)
    async with database.transaction() as tx:
        await tx.workspace.add_workspace(UUID(int=7), "another", datetime.now(UTC))
        ids = await tx.workspace.workspace_ids()
    met = asyncio.Barrier(2)

    async def both(first: int, second: int) -> bool:
        try:
            async with database.transaction() as tx:
                await tx.workspace.one_writer(ids[first])
                await met.wait()
                await tx.workspace.one_writer(ids[second])
        except Collided:
            return False
        return True

    assert sorted(await asyncio.gather(both(0, 1), both(1, 0))) == [False, True]
    await database.close()
