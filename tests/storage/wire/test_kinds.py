"""The journal's open JSON: every kind of entry goes out and comes back as it was, through real JSON text."""

import json
from collections.abc import Iterator
from dataclasses import MISSING, fields
from datetime import UTC, date, datetime
from uuid import UUID

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic.fields import FieldInfo

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.journal import (
    KINDS,
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    CellKind,
    CellSet,
    Clarity,
    ClimateSet,
    Cover,
    DeadAlgaeStrategy,
    DeviceChanged,
    DeviceDay,
    DeviceLinked,
    EquipmentSet,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    Level,
    ListItemDone,
    MachineKind,
    MachineSet,
    NotedEvent,
    NotUnderstood,
    Outcome,
    OwnItem,
    OwnTask,
    PartReplaced,
    PhotoOf,
    PhotoTaken,
    PhStrategy,
    Place,
    PlantSet,
    PoolKind,
    PreferencesSet,
    PressureRead,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    PumpWindow,
    RescueEnded,
    RescueOutcome,
    RescueSet,
    RoundSet,
    SeasonListSaved,
    SettingsMade,
    Severity,
    StepDone,
    StopMoved,
    StrengthTested,
    SwimmersCounted,
    TechnicianAway,
    TestTaken,
    TreatmentStarted,
    TruckCounted,
    VisitBegun,
    VisitDone,
    VisitKind,
    VisualCheck,
    Voided,
    WaterChange,
    WaterChanged,
    Which,
    Winter,
    WorkOnce,
    kind_of,
)
from kumpan.core.pool.plan_drawing import Fixture, FixtureKind
from kumpan.core.pool.shapes import Part, ShapeKind, even_slope
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.ranges.profiles import profile
from kumpan.core.ranges.targets import aims
from kumpan.core.records.containers import Container, ContainerKind
from kumpan.core.testing.methods import Measured, Method
from kumpan.core.treatment.plan import plan
from kumpan.storage.wire.base import Wire
from kumpan.storage.wire.kinds import STORED, read_body, write_body
from tests.core.samples import PLASTER, POOL_L, SALT_POOL

LOW = Readings(
    free_chlorine=1, ph=7.9, total_alkalinity=60, calcium_hardness=150, cyanuric_acid=20, temperature_c=26
)
SHEET = plan(LOW, POOL_L, PLASTER, aims(profile("household"), PLASTER, LOW, {}), STANDARD_INVENTORY)
PARTS = (
    Part(
        shape=ShapeKind.KIDNEY,
        length_m=10.0,
        depth=even_slope(10.0, 1.0, 2.4),
        width_m=5.0,
        second_width_m=4.0,
    ),
)

