"""The schedule: intervals of the handbook, conditions, and the laws that nothing due is lost."""

import random
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.journal import (
    AdditionMade,
    Body,
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    CellKind,
    CellSet,
    Clarity,
    Entry,
    EventNoted,
    Level,
    NotedEvent,
    PlantSet,
    PressureRead,
    RescueEnded,
    RescueOutcome,
    RescueSet,
    Severity,
    VisualCheck,
    WaterChange,
    WaterChanged,
    fold,
)
from kumpan.core.maintenance.due import CareInputs, DueItem, Standing, due_list, regime_task
from kumpan.core.maintenance.index_history import IndexPoint, index_history, scaling_index
from kumpan.core.maintenance.recurrence import (
    ALL_YEAR,
    dates_ahead,
    first_in_season,
    next_due,
    season_months,
)
from kumpan.core.maintenance.tasks import TASKS, Preset, preset_for, tasks_for
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.by_label import LabelDose
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import KPA_PER_PSI
from tests.core.journals import LITRES, bleach, reads, solid, state, when
from tests.core.samples import INDOOR, PLASTER, SALT_POOL, VINYL_TABLETS, engine_state
from tests.words import told

M = Measure
CHICAGO = ZoneInfo("America/Chicago")
DE_POOL = Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.DE)


def due(
    *rows: tuple[float, Body],
    day: float,
    traits: Traits = PLASTER,
    preset: Preset = Preset.OWNER,
    zone: ZoneInfo = CHICAGO,
    season: frozenset[int] = ALL_YEAR,
    index: tuple[IndexPoint, ...] = (),
    ahead_days: int = 0,
) -> dict[str, DueItem]:
    inputs = CareInputs(
        state=state(*rows),
        traits=traits,
        volume_l=LITRES,
        preset=preset,
        zone=zone,
        season=season,
        index=index,
    )
    return {item.task: item for item in due_list(inputs, when(day), ahead_days=ahead_days)}


FULL_TEST = reads(
    free_chlorine=2, total_chlorine=2, ph=7.5, total_alkalinity=90, calcium_hardness=250, cyanuric_acid=40
)


@pytest.mark.parametrize(
    ("task", "owner", "service", "small"),
    [
        # Handbook 08, cleaning routine: skim every other day to daily; brush once or twice a week, every
        # other day in peak for small pools; vacuum, waterline weekly; deck and metal rinse weekly (salt).
        ("skim", 2, 7, 1),
        ("brush", 3.5, 7, 2),
        ("vacuum", 7, 7, 7),
        ("waterline", 7, 7, 7),
        ("rinse_metal", 7, 7, 7),
        # Handbook 08, filter: sand every 2 to 4 weeks by the calendar; cartridge weekly in small pools,
        # every 4 weeks in large ones; soak monthly (small) or every 6 months (large); replaced yearly
        # (small).
        ("backwash", 28, 182, 14),
        ("cartridge_hose", 28, 182, 7),
        ("cartridge_soak", 182, 182, 30),
        ("cartridge_new", None, None, 365),
        # DE: opening and closing; full clean twice a year. All filters on a service route twice a year.
        ("de_recharge", 182, 182, 182),
        ("de_clean", 182, 182, 182),
        # Sand every 4 to 5 years (others 5 to 7).
        ("sand_new", 1825, 1825, 1825),
        # Handbook 07: a routine shock every 1 to 2 weeks.
        ("shock", 14, 14, 14),
        # Handbook 06: a self-cleaning cell every 3 to 4 weeks, a technician looks at every visit.
        ("cell", 21, 7, 21),
        ("enzymes", 15, 15, 15),
        ("oxidizer", 7, 7, 7),
    ],
)
def test_intervals_of_the_handbook(
    task: str, owner: float | None, service: float | None, small: float | None
) -> None:
    """Common practice, handbook 02, 06, 07 and 08, row by row."""
    row = TASKS[task]
    assert (row.days(Preset.OWNER), row.days(Preset.SERVICE), row.days(Preset.SMALL)) == (
        owner,
        service,
        small,
    )
    assert row.late
    assert row.early


