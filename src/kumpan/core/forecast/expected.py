"""The water as it should be now: the last readings that count, and what was poured or replaced since each.

What was poured counts in every measure until a test of it that was taken after its mixing time; a reading
taken sooner is shown, not used, and erases no pour. Use-up over time is not reckoned with: that is the
forecast's. Sources: mass-balance, mixing.
"""

from bisect import bisect_left, bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings, solve_totals
from kumpan.core.dosing.dilution import MIXES, fill_with_zeros
from kumpan.core.dosing.mass_balance import BALANCED, added_to, change_per_g
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.order_and_waits import MIXING
from kumpan.core.forecast.conditions import product_of
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Entry,
    PoolState,
    Reading,
    WaterChange,
    WaterChanged,
    history,
    last_reading,
    once_a_state,
)
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import READING_MEASURES, Measure, Readings
from kumpan.core.testing.methods import Measured

SOURCES_USED = ("mass-balance", "mixing")

_M = Measure
CHLORINES = (_M.FREE_CHLORINE, _M.TOTAL_CHLORINE, _M.COMBINED_CHLORINE)
_BALANCE = (_M.PH, _M.TOTAL_ALKALINITY)
# What each chemical is poured for or is known to move: these are read again only once it is mixed.
# Tablets dissolve over days and need no mixing time. Origin: handbook 05, mixing (common practice).
MOVES: Mapping[str, tuple[Measure, ...]] = {
    "sodium_bicarbonate": _BALANCE,
    "sodium_carbonate": _BALANCE,
    "sodium_hydroxide": _BALANCE,
    "borax": (*_BALANCE, _M.BORATE),
    "boric_acid": (_M.BORATE,),
    "hydrochloric_acid": _BALANCE,
    "sodium_bisulfate": _BALANCE,
    "calcium_chloride": (_M.CALCIUM_HARDNESS,),
    "cyanuric_acid": (_M.CYANURIC_ACID, _M.PH),
    "sodium_chloride": (_M.SALT,),
    "sodium_hypochlorite": CHLORINES,
    "calcium_hypochlorite": CHLORINES,
    "sodium_dichlor": CHLORINES,
    "sodium_thiosulfate": CHLORINES,
}
LITTLE_COMBINED_MG_L = 0.5
COMBINED_SPEAKS_FOR = timedelta(days=30)
_MIXES_WITHIN = timedelta(minutes=max(row.minutes for row in MIXING.values()))
NEW_WATER_COUNTS = 0.05  # of the pool; less than that is within every test's doubt


def mixed_at(poured: Entry[AdditionMade], measure: Measure) -> datetime | None:
    """When a measure can be read again after something went in; None where it does not move it."""
    if measure not in MOVES.get(poured.body.chemical, ()):
        return None
    row = MIXING[_M.FREE_CHLORINE if measure in CHLORINES else measure]
    return poured.at + timedelta(minutes=row.minutes)


@once_a_state
def settled_reading(state: PoolState, measure: Measure) -> Reading | None:
    """The latest reading of a measure that was taken when all that went in before it had mixed.

    Free chlorine may follow from a test of total chlorine alone.
    """
    past = history(state, measure)
    if measure is _M.FREE_CHLORINE:
        past = (*past, *_free_by_total(state, past[-1].at if past else None))
    for reading in reversed(past):
        if not any(
            _unmixed(poured, measure, reading.at) for poured in _poured_shortly_before(state, reading)
        ):
            return reading
    return None


def _poured_shortly_before(state: PoolState, reading: Reading) -> Sequence[Entry[AdditionMade]]:
    """What may not have been mixed when a reading was taken; the additions are in order of their time."""
    first = bisect_left(state.additions, reading.at - _MIXES_WITHIN, key=_happened)
    return state.additions[first : bisect_left(state.additions, reading.at, key=_happened)]


def _happened(entry: Entry) -> datetime:
    return entry.at


def _free_by_total(state: PoolState, after: datetime | None) -> list[Reading]:
    """Free chlorine where only total was tested last: less what was combined in the last month, if little."""
    total = last_reading(state, _M.TOTAL_CHLORINE)
    if total is None or (after is not None and total.at <= after):
        return []
    combined = last_reading(state, _M.COMBINED_CHLORINE)
    known = combined is not None and total.at - combined.at <= COMBINED_SPEAKS_FOR
    if not known or combined is None or combined.value.value > LITTLE_COMBINED_MG_L:
        return []
    low, high = max(0.0, total.value.value - LITTLE_COMBINED_MG_L), total.value.high
    return [
        Reading(
            replace(total.value, measure=_M.FREE_CHLORINE, value=(low + high) / 2, low=low, high=high),
            total.at,
        )
    ]


def _unmixed(poured: Entry[AdditionMade], measure: Measure, at: datetime) -> bool:
    ready = mixed_at(poured, measure) if poured.at < at else None
    return ready is not None and at < ready


def untested_since(state: PoolState, now: datetime) -> frozenset[Measure]:
    """Measures that something moved since they were tested and that must be read before more goes in: pH and
    alkalinity until a test, the others until they are mixed.
    """
    found = set()
    for measure in (*_BALANCE, _M.CALCIUM_HARDNESS, _M.CYANURIC_ACID, _M.SALT, _M.BORATE):
        last = settled_reading(state, measure)
        first = 0 if last is None else bisect_right(state.additions, last.at, key=_happened)
        for poured in state.additions[first:]:
            ready = mixed_at(poured, measure)
            if ready is None:
                continue
            if measure in _BALANCE or now < ready:
                found.add(measure)
    return frozenset(found)


