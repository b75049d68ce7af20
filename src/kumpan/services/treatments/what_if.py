"""What if I aim here: the plan for the user's own aims, and where it leaves every lane."""

from collections.abc import Mapping
from uuid import UUID

from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.dilution import solved
from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.expected import measured_readings
from kumpan.core.messages import Message
from kumpan.core.quantities.names import BOARD_ORDER, NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.profiles import Band
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import parts_of
from kumpan.services.treatments.queries import treatment_for
from kumpan.services.treatments.request import PlanRequest
from kumpan.services.treatments.views import WhatIf
from kumpan.wording.gauges import AIM_STEPS, Marker, marker_on, value_at

SNAP_SHARE = 0.2  # a place is read to a fifth of a nudge


async def what_if(
    scope: Scope,
    pool_id: UUID,
    values: Mapping[Measure, float],
    places: Mapping[Measure, float],
    *,
    units: Units,
) -> WhatIf:
    """Raises InvalidInput for a measure that no dose moves here, or that has no band to be placed on."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    aims = dict(values)
    for measure, place in places.items():
        band = parts.bands.get(measure)
        if measure not in AIM_STEPS or band is None or band.high is None:
            raise InvalidInput(
                Message("{measure} cannot be aimed at here; choose another lane.", measure=NAMES[measure]),
                "places",
            )
        snap = AIM_STEPS[measure] * SNAP_SHARE
        aims[measure] = round(round(value_at(place, band) / snap) * snap, 3)
    unknown = [NAMES[measure] for measure in aims if measure not in AIM_STEPS]
    if unknown:
        raise InvalidInput(
            Message("{unknown} cannot be aimed at here; choose another lane.", unknown=unknown[0]),
            "values",
        )
    treatment = await treatment_for(scope, state, parts, PlanRequest(targets=aims), units=units)
    after = treatment.predicted if treatment.steps else measured_readings(state)
    return WhatIf(aims, _planned(after, parts.bands), treatment)


def _planned(after: Readings, bands: Mapping[Measure, Band]) -> dict[Measure, Marker]:
    found = {}
    for measure in BOARD_ORDER:
        value = _index(after) if measure is Measure.SATURATION_INDEX else after.value(measure)
        if value is not None:
            found[measure] = marker_on(bands.get(measure), value, value, value)
    return found


def _index(after: Readings) -> float | None:
    water = solved(after) if after.calcium_hardness else None
    return None if water is None else float(saturation_index(water))
