"""The lane board: last readings with their doubt, verdicts, workings, and where the plan would leave them."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from uuid import UUID

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.findings import Finding
from kumpan.core.forecast.expected import last_values, measured_readings
from kumpan.core.journal import PoolState, history, last_reading
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.quantities.names import BOARD_ORDER
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.chlorine_targets import other_views
from kumpan.core.ranges.disagreements import answer
from kumpan.core.ranges.other_profiles import other_profiles
from kumpan.core.ranges.profiles import STAINS_AND_FEED, Band
from kumpan.core.ranges.targets import resolution
from kumpan.core.ranges.verdicts import bound_chlorine
from kumpan.core.testing.methods import Measured
from kumpan.core.treatment.derivations import GaugeContext, gauge_derivation
from kumpan.core.treatment.too_coarse import too_coarse
from kumpan.core.treatment.too_old import too_old
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import PoolParts, offered_plan, parts_of
from kumpan.services.pools.views import Board, PouredSince
from kumpan.services.treatments.calculations import analyze
from kumpan.wording.gauges import AIM_STEPS, Gauge, GaugeMark, gauge, mark_of

TRAIL = 4


@dataclass(frozen=True, kw_only=True)
class _Seen:
    """What every lane is drawn from, reckoned once for the board."""

    state: PoolState
    parts: PoolParts
    readings: Readings
    water: State | None
    predicted: Readings | None
    coarse: frozenset[Measure]
    old: frozenset[Measure]
    now: datetime


async def board(scope: Scope, pool_id: UUID) -> Board:
    """The lane board of one pool now."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    readings = measured_readings(state)
    offered = await offered_plan(scope, state, parts, units=Units.US)
    predicted = offered.predicted if offered is not None and offered.steps else None
    last = state.last_test
    coarse = frozenset(too_coarse(readings, last_values(state), parts.bands))
    old = frozenset(too_old(state, scope.now))
    seen = _Seen(
        state=state,
        parts=parts,
        readings=readings,
        water=_solved(readings),
        predicted=predicted,
        coarse=coarse,
        old=old,
        now=scope.now,
    )
    return Board(
        gauges=tuple(_gauge(seen, measure) for measure in (*BOARD_ORDER, *_besides(seen))),
        profile_name=parts.rules.name,
        tested_at=last.at if last else None,
        kit=last.body.kit if last else None,
        temperature_c=readings.temperature_c,
        poured_since=_poured_since(state),
        findings=_findings(readings, parts),
    )


IN_MINIATURE = tuple(measure for measure in BOARD_ORDER if measure is not Measure.SATURATION_INDEX)


def marks(state: PoolState, parts: PoolParts) -> tuple[GaugeMark, ...]:
    """The board in miniature, as a list of pools shows it: the last reading of each measure on its lane."""
    readings = measured_readings(state)
    found = []
    for measure in IN_MINIATURE:
        past = history(state, measure)
        drawn = gauge(
            measure,
            parts.bands.get(measure),
            reading=past[-1].value if past else None,
            planned=None,
            trail=(),
            readings=readings,
        )
        found.append(mark_of(drawn))
    return tuple(found)


WATCHED_BY_A_UNIT = (Measure.COPPER, Measure.PHOSPHATE)


def _besides(seen: _Seen) -> list[Measure]:
    """Lanes that only some pools have: metals, phosphate and solids once they were tested; a mineral or
    ion unit
    has its copper and phosphate from the start.
    """
    unit = seen.parts.equipment.traits.chlorination is Chlorination.MINERAL
    return [
        measure
        for measure in (Measure.COPPER, Measure.IRON, Measure.PHOSPHATE, Measure.TDS)
        if history(seen.state, measure) or (unit and measure in WATCHED_BY_A_UNIT)
    ]


def _band(seen: _Seen, measure: Measure) -> Band | None:
    return seen.parts.bands.get(measure) or STAINS_AND_FEED.get(measure)


def _findings(readings: Readings, parts: PoolParts) -> tuple[Finding, ...]:
    bound = bound_chlorine(readings)
    views = (
        ()
        if answer(parts.settings.choices, "chlorine") != "fixed"
        else other_views(readings, parts.bands[Measure.FREE_CHLORINE])
    )
    saved = tuple(view for view in views if bound is None or view.code != "by_ratio")
    return (*((bound,) if bound else ()), *saved, *parts.rules.findings)


def _gauge(seen: _Seen, measure: Measure) -> Gauge:
    state, parts, readings, predicted = seen.state, seen.parts, seen.readings, seen.predicted
    trail: tuple[float, ...] = ()
    if measure is Measure.SATURATION_INDEX:
        reading = _index_reading(state, readings)
        planned = _index_of(predicted) if predicted is not None and reading is not None else None
    else:
        past = history(state, measure)
        reading = past[-1].value if past else None
        planned = predicted.value(measure) if predicted is not None else None
        trail = tuple(earlier.value.value for earlier in past[-1 - TRAIL : -1])
    if planned is not None and reading is not None and abs(planned - reading.value) <= resolution(measure):
        planned = None
    drawn = gauge(
        measure, _band(seen, measure), reading=reading, planned=planned, trail=trail, readings=readings
    )
    classic = analyze(readings).saturation_index_classic if measure is Measure.SATURATION_INDEX else None
    context = GaugeContext(
        readings=readings,
        state=seen.water,
        profile=parts.profile,
        band=_band(seen, measure),
        classic_index=classic,
    )
    found = replace(drawn, derivation=gauge_derivation(measure, reading, context))
    if reading is None:
        return found
    found = replace(found, **_trust(seen, measure))
    others = other_profiles(
        measure,
        reading.value,
        own=parts.bands.get(measure),
        traits=parts.equipment.traits,
        stabilizer_mg_l=readings.cyanuric_acid,
    )
    return replace(found, findings=(*found.findings, others)) if others else found


def _trust(seen: _Seen, measure: Measure) -> dict[str, Any]:
    """How far the reading can be leant on: its age, whether it carries a dose, whether it can be aimed."""
    last = last_reading(seen.state, measure)
    if last is None:
        return {}
    band = seen.parts.bands.get(measure)
    can_aim = measure in AIM_STEPS and band is not None and band.high is not None
    return {
        "aim_step": AIM_STEPS[measure] if can_aim else None,
        "age_days": (seen.now - last.at).days,
        "old": measure in seen.old,
        "coarse": measure in seen.coarse,
    }


def _solved(readings: Readings) -> State | None:
    known = known_from(readings)
    found = solve_readings(known) if known is not None else None
    return found if isinstance(found, State) else None


def _index_of(readings: Readings) -> float | None:
    state = _solved(readings) if readings.calcium_hardness else None
    return float(saturation_index(state)) if state is not None else None


def _index_reading(state: PoolState, readings: Readings) -> Measured | None:
    """The index as a reading: its doubt is that of pH, which outweighs the others."""
    index = _index_of(readings)
    past = history(state, Measure.PH)
    if index is None or not past:
        return None
    ph = past[-1].value
    return Measured(
        measure=Measure.SATURATION_INDEX,
        value=index,
        low=index - (ph.value - ph.low),
        high=index + (ph.high - ph.value),
        method=ph.method,
    )


def _poured_since(state: PoolState) -> tuple[PouredSince, ...]:
    last = state.last_test
    return tuple(
        PouredSince(entry.body.label, entry.at)
        for entry in state.additions
        if (last is None or entry.at > last.at)
    )