BODIES: tuple[Body, ...] = (
    SettingsMade(
        name="Łódka 🐟",
        place="Alderbank",
        time_zone="America/Chicago",
        profile="household",
        public=True,
        swim_limit_mg_l=4.0,
        kit="strips",
        latitude_deg=29.0,
        longitude_deg=-95.5,
    ),
    SettingsMade(name="Plain", place="", time_zone="UTC", profile="service"),
    BasinMeasured(
        volume_l=80_000.0,
        parts=PARTS,
        fixtures=(Fixture(FixtureKind.SKIMMER, 0.8), Fixture(FixtureKind.DRAIN, 0.0)),
    ),
    BasinMeasured(volume_l=12_345.678),
    EquipmentSet(SALT_POOL, Readings(ph=7.8, total_alkalinity=110)),
    VisualCheck(Clarity.DRAIN_HIDDEN, Level.LOW, ("dead animal", "sharp smell"), "a note, with “quotes”"),
    AdditionMade(
        chemical="sodium_hypochlorite",
        strength_percent=10.0,
        label="Liquid chlorine 10 %",
        mass_g=1130.0,
        volume_ml=1000.0,
        density_g_per_ml=1.13,
        product_id="p",
        treatment_id=UUID(int=7),
        step_number=3,
    ),
    AdditionMade(chemical="sodium_chloride", strength_percent=99.5, label="Pool salt", mass_g=18_144.0),
    TreatmentStarted(
        steps=SHEET.steps, profile="household", before=LOW, predicted=SHEET.predicted, plan="shock"
    ),
    StepDone(UUID(int=9), 4, Outcome.SKIPPED, "too windy"),
    ProductBought("p", 2.5, 19.99),
    ProductPlaced("p", Place.POOL, pool_id=UUID(int=3), best_before=date(2027, 4, 1)),
    ProductPlaced("p", Place.TRUCK, technician_id=UUID(int=4)),
    ProductPlaced("p", Place.GONE),
    ProductCounted("p", 1234.5),
    VisitBegun(VisitKind.STORM),
    WaterChanged(kind=WaterChange.RAIN, volume_l=1500.0, note="a storm"),
    CellSet(18.9, 60.0, 10.0),
    SwimmersCounted(12.5),
    StrengthTested("p", 8.5),
    PreferencesSet(
        containers=(Container(kind=ContainerKind.SCOOP, name="tin", mass_g=250.0, product_id="p", parts=2),),
        currency="€",
        storage_c=21.5,
        water_price=1.6,
    ),
    SettingsMade(
        name="Own",
        place="",
        time_zone="UTC",
        profile="service",
        own_ranges=(OwnRange(Measure.PH, 7.2, 7.8, 7.4),),
        choices=(Chosen("salt", "shallow"),),
    ),
    RoundSet(2, (UUID(int=3), UUID(int=4))),
    RoundSet(3, (UUID(int=3),), UUID(int=9)),
    TechnicianAway(UUID(int=9), date(2026, 7, 1), date(2026, 7, 14), "holiday"),
    WorkOnce(
        pool_id=UUID(int=3), day=date(2026, 7, 2), technician_id=UUID(int=9), minutes=45.0, what="New pump"
    ),
    StopMoved(
        pool_id=UUID(int=3), from_day=date(2026, 7, 2), to_day=date(2026, 7, 3), technician_id=UUID(int=9)
    ),
    MachineSet(
        machine_id=UUID(int=5), kind=MachineKind.ROBOT, label="blue", since=date(2025, 5, 1), note="x"
    ),
    MachineSet(machine_id=UUID(int=5), kind=MachineKind.ROBOT, gone=True),
    PartReplaced("Brush", UUID(int=5), "worn"),
    PhotoTaken(sha256="0" * 64, shows=PhotoOf.LOOK, note="green", width=4, height=3),
    OwnTask(task="own_oil_the_hinge", title="Oil the hinge", days=90.0, months=(4, 9)),
    OwnTask(
        task="own_look_at_the_net", title="Look at the net", after=NotedEvent.STORM, note="the west side"
    ),
    TruckCounted("p", 4500.0),
    VisitDone("gate was open", needs_return=True, trade="pump bearing, electrician"),
    EventNoted(NotedEvent.STORM, "hail"),
    PressureRead(124.1),
    PlantSet(
        pump_flow_l_min=227.0,
        pump_kw=1.1,
        price_per_kwh=0.15,
        windows=(PumpWindow(300, 540), PumpWindow(1320, 120)),
        clean_pressure_kpa=68.9,
        filter_area_m2=2.2,
        media_since=datetime(2024, 4, 1, tzinfo=UTC),
        cell_kind=CellKind.PLAIN,
        cell_since=datetime(2025, 5, 1, 9, tzinfo=UTC),
        cell_rated_h=9000.0,
        solar=True,
    ),
    CareDone("backwash", (CareValue("pressure_after_kpa", 70.0), CareValue("wash_s", 120)), "clear at last"),
    CarePutOff("vacuum", date(2026, 6, 20), "away"),
    CarePutOff("vacuum", None, "windy"),
    CareInterval("skim", 3.0),
    CareInterval("skim", None, off=True),
    FeedOpened("a" * 43),
    DeviceLinked("controller", "http://127.0.0.1:9000/controller"),
    DeviceDay(
        device="controller",
        day=date(2026, 6, 1),
        readings=288,
        output_percent=55.0,
        salinity_mg_l=2900.0,
        water_c=27.5,
        pressure_kpa=80.0,
        rain_mm=12.0,
        air_low_c=19.0,
        air_high_c=31.0,
        uv_index=9.0,
    ),
    DeviceChanged("controller", "lamps", "none", "low salt"),
    InterviewHeld("check_cell", ("yes", "no", "yes", "yes"), "clean_cell"),
    RescueSet(
        severity=Severity.BLACK,
        by_ratio=False,
        dead_algae_strategy=DeadAlgaeStrategy.SETTLE,
        ph_strategy=PhStrategy.RAISED,
        drain_over_stabilizer=90.0,
        drain_over_calcium=550.0,
    ),
    RescueSet(severity=Severity.GREEN),
    RescueEnded(RescueOutcome.DRAINED, "liner came off"),
    SeasonListSaved(
        list_id=UUID(int=21),
        which=Which.CLOSING,
        day=date(2026, 10, 4),
        kind=PoolKind.ABOVE_GROUND,
        cover=Cover.MESH,
        winter=Winter.MILD,
        skimmer_plate=True,
        left_out=("store",),
        own=(OwnItem("own-1", -1, "Lamp out", "bulb in the shed"),),
    ),
    ListItemDone(UUID(int=21), "own-1", Outcome.SKIPPED, "no lamp"),
    ClimateSet((8.0, 9.0, 12.5, 16.0, 20.0, 24.0, 27.0, 27.5, 25.0, 20.0, 14.0, 9.5)),
    Voided("typed twice"),
    TestTaken(
        (Measured(measure=Measure.PH, value=7.5, low=7.4, high=7.6, method=Method.COMPARATOR, typed="7,5"),),
        "drops",
        "after rain",
    ),
)


