"""The day a pool is drained whole, and the startup after the refill. Sources: drain-day, cautions, startup."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Surface
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Duration, Money, PoolWater
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.drain import DrainRequest

SOURCES_USED = ("drain-day", "cautions", "startup")

DAY_MIN = 1440
PRIME_MIN = 30


@dataclass(frozen=True)
class _Row:
    title: Message
    why: Message
    hazard: Hazard
    when: Callable[[DrainRequest], bool] = lambda _: True


def _cement(request: DrainRequest) -> bool:
    return request.traits.surface.is_cement


BEFORE: tuple[_Row, ...] = (
    _Row(Message("Ask first: a pool builder about ground water and the shell, the town about where the water may go"),
         Message("Relief of ground water is a professional's work. The water leaves without chlorine, and only where it is allowed."), Hazard.SHELL),
    _Row(Message("Choose mild, dry days"), Message("Hot sun and frost crack bare plaster; rain fills the ground."), Hazard.SHELL),
    _Row(Message("The day before: brush the walls while they are wet"), Message("Dried algae are much harder to get off."), Hazard.OPEN_WATER),
)  # fmt: skip
OUT: tuple[_Row, ...] = (
    _Row(Message("Pump, heater and cell off at the breaker"), Message("They must not run dry."), Hazard.ELECTRICITY),
    _Row(Message("A barrier round the pool, nobody in the water with a mains pump"), Message("An empty pool is a fall of its own depth."), Hazard.SHELL),
    _Row(Message("Submersible pump in the deepest place, on a GFCI or RCD, with someone to mind it"),
         Message("It stops on leaves, and the hose slips."), Hazard.ELECTRICITY),
)  # fmt: skip
EMPTY: tuple[_Row, ...] = (
    _Row(Message("Leaves and mud into a bucket, rinse toward the pump"), Message("What goes through the pump stops it."), Hazard.SHELL),
    _Row(Message("Pressure washing only where the surface is sound"), Message("It lifts loose plaster and paint."), Hazard.SHELL, _cement),
    _Row(Message("Last of all, where it is still needed: a chlorine wash in even sheets on the whole wet shell"),
         Message("Then nobody walks in. Never on a day on which acid was used."), Hazard.SHELL_WASH, _cement),
    _Row(Message("Neutralize and pump out what pooled at the bottom"), Message("It must not leave as chlorine."), Hazard.SHELL_WASH, _cement),
)  # fmt: skip
STARTUP: tuple[_Row, ...] = (
    _Row(Message("Filter cleaned before it starts"), Message("It still holds what the pool was full of."), Hazard.PRESSURE),
    _Row(Message("Water to the middle of the skimmer, prime, pump on, air out, look for leaks"), Message("A pump that draws air loses its prime."),
         Hazard.ELECTRICITY),
)  # fmt: skip


def drain_day_plan(request: DrainRequest) -> Plan:
    """The sheet from the day before to the first test after the refill; none for a shell that must not stand dry."""
    if request.traits.surface in (Surface.VINYL, Surface.FIBERGLASS):
        return Plan(
            (), request.readings, (Unmet(Measure.CYANURIC_ACID, "never_dry", _never_dry(request)),), ()
        )
    line = Timeline(request.volume_l, request.readings, request.display)
    _do(line, request, BEFORE)
    line.wait_until(DAY_MIN, Message("The next morning."), title=Message("Until the next morning"))
    _do(line, request, OUT)
    _pass(
        line,
        request.volume_l / request.hoses.drain_l_per_h,
        Message("draining"),
        Message("Watch the shell and the level."),
    )
    _do(line, request, EMPTY)
    amount = Message("{amount}", amount=PoolWater(request.volume_l))
    line.do(
        Message("Refill at once, {amount}, through a prefilter if the water carries metals", amount=amount),
        Message("An emptied shell should not stand."),
        Hazard.SHELL,
    )
    line.steps[-1] = replace(line.steps[-1], water_l=request.volume_l)
    _pass(
        line,
        request.volume_l / request.hoses.fill_l_per_h,
        Message("filling"),
        Message("Do not stop half way: a ring stays."),
    )
    _start_up(line, request)
    return Plan(tuple(line.steps), request.fill, (), (_price(request), DICHLOR))


def _start_up(line: Timeline, request: DrainRequest) -> None:
    """The filter on again, and the first test of the new water."""
    _do(line, request, STARTUP)
    line.level_now(Readings())
    line.wait_until(line.now + PRIME_MIN, Message("Until the water has been round once."))
    line.test(
        (
            Measure.FREE_CHLORINE,
            Measure.PH,
            Measure.TOTAL_ALKALINITY,
            Measure.CALCIUM_HARDNESS,
            Measure.CYANURIC_ACID,
        ),
        Message(
            "Free chlorine first: the wash leaves some. Then balance by the usual plan: alkalinity, "
            "pH, calcium, stabilizer to range."
        ),
    )


DICHLOR = Finding(
    "dichlor_handy",
    Message(
        "Dichlor is handy now: each 10 ppm of chlorine from it brings 9 ppm of the stabilizer that "
        "is missing."
    ),
    Measure.CYANURIC_ACID,
)


def _price(request: DrainRequest) -> Finding:
    water, price = PoolWater(request.volume_l), request.hoses.price_per_m3
    text = Message("{water} of water.", water=water)
    if price is not None:
        cost = Money(price * request.volume_l / 1000, request.hoses.currency)
        text = Message("{water} of water, about {cost}.", water=water, cost=cost)
    return Finding("drain", text, None, {"volume_l": request.volume_l})


def _never_dry(request: DrainRequest) -> Message:
    if request.traits.surface is Surface.VINYL:
        return Message(
            "A liner shrinks and tears when it stands dry: a liner installer's work. Replace water in "
            "parts instead."
        )
    return Message(
        "A fiberglass shell floats up or bulges when it is empty: its maker's work. Replace water "
        "in parts instead."
    )


def _do(line: Timeline, request: DrainRequest, rows: tuple[_Row, ...]) -> None:
    for row in rows:
        if row.when(request):
            line.do(row.title, row.why, row.hazard)


def _pass(line: Timeline, hours: float, what: Message, why: Message) -> None:
    minutes = round(60 * hours)
    line.wait_until(
        line.now + minutes, why, title=Message("{minutes} {what}", minutes=Duration(minutes), what=what)
    )
