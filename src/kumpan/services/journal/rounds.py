"""Who drives where on which weekday: the last word for each."""

from collections.abc import Mapping
from datetime import datetime, timedelta
from uuid import UUID

from kumpan.core.journal import Entry, RoundSet, StopMoved, TechnicianAway, WorkOnce, effective, of_kind
from kumpan.services.journal.ledger import entries_in
from kumpan.storage.transaction import Transaction

ROUND_KINDS = ("round", "void")
FIRM_KINDS = ("away", "once", "stop_moved", "void")
# How long before and after a day its stop is open to who drives it in another's place.
OPEN_FOR = timedelta(days=14)
Rounds = Mapping[tuple[UUID | None, int], tuple[UUID, ...]]


async def rounds(tx: Transaction, workspace_id: UUID, now: datetime) -> Rounds:
    """The stops by technician and weekday (0 is Monday), in order."""
    rows = await tx.journal.entries_of_workspace(workspace_id, ROUND_KINDS)
    return {
        (technician(entry), entry.body.weekday): entry.body.stops
        for entry in of_kind(effective(entries_in(rows), now), RoundSet)
    }


def technician(entry: Entry[RoundSet]) -> UUID | None:
    """Whose round it is: the one named, else who said it."""
    return entry.body.technician_id or entry.person_id


def drivers_of(found: Rounds, pool_id: UUID) -> frozenset[UUID]:
    """Who comes to a pool on a round."""
    return frozenset(who for (who, _), stops in found.items() if who is not None and pool_id in stops)


async def taken_over(
    tx: Transaction, workspace_id: UUID, person_id: UUID, found: Rounds, *, now: datetime
) -> frozenset[UUID]:
    """Pools that somebody drives to beside the own rounds: stops moved to this one, work once, and the rounds
    of colleagues who are away.
    """
    rows = await tx.journal.entries_of_workspace(workspace_id, FIRM_KINDS)
    entries, today = effective(entries_in(rows), now), now.date()
    pools: set[UUID] = set()
    for moved in of_kind(entries, StopMoved):
        if moved.body.technician_id == person_id and abs(moved.body.to_day - today) <= OPEN_FOR:
            pools.add(moved.body.pool_id)
    for once in of_kind(entries, WorkOnce):
        if once.body.technician_id in (None, person_id) and abs(once.body.day - today) <= OPEN_FOR:
            pools.add(once.body.pool_id)
    for away in of_kind(entries, TechnicianAway):
        if away.body.first - OPEN_FOR <= today <= away.body.last + OPEN_FOR:
            theirs = (stops for (who, _), stops in found.items() if who == away.body.technician_id)
            pools.update(stop for stops in theirs for stop in stops)
    return frozenset(pools)


async def planned_once(tx: Transaction, workspace_id: UUID, now: datetime) -> frozenset[UUID]:
    """Pools at which there is work on one day near now, whoever does it."""
    rows = await tx.journal.entries_of_workspace(workspace_id, FIRM_KINDS)
    found = of_kind(effective(entries_in(rows), now), WorkOnce)
    return frozenset(one.body.pool_id for one in found if abs(one.body.day - now.date()) <= OPEN_FOR)
