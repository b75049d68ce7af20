"""The technician's round: test intervals, order, load list, and what the next visit will find."""

from uuid import UUID
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.forecast.fit import fit
from kumpan.core.journal import Body, CellSet, Clarity, Level, VisualCheck
from kumpan.core.maintenance.test_intervals import Rhythm, due_tests, interval_days
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.visits.load_list import Tray, load_list, tray_of
from kumpan.core.visits.order import distance_km, length_km, nearest_next, shorter_drive
from kumpan.core.visits.until_next import Between, UntilNext, until_next
from tests.core.journals import PLACE, reads, state, when
from tests.core.samples import INDOOR, PLASTER, SALT_POOL, VINYL_TABLETS
from tests.words import told

M = Measure


@pytest.mark.parametrize(
    ("measure", "owner", "service", "salt_owner"),
    [
        (M.FREE_CHLORINE, 3.5, 7, 7),
        (M.PH, 3.5, 7, 7),
        (M.TOTAL_CHLORINE, None, 7, None),
        (M.TOTAL_ALKALINITY, 30, 30, 30),
        (M.CALCIUM_HARDNESS, 30, 91, 30),
        (M.CYANURIC_ACID, 30, None, 30),
        (M.SALT, None, None, 30),
    ],
)
def test_intervals_of_the_handbook(
    measure: Measure, owner: float | None, service: float | None, salt_owner: float | None
) -> None:
    """Handbook 02 "How often", common practice, row by row."""
    assert interval_days(measure, Rhythm.OWNER, PLASTER) == owner
    assert interval_days(measure, Rhythm.SERVICE, PLASTER) == service
    assert interval_days(measure, Rhythm.OWNER, SALT_POOL) == salt_owner


def test_with_strips_alkalinity_is_read_weekly() -> None:
    """Handbook 02, common practice: weekly with strips, else monthly."""
    assert interval_days(M.TOTAL_ALKALINITY, Rhythm.OWNER, PLASTER, strips=True) == 7


def test_indoors_nobody_asks_for_stabilizer() -> None:
    assert interval_days(M.CYANURIC_ACID, Rhythm.OWNER, INDOOR) is None


def test_a_weekly_visit_a_few_hours_early_is_the_same_visit() -> None:
    pool = state((0.2, reads(free_chlorine=2, ph=7.5)))
    due = {one.measure for one in due_tests(pool, PLASTER, Rhythm.SERVICE, when(7))}
    assert {M.FREE_CHLORINE, M.PH} <= due
    assert M.PH not in {one.measure for one in due_tests(pool, PLASTER, Rhythm.SERVICE, when(5))}


def test_what_was_tested_lately_is_not_due_and_the_longest_overdue_comes_first() -> None:
    pool = state(
        (0, reads(total_alkalinity=90)),
        (32, reads(free_chlorine=2, total_chlorine=2, ph=7.5)),
        (39, reads(calcium_hardness=250, cyanuric_acid=40)),
    )
    due = due_tests(pool, PLASTER, Rhythm.SERVICE, when(40))
    assert due[0].measure is M.TOTAL_ALKALINITY
    assert {one.measure for one in due} == {M.TOTAL_ALKALINITY, M.FREE_CHLORINE, M.PH, M.TOTAL_CHLORINE}
    assert told(due[0].why) == "Alkalinity: last tested 40 days ago."


A, B, C, D = (UUID(int=n) for n in range(1, 5))


def test_a_degree_of_latitude_is_111_km() -> None:
    """Textbook value: a sixtieth of it is a nautical mile, 1.852 km."""
    assert distance_km((29, -95), (30, -95)) == pytest.approx(60 * 1.852, rel=2e-3)


def test_nearest_next_starts_at_the_first_stop() -> None:
    places = {A: (29.0, -95.0), B: (29.3, -95.0), C: (29.1, -95.0), D: (29.2, -95.0)}
    assert nearest_next((A, B, C, D), places) == (A, C, D, B)


@given(st.lists(st.tuples(st.floats(-60, 60), st.floats(-170, 170)), min_size=1, max_size=12))
def test_the_suggestion_visits_every_stop_once(spots: list[tuple[float, float]]) -> None:
    stops = [UUID(int=n + 1) for n in range(len(spots))]
    places = dict(zip(stops, spots, strict=True))
    found = shorter_drive(stops, places)
    assert sorted(found, key=str) == sorted(stops, key=str)
    assert found[0] == stops[0]
    assert length_km(found, places) <= length_km(nearest_next(stops, places), places) + 1e-6


