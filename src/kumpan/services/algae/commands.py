"""Begin a rescue, change how it is set, end it."""

from uuid import UUID

from kumpan.core.algae.criteria import finished
from kumpan.core.errors import InvalidInput
from kumpan.core.journal import RescueEnded, RescueOutcome, RescueSet
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.services.algae.queries import open_rescue, requested
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import parts_of
from kumpan.services.treatments.at_hand import at_hand


async def set_rescue(scope: Scope, pool_id: UUID, stamp: Stamp, setting: RescueSet) -> None:
    """Begin a rescue, or set the one that goes on anew. Raises InvalidInput for limits that make no sense."""
    if min(setting.drain_over_stabilizer, setting.drain_over_calcium) <= 0:
        raise InvalidInput(Message("A limit for draining must be over 0."), "drain_over_stabiliser")
    await modeled_state(scope, pool_id)
    await record(scope, pool_id, stamp, setting)


async def end_rescue(scope: Scope, pool_id: UUID, stamp: Stamp, outcome: RescueOutcome, note: str) -> None:
    """End it. Raises InvalidInput where none goes on, or where "clear" is not what the tests say."""
    state = await modeled_state(scope, pool_id)
    if any(entry.id == stamp.id for entry in state.rescue_ends):
        return
    going = open_rescue(state)
    if going is None:
        raise InvalidInput(Message("No rescue goes on at this pool."), "outcome")
    if outcome is RescueOutcome.CLEAR:
        request = requested(
            scope,
            state,
            parts=parts_of(state),
            hand=await at_hand(scope, state.pool_id),
            setting=going.set,
            units=Units.US,
        )
        if not finished(request):
            raise InvalidInput(
                Message("Not all signs of the end are there yet: see the list, or stop it instead."),
                "outcome",
            )
    await record(scope, pool_id, stamp, RescueEnded(outcome, note.strip()))
