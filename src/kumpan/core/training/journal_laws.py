"""The laws of judging that no answer may break, as checks of an assessment, and random journals to try.

The checks read the journal by themselves and share nothing with the judge but its figures, so that each can
see it fail. Source: order.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from typing import TypeVar
from uuid import UUID
from zoneinfo import ZoneInfo

import numpy as np

from kumpan.core.assessment.assessment import Assessment, assess
from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import ORDER, FindingSeverity, RemedyKind
from kumpan.core.assessment.swim import SwimCode
from kumpan.core.forecast.expected import expected_now, last_values
from kumpan.core.hazards import Hazard
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    Clarity,
    Entry,
    EventNoted,
    Level,
    NotedEvent,
    PoolState,
    RescueSet,
    Severity,
    TestTaken,
    TreatmentStarted,
    VisualCheck,
    WaterChange,
    WaterChanged,
    fold,
)
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import TEST, Step
from kumpan.core.testing.kits import KITS, Kit
from kumpan.core.testing.methods import measured
from kumpan.core.training.plan_laws import INVENTORY
from kumpan.core.treatment.careful import careful_plan
from kumpan.core.treatment.plan_inputs import PlanInputs

SOURCE = "order"

M, S = Measure, FindingSeverity
SPACE = UUID(int=20261128)
NOW = datetime(2026, 7, 14, 14, 0, tzinfo=UTC)
VOLUME_L = 60_000.0
HARDEST_FREE_MG_L, OPEN_PH = 10.0, (7.0, 8.0)
COMBINED_MG_L = (0.0, 0.0, 0.2, 0.8, 2.0)
HOLDS = timedelta(days=4)
MIXED = timedelta(minutes=60)
ALWAYS_NO = ("electric", "gas", "drain_cover", "glass", "barrier", "water_hot", "cover_on")
FLOOR_HIDDEN = (Clarity.DRAIN_HIDDEN, Clarity.GREEN)
# What a word of the look must lead to. Origin: laws of advice C and F.
FINDING_OF: Mapping[str, str] = {
    "leaves": "leaves",
    "algae spots": "algae_spots",
    "dead animal": "dead_animal",
    "foam": "foam",
    "weak returns": "returns_weak",
    "leak": "leak",
    "unlit": "unlit",
    **{word: word for word in ALWAYS_NO},
}
CLEARED_BY_CARE = ("leaves",)

T = TypeVar("T")
Check = Callable[[Case, Assessment], Iterator[str]]


def breaches(case: Case) -> list[tuple[str, str]]:
    """Every law that the judge breaks for a case: its number, and what was wrong."""
    found = assess(case)
    return [(law, wrong) for law, check in CHECKS.items() for wrong in check(case, found)]


# A. One judge.
def _one_remedy(_: Case, found: Assessment) -> Iterator[str]:
    asks = [one for one in found.findings if one.severity.asks]
    for one in asks:
        if one.remedy.kind is RemedyKind.NONE or not one.remedy.text.template:
            yield f"{one.code} has no remedy"
    tiers = [
        (S.DANGER,),
        (S.CLOSES_POOL, S.TREAT_TODAY),
        (S.TREAT_SOON,),
        (S.WATCH,),
        (S.NOTE,),
    ]
    places = [
        (next(n for n, tier in enumerate(tiers) if one.severity in tier), ORDER.index(one.code))
        for one in found.findings
    ]
    if places != sorted(places):
        yield "findings are not in their order"
    if asks and found.next.code != asks[0].code:
        yield f"next is {found.next.code}, the first finding {asks[0].code}"


def _nothing_to_do(case: Case, found: Assessment) -> Iterator[str]:
    if found.next.code not in ("nothing", "care_due"):
        return
    about = {measure for one in found.findings for measure in one.measures}
    for measure, band in case.bands.items():
        read = case.current(measure)
        if read is None or measure in about or measure is M.SATURATION_INDEX:
            continue
        value = read.value
        over = band.high is not None and value.low > band.high
        under = band.low is not None and value.high < band.low
        if over or under:
            yield f"nothing to do beside {measure} {value.value}"


def _same_answer(case: Case, found: Assessment) -> Iterator[str]:
    """However the answer is asked for again."""
    again = assess(replace(case))
    if again != found:
        yield "the same question was answered in another way"
    if found.holds_until <= found.at:
        yield "the answer does not even hold now"


# B. May they swim.
def _floor_seen(case: Case, found: Assessment) -> Iterator[str]:
    checks = case.state.visual_checks
    if found.swim.code is not SwimCode.YES:
        return
    if not checks or case.now - checks[-1].at > HOLDS:
        yield "yes without a look of the last four days"
    elif checks[-1].body.clarity in (*FLOOR_HIDDEN, Clarity.CLOUDY):
        yield f"yes to water that is {checks[-1].body.clarity}"


def _tested(case: Case, found: Assessment) -> Iterator[str]:
    if found.swim.code is not SwimCode.YES:
        return
    for measure in (M.FREE_CHLORINE, M.PH):
        tests = [e for e in case.state.tests if any(v.measure is measure for v in e.body.values)]
        totals = [e for e in case.state.tests if any(v.measure is M.TOTAL_CHLORINE for v in e.body.values)]
        speaks = tests or (totals if measure is M.FREE_CHLORINE else [])
        if not speaks or case.now - max(e.at for e in (*tests, *totals)) > HOLDS:
            yield f"yes without {measure} of the last four days"


def _within_limits(case: Case, found: Assessment) -> Iterator[str]:
    if found.swim.code is not SwimCode.YES:
        return
    free, ph = case.reading(M.FREE_CHLORINE), case.reading(M.PH)
    if free is None or ph is None:
        yield "yes without free chlorine and pH"
        return
    if free.value.value < case.least_mg_l or free.value.value > HARDEST_FREE_MG_L:
        yield f"yes at free chlorine {free.value.value}"
    if free.value.low > min(case.swim_limit_mg_l, HARDEST_FREE_MG_L):
        yield f"yes at free chlorine {free.value.value}, over the limit beyond doubt"
    if not OPEN_PH[0] <= ph.value.value <= OPEN_PH[1]:
        yield f"yes at pH {ph.value.value}"


def _nothing_undoes_it(case: Case, found: Assessment) -> Iterator[str]:
    if found.swim.code is not SwimCode.YES:
        return
    tested = max((e.at for e in case.state.tests), default=case.now)
    for poured in case.state.additions:
        if poured.body.chemical == "trichlor" or poured.at <= tested:
            continue
        if case.now - poured.at < MIXED:
            yield f"yes {case.now - poured.at} after {poured.body.chemical}"
        if poured.body.chemical in ("hydrochloric_acid", "sodium_bicarbonate"):
            yield f"yes after {poured.body.chemical}, not tested since"
    for event in case.state.events:
        if event.body.kind in (NotedEvent.POWER_CUT, NotedEvent.FILLED) and event.at > tested:
            yield f"yes after {event.body.kind}, not tested since"


def _open_plans(case: Case, found: Assessment) -> Iterator[str]:
    state = case.state
    if found.swim.code is SwimCode.NO:
        return
    if state.rescue_goes_on:
        yield "a rescue goes on, and the pool is not closed"
    for started in state.treatments:
        if started.body.plan == "incident" and not any(test.at > started.at for test in state.tests):
            yield "an accident is open, and the pool is not closed"


def _dangers(case: Case, found: Assessment) -> Iterator[str]:
    checks = case.state.visual_checks
    words = checks[-1].body.odd if checks else ()
    off = [e.at for e in case.state.events if e.body.kind is NotedEvent.COVER_OFF]
    for word in ALWAYS_NO:
        if word not in words or (word == "cover_on" and off and max(off) >= checks[-1].at):
            continue
        if found.swim.code is not SwimCode.NO:
            yield f"{word} was seen, and they may swim: {found.swim.code}"
        if not any(one.code == word and one.severity is S.DANGER for one in found.findings):
            yield f"{word} was seen, and it is no danger"


def _grounds(_: Case, found: Assessment) -> Iterator[str]:
    for reason in found.swim.because:
        if not reason.law:
            yield f"{reason.code} does not say its law"
    if found.swim.code is not SwimCode.YES and not found.swim.because:
        yield "not yes, and no reason"


# C. Whatever was seen has a consequence.
def _consequences(case: Case, found: Assessment) -> Iterator[str]:
    if case.winter_closed or not case.state.visual_checks:
        return
    last = case.state.visual_checks[-1]
    codes = {one.code for one in found.findings}
    for word in last.body.odd:
        wanted = FINDING_OF.get(word)
        cared = word in CLEARED_BY_CARE and any(care.at > last.at for care in case.state.care)
        if wanted is None or wanted in codes or cared or word == "cover_on":
            continue
        yield f"{word} was seen, and nothing follows"
    code = f"level_{last.body.level}"
    cared = any(care.at > last.at for care in case.state.care)
    if last.body.level is not Level.NORMAL and not cared and code not in codes:
        yield f"the level is {last.body.level}, and nothing follows"
    for clarity, code in ((Clarity.HAZY, "hazy"), (Clarity.CLOUDY, "cloudy"), (Clarity.GREEN, "green")):
        if last.body.clarity is clarity and not codes & {code, "rescue_open"}:
            yield f"the water is {clarity}, and nothing follows"


def _low_chlorine(case: Case, found: Assessment) -> Iterator[str]:
    """Under the minimum now: something for today."""
    free = case.current(M.FREE_CHLORINE)
    if free is None or free.value.value >= case.least_mg_l or case.winter_closed:
        return
    if not any(one.severity in (S.DANGER, S.CLOSES_POOL, S.TREAT_TODAY) for one in found.findings):
        yield f"free chlorine {free.value.value}, and nothing for today"


CHECKS: Mapping[str, Check] = {
    "A.2": _one_remedy,
    "A.3": _nothing_to_do,
    "A.4": _same_answer,
    "B": _grounds,
    "B.1": _floor_seen,
    "B.2": _tested,
    "B.3": _within_limits,
    "B.4": _nothing_undoes_it,
    "B.5": _open_plans,
    "B.8": _dangers,
    "C": _consequences,
    "D.7": _low_chlorine,
}


# Random journals.
@dataclass
class Book:
    """A journal under way, and what draws it."""

    draw: np.random.Generator
    calm: bool = False  # most of it as it should be
    entries: list[Entry[Body]] = field(default_factory=list)

    def note(self, hours_ago: float, body: Body) -> None:
        """Write something down, so many hours ago."""
        at = NOW - timedelta(hours=hours_ago)
        number = UUID(int=SPACE.int + len(self.entries))
        self.entries.append(Entry(id=number, pool_id=SPACE, at=at, recorded_at=at, person_id=None, body=body))

    def one_of(self, *choices: T) -> T:
        """One of several, each as likely."""
        return choices[int(self.draw.integers(len(choices)))]

    def within(self, low: float, high: float) -> float:
        """A number between two, to a tenth."""
        return round(float(self.draw.uniform(low, high)), 1)

    def chance(self, share: float) -> bool:
        """Yes in a share of the cases."""
        return bool(self.draw.random() < share)


def drawn(number: int, seed: int = 1) -> Case:
    """One random pool with its journal, as the judge looks at it; by a seed."""
    book = journal(number, seed)
    return _case(book, fold(book.entries))


def journal(number: int, seed: int = 1) -> Book:
    """One random journal, in the order in which it was written down, which is not that of events."""
    book = Book(np.random.default_rng([seed, number, 5]), calm=number % 2 == 0)
    book.note(9000, BasinMeasured(volume_l=VOLUME_L))
    kit = KITS[int(book.draw.integers(len(KITS)))]
    for _ in range(int(book.draw.integers(0, 4))):
        book.note(_lately(book), _test(book, kit))
    for _ in range(int(book.draw.integers(0, 3))):
        book.note(_lately(book), _visual_check(book))
    for _ in range(int(book.draw.integers(0, 3))):
        book.note(_lately(book), _pour(book))
    _others(book)
    return book


def _lately(book: Book) -> float:
    return book.one_of(book.within(0.1, 3), book.within(0.1, 150))


def _test(book: Book, kit: Kit) -> TestTaken:
    def off(good: float, low: float, high: float) -> float:
        return good if book.chance(0.95 if book.calm else 0.6) else book.within(low, high)

    free = off(2.5, 0, 12)
    values = {
        M.FREE_CHLORINE: free,
        M.TOTAL_CHLORINE: round(free + book.one_of(*COMBINED_MG_L), 1),
        M.PH: off(7.5, 6.7, 8.5),
        M.TOTAL_ALKALINITY: off(100, 20, 250),
        M.CALCIUM_HARDNESS: off(270, 50, 700),
        M.CYANURIC_ACID: off(40, 0, 150),
        M.TEMPERATURE: off(27, 6, 42),
    }
    kept = {measure: value for measure, value in values.items() if book.chance(0.93)}
    read = tuple(measured(measure, value, kit.method_of(measure)) for measure, value in kept.items())
    return TestTaken(read, kit.key)


def _visual_check(book: Book) -> VisualCheck:
    clear = book.chance(0.9 if book.calm else 0.65)
    clarity = Clarity.CLEAR if clear else book.one_of(*Clarity)
    level = Level.NORMAL if book.chance(0.75) else book.one_of(*Level)
    words = ("leaves", "algae spots", "dead animal", "foam", "sharp smell", "weak returns", "leak", "unlit")
    odd = tuple(word for word in (*words, *ALWAYS_NO, "thunder") if book.chance(0.01 if book.calm else 0.06))
    return VisualCheck(clarity, level, odd)


def _pour(book: Book) -> AdditionMade:
    product = book.one_of(*INVENTORY)
    return AdditionMade(
        chemical=product.chemical,
        strength_percent=product.strength_percent,
        label=product.id,
        mass_g=book.within(50, 6000),
    )


def _others(book: Book) -> None:
    if book.chance(0.2):
        book.note(_lately(book), EventNoted(book.one_of(*NotedEvent)))
    if book.chance(0.1):
        book.note(
            _lately(book), WaterChanged(kind=book.one_of(*WaterChange), volume_l=book.within(500, 30_000))
        )
    if book.chance(0.15):
        book.note(_lately(book), CareDone(book.one_of("skim", "baskets", "level", "brush")))
    if book.chance(0.08):
        book.note(_lately(book), RescueSet(severity=book.one_of(*Severity)))
    if book.chance(0.1):
        test = Step(
            kind=TEST,
            day=1,
            offset_min=0,
            title=Message("Test"),
            why=Message("It ends with a test."),
            hazard=Hazard.OPEN_WATER,
            cautions=(),
            measures=(M.FREE_CHLORINE, M.PH),
        )
        book.note(
            _lately(book),
            TreatmentStarted(
                steps=(test,),
                profile="household",
                before=Readings(),
                predicted=Readings(),
                plan=book.one_of("incident", "shock", "drain", "balance"),
            ),
        )


def _case(book: Book, state: PoolState) -> Case:
    traits = Traits(
        surface=book.one_of(*Surface),
        chlorination=book.one_of(*Chlorination),
        filter=Filter.SAND,
        indoor=book.chance(0.1),
    )
    expected = expected_now(state)
    school = book.one_of("household", "service")
    own = bands(profile(school), traits, expected.cyanuric_acid)
    offered = careful_plan(
        PlanInputs(
            readings=expected,
            volume_l=VOLUME_L,
            traits=traits,
            aims=Aims(own, {}),
            inventory=INVENTORY,
            measured=last_values(state),
        )
    )
    return Case(
        state=state,
        now=NOW,
        zone=ZoneInfo("America/Chicago"),
        volume_l=VOLUME_L,
        bands=own,
        indoor=traits.indoor,
        service=school == "service",
        cell=traits.chlorination is Chlorination.SALT_CELL,
        cement=traits.surface.is_cement,
        expected=expected,
        offered=offered if state.last_test is not None else None,
    )
