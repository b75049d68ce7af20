"""May they swim? Yes; not before an hour and after a test; no, and why; or not known, and what would tell.

Every reason is listed. It says no on what closes a pool, and never yes without a look and a test that still
speak for the water. Safety edges (floor, swim minimum, free chlorine 10, pH 7 and 8) are not softened;
beyond a comfort edge by less than the reading's own doubt is said, and does not slam the door.
Sources: swim-limit, swim-ph, mixing, test-interval.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from zoneinfo import ZoneInfo

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.journal import AdditionMade, Clarity, Entry, PoolState, last_reading
from kumpan.core.journal.open_plan import recorded_steps, steps_to_do
from kumpan.core.journal.pool_entries import VisualCheck, WaterChange
from kumpan.core.journal.readings import Reading
from kumpan.core.journal.treatment_entries import Outcome, StepDone, TreatmentStarted
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.catalogue import CATALOGUE, CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.ranges.pool_rules import MOST_SWIM_LIMIT_MG_L
from kumpan.core.ranges.profiles import Band, ProfileKey
from kumpan.core.ranges.verdicts import HIGHEST_CYA_PER_FREE_CHLORINE
from kumpan.core.testing.rhythm import TEST_HOLDS_DAYS

SOURCES_USED = ("swim-limit", "swim-ph", "mixing", "test-interval")

PH_OPEN = (7.0, 8.0)
LEAST_FREE_MG_L = 1.0
LEAST_FREE_BY_CODE_MG_L = 2.0  # with stabilizer, by the residential standard and the public code
COMBINED_CLOSES_MG_L = 1.0  # outdoors; indoors and at public pools the range's own limit
BOUND_CLOSES = 45  # stabilizer over free chlorine
OXIDIZER_READS_AS_COMBINED = timedelta(days=7)  # monopersulfate, by the usual test
NEW_WATER_UNDOES_A_TEST = 0.05  # of the pool
AFTER_ADDITION_MIN = 60
SLOW = "trichlor"
# What moves neither chlorine nor pH: it has to be mixed, and asks for no test.
PLAIN = ("sodium_chloride", "calcium_chloride", "cyanuric_acid")
DEAD_ANIMAL, SHARP_SMELL = "dead animal", "sharp smell"  # as the look has them
CLOSING_PLANS = ("shock", "incident", "drain", "lower_chlorine", "rescue")


class SwimCode(StrEnum):
    """The answers to "may they swim?"."""

    YES = "yes"
    NOT_BEFORE = "not_before"
    NO = "no"
    UNKNOWN = "unknown"


@dataclass(frozen=True)
class SwimAnswer:
    """The answer at the head of the pool. `not_before` is when a test may open it, for that code.

    `reasons` are all that stand against it, or are said beside a yes; the first is the `text`.
    """

    code: SwimCode
    text: Message
    not_before: datetime | None = None
    reasons: tuple[Message, ...] = ()


@dataclass(frozen=True, kw_only=True)
class SwimQuestion:
    """One pool now: its journal, its bands (mg/L), its kind, and free chlorine as the model has it by now."""

    state: PoolState
    now: datetime
    zone: ZoneInfo
    volume_l: float
    chlorine: Band
    combined_high_mg_l: float
    limit_mg_l: float
    least_mg_l: float = LEAST_FREE_MG_L
    indoor: bool = False
    public: bool = False
    expected_mg_l: float | None = None

    def speaks_still(self, at: datetime) -> bool:
        """Whether a test or look of then speaks for the water: four days, at a public pool the day itself."""
        if self.public:
            return at.astimezone(self.zone).date() == self.now.astimezone(self.zone).date()
        return self.now - at <= timedelta(days=TEST_HOLDS_DAYS)


def least_free_mg_l(profile: str, *, stabilized: bool) -> float:
    """The free chlorine under which nobody swims, mg/L; never typed lower."""
    by_code = profile in (ProfileKey.RESIDENTIAL_STANDARD, ProfileKey.PUBLIC_CODE)
    return LEAST_FREE_BY_CODE_MG_L if by_code and stabilized else LEAST_FREE_MG_L


def swim_answer(question: SwimQuestion) -> SwimAnswer:
    """No before not known, not known before not yet, and yes only where nothing stands against it."""
    closed, unknown = tuple(_closed(question)), tuple(_not_known(question))
    waits = tuple(_waits(question))
    if closed:
        return SwimAnswer(SwimCode.NO, closed[0], reasons=(*closed, *unknown))
    if unknown:
        return SwimAnswer(SwimCode.UNKNOWN, unknown[0], reasons=unknown)
    if waits:
        text, until = max(waits, key=lambda wait: wait[1])
        return SwimAnswer(SwimCode.NOT_BEFORE, text, until, (text,))
    said = tuple(_said(question))
    return SwimAnswer(SwimCode.YES, Message("Yes."), reasons=said)


def latest_addition(state: PoolState) -> Entry[AdditionMade] | None:
    """The last thing that went into the water at once; tablets in a feeder dissolve over days."""
    at_once = [e for e in state.additions if e.body.chemical != SLOW]
    return at_once[-1] if at_once else None


# What closes a pool.
def _closed(question: SwimQuestion) -> Iterator[Message]:
    state = question.state
    if state.visual_checks:
        yield from _closed_by_sight(state.visual_checks[-1].body)
    if state.rescue_goes_on:
        yield Message("No: the water is being treated. Closed until the rescue is finished.")
    yield from _closed_by_plan(question)
    free, ph = _chlorine_and_ph(question)
    if free is not None and not _undone(question, free.at):
        yield from _closed_by_chlorine(question, free)
        yield from _closed_by_combined(question)
        yield from _closed_by_stabilizer(question, free)
    if ph is not None and not _undone(question, ph.at) and not PH_OPEN[0] <= ph.value.value <= PH_OPEN[1]:
        yield Message(
            "No: pH {ph} is outside {ph_open} to {ph_open_2}. Balance first.",
            ph=Number(ph.value.value),
            ph_open=Number(PH_OPEN[0]),
            ph_open_2=Number(PH_OPEN[1]),
        )


def _closed_by_sight(visual_check: VisualCheck) -> Iterator[Message]:
    if visual_check.floor_hidden:
        yield Message("No: the main drain cannot be seen. Nobody would see a swimmer in trouble.")
    elif visual_check.clarity is Clarity.CLOUDY:
        yield Message("No: the water is cloudy. Look again when the main drain is plain to see.")
    if DEAD_ANIMAL in visual_check.odd:
        yield Message(
            "No: a dead animal was in the water. Follow the accident plan, then test and look again."
        )


def _closed_by_plan(question: SwimQuestion) -> Iterator[Message]:
    """From its start until its end and the test that it ends with; a later plan takes its place."""
    if not question.state.treatments:
        return
    treatment = question.state.treatments[-1]
    if treatment.body.plan not in CLOSING_PLANS:
        return
    done = recorded_steps(question.state, treatment.id)
    if any(number not in done for number in steps_to_do(treatment.body)):
        yield Message("No: a plan that closes the pool is under way. Finish it, then test.")
    elif _worked(treatment, question.state) and not _tested_since(
        question.state, max(e.at for e in done.values())
    ):
        yield Message("No: the plan that closed the pool ends with a test. Test free chlorine and pH.")


def _worked(treatment: Entry[TreatmentStarted], state: PoolState) -> bool:
    """Anything of it was done; one that was put away whole changed nothing."""
    done = recorded_steps(state, treatment.id).values()
    return any(not isinstance(e.body, StepDone) or e.body.outcome is Outcome.DONE for e in done)


def _closed_by_chlorine(question: SwimQuestion, free: Reading) -> Iterator[Message]:
    limit = min(question.limit_mg_l, MOST_SWIM_LIMIT_MG_L)
    value = free.value
    if value.value > MOST_SWIM_LIMIT_MG_L or value.low > limit:
        yield Message(
            "No: free chlorine {free} is over the swim limit of {limit}. Test again later.",
            free=Number(value.value),
            limit=Number(limit),
        )
    if value.value < question.least_mg_l:
        yield Message(
            "No: free chlorine {free} is under {low}. Dose first.",
            free=Number(value.value),
            low=Number(question.least_mg_l),
        )


def _closed_by_combined(question: SwimQuestion) -> Iterator[Message]:
    combined = _combined(question)
    if combined is not None and combined.value.low > _combined_closes(question):
        yield Message(
            "No: combined chlorine {combined} is over {limit}. Shock, then test.",
            combined=Number(combined.value.value, digits=1),
            limit=Number(_combined_closes(question)),
        )


def _closed_by_stabilizer(question: SwimQuestion, free: Reading) -> Iterator[Message]:
    stabilizer = last_reading(question.state, Measure.CYANURIC_ACID)
    if stabilizer is not None and stabilizer.value.low > BOUND_CLOSES * free.value.high:
        yield Message(
            "No: stabilizer {stabilizer} binds nearly all of free chlorine {free}. Raise chlorine or dilute.",
            stabilizer=Number(stabilizer.value.value, digits=0),
            free=Number(free.value.value),
        )


# What nobody knows now, and what would tell.
def _not_known(question: SwimQuestion) -> Iterator[Message]:
    free, ph = _chlorine_and_ph(question)
    if free is None or ph is None:
        missing = Message("free chlorine") if free is None else Message("pH")
        yield Message("Not known: {missing} is not tested yet.", missing=missing)
        return
    tested_at = min(free.at, ph.at)
    if not question.speaks_still(tested_at):
        yield Message(
            "Not known: the last test is {days} days old. Test first.",
            days=Number((question.now - tested_at).days),
        )
    yield from _not_looked_at(question)
    yield from _undone_by(question, tested_at)
    combined = _combined(question)
    edge = _combined_closes(question)
    if combined is not None and combined.value.low <= edge < combined.value.value:
        yield Message(
            "Not known: combined chlorine {combined} may be over {limit} or not. Test it again.",
            combined=Number(combined.value.value, digits=1),
            limit=Number(edge),
        )
    expected = question.expected_mg_l
    if expected is not None and expected < question.least_mg_l <= free.value.value:
        yield Message(
            "Not known: by the forecast free chlorine may be under {low} by now. Test first.",
            low=Number(question.least_mg_l),
        )


def _not_looked_at(question: SwimQuestion) -> Iterator[Message]:
    visual_checks = question.state.visual_checks
    if not visual_checks or not question.speaks_still(visual_checks[-1].at):
        yield Message("Not known: nobody said lately that the floor is plain to see. Look first.")
    elif smell_stands(question.state):
        yield Message("Not known: there was a sharp smell. Test free and total chlorine now.")


def _undone_by(question: SwimQuestion, tested_at: datetime) -> Iterator[Message]:
    """What went in or out since, after its wait: a test would tell."""
    poured = _poured_that_needs_a_test(question, tested_at)
    if poured is not None and question.now >= _ready(poured):
        yield Message("Not before a test: {what} went in since the last one.", what=_called(poured))
    new = sum(
        e.body.volume_l
        for e in question.state.water_changes
        if e.at > tested_at and e.body.kind is not WaterChange.BACKWASH
    )
    if new >= NEW_WATER_UNDOES_A_TEST * question.volume_l:
        yield Message("Not known: much new water came in since the last test. Test first.")


# What only takes its time.
def _waits(question: SwimQuestion) -> Iterator[tuple[Message, datetime]]:
    free, ph = _chlorine_and_ph(question)
    tested_at = min(one.at for one in (free, ph) if one is not None) if free or ph else question.now
    tested = _poured_that_needs_a_test(question, tested_at)
    for poured in question.state.additions:
        if poured.body.chemical == SLOW or poured.at <= tested_at or question.now >= _ready(poured):
            continue
        if tested is None:
            yield Message("after {what} went in and is mixed", what=_called(poured)), _ready(poured)
            continue
        measure = Message("chlorine") if tested.body.chemical in CHLORINE_CARRIERS else Message("water")
        text = Message(
            "after {what} went in, and after a {measure} test", what=_called(poured), measure=measure
        )
        yield text, _ready(poured)


def _poured_that_needs_a_test(question: SwimQuestion, tested_at: datetime) -> Entry[AdditionMade] | None:
    """The latest addition since a test that undoes it; one that only has to be mixed does not."""
    since = [e for e in question.state.additions if e.at > tested_at and e.body.chemical != SLOW]
    needs = [e for e in since if e.body.chemical not in PLAIN and not _stays_in_between(question, since)]
    return needs[-1] if needs else None


def _stays_in_between(question: SwimQuestion, since: list[Entry[AdditionMade]]) -> bool:
    """Only chlorine went in, onto enough of it, and all of it together stays under the limit."""
    free = last_reading(question.state, Measure.FREE_CHLORINE)
    if free is None or free.value.low < question.least_mg_l:
        return False
    if any(e.body.chemical not in (*CHLORINE_CARRIERS, *PLAIN) for e in since):
        return False
    rise = sum(
        changes(_product(e.body), e.body.mass_g, question.volume_l).get(Measure.FREE_CHLORINE, 0.0)
        for e in since
    )
    return free.value.high + rise <= min(question.limit_mg_l, MOST_SWIM_LIMIT_MG_L)


# What is said beside a yes.
def _said(question: SwimQuestion) -> Iterator[Message]:
    free, _ = _chlorine_and_ph(question)
    if free is None:
        return
    value, low = free.value, question.chlorine.low
    if value.value > question.limit_mg_l:
        yield Message("Free chlorine is at the edge of the swim limit: test again before the next swim.")
    elif low is not None and value.value < low:
        yield Message("Free chlorine is under {low}: dose today.", low=Number(low))
    visual_checks = question.state.visual_checks
    if visual_checks and visual_checks[-1].body.clarity is Clarity.HAZY:
        yield Message("The water is hazy: look again tomorrow.")
    combined = _combined(question)
    if combined is not None and combined.value.low > question.combined_high_mg_l:
        yield Message("Combined chlorine is over its limit: treat it today.")
    if combined is None and oxidizer_within_a_week(question.state, question.now):
        yield Message("Combined chlorine cannot be read for a week after a non-chlorine shock.")
    stabilizer = last_reading(question.state, Measure.CYANURIC_ACID)
    if stabilizer is not None and stabilizer.value.value > HIGHEST_CYA_PER_FREE_CHLORINE * value.value:
        yield Message("Stabilizer binds most of the chlorine: raise chlorine, or lower stabilizer.")


# Readings as they count here.
def _chlorine_and_ph(question: SwimQuestion) -> tuple[Reading | None, Reading | None]:
    return last_reading(question.state, Measure.FREE_CHLORINE), last_reading(question.state, Measure.PH)


def _combined(question: SwimQuestion) -> Reading | None:
    """Combined chlorine that still speaks; none where monopersulfate would be read as it."""
    found = last_reading(question.state, Measure.COMBINED_CHLORINE)
    if found is None or not question.speaks_still(found.at) or _undone(question, found.at):
        return None
    return None if oxidizer_within_a_week(question.state, question.now) else found


def oxidizer_within_a_week(state: PoolState, now: datetime) -> bool:
    """Monopersulfate went in, which the usual test reads as combined chlorine for a week."""
    recent = now - OXIDIZER_READS_AS_COMBINED
    return any(e.body.chemical == "potassium_monopersulfate" and e.at > recent for e in state.additions)


def _combined_closes(question: SwimQuestion) -> float:
    if question.indoor or question.public:
        return question.combined_high_mg_l
    return COMBINED_CLOSES_MG_L


def _undone(question: SwimQuestion, at: datetime) -> bool:
    """Something went in or out that a reading of then does not know of."""
    return _poured_that_needs_a_test(question, at) is not None


def smell_stands(state: PoolState) -> bool:
    """A sharp smell at the last look, and free and total chlorine not tested since."""
    if not state.visual_checks or SHARP_SMELL not in state.visual_checks[-1].body.odd:
        return False
    found = [last_reading(state, measure) for measure in (Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE)]
    return not all(one is not None and one.at >= state.visual_checks[-1].at for one in found)


def _tested_since(state: PoolState, at: datetime) -> bool:
    found = [last_reading(state, measure) for measure in (Measure.FREE_CHLORINE, Measure.PH)]
    return all(one is not None and one.at > at for one in found)


def _ready(poured: Entry[AdditionMade]) -> datetime:
    return poured.at + timedelta(minutes=AFTER_ADDITION_MIN)


def _called(poured: Entry[AdditionMade]) -> Verbatim:
    return Verbatim(CATALOGUE[poured.body.chemical].name.lower())


def _product(body: AdditionMade) -> Product:
    return Product("", body.chemical, body.strength_percent)
