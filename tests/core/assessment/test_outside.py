"""What mends a measure beyond its band: the plan that is offered, or the rescue that comes before it."""

from zoneinfo import ZoneInfo

import pytest

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.outside import plan_for
from kumpan.core.journal import Body, Clarity, Level, RescueSet, Severity, VisualCheck, fold
from kumpan.core.quantities.readings import Measure
from tests.core.assessment.questions import BANDS, NOW, VOLUME_L, journal
from tests.words import told

GREEN = (-5, VisualCheck(Clarity.GREEN, Level.NORMAL))
BEGUN = (-4, RescueSet(severity=Severity.GREEN))


@pytest.mark.parametrize(
    ("entries", "words"),
    [((GREEN,), "Plan the rescue"), ((GREEN, BEGUN), "Go on with the rescue")],
    ids=["green", "begun"],
)
@pytest.mark.parametrize("measure", [Measure.FREE_CHLORINE, Measure.PH])
def test_chlorine_and_ph_of_green_water_are_mended_by_its_rescue(
    measure: Measure, entries: tuple[tuple[int, Body], ...], words: str
) -> None:
    """Handbook 07: pH first, then chlorine far over its range; never the usual plan beside it."""
    case = Case(
        state=fold(journal(*entries)),
        now=NOW,
        zone=ZoneInfo("America/Chicago"),
        volume_l=VOLUME_L,
        bands=BANDS,
    )
    remedy = plan_for(case, measure)
    assert remedy is not None
    assert (told(remedy.text), remedy.plan) == (words, "rescue")
    assert plan_for(case, Measure.TOTAL_ALKALINITY) is None  # nothing is offered here
