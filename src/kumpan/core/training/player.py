"""Someone with a kit and a shelf at a simulated pool: what they can do there, and what it costs them.

The learner's moves and the planner's own run go through the same hands. Source: simulated-world.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from uuid import UUID, uuid5

from kumpan.core.algae.severity import SPOTS
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    CareValue,
    CellSet,
    Clarity,
    Entry,
    Level,
    PlantSet,
    PoolState,
    PressureRead,
    TestTaken,
    VisualCheck,
    WaterChange,
    WaterChanged,
    fold,
)
from kumpan.core.products.product import Product
from kumpan.core.simulation.carer import Carer, Routine, moment
from kumpan.core.simulation.green_world import EDGES, SPOTS_SEEN, STILL_GREEN, GreenWorld
from kumpan.core.simulation.pouring import pour

SOURCE = "simulated-world"

SPACE = UUID("0c9c3d4e-8f0e-4b51-9a59-6a0f8e3b7d02")
GONE_MG_L = 0.1
WATER_PRICE_PER_M3 = 1.6
FILL_L_PER_H = 1500.0


@dataclass(kw_only=True)
class Tally:
    """What a run took and what went wrong in it: `ran_dry` how often chlorine went to nothing between two
    tests.
    """

    cost: float = 0.0
    chlorine_mg_l: float = 0.0
    pours: int = 0
    tests: int = 0
    water_l: float = 0.0
    hours_without: int = 0
    ran_dry: int = 0
    highest_mg_l: float = 0.0
    won_on_day: float | None = None


def never(world: GreenWorld) -> bool:  # noqa: ARG001
    """Nothing to be won."""
    return False


@dataclass(kw_only=True)
class Player:
    """Hands at a world. `won` says from the truth when it is won; `prices` are per gram by product id."""

    world: GreenWorld
    believed_volume_l: float
    prices: Mapping[str, float] = field(default_factory=dict)
    cell: CellSet | None = None
    won: Callable[[GreenWorld], bool] = never
    entries: list[Entry] = field(default_factory=list)
    tally: Tally = field(default_factory=Tally)

    def __post_init__(self) -> None:
        self.carer = Carer(
            world=self.world, preferences=Routine(believed_volume_l=self.believed_volume_l, cell=self.cell)
        )
        self.tally.highest_mg_l = self.world.mean_free
        self._was_gone = self.world.mean_free < GONE_MG_L
        self.tell(BasinMeasured(volume_l=self.believed_volume_l))
        self.tell(PlantSet(clean_pressure_kpa=self.world.green.clean_kpa))

    @property
    def days(self) -> float:
        """Days since the beginning."""
        return self.world.hour / 24

    @property
    def state(self) -> PoolState:
        """The journal so far, folded."""
        return fold(self.entries)

    def tell(self, body: Body) -> Entry:
        """Write something into the practice pool's journal."""
        at = moment(self.world.now_s + len(self.entries) * 1e-3)
        key = f"{self.world.seed}/{len(self.entries)}"
        entry = Entry(id=uuid5(SPACE, key), pool_id=SPACE, at=at, recorded_at=at, person_id=None, body=body)
        self.entries.append(entry)
        return entry

    def wait(self, hours: int) -> None:
        """Let hours go by and keep the tally."""
        for _ in range(hours):
            self.world.step()
            free = self.world.mean_free
            gone = free < GONE_MG_L
            self.tally.hours_without += gone
            self.tally.ran_dry += gone and not self._was_gone and self.tally.pours > 0
            self._was_gone = gone
            self.tally.highest_mg_l = max(self.tally.highest_mg_l, free)
            if self.tally.won_on_day is None and self.won(self.world):
                self.tally.won_on_day = self.days

    def visual_check(self) -> VisualCheck:
        """What the eye says: with its own doubt."""
        seen = self.world.shown * float(self.world.draw.lognormal(0, 0.12))
        bloom = self.world.water.bloom
        names = (Clarity.CLEAR, Clarity.HAZY, Clarity.CLOUDY, Clarity.DRAIN_HIDDEN, Clarity.DRAIN_HIDDEN)
        clarity = names[sum(seen >= edge for edge in EDGES)]
        if bloom > STILL_GREEN and seen > EDGES[0] and not self.world.green.skin:
            clarity = Clarity.GREEN
        spots = bloom > SPOTS_SEEN and (self.world.green.skin > 0 or clarity is Clarity.CLEAR)
        body = VisualCheck(clarity, Level.NORMAL, (SPOTS,) if spots else ())
        self.tell(body)
        return body

    def test(self, *, full: bool) -> TestTaken:
        """Test the water; `full`: every measure."""
        self.tally.tests += 1
        body = self.carer.test(full=full)
        self.tell(body)
        return body

    def add(self, product: Product, grams: float, of: tuple[UUID, int] | None = None) -> None:
        """Pour by the hand's own measure; the journal is told what was meant, and of which sheet's step."""
        treatment_id, number = of if of is not None else (None, None)
        poured = grams * float(self.world.draw.normal(1, 0.03))
        self.tally.chlorine_mg_l += pour(self.world, product, poured)
        self.tally.pours += 1
        self.tally.cost += self.prices.get(product.id, 0.0) * grams
        self.tally.highest_mg_l = max(self.tally.highest_mg_l, self.world.mean_free)
        self.tell(
            AdditionMade(
                chemical=product.chemical,
                strength_percent=product.strength_percent,
                label=product.label,
                mass_g=grams,
                product_id=product.id,
                treatment_id=treatment_id,
                step_number=number,
            )
        )

    def brush(self) -> None:
        """Brush the walls."""
        self.world.brush()

    def read_gauge(self) -> float:
        """Read the filter's gauge, kPa."""
        self.tell(PressureRead(self.world.gauge_kpa))
        return self.world.gauge_kpa

    def clean_filter(self) -> None:
        """Clean the filter and note its pressure before and after."""
        before = self.world.gauge_kpa
        self.world.clean_filter()
        self._water(0.01 * self.believed_volume_l)
        after = CareValue("pressure_after_kpa", self.world.gauge_kpa)
        self.tell(CareDone("backwash", (CareValue("pressure_before_kpa", before), after)))

    def vacuum(self) -> None:
        """To waste, what has settled."""
        self.world.vacuum()
        self._water(0.025 * self.believed_volume_l)

    def replace_water(self, share: float) -> None:
        """Drain and refill a share of the water believed in; it takes the hose its hours."""
        liters = share * self.believed_volume_l
        self.world.replace_water(liters)
        self._water(liters)
        self.tell(WaterChanged(kind=WaterChange.DRAIN, volume_l=liters))
        self.wait(max(1, round(liters / FILL_L_PER_H)))

    def _water(self, liters: float) -> None:
        self.tally.water_l += liters
        self.tally.cost += WATER_PRICE_PER_M3 * liters / 1000
