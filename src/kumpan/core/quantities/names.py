"""The names of the measures, and the order in which they are listed."""

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


NAMES: dict[Measure, str] = {
    Measure.FREE_CHLORINE: "Free chlorine",
    Measure.TOTAL_CHLORINE: "Total chlorine",
    Measure.COMBINED_CHLORINE: "Combined",
    Measure.PH: "pH",
    Measure.TOTAL_ALKALINITY: "Alkalinity",
    Measure.CALCIUM_HARDNESS: "Calcium",
    Measure.CYANURIC_ACID: "Stabiliser",
    Measure.SALT: "Salt",
    Measure.SATURATION_INDEX: "Scaling index",
    Measure.TEMPERATURE: "Temperature",
    Measure.BORATE: "Borate",
    Measure.SULFATE: "Sulfate",
    Measure.PHOSPHATE: "Phosphate",
    Measure.COPPER: "Copper",
}


def name_in_sentence(measure: Measure) -> str:
    """The name of a measure inside a sentence: in small letters, but for pH."""
    return NAMES[measure] if measure is Measure.PH else NAMES[measure].lower()
