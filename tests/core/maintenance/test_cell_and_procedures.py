"""Procedures, the cell's, the filter's and the pump's bench, the fault tree, and what the log teaches."""

import re
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.feeding import cell_percent
from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.journal import CareDone, CareValue, CellSet, PlantSet, PressureRead, PumpWindow
from kumpan.core.maintenance import procedures
from kumpan.core.maintenance.cell import CellBalance, cell_balance, made_mg_l_day
from kumpan.core.maintenance.cell_acid import RATIOS, acid_bath, target_percent
from kumpan.core.maintenance.cell_life import cell_life
from kumpan.core.maintenance.circulation import circulation, hours_a_day
from kumpan.core.maintenance.fault_tree import ASKS, ENDS, TREES, interview
from kumpan.core.maintenance.filter_pressure import (
    LIMIT_KPA,
    PressureTrend,
    pressure_trend,
    reading_in_question,
)
from kumpan.core.maintenance.index_history import scaling_text
from kumpan.core.maintenance.learned import offers
from kumpan.core.maintenance.procedures import PROCEDURES, Asks, procedures_for, steps_for
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import CATALOGUE, density_g_per_ml
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, KPA_PER_PSI, L_PER_US_GAL
from kumpan.core.ranges.profiles import Band
from tests.core.journals import reads, state, when
from tests.core.samples import PLASTER, SALT_POOL, VINYL_TABLETS
from tests.words import told

POOL_L = 20_000 * L_PER_US_GAL
LB_A_DAY = CellSet(G_PER_LB / 24, 100.0, 24.0)


def test_every_hazardous_step_of_every_procedure_has_its_cautions() -> None:
    """The hazard table's test: valve, electricity, pressure, acid and cell are all named."""
    seen = {step.hazard for row in PROCEDURES.values() for step in row.steps}
    assert {
        Hazard.VALVE,
        Hazard.ELECTRICITY,
        Hazard.PRESSURE,
        Hazard.CELL,
        Hazard.CELL_ACID,
        Hazard.SILICA,
        Hazard.SUCTION,
    } <= seen
    for hazard in seen - {Hazard.NONE}:
        assert HAZARDS[hazard].cautions
    for row in PROCEDURES.values():
        for step in row.steps:
            if "andle to" in told(step.text):
                assert step.hazard is Hazard.VALVE, step.text
                assert "ump off" in told(step.text)


def test_the_cell_is_rinsed_before_any_acid() -> None:
    """Handbook 06: acid on hypochlorite makes chlorine gas."""
    texts = [told(step.text).lower() for step in PROCEDURES["cell"].steps]
    rinse = next(n for n, text in enumerate(texts) if text.startswith("rinse with fresh water"))
    acid = next(n for n, text in enumerate(texts) if text.startswith("only now acid"))
    power = next(n for n, text in enumerate(texts) if "then power" in text)
    assert rinse < acid < power
    assert "never metal" in " ".join(map(told, PROCEDURES["cell"].materials))


def test_a_backwash_has_the_trades_lengths() -> None:
    """Handbook 08, common practice: 90 s to 2 min and 20 to 60 s; small pools 1 min and 1 min."""
    large = [step.timer_s for step in steps_for(PROCEDURES["backwash"], PLASTER, small=False) if step.timer_s]
    small = [step.timer_s for step in steps_for(PROCEDURES["backwash"], PLASTER, small=True) if step.timer_s]
    assert large == [(90, 120), (20, 60)]
    assert small == [(60, 60), (60, 60)]


def test_procedures_fit_the_pool_and_move_known_tasks() -> None:
    assert "cell" not in {row.key for row in procedures_for(PLASTER)}
    assert "cell" in {row.key for row in procedures_for(SALT_POOL)}
    assert "backwash" not in {row.key for row in procedures_for(VINYL_TABLETS)}
    for row in PROCEDURES.values():
        assert set(row.tasks) <= set(TASKS)
    for task in TASKS.values():
        assert task.procedure is None or task.key in PROCEDURES[task.procedure].tasks
    assert {ask for row in PROCEDURES.values() for step in row.steps for ask in step.asks} <= set(Asks)


