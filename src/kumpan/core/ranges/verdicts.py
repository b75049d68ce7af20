"""What a reading means, in words: in range, low, high, and what that does.

Sources: the school's own, cya-ratio.
"""

from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band

SOURCES_USED = ("cya-ratio",)

HIGHEST_CYA_PER_FREE_CHLORINE = 20.0


class VerdictCode(StrEnum):
    """How a value stands in its range."""

    GOOD = "good"
    LOW = "low"
    HIGH = "high"
    NOT_MEASURED = "not_measured"
    NOT_MANAGED = "not_managed"


@dataclass(frozen=True)
class Verdict:
    """How a value stands, with its sentence."""

    code: VerdictCode
    text: Message


_M = Measure
_LOW_WORDS: dict[Measure, Message] = {
    _M.FREE_CHLORINE: Message("low: germs and algae can grow"),
    _M.PH: Message("low: eats metal and cement, stings eyes"),
    _M.TOTAL_ALKALINITY: Message("low: pH will swing"),
    _M.CALCIUM_HARDNESS: Message("low: takes calcium from cement"),
    _M.CYANURIC_ACID: Message("low: sun burns chlorine off in hours"),
    _M.SALT: Message("low: the cell stops or wears out early"),
    _M.SATURATION_INDEX: Message("eats cement and metal"),
}
_HIGH_WORDS: dict[Measure, Message] = {
    _M.FREE_CHLORINE: Message("high: no more of it, let it fall"),
    _M.COMBINED_CHLORINE: Message("high: smells and irritates; shock"),
    _M.PH: Message("high: scale, weak chlorine"),
    _M.TOTAL_ALKALINITY: Message("high: pH drifts up, scale"),
    _M.CALCIUM_HARDNESS: Message("high: scale on tile, heater, cell"),
    _M.CYANURIC_ACID: Message("high: chlorine is bound; only dilution helps"),
    _M.SALT: Message("high: corrosion, cell alarms"),
    _M.SATURATION_INDEX: Message("scaling"),
}
_GOOD_WORDS: dict[Measure, Message] = {_M.COMBINED_CHLORINE: Message("nothing to burn off")}


def verdict(measure: Measure, value: float | None, band: Band | None) -> Verdict:
    """The verdict on one measure by its band; the words stay the same wherever it is shown."""
    if value is None:
        return Verdict(VerdictCode.NOT_MEASURED, Message("not measured"))
    if band is None:
        return Verdict(VerdictCode.NOT_MANAGED, Message("not managed here"))
    if band.low is not None and value < band.low:
        return Verdict(VerdictCode.LOW, _LOW_WORDS.get(measure, Message("low")))
    if band.high is not None and value > band.high:
        return Verdict(VerdictCode.HIGH, _HIGH_WORDS.get(measure, Message("high")))
    return Verdict(VerdictCode.GOOD, _GOOD_WORDS.get(measure, Message("good")))


def bound_chlorine(readings: Readings) -> Finding | None:
    """The 20:1 warning: with more stabilizer than 20 times free chlorine, the chlorine is bound."""
    free, stabilizer = readings.free_chlorine, readings.cyanuric_acid
    if free is None or stabilizer is None or stabilizer <= HIGHEST_CYA_PER_FREE_CHLORINE * free:
        return None
    least = stabilizer / HIGHEST_CYA_PER_FREE_CHLORINE
    return Finding(
        "chlorine_bound",
        Message(
            "Bound by {stabilizer} of stabilizer: by stabilizer ratio it takes {least} ppm or more.",
            stabilizer=Number(stabilizer, digits=0),
            least=Number(least, digits=1),
        ),
        Measure.FREE_CHLORINE,
        {"least_free_chlorine": least},
    )


def chlorine_verdict(readings: Readings, band: Band) -> Verdict:
    """Free chlorine's verdict; never a plain "good" while the chlorine is bound."""
    plain = verdict(Measure.FREE_CHLORINE, readings.free_chlorine, band)
    bound = bound_chlorine(readings)
    if bound is None or plain.code is not VerdictCode.GOOD:
        return plain
    return Verdict(
        VerdictCode.GOOD,
        Message(
            "in range, but bound by {cyanuric_acid} of stabilizer",
            cyanuric_acid=Number(readings.cyanuric_acid or 0.0, digits=0),
        ),
    )
