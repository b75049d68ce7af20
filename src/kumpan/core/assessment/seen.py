"""What was seen or noted at a pool, each with its consequence until a later look, test or entry of the same
thing clears it. Sources: swim-limit, mixing, order.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import FindingSeverity, Problem, Remedy, RemedyKind
from kumpan.core.assessment.undone import last_event
from kumpan.core.forecast.expected import settled_reading
from kumpan.core.journal import Clarity, NotedEvent, last_reading
from kumpan.core.journal.pool_entries import Level, VisualCheck
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number

SOURCES_USED = ("swim-limit", "mixing", "order")

DEAD_ANIMAL, SHARP_SMELL, ALGAE_SPOTS = "dead animal", "sharp smell", "algae spots"  # as the look has them
THUNDER_OVER = timedelta(minutes=30)
HOTTEST_C = 40.0
BACK_WITHIN = timedelta(days=31)  # spots again in that time come from a cause, not from chance
K, S, M = RemedyKind, FindingSeverity, Measure


@dataclass(frozen=True)
class Row:
    """What a word of the look means: code, urgency, what to do and why."""

    code: str
    severity: FindingSeverity
    remedy: Remedy
    reason: Message


def _found(
    code: str, severity: FindingSeverity, kind: RemedyKind, *, to_do: Message, why: Message, **more: object
) -> Row:
    return Row(code, severity, Remedy(kind=kind, text=to_do, **more), why)  # type: ignore[arg-type]


# Always no, and a danger, until a later entry of the same thing. Origin: handbook 05, 11; laws of advice B.8.
DANGERS: Mapping[str, Row] = {
    "electric": _found(
        "electric", S.DANGER, K.TRADE,
        to_do=Message("Everybody out without touching metal, breaker off, and call a licensed electrician"),
        why=Message("There was tingling or a broken underwater light."),
    ),
    "gas": _found(
        "gas", S.DANGER, K.TRADE,
        to_do=Message("Leave upwind, take others along, call the fire service"),
        why=Message("There was a smell of gas with cough."),
    ),
    "drain_cover": _found(
        "drain_cover", S.DANGER, K.TRADE,
        to_do=Message("Nobody in, breaker off, and call a licensed trade for the drain cover"),
        why=Message("The drain cover is missing, loose or cracked: suction can hold a swimmer under."),
    ),
    "glass": _found(
        "glass", S.DANGER, K.PROCEDURE,
        to_do=Message("Nobody barefoot near it: gather the glass by hand, vacuum to waste, then look again"),
        why=Message("There is broken glass."), procedure="glass",
    ),
    "barrier": _found(
        "barrier", S.DANGER, K.TRADE,
        to_do=Message("Keep children away and have gate and fence mended before anybody swims"),
        why=Message("Gate or fence does not keep children out."),
    ),
    "water_hot": _found(
        "water_hot", S.DANGER, K.WAIT,
        to_do=Message("Nobody in until the water is under {hottest} C", hottest=Number(HOTTEST_C)),
        why=Message("The water is over {hottest} C.", hottest=Number(HOTTEST_C)),
    ),
}  # fmt: skip
COVER_ON = _found(
    "cover_on", S.DANGER, K.LOOK,
    to_do=Message("Take the cover wholly off and look before anybody goes in; after a shock it stays off"),
    why=Message("The cover is on, or not wholly off."),
)  # fmt: skip

UNLIT = Message("The floor is not lit: after dark nobody would see a swimmer in trouble.")
OUT_BEFORE_DARK = Message("Nobody in after dark until the floor is lit and a look says so")

# What else a look finds. Origin: handbook 02, 07, 08; common practice.
SEEN: Mapping[str, Row] = {
    DEAD_ANIMAL: _found(
        "dead_animal", S.CLOSES_POOL, K.PLAN,
        to_do=Message("Nobody in: take the animal out with a scoop and follow the accident plan"),
        why=Message("A dead animal was in the water."), plan="incident",
    ),
    Clarity.GREEN.value: _found(
        "green", S.CLOSES_POOL, K.PLAN, to_do=Message("Plan the rescue"),
        why=Message("The water is green. The board says what it takes, and whether draining is better."),
        plan="rescue",
    ),
    Clarity.DRAIN_HIDDEN.value: _found(
        "drain_hidden", S.CLOSES_POOL, K.PLAN, to_do=Message("Plan the rescue"),
        why=Message(
            "The drain cannot be seen. The board says what it takes, and whether draining is better."
        ),
        plan="rescue",
    ),
    SHARP_SMELL: _found(
        "smell", S.TREAT_TODAY, K.TEST, to_do=Message("Test free and total chlorine now"),
        why=Message("There was a sharp smell: it comes from combined chlorine."),
        measures=(M.FREE_CHLORINE, M.TOTAL_CHLORINE),
    ),
    "leak": _found(
        "leak", S.TREAT_TODAY, K.PROCEDURE,
        to_do=Message("Find the leak; the pump off if it is at the equipment"),
        why=Message("The last look found a leak."), procedure="leak",
    ),
    Level.LOW.value: _found(
        "level_low", S.TREAT_TODAY, K.PROCEDURE,
        to_do=Message("Raise the water to the middle of the skimmer before the pump runs"),
        why=Message("The level is low: the pump would draw air and run hot."), procedure="level",
    ),
    "weak returns": _found(
        "returns_weak", S.TREAT_TODAY, K.PROCEDURE,
        to_do=Message("Empty the baskets, then check the pressure, the pump's lid and the level"),
        why=Message("The returns are weak: little water is filtered and mixed."), procedure="baskets",
    ),
    ALGAE_SPOTS: _found(
        "algae_spots", S.TREAT_TODAY, K.PROCEDURE,
        to_do=Message("Find out what the spots are, and brush them today"),
        why=Message("The last look found algae spots."), procedure="identify",
    ),
    Clarity.CLOUDY.value: _found(
        "cloudy", S.CLOSES_POOL, K.TEST,
        to_do=Message("Check the filter, test free and total chlorine, and look again tomorrow"),
        why=Message("The water is cloudy."), measures=(M.FREE_CHLORINE, M.TOTAL_CHLORINE),
    ),
    Clarity.HAZY.value: _found(
        "hazy", S.TREAT_TODAY, K.TEST,
        to_do=Message("Check the filter, test free and total chlorine, and look again tomorrow"),
        why=Message("The water is hazy."), measures=(M.FREE_CHLORINE, M.TOTAL_CHLORINE),
    ),
    "leaves": _found(
        "leaves", S.TREAT_SOON, K.PROCEDURE, to_do=Message("Take the leaves out and empty the baskets"),
        why=Message("Leaves use up chlorine and block the flow."), procedure="clean",
    ),
    "foam": _found(
        "foam", S.TREAT_SOON, K.TEST,
        to_do=Message("Test chlorine; wait with algaecide until the foam is gone"),
        why=Message("Foam comes from algaecide, soap or lotion."), measures=(M.FREE_CHLORINE,),
    ),
    Level.HIGH.value: _found(
        "level_high", S.TREAT_SOON, K.PROCEDURE,
        to_do=Message("Lower the water: by a backwash if one is due, else by the waste setting"),
        why=Message("The level is high: the skimmer no longer skims."), procedure="level",
    ),
}  # fmt: skip
SPOTS_AGAIN = Message(
    "Brush daily, pump on; test chlorine at dusk and at dawn, look to stabilizer, flow and still corners"
)

# The care that speaks of the same thing; else a later look.
CLEARED_BY: Mapping[str, tuple[str, ...]] = {
    "leaves": ("skim", "baskets"),
    Level.LOW.value: ("level",),
    Level.HIGH.value: ("level",),
}


def seen(case: Case) -> Iterator[Problem]:
    """What the last look and what was noted since ask for."""
    yield from _cover(case)
    yield from _thunder(case)
    yield from _hot(case)
    yield from _flood(case)
    yield from _unlit(case)
    if not case.state.visual_checks:
        return
    entry = case.state.visual_checks[-1]
    done = {care.body.task for care in case.state.care if care.at > entry.at}
    for word in answers(entry.body):
        row = DANGERS.get(word) or SEEN.get(word)
        if row is None or done.intersection(CLEARED_BY.get(word, ())):
            continue
        if word == SHARP_SMELL and not smell_stands(case):
            continue
        yield _problem(_again(case, word, row), entry.id)


def answers(visual_check: VisualCheck) -> tuple[str, ...]:
    """All that a look said, in the look's words."""
    level = () if visual_check.level is Level.NORMAL else (visual_check.level.value,)
    return tuple(dict.fromkeys((*visual_check.odd, visual_check.clarity.value, *level)))


