"""When a rescue is over, and what is due now on the way there. Sources: rescue-plan, overnight-loss."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from kumpan.core.algae.overnight import HIGHEST_COMBINED_MG_L, MOST_LOST_MG_L
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.severity import SPOTS, shows_clear_water
from kumpan.core.journal import PhStrategy, last_reading, value_in
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number

SOURCES_USED = ("rescue-plan", "overnight-loss")

TEST_CARRIES = timedelta(hours=2)
FIRST_TEST_CARRIES = timedelta(hours=12)
VISUAL_CHECK_CARRIES = timedelta(hours=18)
PH_READS_TRUE_UNDER_MG_L = 10.0  # over it the indicator bleaches
WEEK = timedelta(days=7)
PH_HIGH, PH_LOW, PH_RAISED_LOW = 7.6, 7.0, 7.7


class StageKey(StrEnum):
    """The stages of a rescue, in their order."""

    TEST = "test"
    PREPARE = "prepare"
    BALANCE = "balance"
    ROUND = "round"
    CLEAR = "clear"
    WEEK = "week"
    AFTER = "after"


@dataclass(frozen=True)
class Criterion:
    """One thing that must hold at the end; `met` None while nobody knows."""

    key: str
    title: Message
    met: bool | None
    text: Message


def criteria(request: RescueRequest) -> tuple[Criterion, ...]:
    """All that must hold, in the handbook's order."""
    found = [_visual_check(request), _combined(request), _overnight(request)]
    if request.row.week_over_mg_l is not None:
        found.append(_week(request, request.row.week_over_mg_l))
    return tuple(found)


def _visual_check(request: RescueRequest) -> Criterion:
    title = Message("Clear: the main drain plain to see, no spots")
    visual_checks = request.episode.visual_checks if request.episode is not None else ()
    if not visual_checks or request.now - visual_checks[-1].at > VISUAL_CHECK_CARRIES:
        return Criterion("look", title, None, Message("Look today."))
    body = visual_checks[-1].body
    clear = shows_clear_water(body)
    return Criterion(
        "look", title, clear, (Message("Seen clear.") if clear else Message("Not yet, by the last look."))
    )


def _combined(request: RescueRequest) -> Criterion:
    title = Message(
        "Combined chlorine at {highest_combined} or less", highest_combined=Number(HIGHEST_COMBINED_MG_L)
    )
    tests = request.episode.tests if request.episode is not None else ()
    for test in reversed(tests):
        value = value_in(test.body.values, Measure.COMBINED_CHLORINE)
        if value is not None:
            return Criterion(
                "combined",
                title,
                value.value <= HIGHEST_COMBINED_MG_L + 1e-9,
                Message("Read {value}.", value=Number(value.value, digits=1)),
            )
    return Criterion("combined", title, None, Message("Test total chlorine beside free."))


def _overnight(request: RescueRequest) -> Criterion:
    title = Message("At most {most_lost} of free chlorine lost overnight", most_lost=Number(MOST_LOST_MG_L))
    night = request.last_night
    if night is None:
        return Criterion(
            "overnight", title, None, Message("Test after dark and before the sun, nothing poured between.")
        )
    text = Message(
        "{evening} to {morning}: {lost} lost.",
        evening=Number(night.evening_mg_l, digits=1),
        morning=Number(night.morning_mg_l, digits=1),
        lost=Number(night.lost_mg_l, digits=1),
    )
    return Criterion("overnight", title, night.holds, text)


def week_began(request: RescueRequest, over_mg_l: float) -> datetime | None:
    """Since when every test stood over a level; None where the last did not, or no round was done."""
    tests = request.episode.tests if request.episode is not None else ()
    began: datetime | None = None
    for test in reversed(tests):
        value = value_in(test.body.values, Measure.FREE_CHLORINE)
        if value is None:
            continue
        if value.value <= over_mg_l:
            break
        began = test.at
    return began if request.rounds else None


def _week(request: RescueRequest, over_mg_l: float) -> Criterion:
    title = Message("Free chlorine over {over} for a full week", over=Number(over_mg_l))
    began = week_began(request, over_mg_l)
    if began is None:
        return Criterion(
            "week", title, met=False, text=Message("The week begins with the first test over it.")
        )
    days = (request.now - began) / timedelta(days=1)
    return Criterion(
        "week",
        title,
        days >= WEEK / timedelta(days=1),
        Message("{days} days so far.", days=Number(days, digits=1)),
    )


def finished(request: RescueRequest) -> bool:
    """All of it holds."""
    return all(one.met for one in criteria(request))


def nothing_lives(request: RescueRequest) -> bool:
    """The night holds and combined chlorine is low; clear or not."""
    return all(one.met for one in criteria(request) if one.key in ("combined", "overnight"))


def stage_now(request: RescueRequest) -> StageKey:
    """What is due now. A pour never goes without a test of the last two hours."""
    if _needs_test(request, FIRST_TEST_CARRIES):
        return StageKey.TEST
    if request.episode is None or not (request.episode.prepared or request.rounds):
        return StageKey.PREPARE
    if finished(request):
        return StageKey.AFTER
    if _needs_test(request, TEST_CARRIES):
        return StageKey.TEST
    if not request.rounds and _ph_first(request):
        return StageKey.BALANCE
    if _spots(request):
        return StageKey.WEEK
    if not nothing_lives(request) and not _only_the_night_is_missing(request):
        return StageKey.ROUND
    others = [one for one in criteria(request) if one.key != "week"]
    return StageKey.WEEK if all(one.met for one in others) else StageKey.CLEAR


def _spots(request: RescueRequest) -> bool:
    """Spots at the last look once a round is done: brushed daily, pump on, whatever a night says."""
    checks = request.episode.visual_checks if request.episode is not None else ()
    return bool(checks) and bool(request.rounds) and SPOTS in checks[-1].body.odd and nothing_lives(request)


def _only_the_night_is_missing(request: RescueRequest) -> bool:
    """Clear and nothing combined, but no pair of tests over a night: that is asked for, and is no reason to
    shock again.
    """
    met = {one.key: one.met for one in criteria(request)}
    return bool(met["look"]) and bool(met["combined"]) and met["overnight"] is None and bool(request.rounds)


def _needs_test(request: RescueRequest, carries: timedelta) -> bool:
    free = last_reading(request.state, Measure.FREE_CHLORINE)
    ph = last_reading(request.state, Measure.PH)
    if free is None or ph is None:
        return True
    return request.now - free.at > carries


def ph_window(request: RescueRequest) -> tuple[float, float, float]:
    """Lowest, highest and aim of pH before a shock, by the school taken."""
    if request.ph_strategy is PhStrategy.RAISED:
        return PH_RAISED_LOW, 8.2, 7.8
    return PH_LOW, PH_HIGH, 7.3


def _ph_first(request: RescueRequest) -> bool:
    ph, free = request.readings.ph, request.readings.free_chlorine
    low, high, _ = ph_window(request)
    if ph is None or free is None or free > PH_READS_TRUE_UNDER_MG_L:
        return False
    return not low - 1e-9 <= ph <= high + 1e-9
