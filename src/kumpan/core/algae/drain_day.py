"""The day a pool is drained whole, and the startup after the refill. Sources: drain-day, cautions, startup."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from kumpan.core.dosing.solver import Unmet
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.pool.equipment import Surface
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import water_text
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline, duration_text
from kumpan.core.treatment.special.drain import DrainRequest

SOURCES_USED = ("drain-day", "cautions", "startup")

DAY_MIN = 1440
PRIME_MIN = 30


@dataclass(frozen=True)
class _Row:
    title: str
    why: str
    hazard: Hazard
    when: Callable[[DrainRequest], bool] = lambda _: True


def _cement(request: DrainRequest) -> bool:
    return request.traits.surface.is_cement


BEFORE: tuple[_Row, ...] = (
    _Row("Ask first: a pool builder about ground water and the shell, the town about where the water may go",
         "Relief of ground water is a professional's work. The water leaves without chlorine, and only where it is allowed.", Hazard.SHELL),
    _Row("Choose mild, dry days", "Hot sun and frost crack bare plaster; rain fills the ground.", Hazard.SHELL),
    _Row("The day before: brush the walls while they are wet", "Dried algae are much harder to get off.", Hazard.OPEN_WATER),
)  # fmt: skip
OUT: tuple[_Row, ...] = (
    _Row("Pump, heater and cell off at the breaker", "They must not run dry.", Hazard.ELECTRICITY),
    _Row("A barrier round the pool, nobody in the water with a mains pump", "An empty pool is a fall of its own depth.", Hazard.SHELL),
    _Row("Submersible pump in the deepest place, on a GFCI or RCD, with someone to mind it",
         "It stops on leaves, and the hose slips.", Hazard.ELECTRICITY),
)  # fmt: skip
EMPTY: tuple[_Row, ...] = (
    _Row("Leaves and mud into a bucket, rinse toward the pump", "What goes through the pump stops it.", Hazard.SHELL),
    _Row("Pressure washing only where the surface is sound", "It lifts loose plaster and paint.", Hazard.SHELL, _cement),
    _Row("Last of all, where it is still needed: a chlorine wash in even sheets on the whole wet shell",
         "Then nobody walks in. Never on a day on which acid was used.", Hazard.SHELL_WASH, _cement),
    _Row("Neutralise and pump out what pooled at the bottom", "It must not leave as chlorine.", Hazard.SHELL_WASH, _cement),
)  # fmt: skip
STARTUP: tuple[_Row, ...] = (
    _Row("Filter cleaned before it starts", "It still holds what the pool was full of.", Hazard.PRESSURE),
    _Row("Water to the middle of the skimmer, prime, pump on, air out, look for leaks", "A pump that draws air loses its prime.",
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
    line.wait_until(DAY_MIN, "The next morning.", title="Until the next morning")
    _do(line, request, OUT)
    _pass(line, request.volume_l / request.hoses.drain_l_per_h, "draining", "Watch the shell and the level.")
    _do(line, request, EMPTY)
    amount = water_text(request.volume_l, request.display.metric)
    line.do(
        f"Refill at once, {amount}, through a prefilter if the water carries metals",
        "An emptied shell should not stand.",
        Hazard.SHELL,
    )
    line.steps[-1] = replace(line.steps[-1], water_l=request.volume_l)
    _pass(
        line, request.volume_l / request.hoses.fill_l_per_h, "filling", "Do not stop half way: a ring stays."
    )
    _do(line, request, STARTUP)
    line.level_now(Readings())
    line.wait_until(line.now + PRIME_MIN, "Until the water has been round once.")
    line.test(
        (
            Measure.FREE_CHLORINE,
            Measure.PH,
            Measure.TOTAL_ALKALINITY,
            Measure.CALCIUM_HARDNESS,
            Measure.CYANURIC_ACID,
        ),
        "Free chlorine first: the wash leaves some. Then balance by the usual sheet: alkalinity, pH, calcium, stabiliser to range.",
    )
    return Plan(tuple(line.steps), request.fill, (), (_price(request), DICHLOR))


DICHLOR = Finding(
    "dichlor_handy",
    "Dichlor is handy now: each 10 ppm of chlorine from it brings 9 ppm of the stabiliser that is missing.",
    Measure.CYANURIC_ACID,
)


def _price(request: DrainRequest) -> Finding:
    text = f"{water_text(request.volume_l, request.display.metric)} of water"
    if request.hoses.price_per_m3 is not None:
        text += f", about {request.hoses.currency}{request.hoses.price_per_m3 * request.volume_l / 1000:.0f}"
    return Finding("drain", f"{text}.", None, {"volume_l": request.volume_l})


def _never_dry(request: DrainRequest) -> str:
    if request.traits.surface is Surface.VINYL:
        return "A liner shrinks and tears when it stands dry: a liner installer's work. Replace water in parts instead."
    return "A fibreglass shell floats up or bulges when it is empty: its maker's work. Replace water in parts instead."


def _do(line: Timeline, request: DrainRequest, rows: tuple[_Row, ...]) -> None:
    for row in rows:
        if row.when(request):
            line.do(row.title, row.why, row.hazard)


def _pass(line: Timeline, hours: float, what: str, why: str) -> None:
    minutes = round(60 * hours)
    line.wait_until(line.now + minutes, why, title=f"{duration_text(minutes)} {what}")
