"""When a reading is too coarse to carry a dose: the water may be where it should be already.

Chlorine under its least is dosed all the same: it is the one thing that cannot wait, and a little too
much of it goes by itself. Source: method-doubt.
"""

from collections.abc import Mapping, Sequence

from kumpan.core.messages import Message
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import TARGETABLE
from kumpan.core.records.unmet import Unmet
from kumpan.core.testing.methods import Measured, Method

SOURCE = "method-doubt"

FINER_TEST: dict[Measure, Message] = {
    Measure.PH: Message("drops or a photometer"),
    Measure.TOTAL_ALKALINITY: Message("a drop test"),
    Measure.CALCIUM_HARDNESS: Message("a drop test"),
    Measure.CYANURIC_ACID: Message("a turbidity tube or a shop's test"),
    Measure.SALT: Message("a meter"),
    Measure.BORATE: Message("a drop test"),
    Measure.FREE_CHLORINE: Message("drops"),
}


def too_coarse(
    readings: Readings, measured: Sequence[Measured], bands: Mapping[Measure, Band]
) -> dict[Measure, Measured]:
    """Measures out of range as read whose doubt reaches the aim itself. Bands without an aim ask nothing."""
    found = {}
    for value in measured:
        now, band = readings.value(value.measure), bands.get(value.measure)
        if value.measure in TARGETABLE and now is not None and band is not None and band.aim is not None:
            shift = now - value.value
            if _by_display(value, now, band):
                found[value.measure] = value
            if _reaches(band, now, value.low + shift, value.high + shift) and not _urgent(value, now, band):
                found[value.measure] = value
    return found


def _reaches(band: Band, now: float, low: float, high: float) -> bool:
    aim = band.aim or 0.0
    if band.low is not None and now < band.low:
        return high >= aim
    return band.high is not None and now > band.high and low <= aim


def _by_display(value: Measured, now: float, band: Band) -> bool:
    """Salt cannot be taken out again: no bag goes in by what the chlorinator itself shows (handbook 02)."""
    return value.method is Method.DISPLAY and band.low is not None and now < band.low


def _urgent(value: Measured, now: float, band: Band) -> bool:
    return value.measure is Measure.FREE_CHLORINE and band.low is not None and now < band.low


def left_for_a_finer_test(coarse: Mapping[Measure, Measured]) -> tuple[Unmet, ...]:
    """What the plan leaves for want of a finer test, said as that."""
    return tuple(Unmet(measure, "within_doubt", _words(value)) for measure, value in coarse.items())


def _words(value: Measured) -> Message:
    name, finer = NAMES[value.measure], FINER_TEST[value.measure]
    if value.method is Method.DISPLAY:
        return Message(
            "{name} is what the chlorinator shows. Test it by hand before any goes in: it cannot be taken "
            "out again.",
            name=name,
        )
    instead = (
        finer if value.method is Method.STRIP or value.measure is Measure.SALT else Message("a finer test")
    )
    return Message(
        "{name} lies anywhere between {low} and {high} by this test, so it may be right already. Test it "
        "with {instead} before dosing.",
        name=name,
        low=Number(value.low, figures=3),
        high=Number(value.high, figures=3),
        instead=instead,
    )