def _problem(row: Row, *entries: UUID) -> Problem:
    law = "B.8" if row.severity is S.DANGER else "C"
    return Problem(
        code=row.code,
        severity=row.severity,
        remedy=row.remedy,
        reason=row.reason,
        measures=row.remedy.measures,
        entries=entries,
        law=law,
    )


def _again(case: Case, word: str, row: Row) -> Row:
    """Spots that come back within a month while chlorine stood."""
    if word != ALGAE_SPOTS:
        return row
    last = case.state.visual_checks[-1]
    before = [e for e in case.state.visual_checks[:-1] if last.at - e.at <= BACK_WITHIN]
    had = [e for e in before if ALGAE_SPOTS in e.body.odd or e.body.clarity is Clarity.GREEN]
    gone = [e for e in before if had and e.at > had[0].at and ALGAE_SPOTS not in e.body.odd]
    if not gone:
        return row
    remedy = Remedy(kind=K.TEST, text=SPOTS_AGAIN, measures=(M.FREE_CHLORINE, M.CYANURIC_ACID))
    return Row(row.code, row.severity, remedy, Message("Algae spots came back within a month."))


def smell_stands(case: Case) -> bool:
    """A sharp smell at the last look, and free and total chlorine not tested since."""
    checks = case.state.visual_checks
    if not checks or SHARP_SMELL not in checks[-1].body.odd:
        return False
    found = [last_reading(case.state, measure) for measure in (M.FREE_CHLORINE, M.TOTAL_CHLORINE)]
    return not all(one is not None and one.at >= checks[-1].at for one in found)


