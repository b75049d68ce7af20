"""Three ways to set free chlorine: a fixed range, a ratio to stabilizer, or active chlorine by equilibrium.

Sources: cya-ratio, obrien, morris.
"""

from dataclasses import dataclass, replace
from functools import lru_cache

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import HIGHEST_CYA_PER_FREE_CHLORINE

SOURCES_USED = ("cya-ratio", "obrien", "morris")

# The water whose active chlorine is enough: 20 parts of stabilizer to 1 of free chlorine.
REFERENCE_WATER = Readings(
    free_chlorine=2.0, ph=7.5, total_alkalinity=100.0, cyanuric_acid=40.0, temperature_c=25.0
)
HIGHEST_SEARCHED_MG_L = 60.0


@dataclass(frozen=True)
class ChlorineMinimums:
    """Least free chlorine by each way, mg/L; None where it cannot be reckoned."""

    fixed: float | None
    by_ratio: float | None
    by_active: float | None


def hypochlorous_mg_l(readings: Readings) -> float | None:
    """Active chlorine: hypochlorous acid at equilibrium, mg/L as Cl2; None when a reading is missing."""
    known = known_from(readings)
    state = solve_readings(known) if known is not None and readings.free_chlorine is not None else None
    return float(state.species.hocl) * molar.CHLORINE * 1000 if isinstance(state, State) else None


@lru_cache(maxsize=1)
def reference_hypochlorous_mg_l() -> float:
    """The active chlorine (mg/L) of the reference water that the ratio is scaled by."""
    found = hypochlorous_mg_l(REFERENCE_WATER)
    assert found is not None
    return found


def chlorine_minimums(readings: Readings, band: Band) -> ChlorineMinimums:
    """The least free chlorine that each way asks for in this water."""
    ratio = None
    if readings.cyanuric_acid is not None:
        ratio = max(readings.cyanuric_acid / HIGHEST_CYA_PER_FREE_CHLORINE, band.low or 0.0)
    return ChlorineMinimums(band.low, ratio, _least_by_active(readings))


@lru_cache(maxsize=256)
def _least_by_active(readings: Readings) -> float | None:
    """Free chlorine whose hypochlorous acid equals the reference water's, by bisection (monotone)."""
    wanted = reference_hypochlorous_mg_l()
    low, high = 0.0, HIGHEST_SEARCHED_MG_L
    for _ in range(30):
        middle = (low + high) / 2
        found = hypochlorous_mg_l(replace(readings, free_chlorine=middle))
        if found is None:
            return None
        low, high = (middle, high) if found < wanted else (low, middle)
        if high - low < 0.005:
            break
    return high if high < HIGHEST_SEARCHED_MG_L else None


def other_views(readings: Readings, band: Band) -> tuple[Finding, ...]:
    """What the other two ways say of this free chlorine, where they differ from the fixed range."""
    free = readings.free_chlorine
    if free is None:
        return ()
    found, here = chlorine_minimums(readings, band), band.low is not None and free < band.low
    stabilizer = Number(readings.cyanuric_acid or 0, digits=0)
    views = (
        ("by_ratio", found.by_ratio, Message("By stabilizer ratio (stabilizer {cya})", cya=stabilizer)),
        ("by_active", found.by_active, Message("By active chlorine at this pH and stabilizer")),
    )
    return tuple(
        Finding(code, _view(view, least, free), Measure.FREE_CHLORINE, {"least": least})
        for code, least, view in views
        if least is not None and (free < least) != here
    )


def _view(view: Message, least: float, free: float) -> Message:
    if free < least:
        return Message("{view} it takes {least} or more: low.", view=view, least=Number(least, digits=1))
    return Message("{view} it takes {least} or more: enough.", view=view, least=Number(least, digits=1))
