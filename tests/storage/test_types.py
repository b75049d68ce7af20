"""Times go in with a zone and come out in UTC to the microsecond."""

from datetime import UTC, datetime, timedelta, timezone

import pytest
from sqlalchemy.dialects.mysql.base import MySQLDialect

from kumpan.storage.types import UtcDateTime

DIALECT = MySQLDialect()


def test_there_and_back() -> None:
    column = UtcDateTime()
    at = datetime(2026, 7, 1, 21, 30, 0, 123456, tzinfo=timezone(timedelta(hours=2)))
    stored = column.process_bind_param(at, DIALECT)
    assert stored == datetime(2026, 7, 1, 19, 30, 0, 123456)  # noqa: DTZ001
    assert column.process_result_value(stored, DIALECT) == at
    assert column.process_result_value(stored, DIALECT).tzinfo is UTC  # type: ignore[union-attr]


def test_a_naive_time_is_refused() -> None:
    with pytest.raises(ValueError, match="zone"):
        UtcDateTime().process_bind_param(datetime(2026, 7, 1), DIALECT)  # noqa: DTZ001