@pytest.mark.parametrize(("ratio", "percent"), [(4, 7.1), (5, 5.9)])
def test_the_acid_baths_of_the_handbook(ratio: int, percent: float) -> None:
    """Handbook 06: 4:1 or 5:1 of 31.45 % acid are 7.1 or 5.9 % by weight."""
    assert target_percent(ratio) == pytest.approx(percent, abs=0.05)
    bath = acid_bath(1000.0, ratio=ratio)
    assert bath.water_ml / bath.acid_ml == pytest.approx(ratio, rel=1e-9)


@given(st.floats(14.5, 38), st.floats(200, 5000), st.sampled_from(RATIOS))
def test_any_acid_comes_to_the_same_strength(acid: float, container_ml: float, ratio: int) -> None:
    """By weight: acid in it over all of it; and it fills the container."""
    bath = acid_bath(container_ml, acid, ratio)
    density = density_g_per_ml(CATALOGUE["hydrochloric_acid"], acid)
    pure = bath.acid_ml * density * acid / 100
    whole = bath.acid_ml * density + bath.water_ml * 0.998
    assert 100 * pure / whole == pytest.approx(target_percent(ratio), rel=1e-6)
    assert bath.acid_ml + bath.water_ml == pytest.approx(container_ml)


@pytest.mark.parametrize(("container", "acid", "ratio"), [(0, 31.45, 5), (1000, 5, 5), (1000, 31.45, 7)])
def test_a_bath_that_cannot_be_is_refused(container: float, acid: float, ratio: int) -> None:
    with pytest.raises(InvalidInput):
        acid_bath(container, acid, ratio)


def balance(loss: float | None, cell: CellSet = LB_A_DAY, **more: Any) -> CellBalance:
    facts: dict[str, Any] = {"stabilizer_mg_l": 70, "water_c": 27, "overnight_mg_l": 0.3, **more}
    return cell_balance(cell, POOL_L, loss, stabilizer_band=Band(60, 80, 70), **facts)


def test_the_bench_goes_by_the_output_that_the_forecast_has_learned() -> None:
    """Never "makes 0.8, uses 1.1" beside a forecast that rises."""
    rated = balance(loss=1.1)
    learned = balance(loss=1.1, strength=1.5)
    assert learned.makes_mg_l_day == pytest.approx(1.5 * rated.makes_mg_l_day)
    assert learned.boost_mg_l == pytest.approx(1.5 * rated.boost_mg_l)
    assert [told(one.text) for one in learned.findings if one.code == "cell_strength"] == [
        "By your tests it makes 150 % of its rated output."
    ]
    assert not [one for one in balance(loss=1.1, strength=1.05).findings if one.code == "cell_strength"]


def test_the_cells_figures_of_the_handbook() -> None:
    """Handbook 06, derived: 1 lb/day in 20,000 gal is 6.0 ppm/day; 3 ppm/day in 12 h takes 100 %."""
    assert made_mg_l_day(LB_A_DAY, POOL_L) == pytest.approx(6.0, abs=0.02)
    assert cell_percent(3.0, POOL_L, LB_A_DAY.output_g_per_h, 12) == pytest.approx(100, abs=0.2)
    found = balance(2.9)
    twelve = next(knobs for knobs in found.settings if knobs.hours == 12)
    assert twelve.percent == pytest.approx(2.9 / 3 * 100, abs=0.5)
    assert found.boost_mg_l == pytest.approx(6.0, abs=0.02)
    assert not found.undersized


def test_a_boost_is_called_no_shock_where_it_adds_less_than_one() -> None:
    """Handbook 06: 100 % for 24 h often adds 2 to 6 ppm, not a shock to 10 in a large pool."""
    assert (
        told(balance(2.9).boost_text) == "A boost, 100 % for 24 h, adds 6.0 ppm here: not a shock by itself."
    )
    strong = CellSet(2 * LB_A_DAY.output_g_per_h, 50.0, 12.0)
    assert told(balance(2.9, strong).boost_text) == "A boost, 100 % for 24 h, adds 12.0 ppm here."


