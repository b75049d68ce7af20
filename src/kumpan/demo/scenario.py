"""Five pools of the Alderbank district: how they are built, what they are in truth, and who looks after them.

All invented. The season itself is simulated (see season.py).
"""

from collections.abc import Mapping
from dataclasses import dataclass

from kumpan.core.journal import BasinMeasured, CellSet, EquipmentSet, PreferencesSet, SettingsMade
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.pool.plan_drawing import Fixture, FixtureKind
from kumpan.core.pool.shapes import DepthPoint, Part, ShapeKind, even_slope, volume_l
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from kumpan.core.quantities.units import G_PER_LB, G_PER_OZ, L_PER_US_GAL, M_PER_FT, ML_PER_FL_OZ
from kumpan.core.records.containers import Container, ContainerKind
from kumpan.core.simulation.carer import (
    ACID,
    BLEACH,
    DICHLOR,
    SALT,
    SODA,
    STABILIZER,
    TABLETS,
    Routine,
)
from kumpan.core.simulation.world import Climate, Nature, Water

PLACE, ZONE = "Alderbank", "America/Chicago"
CLIMATE = Climate(latitude_deg=29.0, longitude_deg=-95.5, mean_c=25.5, swing_c=4.5)
OWNER, FIRST_TECHNICIAN, SECOND_TECHNICIAN = "Ines Varga", "Tomas Lind", "Oda Reyes"
PEOPLE: Mapping[str, str] = {OWNER: "IV", FIRST_TECHNICIAN: "TL", SECOND_TECHNICIAN: "OR"}

_GAL = L_PER_US_GAL * 1000


@dataclass(frozen=True)
class InventoryRow:
    """A product of the carers as it stands on the shelf: its package, that one's price, packages to spare."""

    product: Product
    price: float
    package_g: float | None = None
    package_ml: float | None = None
    spare: int = 2


_ASH = Product("ash", "sodium_carbonate", 100.0, name="Soda ash")
_CALCIUM = Product("calcium", "calcium_chloride", 77.0, name="Calcium chloride 77 %")
_SHOCK = Product("shock", "calcium_hypochlorite", 65.0, name="Calcium hypochlorite 65 %")
_OXIDIZER = Product("oxidiser", "potassium_monopersulfate", 42.8, name="Non-chlorine shock")
INVENTORY: tuple[InventoryRow, ...] = (
    InventoryRow(BLEACH, 13.5, package_ml=2.5 * _GAL),
    InventoryRow(ACID, 9.0, package_ml=_GAL, spare=0),
    InventoryRow(SODA, 16.0, package_g=10 * G_PER_LB),
    InventoryRow(_ASH, 14.0, package_g=5 * G_PER_LB),
    InventoryRow(_CALCIUM, 19.0, package_g=8 * G_PER_LB),
    InventoryRow(STABILIZER, 24.0, package_g=4 * G_PER_LB),
    InventoryRow(SALT, 8.5, package_g=40 * G_PER_LB),
    InventoryRow(TABLETS, 110.0, package_g=25 * G_PER_LB),
    InventoryRow(DICHLOR, 32.0, package_g=5 * G_PER_LB),
    InventoryRow(_SHOCK, 5.5, package_g=G_PER_LB, spare=6),
    InventoryRow(_OXIDIZER, 6.0, package_g=G_PER_LB, spare=4),
)
PREFERENCES = PreferencesSet(
    (
        Container(ContainerKind.CUP, "blue cup", volume_ml=8 * ML_PER_FL_OZ, parts=4),
        Container(ContainerKind.SCALE, "kitchen scale", mass_g=0.5 * G_PER_OZ),
    ),
    water_price=1.6,
)


@dataclass(frozen=True)
class DemoPool:
    """One pool: what its journal begins with, the truth, the habits, and who writes."""

    key: str
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    nature: Nature
    water: Water
    preferences: Routine
    person: str
    seed: int


