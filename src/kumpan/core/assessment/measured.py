"""What was measured and stands outside its band, each with its one remedy.

A value beyond its band by more than the reading's own doubt asks for something; at the edge it is watched.
What was poured since a reading, or a reading too old for its measure, speaks no more.
Sources: swim-limit, school-household.
"""

import math
from collections.abc import Iterator, Mapping

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.chlorine import chlorine, stabilizer_remedy
from kumpan.core.assessment.order import FindingSeverity, Problem, Remedy, RemedyKind
from kumpan.core.assessment.outside import (
    by_now,
    certain,
    edge_reason,
    finding_of,
    left_by_the_plan,
    moved,
    plan_for,
)
from kumpan.core.assessment.undone import undone
from kumpan.core.journal import Reading, history
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import STAINS_AND_FEED, Band
from kumpan.core.ranges.verdicts import VerdictCode, verdict
from kumpan.core.testing.plausibility import spoils_ph

SOURCES_USED = ("swim-limit", "school-household")

K, S, M = RemedyKind, FindingSeverity, Measure
_HIGH, _LOW = VerdictCode.HIGH, VerdictCode.LOW
PH_OPEN = (7.0, 8.0)

# Beyond its band where no product at hand moves it, or before one may. Origin: handbook 03, 04, 06, 07.
OUTSIDE: Mapping[tuple[Measure, VerdictCode], Remedy] = {
    (M.SALT, _HIGH): Remedy(
        kind=K.PLAN, plan="drain", text=Message("Replace part of the water: salt leaves no other way")
    ),
    (M.CALCIUM_HARDNESS, _HIGH): Remedy(
        kind=K.PLAN, plan="drain", text=Message("Replace part of the water: calcium leaves no other way")
    ),
    (M.BORATE, _HIGH): Remedy(
        kind=K.PLAN, plan="drain", text=Message("Replace part of the water: borate leaves no other way")
    ),
    (M.PHOSPHATE, _HIGH): Remedy(
        kind=K.BUY, text=Message("Use phosphate remover by its label, and clean the filter after")
    ),
    (M.COPPER, _HIGH): Remedy(
        kind=K.PROCEDURE,
        procedure="find_copper",
        text=Message(
            "Find where the copper comes from (unit, algaecide, heater, fill water); then sequestrant or new "
            "water"
        ),
    ),
    (M.IRON, _HIGH): Remedy(
        kind=K.BUY,
        text=Message("Sequestrant by its label first, pH 7.2 to 7.4, then chlorine in small parts"),
    ),
}


def measured(case: Case) -> Iterator[Problem]:
    """Every managed measure that is outside its band, and chlorine that is bound or may not be read."""
    yield from chlorine(case)
    yield from _ph(case)
    for measure, band in {**case.bands, **STAINS_AND_FEED}.items():
        if measure in (M.FREE_CHLORINE, M.COMBINED_CHLORINE, M.PH, M.SATURATION_INDEX):
            continue
        reading = by_now(case, measure)
        if reading is None:
            continue
        side = verdict(measure, reading.value.value, band).code
        if side in (_LOW, _HIGH) and not (side is _LOW and not band.dose_low):
            yield _beyond(case, measure, band, reading)


# pH.
def ph_reading(case: Case) -> Reading | None:
    """The pH that speaks for now; None where something undid it."""
    found = case.current(M.PH)
    return None if found is None or undone(case, found.at) else found


def ph_unreliable(case: Case, reading: Reading) -> bool:
    """A color of pH read while chlorine was over 10, which makes it read high."""
    free = [one for one in history(case.state, M.FREE_CHLORINE) if one.at == reading.at]
    levels = [math.inf if one.value.off_scale else one.value.value for one in free]
    return any(spoils_ph(level, reading.value.method) for level in levels)


def _ph(case: Case) -> Iterator[Problem]:
    reading, band = ph_reading(case), case.bands.get(M.PH)
    if reading is None or band is None:
        return
    side = verdict(M.PH, reading.value.value, band).code
    if side is _HIGH and ph_unreliable(case, reading):
        yield Problem(
            code="ph_unreliable",
            severity=S.WATCH,
            remedy=Remedy(
                kind=K.TEST,
                measures=(M.PH,),
                text=Message("Test pH again when chlorine is under 10; no acid"),
            ),
            reason=Message("pH read by color at such a chlorine reads too high."),
            measures=(M.PH,),
            law="D.3",
        )
    elif side in (_HIGH, _LOW):
        yield _ph_beyond(case, reading, band, side)


def _ph_beyond(case: Case, reading: Reading, band: Band, side: VerdictCode) -> Problem:
    value = reading.value.value
    closed = not PH_OPEN[0] <= value <= PH_OPEN[1]
    reason = edge_reason(M.PH, reading, band, side)
    remedy = plan_for(case, M.PH)
    sure = certain(reading, band)
    if remedy is None:
        remedy, asks = left_by_the_plan(case, M.PH), sure or closed
    else:
        asks = True
    severity = S.CLOSES_POOL if closed else S.TREAT_TODAY if asks else S.WATCH
    return finding_of(M.PH, side, severity, remedy=remedy, reason=reason)


# The rest.
def _beyond(case: Case, measure: Measure, band: Band, reading: Reading) -> Problem:
    side = verdict(measure, reading.value.value, band).code
    remedy = plan_for(case, measure) or OUTSIDE.get((measure, side))
    if (measure, side) == (M.CYANURIC_ACID, _HIGH):
        remedy = stabilizer_remedy(case)
    if (measure, side) == (M.TOTAL_ALKALINITY, _HIGH) and _fill_lowers(case, measure, reading):
        remedy = Remedy(
            kind=K.PLAN,
            plan="drain",
            measures=(measure,),
            text=Message("Replace part of the water: the fill water holds less alkalinity"),
        )
    asks = remedy is not None and (certain(reading, band) or measure in moved(case.offered))
    severity = (
        (S.TREAT_TODAY if measure is M.IRON and _wants_chlorine(case) else S.TREAT_SOON) if asks else S.WATCH
    )
    return finding_of(
        measure,
        side,
        severity,
        remedy=remedy or left_by_the_plan(case, measure),
        reason=edge_reason(measure, reading, band, side),
    )


def _wants_chlorine(case: Case) -> bool:
    """Chlorine has to go in, which iron turns into stains."""
    reading = case.current(M.FREE_CHLORINE)
    return reading is not None and case.chlorine.low is not None and reading.value.value < case.chlorine.low


def _fill_lowers(case: Case, measure: Measure, reading: Reading) -> bool:
    fill, band = case.fill.value(measure), case.bands.get(measure)
    return (
        fill is not None
        and band is not None
        and band.high is not None
        and fill < band.high < reading.value.value
    )
