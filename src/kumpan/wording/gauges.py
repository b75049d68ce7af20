"""The lane board's one scale: where a value stands between the two ropes, whatever its unit.

0 is the left rope (low), 1 the right rope (high). Linear between the ropes and one band beyond,
then logarithmic, cut at EDGE with an arrow. A measure with one rope has it at 1 and 0 at value 0;
an unmanaged one has no position at all.
"""

from dataclasses import dataclass
from math import exp, log

from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import Verdict, chlorine_verdict, verdict
from kumpan.core.records.derivation import Derivation
from kumpan.core.testing.methods import Measured

LINEAR_BANDS = 1.0  # bands beyond the rope that stay linear
LOG_SCALE = 0.25  # bands of drawing per unit of the logarithm
EDGE = 0.6  # bands of drawing after the linear part, then an arrow


# One nudge of an aim: about what a person would call the next value.
AIM_STEPS: dict[Measure, float] = {
    Measure.FREE_CHLORINE: 0.5,
    Measure.PH: 0.1,
    Measure.TOTAL_ALKALINITY: 5,
    Measure.CALCIUM_HARDNESS: 10,
    Measure.CYANURIC_ACID: 5,
    Measure.SALT: 100,
}


@dataclass(frozen=True)
class Spot:
    """A place on the lane, in bands from the left rope; `off_edge` is -1 or 1 when an arrow stands for it."""

    position: float
    off_edge: int = 0


@dataclass(frozen=True, kw_only=True)
class Marker:
    """A reading on its lane: the value, and its doubt as a bar from `low` to `high`."""

    value: float
    low: float
    high: float
    at: Spot
    low_at: Spot
    high_at: Spot


@dataclass(frozen=True, kw_only=True)
class Gauge:
    """One measure on the board. `planned` is where the plan leaves it; `trail` the earlier tests.

    `aim_step` is one nudge of "what if I aim here", None where nothing can be aimed at; `old` and `coarse`
    say that the reading carries no dose any more, or not alone.
    """

    measure: Measure
    name: Message
    low: float | None
    high: float | None
    reading: Marker | None
    planned: Marker | None
    trail: tuple[Marker, ...]
    verdict: Verdict
    findings: tuple[Finding, ...] = ()
    derivation: Derivation | None = None
    aim_step: float | None = None
    age_days: int | None = None
    old: bool = False
    coarse: bool = False


@dataclass(frozen=True)
class GaugeMark:
    """One measure as a tick in a list: where it stands, None where it is not known or has no lane."""

    measure: Measure
    at: Spot | None
    code: str


def mark_of(drawn: Gauge) -> GaugeMark:
    """A lane in miniature."""
    at = drawn.reading.at if drawn.reading is not None and drawn.high is not None else None
    return GaugeMark(drawn.measure, at, drawn.verdict.code)


def spot(value: float, band: Band) -> Spot:
    """The place of a value on its band's lane."""
    low = band.low or 0.0
    high = band.high if band.high is not None else low
    width = high - low or 1.0
    x = (value - low) / width
    if x > 1 + LINEAR_BANDS:
        return _beyond(x - 1 - LINEAR_BANDS, 1 + LINEAR_BANDS, 1)
    if x < -LINEAR_BANDS:
        return _beyond(-LINEAR_BANDS - x, -LINEAR_BANDS, -1)
    return Spot(x)


def _beyond(distance: float, start: float, side: int) -> Spot:
    compressed = LOG_SCALE * log(1 + distance / LOG_SCALE)
    if compressed > EDGE:
        return Spot(start + side * EDGE, side)
    return Spot(start + side * compressed)


def value_at(position: float, band: Band) -> float:
    """The value that stands at a position: the inverse of `spot`, up to the edges; never below 0."""
    low = band.low or 0.0
    high = band.high if band.high is not None else low
    width = high - low or 1.0
    right, left = 1 + LINEAR_BANDS, -LINEAR_BANDS
    if position > right:
        bands_off = right + _uncompressed(min(position - right, EDGE))
    elif position < left:
        bands_off = left - _uncompressed(min(left - position, EDGE))
    else:
        bands_off = position
    return max(0.0, low + bands_off * width)


def _uncompressed(drawn: float) -> float:
    return LOG_SCALE * (exp(drawn / LOG_SCALE) - 1)


def marker_on(band: Band | None, value: float, low: float, high: float) -> Marker:
    """Where a value and its uncertainty stand on a gauge."""
    if band is None:
        nowhere = Spot(0.5)
        return Marker(value=value, low=low, high=high, at=nowhere, low_at=nowhere, high_at=nowhere)
    return Marker(
        value=value,
        low=low,
        high=high,
        at=spot(value, band),
        low_at=spot(low, band),
        high_at=spot(high, band),
    )


def gauge(
    measure: Measure,
    band: Band | None,
    reading: Measured | None,
    planned: float | None,
    trail: tuple[float, ...],
    readings: Readings,
) -> Gauge:
    """One lane of the board from its band, the last reading with its doubt, plan and earlier values."""
    value = reading.value if reading else None
    if measure is Measure.FREE_CHLORINE and band is not None:
        said = chlorine_verdict(readings, band)
    else:
        said = verdict(measure, value, band)
    return Gauge(
        measure=measure,
        name=NAMES[measure],
        low=band.low if band else None,
        high=band.high if band else None,
        reading=marker_on(band, reading.value, reading.low, reading.high) if reading else None,
        planned=marker_on(band, planned, planned, planned) if planned is not None else None,
        trail=tuple(marker_on(band, earlier, earlier, earlier) for earlier in trail),
        verdict=said,
    )