@once_a_state
def measured_readings(state: PoolState) -> Readings:
    """The latest value of every measure that counts, whenever it was tested."""
    readings = Readings()
    for measure in READING_MEASURES:
        last = settled_reading(state, measure)
        if last is not None:
            readings = readings.with_value(measure, last.value.value)
    return readings


def last_values(state: PoolState) -> tuple[Measured, ...]:
    """The latest value of every measure that counts, with its doubt."""
    return tuple(last.value for m in READING_MEASURES if (last := settled_reading(state, m)) is not None)


@once_a_state
def expected_now(state: PoolState) -> Readings:
    """The latest values moved by what was poured or replaced after each was measured; pH by the equilibrium.

    pH is not known where something that moves it went in and alkalinity or stabilizer is not known.
    """
    readings = measured_readings(state)
    if state.basin is None:
        return readings
    tested_at = {m: last.at for m in READING_MEASURES if (last := settled_reading(state, m)) is not None}
    first = min(tested_at.values(), default=datetime.max.replace(tzinfo=UTC))
    changes: list[Entry[AdditionMade] | Entry[WaterChanged]] = [*state.additions, *_much_new_water(state)]
    for entry in sorted(changes, key=lambda entry: entry.at):
        if entry.at <= first:
            continue
        later = frozenset(measure for measure, at in tested_at.items() if at < entry.at)
        if isinstance(entry.body, AdditionMade):
            readings = _with_addition(readings, entry.body, later, state.basin)
        else:
            readings = _with_new_water(readings, entry.body, later, state)
    if _M.PH in tested_at:
        readings = replace(readings, ph=_ph_by_now(state, tested_at, readings))
    return readings


def _with_addition(
    readings: Readings, body: AdditionMade, later: frozenset[Measure], basin: BasinMeasured
) -> Readings:
    product = product_of(body)
    moved = {
        m: body.mass_g * change_per_g(product, m, basin.volume_l, spent=True) for m in BALANCED if m in later
    }
    if basin.volume_is_unknown:  # it moved, and nobody knows how far
        return replace(readings, **{measure.value: None for measure, change in moved.items() if change})
    return added_to(readings, {measure: change for measure, change in moved.items() if change})


def _much_new_water(state: PoolState) -> list[Entry[WaterChanged]]:
    """Exchanges of water that count; a backwash or a shower of rain is within every test's doubt."""
    assert state.basin is not None
    if state.basin.volume_is_unknown:
        return [e for e in state.water_changes if e.body.kind in (WaterChange.DRAIN, WaterChange.REFILL)]
    return [e for e in state.water_changes if e.body.volume_l >= NEW_WATER_COUNTS * state.basin.volume_l]


def _with_new_water(
    readings: Readings, body: WaterChanged, later: frozenset[Measure], state: PoolState
) -> Readings:
    """Diluted by the fill water as it was told; rain holds nothing; unknown where the fill's is unknown."""
    assert state.basin is not None
    share = min(1.0, body.volume_l / state.basin.volume_l)
    rain = body.kind is WaterChange.RAIN
    fill = fill_with_zeros(state.equipment.fill_water if state.equipment else Readings())
    for measure in MIXES:
        old = readings.value(measure)
        if measure is _M.TEMPERATURE or measure not in later or old is None:
            continue
        new = 0.0 if rain else fill.value(measure)
        if state.basin.volume_is_unknown:
            new = None
        readings = readings.with_value(measure, None if new is None else old + (new - old) * share)
    return readings


def _ph_by_now(state: PoolState, tested_at: Mapping[Measure, datetime], now: Readings) -> float | None:
    """pH as last tested, moved by what went in since; None where that cannot be reckoned."""
    at = tested_at[_M.PH]
    read = settled_reading(state, _M.PH)
    assert read is not None
    if any(e.at > at for e in _much_new_water(state)):
        return None
    poured = [e.body for e in state.additions if e.at > at and e.body.chemical in _MOVE_PH]
    if not poured:
        return read.value.value
    assert state.basin is not None
    if state.basin.volume_is_unknown:
        return None
    known = known_from(_as_of(now, state, at))
    solved = solve_readings(known) if known is not None else None
    if not isinstance(solved, State):
        return None if any(body.chemical not in CHLORINE_CARRIERS for body in poured) else read.value.value
    totals = solved.totals
    for body in poured:
        totals = added(totals, product_of(body), body.mass_g, state.basin.volume_l, spent=True)
    return float(solve_totals(totals, read.value.value).species.ph)


_MOVE_PH = (*(chemical for chemical, moved in MOVES.items() if _M.PH in moved), "sodium_dichlor", "trichlor")


def _as_of(now: Readings, state: PoolState, at: datetime) -> Readings:
    """The water at the time of the pH test: as it should be now, less what went in since."""
    assert state.basin is not None
    read = settled_reading(state, _M.PH)
    water = replace(now, ph=read.value.value if read else None)
    for measure in (m for m in BALANCED if m is not _M.FREE_CHLORINE):
        value = water.value(measure)
        since = [e.body for e in state.additions if e.at > at]
        if value is None or not since:
            continue
        moved = sum(
            b.mass_g * change_per_g(product_of(b), measure, state.basin.volume_l, spent=True) for b in since
        )
        water = water.with_value(measure, max(0.0, value - moved))
    return water


def expected_ph(state: PoolState) -> float | None:
    """pH as last tested, moved by what went in since; None before its first test, or where alkalinity or
    stabilizer is not known and something that moves it went in.
    """
    return expected_now(state).ph