def test_a_pool_has_the_tasks_of_its_own_filter_and_chlorination() -> None:
    assert {"backwash", "sand_new"} <= {task.key for task in tasks_for(PLASTER)}
    assert "cartridge_hose" in {task.key for task in tasks_for(VINYL_TABLETS)}
    assert "cell" not in {task.key for task in tasks_for(PLASTER)}
    assert {"cell", "rinse_metal"} <= {task.key for task in tasks_for(SALT_POOL)}
    assert "skim" not in {task.key for task in tasks_for(INDOOR)}


def test_presets_by_school_and_size() -> None:
    assert preset_for("service", PLASTER, LITRES) is Preset.SERVICE
    assert preset_for("household", VINYL_TABLETS, 16_000) is Preset.SMALL
    assert preset_for("household", VINYL_TABLETS, 60_000) is Preset.OWNER


def test_done_moves_its_date_and_lateness_counts_from_the_due_day() -> None:
    rows = ((0, FULL_TEST), (0, CareDone("vacuum")))
    assert due(*rows, day=5)["vacuum"].standing is Standing.SOON
    assert due(*rows, day=7)["vacuum"].standing is Standing.DUE
    late = due(*rows, day=10)["vacuum"]
    assert (late.standing, late.late_days) == (Standing.OVERDUE, 3)
    assert due(*rows, (10, CareDone("vacuum")), day=10.1)["vacuum"].due_on == date(2026, 6, 18)


def test_a_test_taken_is_a_test_done() -> None:
    assert due((0, FULL_TEST), day=3)["test_ph"].standing is not Standing.OVERDUE
    assert due((0, FULL_TEST), day=6)["test_ph"].standing is Standing.OVERDUE
    assert due((0, FULL_TEST), day=8, preset=Preset.SERVICE)["test_ph"].late_days == 1


def test_the_cell_goes_by_its_kind_and_by_the_scaling_index() -> None:
    begun = (0.0, FULL_TEST)
    assert due(begun, day=1, traits=SALT_POOL)["cell"].days == 21
    plain = (0.0, PlantSet(cell_kind=CellKind.PLAIN))
    assert due(begun, plain, day=1, traits=SALT_POOL)["cell"].days == 14
    scaling = tuple(IndexPoint(when(day), 0.45) for day in range(5))
    found = due(begun, day=5, traits=SALT_POOL, index=scaling)
    assert found["cell"].days == 10.5
    assert "halved while the scaling index is high" in told(found["cell"].why)
    assert "only the water's balance keeps it off" in told(found["scale"].why)


def test_warm_water_makes_the_shock_weekly() -> None:
    """Handbook 07, common practice: weekly above 80 F."""
    assert due((0, FULL_TEST), day=1)["shock"].days == 14
    warm = due((0, FULL_TEST), (0.5, reads(temperature_c=28)), day=1)
    assert warm["shock"].days == 7


def test_a_shock_poured_is_a_shock_done() -> None:
    assert due((0, FULL_TEST), (5, bleach(2.0)), day=20)["shock"].standing is Standing.OVERDUE
    poured = due((0, FULL_TEST), (10, bleach(9.0)), day=20)["shock"]
    assert poured.last_on == date(2026, 6, 11)
    oxidised = due((0, FULL_TEST), (12, solid("potassium_monopersulfate", 900, 42.8)), day=20)["shock"]
    assert oxidised.last_on == date(2026, 6, 13)


def test_pressure_over_clean_asks_for_a_backwash_whatever_the_calendar_says() -> None:
    """Handbook 08, common practice: 8 psi over clean."""
    clean = CareDone("backwash", (CareValue("pressure_after_kpa", 10 * KPA_PER_PSI),))
    rising = [(day, PressureRead((10 + day) * KPA_PER_PSI)) for day in (1.0, 3.0, 5.0, 7.0)]
    assert "pressure" not in due((0, FULL_TEST), (0, clean), *rising, day=7)
    found = due((0, FULL_TEST), (0, clean), *rising, (8.5, PressureRead(18.6 * KPA_PER_PSI)), day=9)
    assert found["pressure"].procedure == "backwash"
    assert "19 psi (1.28 bar), 9 psi over clean" in told(found["pressure"].why)
    assert found["backwash"].standing is Standing.LATER


