"""Chlorine as it stands: too little, too much, beyond the scale, combined, or bound by stabilizer.

Sources: swim-limit, cya-ratio.
"""

from collections.abc import Iterator
from datetime import datetime, timedelta

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import FindingSeverity, Problem, Remedy, RemedyKind
from kumpan.core.assessment.outside import by_now, edge_reason, finding_of, plan_for
from kumpan.core.assessment.undone import much_new_water, undone
from kumpan.core.journal import Reading, history
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.shown import shown
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import HIGHEST_CYA_PER_FREE_CHLORINE, VerdictCode, verdict
from kumpan.core.testing.plausibility import BLEACHING_FREE_CHLORINE_MG_L

SOURCES_USED = ("swim-limit", "cya-ratio")

K, S, M = RemedyKind, FindingSeverity, Measure
_HIGH, _LOW = VerdictCode.HIGH, VerdictCode.LOW
COMBINED_CLOSES_MG_L = 1.0  # outdoors; indoors and at public pools the range's own limit
BOUND_CLOSES = 45  # stabilizer over free chlorine
OXIDIZER_READS_AS_COMBINED = timedelta(days=7)  # monopersulfate, by the usual test
FREE_AND_TOTAL = (M.FREE_CHLORINE, M.TOTAL_CHLORINE)
CONFIRM_STABILIZER = Remedy(
    kind=K.TEST,
    measures=(M.CYANURIC_ACID,),
    text=Message("Test stabilizer on a diluted sample, stop tablets, then replace part of the water"),
)
DILUTE_STABILIZER = Remedy(
    kind=K.PLAN, plan="drain", text=Message("Stop tablets and replace part of the water: stabilizer stays")
)
CONFIRMED_WITHIN = timedelta(days=30)


def chlorine(case: Case) -> Iterator[Problem]:
    """What free and combined chlorine ask for."""
    yield from _free_chlorine(case)
    yield from _combined(case)
    yield from _bound(case)


# Free chlorine.
def free_chlorine(case: Case) -> Reading | None:
    """The reading of free chlorine that speaks for now; None where something undid it."""
    found = case.current(M.FREE_CHLORINE)
    return None if found is None or undone(case, found.at) else found


def _free_chlorine(case: Case) -> Iterator[Problem]:
    reading = free_chlorine(case)
    if reading is None:
        return
    value, band = reading.value, case.chlorine
    by_now = value.value if case.expected_mg_l is None else case.expected_mg_l
    if value.off_scale or case.bleached:
        yield _off_scale(reading)
    elif value.value > BLEACHING_FREE_CHLORINE_MG_L or value.low > case.limit_mg_l:
        yield _over_the_limit(case, reading)
    elif band.high is not None and (
        by_now > band.high or (value.value > band.high and not _under(case, band))
    ):
        remedy = Remedy(kind=K.TEST, measures=(M.FREE_CHLORINE,), text=Message("Test it again"))
        yield finding_of(
            M.FREE_CHLORINE,
            _HIGH,
            S.WATCH,
            remedy=remedy,
            reason=edge_reason(M.FREE_CHLORINE, reading, band, _HIGH),
        )
    elif value.value < case.least_mg_l:
        yield _chlorine_now(case, reading, S.CLOSES_POOL)
    elif case.expected_mg_l is not None and case.expected_mg_l < case.least_mg_l:
        remedy = Remedy(
            kind=K.TEST, measures=(M.FREE_CHLORINE,), text=Message("Test free chlorine now, then dose")
        )
        reason = Message(
            "By the forecast free chlorine is about {now} by now, under {low}.",
            now=Number(case.expected_mg_l, digits=1),
            low=Number(case.least_mg_l),
        )
        yield finding_of(M.FREE_CHLORINE, _LOW, S.TREAT_TODAY, remedy=remedy, reason=reason)
    elif _under(case, band):
        yield _chlorine_now(case, reading, S.TREAT_TODAY)


def _under(case: Case, band: Band) -> bool:
    """Under the band as read, or by the forecast by now."""
    reading = case.reading(M.FREE_CHLORINE)
    assert reading is not None
    now = reading.value.value if case.expected_mg_l is None else min(reading.value.value, case.expected_mg_l)
    return band.low is not None and now < band.low


