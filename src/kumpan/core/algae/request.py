"""What a rescue is asked with, and what follows from the journal before anything is planned.

Sources: rescue-plan, rescue-model.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta, tzinfo
from functools import cached_property

import numpy as np

from kumpan.core.algae.belief import Particles, Seen, Surroundings, prior, updated
from kumpan.core.algae.episode import (
    Episode,
    chlorine_rises,
    episode_of,
    rounds_done,
    worst_share_lost,
)
from kumpan.core.algae.overnight import Night, nights
from kumpan.core.algae.severity import SEVERITIES, SeverityRow
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.findings import Finding
from kumpan.core.forecast.conditions import USUAL
from kumpan.core.forecast.rates import COVER_LETS_THROUGH, sun_loss_per_hour
from kumpan.core.forecast.sun import SECONDS_AN_HOUR, sun_strength
from kumpan.core.journal import DeadAlgaeStrategy, PhStrategy, PoolState, RescueSet, last_reading
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Filter, Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions
from kumpan.core.testing.methods import Measured
from kumpan.core.treatment.dusk import Evening, next_evening, next_morning
from kumpan.core.treatment.plan import AS_SOLD
from kumpan.core.treatment.special.drain import Hoses
from kumpan.core.treatment.special.shock import (
    FIXED_MG_L,
    ShockRequest,
    ShockStrategy,
    by_choice,
    choice_refused,
    shock_product,
)

SOURCES_USED = ("rescue-plan", "rescue-model")

ACID_SHOCKS = ("sodium_dichlor", "trichlor", "potassium_monopersulfate")
VOLUME_UNCERTAINTY = 1.35  # a pool may be a fifth smaller than believed, a jug hold a little more
TEST_UNCERTAINTY_SHARE, TEST_UNCERTAINTY_MG_L = 0.08, 0.3  # and free chlorine a little higher than read
FIXED_RISES = 3
NIGHT_HOLDS_H = 40.0
WHILE_CLOSED_MG_L = 4.0
# Over the level that must hold for a week: at first, and what should still be there at the next test.
OVER_THE_WEEK_MG_L, STILL_OVER_MG_L = 3.0, 0.8


@dataclass(frozen=True, kw_only=True)
class RescueRequest:
    """One pool in trouble. `readings` as they should be now; `setting` as set, or as it would be begun.

    `price_per_g` by product id; `hoses` the rates and the price of water; `fill` the fill water's readings.
    """

    state: PoolState
    setting: RescueSet
    readings: Readings
    volume_l: float
    traits: Traits
    inventory: Sequence[Product]
    bands: Mapping[Measure, Band]
    swim_limit_mg_l: float
    latitude_deg: float
    longitude_deg: float
    zone: tzinfo
    now: datetime
    display: DisplayOptions = field(default=AS_SOLD)
    poured: tuple[tuple[int, str], ...] = ()
    price_per_g: Mapping[str, float] = field(default_factory=dict)
    hoses: Hoses = field(default=Hoses(7000.0, 1500.0, None))
    fill: Readings = field(default_factory=Readings)

    @property
    def row(self) -> SeverityRow:
        """The severity's row in the handbook's table."""
        return SEVERITIES[self.setting.severity]

    @cached_property
    def episode(self) -> Episode | None:
        """The rescue that goes on; None before it is begun."""
        found = episode_of(self.state)
        return found if found is not None and found.open else None

    @cached_property
    def evening(self) -> Evening:
        """The next evening at this pool."""
        return next_evening(self.now, self.latitude_deg, self.longitude_deg, self.zone)

    @cached_property
    def morning(self) -> datetime:
        """The next morning at this pool."""
        return next_morning(self.now, self.zone, timedelta(hours=1))

    @cached_property
    def nights(self) -> tuple[Night, ...]:
        """The overnight tests of this rescue."""
        if self.episode is None:
            return ()
        return nights(
            self.episode.tests,
            self.state.additions,
            latitude_deg=self.latitude_deg,
            longitude_deg=self.longitude_deg,
            sun_loss_per_h=self._sun_loss_overhead,
        )

    @property
    def last_night(self) -> Night | None:
        """The last one, while it still says something."""
        last = self.nights[-1] if self.nights else None
        if last is None or (self.now - last.morning_at).total_seconds() > NIGHT_HOLDS_H * 3600:
            return None
        return last

    @property
    def rounds(self) -> int:
        """How many rounds of shock are behind; 0 before a rescue begins."""
        return rounds_done(self.episode, self.volume_l) if self.episode is not None else 0

    @property
    def cap_mg_l(self) -> float:
        """The highest free chlorine (mg/L) that a plan may aim at here."""
        return highest_planned_mg_l(self.traits)

    @property
    def wanted_mg_l(self) -> float:
        """The level that the way asks for, before the cap."""
        free = self.readings.free_chlorine or 0.0
        if self.setting.by_ratio:
            return max(FIXED_MG_L, self.row.ratio * (self.readings.cyanuric_acid or 0.0))
        again = self.row.rounds >= FIXED_RISES and self.rounds < FIXED_RISES
        return free + FIXED_MG_L if again and free < FIXED_MG_L else FIXED_MG_L

    @property
    def level_mg_l(self) -> float:
        """The level (mg/L) to hold: what stabilizer asks for, or the cap where that is less."""
        return min(self.wanted_mg_l, self.cap_mg_l)

    @property
    def usual_mg_l(self) -> float:
        """Free chlorine to keep once nothing lives: over the pool's own aim while it is closed, still under a
        clarifier's 5; or over what must hold for a week, by the worst day of late: one test under it begins
        the week anew.
        """
        band = self.bands.get(Measure.FREE_CHLORINE)
        own = (band.aim or band.high or 3.0) if band is not None else 3.0
        week = self.row.week_over_mg_l
        if week is None or self.episode is None:
            return max(own, WHILE_CLOSED_MG_L if week is None else week + OVER_THE_WEEK_MG_L)
        share = worst_share_lost(self.episode, self.volume_l, self.now)
        lasting = (week + STILL_OVER_MG_L) / (1 - share)
        return min(max(own, week + OVER_THE_WEEK_MG_L, lasting), self.cap_mg_l)

    def rise_to(self, level_mg_l: float) -> float:
        """How much may go in now, mg/L: toward a level, and never over the cap if the pool is smaller than
        believed.
        """
        free = self.readings.free_chlorine or 0.0
        highest = free * (1 + TEST_UNCERTAINTY_SHARE) + TEST_UNCERTAINTY_MG_L
        return max(0.0, min(level_mg_l - free, (self.cap_mg_l - highest) / VOLUME_UNCERTAINTY))

    def product_for(self, rise_mg_l: float) -> Product | None:
        """What the person chose; else liquid first, and what brings calcium or stabilizer only while those
        have room.
        """
        return shock_product(self._shock(), rise_mg_l)

    def of_the_choice(self, product: Product, rise_mg_l: float) -> tuple[Finding, ...]:
        """What the chosen product does that the plan's own choice would not."""
        grams = mass_for_change_g(product, Measure.FREE_CHLORINE, rise_mg_l, self.volume_l)
        return by_choice(self._shock(), product, grams)

    @property
    def choice_refused(self) -> Message | None:
        """Why the chosen product is not poured here; None where it may be, or nothing was chosen."""
        return choice_refused(self._shock())

    def _shock(self) -> ShockRequest:
        return ShockRequest(
            readings=self.readings,
            volume_l=self.volume_l,
            traits=self.traits,
            inventory=self.inventory,
            bands=dict(self.bands),
            swim_limit_mg_l=self.swim_limit_mg_l,
            strategy=ShockStrategy.RATIO,
            now=self.now,
            evening=self.evening,
            zone=self.zone,
            display=self.display,
            use=self.setting.use,
        )

    @property
    def dead_algae_strategy(self) -> DeadAlgaeStrategy:
        """As set; else by the filter: only a sand filter's valve has a setting to waste as a rule."""
        if self.setting.dead_algae_strategy is not None:
            return self.setting.dead_algae_strategy
        return DeadAlgaeStrategy.SETTLE if self.traits.filter is Filter.SAND else DeadAlgaeStrategy.STIR

    @property
    def ph_strategy(self) -> PhStrategy:
        """As set; else by what the chosen product does to pH."""
        if self.setting.ph_strategy is not None:
            return self.setting.ph_strategy
        product = self.product_for(max(1.0, self.rise_to(self.level_mg_l)))
        acid = product is not None and product.chemical in ACID_SHOCKS
        return PhStrategy.RAISED if acid else PhStrategy.LOWERED

    @cached_property
    def around(self) -> Surroundings:
        """What the rescue's belief needs to know of the pool."""
        temperature = self.readings.temperature_c
        return Surroundings(
            self.readings.cyanuric_acid or 0.0,
            USUAL[Measure.TEMPERATURE] if temperature is None else temperature,
            self._sun_loss(),
            self.traits.filter,
        )

    @property
    def _sun_loss_overhead(self) -> float:
        """First-order loss (1/h) under a sun overhead, by what stabilizer leaves; none indoors."""
        if self.traits.indoor:
            return 0.0
        stabilizer = round((self.readings.cyanuric_acid or 0.0) / 5) * 5.0
        ph = round(min(8.4, max(6.8, self.readings.ph or 7.5)), 1)
        return sun_loss_per_hour(8.0, stabilizer, ph) * (COVER_LETS_THROUGH if self.traits.covered else 1.0)

    def _sun_loss(self) -> tuple[float, ...]:
        if self.traits.indoor:
            return (0.0,) * 24
        day_s = self.now.timestamp() // 86_400 * 86_400
        strength = sun_strength(
            np.asarray(day_s + SECONDS_AN_HOUR * (np.arange(24) + 0.5), dtype=np.float64),
            self.latitude_deg,
            self.longitude_deg,
        )
        loss = self._sun_loss_overhead
        return tuple(float(loss * s) for s in strength)

    @cached_property
    def first_belief(self) -> Particles:
        """As it was when the rescue began, or now."""
        if self.episode is None:
            return prior(
                self.setting.severity, self.around, self.now.timestamp(), self.readings.free_chlorine or 0.0
            )
        free = last_reading(self.state, Measure.FREE_CHLORINE)
        start = 0.0 if free is None or free.at > self.episode.began_at else free.value.value
        return prior(self.setting.severity, self.around, self.episode.began_at.timestamp(), start)

    @cached_property
    def belief(self) -> Particles:
        """After all that was tested, seen and poured since, as of now."""
        if self.episode is None:
            return self.first_belief
        story = story_of(self.episode, self.volume_l)
        particles = updated(self.first_belief, self.around, story)
        return updated(particles, self.around, (Seen(at_s=self.now.timestamp()),))


def story_of(episode: Episode, volume_l: float) -> tuple[Seen, ...]:
    """The rescue as the belief reads it."""
    found = [Seen(at_s=at.timestamp(), poured_mg_l=rise) for at, rise in chlorine_rises(episode, volume_l)]
    for test in episode.tests:
        values: tuple[Measured, ...] = getattr(test.body, "values", ())
        read = {value.measure: value.value for value in values}
        free, total = read.get(Measure.FREE_CHLORINE), read.get(Measure.TOTAL_CHLORINE)
        combined = read.get(Measure.COMBINED_CHLORINE)
        if combined is None and free is not None and total is not None:
            combined = max(0.0, total - free)
        if free is not None:
            found.append(Seen(at_s=test.at.timestamp(), free_mg_l=free, combined_mg_l=combined))
    for visual_check in episode.visual_checks:
        found.append(Seen(at_s=visual_check.at.timestamp(), visual_check=visual_check.body))
    return tuple(sorted(found, key=lambda seen: seen.at_s))
