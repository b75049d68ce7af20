"""Answers of the three stateless endpoints."""

from kumpan.web.responses.base import Response, Text
from kumpan.web.responses.shared import Finding, Readings, Step, Unmet


class Analysis(Response):
    """What the readings say together; null where a reading is missing (named in `missing`)."""

    saturation_index: float | None
    saturation_index_classic: float | None
    carbonate_alkalinity: float | None
    combined_chlorine: float | None
    hypochlorous_acid: float | None
    hypochlorous_fraction: float | None
    ionic_strength: float | None
    assumed: dict[str, float]
    missing: tuple[Text, ...]
    findings: tuple[Finding, ...]


class AfterView(Response):
    readings: Readings
    analysis: Analysis


class Plan(Response):
    """A run sheet not yet started: steps in order, the water after it, what it cannot do."""

    steps: tuple[Step, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]