def there_and_back(body: Body) -> Body:
    return read_body(kind_of(body), json.loads(json.dumps(write_body(body), ensure_ascii=False)))


@pytest.mark.parametrize("body", BODIES, ids=lambda body: type(body).__name__)
def test_nothing_is_lost_either_way(body: Body) -> None:
    assert there_and_back(body) == body


def test_every_kind_is_among_them() -> None:
    assert {type(body) for body in BODIES} == {kind.body for kind in KINDS}
    assert {kind.name for kind in KINDS} == set(STORED)
    assert len({kind.name for kind in KINDS}) == len(KINDS)


def test_a_started_sheet_is_not_empty() -> None:
    assert any(step.kind == "add" for step in SHEET.steps)


@given(
    st.sampled_from(list(Measure)),
    st.floats(0, 40_000),
    st.floats(0, 50),
    st.sampled_from(list(Method)),
    st.text(max_size=30),
)
def test_any_reading_comes_back(
    measure: Measure, value: float, uncertainty: float, method: Method, note: str
) -> None:
    body = TestTaken(
        (
            Measured(
                measure=measure,
                value=value,
                low=max(0.0, value - uncertainty),
                high=value + uncertainty,
                method=method,
                typed=note,
            ),
        ),
        "drops",
        note,
    )
    assert there_and_back(body) == body


@pytest.mark.parametrize("missing", ["latitude_deg", "longitude_deg", "kit"])
def test_an_older_entry_without_a_newer_field_is_still_read(missing: str) -> None:
    data = write_body(SettingsMade(name="Old", place="", time_zone="UTC", profile="household"))
    del data[missing]
    assert read_body("settings", data) == SettingsMade(
        name="Old", place="", time_zone="UTC", profile="household"
    )


def test_an_older_sheet_is_a_balance_sheet() -> None:
    data = write_body(TreatmentStarted(steps=(), profile="household", before=LOW, predicted=LOW))
    del data["plan"]
    found = read_body("sheet", data)
    assert isinstance(found, TreatmentStarted)
    assert found.plan == "balance"


@pytest.mark.parametrize(
    ("kind", "row", "why"),
    [
        ("diary", {"text": "a fine day"}, "this version does not know this kind of entry"),
        ("look", {"clarity": "sparkling", "level": "normal"}, "clarity: "),
        ("look", {"clarity": "clear", "level": "normal", "smell": "none"}, "smell: "),
        ("look", {"level": "normal"}, "clarity: "),
        ("look", {"v": 99, "clarity": "clear", "level": "normal"}, "version 99 is newer"),
    ],
)
def test_what_this_version_does_not_know_is_kept_whole_and_says_why(
    kind: str, row: dict[str, object], why: str
) -> None:
    body = read_body(kind, row)
    assert isinstance(body, NotUnderstood)
    assert kind_of(body) == kind
    assert why in body.why
    assert write_body(body) == row


def wire_models() -> Iterator[type[Wire]]:
    """Every model of a stored value, those inside others too."""
    waiting, seen = list(Wire.__subclasses__()), set[type[Wire]]()
    while waiting:
        model = waiting.pop()
        if model not in seen:
            seen.add(model)
            waiting += model.__subclasses__()
            yield model


def core_name(name: str, field: FieldInfo) -> str:
    return field.serialization_alias or name


@pytest.mark.parametrize("model", list(wire_models()), ids=lambda model: model.__name__)
def test_no_field_of_the_core_can_be_lost_in_silence(model: type[Wire]) -> None:
    """A field renamed or added in the core without a word in the stored form turns this red."""
    stored = {core_name(name, field) for name, field in model.model_fields.items()}
    core = {field.name for field in fields(model.core)}
    if superseded(model):
        with_usual = {
            f.name for f in fields(model.core) if f.default is not MISSING or f.default_factory is not MISSING
        }
        assert core - with_usual <= stored <= core
    else:
        assert stored == core


def superseded(model: type[Wire]) -> bool:
    """A newer version of the same value is there: it only has to be read."""
    name, _, version = model.__name__.rpartition("V")
    return any(other.__name__ == f"{name}V{int(version) + 1}" for other in wire_models())


def test_a_value_inside_a_core_class_that_has_no_model_would_be_seen() -> None:
    """The newest version of every kind reads into the body that the table of kinds names."""
    for kind in KINDS:
        assert STORED[kind.name].versions[-1].core is kind.body
