"""Someone who follows the rescue plan to the letter: each sheet down to its first test, then they ask again.

Source: simulated-world.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, tzinfo

from kumpan.core.algae.belief import DateBand
from kumpan.core.algae.board import ahead
from kumpan.core.algae.criteria import StageKey, finished, stage_now
from kumpan.core.algae.episode import RESCUE
from kumpan.core.algae.preparing import CLEAN_FILTER
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.stages import DAILY_BRUSH, GAUGE, PUMP_OFF, REFILL, VACUUM, stage_plan
from kumpan.core.forecast.expected import expected_now
from kumpan.core.journal import Outcome, RescueSet, StepDone, TreatmentStarted
from kumpan.core.maintenance.filter_pressure import LIMIT_KPA
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.records.step import ADD, DO, TEST
from kumpan.core.simulation.carer import moment
from kumpan.core.training.player import Player
from kumpan.core.treatment.plan import Plan

SOURCE = "simulated-world"

MOST_DAYS = 45
NEARLY_A_DAY_S = 0.9 * 86_400
FULL_TEST_DAYS = 5.0
SWIM_LIMIT_MG_L = 4.0


@dataclass(frozen=True)
class BandShown:
    """The band of the clear day as it was told at a time, UTC seconds."""

    at_s: float
    clear: DateBand


@dataclass(kw_only=True)
class Rescuer:
    """One rescue by the plan, with a player's hands."""

    player: Player
    setting: RescueSet
    traits: Traits
    inventory: Sequence[Product]
    zone: tzinfo
    most_days: float = MOST_DAYS
    shown: list[BandShown] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.full_test_day = 0.0
        self._check_and_test(full=True)
        self.player.tell(self.setting)
        self.products: Mapping[str, Product] = {product.id: product for product in self.inventory}

    def run(self) -> datetime | None:
        """Until the plan says that it is over; the moment, or None after too many days."""
        while self.player.days < self.most_days:
            request = self.request()
            if finished(request):
                return moment(self.player.world.now_s)
            self._note_band(request)
            self._follow(stage_now(request), stage_plan(request))
        return None

    def _note_band(self, request: RescueRequest) -> None:
        """What the board says of the clear day, once a day."""
        now_s = self.player.world.now_s
        if request.episode is None or (self.shown and now_s - self.shown[-1].at_s < NEARLY_A_DAY_S):
            return
        self.shown.append(BandShown(now_s, ahead(request, request.belief, request.rounds).clear))

    def request(self) -> RescueRequest:
        """The question as the app would put it now."""
        state, climate = self.player.state, self.player.world.climate
        readings = expected_now(state)
        return RescueRequest(
            state=state,
            setting=self.setting,
            readings=readings,
            volume_l=self.player.believed_volume_l,
            traits=self.traits,
            inventory=self.inventory,
            bands=bands(profile("household"), self.traits, readings.cyanuric_acid),
            swim_limit_mg_l=SWIM_LIMIT_MG_L,
            latitude_deg=climate.latitude_deg,
            longitude_deg=climate.longitude_deg,
            zone=self.zone,
            now=moment(self.player.world.now_s),
        )

    def _follow(self, stage: StageKey, plan: Plan) -> None:
        """The sheet down to its first test; a sheet that cannot be made lets an hour pass."""
        player, started_s = self.player, self.player.world.now_s
        before = expected_now(player.state)
        treatment = player.tell(
            TreatmentStarted(
                steps=plan.steps,
                profile="household",
                before=before,
                predicted=plan.predicted,
                plan=f"{RESCUE}/{stage}",
            )
        )
        if not plan.steps:
            player.wait(1)
        for number, step in enumerate(plan.steps):
            self._wait_until(started_s + 60 * step.offset_min)
            if step.kind == TEST:
                stale = player.days - self.full_test_day > FULL_TEST_DAYS
                self._check_and_test(full=stale or Measure.CYANURIC_ACID in step.measures)
                return
            if step.kind == ADD:
                player.add(
                    self.products[step.product_id or ""], step.rounded_g or 0.0, (treatment.id, number)
                )
            elif step.kind == DO:
                self._do(step.title)
                player.tell(StepDone(treatment.id, number, Outcome.DONE))

    def _wait_until(self, at_s: float) -> None:
        while self.player.world.now_s + 1 < at_s:
            self.player.wait(1)

    def _do(self, title: Message) -> None:
        player, green = self.player, self.player.world.green
        if title.template.lower().startswith("brush") or title.template == DAILY_BRUSH:
            player.brush()
        if title.template == GAUGE:
            if player.read_gauge() >= green.clean_kpa + LIMIT_KPA:
                player.clean_filter()
        elif title == CLEAN_FILTER[self.traits.filter][0]:
            player.clean_filter()
        elif title == PUMP_OFF:
            green.pump_on = False
        elif title == VACUUM:
            player.vacuum()
        elif title == REFILL:
            green.pump_on = True

    def _check_and_test(self, *, full: bool) -> None:
        self.player.visual_check()
        if full:
            self.full_test_day = self.player.days
        self.player.test(full=full)
