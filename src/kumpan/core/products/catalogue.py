"""The chemicals of the trade: what one mole of each brings into the water, and how each is sold.

Read a row as a handbook line. Chlorine carriers count in moles of available chlorine (Cl2); their
strength is available chlorine: g per 100 mL ("trade percent") for liquid, percent by mass for
solids. All else is percent by mass of the pure substance. Carriers are taken as pure: no salt, no
caustic. Sources: mass-balance, available-chlorine, densities.
"""

import itertools
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.chemistry import molar
from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message, Verbatim

SOURCES_USED = ("mass-balance", "available-chlorine", "densities")


@dataclass(frozen=True, kw_only=True)
class Effect:
    """What one mole adds to the water's conserved totals, in moles (alkalinity in equivalents).

    `peroxymonosulfate` goes in with its own potassium and, once used up, is sulfate.
    `spent_alkalinity` is the alkalinity change left once the chlorine or oxidizer is used up.
    """

    alkalinity: float = 0.0
    spent_alkalinity: float = 0.0
    carbon: float = 0.0
    chlorine: float = 0.0
    cyanurate: float = 0.0
    borate: float = 0.0
    calcium: float = 0.0
    sodium: float = 0.0
    potassium: float = 0.0
    chloride: float = 0.0
    sulfate: float = 0.0
    peroxymonosulfate: float = 0.0
    copper: float = 0.0


@dataclass(frozen=True)
class Chemical:
    """A generic chemical. `molar_mass` is g per mole of what the strength counts.

    `densities` maps strength in percent to g/mL at 20 C for what is sold as a liquid.
    `trade_percent` marks a strength in g per 100 mL instead of percent by mass.
    """

    key: str
    name: str
    molar_mass: float
    effect: Effect
    hazard: Hazard
    usual_strength_percent: float
    densities: Mapping[float, float] | None = None
    trade_percent: bool = False

    @property
    def form(self) -> str:
        """How it comes out of the package."""
        return "liquid" if self.is_liquid else FORMS.get(self.key, "powder")

    @property
    def is_liquid(self) -> bool:
        """Sold by volume."""
        return self.densities is not None


FORMS: Mapping[str, str] = {
    "calcium_hypochlorite": "granules",
    "sodium_dichlor": "granules",
    "trichlor": "tablets",
    "potassium_monopersulfate": "granules",
    "sodium_bisulfate": "granules",
    "calcium_chloride": "flakes or prills",
    "cyanuric_acid": "granules",
    "sodium_chloride": "salt",
    "sodium_thiosulfate": "crystals",
}


def _table(densities: dict[float, float]) -> Mapping[float, float]:
    return MappingProxyType(densities)


