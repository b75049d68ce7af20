"""Why it turned, as far as the journal tells, and what keeps it from coming back. Source: rescue-causes."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from kumpan.core.algae.request import RescueRequest
from kumpan.core.findings import Finding
from kumpan.core.journal import history
from kumpan.core.maintenance.circulation import hours_a_day
from kumpan.core.maintenance.shocks import shocks
from kumpan.core.quantities.readings import Measure

SOURCE = "rescue-causes"

LOOKED_BACK = timedelta(days=35)
PHOSPHATE_HIGH_PPB = 100.0
STABILIZER_LOW = 20.0
NO_TEST_FOR = timedelta(days=7)
NO_SHOCK_FOR = timedelta(days=21)

PREVENTION = (
    "Test at least once a week, twice in heat or heavy use.",
    "Shock weekly over 80 °F (27 °C), else every two weeks.",
    "Brush weekly, dead corners twice; returns aimed down 45 degrees.",
    "Pump hours for a whole turnover a day, more in heat.",
    "Phosphate under 100 ppb; after a remover comes filter work.",
    "If you like: borate at 30 to 50, enzymes twice a month; by their labels, where they are allowed.",
    "If you use a preventive algaecide: by its label, after clearing; copper kinds stain over 0.3.",
)


def causes(request: RescueRequest) -> tuple[Finding, ...]:
    """What the weeks before show, most telling first; what was never tested is said too."""
    return tuple(_causes(request))


def _causes(request: RescueRequest) -> Iterator[Finding]:
    began = request.episode.began_at if request.episode is not None else request.now
    yield from _chlorine(request, began - LOOKED_BACK, began)
    yield from _stabilizer(request)
    yield from _phosphate(request)
    yield from _pump(request)
    last = [entry.at for entry in shocks(request.state) if entry.at < began]
    if not last or began - last[-1] > NO_SHOCK_FOR:
        text = "No shock in the three weeks before: what is combined and what begins to grow stays."
        yield Finding("no_shock", text, Measure.FREE_CHLORINE)


def _chlorine(request: RescueRequest, start: datetime, end: datetime) -> Iterator[Finding]:
    past = [r for r in history(request.state, Measure.FREE_CHLORINE) if start <= r.at <= end]
    before = [r for r in past if r.at < end - timedelta(hours=12)]
    if not before or end - before[-1].at > NO_TEST_FOR:
        days = (end - before[-1].at).days if before else LOOKED_BACK.days
        text = f"Free chlorine was not tested for {days} days or more: nobody saw it go."
        yield Finding("not_tested", text, Measure.FREE_CHLORINE, {"days": days})
    band = request.bands.get(Measure.FREE_CHLORINE)
    if band is not None and band.low is not None and before:
        low = [r for r in before if r.value.value < band.low]
        if len(low) * 3 >= len(before):
            text = f"Free chlorine stood under {band.low:g} in {len(low)} of {len(before)} tests in the five weeks before."
            yield Finding("chlorine_low", text, Measure.FREE_CHLORINE, {"low": len(low)})


def _stabilizer(request: RescueRequest) -> Iterator[Finding]:
    now, band = request.readings.cyanuric_acid, request.bands.get(Measure.CYANURIC_ACID)
    if now is None:
        yield Finding(
            "stabiliser_unknown",
            "Stabiliser is not known: test it, both ends cause this.",
            Measure.CYANURIC_ACID,
        )
    elif band is not None and band.high is not None and now > band.high:
        text = f"Stabiliser at {now:.0f} is over {band.high:.0f}: it binds the chlorine that should have killed it. New water lowers it."
        yield Finding("stabiliser_high", text, Measure.CYANURIC_ACID)
    elif now < STABILIZER_LOW and not request.traits.indoor:
        text = f"Stabiliser at {now:.0f} lets the sun take the chlorine in hours. Raise it last, when it is clear."
        yield Finding("stabiliser_low", text, Measure.CYANURIC_ACID)


def _phosphate(request: RescueRequest) -> Iterator[Finding]:
    phosphate = request.readings.phosphate_ppb
    if phosphate is None:
        yield Finding(
            "phosphate_unknown", "Phosphate is not tested; over 100 ppb it feeds algae.", Measure.PHOSPHATE
        )
    elif phosphate > PHOSPHATE_HIGH_PPB:
        text = f"Phosphate at {phosphate:.0f} ppb feeds algae: a remover when it is clear, then clean the filter."
        yield Finding("phosphate_high", text, Measure.PHOSPHATE)


def _pump(request: RescueRequest) -> Iterator[Finding]:
    plant = request.state.plant
    if plant.pump_flow_l_min is None or not plant.windows:
        return
    turnovers = hours_a_day(plant.windows) * 60 * plant.pump_flow_l_min / request.volume_l
    if turnovers < 1:
        text = f"The pump turned the water over {turnovers:.1f} times a day: part of it never met the filter."
        yield Finding("pump_short", text, None, {"turnovers": turnovers})
