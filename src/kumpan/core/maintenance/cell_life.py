"""How long the chlorinator cell has run at output, and what is left of its rated life. Source: cell-life."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.journal import PoolState

SOURCE = "cell-life"

RATED_H = 8000.0  # about 5 000 to 10 000 h
RATED_FROM_H, RATED_TO_H = 5000.0, 10_000.0


@dataclass(frozen=True)
class CellLife:
    """Hours at output so far, the rated hours, what is left, and when it ends at the present pace."""

    run_h: float
    rated_h: float
    left_h: float
    ends_at: datetime | None


FARTHEST_DAYS = 30 * 365


def cell_life(state: PoolState, now: datetime) -> CellLife | None:
    """From the settings in the journal: a day's hours times its percent. None without a cell's setting."""
    settings = [(entry.at, entry.body) for entry in state.cell_settings]
    if not settings:
        return None
    since = state.plant.cell_since
    run = 0.0
    ends = [at for at, _ in settings[1:]] + [now]
    for (at, body), end in zip(settings, ends, strict=True):
        begin = max(at, since) if since is not None else at
        days = max(0.0, (end - begin).total_seconds() / 86_400)
        run += days * body.hours_per_day * body.percent / 100.0
    rated = state.plant.cell_rated_h or RATED_H
    left = max(0.0, rated - run)
    a_day = settings[-1][1].hours_per_day * settings[-1][1].percent / 100.0
    # A cell that hardly runs outlives whatever can be said of it.
    ends_at = now + timedelta(days=left / a_day) if left < a_day * FARTHEST_DAYS else None
    return CellLife(run, rated, left, ends_at)
