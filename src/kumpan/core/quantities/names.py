"""The names of the measures, and the order in which they are listed."""

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure

BOARD_ORDER: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.COMBINED_CHLORINE,
    Measure.PH,
    Measure.TOTAL_ALKALINITY,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
    Measure.SATURATION_INDEX,
)


NAMES: dict[Measure, Message] = {
    Measure.FREE_CHLORINE: Message("Free chlorine"),
    Measure.TOTAL_CHLORINE: Message("Total chlorine"),
    Measure.COMBINED_CHLORINE: Message("Combined"),
    Measure.PH: Message("pH"),
    Measure.TOTAL_ALKALINITY: Message("Alkalinity"),
    Measure.CALCIUM_HARDNESS: Message("Calcium"),
    Measure.CYANURIC_ACID: Message("Stabilizer"),
    Measure.SALT: Message("Salt"),
    Measure.SATURATION_INDEX: Message("Scaling index"),
    Measure.TEMPERATURE: Message("Temperature"),
    Measure.BORATE: Message("Borate"),
    Measure.SULFATE: Message("Sulfate"),
    Measure.PHOSPHATE: Message("Phosphate"),
    Measure.COPPER: Message("Copper"),
    Measure.IRON: Message("Iron"),
    Measure.TDS: Message("Dissolved solids"),
}


_IN_A_SENTENCE: dict[Measure, Message] = {
    Measure.FREE_CHLORINE: Message("free chlorine"),
    Measure.TOTAL_CHLORINE: Message("total chlorine"),
    Measure.COMBINED_CHLORINE: Message("combined"),
    Measure.PH: Message("pH"),
    Measure.TOTAL_ALKALINITY: Message("alkalinity"),
    Measure.CALCIUM_HARDNESS: Message("calcium"),
    Measure.CYANURIC_ACID: Message("stabilizer"),
    Measure.SALT: Message("salt"),
    Measure.SATURATION_INDEX: Message("scaling index"),
    Measure.TEMPERATURE: Message("temperature"),
    Measure.BORATE: Message("borate"),
    Measure.SULFATE: Message("sulfate"),
    Measure.PHOSPHATE: Message("phosphate"),
    Measure.COPPER: Message("copper"),
    Measure.IRON: Message("iron"),
    Measure.TDS: Message("dissolved solids"),
}


def name_in_sentence(measure: Measure) -> Message:
    """The name of a measure inside a sentence."""
    return _IN_A_SENTENCE[measure]