def test_what_happened_asks_for_a_test_until_there_is_one() -> None:
    storm = (2.0, EventNoted(NotedEvent.STORM))
    assert "test_event" in due((0, FULL_TEST), storm, day=2.1)
    assert "test_event" not in due((0, FULL_TEST), storm, (2.5, FULL_TEST), day=3)


def test_new_water_asks_for_salt_and_stabilizer() -> None:
    """Handbook 02, common practice: salt after refilling and much backwashing, stabilizer after heavy
    dilution.
    """
    known = (0.0, reads(salt=3200, cyanuric_acid=70, free_chlorine=2, ph=7.5))
    little = (1.0, WaterChanged(kind=WaterChange.BACKWASH, volume_l=0.02 * LITRES))
    much = (2.0, WaterChanged(kind=WaterChange.RAIN, volume_l=0.09 * LITRES))
    assert "test_salt_diluted" not in due(known, little, day=2, traits=SALT_POOL)
    found = due(known, little, much, day=3, traits=SALT_POOL)
    assert "About 11 % of the water" in told(found["test_salt_diluted"].why)
    assert "test_cyanuric_acid_diluted" in found
    again = due(known, little, much, (3, reads(salt=2900, cyanuric_acid=62)), day=4, traits=SALT_POOL)
    assert not {"test_salt_diluted", "test_cyanuric_acid_diluted"} & set(again)


def test_algae_ask_for_phosphate_and_many_washes_for_balance() -> None:
    green = (1.0, VisualCheck(Clarity.CLEAR, Level.NORMAL, ("algae spots",)))
    assert "test_phosphate" in due((0, FULL_TEST), green, day=2)
    washes = [(n * 10.0, CareDone("cell", (CareValue("acid_washes", 1),))) for n in range(6)]
    assert "washes" in due((0, FULL_TEST), *washes, day=61, traits=SALT_POOL)
    assert "washes" not in due((0, FULL_TEST), *washes[:5], day=61, traits=SALT_POOL)


def test_cold_water_and_a_worn_cell() -> None:
    found = due((0, reads(temperature_c=15)), day=1, traits=SALT_POOL)
    assert "cell off" in told(found["cold_cell"].why)
    run = (0.0, CellSet(18.0, 100.0, 24.0))
    old = (0.0, PlantSet(cell_rated_h=2500.0))
    assert "cell_age" in due((0, FULL_TEST), run, old, day=90, traits=SALT_POOL)


def test_no_test_for_long_is_said_by_itself() -> None:
    assert told(due((0, FULL_TEST), day=12)["no_test"].title) == "No test for 12 days"


def test_own_intervals_and_what_is_taken_off() -> None:
    rows = ((0, FULL_TEST), (0, CareInterval("vacuum", 10.0)), (0, CareInterval("skim", None, off=True)))
    found = due(*rows, day=1)
    assert found["vacuum"].days == 10
    assert "your own interval" in told(found["vacuum"].why)
    assert "skim" not in found
    assert "skim" in due(*rows, (2, CareInterval("skim")), day=3)


def test_leaving_out_counts_as_a_turn_and_putting_off_does_not() -> None:
    rows = ((0, FULL_TEST), (0, CareDone("vacuum")))
    left_out = due(*rows, (7, CarePutOff("vacuum", None, "windy")), day=8)["vacuum"]
    assert left_out.due_on == date(2026, 6, 15)
    off = due(*rows, (7, CarePutOff("vacuum", date(2026, 6, 11), "away")), day=8)["vacuum"]
    assert off.due_on == date(2026, 6, 8)
    assert off.put_off_until == date(2026, 6, 11)
    assert "away" in told(off.why)
    back = due(*rows, (7, CarePutOff("vacuum", date(2026, 6, 11), "away")), day=11)["vacuum"]
    assert (back.standing, back.late_days) == (Standing.OVERDUE, 4) or back.late_days == 4


def test_out_of_season_nothing_is_asked_until_the_season() -> None:
    summer = frozenset(range(4, 11))
    found = due((150, FULL_TEST), (150, CareDone("vacuum")), day=160, season=summer)
    assert found["vacuum"].due_on == date(2027, 4, 1)
    assert found["equipment"].due_on.year == 2026  # all year round


