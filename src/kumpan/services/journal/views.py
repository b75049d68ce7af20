"""What is seen of the journal."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure


@dataclass(frozen=True, kw_only=True)
class LogLine:
    """One entry as the log lists it. `replaced_by` set means it no longer counts, but stays visible.

    `by` is who wrote it; `workspace` where, if that is another than the reader's.
    """

    id: UUID
    kind: str
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    title: Message
    detail: Message
    supersedes: UUID | None
    replaced_by: UUID | None
    taken_back: bool
    can_change: bool
    fields: Mapping[Measure, str]
    by: str = ""
    workspace: str = ""
