"""A household pool of 50 m3 as it is asked about, and what may be told of it."""

from datetime import timedelta
from typing import Any
from zoneinfo import ZoneInfo

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.swim import SwimAnswer, swim_answer
from kumpan.core.journal import Body, Clarity, Entry, Level, VisualCheck, fold
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band
from tests.core.journal.test_fold import START, entry

VOLUME_L = 50_000.0
BANDS = {
    Measure.FREE_CHLORINE: Band(2, 3, 2.5),
    Measure.COMBINED_CHLORINE: Band(None, 0.5, None, dose_low=False),
    Measure.PH: Band(7.2, 7.8, 7.5),
}
NOW = START + timedelta(minutes=30)
CLEAR = VisualCheck(Clarity.CLEAR, Level.NORMAL)


def journal(*bodies: tuple[int, Body]) -> tuple[Entry, ...]:
    """Entries by their minutes after START; a clear look five minutes before, unless one is told."""
    looked = () if any(isinstance(body, VisualCheck) for _, body in bodies) else ((-5, CLEAR),)
    return tuple(entry(f"{n}", minutes, body) for n, (minutes, body) in enumerate((*looked, *bodies)))


def may_they_swim(*bodies: tuple[int, Body], later: timedelta = timedelta(), **pool: Any) -> SwimAnswer:
    """The answer half an hour after START, or later."""
    usual: dict[str, Any] = {
        "state": fold(journal(*bodies)),
        "now": NOW + later,
        "zone": ZoneInfo("America/Chicago"),
        "volume_l": VOLUME_L,
        "bands": BANDS,
    }
    return swim_answer(Case(**{**usual, **pool}))
