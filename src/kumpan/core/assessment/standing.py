"""What goes on at a pool and what its tests are worth: open plans, pours since, old tests, a demand that eats
chlorine, the states that the judge knows. Sources: mixing, test-interval, overnight-loss, order.
"""

from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime, timedelta

from kumpan.core.assessment.case import LOCAL_MEASURES, Case
from kumpan.core.assessment.order import FindingSeverity, Problem, Remedy, RemedyKind
from kumpan.core.assessment.undone import (
    called,
    last_event,
    much_new_water,
    poured_since,
    poured_that_needs_a_test,
    power_was_off,
    ready,
)
from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.forecast.expected import MOVES, mixed_at
from kumpan.core.journal import (
    Entry,
    NotedEvent,
    TestTaken,
    TreatmentStarted,
    history,
    last_reading,
    next_step,
    open_treatment,
    unfinished_closures,
    value_in,
)
from kumpan.core.messages import Cased, Message, Plural, listed
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import READING_MEASURES, Measure
from kumpan.core.quantity import Number, PoolWater
from kumpan.core.treatment.not_now import COLD_C, FRESH_PLASTER

SOURCES_USED = ("mixing", "test-interval", "overnight-loss", "order")

K, S, M = RemedyKind, FindingSeverity, Measure
READ_AGAIN = (M.FREE_CHLORINE, M.TOTAL_CHLORINE, M.PH, M.TOTAL_ALKALINITY)
WARM_C = 32.0  # about 90 F
BORATE_SPEAKS_FOR = timedelta(days=180)
BORATE_THERE_MG_L = 5.0
MOST_LOST_MG_L = 1.0  # in a night without sun
ZERO_MG_L = 0.3
DOSES_IN_VAIN = 2  # never the same small dose a third time
WORTH_A_DOSE_G = 1.0
WINTER_GAP = timedelta(days=45)
STABILIZER_WAS, STABILIZER_GONE = 20.0, 10.0
INDEX_EDGE = 0.3


def standing(case: Case) -> Iterator[Problem]:
    """All that does not follow from a look or from one reading alone."""
    yield from _open(case)
    if case.winter_closed:
        yield _problem(
            "winter_closed",
            S.CLOSES_POOL,
            remedy=Remedy(
                kind=K.PROCEDURE,
                procedure="winter",
                text=Message(
                    "Winter duties: water and leaves off the cover, weights, level; nobody on the cover"
                ),
            ),
            reason=Message("The pool is closed for the winter."),
            law="B.8",
        )
        return
    yield from _since_the_test(case)
    yield from _tests(case)
    yield from _demand(case)
    yield from _states(case)
    yield from _of_the_basin(case)
    yield from _index(case)


def _problem(
    code: str,
    severity: FindingSeverity,
    *,
    remedy: Remedy,
    reason: Message,
    about: Measure | None = None,
    law: str = "A.2",
) -> Problem:
    return Problem(
        code=code,
        severity=severity,
        remedy=remedy,
        reason=reason,
        measures=(about,) if about is not None else remedy.measures,
        law=law,
    )


# What is open.
def _open(case: Case) -> Iterator[Problem]:
    closures, opened = unfinished_closures(case.state), open_treatment(case.state)
    for closure in closures:
        code = "incident_open" if closure.body.plan == "incident" else "treatment_open"
        if opened is not None and closure.id == opened.id:
            yield _goes_on(case, opened, code, S.CLOSES_POOL)
        else:
            remedy = Remedy(
                kind=K.TEST,
                measures=LOCAL_MEASURES,
                text=Message("Test free chlorine and pH: the plan ends so"),
            )
            reason = Message("The plan that closed the pool ends with a test.")
            yield replace(
                _problem(code, S.CLOSES_POOL, remedy=remedy, reason=reason, law="B.5"), entries=(closure.id,)
            )
    if opened is not None and not any(closure.id == opened.id for closure in closures):
        yield _goes_on(case, opened, "treatment_open", S.TREAT_TODAY)
    if case.state.rescue_goes_on:
        remedy = Remedy(kind=K.PLAN, plan="rescue", text=Message("Go on with the rescue"))
        reason = Message("What is due now follows from the last test and look.")
        yield _problem("rescue_open", S.CLOSES_POOL, remedy=remedy, reason=reason, law="E.3")