def test_seasons_by_latitude() -> None:
    """Common practice: mild winters all year, else the warm half, turned round in the south."""
    assert season_months(29) == ALL_YEAR
    assert 1 not in season_months(45)
    assert 1 in season_months(-40)


DAYS = st.floats(1, 400)
TODAY = st.dates(date(2024, 1, 1), date(2030, 12, 31))
SEASONS = st.sampled_from([ALL_YEAR, season_months(50), season_months(-50)])


@given(TODAY, DAYS, SEASONS)
def test_the_next_day_lies_ahead_and_in_season(last: date, days: float, months: frozenset[int]) -> None:
    found = next_due(last, days, months)
    assert found > last
    assert found.month in months
    assert found == first_in_season(found, months)


@given(TODAY, DAYS, SEASONS)
def test_dates_ahead_rise_and_keep_to_the_season(first: date, days: float, months: frozenset[int]) -> None:
    until = first + timedelta(days=365)
    found = list(dates_ahead(first, days, months, until))
    assert found == sorted(set(found))
    assert all(day <= until and day.month in months for day in found)


PUT_OFFS = st.lists(st.tuples(st.floats(7, 20), st.integers(1, 30)), max_size=4)


@given(PUT_OFFS)
def test_nothing_due_is_lost_by_putting_it_off(times: list[tuple[float, int]]) -> None:
    """It stays on the list, its due day does not move, and it comes back on the named day at the latest."""
    rows: list[tuple[float, Body]] = [(0, FULL_TEST), (0, CareDone("vacuum"))]
    rows += [(at, CarePutOff("vacuum", when(at + days).date())) for at, days in times]
    item = due(*rows, day=21)["vacuum"]
    assert item.due_on == date(2026, 6, 8)
    assert item.late_days == 14
    later = due(*rows, day=60)["vacuum"]
    assert later.standing is Standing.OVERDUE


@given(st.integers(0, 400), st.sampled_from(["America/Chicago", "Europe/Berlin", "Pacific/Auckland", "UTC"]))
def test_no_change_of_the_clocks_moves_a_day(day: int, zone: str) -> None:
    """Done at seven in the evening, due the same number of calendar days later, wherever and whenever."""
    local = ZoneInfo(zone)
    done_at = datetime(2026, 1, 1, 19, 0, tzinfo=local) + timedelta(days=day)
    entries = [
        Entry(
            id=UUID(int=1),
            pool_id=None,
            at=done_at,
            recorded_at=done_at,
            person_id=None,
            body=CareDone("vacuum"),
        )
    ]
    for hours in range(0, 24, 5):
        now = (done_at + timedelta(days=7)).replace(hour=hours)
        inputs = CareInputs(
            state=fold(entries),
            traits=PLASTER,
            volume_l=LITRES,
            preset=Preset.OWNER,
            zone=local,
            season=ALL_YEAR,
        )
        item = next(one for one in due_list(inputs, now) if one.task == "vacuum")
        assert item.due_on == done_at.date() + timedelta(days=7)
        assert item.standing is Standing.DUE


@given(st.integers(0, 1000))
def test_the_order_in_which_things_are_entered_does_not_matter(seed: int) -> None:
    rows: list[tuple[float, Body]] = [
        (0, FULL_TEST),
        (1, CareDone("vacuum")),
        (2, PressureRead(120.0)),
        (3, EventNoted(NotedEvent.STORM)),
        (4, CarePutOff("brush", date(2026, 6, 20))),
        (5, CareInterval("skim", 3.0)),
        (6, FULL_TEST),
        (7, CareDone("brush")),
        (8, WaterChanged(kind=WaterChange.RAIN, volume_l=9000.0)),
    ]
    shuffled = rows[:]
    random.Random(seed).shuffle(shuffled)
    assert due(*rows, day=9) == due(*shuffled, day=9)


def test_projected_dates_follow_each_other() -> None:
    item = due((0, FULL_TEST), (0, CareDone("vacuum")), day=1, ahead_days=30)["vacuum"]
    assert item.ahead == tuple(date(2026, 6, 8) + timedelta(days=7 * n) for n in range(4))


