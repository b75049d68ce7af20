"""Who reads: language and units."""

from dataclasses import dataclass

from kumpan.core.quantities.units import Units


@dataclass(frozen=True)
class Reader:
    """How one reader is told things. `language` is a tag like `en_US` or `de_DE`."""

    units: Units = Units.US
    language: str = "en_US"

    @property
    def metric(self) -> bool:
        """Amounts in metric units."""
        return self.units is Units.METRIC

    @property
    def language_known(self) -> str:
        """The language whose dates and numbers are used: the pseudo language has none of its own."""
        return "en_US" if self.language == PSEUDO else self.language


PSEUDO = "en_XA"
US_READER = Reader()
METRIC_READER = Reader(Units.METRIC)