def _goes_on(case: Case, opened: Entry[TreatmentStarted], code: str, severity: FindingSeverity) -> Problem:
    step = next_step(case.state, opened)
    kind = opened.body.plan if opened.body.plan in ("rescue", "incident") else "balance"
    text = Message("Go on with the plan: {step}", step=Cased(step.title))
    remedy = Remedy(kind=K.PLAN, plan=kind, text=text)
    return Problem(
        code=code, severity=severity, remedy=remedy, reason=step.why, entries=(opened.id,), law="B.5"
    )


# What undid the test.
def _since_the_test(case: Case) -> Iterator[Problem]:
    read = [case.reading(measure) for measure in LOCAL_MEASURES]
    known = [one.at for one in read if one is not None]
    if known:
        yield from _poured(case, min(known))
        yield from _new_water(case, min(known))
    yield from _stabilizer_mixing(case)
    yield from _power(case)


def _poured(case: Case, tested_at: datetime) -> Iterator[Problem]:
    needs = poured_that_needs_a_test(case, tested_at)
    since = poured_since(case, tested_at)
    if not since:
        return
    until = max(ready(e) for e in since)
    moved = tuple(m for e in since for m in MOVES.get(e.body.chemical, ()) if m in READ_AGAIN)
    measures = tuple(dict.fromkeys(moved)) or LOCAL_MEASURES
    entries = tuple(e.id for e in since)
    reason = Message("Since the last test this went in: {what}.", what=called(since[-1]))
    if needs is None:
        if case.now < until:
            remedy = Remedy(kind=K.WAIT, text=Message("Pump on until it is mixed"), until=until)
            yield replace(
                _problem("poured_since_test", S.WATCH, remedy=remedy, reason=reason), entries=entries
            )
        return
    if case.now < until:
        text = Message(
            "Wait with the pump on, then test {measures}", measures=listed(map(name_in_sentence, measures))
        )
        remedy = Remedy(kind=K.WAIT, text=text, until=until, measures=measures)
    else:
        text = Message("Test {measures}", measures=listed(map(name_in_sentence, measures)))
        remedy = Remedy(kind=K.TEST, text=text, measures=measures)
    yield replace(
        _problem("poured_since_test", S.TREAT_TODAY, remedy=remedy, reason=reason, law="B.4"), entries=entries
    )


def _new_water(case: Case, tested_at: datetime) -> Iterator[Problem]:
    filled = last_event(case, NotedEvent.FILLED)
    if filled is not None and not _all_tested_since(case, filled[0]):
        remedy = Remedy(
            kind=K.TEST,
            text=Message("Test everything: chlorine, total chlorine, pH, alkalinity, calcium, stabilizer"),
            measures=_managed(case),
        )
        reason = Message("Fresh water: nothing that was tested before speaks for it.")
        yield _problem("fresh_fill", S.TREAT_TODAY, remedy=remedy, reason=reason, law="B.4")
    elif much_new_water(case, tested_at):
        remedy = Remedy(kind=K.TEST, text=Message("Test everything again"), measures=_managed(case))
        reason = Message("Much new water came in since the last test.")
        yield _problem("water_changed_since_test", S.TREAT_TODAY, remedy=remedy, reason=reason, law="B.4")


def _managed(case: Case) -> tuple[Measure, ...]:
    """What this pool is tested for."""
    wanted = [
        m for m in READING_MEASURES if m in case.bands and (case.bands[m].dose_low or m in LOCAL_MEASURES)
    ]
    return (M.FREE_CHLORINE, M.TOTAL_CHLORINE, *(m for m in wanted if m is not M.FREE_CHLORINE))


