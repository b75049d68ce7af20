"""Alembic's entry: the database URL comes from the environment (KUMPAN_DATABASE_URL)."""

import asyncio
import os

from alembic import context
from sqlalchemy import Connection
from sqlalchemy.ext.asyncio import create_async_engine

from kumpan.storage.tables import Base


def run(connection: Connection) -> None:
    context.configure(connection=connection, target_metadata=Base.metadata)
    with context.begin_transaction():
        context.run_migrations()


async def migrate() -> None:
    engine = create_async_engine(os.environ["KUMPAN_DATABASE_URL"])
    try:
        async with engine.connect() as connection:
            await connection.run_sync(run)
            await connection.commit()
    finally:
        await engine.dispose()


asyncio.run(migrate())
