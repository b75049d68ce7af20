"""A run sheet as it was started, and its ticks."""

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.records.step import Step
from kumpan.core.records.unmet import Unmet


class Outcome(StrEnum):
    """What became of a step."""

    DONE = "done"
    SKIPPED = "skipped"


@dataclass(frozen=True)
class Note:
    """Something that the started plan said beside its steps."""

    code: str
    text: Message
    measure: Measure | None = None


@dataclass(frozen=True, kw_only=True)
class TreatmentStarted:
    """A run sheet as it was started: the whole plan, never changed afterwards. `plan` is its kind; what it
    leaves undone and what it said stay with it until it ends.
    """

    steps: tuple[Step, ...]
    profile: str
    before: Readings
    predicted: Readings
    plan: str = "balance"
    unmet: tuple[Unmet, ...] = ()
    notes: tuple[Note, ...] = ()


@dataclass(frozen=True)
class StepDone:
    """A step without an amount, done or skipped; an add step that was skipped stands here too."""

    treatment_id: UUID
    step_number: int
    outcome: Outcome
    note: str = ""
