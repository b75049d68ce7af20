"""Practice pools: what one is told, what is true, what stands on the shelf, and when it is won.

All invented. A row reads like a story; the truth is drawn around it by the seed. Source: simulated-world.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from types import MappingProxyType

import numpy as np

from kumpan.core.journal import CellSet, RescueSet, Severity
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from kumpan.core.simulation.green_world import Green, GreenWorld
from kumpan.core.simulation.world import Climate, Nature, Water

SOURCE = "simulated-world"

START_S = 1_780_322_400.0  # 1 June 2026, nine in the morning in the middle of North America
TIME_ZONE = "America/Chicago"
GALLON_ML = 1000 * L_PER_US_GAL

_LIQUID = Product(
    "liquid", "sodium_hypochlorite", 10.0, package_ml=2.5 * GALLON_ML, name="Liquid chlorine 10 %"
)
_SHOCK = Product("shock", "calcium_hypochlorite", 65.0, package_g=G_PER_LB, name="Calcium hypochlorite 65 %")
_DICHLOR = Product("granules", "sodium_dichlor", 56.0, package_g=5 * G_PER_LB, name="Dichlor granules 56 %")
_ACID = Product("acid", "hydrochloric_acid", 31.45, package_ml=GALLON_ML, name="Muriatic acid 31 %")
_SODA = Product("soda", "sodium_bicarbonate", 100.0, package_g=10 * G_PER_LB, name="Baking soda")
_ASH = Product("ash", "sodium_carbonate", 100.0, package_g=5 * G_PER_LB, name="Soda ash")
_CALCIUM = Product("calcium", "calcium_chloride", 77.0, package_g=8 * G_PER_LB, name="Calcium chloride 77 %")
_STABILIZER = Product("stabiliser", "cyanuric_acid", 100.0, package_g=4 * G_PER_LB, name="Stabilizer")
_SALT = Product("salt", "sodium_chloride", 99.5, package_g=40 * G_PER_LB, name="Pool salt")
_TABLETS = Product("tablets", "trichlor", 90.0, package_g=25 * G_PER_LB, name="Trichlor tablets 90 %")
_PRICES: Mapping[Product, float] = {
    _LIQUID: 13.5, _SHOCK: 5.5, _DICHLOR: 32.0, _ACID: 9.0, _SODA: 16.0, _ASH: 14.0, _CALCIUM: 19.0, _STABILIZER: 24.0,
    _SALT: 8.5, _TABLETS: 110.0,
}  # fmt: skip


def _inventory(*products: Product) -> tuple[Stocked, ...]:
    return tuple(Stocked(product, None, _PRICES[product]) for product in products)


@dataclass(frozen=True)
class Scenario:
    """One practice pool. `goals` by key are what must be true at the end; `days` how long there is.

    `rescue` where the planner would begin a rescue. `water` and `green` are the truth before the seed shifts it.
    """

    key: str
    title: Message
    story: Message
    lesson: Message
    days: int
    believed_volume_l: float
    traits: Traits
    water: Water
    green: Green
    stocked: tuple[Stocked, ...]
    goals: tuple[str, ...]
    rescue: RescueSet | None = None
    cell: CellSet | None = None
    fill_calcium: float = 120.0
    fill_alkalinity: float = 90.0
    climate: Climate = field(default_factory=lambda: Climate(latitude_deg=32.0, mean_c=25.0))

    @property
    def inventory(self) -> Sequence[Product]:
        """The products of the practice shelf."""
        return [item.product for item in self.stocked]


_CLEAR, _FREE, _COMBINED, _PH = "clear", "free_chlorine", "combined", "ph"
_STAB, _INDEX, _DEAD, _SALT_OK = "stabiliser", "index", "nothing_lives", "salt"
_ROWS: tuple[Scenario, ...] = (
    Scenario(
        "holiday", Message("Green after a holiday"),
        Message("Two weeks away in June, the feeder ran empty. The water is green, the floor just to be seen. Guests come in two weeks."),
        Message("Keep chlorine at the level that stabilizer asks for, day and night, until a night costs less than 1; filter, brush, then clear."),
        14, 60_000.0, Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.CARTRIDGE),
        Water(free=0.1, dead=0.1, combined=0.5, ph=7.9, alkalinity=100, calcium=240, stabilizer=40, salt=900, bloom=6.0), Green(cloud=4.5, kill=0.075, filters=0.018, clog=0.15),
        _inventory(_LIQUID, _SHOCK, _DICHLOR, _TABLETS, _ACID, _SODA), (_CLEAR, _DEAD, _COMBINED, _PH),
        RescueSet(severity=Severity.GREEN),
    ),
    Scenario(
        "creep", Message("Stabilizer creep"),
        Message("A vinyl pool on tablets for three summers. Free chlorine reads 3, and still the walls feel slick. Nobody tests stabilizer."),
        Message("Test stabilizer; only new water brings it down. Then chlorine that brings none."),
        10, 45_000.0, Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.CARTRIDGE),
        Water(free=3.0, dead=2.8, combined=0.3, ph=7.3, alkalinity=90, calcium=180, stabilizer=125, salt=700, bloom=0.4), Green(cloud=0.6, filters=0.02),
        _inventory(_LIQUID, _TABLETS, _DICHLOR, _ACID, _SODA, _ASH), (_STAB, _FREE, _PH, _CLEAR),
    ),
    Scenario(
        "cell", Message("The scaling cell"),
        Message("Plaster and a salt cell; white scale on the plates, the cell makes less and less. The owner scrapes it every month."),
        Message("Scale is the water's doing: bring the scaling index down by pH and alkalinity, and the cell stays clean."),
        10, 70_000.0, Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND),
        Water(free=2.6, dead=2.5, combined=0.1, ph=8.15, alkalinity=150, calcium=390, stabilizer=65, salt=3150), Green(cloud=0.3, filters=0.02),
        _inventory(_ACID, _SODA, _LIQUID, _SALT, _STABILIZER, _CALCIUM), (_INDEX, _PH, _FREE),
        cell=CellSet(9.0, 55.0, 10.0), fill_calcium=240.0, fill_alkalinity=140.0,
    ),
    Scenario(
        "party", Message("Cloudy after a party"),
        Message("Twenty people yesterday. The water is cloudy and smells; the drain is a pale spot. The next party is in eight days."),
        Message("The smell is combined chlorine: more chlorine, not less; filter; look for the drain before anybody swims."),
        8, 55_000.0, Traits(surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND),
        Water(free=0.3, dead=0.2, combined=1.6, ph=7.7, alkalinity=95, calcium=220, stabilizer=30, salt=900, bloom=1.2), Green(cloud=2.2, kill=0.08, filters=0.022),
        _inventory(_LIQUID, _SHOCK, _DICHLOR, _ACID, _SODA, _STABILIZER), (_CLEAR, _COMBINED, _FREE, _PH),
        RescueSet(severity=Severity.LIGHT),
    ),
    Scenario(
        "spring", Message("The first day of a salt pool"),
        Message("The cover is off and the water is clear but cool. It was lowered for the winter and filled up again; the cell stands without power, and its lamp asked for salt last autumn already."),
        Message("New water took salt with it. Test it by hand, add whole bags rounded down, a day of mixing, test again, then power the cell; until then chlorine goes in by hand."),
        10, 65_000.0, Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND),
        Water(free=0.4, dead=0.3, combined=0.2, ph=7.9, alkalinity=70, calcium=270, stabilizer=40, salt=1900, temperature_c=17.0), Green(cloud=0.5, filters=0.02),
        _inventory(_SALT, _LIQUID, _ACID, _SODA, _CALCIUM, _STABILIZER), (_SALT_OK, _FREE, _PH, _CLEAR),
        cell=CellSet(9.0, 0.0, 10.0), climate=Climate(latitude_deg=38.0, mean_c=15.0),
    ),
)  # fmt: skip
SCENARIOS: Mapping[str, Scenario] = MappingProxyType({row.key: row for row in _ROWS})


def new_world(scenario: Scenario, seed: int) -> GreenWorld:
    """The truth behind a scenario: the pool is not quite as large as believed, and no day like another."""
    draw = np.random.default_rng([seed, list(SCENARIOS).index(scenario.key)])

    def about(value: float, share: float = 0.08) -> float:
        return float(value * np.clip(draw.normal(1, share), 1 - 2 * share, 1 + 2 * share))

    nature = Nature(
        true_volume_l=about(scenario.believed_volume_l, 0.06),
        sun_per_hour=about(0.045, 0.12),
        mood=0.25,
        dead_share=float(draw.uniform(0.06, 0.2)),
        guests_a_week=0.0,
        fill_calcium=scenario.fill_calcium,
        fill_alkalinity=scenario.fill_alkalinity,
    )
    usual = scenario.water
    water = replace(
        usual,
        ph=usual.ph + float(draw.normal(0, 0.06)),
        alkalinity=about(usual.alkalinity),
        calcium=about(usual.calcium),
        stabilizer=about(usual.stabilizer),
        bloom=about(usual.bloom, 0.15),
        tablets_g=[],
    )
    green = replace(
        scenario.green, cloud=about(scenario.green.cloud, 0.12), kill=about(scenario.green.kill, 0.15)
    )
    if scenario.cell is not None:
        water.cell_g_h = scenario.cell.output_g_per_h * scenario.cell.percent / 100
        water.cell_hours = scenario.cell.hours_per_day
    return GreenWorld(
        nature=nature, climate=scenario.climate, water=water, start_s=START_S, seed=seed, green=green
    )
