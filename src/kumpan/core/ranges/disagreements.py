"""Where practitioners differ in a way that touches a plan: a question, its answers, a default and why.

A row reads like a note in the handbook's margin; what an answer does stands where it is used.
Source: disagreements.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.ranges.choices import Chosen

SOURCE = "disagreements"


@dataclass(frozen=True)
class Answer:
    """One side of a disagreement, and what speaks for it."""

    key: str
    label: Message
    reason: Message


@dataclass(frozen=True)
class Question:
    """A disagreement. The first answer is the default."""

    key: str
    title: Message
    answers: tuple[Answer, ...]

    @property
    def default(self) -> str:
        """The answer that holds until a pool chooses another."""
        return self.answers[0].key


QUESTIONS: tuple[Question, ...] = (
    Question("chlorine", Message("How free chlorine is set"), (
        Answer("fixed", Message("A fixed range"), Message("Simple, and what most test kits and labels say.")),
        Answer("ratio", Message("By stabilizer"), Message("At least a twentieth of stabilizer, about a tenth to work with: the chlorine that works is bound by it.")),
        Answer("active", Message("By active chlorine"), Message("As much hypochlorous acid as in a water of 2 ppm, stabilizer 40, pH 7.5; computed from this water.")),
    )),
    Question("calcium", Message("How hard a cement pool may be"), (
        Answer("wide", Message("As the ranges have it"), Message("Up to 400 does no harm while the scaling index is held.")),
        Answer("careful", Message("200 to 300, aim 250"), Message("Hard water is hard to undo, and a salt cell scales.")),
    )),
    Question("stabiliser", Message("How much stabilizer outdoors"), (
        Answer("usual", Message("As the ranges have it"), Message("Above that there is little to gain, and it leaves only with water.")),
        Answer("tablets", Message("40 to 100, aim 75"), Message("Owners on tablets let it climb to the aim and change to liquid then.")),
    )),
    Question("ph_up", Message("What raises pH"), (
        Answer("sum", Message("What fits pH and alkalinity together"), Message("Computed: the products that meet both with the least.")),
        Answer("soda_ash", Message("Soda ash"), Message("Strong on pH, moves alkalinity half as much as baking soda would.")),
        Answer("borax", Message("Borax"), Message("Moves alkalinity little, leaves borate behind.")),
        Answer("baking_soda", Message("Baking soda only"), Message("Gentle; it moves alkalinity many times more than pH.")),
    )),
    Question("salt", Message("Where salt goes in"), (
        Answer("deep", Message("Deep end"), Message("Brushed about there it dissolves in the most water.")),
        Answer("shallow", Message("Shallow end"), Message("Some makers want it to drift to the drain and spread.")),
    )),
    Question("after_oxidiser", Message("Swimming after non-chlorine shock"), (
        Answer("hour", Message("After an hour"), Message("The longer of the two usual waits.")),
        Answer("quarter", Message("After 15 minutes"), Message("What many labels allow; the label decides.")),
    )),
    Question("shock", Message("How high a shock goes"), (
        Answer("fixed", Message("To 10"), Message("The household way; too weak where stabilizer is high, and the plan says so.")),
        Answer("ratio", Message("40 % of stabilizer"), Message("Reaches the same strength whatever the stabilizer; takes far more chlorine.")),
    )),
    Question("cleaning", Message("Which comes first, vacuum or brush"), (
        Answer("usual", Message("As the kind of visit has it"), Message("Owners brush and then vacuum what settles; technicians vacuum first, since brushing stirs the floor up.")),
        Answer("brush_first", Message("Brush, then vacuum"), Message("What the brush loosens settles and is picked up.")),
        Answer("vacuum_first", Message("Vacuum, then brush"), Message("The floor's dirt is out before anything stirs it; skim once more at the end.")),
    )),
    Question("supplement", Message("Chlorine beside a mineral supplement"), (
        Answer("full", Message("The full range"), Message("The supplement is not a sanitizer by itself.")),
        Answer("lower", Message("0.5 to 1"), Message("Some makers allow it. Public codes do not; copper stays at or under 0.3 ppm.")),
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
            raise InvalidInput(
                Message(
                    '"{question}" is not a question here; use one of: {known}.',
                    question=Verbatim(chosen.question),
                    known=Verbatim(known),
                ),
                "choices",
            )
        if chosen.option not in {option.key for option in question.answers}:
            known = ", ".join(option.key for option in question.answers)
            raise InvalidInput(
                Message("{title}: choose one of: {known}.", title=question.title, known=Verbatim(known)),
                "choices",
            )