def _cover(case: Case) -> Iterator[Problem]:
    """On since it was noted or seen, until it is noted off or a later look finds it off."""
    if case.winter_closed:
        return
    on = last_event(case, NotedEvent.COVER_ON)
    off = last_event(case, NotedEvent.COVER_OFF)
    checks = case.state.visual_checks
    if checks and "cover_on" in checks[-1].body.odd and (on is None or checks[-1].at > on[0]):
        on = (checks[-1].at, checks[-1].id)
    if on is None or (off is not None and off[0] >= on[0]):
        return
    if any(e.at > on[0] and "cover_on" not in e.body.odd for e in checks):
        return
    yield _problem(COVER_ON, on[1])


def _thunder(case: Case) -> Iterator[Problem]:
    heard = [e for e in case.state.visual_checks if "thunder" in e.body.odd]
    if not heard or case.now >= heard[-1].at + THUNDER_OVER:
        return
    until = heard[-1].at + THUNDER_OVER
    remedy = Remedy(
        kind=K.WAIT,
        text=Message("Everybody out, until 30 minutes after the last thunder; note each new one"),
        until=until,
    )
    yield _problem(Row("thunder", S.DANGER, remedy, Message("There was thunder.")), heard[-1].id)


def _unlit(case: Case) -> Iterator[Problem]:
    """Seen unlit at the last look: a danger while it is dark, to be remembered by day."""
    checks = case.state.visual_checks
    if not checks or "unlit" not in checks[-1].body.odd:
        return
    remedy = Remedy(kind=K.WAIT, text=OUT_BEFORE_DARK, until=case.light_changes_at if case.dark else None)
    yield _problem(Row("unlit", S.DANGER if case.dark else S.WATCH, remedy, UNLIT), checks[-1].id)


def _hot(case: Case) -> Iterator[Problem]:
    read = case.current(M.TEMPERATURE)
    checks = case.state.visual_checks
    looked = bool(checks) and "water_hot" in checks[-1].body.odd
    if read is not None and read.value.value > HOTTEST_C and not looked:
        yield _problem(DANGERS["water_hot"])


def _flood(case: Case) -> Iterator[Problem]:
    """Until the water was tested and looked at after it."""
    flood = last_event(case, NotedEvent.FLOOD)
    if flood is None:
        return
    tested = [settled_reading(case.state, m) for m in (M.FREE_CHLORINE, M.PH)]
    known = all(one is not None and one.at > flood[0] for one in tested)
    if known and any(e.at > flood[0] for e in case.state.visual_checks):
        return
    remedy = Remedy(
        kind=K.TRADE,
        text=Message(
            "Electrician first. Do not drain: the shell can float. Then unstabilized shock, the filter day "
            "and night, and the health authority's word"
        ),
    )
    reason = Message("There was a flood: mud, germs and wet electrics.")
    yield _problem(Row("flood", S.DANGER, remedy, reason), flood[1])
