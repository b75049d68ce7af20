"""What a solution of the whole water says: doses, the water after them, and what stays where it is."""

from dataclasses import dataclass

from kumpan.core.chemistry.equilibrium import State
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.records.unmet import Unmet


@dataclass(frozen=True, kw_only=True)
class Dose:
    """One product's whole amount, the measure it is for and by how much it moves it."""

    product: Product
    mass_g: float
    measure: Measure
    change: float
    why: Message
    urgent: bool = False
    uncertainty_share: float = 0.0
    reason_code: str = ""


def nothing_at_hand(measure: Measure, reason: Message) -> Unmet:
    """A measure that no product at hand moves as it should."""
    return Unmet(measure, "nothing_suitable_at_hand", reason)


@dataclass(frozen=True, kw_only=True)
class Solution:
    """Doses and the water after them. `start` is the solved water before, where pH work is possible."""

    doses: tuple[Dose, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]
    start: State | None
    aerate_to_ph: float | None = None
