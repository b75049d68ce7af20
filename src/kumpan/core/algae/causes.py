"""Why it turned, as far as the journal tells, and what keeps it from coming back. Source: rescue-causes."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from kumpan.core.algae.request import RescueRequest
from kumpan.core.findings import Finding
from kumpan.core.journal import history
from kumpan.core.maintenance.circulation import hours_a_day
from kumpan.core.maintenance.shocks import shocks
from kumpan.core.messages import Message, Plural
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number

SOURCE = "rescue-causes"

LOOKED_BACK = timedelta(days=35)
PHOSPHATE_HIGH_PPB = 100.0
STABILIZER_LOW = 20.0
NO_TEST_FOR = timedelta(days=7)
NO_SHOCK_FOR = timedelta(days=21)

PREVENTION = (
    Message("Test at least once a week, twice in heat or heavy use."),
    Message("Shock weekly over 80 °F (27 °C), else every two weeks."),
    Message("Brush weekly, dead corners twice; returns aimed down 45 degrees."),
    Message("Pump hours for a whole turnover a day, more in heat."),
    Message("Phosphate under 100 ppb; after a remover comes filter work."),
    Message(
        "If you like: borate at 30 to 50, enzymes twice a month; by their labels, where they are allowed."
    ),
    Message("If you use a preventive algaecide: by its label, after clearing; copper kinds stain over 0.3."),
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
    if _known_for(request, began) < NO_SHOCK_FOR:
        return  # a journal that begins later tells nothing of those weeks
    if not last or began - last[-1] > NO_SHOCK_FOR:
        text = Message("No shock in the three weeks before: what is combined and what begins to grow stays.")
        yield Finding("no_shock", text, Measure.FREE_CHLORINE)


def _known_for(request: RescueRequest, until: datetime) -> timedelta:
    """How long the journal tells of this pool."""
    state = request.state
    known = [e.at for e in (*state.tests, *state.visual_checks, *state.additions, *state.care)]
    return until - min(known) if known else timedelta()


def _chlorine(request: RescueRequest, start: datetime, end: datetime) -> Iterator[Finding]:
    past = [r for r in history(request.state, Measure.FREE_CHLORINE) if start <= r.at <= end]
    before = [r for r in past if r.at < end - timedelta(hours=12)]
    known = _known_for(request, end) >= NO_TEST_FOR
    if known and (not before or end - before[-1].at > NO_TEST_FOR):
        days = (end - before[-1].at).days if before else min(LOOKED_BACK, _known_for(request, end)).days
        text = Message(
            "Free chlorine was not tested for {days} or more: nobody saw it go.",
            days=Plural("{n} day", "{n} days", days),
        )
        yield Finding("not_tested", text, Measure.FREE_CHLORINE, {"days": days})
    band = request.bands.get(Measure.FREE_CHLORINE)
    if band is not None and band.low is not None and before:
        low = [r for r in before if r.value.value < band.low]
        if len(low) * 3 >= len(before):
            text = Message(
                "Free chlorine stood under {low} in {low_2} of {before} tests in the five weeks before.",
                low=Number(band.low),
                low_2=Number(len(low)),
                before=Number(len(before)),
            )
            yield Finding("chlorine_low", text, Measure.FREE_CHLORINE, {"low": len(low)})


def _stabilizer(request: RescueRequest) -> Iterator[Finding]:
    now, band = request.readings.cyanuric_acid, request.bands.get(Measure.CYANURIC_ACID)
    if now is None:
        yield Finding(
            "stabiliser_unknown",
            Message("Stabilizer is not known: test it, both ends cause this."),
            Measure.CYANURIC_ACID,
        )
    elif band is not None and band.high is not None and now > band.high:
        text = Message(
            "Stabilizer at {now} is over {high}: it binds the chlorine that should have killed it. New "
            "water lowers it.",
            now=Number(now, digits=0),
            high=Number(band.high, digits=0),
        )
        yield Finding("stabiliser_high", text, Measure.CYANURIC_ACID)
    elif now < STABILIZER_LOW and not request.traits.indoor:
        text = Message(
            "Stabilizer at {now} lets the sun take the chlorine in hours. Raise it last, when it is clear.",
            now=Number(now, digits=0),
        )
        yield Finding("stabiliser_low", text, Measure.CYANURIC_ACID)


def _phosphate(request: RescueRequest) -> Iterator[Finding]:
    phosphate = request.readings.phosphate_ppb
    if phosphate is None:
        yield Finding(
            "phosphate_unknown",
            Message("Phosphate is not tested; over 100 ppb it feeds algae."),
            Measure.PHOSPHATE,
        )
    elif phosphate > PHOSPHATE_HIGH_PPB:
        text = Message(
            "Phosphate at {phosphate} ppb feeds algae: a remover when it is clear, then clean the filter.",
            phosphate=Number(phosphate, digits=0),
        )
        yield Finding("phosphate_high", text, Measure.PHOSPHATE)


def _pump(request: RescueRequest) -> Iterator[Finding]:
    plant = request.state.plant
    if plant.pump_flow_l_min is None or not plant.windows:
        return
    turnovers = hours_a_day(plant.windows) * 60 * plant.pump_flow_l_min / request.volume_l
    if turnovers < 1:
        text = Message(
            "The pump turned the water over {turnovers} times a day: part of it never met the filter.",
            turnovers=Number(turnovers, digits=1),
        )
        yield Finding("pump_short", text, None, {"turnovers": turnovers})
