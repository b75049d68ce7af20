"""Plans that were started, and their steps. As stored; see `base`."""

from uuid import UUID

from kumpan.core.journal.treatment_entries import StepDone, TreatmentStarted
from kumpan.storage.wire.base import Wire, renamed
from kumpan.storage.wire.parts import ReadingsV1, StepV1
from kumpan.storage.wire.words import OutcomeWord


class SheetStartedV1(Wire):
    core = TreatmentStarted

    steps: tuple[StepV1, ...]
    school: str = renamed("school", "profile")
    before: ReadingsV1
    predicted: ReadingsV1
    plan: str = "balance"


class StepTickedV1(Wire):
    core = StepDone

    sheet_id: UUID = renamed("sheet_id", "treatment_id")
    step_number: int
    outcome: OutcomeWord
    note: str = ""
