"""Where practitioners differ in a way that touches a plan: a question, its answers, a default and why.

A row reads like a note in the handbook's margin; what an answer does stands where it is used.
Source: disagreements.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.ranges.choices import Chosen

SOURCE = "disagreements"


@dataclass(frozen=True)
class Answer:
    """One side of a disagreement, and what speaks for it."""

    key: str
    label: str
    reason: str


@dataclass(frozen=True)
class Question:
    """A disagreement. The first answer is the default."""

    key: str
    title: str
    answers: tuple[Answer, ...]

    @property
    def default(self) -> str:
        return self.answers[0].key


QUESTIONS: tuple[Question, ...] = (
    Question("chlorine", "How free chlorine is set", (
        Answer("fixed", "A fixed range", "Simple, and what most test kits and labels say."),
        Answer("ratio", "By stabiliser", "At least a twentieth of stabiliser, about a tenth to work with: the chlorine that works is bound by it."),
        Answer("active", "By active chlorine", "As much hypochlorous acid as in a water of 2 ppm, stabiliser 40, pH 7.5; reckoned from this water."),
    )),
    Question("calcium", "How hard a cement pool may be", (
        Answer("wide", "As the ranges have it", "Up to 400 does no harm while the scaling index is held."),
        Answer("careful", "200 to 300, aim 250", "Hard water is hard to undo, and a salt cell scales."),
    )),
    Question("stabiliser", "How much stabiliser outdoors", (
        Answer("usual", "As the ranges have it", "Above that there is little to gain, and it leaves only with water."),
        Answer("tablets", "40 to 100, aim 75", "Owners on tablets let it climb to the aim and change to liquid then."),
    )),
    Question("ph_up", "What raises pH", (
        Answer("sum", "What fits pH and alkalinity together", "Reckoned: the products that meet both with the least."),
        Answer("soda_ash", "Soda ash", "Strong on pH, moves alkalinity half as much as baking soda would."),
        Answer("borax", "Borax", "Moves alkalinity little, leaves borate behind."),
        Answer("baking_soda", "Baking soda only", "Gentle; it moves alkalinity many times more than pH."),
    )),
    Question("salt", "Where salt goes in", (
        Answer("deep", "Deep end", "Brushed about there it dissolves in the most water."),
        Answer("shallow", "Shallow end", "Some makers want it to drift to the drain and spread."),
    )),
    Question("after_oxidiser", "Swimming after non-chlorine shock", (
        Answer("hour", "After an hour", "The longer of the two usual waits."),
        Answer("quarter", "After 15 minutes", "What many labels allow; the label decides."),
    )),
    Question("shock", "How high a shock goes", (
        Answer("fixed", "To 10", "The household way; too weak where stabiliser is high, and the sheet says so."),
        Answer("ratio", "40 % of stabiliser", "Reaches the same strength whatever the stabiliser; takes far more chlorine."),
    )),
    Question("supplement", "Chlorine beside a mineral supplement", (
        Answer("full", "The full range", "The supplement is not a sanitiser by itself."),
        Answer("lower", "0.5 to 1", "Some makers allow it. Public codes do not; copper stays at or under 0.3 ppm."),
    )),
)  # fmt: skip
_BY_KEY: Mapping[str, Question] = {question.key: question for question in QUESTIONS}


def answer(choices: Sequence[Chosen], question: str) -> str:
    """The option taken for a question, or its default."""
    taken = [chosen.option for chosen in choices if chosen.question == question]
    return taken[-1] if taken else _BY_KEY[question].default


def check_choices(choices: Sequence[Chosen]) -> None:
    """Raises InvalidInput for a question or an option that is not in the table."""
    for chosen in choices:
        question = _BY_KEY.get(chosen.question)
        if question is None:
            known = ", ".join(_BY_KEY)
            raise InvalidInput(f'"{chosen.question}" is not a question here; use one of: {known}.', "choices")
        if chosen.option not in {option.key for option in question.answers}:
            known = ", ".join(option.key for option in question.answers)
            raise InvalidInput(f"{question.title}: choose one of: {known}.", "choices")