def _all_tested_since(case: Case, at: datetime) -> bool:
    read = [last_reading(case.state, measure) for measure in _managed(case)]
    return all(one is not None and one.at > at for one in read)


def _stabilizer_mixing(case: Case) -> Iterator[Problem]:
    """Stabilizer that no test sees yet; one that reads as before must not be answered with more of it."""
    measure = M.CYANURIC_ACID
    pours = [(e, mixed_at(e, measure)) for e in case.state.additions]
    ahead = [(e, at) for e, at in pours if at is not None and at > case.now]
    if not ahead:
        return
    entry, until = ahead[-1]
    raw, band = last_reading(case.state, measure), case.bands.get(measure)
    seen_low = raw is not None and band is not None and band.low is not None and raw.value.value < band.low
    remedy = Remedy(
        kind=K.WAIT,
        until=until,
        measures=(measure,),
        text=Message("Wait for the stabilizer: it can be tested a week after it went in"),
    )
    reason = Message("Stabilizer dissolves in days and reads after a week; more of it would overshoot.")
    severity = S.TREAT_SOON if seen_low else S.WATCH
    yield replace(
        _problem("stabilizer_mixing", severity, remedy=remedy, reason=reason, law="D.5"), entries=(entry.id,)
    )


def _power(case: Case) -> Iterator[Problem]:
    if not power_was_off(case):
        return
    remedy = Remedy(
        kind=K.TEST,
        measures=LOCAL_MEASURES,
        text=Message("Set the clock, look at the water, test free chlorine; nobody in while flow restarts"),
    )
    reason = Message("Without power no pump ran and no cell made chlorine.")
    yield _problem("power_cut", S.TREAT_TODAY, remedy=remedy, reason=reason, law="B.4")


# What tests there are.
def _tests(case: Case) -> Iterator[Problem]:
    missing = tuple(
        m for m in _managed(case) if m is not M.TOTAL_CHLORINE and last_reading(case.state, m) is None
    )
    local = tuple(m for m in LOCAL_MEASURES if case.reading(m) is None)
    if not case.state.tests:
        remedy = Remedy(kind=K.TEST, measures=_managed(case), text=Message("Test the water"))
        yield _problem(
            "test_missing",
            S.TREAT_TODAY,
            remedy=remedy,
            reason=Message("Without a test nobody knows."),
            law="B.2",
        )
        return
    if local or missing:
        named = tuple(dict.fromkeys((*local, *missing)))
        remedy = Remedy(
            kind=K.TEST,
            measures=named,
            text=Message("Test {measures}", measures=listed(map(name_in_sentence, named))),
        )
        reason = Message("This was never tested here.")
        yield _problem(
            "test_missing", S.TREAT_TODAY if local else S.TREAT_SOON, remedy=remedy, reason=reason, law="B.2"
        )
    yield from _old(case)
    yield from _borate(case)


def _old(case: Case) -> Iterator[Problem]:
    read = [one for one in (case.reading(measure) for measure in LOCAL_MEASURES) if one is not None]
    if read and not case.speaks_still(min(one.at for one in read)):
        days = (case.now - min(one.at for one in read)).days
        watched = case.service and all(case.now - one.at <= case.holds_for(M.PH) for one in read)
        remedy = Remedy(kind=K.TEST, measures=LOCAL_MEASURES, text=Message("Test the water"))
        reason = Message("The last test is {days} old.", days=Plural("{n} day", "{n} days", days))
        if case.public:
            reason = Message("A public pool is tested every day it is open; its operator's code decides.")
        yield _problem(
            "test_old", S.WATCH if watched else S.TREAT_TODAY, remedy=remedy, reason=reason, law="B.2"
        )
    checks = case.state.visual_checks
    if not checks or not case.speaks_still(checks[-1].at):
        watched = case.service and bool(checks) and case.now - checks[-1].at <= case.holds_for(M.PH)
        remedy = Remedy(kind=K.LOOK, text=Message("Look at the water before anybody swims"))
        reason = Message("Nobody said lately that the floor is plain to see.")
        yield _problem(
            "look_old", S.WATCH if watched else S.TREAT_SOON, remedy=remedy, reason=reason, law="B.1"
        )