@pytest.mark.parametrize(("mean", "words"), [
    (0.31, "Scaling index over the last weeks +0.31: it scales; acid takes it off, balance keeps it off."),
    (0.3, "Scaling index over the last weeks +0.30: no reason to scale."),
    (-0.2, "Scaling index over the last weeks −0.20: no reason to scale."),
])  # fmt: skip
def test_what_the_index_of_the_last_weeks_means_for_a_cell(mean: float, words: str) -> None:
    """The board's own range: -0.3 to +0.3 neither scales nor eats."""
    assert told(scaling_text(mean)) == words


@given(st.floats(0.1, 5.9), st.floats(1, 24))
def test_every_setting_offered_makes_good_the_loss(loss: float, hours: float) -> None:
    cell = CellSet(G_PER_LB / 24, 50.0, hours)
    for knobs in balance(loss, cell).settings:
        assert made_mg_l_day(cell, POOL_L, knobs.percent, knobs.hours) == pytest.approx(loss)
        assert knobs.percent <= 100


def test_a_cell_that_cannot_hold_says_what_the_log_supports() -> None:
    def reported(**more: Any) -> str:
        found = balance(8.0, **more)
        assert found.undersized
        return str(found.findings[0].text)

    assert "Shock before a bigger cell" in reported(overnight_mg_l=1.4)
    assert "Stabilizer first" in reported(stabilizer_mg_l=20)
    assert "too small for this pool" in reported()
    assert balance(2.0, water_c=15).findings[0].code == "cold_cell"
    assert balance(None).findings[0].code == "no_forecast"


def test_the_season_moves_the_setting() -> None:
    """Handbook 06, common practice: raise with heat and use, lower in autumn."""
    assert "raise" in told(balance(2.0, warmed_c=4.0).findings[-1].text)
    assert "lower the setting" in told(balance(2.0, warmed_c=-3.0).findings[-1].text)
    assert "season" not in {one.code for one in balance(2.0, warmed_c=0.5).findings}


def test_hours_at_output_add_up_over_settings() -> None:
    pool = state((0, CellSet(18.0, 50.0, 10.0)), (100, CellSet(18.0, 100.0, 10.0)))
    life = cell_life(pool, when(200))
    assert life is not None
    assert life.run_h == pytest.approx(100 * 5 + 100 * 10)
    assert life.ends_at == when(200 + life.left_h / 10)
    assert cell_life(state(), when(1)) is None


def gauge(*psi: float, clean: float = 10.0) -> PressureTrend:
    rows = [(float(day), PressureRead(value * KPA_PER_PSI)) for day, value in enumerate(psi)]
    cleaned = CareDone("backwash", (CareValue("pressure_after_kpa", clean * KPA_PER_PSI),))
    found = pressure_trend(state((-1 / 1440, cleaned), *rows), when(len(psi)))
    assert found is not None
    return found


def test_the_day_at_the_limit_follows_from_the_rise() -> None:
    """A psi a day from 10: 18 is reached on the eighth day."""
    trend = gauge(10, 11, 12, 13)
    assert trend.rise_kpa_a_day == pytest.approx(KPA_PER_PSI)
    assert trend.limit_at is not None
    assert abs((trend.limit_at - when(8)).total_seconds()) < 3600
    assert gauge(10, 10, 10).limit_at is None
    assert gauge(10).rise_kpa_a_day is None
    assert pytest.approx(8 * KPA_PER_PSI) == LIMIT_KPA


def test_only_readings_since_the_last_cleaning_count() -> None:
    washed = CareDone("backwash", (CareValue("pressure_after_kpa", 70.0),))
    pool = state((0, PressureRead(130.0)), (1, washed), (2, PressureRead(75.0)))
    trend = pressure_trend(pool, when(3))
    assert trend is not None
    assert trend.clean_kpa == 70.0
    assert [point.pressure_kpa for point in trend.points] == [70.0, 75.0]


def test_a_gauge_that_lies_is_told() -> None:
    """Handbook 08: zero when off, its known start pressure when on."""
    assert "replace it" in reading_in_question(15.0, 80.0, 70.0).template
    assert "blocked suction" in reading_in_question(0.0, 10.0, 70.0).template
    assert not reading_in_question(0.0, 75.0, 70.0)


