"""The saturation index over the log, and how much of the last weeks it spent over the scaling line.

One vectorised solution for the whole journal. Sources: langelier, scale-forms.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np
import numpy.typing as npt

from kumpan.core.chemistry.equilibrium import Known, State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.journal import PoolState, value_in
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import READING_MEASURES, Measure, Readings
from kumpan.core.quantity import Number

SOURCES_USED = ("langelier", "scale-forms")

Array = npt.NDArray[np.float64]
SCALING_OVER = 0.3
WEIGHTED_OVER = timedelta(days=30)
NEEDED = (Measure.PH, Measure.TOTAL_ALKALINITY, Measure.CALCIUM_HARDNESS)


@dataclass(frozen=True)
class IndexPoint:
    """The saturation index of one test; no unit."""

    at: datetime
    index: float


def index_history(state: PoolState) -> tuple[IndexPoint, ...]:
    """The index at every test of pH, with the other measures as they were last known then.

    All waters are solved together at the coldest and at the warmest of them, and each is read on the line
    between: the constants change with temperature only, and the index almost straight with it.
    """
    rows = [(at, known) for at, water in _waters(state) if (known := known_from(water)) is not None]
    if not rows:
        return ()
    warmth = np.array([known.base.temperature_c for _, known in rows])
    cold, warm = float(warmth.min()), float(warmth.max())
    at_cold = _solved_together(cold, rows)
    at_warm = at_cold if warm == cold else _solved_together(warm, rows)
    share = np.zeros(len(rows)) if warm == cold else (warmth - cold) / (warm - cold)
    index = at_cold + share * (at_warm - at_cold)
    return tuple(
        IndexPoint(at, float(value)) for (at, _), value in zip(rows, index, strict=True) if np.isfinite(value)
    )


def _solved_together(temperature_c: float, rows: Sequence[tuple[datetime, Known]]) -> Array:
    """The index of many waters at one temperature; NaN where carbonate does not exist."""
    columns = zip(*(known.base for _, known in rows), strict=True)
    arrays = [np.array(column) for column in columns]
    base = Totals(*arrays)._replace(temperature_c=temperature_c)  # type: ignore[arg-type]
    many = Known(
        np.array([known.ph for _, known in rows]),  # type: ignore[arg-type]
        np.array([known.total_alkalinity for _, known in rows]),  # type: ignore[arg-type]
        base,
        sulfate_known=False,
    )
    solved = solve_readings(many)
    if not isinstance(solved, State):
        return np.full(len(rows), np.nan)
    with np.errstate(divide="ignore", invalid="ignore"):
        index = np.asarray(saturation_index(solved), dtype=np.float64)
    return np.where(np.asarray(solved.totals.carbon) > 0, index, np.nan)


def _waters(state: PoolState) -> Iterator[tuple[datetime, Readings]]:
    """What was known of the water at each test of pH, once calcium and alkalinity were ever tested."""
    known = Readings(cyanuric_acid=0.0)
    for test in state.tests:
        for measure in READING_MEASURES:
            value = value_in(test.body.values, measure)
            if value is not None:
                known = known.with_value(measure, value.value)
        has_ph = value_in(test.body.values, Measure.PH) is not None
        if has_ph and all(known.value(measure) for measure in NEEDED):
            yield test.at, known


def scaling_index(history: Sequence[IndexPoint], now: datetime) -> float | None:
    """The mean index of the last weeks, the latest counting most; None without a test in that time."""
    recent = [point for point in history if now - point.at <= WEIGHTED_OVER]
    if not recent:
        return None
    weights = [1.0 - (now - point.at) / WEIGHTED_OVER * 0.75 for point in recent]
    return sum(w * point.index for w, point in zip(weights, recent, strict=True)) / sum(weights)


def scaling_text(mean_index: float) -> Message:
    """What the mean index of the last weeks means for a cell."""
    mean = Number(mean_index, digits=2, signed=True)
    if mean_index > SCALING_OVER:
        return Message(
            "Scaling index over the last weeks {mean}: it scales; acid takes it off, balance keeps it off.",
            mean=mean,
        )
    return Message("Scaling index over the last weeks {mean}: no reason to scale.", mean=mean)