def _borate(case: Case) -> Iterator[Problem]:
    """Borate that may be there triples the acid: it is asked for before another volume is offered."""
    read = case.reading(M.BORATE)
    if read is None or read.value.value < BORATE_THERE_MG_L or case.now - read.at <= BORATE_SPEAKS_FOR:
        return
    remedy = Remedy(kind=K.TEST, measures=(M.BORATE,), text=Message("Test borate before any acid"))
    reason = Message(
        "Borate was last tested {days} ago.", days=Plural("{n} day", "{n} days", (case.now - read.at).days)
    )
    yield _problem("test_old", S.TREAT_SOON, remedy=remedy, reason=reason, law="D.4")


# Chlorine that goes where nobody sees.
def _demand(case: Case) -> Iterator[Problem]:
    if _winter_ammonia(case):
        remedy = Remedy(
            kind=K.PROCEDURE,
            procedure="ammonia",
            text=Message("Test ammonia, then compare shocking with new water: the demand can be very large"),
        )
        reason = Message(
            "Stabilizer is gone since autumn and combined chlorine is high: bacteria made ammonia of it."
        )
        yield _problem(
            "demand_unexplained", S.CLOSES_POOL, remedy=remedy, reason=reason, about=M.CYANURIC_ACID, law="F"
        )
    elif _in_vain(case):
        remedy = Remedy(
            kind=K.TEST,
            measures=(M.TOTAL_CHLORINE, M.CYANURIC_ACID, M.PHOSPHATE),
            text=Message(
                "Test total chlorine, stabilizer, phosphate and ammonia, then shock; not the same dose again"
            ),
        )
        reason = Message("Chlorine went in again and again and read zero each time: something eats it.")
        yield _problem(
            "demand_unexplained", S.CLOSES_POOL, remedy=remedy, reason=reason, about=M.FREE_CHLORINE, law="F"
        )
    elif case.lost_overnight is not None and not case.state.rescue_goes_on:
        lost, clean = case.lost_overnight
        if lost > MOST_LOST_MG_L and lost > 2 * clean:
            remedy = Remedy(
                kind=K.TEST,
                measures=(M.FREE_CHLORINE,),
                text=Message("Test chlorine at dusk and again at dawn, nothing poured between"),
            )
            reason = Message(
                "In a night {lost} of chlorine was lost; clean water loses {clean}.",
                lost=Number(lost, digits=1),
                clean=Number(clean, digits=1),
            )
            yield _problem("demand_unexplained", S.TREAT_SOON, remedy=remedy, reason=reason, law="F")


def _in_vain(case: Case) -> bool:
    """The last tests of chlorine read zero although it was poured before each; not a bleached zero."""
    tests = [e for e in case.state.tests if value_in(e.body.values, M.FREE_CHLORINE) is not None]
    count = 0
    for n in reversed(range(len(tests))):
        test = tests[n]
        value = value_in(test.body.values, M.FREE_CHLORINE)
        assert value is not None
        if value.value > ZERO_MG_L:
            break
        since = tests[n - 1].at if n else test.at - timedelta(days=2)
        if _chlorine_between(case, since, test):
            count += 1
    return count >= DOSES_IN_VAIN


def _chlorine_between(case: Case, since: datetime, test: Entry[TestTaken]) -> bool:
    pours = [e for e in case.state.additions if since <= e.at < test.at]
    return any(e.body.chemical in CHLORINE_CARRIERS and e.body.mass_g > WORTH_A_DOSE_G for e in pours)


