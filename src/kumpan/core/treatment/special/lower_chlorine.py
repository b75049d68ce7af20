"""Too much chlorine: stop what feeds it, let the sun work, a reducer where it must be today.

Sources: chlorine-reducer, mixing.
"""

from datetime import timedelta

from kumpan.core.dosing.chlorine_reducer import reducer_dose
from kumpan.core.dosing.solution import Dose
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.treatment.dusk import next_morning
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.request import SpecialRequest, nothing_to_do
from kumpan.core.treatment.split import Part

SOURCES_USED = ("chlorine-reducer", "mixing")
REDUCER = Product("reducer", "sodium_thiosulfate", 100.0)
REDUCER_MIXES_MIN = 30
SUN_FIRST = timedelta(hours=8)
BLEACHED = Finding(
    "bleached",
    Message(
        "A high level can bleach the test: mix the sample half and half with bottled water and "
        "double the reading."
    ),
    Measure.FREE_CHLORINE,
)
_FEEDER_OFF = {
    Chlorination.SALT_CELL: Message("Turn the cell to 0"),
    Chlorination.TABLETS: Message("Close the feeder, or take the floater out"),
}


def lower_chlorine_plan(request: SpecialRequest, *, today: bool) -> Plan:
    """Stop what feeds it, uncover, let the sun work, test; `today`: half of the reducer, then a test."""
    free, limit = request.readings.free_chlorine, request.swim_limit_mg_l
    if free is None:
        return nothing_to_do(request, "not_tested", Message("Free chlorine is not measured: test it first."))
    if free <= limit:
        return nothing_to_do(
            request,
            "in_range",
            Message(
                "Free chlorine at {free} is not over the swim limit of {limit}.",
                free=Number(free, figures=3),
                limit=Number(limit),
            ),
        )
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    _stop_the_source(line, request, free, limit)
    if today:
        _reduce(line, request, free, limit)
    else:
        morning = next_morning(request.now, request.zone, SUN_FIRST)
        line.wait_until(
            int((morning - request.now).total_seconds() // 60), Message("A day of sun, if there is one.")
        )
        line.test(
            (Measure.FREE_CHLORINE, Measure.PH),
            Message("Swim at {limit} or less. Still over: another day, or the reducer.", limit=Number(limit)),
        )
    after = request.readings.with_value(Measure.FREE_CHLORINE, _after_reducer(free, limit) if today else None)
    return Plan(tuple(line.steps), after, (), (BLEACHED,))


def _stop_the_source(line: Timeline, request: SpecialRequest, free: float, limit: float) -> None:
    line.do(
        Message("Nobody in; a sign at the gate"),
        Message(
            "Free chlorine {free} is over the swim limit of {limit}.",
            free=Number(free, figures=3),
            limit=Number(limit),
        ),
        Hazard.OPEN_WATER,
    )
    stop = _FEEDER_OFF.get(request.traits.chlorination, Message("Stop whatever still feeds chlorine"))
    line.do(
        stop,
        Message("First the source, then the rest."),
        Hazard.TABLETS if request.traits.chlorination is Chlorination.TABLETS else Hazard.OPEN_WATER,
    )
    line.do(
        Message("Cover off, pump on"),
        Message("Sun and moving water take chlorine away for nothing."),
        Hazard.OPEN_WATER,
    )


def _after_reducer(free: float, limit: float) -> float:
    return limit + (free - limit) / 2


def _reduce(line: Timeline, request: SpecialRequest, free: float, limit: float) -> None:
    product = next((p for p in request.inventory if p.chemical == "sodium_thiosulfate"), REDUCER)
    grams = reducer_dose(free, limit, request.volume_l, product).first_g
    why = Message(
        "Half of what is computed for {free} to {limit}. Too much eats the next chlorine.",
        free=Number(free, figures=3),
        limit=Number(limit),
    )
    dose = Dose(
        product=product, mass_g=grams, measure=Measure.FREE_CHLORINE, change=-(free - limit) / 2, why=why
    )
    line.add(Part(dose=dose, mass_g=grams, day=1), expected_change=-(free - limit) / 2)
    line.wait_until(line.now + REDUCER_MIXES_MIN, Message("Until it is mixed: pump on."))
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH),
        Message("Swim at {limit} or less. Still over: the other half, never more.", limit=Number(limit)),
    )
