"""Amounts and what they bring: from a product and a mass to moles in the pool, and back.

Source: mass-balance.
"""

from dataclasses import KW_ONLY, dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.by_label import LabelDose
from kumpan.core.products.catalogue import Chemical, chemical, density_g_per_ml
from kumpan.core.quantity import Liquid, Mass

SOURCE = "mass-balance"
LABEL_SLACK = 1.02  # a cup is read no finer


@dataclass(frozen=True)
class Product:
    """Something on the shelf: a chemical in one strength and package, or what is dosed by its
    `label_dose`.
    """

    id: str
    chemical: str
    strength_percent: float
    _: KW_ONLY
    package_g: float | None = None
    package_ml: float | None = None
    density_g_per_ml: float | None = None
    name: str = ""
    label_dose: LabelDose | None = None

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


def mass_by_label_g(
    product: Product, dose: LabelDose | None, volume_l: float, *, upkeep: bool = False
) -> float | None:
    """What a label says for a pool, g: the first dose, or the upkeep where it names one. None without one."""
    if dose is None:
        return None
    per_l = dose.upkeep_per_l if upkeep and dose.upkeep_per_l is not None else dose.first_per_l
    amount = per_l * volume_l
    return mass_from_volume_g(product, amount) if product.row.is_liquid else amount


def within_its_label(product: Product, mass_g: float, volume_l: float) -> None:
    """Raises InvalidInput where an amount is over the most that the product's own label allows in a pool."""
    dose = product.label_dose
    if dose is None or dose.most_per_l is None:
        return
    amount = volume_from_mass_ml(product, mass_g)
    most = dose.most_per_l * volume_l
    if (mass_g if amount is None else amount) > most * LABEL_SLACK:
        raise InvalidInput(
            Message(
                "Its label allows at most {most} in this pool; check "
                "the amount, or what stands on the label.",
                most=Mass(most) if amount is None else Liquid(most),
            ),
            "amount",
        )


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
