"""Answers about a pool: its header, board, drawing, year."""

from datetime import datetime

from kumpan.core.maintenance.ribbon import RibbonRow
from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Derivation, Finding, Float, PlanDrawing, Verdict


class BasinView(Response):
    """Liters, plan area and mean depth of all parts together, and the drawing where there are parts."""

    volume_l: float
    area_m2: float | None
    mean_depth_m: float | None
    drawing: PlanDrawing | None


class SaltVolume(Response):
    """The volume that a weighed addition of salt speaks for, L; how far it may be off, as a share and in
    words.
    """

    volume_l: float
    uncertainty_share: float
    says: Text = read_from("sentence")


class Town(Response):
    """A town of the shipped list. `region` is its state or province, elsewhere its country."""

    name: str
    region: str
    latitude_deg: float
    longitude_deg: float
    time_zone: str


class Lane(Response):
    """One measure on the board. `planned` is where the plan leaves it; `trail` the earlier tests."""

    measure: Measure
    name: Text
    low: float | None
    high: float | None
    reading: Float | None
    planned: Float | None
    trail: tuple[Float, ...]
    verdict: Verdict
    findings: tuple[Finding, ...]
    working: Derivation | None = read_from("derivation")
    aim_step: float | None
    age_days: int | None
    old: bool
    coarse: bool


class PouredSince(Response):
    label: Text
    at: datetime


class Board(Response):
    """The lane board: lanes in order, the school that judges, when the water was tested, what went in
    since.
    """

    lanes: tuple[Lane, ...] = read_from("gauges")
    school_name: Text = read_from("profile_name")
    tested_at: datetime | None
    kit: Text | None
    temperature_c: float | None
    poured_since: tuple[PouredSince, ...]
    findings: tuple[Finding, ...]


class WarmthPoint(Response):
    at: datetime
    temperature_c: float


class RibbonMark(Response):
    """Something that happened, or is due, on its row; `weight` 0 to 1 is how tall it is drawn."""

    at: datetime
    row: RibbonRow
    text: Text
    weight: float


class Ribbon(Response):
    """One rolling year: nine months back, three ahead."""

    from_at: datetime
    now_at: datetime
    to_at: datetime
    warmth: tuple[WarmthPoint, ...]
    marks: tuple[RibbonMark, ...]
