"""Rows read once: entries are never changed, so a set of them with the same fingerprint is the same set.

The database is asked for the fingerprint at every read, so that another process' writes are seen; a
transaction that wrote something reads past the cache until it is committed.
"""

from collections import OrderedDict
from collections.abc import Awaitable, Callable
from dataclasses import dataclass, field
from typing import Generic, TypeVar

Row = TypeVar("Row")
MOST_SETS = 512
MOST_ROWS = 15_000  # of all sets together: about 60 MB, whatever the age of the pools
Fingerprint = tuple[object, ...]


@dataclass(frozen=True)
class CachedRows(Generic[Row]):
    """Rows with what tells them from any other set; equal when the fingerprints are."""

    key: Fingerprint
    rows: tuple[Row, ...] = field(compare=False)


class RowCache(Generic[Row]):
    """The latest rows of each set, the least used forgotten first."""

    def __init__(self, most_rows: int = MOST_ROWS) -> None:
        self._most_rows = most_rows
        self._sets: OrderedDict[Fingerprint, CachedRows[Row]] = OrderedDict()

    def known(self, name: Fingerprint) -> CachedRows[Row] | None:
        """What is kept under a name, whatever the database says by now."""
        return self._sets.get(name)

    def forget(self, name: Fingerprint) -> None:
        """Read it again at the next time."""
        self._sets.pop(name, None)

    async def get(
        self, name: Fingerprint, mark: Fingerprint, read: Callable[[], Awaitable[tuple[Row, ...]]]
    ) -> CachedRows[Row]:
        """The rows called `name` as they stand at `mark`; read again only where the mark has moved."""
        known = self._sets.get(name)
        if known is None or known.key != (*name, *mark):
            known = CachedRows((*name, *mark), await read())
            self._sets[name] = known
        self._sets.move_to_end(name)
        while len(self._sets) > 1 and (len(self._sets) > MOST_SETS or self._rows() > self._most_rows):
            self._sets.popitem(last=False)
        return known

    def _rows(self) -> int:
        return sum(len(kept.rows) for kept in self._sets.values())