_ROWS: tuple[Chemical, ...] = (
    Chemical(
        "sodium_hypochlorite", "Liquid chlorine", molar.CHLORINE,
        Effect(alkalinity=1, spent_alkalinity=0, chlorine=1, sodium=1),
        Hazard.OXIDIZER_LIQUID, 10.0,
        _table({6: 1.08, 10: 1.13, 12: 1.16, 12.5: 1.165}), trade_percent=True,
    ),
    Chemical(
        "calcium_hypochlorite", "Calcium hypochlorite", molar.CHLORINE,
        Effect(alkalinity=1, spent_alkalinity=0, chlorine=1, calcium=0.5),
        Hazard.OXIDIZER_GRANULES, 65.0,
    ),
    Chemical(
        "sodium_dichlor", "Dichlor granules", molar.CHLORINE,
        Effect(alkalinity=0.5, spent_alkalinity=-0.5, chlorine=1, cyanurate=0.5, sodium=0.5),
        Hazard.OXIDIZER_GRANULES, 56.0,
    ),
    Chemical(
        "trichlor", "Trichlor tablets", molar.CHLORINE,
        Effect(alkalinity=0, spent_alkalinity=-1, chlorine=1, cyanurate=1 / 3),
        Hazard.TABLETS, 90.0,
    ),
    Chemical(
        "potassium_monopersulfate", "Non-chlorine shock", molar.POTASSIUM_PEROXYMONOSULFATE,
        Effect(alkalinity=-0.5, spent_alkalinity=-1.5, potassium=1.5, sulfate=1, peroxymonosulfate=1),
        Hazard.OXIDIZER_GRANULES, 42.8,
    ),
    Chemical(
        "hydrochloric_acid", "Muriatic acid", molar.HYDROGEN_CHLORIDE,
        Effect(alkalinity=-1, spent_alkalinity=-1, chloride=1),
        Hazard.ACID, 31.45, _table({14.5: 1.07, 31.45: 1.16}),
    ),
    Chemical(
        "sodium_bisulfate", "Dry acid", molar.SODIUM_BISULFATE,
        Effect(alkalinity=-1, spent_alkalinity=-1, sodium=1, sulfate=1),
        Hazard.ACID, 93.2,
    ),
    Chemical(
        "sodium_carbonate", "Soda ash", molar.SODIUM_CARBONATE,
        Effect(alkalinity=2, spent_alkalinity=2, carbon=1, sodium=2),
        Hazard.ALKALI, 100.0,
    ),
    Chemical(
        "sodium_bicarbonate", "Baking soda", molar.SODIUM_BICARBONATE,
        Effect(alkalinity=1, spent_alkalinity=1, carbon=1, sodium=1),
        Hazard.POWDER, 100.0,
    ),
    Chemical(
        "borax", "Borax", molar.BORAX_DECAHYDRATE,
        Effect(alkalinity=2, spent_alkalinity=2, borate=4, sodium=2),
        Hazard.BORATE, 100.0,
    ),
    Chemical(
        "boric_acid", "Boric acid", molar.BORIC_ACID,
        Effect(borate=1),
        Hazard.BORATE, 100.0,
    ),
    Chemical(
        "calcium_chloride", "Calcium chloride", molar.CALCIUM_CHLORIDE,
        Effect(calcium=1, chloride=2),
        Hazard.HEAT_OF_SOLUTION, 77.0,
    ),
    Chemical(
        "cyanuric_acid", "Stabilizer", molar.CYANURIC_ACID,
        Effect(cyanurate=1),
        Hazard.POWDER, 100.0,
    ),
    Chemical(
        "sodium_chloride", "Pool salt", molar.SODIUM_CHLORIDE,
        Effect(sodium=1, chloride=1),
        Hazard.NONE, 100.0,
    ),
    Chemical(
        "sodium_hydroxide", "Caustic soda", molar.SODIUM_HYDROXIDE,
        Effect(alkalinity=1, spent_alkalinity=1, sodium=1),
        Hazard.CAUSTIC, 50.0, _table({50: 1.53}),
    ),
    Chemical(
        # Reduces four moles of chlorine: S2O3-- + 4 HOCl + H2O -> 2 SO4-- + 4 Cl- + 6 H+.
        "sodium_thiosulfate", "Chlorine reducer", molar.SODIUM_THIOSULFATE_PENTAHYDRATE,
        Effect(alkalinity=-6, spent_alkalinity=-2, chlorine=-4, sodium=2, chloride=4, sulfate=2),
        Hazard.POWDER, 100.0,
    ),
)  # fmt: skip
# Dosed by their label (see by_label.py): no equation, but for the copper that some bring. The strength is the
# active part in percent by mass.
_BY_LABEL: tuple[Chemical, ...] = (
    Chemical(
        "algaecide_quat", "Algaecide, quaternary", 1.0, Effect(), Hazard.LABEL, 10.0, _table({100: 1.0})
    ),
    Chemical(
        "algaecide_polyquat", "Algaecide, polyquat", 1.0, Effect(), Hazard.LABEL, 60.0, _table({100: 1.0})
    ),
    Chemical(
        "algaecide_copper",
        "Algaecide, copper",
        molar.CU,
        Effect(copper=1),
        Hazard.LABEL,
        7.0,
        _table({100: 1.0}),
    ),
    Chemical("algae_booster", "Algae booster", 1.0, Effect(), Hazard.OXIDIZER_GRANULES, 100.0),
    Chemical("clarifier", "Clarifier", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})),
    Chemical("flocculant", "Flocculant", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})),
    Chemical("enzyme", "Enzyme", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})),
    Chemical(
        "phosphate_remover", "Phosphate remover", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})
    ),
    Chemical("sequestrant", "Metal sequestrant", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})),
    Chemical("mineral_starter", "Mineral starter", 1.0, Effect(), Hazard.LABEL, 100.0),
    Chemical("surface_cleaner", "Cleaner", 1.0, Effect(), Hazard.LABEL, 100.0, _table({100: 1.0})),
    Chemical("filter_aid", "Filter aid", 1.0, Effect(), Hazard.SILICA, 100.0),
    Chemical("supply", "Supply", 1.0, Effect(), Hazard.NONE, 100.0),
)
CATALOGUE: Mapping[str, Chemical] = MappingProxyType({row.key: row for row in _ROWS})
BY_LABEL: Mapping[str, Chemical] = MappingProxyType({row.key: row for row in _BY_LABEL})
CHLORINE_CARRIERS = ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor", "trichlor")
STABILIZED = ("sodium_dichlor", "trichlor")


def chemical(key: str) -> Chemical:
    """The row of a chemical or of a kind that is dosed by its label. Raises InvalidInput that lists what is
    known.
    """
    found = BY_LABEL.get(key)
    return found if found is not None else with_equation(key)


def with_equation(key: str) -> Chemical:
    """The row of a chemical that can be reckoned with. Raises InvalidInput that lists what is known."""
    if key in BY_LABEL:
        raise InvalidInput(
            Message(
                "{name} is dosed by its label, there is nothing to compute; put it on the shelf instead.",
                name=Verbatim(BY_LABEL[key].name),
            ),
            "chemical",
        )
    if key not in CATALOGUE:
        raise InvalidInput(
            Message(
                '"{key}" is not a known chemical; use one of: {known}.',
                key=Verbatim(key),
                known=Verbatim(", ".join(CATALOGUE)),
            ),
            "chemical",
        )
    return CATALOGUE[key]


def density_g_per_ml(row: Chemical, strength_percent: float) -> float:
    """Density at 20 C by linear interpolation over strength, from plain water at 0 percent.

    Beyond the last entry the last slope goes on. Raises InvalidInput for a solid.
    """
    if row.densities is None:
        raise InvalidInput(
            Message("{name} is a solid: give mass_g, not volume_ml.", name=Verbatim(row.name)), "volume_ml"
        )
    points = sorted({0.0: 0.998, **row.densities}.items())
    for (low, at_low), (high, at_high) in itertools.pairwise(points):
        if strength_percent <= high or high == points[-1][0]:
            return at_low + (at_high - at_low) * (strength_percent - low) / (high - low)
    raise AssertionError("the loop always returns at its last pair")
