"""May they swim? Yes; not before an hour and after a test; no, and why; or not known, and what would tell.

Every reason is listed. It says no on what closes a pool, and never yes without a look and a test that still
speak for the water. Safety edges (floor, swim minimum, free chlorine 10, pH 7 and 8) are not softened;
beyond a comfort edge by less than the reading's own doubt is said, and does not slam the door.
Sources: swim-limit, swim-ph, mixing, test-interval.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.chlorine import (
    BOUND_CLOSES,
    bound,
    combined_before,
    combined_chlorine,
    combined_closes,
    free_chlorine,
    oxidizer_within_a_week,
)
from kumpan.core.assessment.measured import PH_OPEN, ph_reading, ph_unreliable
from kumpan.core.assessment.order import FindingSeverity, Problem
from kumpan.core.assessment.reasons import Reason, standing_on
from kumpan.core.assessment.seen import ALGAE_SPOTS, DEAD_ANIMAL, smell_stands
from kumpan.core.assessment.undone import (
    SLOW,
    called,
    much_new_water,
    poured_that_needs_a_test,
    power_was_off,
    ready,
)
from kumpan.core.journal import Clarity, Reading, open_treatment, unfinished_closures
from kumpan.core.journal.pool_entries import VisualCheck
from kumpan.core.messages import Cased, Message, Plural
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.shown import shown
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import ProfileKey
from kumpan.core.testing.plausibility import BLEACHING_FREE_CHLORINE_MG_L
from kumpan.core.treatment.not_now import COLD_C

SOURCES_USED = ("swim-limit", "swim-ph", "mixing", "test-interval")

LEAST_FREE_MG_L = 1.0
LEAST_FREE_BY_CODE_MG_L = 2.0  # with stabilizer, by the residential standard and the public code
LEAST_FREE_BESIDE_A_SUPPLEMENT_MG_L = 0.5


class SwimCode(StrEnum):
    """The answers to "may they swim?"."""

    YES = "yes"
    NOT_BEFORE = "not_before"
    NO = "no"
    UNKNOWN = "unknown"


@dataclass(frozen=True)
class SwimAnswer:
    """The answer at the head of the pool. `not_before` is when a test may open it, for that code.

    `because` are all that stand against it, or are said beside a yes; the first is the `text`.
    """

    code: SwimCode
    text: Message
    not_before: datetime | None = None
    because: tuple[Reason, ...] = ()

    @property
    def reasons(self) -> tuple[Message, ...]:
        """The reasons in words."""
        return tuple(reason.text for reason in self.because)

    @property
    def also(self) -> tuple[Reason, ...]:
        """The reasons that the text itself does not say."""
        return self.because if self.code is SwimCode.YES else self.because[1:]


def least_free_mg_l(profile: str, *, stabilized: bool, supplement: bool = False) -> float:
    """The free chlorine under which nobody swims, mg/L; never typed lower.

    `supplement` is the explicit choice of less beside a mineral unit, which no code allows.
    """
    if profile in (ProfileKey.RESIDENTIAL_STANDARD, ProfileKey.PUBLIC_CODE) and stabilized:
        return LEAST_FREE_BY_CODE_MG_L
    if supplement and profile != ProfileKey.PUBLIC_CODE:
        return LEAST_FREE_BESIDE_A_SUPPLEMENT_MG_L
    return LEAST_FREE_MG_L


def swim_answer(case: Case, found: Sequence[Problem] = ()) -> SwimAnswer:
    """No before not known, not known before not yet, and yes only where nothing stands against it."""
    closed = (*_by_danger(found), *_closed(case))
    if case.winter_closed:
        closed = (*closed, Reason("winter_closed", Message("The pool is closed for the winter.")))
    unknown = tuple(_not_known(case))
    waits = tuple(_waits(case))
    if closed:
        text = Message("No: {reason}", reason=Cased(closed[0].text))
        return SwimAnswer(SwimCode.NO, text, because=standing_on(case, (*closed, *unknown), found))
    if unknown:
        text = Message("Not known: {reason}", reason=Cased(unknown[0].text))
        return SwimAnswer(SwimCode.UNKNOWN, text, because=standing_on(case, unknown, found))
    if waits:
        reason, until = max(waits, key=lambda wait: wait[1])
        return SwimAnswer(SwimCode.NOT_BEFORE, reason.text, until, standing_on(case, (reason,), found))
    said = standing_on(case, tuple(_said(case)), found)
    return SwimAnswer(SwimCode.YES, Message("Yes."), because=said)


# What closes a pool.
def _by_danger(dangers: Sequence[Problem]) -> Iterator[Reason]:
    for danger in dangers:
        if danger.severity is FindingSeverity.DANGER:
            yield Reason(danger.code, Message("{reason}", reason=danger.reason))


def _closed(case: Case) -> Iterator[Reason]:
    state = case.state
    if state.visual_checks:
        yield from _closed_by_sight(state.visual_checks[-1].body)
    if state.rescue_goes_on:
        text = Message("The water is being treated. Closed until the rescue is finished.")
        yield Reason("rescue_open", text)
    yield from _closed_by_plan(case)
    free, ph = free_chlorine(case), ph_reading(case)
    if free is not None:
        yield from _closed_by_chlorine(case, free)
        yield from _closed_by_combined(case)
        yield from _closed_by_stabilizer(case)
    if ph is not None and not PH_OPEN[0] <= ph.value.value <= PH_OPEN[1] and not ph_unreliable(case, ph):
        yield Reason(
            "ph_low" if ph.value.value < PH_OPEN[0] else "ph_high",
            Message(
                "pH {ph} is outside {ph_open} to {ph_open_2}. Balance first.",
                ph=shown(
                    Measure.PH, ph.value.value, PH_OPEN[0] if ph.value.value < PH_OPEN[0] else PH_OPEN[1]
                ),
                ph_open=Number(PH_OPEN[0]),
                ph_open_2=Number(PH_OPEN[1]),
            ),
        )


def _closed_by_sight(visual_check: VisualCheck) -> Iterator[Reason]:
    if visual_check.floor_hidden:
        code = "green" if visual_check.clarity is Clarity.GREEN else "drain_hidden"
        text = Message("The main drain cannot be seen. Nobody would see a swimmer in trouble.")
        yield Reason(code, text)
    elif visual_check.clarity is Clarity.CLOUDY:
        text = Message("The water is cloudy. Look again when the main drain is plain to see.")
        yield Reason("cloudy", text)
    if DEAD_ANIMAL in visual_check.odd:
        text = Message("A dead animal was in the water. Follow the accident plan, then test and look again.")
        yield Reason("dead_animal", text)


def _closed_by_plan(case: Case) -> Iterator[Reason]:
    """From its start until its end and the test that it ends with."""
    opened = open_treatment(case.state)
    for closure in unfinished_closures(case.state):
        code = "incident_open" if closure.body.plan == "incident" else "treatment_open"
        if opened is not None and closure.id == opened.id:
            text = Message("A plan that closes the pool is under way. Finish it, then test.")
        else:
            text = Message("The plan that closed the pool ends with a test. Test free chlorine and pH.")
        yield Reason(code, text)


def _closed_by_chlorine(case: Case, free: Reading) -> Iterator[Reason]:
    limit, value = case.limit_mg_l, free.value
    if value.off_scale and value.value > 0:
        text = Message("Free chlorine is beyond the scale of this test. Dilute the sample and test again.")
        yield Reason("free_chlorine_off_scale", text)
    elif value.value > BLEACHING_FREE_CHLORINE_MG_L or value.low > limit:
        yield Reason(
            "free_chlorine_high",
            Message(
                "Free chlorine {free} is over the swim limit of {limit}. Test again later.",
                free=shown(Measure.FREE_CHLORINE, value.value, limit),
                limit=Number(limit),
            ),
        )
    if case.bleached:
        text = Message("Zero may be a bleached test; chlorine may be over 10. Dilute the sample.")
        yield Reason("free_chlorine_off_scale", text)
    elif value.value < case.least_mg_l:
        yield Reason(
            "free_chlorine_low",
            Message(
                "Free chlorine {free} is under {low}. Dose first.",
                free=shown(Measure.FREE_CHLORINE, value.value, case.least_mg_l),
                low=Number(case.least_mg_l),
            ),
        )


def _closed_by_combined(case: Case) -> Iterator[Reason]:
    combined = combined_chlorine(case)
    if combined is not None and combined.value.low > combined_closes(case):
        yield Reason(
            "combined_high",
            Message(
                "Combined chlorine {combined} is over {limit}. Shock, then test.",
                combined=Number(combined.value.value, digits=1),
                limit=Number(combined_closes(case)),
            ),
        )


def _closed_by_stabilizer(case: Case) -> Iterator[Reason]:
    found = bound(case)
    if found is not None and found[1] > BOUND_CLOSES:
        yield Reason(
            "chlorine_bound",
            Message(
                "Stabilizer {stabilizer} binds nearly all of free chlorine {free}. Raise chlorine or dilute.",
                stabilizer=Number(found[0], digits=0),
                free=shown(Measure.FREE_CHLORINE, found[2]),
            ),
        )


# What nobody knows now, and what would tell.
def _not_known(case: Case) -> Iterator[Reason]:
    free, ph = case.reading(Measure.FREE_CHLORINE), case.reading(Measure.PH)
    if free is None or ph is None:
        missing = Message("Free chlorine") if free is None else Message("pH")
        text = Message("{missing} is not tested yet.", missing=missing)
        yield Reason("test_missing", text)
        return
    tested_at = min(free.at, ph.at)
    yield from _by_age(case, tested_at)
    yield from _not_looked_at(case)
    yield from _undone_by(case, tested_at)
    if ph_unreliable(case, ph) and not PH_OPEN[0] <= ph.value.value <= PH_OPEN[1]:
        text = Message("pH read by color at such a chlorine reads too high. Test it again later.")
        yield Reason("ph_unreliable", text)
    before = combined_before(case)
    if before is not None and before.value.low > combined_closes(case):
        text = Message(
            "Combined chlorine was {combined} before chlorine or new water went in. Test total chlorine.",
            combined=Number(before.value.value, digits=1),
        )
        yield Reason("combined_high", text)
    combined, edge = combined_chlorine(case), combined_closes(case)
    if combined is not None and combined.value.low <= edge < combined.value.value:
        yield Reason(
            "combined_high",
            Message(
                "Combined chlorine {combined} may be over {limit} or not. Test it again.",
                combined=Number(combined.value.value, digits=1),
                limit=Number(edge),
            ),
        )
    expected = case.expected_mg_l
    if expected is not None and expected < case.least_mg_l <= free.value.value:
        text = Message(
            "By the forecast free chlorine may be under {low} by now. Test first.",
            low=Number(case.least_mg_l),
        )
        yield Reason("free_chlorine_low", text)


def _by_age(case: Case, tested_at: datetime) -> Iterator[Reason]:
    if case.speaks_still(tested_at):
        return
    if case.public:
        text = Message("A public pool is tested on the day; its operator's code decides. Test first.")
    else:
        days = (case.now - tested_at).days
        text = Message("The last test is {days} old. Test first.", days=Plural("{n} day", "{n} days", days))
    yield Reason("test_old", text)


def _not_looked_at(case: Case) -> Iterator[Reason]:
    visual_checks = case.state.visual_checks
    if not visual_checks or not case.speaks_still(visual_checks[-1].at):
        text = Message("Nobody said lately that the floor is plain to see. Look first.")
        yield Reason("look_old", text)
    elif smell_stands(case):
        text = Message("There was a sharp smell. Test free and total chlorine now.")
        yield Reason("smell", text)


def _undone_by(case: Case, tested_at: datetime) -> Iterator[Reason]:
    """What went in or out since, after its wait: a test would tell."""
    poured = poured_that_needs_a_test(case, tested_at)
    if poured is not None and case.now >= ready(poured):
        text = Message(
            "{what} went in since the last test. Test first.",
            what=Cased(Message("{what}", what=called(poured)), upper=True),
        )
        yield Reason("poured_since_test", text)
    if much_new_water(case, tested_at):
        text = Message("Much new water came in since the last test. Test first.")
        yield Reason("water_changed_since_test", text)
    if power_was_off(case):
        text = Message("The power or the cell was off since the last test. Test first.")
        yield Reason("power_cut", text)


# What only takes its time.
def _waits(case: Case) -> Iterator[tuple[Reason, datetime]]:
    free, ph = case.reading(Measure.FREE_CHLORINE), case.reading(Measure.PH)
    tested_at = min(one.at for one in (free, ph) if one is not None) if free or ph else case.now
    tested = poured_that_needs_a_test(case, tested_at)
    for poured in case.state.additions:
        if poured.body.chemical == SLOW or poured.at <= tested_at or case.now >= ready(poured):
            continue
        if tested is None:
            text = Message("after {what} went in and is mixed", what=called(poured))
            yield Reason("poured_since_test", text), ready(poured)
            continue
        measure = Message("chlorine") if tested.body.chemical in CHLORINE_CARRIERS else Message("water")
        text = Message(
            "after {what} went in, and after a {measure} test", what=called(poured), measure=measure
        )
        yield Reason("poured_since_test", text), ready(poured)


# What is said beside a yes.
def _said(case: Case) -> Iterator[Reason]:
    free = free_chlorine(case)
    if free is None:
        return
    value, low = free.value, case.chlorine.low
    if value.value > case.limit_mg_l:
        text = Message("Free chlorine is at the edge of the swim limit: test again before the next swim.")
        yield Reason("free_chlorine_high", text)
    elif low is not None and value.value < low:
        text = Message("Free chlorine is under {low}: dose today.", low=Number(low))
        yield Reason("free_chlorine_low", text)
    yield from _said_of_sight(case)
    yield from _said_of_ph(case)
    combined = combined_chlorine(case)
    if combined is not None and combined.value.low > case.combined_high_mg_l:
        yield Reason("combined_high", Message("Combined chlorine is over its limit: treat it today."))
    if oxidizer_within_a_week(case):
        text = Message("Combined chlorine cannot be read for a week after a non-chlorine shock.")
        yield Reason("combined_high", text)
    if bound(case) is not None:
        text = Message("Stabilizer binds most of the chlorine: raise chlorine, or lower stabilizer.")
        yield Reason("chlorine_bound", text)
    temperature = case.current(Measure.TEMPERATURE)
    if temperature is not None and temperature.value.value < COLD_C:
        yield Reason("water_cold", Message("The water is very cold: under 50 F (10 C)."))


def _said_of_sight(case: Case) -> Iterator[Reason]:
    last = case.state.visual_checks[-1].body if case.state.visual_checks else None
    if last is not None and last.clarity is Clarity.HAZY:
        yield Reason("hazy", Message("The water is hazy: look again tomorrow."))
    if last is not None and ALGAE_SPOTS in last.odd:
        yield Reason("algae_spots", Message("There are algae spots: brush and treat them today."))


def _said_of_ph(case: Case) -> Iterator[Reason]:
    ph, band = ph_reading(case), case.bands.get(Measure.PH)
    if ph is None or band is None:
        return
    value = ph.value.value
    if ph.value.low < PH_OPEN[0] or ph.value.high > PH_OPEN[1]:
        text = Message("pH {ph} is near its edge by this test: test it again.", ph=shown(Measure.PH, value))
        yield Reason("ph_low" if value < PH_OPEN[0] + 0.5 else "ph_high", text)
    elif band.low is not None and value < band.low:
        yield Reason(
            "ph_low",
            Message("pH {ph} is under its range: balance it.", ph=shown(Measure.PH, value, band.low)),
        )
    elif band.high is not None and value > band.high:
        yield Reason(
            "ph_high",
            Message("pH {ph} is over its range: balance it.", ph=shown(Measure.PH, value, band.high)),
        )