def _chlorine_now(case: Case, reading: Reading, severity: FindingSeverity) -> Problem:
    measure = M.FREE_CHLORINE
    # What closes the pool is the reading under the swim minimum, not the band: as the swim answer has it.
    closes = severity is S.CLOSES_POOL
    edge = case.least_mg_l if closes else case.chlorine.low or case.least_mg_l
    read = reading.value.value
    value = read if closes or case.expected_mg_l is None else min(read, case.expected_mg_l)
    reason = Message(
        "Free chlorine {value} is under {edge}.",
        value=shown(measure, value, edge),
        edge=Number(edge),
    )
    remedy = plan_for(case, measure) or Remedy(
        kind=K.BUY, text=Message("Get chlorine: nothing at hand raises it"), measures=(measure,)
    )
    return finding_of(measure, _LOW, severity, remedy=remedy, reason=reason)


def _over_the_limit(case: Case, reading: Reading) -> Problem:
    limit = case.limit_mg_l
    if case.expected_mg_l is not None and case.expected_mg_l <= limit < reading.value.value:
        remedy = Remedy(
            kind=K.TEST,
            measures=(M.FREE_CHLORINE,),
            text=Message("Test free chlorine again: by now it is likely down at the limit"),
        )
    elif case.under_limit_at is not None:
        remedy = Remedy(
            kind=K.PLAN,
            plan="lower_chlorine",
            until=case.under_limit_at,
            text=Message(
                "Lower chlorine: feeder or cell off, cover open, and test again when it should be down"
            ),
        )
    else:
        remedy = Remedy(
            kind=K.PLAN,
            plan="lower_chlorine",
            text=Message("Lower chlorine: feeder or cell off, cover open, and test again tomorrow"),
        )
    reason = Message(
        "Free chlorine {value} is over {edge}.",
        value=shown(M.FREE_CHLORINE, reading.value.value, limit),
        edge=Number(limit),
    )
    return finding_of(M.FREE_CHLORINE, _HIGH, S.CLOSES_POOL, remedy=remedy, reason=reason)


def _off_scale(reading: Reading) -> Problem:
    zero = reading.value.value == 0
    return Problem(
        code="free_chlorine_off_scale",
        severity=S.CLOSES_POOL,
        remedy=Remedy(
            kind=K.TEST,
            measures=(M.FREE_CHLORINE,),
            text=Message("Dilute the sample with chlorine-free water and test again; feeder or cell off"),
        ),
        reason=Message("Zero may be a bleached test: chlorine may be over 10.")
        if zero
        else Message("Free chlorine is beyond the scale of this test: no dose by it."),
        measures=(M.FREE_CHLORINE,),
        law="D.3",
    )


# Combined chlorine.
def combined_chlorine(case: Case) -> Reading | None:
    """Combined chlorine that still speaks: until chlorine or much new water went in, whatever else did; none
    where monopersulfate would be read as it.
    """
    found = case.current(M.COMBINED_CHLORINE)
    if found is None or _may_be_gone(case, found.at) or oxidizer_within_a_week(case):
        return None
    return found


def combined_before(case: Case) -> Reading | None:
    """Combined chlorine over its limit beyond doubt before chlorine or new water went in, and total chlorine
    not tested since: nobody knows whether it is gone.
    """
    found = case.current(M.COMBINED_CHLORINE)
    limit = case.combined_high_mg_l
    if found is None or not limit or found.value.low <= limit or oxidizer_within_a_week(case):
        return None
    return found if _may_be_gone(case, found.at) else None


def _may_be_gone(case: Case, at: datetime) -> bool:
    burned = any(e.at > at and e.body.chemical in CHLORINE_CARRIERS for e in case.state.additions)
    return burned or much_new_water(case, at)


def oxidizer_within_a_week(case: Case) -> bool:
    """Monopersulfate went in, which the usual test reads as combined chlorine for a week."""
    return bool(_oxidizer(case))


def _oxidizer(case: Case) -> list[datetime]:
    recent = case.now - OXIDIZER_READS_AS_COMBINED
    poured = [e.at for e in case.state.additions if e.body.chemical == "potassium_monopersulfate"]
    return [at for at in poured if at > recent]


def combined_closes(case: Case) -> float:
    """Combined chlorine over which nobody swims."""
    return case.combined_high_mg_l if case.indoor or case.public else COMBINED_CLOSES_MG_L


