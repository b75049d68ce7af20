"""Files that wait are made into entries in the background, by one of all processes."""

import asyncio
from collections.abc import Callable
from datetime import datetime, timedelta
from uuid import uuid4

import structlog

from kumpan.core.errors import KumpanError
from kumpan.services.imports.making import work_off
from kumpan.storage.schema import HEAD
from kumpan.storage.transaction import Database

REST_S, LEASED_FOR = 0.5, timedelta(seconds=60)


async def keep_making(database: Database, clock: Callable[[], datetime]) -> None:
    """For as long as the program runs. Where the process at it dies, another begins the file anew."""
    own = uuid4()
    while True:
        try:
            if await database.revision() == HEAD:
                async with database.transaction() as tx:
                    mine = await tx.leases.take("files", own, clock(), LEASED_FOR)
                if mine:
                    await work_off(database, clock())
        except KumpanError:
            pass  # the database is gone, or somebody wrote the same: the next time
        except Exception as trouble:
            structlog.get_logger().error("files cannot be worked off", exc_info=trouble)
        await asyncio.sleep(REST_S)
