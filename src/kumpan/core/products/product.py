"""Amounts and what they bring: from a product and a mass to moles in the pool, and back.

Source: mass-balance.
"""

from dataclasses import KW_ONLY, dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import Chemical, chemical, density_g_per_ml

SOURCE = "mass-balance"


@dataclass(frozen=True)
class Product:
    """Something on the shelf: a chemical in one strength and package."""

    id: str
    chemical: str
    strength_percent: float
    _: KW_ONLY
    package_g: float | None = None
    package_ml: float | None = None
    density_g_per_ml: float | None = None
    name: str = ""

    @property
    def row(self) -> Chemical:
        """The chemical's row in the catalogue."""
        return chemical(self.chemical)

    @property
    def label(self) -> str:
        """What a person calls it: its own name, or the generic name with strength where that tells."""
        if self.name:
            return self.name
        plain = self.strength_percent >= 99.5
        return self.row.name if plain else f"{self.row.name} {self.strength_percent:g} %"


@dataclass(frozen=True, kw_only=True)
class Addition:
    """An amount of a chemical: `mass_g`, or for liquids `volume_ml`; exactly one is given."""

    chemical: str
    strength_percent: float
    mass_g: float | None = None
    volume_ml: float | None = None
    density_g_per_ml: float | None = None


def density(product: Product | Addition) -> float:
    """g/mL of a liquid: its own when stated, else the catalog's."""
    return product.density_g_per_ml or density_g_per_ml(chemical(product.chemical), product.strength_percent)


def mass_from_volume_g(product: Product | Addition, volume_ml: float) -> float:
    """The mass (g) of so many mL."""
    return volume_ml * density(product)


def volume_from_mass_ml(product: Product | Addition, mass_g: float) -> float | None:
    """mL of a liquid; None for what is weighed."""
    if not chemical(product.chemical).is_liquid:
        return None
    return mass_g / density(product)


def addition_mass_g(addition: Addition) -> float:
    """The mass of an addition. Raises InvalidInput when neither or both amounts are given."""
    if (addition.mass_g is None) == (addition.volume_ml is None):
        raise InvalidInput(Message("Give one amount: mass_g or, for liquids, volume_ml."), "mass_g")
    if addition.mass_g is not None:
        return addition.mass_g
    return mass_from_volume_g(addition, addition.volume_ml or 0.0)


def moles_per_g(product: Product | Addition) -> float:
    """Moles of what the strength counts in one gram of product."""
    row = chemical(product.chemical)
    per_mass = product.strength_percent / 100.0
    if row.trade_percent:
        per_mass /= density(product)  # g per 100 mL -> g per g
    return per_mass / row.molar_mass


def moles(addition: Addition) -> float:
    """What an addition brings of its active part, mol."""
    return addition_mass_g(addition) * moles_per_g(addition)
