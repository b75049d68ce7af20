"""The lines of a run sheet, as values: add, wait, test, do."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from kumpan.core.hazard_pictograms import HazardPictogram, pictograms_for
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.records.derivation import Derivation

ADD, WAIT, TEST, DO = "add", "wait", "test", "do"


@dataclass(frozen=True, kw_only=True)
class Step:
    """One line of the run sheet. `kind` is add, wait, test or do; amounts only for add.

    `offset_min` is when it begins, in minutes from the sheet's start; `minutes` how long a wait lasts.
    `expected` is the reading after this step, `side_effects` what else it moves, by measure; `working` how
    the amount came about; `range_text` the amount's range from the readings' doubt, `range_from` the
    reading behind most of it; `mass_low_g` to `mass_high_g` holds the true dose in 95 % of cases;
    `reason_code` is what an addition is for; `care` the tasks of a pool's care that a `do` is;
    `water_l` the pool water that the step replaces.
    """

    kind: str
    day: int
    offset_min: int
    title: Message
    why: Message
    hazard: Hazard
    cautions: tuple[Message, ...]
    minutes: int | None = None
    product_id: str | None = None
    chemical: str | None = None
    strength_percent: float | None = None
    density_g_per_ml: float | None = None
    mass_g: float | None = None
    volume_ml: float | None = None
    rounded_g: float | None = None
    rounded_ml: float | None = None
    rounded_text: Message | None = None
    where: Message | None = None
    pour_path: bool = False
    measures: tuple[Measure, ...] = ()
    expected: Mapping[Measure, float] = field(default_factory=dict)
    side_effects: Mapping[Measure, float] = field(default_factory=dict)
    derivation: Derivation | None = None
    range_text: Message | None = None
    range_from: Measure | None = None
    mass_low_g: float | None = None
    mass_high_g: float | None = None
    reason_code: str = ""
    care: tuple[str, ...] = ()
    water_l: float | None = None

    @property
    def pictograms(self) -> tuple[HazardPictogram, ...]:
        """The cautions in short."""
        return pictograms_for(self.hazard) if self.cautions else ()
