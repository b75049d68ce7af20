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

SOURCE = "algae-key"


class Kind(StrEnum):
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
    name: str
    usual: float
    what: str
    settles: str
    then: str


KINDS: tuple[KindRow, ...] = (
    KindRow(
        Kind.GREEN, "Green algae", 10,
        "Haze, film or green water; it clouds first, and pH is often 7.8 and above.",
        "Brush a patch: it comes off in a green cloud.",
        "Clean or backwash the filter, brush everything, shock at dusk, pump round the clock.",
    ),
    KindRow(
        Kind.MUSTARD, "Mustard algae", 1,
        "Yellow-brown dust on shady walls and steps. Truly rare, often misnamed.",
        "Brush it off, look at the same spot tomorrow: mustard is back there, sand and pollen are not.",
        "As green at a higher level, with everything that was in the water treated along.",
    ),
    KindRow(
        Kind.BLACK, "Black algae", 2,
        "Dark spots with heads, rooted in shady, rough cement under a skin of its own.",
        "Press a thumbnail or a hard brush on one: it holds, and smears dark when it breaks.",
        "Brush hard daily, shock, brush again; weeks of patience. Steel brush on bare cement only.",
    ),
    KindRow(
        Kind.POLLEN, "Pollen", 4,
        "Yellow dust that floats and gathers at one side in the flowering weeks.",
        "Catch some in a sock in the skimmer: the water clears without any chlorine.",
        "Skim, filter, swap the sock often. No shock is needed for it.",
    ),
    KindRow(
        Kind.SAND, "Sand or dirt", 4,
        "Grains on the floor that do not grow and do not come back to the same spot.",
        "Rub it between the fingers: grains. Under a return it may be the filter's own sand.",
        "Vacuum. Sand at the returns: look at the filter's laterals.",
    ),
    KindRow(
        Kind.METAL, "Metal tint or stain", 3,
        "Clear water with a tint, or a stain that no brush moves: copper is green-blue, iron brown.",
        "Test copper and iron. Look through a glass of it: tinted, but no haze.",
        "Sequestrant first. A shock would set the stain: not now.",
    ),
    KindRow(
        Kind.DEAD, "Dead algae", 3,
        "Grey-white cloud after a shock, or grey dust on the floor.",
        "Chlorine holds overnight: nothing is left to kill, only to filter.",
        "Filter on, clean it often; clarifier only with free chlorine under 5, or vacuum what has settled to waste.",
    ),
)  # fmt: skip
_BY_KIND: Mapping[Kind, KindRow] = MappingProxyType({row.kind: row for row in KINDS})


@dataclass(frozen=True)
class Choice:
    """An answer, and how well it fits each kind in the order of `KINDS`: 0 hardly ever, 10 nearly always."""

    key: str
    label: str
    fits: tuple[float, ...]


@dataclass(frozen=True)
class KeyQuestion:
    key: str
    text: str
    choices: tuple[Choice, ...]


