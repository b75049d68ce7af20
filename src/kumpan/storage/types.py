"""Column types: time as DATETIME(6) in UTC only."""

from datetime import UTC, datetime

from sqlalchemy import Dialect
from sqlalchemy.dialects.mysql import DATETIME
from sqlalchemy.types import TypeDecorator


class UtcDateTime(TypeDecorator[datetime]):
    """A time with a zone in Python, DATETIME(6) in UTC in the database. Naive times are refused."""

    impl = DATETIME(fsp=6)
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """Into the database as UTC. Raises ValueError for a time without a zone."""
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError("A time needs a zone; naive times are refused.")
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """Out of the database, marked as UTC."""
        return None if value is None else value.replace(tzinfo=UTC)