def test_the_index_history_is_the_engines_index_at_each_test() -> None:
    water = {
        "ph": 7.8,
        "total_alkalinity": 110.0,
        "calcium_hardness": 320.0,
        "cyanuric_acid": 40.0,
        "temperature_c": 27.0,
    }
    pool = state((0, reads(**water)), (3, reads(ph=7.4)), (6, reads(free_chlorine=2)))
    found = index_history(pool)
    assert [point.at for point in found] == [when(0), when(3)]
    assert found[0].index == pytest.approx(float(saturation_index(engine_state(**water))), abs=1e-6)
    assert found[1].index == pytest.approx(
        float(saturation_index(engine_state(**{**water, "ph": 7.4}))), abs=1e-6
    )
    warmer = {**water, "temperature_c": 19.0}
    both = index_history(
        state((0, reads(**water)), (1, reads(**warmer)), (2, reads(**{**water, "temperature_c": 23.0})))
    )
    middle = float(saturation_index(engine_state(**{**water, "temperature_c": 23.0})))
    assert both[2].index == pytest.approx(middle, abs=0.003)  # read on the line between 19 and 27 C
    mean = scaling_index(found, when(4))
    assert mean is not None
    assert found[1].index < mean < found[0].index
    assert scaling_index(found, datetime(2027, 1, 1, tzinfo=UTC)) is None


def test_the_products_own_label_says_when_it_is_poured_again() -> None:
    """A usual algaecide label wants it weekly (handbook 12); this bottle's says two weeks."""
    poured = AdditionMade(
        chemical="algaecide_quat", strength_percent=10, label="Algaecide", mass_g=300, product_id="bottle"
    )
    own = LabelDose(first_per_l=1e-3, repeat_days=14)
    by_kind = due((0, FULL_TEST), (0, poured), day=1)["label_algaecide_quat"]
    assert by_kind.due_on == date(2026, 6, 8)
    inputs = CareInputs(
        state=state((0, FULL_TEST), (0, poured)),
        traits=PLASTER,
        volume_l=LITRES,
        preset=Preset.OWNER,
        zone=CHICAGO,
        season=ALL_YEAR,
        labels={"bottle": own},
    )
    found = next(one for one in due_list(inputs, when(1)) if one.task == "label_algaecide_quat")
    assert found.due_on == date(2026, 6, 15)
    silent = replace(inputs, labels={"bottle": LabelDose(first_per_l=1e-3)})
    assert not [one for one in due_list(silent, when(1)) if one.task == "label_algaecide_quat"]


def test_a_mineral_pools_shock_is_its_programs_weekly_oxidizer() -> None:
    """Handbook 06: weekly; what was poured by a sheet of the program is one, though it raises less than a shock."""
    traits = replace(PLASTER, chlorination=Chlorination.MINERAL)
    found = due((0, CareDone("skim")), day=3, traits=traits)
    assert "shock" not in found
    assert found["oxidizer"].station == "mineral"
    poured = due(
        (0, CareDone("skim")), (4, solid("calcium_hypochlorite", 65.0, 0.012 * LITRES)), day=5, traits=traits
    )
    assert (poured["oxidizer"].due_on - found["oxidizer"].due_on).days == 4
    assert "oxidizer" not in due(day=3)


def test_beside_a_rescue_neither_routine_shock_nor_a_weeks_share_is_due() -> None:
    """Handbook 07: a rescue is shocks without end; a second one beside it would be poured on top."""
    green = (15, VisualCheck(Clarity.GREEN, Level.NORMAL))
    begun = (16, RescueSet(severity=Severity.OPAQUE))
    clear = (17, VisualCheck(Clarity.CLEAR, Level.NORMAL))
    ended = (18, RescueEnded(outcome=RescueOutcome.CLEAR))
    share = regime_task("sodium_hypochlorite")
    weekly = (1, CareInterval(share, 7.0))
    assert due((0, FULL_TEST), day=20)["shock"].standing is Standing.OVERDUE
    assert share in due((0, FULL_TEST), weekly, day=20)
    assert {"shock", share}.isdisjoint(due((0, FULL_TEST), weekly, green, day=20))
    assert "shock" not in due((0, FULL_TEST), green, begun, clear, day=20)
    assert "shock" in due((0, FULL_TEST), green, begun, clear, ended, day=20)