def _combined(case: Case) -> Iterator[Problem]:
    limit = case.combined_high_mg_l
    shocked = _oxidizer(case)
    if shocked:
        read = case.current(M.COMBINED_CHLORINE)
        if read is not None and read.value.value > limit:
            until = shocked[-1] + OXIDIZER_READS_AS_COMBINED
            remedy = Remedy(
                kind=K.WAIT,
                until=until,
                measures=FREE_AND_TOTAL,
                text=Message("No shock by it: test combined chlorine again a week after the oxidizer"),
            )
            reason = Message("A non-chlorine shock is read as combined chlorine for a week.")
            yield finding_of(M.COMBINED_CHLORINE, _HIGH, S.WATCH, remedy=remedy, reason=reason)
        return
    before = combined_before(case)
    if before is not None:
        text = Message("Test free and total chlorine: what went in may have burned it off")
        remedy = Remedy(kind=K.TEST, measures=FREE_AND_TOTAL, text=text)
        reason = Message("Combined chlorine was {value} before.", value=Number(before.value.value, digits=1))
        yield finding_of(M.COMBINED_CHLORINE, _HIGH, S.TREAT_TODAY, remedy=remedy, reason=reason)
    reading = combined_chlorine(case)
    if reading is None or not limit or reading.value.value <= limit:
        return
    yield _combined_high(case, reading, limit)


def _combined_high(case: Case, reading: Reading, limit: float) -> Problem:
    value = reading.value
    reason = Message(
        "Combined {value} is over {edge}.", value=Number(value.value, digits=1), edge=Number(limit)
    )
    if value.low > limit:
        closes = value.low > combined_closes(case)
        text = Message("Shock at dusk: combined chlorine has to be burned off")
        if case.indoor:
            text = Message("Open doors and windows, then shock: combined chlorine has to be burned off")
        remedy = Remedy(kind=K.PLAN, plan="shock", text=text)
        severity = S.CLOSES_POOL if closes else S.TREAT_TODAY
    else:
        unsure = value.value > combined_closes(case)
        severity = S.TREAT_TODAY if unsure else S.WATCH
        remedy = Remedy(
            kind=K.TEST,
            measures=FREE_AND_TOTAL,
            text=Message("Test free and total chlorine again, by drops if you can"),
        )
    return finding_of(M.COMBINED_CHLORINE, _HIGH, severity, remedy=remedy, reason=reason)


# Chlorine that stabilizer binds.
def bound(case: Case) -> tuple[float, float, float] | None:
    """(stabilizer, its lowest over the highest chlorine, free chlorine) where over 20 to 1; else None."""
    free, stabilizer = free_chlorine(case), by_now(case, M.CYANURIC_ACID)
    if free is None or stabilizer is None or free.value.value <= 0:
        return None
    if stabilizer.value.value <= HIGHEST_CYA_PER_FREE_CHLORINE * free.value.value:
        return None
    least = stabilizer.value.low / max(free.value.high, 0.1)
    return stabilizer.value.value, least, free.value.value


def _bound(case: Case) -> Iterator[Problem]:
    found = bound(case)
    if found is None:
        return
    stabilizer, ratio, free = found
    bands = case.bands
    outside = [
        m
        for m, value in ((M.CYANURIC_ACID, stabilizer), (M.FREE_CHLORINE, free))
        if m in bands and verdict(m, value, bands[m]).code in (_LOW, _HIGH)
    ]
    closes = ratio > BOUND_CLOSES
    severity = S.CLOSES_POOL if closes else S.TREAT_TODAY if outside else S.WATCH
    remedy = plan_for(case, M.FREE_CHLORINE) or stabilizer_remedy(case)
    yield Problem(
        code="chlorine_bound",
        severity=severity,
        remedy=remedy,
        reason=Message(
            "Stabilizer {stabilizer} binds most of free chlorine {free}.",
            stabilizer=Number(stabilizer, digits=0),
            free=Number(free, digits=1),
        ),
        measures=(M.FREE_CHLORINE, M.CYANURIC_ACID),
        law="B.3",
    )


def stabilizer_remedy(case: Case) -> Remedy:
    """Confirmed by two tests of a month, or one on a diluted sample, before water is thrown away."""
    recent = [one for one in history(case.state, M.CYANURIC_ACID) if case.now - one.at <= CONFIRMED_WITHIN]
    high = case.bands.get(M.CYANURIC_ACID)
    over = [one for one in recent if high is not None and high.high and one.value.value > high.high]
    return DILUTE_STABILIZER if len(over) > 1 and len(over) == len(recent) else CONFIRM_STABILIZER
