"""A second opinion: what somebody advised, beside our own plan."""

from uuid import UUID

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.units import Units
from kumpan.core.treatment.special.second_opinion import COMPARED, second_opinion
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.queries import offered_plan, parts_of
from kumpan.services.treatments.views import ComparedMeasure, OpinionView


async def opinion(scope: Scope, pool_id: UUID, text: str, *, units: Units) -> OpinionView:
    """The advice read and reckoned. Raises InvalidInput before the first test or for an empty text."""
    if not text.strip():
        raise InvalidInput(Message('Type what was advised, like "salt 20 kg, buffer 400 g".'), "text")
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    offered = await offered_plan(scope, state, parts, units=units)
    if offered is None:
        raise InvalidInput(Message("Test the water first: advice is computed from the last test."), "text")
    now = water_now(state, parts.place, scope.now)
    found = second_opinion(text, now, parts.known_volume_l(), parts.equipment.traits)
    ours = offered.predicted if offered.steps else now
    rows = tuple(
        ComparedMeasure(
            measure=measure,
            name=NAMES[measure],
            now=now.value(measure),
            theirs=found.after.value(measure),
            ours=ours.value(measure),
            low=band.low if (band := parts.bands.get(measure)) else None,
            high=band.high if band else None,
        )
        for measure in COMPARED
        if now.value(measure) is not None
    )
    return OpinionView(found.advice, found.unread, rows, found.findings)
