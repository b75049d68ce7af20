"""Someone who looks after a simulated pool by simple habits, and tells the journal what they did.

They know the label on the box and the volume they believe in, not the truth. All invented; seeded.
Source: simulated-world.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime

from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.journal import (
    AdditionMade,
    Body,
    CellSet,
    Clarity,
    Level,
    SwimmersCounted,
    TestTaken,
    VisualCheck,
    WaterChange,
    WaterChanged,
)
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.simulation.pouring import pour
from kumpan.core.simulation.world import World
from kumpan.core.testing.kits import kit_by_key
from kumpan.core.testing.methods import STRIP_BLOCKS, Measured, Method, measured

SOURCE = "simulated-world"

M = Measure
BLEACH = Product("liquid", "sodium_hypochlorite", 10.0, name="Liquid chlorine 10 %")
ACID = Product("acid", "hydrochloric_acid", 31.45, name="Muriatic acid 31 %")
SODA = Product("soda", "sodium_bicarbonate", 100.0, name="Baking soda")
SALT = Product("salt", "sodium_chloride", 99.5, name="Pool salt")
STABILIZER = Product("stabiliser", "cyanuric_acid", 100.0, name="Stabilizer")
TABLETS = Product("tablets", "trichlor", 90.0, name="Trichlor tablets")
DICHLOR = Product("granules", "sodium_dichlor", 56.0, name="Dichlor granules")


POURING_HOUR = 19
ACID_PER_PH = 24.0  # mg/L of alkalinity, the carers' rule of thumb


@dataclass(frozen=True, kw_only=True)
class Routine:
    """How someone cares: days between visits in turn, the kit, the goals, and what they feed with."""

    believed_volume_l: float
    gaps_days: tuple[float, ...] = (3.0, 4.0)
    visit_hour: float = 15.0
    kit: str = "drops"
    free_goal: float = 4.0
    acid_above_ph: float = 7.75
    acid_to_ph: float = 7.5
    chlorine: Product = BLEACH
    tablets_a_week_g: float = 0.0
    daily_mg_l: float = 0.0
    cell: CellSet | None = None
    salt_goal: float | None = None
    stabilizer_goal: float | None = None
    alkalinity_low: float | None = 70.0
    full_test_every: int = 4
    counts_guests: bool = False
    backwash_every: int = 0
    gives_up_after_day: float | None = None


@dataclass(frozen=True)
class Report:
    """Something that the journal is told: UTC seconds, what, and by which of the carers."""

    at_s: float
    body: Body
    person: int = 0


@dataclass(kw_only=True)
class Carer:
    """Visits a world by habit."""

    world: World
    preferences: Routine
    visits: int = field(default=0, init=False)
    goal: float = field(init=False)
    tablets_share: float = field(default=1.0, init=False)
    cell: CellSet | None = field(init=False)
    daily_mg_l: float = field(init=False)

    def __post_init__(self) -> None:
        self.goal, self.cell = self.preferences.free_goal, self.preferences.cell
        self.daily_mg_l = self.preferences.daily_mg_l

    def season(self, days: float) -> Iterator[Report]:
        """The whole season, hour by hour; the world moves on while the journal is told."""
        if self.preferences.cell is not None:
            self._set_cell(self.preferences.cell)
            yield Report(self.world.now_s, self.preferences.cell)
        next_visit = 0.25
        while self.world.hour < days * 24:
            due = self.world.hour / 24 >= next_visit and self._is_visiting_hour()
            if due and not self._gave_up():
                yield from self._visit()
                gaps = self.preferences.gaps_days
                next_visit = self.world.hour / 24 + gaps[self.visits % len(gaps)] - 0.4
            elif self.daily_mg_l and self._is_pouring_hour() and not self._gave_up():
                poured = self._pour(self.preferences.chlorine, M.FREE_CHLORINE, self.daily_mg_l)
                yield Report(self.world.now_s + 300, poured)
            self.world.step()
            if self.preferences.counts_guests and self.world.hour % 24 == 0 and self.world.guests > 0:
                yield Report(self.world.now_s + 61_000, SwimmersCounted(3.0 * self.world.guests))

    def _gave_up(self) -> bool:
        after = self.preferences.gives_up_after_day
        return after is not None and self.world.hour > after * 24

    def _is_visiting_hour(self) -> bool:
        hour = (self.world.now_s / 3600 + self.world.climate.longitude_deg / 15) % 24
        return int(hour) == int(self.preferences.visit_hour)

    def _is_pouring_hour(self) -> bool:
        hour = (self.world.now_s / 3600 + self.world.climate.longitude_deg / 15) % 24
        return int(hour) == POURING_HOUR

    def _visit(self) -> Iterator[Report]:
        at = self.world.now_s + float(self.world.draw.uniform(0, 2400))
        full = self.visits % self.preferences.full_test_every == 0
        self.visits += 1
        yield Report(at, self.visual_check())
        test = self.test(full=full)
        yield Report(at + 240, test)
        read = {value.measure: value.value for value in test.values}
        when = at + 900
        self._learn(read[M.FREE_CHLORINE])
        bodies: list[Body] = [*self._turn_cell(read[M.FREE_CHLORINE]), *self._doses(read)]
        for body in bodies:
            yield Report(when, body)
            when += 600
        if self.preferences.backwash_every and self.visits % self.preferences.backwash_every == 0:
            liters = 0.012 * self.preferences.believed_volume_l
            self.world.replace_water(liters)
            yield Report(when, WaterChanged(kind=WaterChange.BACKWASH, volume_l=round(liters, -1)))

    def visual_check(self) -> VisualCheck:
        """What a keeper would see now."""
        bloom, odd = self.world.water.bloom, []
        if self.world.rained_mm > 20:
            odd.append("heavy rain")
        clarity = (
            Clarity.GREEN
            if bloom > 6
            else Clarity.CLOUDY
            if bloom > 3
            else Clarity.HAZY
            if bloom > 1
            else Clarity.CLEAR
        )
        return VisualCheck(clarity, Level.NORMAL, tuple(odd))

    def test(self, *, full: bool) -> TestTaken:
        """What the kit shows, read by someone: noise, and the kit's own steps."""
        w, draw = self.world.water, self.world.draw
        free = max(0.0, w.free * float(draw.normal(1, 0.05)) + float(draw.normal(0, 0.08)))
        true = {
            M.FREE_CHLORINE: free,
            M.TOTAL_CHLORINE: free + w.combined,
            M.PH: w.ph + float(draw.normal(0, 0.06)),
        }
        true[M.TEMPERATURE] = w.temperature_c + float(draw.normal(0, 0.3))
        if full:
            true |= {
                M.TOTAL_ALKALINITY: w.alkalinity * float(draw.normal(1, 0.04)),
                M.CALCIUM_HARDNESS: w.calcium * float(draw.normal(1, 0.04)),
                M.CYANURIC_ACID: w.stabilizer * float(draw.normal(1, 0.07)),
            }
            if self.preferences.cell is not None:
                true[M.SALT] = w.salt * float(draw.normal(1, 0.02))
        return TestTaken(tuple(self._shown(m, v) for m, v in true.items()), self.preferences.kit)

    def _shown(self, measure: Measure, value: float) -> Measured:
        method = kit_by_key(self.preferences.kit).method_of(measure)
        value = max(0.0, value)
        if method is Method.STRIP and measure in STRIP_BLOCKS:
            shown = min(STRIP_BLOCKS[measure], key=lambda block: abs(block - value))
        else:
            step = _STEPS[measure]
            shown = round(
                -(-value // step) * step if method is Method.DROPS else round(value / step) * step, 2
            )
        return measured(measure, shown, method)

    def _learn(self, free: float) -> None:
        """Whoever finds no chlorine doses more next time, whoever finds much doses less."""
        if free < 1.2:
            self.daily_mg_l *= 1.2
            self.goal, self.tablets_share = min(9.0, self.goal + 0.6), min(1.6, 1.2 * self.tablets_share)
        elif free > 4.5:
            self.daily_mg_l *= 0.8
            self.goal, self.tablets_share = max(3.0, self.goal - 0.3), 0.8 * self.tablets_share

    def _turn_cell(self, free: float) -> Iterator[CellSet]:
        if self.cell is None or 1.5 <= free <= 5.0:
            return
        percent = min(100.0, max(10.0, self.cell.percent + (15.0 if free < 1.5 else -15.0)))
        if percent != self.cell.percent:
            self.cell = CellSet(self.cell.output_g_per_h, percent, self.cell.hours_per_day)
            self._set_cell(self.cell)
            yield self.cell

    def _doses(self, read: dict[Measure, float]) -> Iterator[AdditionMade]:
        h = self.preferences
        free, ph = read[M.FREE_CHLORINE], read[M.PH]
        if h.tablets_a_week_g and free < 6.0:
            grams = self.tablets_share * h.tablets_a_week_g * h.gaps_days[self.visits % len(h.gaps_days)] / 7
            self.world.water.tablets_g.append((grams, grams))
            yield self._reported(TABLETS, grams)
        by_hand = not h.tablets_a_week_g and h.cell is None and not h.daily_mg_l
        if free < (self.goal - 0.4 if by_hand else 1.2):
            yield self._pour(h.chlorine, M.FREE_CHLORINE, (self.goal if by_hand else 3.0) - free)
        if ph > h.acid_above_ph:
            yield self._pour(ACID, M.TOTAL_ALKALINITY, -ACID_PER_PH * (ph - h.acid_to_ph))
        yield from self._seldom(read)

    def _seldom(self, read: dict[Measure, float]) -> Iterator[AdditionMade]:
        h = self.preferences
        rows = (
            (SODA, M.TOTAL_ALKALINITY, h.alkalinity_low, 20.0),
            (STABILIZER, M.CYANURIC_ACID, h.stabilizer_goal, 15.0),
            (SALT, M.SALT, h.salt_goal, 400.0),
        )
        for product, measure, low, most in rows:
            if low is not None and measure in read and read[measure] < 0.9 * low:
                yield self._pour(product, measure, min(most, low - read[measure]))

    def _pour(self, product: Product, measure: Measure, change: float) -> AdditionMade:
        grams = mass_for_change_g(product, measure, change, self.preferences.believed_volume_l)
        coarse = float(f"{grams:.2g}")
        poured = coarse * float(self.world.draw.normal(1, 0.04))
        pour(self.world, product, poured)
        return self._reported(product, coarse)

    def _reported(self, product: Product, grams: float) -> AdditionMade:
        return AdditionMade(
            chemical=product.chemical,
            strength_percent=product.strength_percent,
            label=product.label,
            mass_g=round(grams, 1),
            product_id=product.id,
        )

    def _set_cell(self, cell: CellSet) -> None:
        water = self.world.water
        water.cell_g_h, water.cell_hours = cell.output_g_per_h * cell.percent / 100, cell.hours_per_day


_STEPS = {
    M.FREE_CHLORINE: 0.2, M.TOTAL_CHLORINE: 0.2, M.PH: 0.1, M.TOTAL_ALKALINITY: 10, M.CALCIUM_HARDNESS: 10,
    M.CYANURIC_ACID: 5, M.SALT: 50, M.TEMPERATURE: 0.5,
}  # fmt: skip


def moment(at_s: float) -> datetime:
    """A UTC moment, to the millisecond."""
    return datetime.fromtimestamp(round(at_s, 3), UTC)
