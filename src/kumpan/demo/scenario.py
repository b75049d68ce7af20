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
FIRM = "Varga Pool Care"
# A household with a workspace of its own, that works on one of the firm's pools as well.
HOUSEHOLD, HOUSEHOLDER, SHARED_POOL = "The Adair household", "Nell Adair", "orchard"
PEOPLE: Mapping[str, str] = {OWNER: "IV", FIRST_TECHNICIAN: "TL", SECOND_TECHNICIAN: "OR"}

_GAL = L_PER_US_GAL * 1000


@dataclass(frozen=True, kw_only=True)
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
    InventoryRow(product=BLEACH, price=13.5, package_ml=2.5 * _GAL),
    InventoryRow(product=ACID, price=9.0, package_ml=_GAL, spare=0),
    InventoryRow(product=SODA, price=16.0, package_g=10 * G_PER_LB),
    InventoryRow(product=_ASH, price=14.0, package_g=5 * G_PER_LB),
    InventoryRow(product=_CALCIUM, price=19.0, package_g=8 * G_PER_LB),
    InventoryRow(product=STABILIZER, price=24.0, package_g=4 * G_PER_LB),
    InventoryRow(product=SALT, price=8.5, package_g=40 * G_PER_LB),
    InventoryRow(product=TABLETS, price=110.0, package_g=25 * G_PER_LB),
    InventoryRow(product=DICHLOR, price=32.0, package_g=5 * G_PER_LB),
    InventoryRow(product=_SHOCK, price=5.5, package_g=G_PER_LB, spare=6),
    InventoryRow(product=_OXIDIZER, price=6.0, package_g=G_PER_LB, spare=4),
)
PREFERENCES = PreferencesSet(
    containers=(
        Container(kind=ContainerKind.CUP, name="blue cup", volume_ml=8 * ML_PER_FL_OZ, parts=4),
        Container(kind=ContainerKind.SCALE, name="kitchen scale", mass_g=0.5 * G_PER_OZ),
    ),
    water_price=1.6,
)


@dataclass(frozen=True, kw_only=True)
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
        name=name,
        place=PLACE,
        time_zone=ZONE,
        profile=profile,
        kit=kit,
        latitude_deg=CLIMATE.latitude_deg + north / 60,
        longitude_deg=CLIMATE.longitude_deg + east / 60,
    )


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
    parts = (Part(shape=ShapeKind.STADIUM, length_m=length, depth=profile, width_m=width),)
    liters = volume_l(parts)
    return DemoPool(
        key="millrace",
        settings=_settings("Millrace Close"),
        basin=BasinMeasured(volume_l=liters, parts=parts, fixtures=_fixtures(0.745, 0.05, 0.45)),
        equipment=EquipmentSet(
            Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND),
            Readings(ph=7.8, total_alkalinity=130, calcium_hardness=240, salt=90),
        ),
        nature=Nature(
            true_volume_l=0.93 * liters,
            mean_depth_m=1.7,
            sun_per_hour=0.04,
            fill_calcium=240,
            fill_alkalinity=130,
            guests_a_week=6,
        ),
        water=Water(
            free=2.6, dead=2.5, combined=0.1, ph=7.6, alkalinity=80, calcium=270, stabilizer=68, salt=3150
        ),
        preferences=Routine(
            believed_volume_l=liters,
            cell=CellSet(round(1.7 * liters / 1000 / 0.55 / 10, 1), 55.0, 10.0),
            salt_goal=3100.0,
            acid_above_ph=7.85,
            acid_to_ph=7.6,
            stabilizer_goal=60.0,
            counts_guests=True,
            backwash_every=6,
            full_test_every=2,
        ),
        person=OWNER,
        seed=11,
    )


def _weir() -> DemoPool:
    """Vinyl on tablets: the stabilizer climbs all season."""
    length, width = 28 * M_PER_FT, 14 * M_PER_FT
    parts = (
        Part(
            shape=ShapeKind.RECTANGLE,
            length_m=length,
            depth=even_slope(length, 3 * M_PER_FT, 6.5 * M_PER_FT),
            width_m=width,
        ),
    )
    liters = volume_l(parts)
    return DemoPool(
        key="weir",
        settings=_settings("Weir Lane 4", kit="photometer"),
        basin=BasinMeasured(volume_l=liters, parts=parts, fixtures=_fixtures(0.92, 0.18, 0.62)),
        equipment=EquipmentSet(
            Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.CARTRIDGE),
            Readings(ph=7.5, total_alkalinity=90, calcium_hardness=120),
        ),
        nature=Nature(true_volume_l=1.02 * liters, mean_depth_m=1.45, organics_mg_l_day=0.5, guests_a_week=3),
        water=Water(
            free=2.4, dead=2.3, combined=0.1, ph=7.5, alkalinity=110, calcium=160, stabilizer=36, salt=600
        ),
        preferences=Routine(
            believed_volume_l=liters,
            gaps_days=(7.0,),
            visit_hour=10.0,
            kit="photometer",
            tablets_a_week_g=9.0 * liters / 1000 / 0.9,
            full_test_every=2,
        ),
        person=FIRST_TECHNICIAN,
        seed=22,
    )


