"""One pool that fails is left out; a database that is gone stops all."""

from uuid import UUID

import pytest

from kumpan.core.errors import InvalidInput, Unavailable
from kumpan.core.messages import Message
from kumpan.services.each_pool import each_pool

A, B, C = (UUID(int=n) for n in range(3))


@pytest.mark.parametrize("trouble", [InvalidInput(Message("No set-up.")), ZeroDivisionError(), KeyError("x")])
async def test_the_others_go_on_in_their_order(trouble: Exception) -> None:
    async def work(pool_id: UUID) -> int:
        if pool_id == B:
            raise trouble
        return pool_id.int

    assert await each_pool([C, B, A], work) == {C: 2, A: 0}


async def test_a_database_that_is_gone_is_no_fault_of_one_pool() -> None:
    async def work(pool_id: UUID) -> int:  # noqa: ARG001
        raise Unavailable(Message("Gone."))

    with pytest.raises(Unavailable):
        await each_pool([A], work)
