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
Fingerprint = tuple[object, ...]


@dataclass(frozen=True)
class CachedRows(Generic[Row]):
    """Rows with what tells them from any other set; equal when the fingerprints are."""

    key: Fingerprint
    rows: tuple[Row, ...] = field(compare=False)


class RowCache(Generic[Row]):
    """The latest rows of each set, the least used forgotten first."""

    def __init__(self) -> None:
        self._sets: OrderedDict[Fingerprint, CachedRows[Row]] = OrderedDict()

    def known(self, name: Fingerprint) -> CachedRows[Row] | None:
        """What is kept under a name, whatever the database says by now."""
        return self._sets.get(name)

    async def get(
        self, name: Fingerprint, mark: Fingerprint, read: Callable[[], Awaitable[tuple[Row, ...]]]
    ) -> CachedRows[Row]:
        """The rows called `name` as they stand at `mark`; read again only where the mark has moved."""
        known = self._sets.get(name)
        if known is None or known.key != (*name, *mark):
            known = CachedRows((*name, *mark), await read())
            self._sets[name] = known
        self._sets.move_to_end(name)
        if len(self._sets) > MOST_SETS:
            self._sets.popitem(last=False)
        return known
