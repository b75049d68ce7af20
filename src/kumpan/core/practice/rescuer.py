"""Someone who follows the rescue plan to the letter on a simulated green pool, and tells the journal.

They do each sheet down to its first test, test and look then, and ask again. Source: simulated-world.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, tzinfo
from uuid import UUID, uuid5

from kumpan.core.care.filter_pressure import LIMIT_KPA
from kumpan.core.demand.conditions import product_of
from kumpan.core.dosing.additions import Product
from kumpan.core.dosing.mass_balance import changes
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    CareValue,
    Clarity,
    Entry,
    Level,
    LookTaken,
    Outcome,
    PlantSet,
    PoolState,
    PressureRead,
    RescueSet,
    SheetStarted,
    StepTicked,
    fold,
)
from kumpan.core.planning.expected import expected_now
from kumpan.core.planning.plan import Plan
from kumpan.core.planning.schools import bands, school
from kumpan.core.pool.equipment import Traits
from kumpan.core.rescue.asked import RescueAsked
from kumpan.core.rescue.criteria import StageKey, finished, stage_now
from kumpan.core.rescue.episode import RESCUE
from kumpan.core.rescue.severity import SPOTS
from kumpan.core.rescue.sheets import CLEAN_FILTER, GAUGE, PUMP_OFF, REFILL, VACUUM, rescue_sheet
from kumpan.core.run_sheet import ADD, TEST, Step
from kumpan.core.simulator.carer import Carer, Habits, moment
from kumpan.core.simulator.green_world import EDGES, SPOTS_SEEN, STILL_GREEN, GreenWorld
from kumpan.core.water import Measure

SOURCE = "simulated-world"

SPACE = UUID("5b0f7c55-3d5a-4f6a-8f5c-8a2f7b1f9b31")
MOST_DAYS = 45
GONE_MG_L = 0.1
CLEANING = "backwash"


@dataclass
class Rescuer:
    """One rescue by the plan. `highest_mg_l`, `drained` and the rest are the truth, for who scores it."""

    world: GreenWorld
    setting: RescueSet
    traits: Traits
    shelf: Sequence[Product]
    believed_volume_l: float
    zone: tzinfo
    entries: list[Entry] = field(default_factory=list)
    highest_mg_l: float = 0.0
    drained_unseen: int = 0
    poured_mg_l: float = 0.0
    pours: int = 0
    tests: int = 0
    began_s: float = field(init=False)
    full_test_s: float = 0.0
    _was_gone: bool = True

    def __post_init__(self) -> None:
        self.began_s = self.world.now_s
        self.carer = Carer(self.world, Habits(self.believed_volume_l))
        self._tell(BasinMeasured(self.believed_volume_l))
        self._tell(PlantSet(clean_pressure_kpa=self.world.green.clean_kpa))
        self._look_and_test(full=True)
        self._tell(self.setting)

    def run(self) -> datetime | None:
        """Until the plan says that it is over; the moment, or None after too many days."""
        while self.world.now_s < self.began_s + MOST_DAYS * 86_400:
            asked = self.asked()
            if finished(asked):
                return moment(self.world.now_s)
            self._follow(stage_now(asked), rescue_sheet(asked))
        return None

    @property
    def state(self) -> PoolState:
        return fold(self.entries)

    def asked(self) -> RescueAsked:
        """The question as the app would put it now."""
        state = self.state
        readings = expected_now(state)
        return RescueAsked(
            state,
            self.setting,
            readings,
            self.believed_volume_l,
            self.traits,
            self.shelf,
            bands(school("household"), self.traits, readings.cyanuric_acid),
            4.0,
            self.world.climate.latitude_deg,
            self.world.climate.longitude_deg,
            self.zone,
            moment(self.world.now_s),
        )

    def _follow(self, stage: StageKey, plan: Plan) -> None:
        """The sheet down to its first test; a sheet that cannot be made lets an hour pass."""
        started_s = self.world.now_s
        sheet = self._tell(
            SheetStarted(
                plan.steps, "household", expected_now(self.state), plan.predicted, f"{RESCUE}/{stage}"
            )
        )
        if not plan.steps:
            self._pass_until(started_s + 3600)
        for number, step in enumerate(plan.steps):
            self._pass_until(started_s + 60 * step.offset_min)
            if step.kind == TEST:
                self._look_and_test(full=Measure.CYANURIC_ACID in step.measures or self._stale())
                return
            if step.kind == ADD:
                self._pour(step, sheet.id, number)
            elif step.kind == "do":
                self._do(step.title)
                self._tell(StepTicked(sheet.id, number, Outcome.DONE))

    def _stale(self) -> bool:
        return self.world.now_s - self.full_test_s > 5 * 86_400

    def _pass_until(self, at_s: float) -> None:
        while self.world.now_s + 1 < at_s:
            self.world.step()
            self._watch()

    def _watch(self) -> None:
        """The truth hour by hour: a spell near zero that begins between two tests was not seen coming."""
        free = self.world.mean_free
        self.highest_mg_l = max(self.highest_mg_l, free)
        gone = free < GONE_MG_L
        if gone and not self._was_gone and self.pours:
            self.drained_unseen += 1
        self._was_gone = gone

    def _do(self, title: str) -> None:
        if title.lower().startswith("brush"):
            self.world.brush()
        if title.startswith(GAUGE):
            self._tell(PressureRead(self.world.gauge_kpa))
            if self.world.gauge_kpa >= self.world.green.clean_kpa + LIMIT_KPA:
                self._clean()
        elif title == CLEAN_FILTER[self.traits.filter][0]:
            self._clean()
        elif title == PUMP_OFF:
            self.world.green.pump_on = False
        elif title == VACUUM:
            self.world.vacuum()
        elif title == REFILL:
            self.world.green.pump_on = True

    def _clean(self) -> None:
        before = self.world.gauge_kpa
        self.world.clean_filter()
        values = (
            CareValue("pressure_before_kpa", before),
            CareValue("pressure_after_kpa", self.world.gauge_kpa),
        )
        self._tell(CareDone(CLEANING, values))

    def _pour(self, step: Step, sheet_id: UUID, number: int) -> None:
        body = AdditionMade(
            step.chemical or "", step.strength_percent or 0.0, step.title, step.rounded_g or 0.0, step.rounded_ml,
            step.density_g_per_ml, sheet_id=sheet_id, step_number=number,
        )  # fmt: skip
        poured = body.mass_g * float(self.world.draw.normal(1, 0.03))
        moved = changes(product_of(body), poured, self.world.nature.true_volume_l)
        chlorine = moved.get(Measure.FREE_CHLORINE, 0.0)
        alkalinity = moved.get(Measure.TOTAL_ALKALINITY, 0.0)
        self.world.add(
            chlorine=chlorine, alkalinity=0.0 if chlorine else alkalinity,
            stabiliser=moved.get(Measure.CYANURIC_ACID, 0.0), calcium=moved.get(Measure.CALCIUM_HARDNESS, 0.0),
            salt=moved.get(Measure.SALT, 0.0),
        )  # fmt: skip
        self.pours += 1
        self.poured_mg_l += chlorine
        self._tell(body)
        self._watch()

    def _look_and_test(self, *, full: bool) -> None:
        self._tell(self._look())
        if full:
            self.full_test_s = self.world.now_s
        self._tell(self.carer.test(full=full))
        self.tests += 1

    def _look(self) -> LookTaken:
        seen = self.world.shown * float(self.world.draw.lognormal(0, 0.12))
        bloom = self.world.water.bloom
        names = (Clarity.CLEAR, Clarity.HAZY, Clarity.CLOUDY, Clarity.DRAIN_HIDDEN, Clarity.DRAIN_HIDDEN)
        clarity = names[sum(seen >= edge for edge in EDGES)]
        if bloom > STILL_GREEN and seen > EDGES[0] and not self.world.green.skin:
            clarity = Clarity.GREEN
        spots = bloom > SPOTS_SEEN and (self.world.green.skin > 0 or clarity is Clarity.CLEAR)
        return LookTaken(clarity, Level.NORMAL, (SPOTS,) if spots else ())

    def _tell(self, body: Body) -> Entry:
        at = moment(self.world.now_s + 0.001 * len(self.entries) % 1)
        entry = Entry(
            uuid5(SPACE, f"{self.world.seed}/{len(self.entries)}"),
            SPACE,
            at,
            moment(self.world.now_s + len(self.entries) * 1e-3),
            None,
            body,
        )
        self.entries.append(entry)
        return entry