# Streets of the district: minutes of arc north and east of its middle.
_STREETS: Mapping[str, tuple[float, float]] = {
    "Millrace Close": (0.0, 0.0), "Weir Lane 4": (1.4, -0.8), "Orchard Row 11": (-0.9, 2.1),
    "Swan Street 27": (2.6, 0.4), "Tannery Yard": (-1.8, -1.6),
}  # fmt: skip
# Whose round it is, how many days after the one that the demo is loaded on, and the stops by their keys.
ROUNDS: tuple[tuple[str, int, tuple[str, ...]], ...] = (
    (FIRST_TECHNICIAN, 0, ("weir", "tannery", "orchard", "swan")),
    (FIRST_TECHNICIAN, 3, ("millrace",)),
    (SECOND_TECHNICIAN, 0, ("swan", "tannery")),
)
# What the first technician's truck held this morning, in packages of the shelf.
TRUCK: Mapping[str, float] = {"liquid": 1.5, "acid": 1.0, "soda": 0.5, "tablets": 0.25}


def _settings(name: str, profile: str = "household", kit: str = "drops") -> SettingsMade:
    north, east = _STREETS[name]
    return SettingsMade(
        name, PLACE, ZONE, profile, kit=kit,
        latitude_deg=CLIMATE.latitude_deg + north / 60, longitude_deg=CLIMATE.longitude_deg + east / 60,
    )  # fmt: skip


def _fixtures(skimmer: float, *returns: float) -> tuple[Fixture, ...]:
    return (
        Fixture(FixtureKind.SKIMMER, skimmer),
        *(Fixture(FixtureKind.RETURN, at) for at in returns),
        Fixture(FixtureKind.DRAIN, 0.0),
    )


def _millrace() -> DemoPool:
    """Plaster, salt cell, hard fill water: it scales. The owner believes it larger than it is."""
    length, width = 36 * M_PER_FT, 17 * M_PER_FT
    profile = tuple(
        DepthPoint(d * M_PER_FT, z * M_PER_FT) for d, z in ((0, 3.2), (12, 3.6), (26, 7.5), (36, 8))
    )
    parts = (Part(ShapeKind.STADIUM, length, profile, width),)
    liters = volume_l(parts)
    return DemoPool(
        "millrace",
        _settings("Millrace Close"),
        BasinMeasured(liters, parts, _fixtures(0.745, 0.05, 0.45)),
        EquipmentSet(
            Traits(Surface.PLASTER, Chlorination.SALT_CELL, Filter.SAND),
            Readings(ph=7.8, total_alkalinity=130, calcium_hardness=240, salt=90),
        ),
        Nature(0.93 * liters, 1.7, sun_per_hour=0.04, fill_calcium=240, fill_alkalinity=130, guests_a_week=6),
        Water(2.6, 2.5, 0.1, 7.6, 80, 270, 68, 3150),
        Routine(
            liters,
            cell=CellSet(round(1.7 * liters / 1000 / 0.55 / 10, 1), 55.0, 10.0),
            salt_goal=3100.0,
            acid_above_ph=7.85,
            acid_to_ph=7.6,
            stabilizer_goal=60.0,
            counts_guests=True,
            backwash_every=6,
            full_test_every=2,
        ),
        OWNER,
        11,
    )


def _weir() -> DemoPool:
    """Vinyl on tablets: the stabilizer climbs all season."""
    length, width = 28 * M_PER_FT, 14 * M_PER_FT
    parts = (Part(ShapeKind.RECTANGLE, length, even_slope(length, 3 * M_PER_FT, 6.5 * M_PER_FT), width),)
    liters = volume_l(parts)
    return DemoPool(
        "weir",
        _settings("Weir Lane 4", kit="photometer"),
        BasinMeasured(liters, parts, _fixtures(0.92, 0.18, 0.62)),
        EquipmentSet(
            Traits(Surface.VINYL, Chlorination.TABLETS, Filter.CARTRIDGE),
            Readings(ph=7.5, total_alkalinity=90, calcium_hardness=120),
        ),
        Nature(1.02 * liters, 1.45, organics_mg_l_day=0.5, guests_a_week=3),
        Water(2.4, 2.3, 0.1, 7.5, 110, 160, 36, 600),
        Routine(
            liters,
            gaps_days=(7.0,),
            visit_hour=10.0,
            kit="photometer",
            tablets_a_week_g=9.0 * liters / 1000 / 0.9,
            full_test_every=2,
        ),
        FIRST_TECHNICIAN,
        22,
    )