def test_a_way_that_crosses_itself_is_turned() -> None:
    """Nearest-next from A runs north past C and has to come back for B; turned, it sweeps once."""
    places = {A: (29.0, -95.0), B: (28.7, -95.0), C: (29.2, -95.0), D: (29.9, -95.0)}
    assert nearest_next((A, B, C, D), places) == (A, C, B, D)
    assert shorter_drive((A, B, C, D), places) == (A, B, C, D)


def test_a_stop_without_a_place_keeps_its_order_at_the_end() -> None:
    places = {A: (29.0, -95.0), C: (29.2, -95.0)}
    assert shorter_drive((A, B, C), places) == (A, C, B)


@pytest.mark.parametrize("key", sorted(CATALOGUE))
def test_acids_and_oxidizers_never_share_a_tray(key: str) -> None:
    """Handbook 10: acids and oxidizers in separate secured trays."""
    oxidizers = {"sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor", "trichlor"}
    expected = Tray.ACIDS if key in ("hydrochloric_acid", "sodium_bisulfate") else Tray.REST
    if key in oxidizers | {"potassium_monopersulfate"}:
        expected = Tray.OXIDIZERS
    assert tray_of(key) is expected


def test_the_load_list_says_what_is_short() -> None:
    acid, bleach = Product("a", "hydrochloric_acid", 31.45), Product("b", "sodium_hypochlorite", 10.0)
    lines = load_list({bleach: 900.0, acid: 500.0}, {"a": 200.0})
    assert [line.product.id for line in lines] == ["a", "b"]
    assert lines[0].short_g == 300.0
    assert lines[1].on_truck_g is None
    assert lines[1].short_g == 900.0


FULL = {"ph": 7.5, "cyanuric_acid": 40.0, "total_alkalinity": 100.0, "temperature_c": 27.0}


def in_a_week(traits: Traits, *more: tuple[float, Body], dose: float = 0.5, loss: float = 2.0) -> UntilNext:
    """Seven days after a test that read 2.5."""
    pool = state((0, reads(free_chlorine=2.5, **FULL)), *more)
    fitted = fit(pool, PLACE)
    assert fitted is not None
    return until_next(
        Between(
            state=pool,
            place=PLACE,
            traits=traits,
            fitted=fitted,
            now=when(0.1),
            visit_at=when(7.1),
            dose_mg_l=dose,
            minimum_mg_l=1.0,
            limit_mg_l=3.0,
            loss_mg_l_day=loss,
            zone=ZoneInfo("UTC"),
            products=STANDARD_INVENTORY,
        )
    )


def test_a_weekly_dose_does_not_hold_a_pool_in_the_sun() -> None:
    """Handbook 10, common practice: 1 to 4 ppm a day are 7 to 28 a week."""
    found = in_a_week(PLASTER)
    assert not found.holds
    assert found.likely < 1.0
    assert [one.code for one in found.sentences] == [
        "at_next_visit",
        "will_not_hold",
        "tablets_a_week",
        "owner_between",
    ]
    assert "liquid chlorine" in told(found.sentences[-1].text)


def test_more_chlorine_today_lasts_longer() -> None:
    low, high = in_a_week(PLASTER, dose=0.0), in_a_week(PLASTER, dose=8.0)
    assert low.under_at is not None
    assert high.under_at is None or high.under_at > low.under_at


def test_the_owner_never_pours_over_the_swim_limit() -> None:
    share = in_a_week(PLASTER).sentences[-1].fields
    assert float(str(share["raise_mg_l"])) + 1.0 <= 3.0
    assert int(str(share["times"])) > 1


def test_a_cell_is_told_its_setting_and_an_indoor_pool_no_tablets() -> None:
    cell = (0.05, CellSet(20.0, 10.0, 4.0))
    assert "cell_setting" in {one.code for one in in_a_week(SALT_POOL, cell).sentences}
    assert "tablets_a_week" not in {one.code for one in in_a_week(INDOOR).sentences}
    assert "tablets_a_week" in {one.code for one in in_a_week(VINYL_TABLETS).sentences}


@pytest.mark.parametrize("clarity", [Clarity.GREEN, Clarity.DRAIN_HIDDEN])
def test_a_green_pool_is_told_no_weekly_amount(clarity: Clarity) -> None:
    """Handbook 07, opaque or swamp: dosed twice a day at first, then at least daily."""
    found = in_a_week(VINYL_TABLETS, (0.05, VisualCheck(clarity, Level.NORMAL)))
    assert [one.code for one in found.sentences] == ["at_next_visit", "will_not_hold", "rescue_daily"]
    clear = in_a_week(VINYL_TABLETS, (0.05, VisualCheck(Clarity.CLEAR, Level.NORMAL)))
    assert "rescue_daily" not in {one.code for one in clear.sentences}
