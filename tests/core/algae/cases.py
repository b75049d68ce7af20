"""A rescue under way, told to a journal by hand: what the tests of the planner begin with."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.algae.episode import PREPARE
from kumpan.core.algae.request import RescueRequest
from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.forecast.expected import expected_now
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    CareValue,
    Clarity,
    Entry,
    Level,
    Outcome,
    PlantSet,
    PressureRead,
    RescueSet,
    Severity,
    StepDone,
    TestTaken,
    TreatmentStarted,
    VisualCheck,
    fold,
)
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.testing.methods import Method, measured

M = Measure
ZONE = ZoneInfo("America/Chicago")
SPACE = UUID(int=77)
VOLUME_L = 60_000.0
DAWN = datetime(2026, 6, 2, 12, 0, tzinfo=UTC)  # seven in the morning at the pool
LIQUID = Product("liquid", "sodium_hypochlorite", 10.0, name="Liquid chlorine 10 %")
HYPO = Product("hypo", "calcium_hypochlorite", 65.0, name="Calcium hypochlorite 65 %")
DICHLOR = Product("dichlor", "sodium_dichlor", 56.0, name="Dichlor granules")
TABLETS = Product("tablets", "trichlor", 90.0, name="Trichlor tablets")
ACID = Product("acid", "hydrochloric_acid", 31.45)
ASH = Product("ash", "sodium_carbonate", 100.0)
PLASTER = Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
VINYL = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.CARTRIDGE)
USUAL = {M.FREE_CHLORINE: 0.2, M.TOTAL_CHLORINE: 0.6, M.PH: 7.4, M.TOTAL_ALKALINITY: 100.0, M.CALCIUM_HARDNESS: 250.0,
         M.CYANURIC_ACID: 40.0, M.TEMPERATURE: 26.0}  # fmt: skip


@dataclass
class Case:
    """A journal that is told step by step; `asked` is the question at its time."""

    traits: Traits = PLASTER
    setting: RescueSet = field(default_factory=lambda: RescueSet(severity=Severity.GREEN))
    inventory: Sequence[Product] = (LIQUID, ACID, ASH)
    now: datetime = DAWN
    entries: list[Entry] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.tell(BasinMeasured(volume_l=VOLUME_L))

    def tell(self, body: Body) -> "Case":
        at = self.now + timedelta(milliseconds=len(self.entries))
        self.entries.append(
            Entry(
                id=uuid5(SPACE, str(len(self.entries))),
                pool_id=SPACE,
                at=at,
                recorded_at=at,
                person_id=None,
                body=body,
            )
        )
        return self

    def later(self, **parts: float) -> "Case":
        self.now += timedelta(**parts)
        return self

    def test(self, values: dict[Measure, float] | None = None, **by_name: float) -> "Case":
        read = {**(values or {}), **{Measure(name): value for name, value in by_name.items()}}
        return self.tell(TestTaken(tuple(measured(m, v, Method.DROPS) for m, v in read.items()), "drops"))

    def visual_check(self, clarity: Clarity, *odd: str) -> "Case":
        return self.tell(VisualCheck(clarity, Level.NORMAL, odd))

    def begin(self, **values: float) -> "Case":
        """Tested in full, looked at, set."""
        self.test({**USUAL, **{Measure(name): value for name, value in values.items()}}).visual_check(
            Clarity.GREEN
        )
        return self.tell(self.setting)

    def prepared(self) -> "Case":
        self.tell(
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan=PREPARE
            )
        )
        return self.tell(StepDone(self.entries[-1].id, 0, Outcome.DONE))

    def pour(self, rise_mg_l: float, product: Product = LIQUID) -> "Case":
        grams = mass_for_change_g(product, M.FREE_CHLORINE, rise_mg_l, VOLUME_L)
        return self.tell(
            AdditionMade(
                chemical=product.chemical,
                strength_percent=product.strength_percent,
                label=product.label,
                mass_g=grams,
                product_id=product.id,
            )
        )

    def gauge(self, kpa: float, clean_kpa: float = 70.0) -> "Case":
        return self.tell(PlantSet(clean_pressure_kpa=clean_kpa)).tell(PressureRead(kpa))

    def cleaned(self, kpa: float) -> "Case":
        return self.tell(CareDone("backwash", (CareValue("pressure_after_kpa", kpa),)))

    def request(self, **changes: object) -> RescueRequest:
        state = fold(self.entries)
        readings = expected_now(state)
        own = bands(profile("household"), self.traits, readings.cyanuric_acid)
        found = RescueRequest(
            state=state,
            setting=self.setting,
            readings=readings,
            volume_l=VOLUME_L,
            traits=self.traits,
            inventory=self.inventory,
            bands=own,
            swim_limit_mg_l=4.0,
            latitude_deg=32.0,
            longitude_deg=-95.0,
            zone=ZONE,
            now=self.now + timedelta(milliseconds=len(self.entries)),
        )
        return replace(found, **changes)  # type: ignore[arg-type]


def nearly_over(**changes: object) -> Case:
    """Evening 12.0 at nine, the next morning at seven: what was found then is the caller's."""
    case = Case(**changes).begin().prepared().pour(16.0).later(hours=14)  # type: ignore[arg-type]
    return case.test(free_chlorine=12.0, total_chlorine=12.4).later(hours=10)
