"""What a test says about the water: the readings, all optional, as frozen values."""

from dataclasses import dataclass, fields, replace
from enum import StrEnum


class Measure(StrEnum):
    """The names of what can be measured; the values are the contract's field names."""

    FREE_CHLORINE = "free_chlorine"
    TOTAL_CHLORINE = "total_chlorine"
    COMBINED_CHLORINE = "combined_chlorine"
    PH = "ph"
    TOTAL_ALKALINITY = "total_alkalinity"
    CALCIUM_HARDNESS = "calcium_hardness"
    CYANURIC_ACID = "cyanuric_acid"
    SALT = "salt"
    BORATE = "borate"
    SULFATE = "sulfate"
    PHOSPHATE = "phosphate_ppb"
    COPPER = "copper"
    IRON = "iron"
    TDS = "tds"
    TEMPERATURE = "temperature_c"
    SATURATION_INDEX = "saturation_index"


@dataclass(frozen=True, kw_only=True)
class Readings:
    """One water as measured; None means not known.

    mg/L throughout: free and total chlorine as Cl2, alkalinity and hardness as CaCO3, cyanuric acid
    as itself, salt (all chloride) as NaCl, borate as B, sulfate as SO4; copper, iron, total dissolved
    solids as themselves; phosphate in ug/L as PO4; temperature in degrees C.
    """

    free_chlorine: float | None = None
    total_chlorine: float | None = None
    ph: float | None = None
    total_alkalinity: float | None = None
    calcium_hardness: float | None = None
    cyanuric_acid: float | None = None
    salt: float | None = None
    borate: float | None = None
    sulfate: float | None = None
    phosphate_ppb: float | None = None
    copper: float | None = None
    iron: float | None = None
    tds: float | None = None
    temperature_c: float | None = None

    def value(self, measure: Measure) -> float | None:
        """The reading of a measure; combined chlorine is total minus free, never below 0."""
        if measure is Measure.COMBINED_CHLORINE:
            return combined_chlorine(self)
        if measure is Measure.SATURATION_INDEX:
            return None
        found: float | None = getattr(self, measure.value)
        return found

    def with_value(self, measure: Measure, value: float | None) -> "Readings":
        """The same readings with one of them changed, or taken out."""
        return replace(self, **{measure.value: value})


READING_MEASURES: tuple[Measure, ...] = tuple(Measure(field.name) for field in fields(Readings))


def combined_chlorine(readings: Readings) -> float | None:
    """Total minus free chlorine, mg/L as Cl2; None when either is not known; 0 when total reads lower."""
    if readings.free_chlorine is None or readings.total_chlorine is None:
        return None
    return max(0.0, readings.total_chlorine - readings.free_chlorine)