def test_turnovers_hours_and_cost() -> None:
    """Handbook 08: one turnover is volume by flow; 20,000 gal at 40 gal a minute take 8.3 h."""
    plant = PlantSet(
        pump_flow_l_min=40 * L_PER_US_GAL, pump_kw=1.1, price_per_kwh=0.15, windows=(PumpWindow(480, 720),)
    )
    found = circulation(plant, PLASTER, POOL_L, water_c=26, air_c=20, treating=False, cell_hours=None)
    assert found.turnover_h == pytest.approx(8.33, abs=0.01)
    assert found.turnovers == pytest.approx(0.48, abs=0.01)
    assert found.cost_day == pytest.approx(4 * 1.1 * 0.15)
    assert {one.code for one in found.findings} == {"under_one_turnover", "too_short"}
    assert found.wanted_hours == pytest.approx(8.33, abs=0.01)


def test_windows_over_midnight_and_overlapping_ones() -> None:
    assert hours_a_day((PumpWindow(22 * 60, 2 * 60),)) == 4
    assert hours_a_day((PumpWindow(0, 120), PumpWindow(60, 180))) == 3
    assert hours_a_day((PumpWindow(0, 1440),)) == 24


@pytest.mark.parametrize(
    ("treating", "air_c", "solar", "wanted"),
    [(True, 20, False, 24), (False, 1, False, 24), (False, 20, True, 12), (False, 20, False, 8)],
)
def test_hours_of_the_handbook(treating: bool, air_c: float, solar: bool, wanted: float) -> None:
    """Handbook 08, common practice: 8 h, 10 to 12 with solar, round the clock in treatment and freeze."""
    found = circulation(
        PlantSet(solar=solar), PLASTER, POOL_L, water_c=26, air_c=air_c, treating=treating, cell_hours=None
    )
    assert found.wanted_hours == wanted
    assert hours_a_day(found.suggested) == pytest.approx(wanted, abs=0.05)


def test_the_pump_splits_in_two_out_of_the_sun_unless_a_cell_must_chlorinate() -> None:
    plain = circulation(PlantSet(), PLASTER, POOL_L, water_c=26, air_c=20, treating=False, cell_hours=None)
    assert len(plain.suggested) == 2
    salted = circulation(PlantSet(), SALT_POOL, POOL_L, water_c=26, air_c=20, treating=False, cell_hours=11.0)
    assert len(salted.suggested) == 1
    assert hours_a_day(salted.suggested) == pytest.approx(11, abs=0.05)


@given(st.floats(8, 23), st.sampled_from([PLASTER, SALT_POOL]))
def test_suggested_windows_lie_in_the_day_and_run_as_long_as_wanted(hours: float, traits: Traits) -> None:
    found = circulation(PlantSet(), traits, POOL_L, water_c=26, air_c=20, treating=False, cell_hours=hours)
    assert all(0 <= one.start_min < 1440 and 0 <= one.end_min <= 1440 for one in found.suggested)
    request = 24 if hours >= 22 else hours
    assert hours_a_day(found.suggested) == pytest.approx(request, abs=0.07)


def paths(tree: str, so_far: tuple[str, ...] = ()) -> list[tuple[str, ...]]:
    at = interview(tree, so_far)
    if at.end is not None:
        return [so_far]
    assert at.ask is not None
    assert len(so_far) < 20
    return [path for reply in at.ask.replies for path in paths(tree, (*so_far, reply.key))]


@pytest.mark.parametrize("tree", [row.key for row in TREES])
def test_every_path_of_an_interview_ends_with_an_action(tree: str) -> None:
    found = paths(tree)
    assert found
    for path in found:
        end = interview(tree, path).end
        assert end is not None
        assert end.action


