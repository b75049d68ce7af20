"""Answers of the journal: test form, log, outlook, history."""

from datetime import datetime
from uuid import UUID

from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Method
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding


class Measured(Response):
    """One value of a test with its doubt: `low` to `high`, in the measure's inner unit."""

    measure: Measure
    value: float
    low: float
    high: float
    method: Method
    typed: Text


class LineProblem(Response):
    """A piece that could not be read: where it stands, the piece, one sentence with the cure."""

    position: int
    piece: Text
    text: Text
    measure: Measure | None
    suggestion: Text | None


class TestFormView(Response):
    """A read slip: values by measure, what could not be read, and what to question."""

    values: tuple[Measured, ...]
    problems: tuple[LineProblem, ...]
    doubts: tuple[Finding, ...] = read_from("questions")


class LastValue(Response):
    """What a measure read last, as it would be typed again, and when; `ladder` is what lies around it."""

    text: Text
    at: datetime
    ladder: tuple[str, ...]


class DayAhead(Response):
    """Free chlorine (mg/L, low to high is the 90 percent band) and pH on one evening."""

    at: datetime
    low: float
    likely: float
    high: float
    under_range: bool
    ph: float | None


class OutlookView(Response):
    """What is ahead: in sentences, the most pressing first, and as a strip of evenings."""

    sentences: tuple[Finding, ...]
    days: tuple[DayAhead, ...]
    runs_low_at: datetime | None
    loss_mg_l_day: float | None
    volume_hint_l: float | None


class HistoryPoint(Response):
    """A tested value with its doubt."""

    at: datetime
    value: float
    low: float
    high: float


class HistoryMark(Response):
    """Something that was done to the water, in words."""

    at: datetime
    kind: Text
    text: Text


class AheadPoint(Response):
    at: datetime
    low: float
    likely: float
    high: float


class MeasureHistory(Response):
    """One measure over time: its range, its tests, and the forecast band."""

    measure: Measure
    name: Text
    low: float | None
    high: float | None
    points: tuple[HistoryPoint, ...]
    ahead: tuple[AheadPoint, ...]


class HistoryView(MeasureHistory):
    """One measure over time, with what was done."""

    marks: tuple[HistoryMark, ...]


class LogLine(Response):
    """One entry as the log lists it. `replaced_by` set means it no longer counts, but stays visible."""

    id: UUID
    kind: Text
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    title: Text
    detail: Text
    supersedes: UUID | None
    replaced_by: UUID | None
    taken_back: bool
    can_change: bool
    fields: dict[Measure, Text]
    by: str
    workspace: str