#                                                    green must black poll sand metal dead
QUESTIONS: tuple[KeyQuestion, ...] = (
    KeyQuestion("look", "How does it look?", (
        Choice("haze", "Green haze or green water",        (10, 1, 0.3, 1, 0.3, 1, 1)),
        Choice("film", "Green film on walls",              (7, 1, 0.5, 0.2, 0.2, 1, 0.3)),
        Choice("dust", "Yellow-brown dust",                (1, 10, 0.5, 8, 7, 0.7, 2)),
        Choice("spots", "Dark spots with heads",           (0.3, 0.3, 10, 0.1, 0.5, 2, 0.1)),
        Choice("tint", "Clear water with a tint",          (0.3, 0.1, 0.1, 0.3, 0.1, 10, 0.3)),
        Choice("cloud", "Grey-white cloud",                (1, 0.2, 0.2, 1, 1, 0.5, 10)),
    )),
    KeyQuestion("place", "Where is it?", (
        Choice("everywhere", "Everywhere in the water",    (8, 1, 0.3, 4, 0.3, 8, 8)),
        Choice("shade", "Shady walls and steps",           (3, 10, 6, 1, 0.5, 2, 0.5)),
        Choice("pits", "Rough spots of the cement",        (0.7, 1, 8, 0.2, 0.5, 3, 0.2)),
        Choice("surface", "Floating, at one side",         (1, 0.3, 0.1, 10, 0.5, 0.1, 0.5)),
        Choice("floor", "On the floor, low spots",         (2, 3, 1, 2, 10, 1, 5)),
    )),
    KeyQuestion("touch", "What does a brush do?", (
        Choice("off", "It comes off",                      (9, 3, 0.3, 3, 3, 0.3, 4)),
        Choice("easy", "It comes off at a touch and is back next day", (2, 10, 0.3, 2, 0.7, 0.1, 1)),
        Choice("holds", "It holds",                        (0.5, 0.2, 10, 0.1, 0.1, 8, 0.1)),
        Choice("grains", "Grains, they just move",         (0.2, 0.5, 0.2, 0.7, 10, 0.1, 1)),
        Choice("nothing", "There is nothing to brush",     (3, 0.2, 0.1, 4, 0.3, 8, 6)),
    )),
    KeyQuestion("history", "What came before?", (
        Choice("low_chlorine", "Little chlorine, or warm weeks", (9, 5, 4, 1, 1, 1, 1)),
        Choice("returns", "It was here before, at the same spot", (2, 9, 7, 1, 1, 3, 0.5)),
        Choice("flowers", "Trees in flower",               (1, 1, 0.7, 10, 1, 0.5, 0.5)),
        Choice("wind", "Wind, a storm, sandy feet",        (2, 1, 0.7, 2, 9, 0.5, 1)),
        Choice("copper", "A copper product, well water, low pH", (1, 1, 1, 0.5, 0.5, 10, 0.5)),
        Choice("shock", "A shock yesterday",               (1, 1, 1, 0.5, 0.5, 4, 10)),
    )),
)  # fmt: skip
SURE, LIKELY = 0.8, 0.55


@dataclass(frozen=True)
class Candidate:
    """A kind with its share of the likelihood, 0 to 1."""

    kind: Kind
    name: str
    share: float
    what: str


@dataclass(frozen=True)
class Identified:
    """The kinds, likeliest first; a headline that claims no more than the confidence in words; what would settle it; what is done then.

    `ask_next` is the open question that would tell most, None when all are answered.
    """

    candidates: tuple[Candidate, ...]
    headline: str
    confidence: str
    settles: str
    then: str
    ask_next: str | None


def identify(answers: Mapping[str, str]) -> Identified:
    """Weigh the answers given (question -> choice). Raises InvalidInput for what is not in the key."""
    shares = _shares(_picked(answers))
    order = sorted(KINDS, key=lambda row: -shares[row.kind])
    best, second = order[0], order[1]
    share = shares[best.kind]
    headline = best.name
    if share >= SURE:
        confidence = "quite sure"
    elif share >= LIKELY:
        confidence = f"likely; it could be {second.name.lower()}"
    else:
        headline, confidence = "Not clear yet", f"{best.name.lower()}, or {second.name.lower()}"
    return Identified(
        tuple(Candidate(row.kind, row.name, shares[row.kind], row.what) for row in order),
        headline,
        confidence,
        best.settles,
        best.then,
        _most_informative(answers),
    )


def _picked(answers: Mapping[str, str]) -> list[Choice]:
    known = {question.key: question for question in QUESTIONS}
    found = []
    for key, choice in answers.items():
        if key not in known:
            raise InvalidInput(f'"{key}" is not asked here; use one of: {", ".join(known)}.', "answers")
        picked = next((one for one in known[key].choices if one.key == choice), None)
        if picked is None:
            listed = ", ".join(one.key for one in known[key].choices)
            raise InvalidInput(
                f'"{choice}" does not answer "{known[key].text}"; use one of: {listed}.', "answers"
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
