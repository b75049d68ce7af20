"""Plans that were started, and their steps. As stored; see `base`.

The second version keeps what was told as templates with typed values; the first one kept English sentences.
"""

from collections.abc import Mapping
from typing import Any, Self
from uuid import UUID

from pydantic import Field

from kumpan.core.journal.treatment_entries import Note, StepDone, TreatmentStarted
from kumpan.core.records.derivation import Derivation, Input
from kumpan.core.records.step import Step
from kumpan.core.records.unmet import Unmet
from kumpan.storage.wire.base import Wire, later_fields, renamed
from kumpan.storage.wire.messages import MessageField, verbatim
from kumpan.storage.wire.parts import OriginV1, ReadingsV1, StepV1
from kumpan.storage.wire.words import HazardWord, MeasureWord, OutcomeWord


class SheetStartedV1(Wire):
    core = TreatmentStarted

    steps: tuple[StepV1, ...]
    school: str = renamed("school", "profile")
    before: ReadingsV1
    predicted: ReadingsV1
    plan: str = "balance"


class InputV2(Wire):
    core = Input

    name: MessageField
    value: MessageField


class WorkingV2(Wire):
    core = Derivation

    equation: MessageField
    inputs: tuple[InputV2, ...]
    origins: tuple[OriginV1, ...]


class StepV2(Wire):
    core = Step

    kind: str
    day: int
    offset_min: int
    title: MessageField
    why: MessageField
    hazard: HazardWord
    cautions: tuple[MessageField, ...]
    minutes: int | None = None
    product_id: str | None = None
    chemical: str | None = None
    strength_percent: float | None = None
    density_g_per_ml: float | None = None
    mass_g: float | None = None
    volume_ml: float | None = None
    rounded_g: float | None = None
    rounded_ml: float | None = None
    rounded_text: MessageField | None = None
    where: MessageField | None = None
    pour_path: bool = False
    measures: tuple[MeasureWord, ...] = ()
    expected: dict[MeasureWord, float] = Field(default_factory=dict)
    side_effects: dict[MeasureWord, float] = Field(default_factory=dict)
    working: WorkingV2 | None = renamed("working", "derivation", default=None)
    range_text: MessageField | None = None
    range_from: MeasureWord | None = None
    water_l: float | None = None
    mass_low_g: float | None = None
    mass_high_g: float | None = None
    reason_code: str = ""
    care: tuple[str, ...] = ()

    _later = later_fields("mass_low_g", "mass_high_g", "reason_code", "care")


_TOLD = ("title", "why", "rounded_text", "where", "range_text")


def _step(older: Mapping[str, Any]) -> dict[str, Any]:
    """A step of the first version with its sentences as messages."""
    told = {name: None if older[name] is None else verbatim(older[name]) for name in _TOLD}
    working = older["working"]
    if working is not None:
        inputs = [{name: verbatim(text) for name, text in pair.items()} for pair in working["inputs"]]
        working = {**working, "equation": verbatim(working["equation"]), "inputs": inputs}
    cautions = [verbatim(text) for text in older["cautions"]]
    return {**older, **told, "cautions": cautions, "working": working}


class UnmetV1(Wire):
    core = Unmet

    measure: MeasureWord
    code: str
    reason: MessageField


class NoteV1(Wire):
    core = Note

    code: str
    text: MessageField
    measure: MeasureWord | None = None


class SheetStartedV2(Wire):
    core = TreatmentStarted

    steps: tuple[StepV2, ...]
    school: str = renamed("school", "profile")
    before: ReadingsV1
    predicted: ReadingsV1
    plan: str = "balance"
    unmet: tuple[UnmetV1, ...] = ()
    notes: tuple[NoteV1, ...] = ()

    _later = later_fields("unmet", "notes")

    @classmethod
    def upcast(cls, older: SheetStartedV1) -> Self:
        """Sentences become messages that are told as they stand."""
        row = older.model_dump(by_alias=False)
        return cls.model_validate({**row, "steps": [_step(step) for step in row["steps"]]})


class StepTickedV1(Wire):
    core = StepDone

    sheet_id: UUID = renamed("sheet_id", "treatment_id")
    step_number: int
    outcome: OutcomeWord
    note: str = ""
