"""Work over many pools goes on where one of them cannot be read."""

from collections.abc import Awaitable, Callable, Iterable
from typing import TypeVar
from uuid import UUID

import structlog

from kumpan.storage.transaction import is_of_the_database

R = TypeVar("R")


async def each_pool(ids: Iterable[UUID], work: Callable[[UUID], Awaitable[R]]) -> dict[UUID, R]:
    """What `work` answers for each pool, in order; one that fails is logged and left out.

    Raises Unavailable: a database that is gone is no fault of one pool.
    """
    found: dict[UUID, R] = {}
    for pool_id in ids:
        try:
            found[pool_id] = await work(pool_id)
        except Exception as trouble:
            if is_of_the_database(trouble):
                raise
            structlog.get_logger().error("a pool cannot be read", pool=str(pool_id), exc_info=trouble)
    return found
