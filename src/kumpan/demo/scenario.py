"""Two pools of the Alderbank district with a short hand-written history, ending at the time it is loaded."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import timedelta

from kumpan.core.dosing.additions import Product
from kumpan.core.journal import BasinMeasured, Clarity, EquipmentSet, Level, LookTaken, SettingsMade
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.pool.plan_drawing import Fixture, FixtureKind
from kumpan.core.pool.shapes import DepthPoint, Part, ShapeKind, even_slope, volume_l
from kumpan.core.units import G_PER_LB, L_PER_US_GAL, M_PER_FT
from kumpan.core.water import Measure, Readings

M = Measure


@dataclass(frozen=True)
class DemoTest:
    """A test some time ago, with the fields as typed on the slip (temperature in F)."""

    ago: timedelta
    person: str
    fields: Mapping[Measure, str]


@dataclass(frozen=True)
class DemoPour:
    ago: timedelta
    person: str
    product: str
    amount: str


@dataclass(frozen=True)
class DemoPool:
    key: str
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    look: LookTaken
    tests: tuple[DemoTest, ...]
    pours: tuple[DemoPour, ...]


PEOPLE: Mapping[str, str] = {"Ines Varga": "IV", "Tomas Lind": "TL"}

SHELF: tuple[Product, ...] = (
    Product(
        "liquid",
        "sodium_hypochlorite",
        10.0,
        package_ml=2.5 * L_PER_US_GAL * 1000,
        name="Liquid chlorine 10 %",
    ),
    Product("acid", "hydrochloric_acid", 31.45, package_ml=L_PER_US_GAL * 1000, name="Muriatic acid 31 %"),
    Product("soda", "sodium_bicarbonate", 100.0, package_g=10 * G_PER_LB, name="Baking soda"),
    Product("ash", "sodium_carbonate", 100.0, package_g=5 * G_PER_LB, name="Soda ash"),
    Product("calcium", "calcium_chloride", 77.0, package_g=8 * G_PER_LB, name="Calcium chloride 77 %"),
    Product("stabiliser", "cyanuric_acid", 100.0, package_g=4 * G_PER_LB, name="Stabiliser"),
    Product("salt", "sodium_chloride", 99.5, package_g=40 * G_PER_LB, name="Pool salt"),
)
BOUGHT: Mapping[str, float] = {
    "liquid": 4,
    "acid": 2,
    "soda": 3,
    "ash": 1,
    "calcium": 2,
    "stabiliser": 3,
    "salt": 5,
}


def _millrace() -> DemoPool:
    length, width = 36 * M_PER_FT, 17 * M_PER_FT
    profile = tuple(
        DepthPoint(d * M_PER_FT, z * M_PER_FT) for d, z in ((0, 3.2), (12, 3.6), (26, 7.5), (36, 8))
    )
    parts = (Part(ShapeKind.STADIUM, length, profile, width),)
    fixtures = (
        Fixture(FixtureKind.SKIMMER, 0.745),
        Fixture(FixtureKind.RETURN, 0.05),
        Fixture(FixtureKind.RETURN, 0.45),
        Fixture(FixtureKind.DRAIN, 0.0),
    )
    return DemoPool(
        "millrace",
        SettingsMade("Millrace Close", "Alderbank", "America/Chicago", "household"),
        BasinMeasured(volume_l(parts), parts, fixtures),
        EquipmentSet(
            Traits(Surface.PLASTER, Chlorination.SALT_CELL, Filter.SAND),
            Readings(ph=7.8, total_alkalinity=110, calcium_hardness=140, salt=90),
        ),
        LookTaken(Clarity.CLEAR, Level.NORMAL, ("leaves in the skimmer",)),
        (
            _test(14, {M.FREE_CHLORINE: "2.4", M.PH: "7,6", M.TOTAL_ALKALINITY: "80", M.CALCIUM_HARDNESS: "280", M.CYANURIC_ACID: "55", M.SALT: "2950", M.TEMPERATURE: "78"}),
            _test(7, {M.FREE_CHLORINE: "2.2", M.TOTAL_CHLORINE: "2.4", M.PH: "7,8", M.TOTAL_ALKALINITY: "80", M.SALT: "2850", M.TEMPERATURE: "80"}),
            _test(0, {M.FREE_CHLORINE: "1.6", M.TOTAL_CHLORINE: "1.8", M.PH: "7,8", M.TOTAL_ALKALINITY: "90", M.CALCIUM_HARDNESS: "290", M.CYANURIC_ACID: "45", M.SALT: "2650", M.TEMPERATURE: "81"}),
        ),
        (DemoPour(timedelta(days=7, hours=-1), "Ines Varga", "liquid", "32 fl oz"),),
    )  # fmt: skip


def _weir() -> DemoPool:
    length, width = 28 * M_PER_FT, 14 * M_PER_FT
    parts = (Part(ShapeKind.RECTANGLE, length, even_slope(length, 3 * M_PER_FT, 6.5 * M_PER_FT), width),)
    fixtures = (
        Fixture(FixtureKind.SKIMMER, 0.92),
        Fixture(FixtureKind.RETURN, 0.18),
        Fixture(FixtureKind.RETURN, 0.62),
        Fixture(FixtureKind.DRAIN, 0.0),
    )
    return DemoPool(
        "weir",
        SettingsMade("Weir Lane 4", "Alderbank", "America/Chicago", "household", kit="strips"),
        BasinMeasured(volume_l(parts), parts, fixtures),
        EquipmentSet(Traits(Surface.VINYL, Chlorination.TABLETS, Filter.CARTRIDGE)),
        LookTaken(Clarity.HAZY, Level.LOW, ()),
        (
            _test(28, {M.FREE_CHLORINE: "3", M.PH: "7.2", M.TOTAL_ALKALINITY: "120", M.CYANURIC_ACID: "40"}),
            _test(10, {M.FREE_CHLORINE: "3", M.PH: "7.2", M.TOTAL_ALKALINITY: "80", M.CYANURIC_ACID: "100"}),
            _test(1, {M.FREE_CHLORINE: "1", M.TOTAL_CHLORINE: "1", M.PH: "7.2", M.TOTAL_ALKALINITY: "40", M.CALCIUM_HARDNESS: "100", M.CYANURIC_ACID: "100", M.TEMPERATURE: "84"}),
        ),
        (),
    )  # fmt: skip


def _test(days_ago: int, fields: Mapping[Measure, str]) -> DemoTest:
    return DemoTest(
        timedelta(days=days_ago, minutes=35), "Ines Varga" if days_ago != 1 else "Tomas Lind", fields
    )


def pools() -> tuple[DemoPool, ...]:
    return (_millrace(), _weir())