def test_every_question_and_end_is_reached_and_acid_is_warned_of() -> None:
    reached: set[str] = set()
    for tree in TREES:
        for path in paths(tree.key):
            for n in range(len(path) + 1):
                at = interview(tree.key, path[:n])
                reached.add(at.ask.key if at.ask is not None else at.end.key if at.end is not None else "")
    assert reached == set(ASKS) | set(ENDS)
    cleaning = next(
        path for path in paths("check_cell") if interview("check_cell", path).end == ENDS["clean_cell"]
    )
    assert any("chlorine gas" in told(caution) for caution in interview("check_cell", cleaning).cautions)


def test_the_order_of_the_handbooks_interview() -> None:
    """Handbook 06: pump and timer, bleached test, salt, temperature, setting, stabilizer, demand, scale,
    age.
    """
    order, at, answers = [], interview("no_chlorine", ()), []
    onward = {
        "pump": "yes",
        "bleached": "no",
        "salt_hand_chlorine": "yes",
        "cold": "no",
        "setting": "yes",
        "stabiliser": "yes",
        "algae": "no",
        "scale_seen": "no",
        "age": "no",
    }
    while at.ask is not None:
        order.append(at.ask.key)
        answers.append(onward[at.ask.key])
        at = interview("no_chlorine", answers)
    assert order == list(onward)


@pytest.mark.parametrize(("tree", "answers"), [("weather", ()), ("no_chlorine", ("perhaps",))])
def test_what_does_not_answer_is_refused(tree: str, answers: tuple[str, ...]) -> None:
    with pytest.raises(InvalidInput):
        interview(tree, answers)


def test_the_log_teaches_but_only_when_it_is_steady() -> None:
    bands = {Measure.PH: Band(7.2, 7.8, 7.5), Measure.FREE_CHLORINE: Band(2, 3, 2.5)}
    usual = {"test_ph": 3.5, "test_free_chlorine": 3.5, "cell": 21.0, "backwash": 28.0}
    steady = [(float(n), reads(ph=7.5, free_chlorine=2.5 if n != 5 else 0.5)) for n in range(10)]
    clean = [(n * 20.0, CareDone("cell", (CareValue("scale", 0),))) for n in range(3)]
    washed = [(n * 12.0, CareDone("backwash")) for n in range(4)]
    found = {offer.task: offer for offer in offers(state(*steady, *clean, *washed), bands, usual)}
    assert found["test_ph"].days == 5.25
    assert "test_free_chlorine" not in found
    assert found["cell"].days == 31.5
    assert found["backwash"].days == 12
    assert offers(state(*steady[:4]), bands, usual) == ()


def test_every_procedure_that_a_finding_sends_to_is_there() -> None:
    """A remedy that names a procedure nobody wrote leads nowhere; three of the words are stations."""
    stations = {"care", "identify", "winter"}
    folder = Path(procedures.__file__).parents[1] / "assessment"
    named = {
        word
        for file in folder.glob("*.py")
        for word in re.findall(r'procedure="([a-z_]+)"', file.read_text())
    }
    assert len(named) > 5
    assert named - stations - set(PROCEDURES) == set()


@pytest.mark.parametrize(
    ("key", "says"),
    [
        # Handbook 12: a demand, not a dose; never the same small dose a third time.
        ("chlorine_not_holding", "third time"),
        # Handbook 12: feeder or cell off, cover off, wait; no acid, no stabilizer by that test.
        ("chlorine_too_high", "No acid and no stabilizer"),
        ("find_copper", "0.3 ppm"),
        ("ammonia", "no free chlorine"),
        ("leak", "bucket"),
        ("glass", "Everybody out"),
        ("new_plaster", "30 days"),
    ],
)
def test_guided_paths_say_the_handbooks_point(key: str, says: str) -> None:
    steps = [told(step.text) for step in PROCEDURES[key].steps]
    assert any(says.lower() in text.lower() for text in steps), steps


def test_what_is_off_when_chlorine_is_too_high_depends_on_what_brings_it() -> None:
    too_high = PROCEDURES["chlorine_too_high"]
    said = [
        [told(step.text) for step in steps_for(too_high, one, small=False)]
        for one in (SALT_POOL, VINYL_TABLETS)
    ]
    assert any("Cell to 0" in text for text in said[0])
    assert not any("Cell to 0" in text for text in said[1])
    assert any("floater out; flow off" in text for text in said[1])