def _orchard() -> DemoPool:
    """A small soft-sided pool on granules, with strips."""
    parts = (Part(ShapeKind.ROUND, 15 * M_PER_FT, even_slope(15 * M_PER_FT, 3.3 * M_PER_FT, 3.3 * M_PER_FT)),)
    liters = volume_l(parts)
    return DemoPool(
        "orchard",
        _settings("Orchard Row 11", "small_vinyl", "strips"),
        BasinMeasured(liters, parts, _fixtures(0.9, 0.4)),
        EquipmentSet(Traits(Surface.VINYL, Chlorination.GRANULES, Filter.CARTRIDGE, covered=True)),
        Nature(0.97 * liters, 1.0, covered=True, guests_a_week=5, organics_mg_l_day=0.7),
        Water(2.0, 2.0, 0.2, 7.4, 120, 110, 20, 300),
        Routine(
            liters,
            kit="strips",
            chlorine=DICHLOR,
            daily_mg_l=1.1,
            counts_guests=True,
            backwash_every=4,
            alkalinity_low=80.0,
        ),
        OWNER,
        33,
    )


def _swan() -> DemoPool:
    """Indoors: no sun, no stabilizer, swimmers."""
    length, width = 10.0, 4.5
    parts = (Part(ShapeKind.RECTANGLE, length, even_slope(length, 1.2, 1.6), width),)
    liters = volume_l(parts)
    return DemoPool(
        "swan",
        _settings("Swan Street 27", kit="photometer"),
        BasinMeasured(liters, parts, _fixtures(0.88, 0.1, 0.6)),
        EquipmentSet(
            Traits(Surface.FIBERGLASS, Chlorination.LIQUID, Filter.SAND, indoor=True),
            Readings(ph=7.5, total_alkalinity=90, calcium_hardness=120),
        ),
        Nature(liters, 1.4, indoor=True, guests_a_week=8, organics_mg_l_day=0.4),
        Water(2.0, 2.0, 0.3, 7.5, 100, 190, 0, 900),
        Routine(
            liters,
            gaps_days=(3.0, 4.0),
            visit_hour=9.0,
            kit="photometer",
            daily_mg_l=0.6,
            counts_guests=True,
            backwash_every=5,
        ),
        SECOND_TECHNICIAN,
        44,
    )


def _tannery() -> DemoPool:
    """Neglected for three weeks, found green."""
    length, width = 32 * M_PER_FT, 16 * M_PER_FT
    parts = (
        Part(
            ShapeKind.KIDNEY,
            length,
            even_slope(length, 3.3 * M_PER_FT, 7.5 * M_PER_FT),
            width,
            13 * M_PER_FT,
        ),
    )
    liters = volume_l(parts)
    return DemoPool(
        "tannery",
        _settings("Tannery Yard"),
        BasinMeasured(liters, parts, _fixtures(0.8, 0.15, 0.5)),
        EquipmentSet(
            Traits(Surface.PLASTER, Chlorination.LIQUID, Filter.DE),
            Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120),
        ),
        Nature(1.05 * liters, 1.55, organics_mg_l_day=0.9, guests_a_week=2),
        Water(3.0, 2.8, 0.1, 7.5, 95, 240, 42, 1100),
        Routine(liters, visit_hour=13.0, daily_mg_l=1.3, gives_up_after_day=117.0),
        SECOND_TECHNICIAN,
        55,
    )


def pools() -> tuple[DemoPool, ...]:
    return (_millrace(), _weir(), _orchard(), _swan(), _tannery())