def _orchard() -> DemoPool:
    """A small soft-sided pool on granules, with strips."""
    parts = (
        Part(
            shape=ShapeKind.ROUND,
            length_m=15 * M_PER_FT,
            depth=even_slope(15 * M_PER_FT, 3.3 * M_PER_FT, 3.3 * M_PER_FT),
        ),
    )
    liters = volume_l(parts)
    return DemoPool(
        key="orchard",
        settings=_settings("Orchard Row 11", "small_vinyl", "strips"),
        basin=BasinMeasured(volume_l=liters, parts=parts, fixtures=_fixtures(0.9, 0.4)),
        equipment=EquipmentSet(
            Traits(
                surface=Surface.VINYL,
                chlorination=Chlorination.GRANULES,
                filter=Filter.CARTRIDGE,
                covered=True,
            )
        ),
        nature=Nature(
            true_volume_l=0.97 * liters,
            mean_depth_m=1.0,
            covered=True,
            guests_a_week=5,
            organics_mg_l_day=0.7,
        ),
        water=Water(
            free=2.0, dead=2.0, combined=0.2, ph=7.4, alkalinity=120, calcium=110, stabilizer=20, salt=300
        ),
        preferences=Routine(
            believed_volume_l=liters,
            kit="strips",
            chlorine=DICHLOR,
            daily_mg_l=1.1,
            counts_guests=True,
            backwash_every=4,
            alkalinity_low=80.0,
        ),
        person=OWNER,
        seed=33,
    )


def _swan() -> DemoPool:
    """Indoors: no sun, no stabilizer, swimmers."""
    length, width = 10.0, 4.5
    parts = (
        Part(shape=ShapeKind.RECTANGLE, length_m=length, depth=even_slope(length, 1.2, 1.6), width_m=width),
    )
    liters = volume_l(parts)
    return DemoPool(
        key="swan",
        settings=_settings("Swan Street 27", kit="photometer"),
        basin=BasinMeasured(volume_l=liters, parts=parts, fixtures=_fixtures(0.88, 0.1, 0.6)),
        equipment=EquipmentSet(
            Traits(
                surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True
            ),
            Readings(ph=7.5, total_alkalinity=90, calcium_hardness=120),
        ),
        nature=Nature(
            true_volume_l=liters, mean_depth_m=1.4, indoor=True, guests_a_week=8, organics_mg_l_day=0.4
        ),
        water=Water(
            free=2.0, dead=2.0, combined=0.3, ph=7.5, alkalinity=100, calcium=190, stabilizer=0, salt=900
        ),
        preferences=Routine(
            believed_volume_l=liters,
            gaps_days=(3.0, 4.0),
            visit_hour=9.0,
            kit="photometer",
            daily_mg_l=0.6,
            counts_guests=True,
            backwash_every=5,
        ),
        person=SECOND_TECHNICIAN,
        seed=44,
    )


def _tannery() -> DemoPool:
    """Neglected for three weeks, found green."""
    length, width = 32 * M_PER_FT, 16 * M_PER_FT
    parts = (
        Part(
            shape=ShapeKind.KIDNEY,
            length_m=length,
            depth=even_slope(length, 3.3 * M_PER_FT, 7.5 * M_PER_FT),
            width_m=width,
            second_width_m=13 * M_PER_FT,
        ),
    )
    liters = volume_l(parts)
    return DemoPool(
        key="tannery",
        settings=_settings("Tannery Yard"),
        basin=BasinMeasured(volume_l=liters, parts=parts, fixtures=_fixtures(0.8, 0.15, 0.5)),
        equipment=EquipmentSet(
            Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.DE),
            Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120),
        ),
        nature=Nature(true_volume_l=1.05 * liters, mean_depth_m=1.55, organics_mg_l_day=0.9, guests_a_week=2),
        water=Water(
            free=3.0, dead=2.8, combined=0.1, ph=7.5, alkalinity=95, calcium=240, stabilizer=42, salt=1100
        ),
        preferences=Routine(
            believed_volume_l=liters, visit_hour=13.0, daily_mg_l=1.3, gives_up_after_day=117.0
        ),
        person=SECOND_TECHNICIAN,
        seed=55,
    )


def pools() -> tuple[DemoPool, ...]:
    """The pools of the invented round."""
    return (_millrace(), _weir(), _orchard(), _swan(), _tannery())
