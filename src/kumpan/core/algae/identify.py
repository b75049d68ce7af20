"""What is it: a short key by look, place, touch and history for the three algae and what is taken for them.

Each answer makes some kinds more likely than others; the table says how much. The figures are weights of
common practice, not measurements; what is told is a confidence in words and what would settle it.
Source: algae-key.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from math import log
from types import MappingProxyType

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Cased, Message, Verbatim

SOURCE = "algae-key"


class Kind(StrEnum):
    """What a discoloration can be."""

    GREEN = "green"
    MUSTARD = "mustard"
    BLACK = "black"
    POLLEN = "pollen"
    SAND = "sand"
    METAL = "metal"
    DEAD = "dead"


@dataclass(frozen=True)
class KindRow:
    """A kind: its name, how usual it is, what it is, what settles it, and what is done about it."""

    kind: Kind
    name: Message
    usual: float
    what: Message
    settles: Message
    then: Message


KINDS: tuple[KindRow, ...] = (
    KindRow(
        Kind.GREEN, Message("Green algae"), 10,
        Message("Haze, film or green water; it clouds first, and pH is often 7.8 and above."),
        Message("Brush a patch: it comes off in a green cloud."),
        Message("Clean or backwash the filter, brush everything, shock at dusk, pump round the clock."),
    ),
    KindRow(
        Kind.MUSTARD, Message("Mustard algae"), 1,
        Message("Yellow-brown dust on shady walls and steps. Truly rare, often misnamed."),
        Message("Brush it off, look at the same spot tomorrow: "
                "mustard is back there, sand and pollen are not."),
        Message("As green at a higher level, with everything that was in the water treated along."),
    ),
    KindRow(
        Kind.BLACK, Message("Black algae"), 2,
        Message("Dark spots with heads, rooted in shady, rough cement under a skin of its own."),
        Message("Press a thumbnail or a hard brush on one: it holds, and smears dark when it breaks."),
        Message("Brush hard daily, shock, brush again; weeks of patience. Steel brush on bare cement only."),
    ),
    KindRow(
        Kind.POLLEN, Message("Pollen"), 4,
        Message("Yellow dust that floats and gathers at one side in the flowering weeks."),
        Message("Catch some in a sock in the skimmer: the water clears without any chlorine."),
        Message("Skim, filter, swap the sock often. No shock is needed for it."),
    ),
    KindRow(
        Kind.SAND, Message("Sand or dirt"), 4,
        Message("Grains on the floor that do not grow and do not come back to the same spot."),
        Message("Rub it between the fingers: grains. Under a return it may be the filter's own sand."),
        Message("Vacuum. Sand at the returns: look at the filter's laterals."),
    ),
    KindRow(
        Kind.METAL, Message("Metal tint or stain"), 3,
        Message("Clear water with a tint, or a stain that no brush moves: copper is green-blue, iron brown."),
        Message("Test copper and iron. Look through a glass of it: tinted, but no haze."),
        Message("Sequestrant first. A shock would set the stain: not now."),
    ),
    KindRow(
        Kind.DEAD, Message("Dead algae"), 3,
        Message("Gray-white cloud after a shock, or gray dust on the floor."),
        Message("Chlorine holds overnight: nothing is left to kill, only to filter."),
        Message("Filter on, clean it often; clarifier only with free chlorine under 5, "
                "or vacuum what has settled to waste."),
    ),
)  # fmt: skip
_BY_KIND: Mapping[Kind, KindRow] = MappingProxyType({row.kind: row for row in KINDS})


@dataclass(frozen=True)
class Choice:
    """An answer, and how well it fits each kind in the order of `KINDS`: 0 hardly ever, 10 nearly always."""

    key: str
    label: Message
    fits: tuple[float, ...]


@dataclass(frozen=True)
class KeyQuestion:
    """One question of the key with the answers it offers."""

    key: str
    text: Message
    choices: tuple[Choice, ...]


#                                                    green must black poll sand metal dead
QUESTIONS: tuple[KeyQuestion, ...] = (
    KeyQuestion("look", Message("How does it look?"), (
        Choice("haze", Message("Green haze or green water"),        (10, 1, 0.3, 1, 0.3, 1, 1)),
        Choice("film", Message("Green film on walls"),              (7, 1, 0.5, 0.2, 0.2, 1, 0.3)),
        Choice("dust", Message("Yellow-brown dust"),                (1, 10, 0.5, 8, 7, 0.7, 2)),
        Choice("spots", Message("Dark spots with heads"),           (0.3, 0.3, 10, 0.1, 0.5, 2, 0.1)),
        Choice("tint", Message("Clear water with a tint"),          (0.3, 0.1, 0.1, 0.3, 0.1, 10, 0.3)),
        Choice("cloud", Message("Gray-white cloud"),                (1, 0.2, 0.2, 1, 1, 0.5, 10)),
    )),
    KeyQuestion("place", Message("Where is it?"), (
        Choice("everywhere", Message("Everywhere in the water"),    (8, 1, 0.3, 4, 0.3, 8, 8)),
        Choice("shade", Message("Shady walls and steps"),           (3, 10, 6, 1, 0.5, 2, 0.5)),
        Choice("pits", Message("Rough spots of the cement"),        (0.7, 1, 8, 0.2, 0.5, 3, 0.2)),
        Choice("surface", Message("Floating, at one side"),         (1, 0.3, 0.1, 10, 0.5, 0.1, 0.5)),
        Choice("floor", Message("On the floor, low spots"),         (2, 3, 1, 2, 10, 1, 5)),
    )),
    KeyQuestion("touch", Message("What does a brush do?"), (
        Choice("off", Message("It comes off"),                      (9, 3, 0.3, 3, 3, 0.3, 4)),
        Choice("easy", Message("It comes off at a touch and is back next day"), (2, 10, 0.3, 2, 0.7, 0.1, 1)),
        Choice("holds", Message("It holds"),                        (0.5, 0.2, 10, 0.1, 0.1, 8, 0.1)),
        Choice("grains", Message("Grains, they just move"),         (0.2, 0.5, 0.2, 0.7, 10, 0.1, 1)),
        Choice("nothing", Message("There is nothing to brush"),     (3, 0.2, 0.1, 4, 0.3, 8, 6)),
    )),
    KeyQuestion("history", Message("What came before?"), (
        Choice("low_chlorine", Message("Little chlorine, or warm weeks"), (9, 5, 4, 1, 1, 1, 1)),
        Choice("returns", Message("It was here before, at the same spot"), (2, 9, 7, 1, 1, 3, 0.5)),
        Choice("flowers", Message("Trees in flower"),               (1, 1, 0.7, 10, 1, 0.5, 0.5)),
        Choice("wind", Message("Wind, a storm, sandy feet"),        (2, 1, 0.7, 2, 9, 0.5, 1)),
        Choice("copper", Message("A copper product, well water, low pH"), (1, 1, 1, 0.5, 0.5, 10, 0.5)),
        Choice("shock", Message("A shock yesterday"),               (1, 1, 1, 0.5, 0.5, 4, 10)),
    )),
)  # fmt: skip
SURE, LIKELY = 0.8, 0.55


@dataclass(frozen=True)
class Candidate:
    """A kind with its share of the likelihood, 0 to 1."""

    kind: Kind
    name: Message
    share: float
    what: Message


@dataclass(frozen=True, kw_only=True)
class Identified:
    """The kinds, likeliest first; a headline that claims no more than the confidence in words; what would
    settle it; what is done then.

    `ask_next` is the open question that would tell most, None when all are answered.
    """

    candidates: tuple[Candidate, ...]
    headline: Message
    confidence: Message
    settles: Message
    then: Message
    ask_next: str | None


def identify(answers: Mapping[str, str]) -> Identified:
    """Weigh the answers given (question -> choice). Raises InvalidInput for what is not in the key."""
    shares = _shares(_picked(answers))
    order = sorted(KINDS, key=lambda row: -shares[row.kind])
    best, second = order[0], order[1]
    share = shares[best.kind]
    headline = best.name
    if share >= SURE:
        confidence = Message("quite sure")
    elif share >= LIKELY:
        confidence = Message("likely; it could be {other}", other=Cased(second.name))
    else:
        headline, confidence = (
            Message("Not clear yet"),
            Message("{first}, or {second}", first=Cased(best.name, upper=True), second=Cased(second.name)),
        )
    return Identified(
        candidates=tuple(Candidate(row.kind, row.name, shares[row.kind], row.what) for row in order),
        headline=headline,
        confidence=confidence,
        settles=best.settles,
        then=best.then,
        ask_next=_most_informative(answers),
    )


def _picked(answers: Mapping[str, str]) -> list[Choice]:
    known = {question.key: question for question in QUESTIONS}
    found = []
    for key, choice in answers.items():
        if key not in known:
            raise InvalidInput(
                Message(
                    '"{key}" is not asked here; use one of: {known}.',
                    key=Verbatim(key),
                    known=Verbatim(", ".join(known)),
                ),
                "answers",
            )
        picked = next((one for one in known[key].choices if one.key == choice), None)
        if picked is None:
            listed = ", ".join(one.key for one in known[key].choices)
            raise InvalidInput(
                Message(
                    '"{choice}" does not answer "{text}"; use one of: {listed}.',
                    choice=Verbatim(choice),
                    text=known[key].text,
                    listed=Verbatim(listed),
                ),
                "answers",
            )
        found.append(picked)
    return found


def _shares(picked: Iterable[Choice]) -> dict[Kind, float]:
    """Each kind's usualness times how well every answer fits it, as shares of one."""
    weights = {row.kind: row.usual for row in KINDS}
    for choice in picked:
        for row, fit in zip(KINDS, choice.fits, strict=True):
            weights[row.kind] *= fit
    total = sum(weights.values())
    return {kind: weight / total for kind, weight in weights.items()}


def _most_informative(answers: Mapping[str, str]) -> str | None:
    """The open question whose answers would, on the whole, leave the least doubt."""
    picked = _picked(answers)
    now = _shares(picked)
    left = [question for question in QUESTIONS if question.key not in answers]

    def uncertainty_after(question: KeyQuestion) -> float:
        sums = [sum(choice.fits[n] for choice in question.choices) for n in range(len(KINDS))]
        total = 0.0
        for choice in question.choices:
            chance = sum(now[row.kind] * choice.fits[n] / sums[n] for n, row in enumerate(KINDS))
            total += chance * _entropy(_shares([*picked, choice]))
        return total

    return min(left, key=uncertainty_after).key if left else None


def _entropy(shares: Mapping[Kind, float]) -> float:
    return -sum(share * log(share) for share in shares.values() if share > 0)
