"""The saturation index over the log, and how much of the last weeks it spent over the scaling line.

One vectorised solution for the whole journal. Sources: langelier, scale-forms.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from kumpan.core.chemistry.equilibrium import Known, State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.journal import PoolState, TestTaken, value_in
from kumpan.core.water import READING_MEASURES, Measure, Readings

SOURCES_USED = ("langelier", "scale-forms")

SCALING_OVER = 0.3
WEIGHTED_OVER = timedelta(days=30)
NEEDED = (Measure.PH, Measure.TOTAL_ALKALINITY, Measure.CALCIUM_HARDNESS)


@dataclass(frozen=True)
class IndexPoint:
    at: datetime
    index: float


def index_history(state: PoolState) -> tuple[IndexPoint, ...]:
    """The index at every test of pH, with the other measures as they were last known then.

    Waters within half a degree are solved together: the constants change with temperature only.
    """
    groups: dict[int, list[tuple[datetime, Known]]] = {}
    for at, readings in _waters(state):
        known = known_from(readings)
        if known is not None:
            groups.setdefault(round(known.base.temperature_c), []).append((at, known))
    found = [point for degree, rows in groups.items() for point in _solved_together(degree, rows)]
    return tuple(sorted(found, key=lambda point: point.at))


def _solved_together(degree: int, rows: Sequence[tuple[datetime, Known]]) -> list[IndexPoint]:
    columns = zip(*(known.base for _, known in rows), strict=True)
    arrays = [np.array(column) for column in columns]
    base = Totals(*arrays)._replace(temperature_c=float(degree))  # type: ignore[arg-type]
    many = Known(
        np.array([known.ph for _, known in rows]),  # type: ignore[arg-type]
        np.array([known.total_alkalinity for _, known in rows]),  # type: ignore[arg-type]
        base,
        sulfate_known=False,
    )
    solved = solve_readings(many)
    if not isinstance(solved, State):
        return []
    carbon = np.asarray(solved.totals.carbon)
    with np.errstate(divide="ignore", invalid="ignore"):
        index = np.asarray(saturation_index(solved), dtype=float)
    return [
        IndexPoint(at, float(value))
        for (at, _), value, left in zip(rows, index, carbon, strict=True)
        if left > 0 and np.isfinite(value)
    ]


def _waters(state: PoolState) -> Iterator[tuple[datetime, Readings]]:
    """What was known of the water at each test of pH, once calcium and alkalinity were ever tested."""
    known = Readings(cyanuric_acid=0.0)
    for test in state.tests:
        if not isinstance(test.body, TestTaken):
            continue
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