def _winter_ammonia(case: Case) -> bool:
    past = history(case.state, M.CYANURIC_ACID)
    combined = case.current(M.COMBINED_CHLORINE)
    if len(past) < 2 or combined is None or combined.value.low <= case.combined_high_mg_l:
        return False
    before, now = past[-2], past[-1]
    gone = before.value.value >= STABILIZER_WAS and now.value.value <= STABILIZER_GONE
    return gone and now.at - before.at >= WINTER_GAP


# States of a pool.
def _states(case: Case) -> Iterator[Problem]:
    plastered = last_event(case, NotedEvent.PLASTERED)
    if plastered is not None and case.now - plastered[0] < FRESH_PLASTER:
        remedy = Remedy(
            kind=K.PROCEDURE,
            procedure="new_plaster",
            until=plastered[0] + FRESH_PLASTER,
            text=Message("Brush daily, acid in small parts; no salt, cell or granules till day 30"),
        )
        reason = Message(
            "The plaster is {days} old.", days=Plural("{n} day", "{n} days", (case.now - plastered[0]).days)
        )
        yield _problem("new_plaster", S.WATCH, remedy=remedy, reason=reason, law="D.7")
    read = case.current(M.TEMPERATURE)
    if read is not None and read.value.value < COLD_C:
        remedy = Remedy(
            kind=K.SETTING, text=Message("Cell off, chlorinate by liquid; no stabilizer and no floc so cold")
        )
        yield _problem(
            "water_cold", S.WATCH, remedy=remedy, reason=Message("The water is under 50 F (10 C)."), law="F"
        )
    if read is not None and read.value.value >= WARM_C:
        remedy = Remedy(
            kind=K.SETTING, text=Message("Test daily, run the pump longer, watch the scaling index")
        )
        yield _problem(
            "water_warm", S.WATCH, remedy=remedy, reason=Message("The water is over 90 F (32 C)."), law="F"
        )


def _of_the_basin(case: Case) -> Iterator[Problem]:
    """Water that nobody measured, and water that is not this pool's."""
    if case.amounts_for_l is not None:
        remedy = Remedy(
            kind=K.SETTING,
            text=Message("Find out the volume: from the dimensions, or with a weighed bag of salt"),
        )
        reason = Message(
            "The volume is not known: every amount is for each {water} of it.",
            water=PoolWater(case.amounts_for_l),
        )
        yield _problem("volume_unknown", S.WATCH, remedy=remedy, reason=reason, law="F")
    if case.spa_apart:
        remedy = Remedy(kind=K.TEST, text=Message("Test the spa by itself before anybody sits in it"))
        reason = Message(
            "With its valves shut the spa is water of its own: the pool's tests say nothing of it."
        )
        yield _problem("spa_untested", S.WATCH, remedy=remedy, reason=reason, law="F")


def _index(case: Case) -> Iterator[Problem]:
    """Scale or aggressive water where every part of it is in its band, on cement."""
    band = case.bands.get(M.SATURATION_INDEX)
    known = known_from(case.expected) if case.expected.calcium_hardness else None
    found = solve_readings(known) if known is not None else None
    if band is None or not isinstance(found, State) or not case.cement:
        return
    index = float(saturation_index(found))
    code = "scale_likely" if index > INDEX_EDGE else "water_aggressive" if index < -INDEX_EDGE else None
    if code is None:
        return
    high = code == "scale_likely"
    remedy = Remedy(
        kind=K.SETTING,
        text=Message("Hold pH toward its lower edge") if high else Message("Hold pH toward its upper edge"),
    )
    reason = Message("The scaling index is {index}.", index=Number(index, digits=1, signed=True))
    yield _problem(code, S.WATCH, remedy=remedy, reason=reason, about=M.SATURATION_INDEX, law="F")
