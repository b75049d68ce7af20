"""Set a round, count the truck, finish a stop."""

from collections.abc import Sequence
from uuid import UUID

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import (
    RoundSet,
    TruckCounted,
    VisitDone,
)
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope, Stamp, pool_ids, record, require_person
from kumpan.services.journal.queries import product_by_id, read_typed
from kumpan.services.journal.rounds import rounds
from kumpan.services.pools.expectations import modeled_state


async def set_round(
    scope: Scope, stamp: Stamp, weekday: int, stops: Sequence[UUID], *, technician_id: UUID | None = None
) -> None:
    """The stops of a weekday, in order, for the technician who is named, else who says so.

    Raises InvalidInput.
    """
    who = technician_id or stamp.person_id
    if who is None:
        raise InvalidInput(Message("Say who you are first: a round belongs to somebody."), "person_id")
    if technician_id is not None:
        await require_person(scope, technician_id)
    if not 0 <= weekday <= 6:
        raise InvalidInput(Message("weekday must be 0 (Monday) to 6 (Sunday)."), "weekday")
    if len(set(stops)) != len(stops):
        raise InvalidInput(Message("A pool stands twice in this round; keep it once."), "stops")
    known = set(await pool_ids(scope))
    if not set(stops) <= known:
        raise InvalidInput(Message("One of these pools is not here; reload the round."), "stops")
    before = (await rounds(scope.tx, scope.workspace_id, scope.now)).get((who, weekday), ())
    await record(scope, None, stamp, RoundSet(weekday, tuple(stops), technician_id))
    # Those new on it have no stop as yet; what rides on the truck serves no longer those that left.
    await scope.tx.summaries.expire(scope.workspace_id, tuple({*before, *stops}), scope.now)


async def count_truck(scope: Scope, stamp: Stamp, product_id: str, amount: str, *, units: Units) -> None:
    """What the truck holds of one product now; the others keep what the books say. Raises InvalidInput."""
    if stamp.person_id is None:
        raise InvalidInput(Message("Say who you are first: a truck belongs to somebody."), "person_id")
    product = await product_by_id(scope, product_id)
    none = amount.strip() in ("0", "none")
    grams = 0.0 if none else (await read_typed(scope, product, amount, units=units)).mass_g
    await record(scope, None, stamp, TruckCounted(product.id, grams))


async def finish_visit(scope: Scope, pool_id: UUID, stamp: Stamp, done: VisitDone) -> None:
    """Note that a stop is finished, with what asks for a return or for a licensed trade."""
    await modeled_state(scope, pool_id)
    await record(scope, pool_id, stamp, done)
