"""Plans that were started, and their steps. As stored; see `base`."""

from uuid import UUID

from kumpan.core.journal.treatment_entries import SheetStarted, StepTicked
from kumpan.storage.wire.base import Wire
from kumpan.storage.wire.parts import ReadingsV1, StepV1
from kumpan.storage.wire.words import OutcomeWord


class SheetStartedV1(Wire):
    core = SheetStarted

    steps: tuple[StepV1, ...]
    school: str
    before: ReadingsV1
    predicted: ReadingsV1
    plan: str = "balance"


class StepTickedV1(Wire):
    core = StepTicked

    sheet_id: UUID
    step_number: int
    outcome: OutcomeWord
    note: str = ""
