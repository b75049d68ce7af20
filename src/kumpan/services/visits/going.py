"""The visit that goes on at a pool: begun, ticked line by line or group by group, seen on every device."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.errors import Conflict, InvalidInput
from kumpan.core.journal import CareDone, Clarity, Level, PoolState, VisitBegun, VisitKind, VisualCheck
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.disagreements import answer
from kumpan.core.season.saved import list_lines
from kumpan.core.treatment.plan import poured_by
from kumpan.core.visits.visit import VisitLine, VisitRequest, going, visit_lines
from kumpan.services.algae.queries import plan_that_counts
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.maintenance.queries import care_inputs, due_items
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import parts_of
from kumpan.services.visits.views import VisitGoing

BEGUN_ALREADY = Message("A visit goes on here already; open it, or end it first.")
AS_USUAL = VisualCheck(Clarity.CLEAR, Level.NORMAL)


async def visit_going(scope: Scope, pool_id: UUID, kind: VisitKind | None) -> VisitGoing:
    """The visit that goes on, or how one of a kind would be if it began now. Raises NotFound."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    begun = going(state, scope.now)
    inputs = await care_inputs(scope, state, parts)
    usual = VisitKind.STOP if inputs.preset is Preset.SERVICE else VisitKind.HOUR
    chosen = begun.body.kind if begun is not None else kind or usual
    if chosen is VisitKind.STOP:
        inputs = replace(inputs, preset=Preset.SERVICE)
    offered = await plan_that_counts(scope, state, parts, units=Units.US)
    request = VisitRequest(
        kind=chosen,
        due=due_items(inputs, scope.now),
        state=state,
        begun=begun,
        doses=len(poured_by(offered, first_day=True)) if offered is not None else 0,
        order=answer(parts.settings.choices, "cleaning"),
        season=list_lines(state, inputs.traits, local_day(scope.now, inputs.zone)),
    )
    return VisitGoing(
        entry_id=begun.id if begun is not None else None,
        begun_at=begun.at if begun is not None else None,
        kind=chosen,
        lines=visit_lines(request),
        tested=begun is not None and _tested_since(state, begun.at.timestamp()),
        zone=ZoneInfo(parts.settings.time_zone).key,
    )


def _tested_since(state: PoolState, at_s: float) -> bool:
    return state.last_test is not None and state.last_test.at.timestamp() >= at_s


async def begin_visit(scope: Scope, pool_id: UUID, stamp: Stamp, kind: VisitKind) -> None:
    """Somebody is at the pool. Raises Conflict where a visit goes on; the same one again is answered."""
    found = await visit_going(scope, pool_id, None)
    if found.entry_id is not None and found.entry_id != stamp.id:
        raise Conflict(BEGUN_ALREADY)
    await record(scope, pool_id, stamp, VisitBegun(kind))


async def as_usual(scope: Scope, pool_id: UUID, stamp: Stamp, keys: Sequence[str]) -> tuple[UUID, ...]:
    """Several lines at once, each as usual; the ids of what was noted, to take it back.

    Raises InvalidInput for a line that is not there or has to be opened.
    """
    found = await visit_going(scope, pool_id, None)
    if found.entry_id is None:
        raise InvalidInput(Message("No visit goes on at this pool; begin one first."), "keys")
    lines = {line.key: line for line in found.lines}
    for key in keys:
        _must_be_usual(key, lines.get(key))
    noted = []
    for key in dict.fromkeys(keys):
        of_it = replace(stamp, id=uuid5(stamp.id, key))
        await record(scope, pool_id, of_it, AS_USUAL if key == "look" else CareDone(key, (), ""))
        noted.append(of_it.id)
    return tuple(noted)


def _must_be_usual(key: str, line: VisitLine | None) -> None:
    if line is None:
        raise InvalidInput(Message('"{key}" is no line of this visit; reload it.', key=Verbatim(key)), "keys")
    if not line.usual:
        raise InvalidInput(
            Message("{title}: open it, it asks for more than a tick.", title=line.title), "keys"
        )
