"""The one judge: everything that is said of a pool now is read from this answer, and nowhere reckoned again.

Findings in their order with one remedy each, whether they may swim, the next thing, and how long all of it
stands if nothing is entered. Sources: order, test-interval.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.chlorine import OXIDIZER_READS_AS_COMBINED
from kumpan.core.assessment.measured import measured
from kumpan.core.assessment.order import Problem, Remedy, RemedyKind, in_order
from kumpan.core.assessment.seen import THUNDER_OVER, seen
from kumpan.core.assessment.standing import standing
from kumpan.core.assessment.swim import SwimAnswer, SwimCode, swim_answer
from kumpan.core.assessment.undone import ready
from kumpan.core.dosing.order_and_waits import ACIDS
from kumpan.core.forecast.expected import MOVES, mixed_at
from kumpan.core.journal import NotedEvent
from kumpan.core.messages import NOTHING, Cased, Message, joined, listed
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.testing.rhythm import SERVICE_HOLDS_DAYS, TEST_EVERY, TEST_HOLDS_DAYS
from kumpan.core.treatment.not_now import FRESH_PLASTER, NotNow, not_now
from kumpan.core.treatment.plan import Plan

SOURCES_USED = ("order", "test-interval")

LOWERING = (*ACIDS, "sodium_thiosulfate")
NO_REMEDY = Remedy(kind=RemedyKind.NONE, text=NOTHING)


@dataclass(frozen=True, kw_only=True)
class NextThing:
    """`code` is that of the first finding that asks for something; else `care_due`, else `nothing`.

    `station` is the screen where it is done; `due` when to test again where nothing is to do.
    """

    code: str
    text: Message
    why: Message
    remedy: Remedy
    due: datetime | None = None

    @property
    def station(self) -> str:
        """The screen where it is done."""
        if self.code == "care_due":
            return "care"
        return "slip" if self.code == "nothing" else self.remedy.station


@dataclass(frozen=True, kw_only=True)
class Assessment:
    """The answer of the judge at a moment; it stands until `holds_until` if nothing is entered."""

    at: datetime
    swim: SwimAnswer
    next: NextThing
    findings: tuple[Problem, ...]
    expected: Readings
    closed: bool
    not_to_be_dosed: tuple[NotNow, ...]
    holds_until: datetime


def assess(case: Case) -> Assessment:
    """Judge a pool. Pure: the same case gives the same answer to everyone."""
    found = problems(case)
    swim = swim_answer(case, found)
    return Assessment(
        at=case.now,
        swim=swim,
        next=next_thing(case, found),
        findings=found,
        expected=case.expected,
        closed=swim.code is SwimCode.NO,
        not_to_be_dosed=not_now(case.state, case.now, case.expected.temperature_c),
        holds_until=holds_until(case, swim),
    )


def problems(case: Case) -> tuple[Problem, ...]:
    """All that stands against the pool, in order; a pool closed for the winter is not judged by its water."""
    found = [*seen(case), *standing(case)]
    if not case.winter_closed:
        found += measured(case)
    return in_order(_once(found))


def _once(found: Sequence[Problem]) -> Iterator[Problem]:
    """One finding of a code and its measures; the first."""
    known: set[tuple[str, tuple[Measure, ...]]] = set()
    for problem in found:
        key = (problem.code, problem.measures)
        if key not in known:
            known.add(key)
            yield problem


def next_thing(case: Case, found: Sequence[Problem]) -> NextThing:
    """The remedy of the first finding that asks for something; else the care of today; else nothing."""
    first = next((problem for problem in found if problem.severity.asks), None)
    if first is None:
        return _care(case) or _nothing(case, found)
    text, why = first.remedy.text, first.reason
    doses = case.offered is not None and any(step.kind == "add" for step in case.offered.steps)
    if first.remedy.kind is RemedyKind.PLAN and first.remedy.plan == "balance" and doses and _by_plan(first):
        assert case.offered is not None
        text, why = doses_in_words(case.offered)
    return NextThing(code=first.code, text=text, why=why, remedy=first.remedy)


def _by_plan(first: Problem) -> bool:
    return first.code not in ("treatment_open", "incident_open")


def _care(case: Case) -> NextThing | None:
    if not case.care_due:
        return None
    text = Message("Care due today: {what}", what=joined((Cased(title) for title in case.care_due[:3]), ", "))
    remedy = Remedy(kind=RemedyKind.PROCEDURE, procedure="care", text=text)
    return NextThing(
        code="care_due", text=text, why=Message("Nothing to add."), remedy=remedy, due=_next_test(case)
    )


def _nothing(case: Case, found: Sequence[Problem]) -> NextThing:
    why = Message("What was tested is where it should be.")
    if found:
        why = Message("To watch: {reasons}", reasons=joined((one.reason for one in found), " "))
    return NextThing(
        code="nothing", text=Message("Nothing to add"), why=why, remedy=NO_REMEDY, due=_next_test(case)
    )


def _next_test(case: Case) -> datetime | None:
    """The usual day, or before chlorine is expected to run low."""
    last = case.state.last_test
    if last is None:
        return None
    return min((last.at + TEST_EVERY, *(at for at in case.crossings if at > case.now)))


def doses_in_words(offered: Plan) -> tuple[Message, Message]:
    """What the sheet moves, and which way; chlorine first since it decides about swimming."""
    adds = [step for step in offered.steps if step.kind == "add"]
    strategies: dict[str, list[Measure]] = {}
    for step in adds:
        strategy = "lower" if step.chemical in LOWERING else "raise"
        for measure in step.measures:
            if measure not in strategies.setdefault(strategy, []):
                strategies[strategy].append(measure)
    order = sorted(strategies, key=lambda strategy: Measure.FREE_CHLORINE not in strategies[strategy])
    first = adds[0]
    said = Message(
        "The plan begins with {amount} of {product}. {why}",
        amount=first.rounded_text or NOTHING,
        product=first.title,
        why=first.why,
    )
    moves = joined(_MOVES[strategy](sorted(strategies[strategy], key=_first_place)) for strategy in order)
    return Message("{moves}", moves=Cased(Message("{moves}", moves=moves), upper=True)), said


def _first_place(measure: Measure) -> bool:
    return measure is not Measure.FREE_CHLORINE


_MOVES: Mapping[str, Callable[[Sequence[Measure]], Message]] = {
    "raise": lambda measures: Message("raise {measures}", measures=listed(map(name_in_sentence, measures))),
    "lower": lambda measures: Message("lower {measures}", measures=listed(map(name_in_sentence, measures))),
}


# How long it stands.
def holds_until(case: Case, swim: SwimAnswer) -> datetime:
    """The next moment at which time alone may change the answer: an age, a wait, an edge of the forecast, or
    the day's end.
    """
    midnight = datetime.combine(
        case.now.astimezone(case.zone).date() + timedelta(days=1), time(), tzinfo=case.zone
    )
    moments = [midnight, *case.crossings, *case.model_turns, *_ages(case), *_ends(case)]
    if swim.not_before is not None:
        moments.append(swim.not_before)
    ahead = [moment.astimezone(case.now.tzinfo) for moment in moments if moment > case.now]
    return min(ahead)


def _ages(case: Case) -> Iterator[datetime]:
    """When a test or a look gets too old to speak."""
    times = [entry.at for entry in case.state.tests[-20:]] + [e.at for e in case.state.visual_checks[-1:]]
    for at in times:
        for days in (TEST_HOLDS_DAYS, SERVICE_HOLDS_DAYS):
            yield at + timedelta(days=days, seconds=1)
    for measure in case.bands:
        read = case.reading(measure)
        if read is not None:
            yield read.at + case.holds_for(measure) + timedelta(seconds=1)


def _ends(case: Case) -> Iterator[datetime]:
    """When a wait is over."""
    for entry in case.state.additions:
        yield ready(entry)
        for measure in MOVES.get(entry.body.chemical, ()):
            at = mixed_at(entry, measure)
            if at is not None:
                yield at
        if entry.body.chemical == "potassium_monopersulfate":
            yield entry.at + OXIDIZER_READS_AS_COMBINED
    if case.light_changes_at is not None and any(
        "unlit" in look.body.odd for look in case.state.visual_checks[-1:]
    ):
        yield case.light_changes_at
    for look in case.state.visual_checks:
        if "thunder" in look.body.odd:
            yield look.at + THUNDER_OVER
    for event in case.state.events:
        if event.body.kind is NotedEvent.PLASTERED:
            yield event.at + FRESH_PLASTER
