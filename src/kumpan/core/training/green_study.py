"""Green pools of every severity, rescued by the plan, scored against the truth. Source: simulated-world."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import tzinfo
from math import floor

import numpy as np

from kumpan.core.algae.board import first_band
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.journal import RescueSet, Severity
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.simulation.green_world import Green, GreenWorld
from kumpan.core.simulation.world import Climate, Nature, Water
from kumpan.core.training.player import Player
from kumpan.core.training.rescuer import Rescuer

SOURCE = "simulated-world"

START_S = 1_780_322_400.0  # 1 June 2026, nine in the morning in the middle of North America
MORNING_SHARE = 9 / 24
FIRST_DAY = 0.5  # a band told before is the first one
LIQUID = Product("liquid", "sodium_hypochlorite", 10.0)
ACID = Product("acid", "hydrochloric_acid", 31.45)
ASH = Product("ash", "sodium_carbonate", 100.0)
INVENTORY: Sequence[Product] = (LIQUID, ACID, ASH)


@dataclass(frozen=True)
class Truth:
    """The ranges that a severity's pools are drawn from: what lives (mg/L a day), the cloud, the skin."""

    bloom: tuple[float, float]
    cloud: tuple[float, float]
    skin: tuple[float, float]


TRUTHS: dict[Severity, Truth] = {
    Severity.LIGHT: Truth((0.9, 3.2), (0.9, 2.3), (0.0, 0.0)),
    Severity.GREEN: Truth((3.5, 8.0), (2.8, 6.5), (0.0, 0.0)),
    Severity.OPAQUE: Truth((8.0, 18.0), (8.0, 20.0), (0.0, 0.0)),
    Severity.MUSTARD: Truth((2.5, 6.5), (0.7, 2.2), (0.7, 0.85)),
    Severity.BLACK: Truth((1.5, 4.5), (0.4, 1.5), (0.86, 0.94)),
}


@dataclass(frozen=True, kw_only=True)
class Rescued:
    """One run: days until clear (None: never), the first band in days, the later ones as (told on day, low,
    high) in days from the beginning, and what must not happen.
    """

    severity: Severity
    days: float | None
    low: float
    likely: float
    high: float
    drained_unseen: int
    over_cap_mg_l: float
    poured_mg_l: float
    tests: int
    later: tuple[tuple[float, float, float], ...] = ()

    @property
    def later_inside(self) -> int:
        """How many of the later bands hold the day."""
        if self.days is None:
            return 0
        end = self._day(self.days)
        return sum(self._day(low) <= end <= self._day(high) for _, low, high in self.later)

    @property
    def inside(self) -> bool:
        """BandShown in days of the calendar, as the board does."""
        return self.days is not None and self._day(self.low) <= self._day(self.days) <= self._day(self.high)

    @staticmethod
    def _day(days: float) -> int:
        return floor(days + MORNING_SHARE)


def rescued(severity: Severity, number: int, zone: tzinfo, seed: int = 1) -> Rescued:
    """One pool of a severity, by number."""
    draw = np.random.default_rng([seed, list(Severity).index(severity), number])
    prior = float(draw.uniform(25_000, 110_000))
    traits = Traits(
        surface=Surface.PLASTER if draw.random() < 0.6 else Surface.VINYL,
        chlorination=Chlorination.LIQUID,
        filter=list(Filter)[int(draw.integers(3))],
    )
    world = _world(draw, severity, prior=prior, filter_=traits.filter, seed=seed * 1_000_003 + number)
    player = Player(world=world, believed_volume_l=prior)
    rescuer = Rescuer(
        player=player, setting=RescueSet(severity=severity), traits=traits, inventory=INVENTORY, zone=zone
    )
    band, began = first_band(rescuer.request()), world.now_s
    end, tally = rescuer.run(), player.tally
    passed = [((one.at_s - began) / 86_400, one.clear) for one in rescuer.shown]
    return Rescued(
        severity=severity,
        days=None if end is None else (end.timestamp() - began) / 86_400,
        low=band.low_h / 24,
        likely=band.likely_h / 24,
        high=band.high_h / 24,
        drained_unseen=tally.ran_dry,
        over_cap_mg_l=tally.highest_mg_l - highest_planned_mg_l(traits),
        poured_mg_l=tally.chlorine_mg_l,
        tests=tally.tests,
        later=tuple(
            (day, day + told.low_h / 24, day + told.high_h / 24) for day, told in passed if day > FIRST_DAY
        ),
    )


def _world(
    draw: np.random.Generator, severity: Severity, prior: float, filter_: Filter, seed: int
) -> GreenWorld:
    truth = TRUTHS[severity]
    nature = Nature(
        true_volume_l=prior * float(np.clip(draw.normal(1, 0.07), 0.8, 1.2)),
        sun_per_hour=0.045 * float(np.exp(draw.normal(0, 0.3))),
        organics_mg_l_day=0.6 * float(np.exp(draw.normal(0, 0.4))),
        mood=0.25,
        dead_share=float(draw.uniform(0.05, 0.25)),
        guests_a_week=0.0,
    )
    water = Water(
        free=0.1,
        dead=0.1,
        combined=0.4,
        ph=float(draw.uniform(7.3, 8.2)),
        alkalinity=float(draw.uniform(70, 130)),
        calcium=float(draw.uniform(150, 350)),
        stabilizer=float(draw.uniform(10, 60)),
        salt=1200.0,
        bloom=float(draw.uniform(*truth.bloom)),
    )
    kinds = {Filter.SAND: 0.85, Filter.CARTRIDGE: 1.0, Filter.DE: 1.2}
    green = Green(
        cloud=float(draw.uniform(*truth.cloud)),
        kill=(0.03 if severity is Severity.BLACK else 0.075) * float(np.exp(draw.normal(0, 0.3))),
        skin=float(draw.uniform(*truth.skin)),
        filters=0.017 * kinds[filter_] * float(np.exp(draw.normal(0, 0.25))),
        clog=float(draw.uniform(0.08, 0.25)),
    )
    climate = Climate(latitude_deg=float(draw.uniform(26, 42)), mean_c=float(draw.uniform(22, 26)))
    return GreenWorld(nature=nature, climate=climate, water=water, start_s=START_S, seed=seed, green=green)


def runs(each: int, zone: tzinfo, seed: int = 1) -> Iterator[Rescued]:
    """So many of every severity."""
    for severity in Severity:
        for number in range(each):
            yield rescued(severity, number, zone, seed)
