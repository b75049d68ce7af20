"""When the water crosses 65 F, what a winter takes, and the amounts of an opening."""

from datetime import UTC, date, datetime, timedelta
from math import cos, pi
from uuid import UUID
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.journal import ClimateSet, Entry, PoolState, TestTaken, Which, Winter, fold
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.by_label import LabelDose
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.season.climate import (
    BY_LATITUDE,
    crossing,
    crossing_text,
    monthly_water_c,
    season_text,
    water_on_c,
)
from kumpan.core.season.doses import item_doses
from kumpan.core.season.plans import Dosed
from kumpan.core.season.suggested import FROST_UNDER_C
from kumpan.core.season.winter import winter_loss
from kumpan.core.testing.methods import Method, measured
from kumpan.core.treatment.dusk import Evening
from kumpan.core.treatment.special.shock import ShockRequest, ShockStrategy
from tests.words import told

ZONE = ZoneInfo("America/Chicago")
EMPTY = fold([])
TODAY = date(2026, 2, 1)


def logged(*points: tuple[date, float]) -> PoolState:
    """A journal of water temperatures."""
    return fold(
        Entry(
            id=UUID(int=n + 1),
            pool_id=UUID(int=0),
            at=at,
            recorded_at=at,
            person_id=None,
            body=TestTaken((measured(Measure.TEMPERATURE, c, Method.PHOTOMETER),), "photometer"),
        )
        for n, (day, c) in enumerate(points)
        if (at := datetime(day.year, day.month, day.day, 18, tzinfo=UTC))
    )


def test_by_the_table_the_crossing_is_a_straight_line_between_months() -> None:
    """36 N: 15 C in mid April, 20 C in mid May: 18 C is 18 days on, 3 May."""
    assert crossing(Which.OPENING, EMPTY, 36.5, ZONE, TODAY).on == date(2026, 5, 3)
    autumn = crossing(Which.CLOSING, EMPTY, 36.5, ZONE, TODAY)
    assert (autumn.on, autumn.source) == (date(2026, 10, 10), "table")


def test_the_crossing_is_told_with_its_day_and_where_it_is_from() -> None:
    opening, closing = (crossing(which, EMPTY, 36.5, ZONE, TODAY) for which in Which)
    assert told(crossing_text(Which.OPENING, opening, TODAY)) == (
        "The water gets over 65 °F (18 °C) about Sun, May 3, by the table of months."
    )
    assert told(season_text(opening, closing, TODAY)) == (
        "Open before Sun, May 3: then the water gets over 65 °F (18 °C). It gets under that about Sat, Oct 10."
    )
    late = date(2025, 12, 1)
    assert "May 3, 2026" in told(crossing_text(Which.OPENING, opening, late))
    inside = [crossing(which, EMPTY, 36.5, ZONE, TODAY, indoor=True) for which in Which]
    assert (
        told(season_text(inside[0], inside[1], TODAY))
        == "Indoors the weather neither opens nor closes a pool."
    )
    assert crossing_text(Which.OPENING, inside[0], TODAY) is None
    never = crossing(Which.CLOSING, EMPTY, 0.0, ZONE, TODAY)
    assert crossing_text(Which.CLOSING, never, TODAY) is None
    assert told(season_text(never, never, TODAY)) == "The water stays on one side of 65 °F (18 °C) all year."


@pytest.mark.parametrize("latitude", [0.0, 10.0, -12.0])
def test_where_it_never_gets_cold_there_is_no_crossing(latitude: float) -> None:
    assert crossing(Which.OPENING, EMPTY, latitude, ZONE, TODAY).on is None


@given(st.floats(32, 60), st.dates(date(2025, 1, 1), date(2028, 12, 31)))
def test_the_next_opening_lies_within_a_year_and_the_south_is_half_a_year_off(
    latitude: float, today: date
) -> None:
    north = crossing(Which.OPENING, EMPTY, latitude, ZONE, today).on
    south = crossing(Which.OPENING, EMPTY, -latitude, ZONE, today).on
    for on in (north, south):
        assert on is not None
        assert today <= on <= today + timedelta(days=370)
    assert north is not None
    assert south is not None
    apart = abs((north - south).days) % 365
    assert 90 <= min(apart, 365 - apart) <= 190  # southern springs come earlier: the sea is near


def test_melbournes_july_is_no_frost() -> None:
    """Common practice: pools there are not closed with antifreeze; Chicago's January is frost."""
    assert min(monthly_water_c(EMPTY, -37.8)) >= FROST_UNDER_C
    assert min(monthly_water_c(EMPTY, 41.9)) < FROST_UNDER_C


def test_further_north_is_later() -> None:
    days = [crossing(Which.OPENING, EMPTY, lat, ZONE, TODAY).on for lat in sorted(BY_LATITUDE)[1:]]
    assert days == sorted(days)  # type: ignore[type-var]


def test_the_water_on_a_day_lies_between_the_middles_of_its_months() -> None:
    """36 N: 15 C in mid April, 20 C in mid May; and January goes on from December."""
    assert water_on_c(date(2026, 4, 15), EMPTY, 36.5, ZONE) == 15.0
    assert water_on_c(date(2026, 4, 30), EMPTY, 36.5, ZONE) == pytest.approx(17.5)
    assert water_on_c(date(2027, 1, 1), EMPTY, 36.5, ZONE) == pytest.approx(5.45, abs=0.03)


def test_a_reading_near_the_day_goes_before_the_table() -> None:
    state = logged((date(2026, 4, 8), 21.0))
    assert water_on_c(date(2026, 4, 15), state, 36.5, ZONE) == 21.0
    assert water_on_c(date(2026, 4, 19), state, 36.5, ZONE) != 21.0


@given(st.floats(32, 60), st.dates(date(2025, 1, 1), date(2028, 12, 31)))
def test_on_the_day_it_crosses_the_water_has_just_that_warmth(latitude: float, today: date) -> None:
    """The two readings of the table agree: at the crossing it is 65 F, within what a day changes."""
    for which in Which:
        on = crossing(which, EMPTY, latitude, ZONE, today).on
        assert on is not None
        assert water_on_c(on, EMPTY, latitude, ZONE) == pytest.approx(18.0, abs=0.3)


def test_the_log_goes_before_the_table() -> None:
    """Last spring 17 C on 1 April and 19 C on 11 April: 18 C on the 6th, and so this year."""
    state = logged((date(2025, 4, 1), 17.0), (date(2025, 4, 11), 19.0))
    found = crossing(Which.OPENING, state, 47.0, ZONE, TODAY)
    assert (found.on, found.source) == (date(2026, 4, 6), "log")


def test_readings_far_apart_show_no_day_between() -> None:
    state = logged((date(2025, 3, 1), 12.0), (date(2025, 5, 1), 22.0))
    assert crossing(Which.OPENING, state, 47.0, ZONE, TODAY).source == "table"


def test_a_year_of_a_log_finds_its_own_crossing_within_days() -> None:
    """A water that follows a cosine of the year, tested weekly: the day it crosses is known."""
    start = date(2025, 1, 1)
    points = [
        (start + timedelta(days=7 * n), 17.0 - 9.0 * cos(2 * pi * (7 * n - 20) / 365)) for n in range(52)
    ]
    true = next(
        start + timedelta(days=n) for n in range(365) if 17.0 - 9.0 * cos(2 * pi * (n - 20) / 365) >= 18
    )
    found = crossing(Which.OPENING, logged(*points), 47.0, ZONE, TODAY)
    assert found.on is not None
    assert abs((found.on - true.replace(year=2026)).days) <= 2


def test_ones_own_table_is_taken_as_it_is() -> None:
    at = datetime(2026, 1, 1, tzinfo=UTC)
    state = fold(
        [
            Entry(
                id=UUID(int=1),
                pool_id=UUID(int=0),
                at=at,
                recorded_at=at,
                person_id=None,
                body=ClimateSet(tuple(float(n) for n in range(12))),
            )
        ]
    )
    assert monthly_water_c(state, 36.0) == tuple(float(n) for n in range(12))


def test_a_winter_thins_stabilizer_and_salt() -> None:
    """Lowered 30 cm in 1.5 m of mean depth is 20 %, rain and melt 10 %: 30 % new water."""
    found = winter_loss(Readings(cyanuric_acid=60.0, salt=3200.0), 1.5, Winter.FROST, skimmer_plate=False)
    assert found.new_water_share == pytest.approx(0.30)
    assert found.stabilizer_most == pytest.approx(42.0)
    assert found.salt == pytest.approx(2240.0)
    assert "ammonia" in told(found.notes[0].text)


@given(st.floats(0.5, 3.0), st.booleans(), st.sampled_from(list(Winter)))
def test_a_plate_keeps_more_and_no_winter_takes_more_than_there_is(
    depth: float, plate: bool, winter: Winter
) -> None:
    readings = Readings(cyanuric_acid=50.0)
    saved = winter_loss(readings, depth, winter, skimmer_plate=plate)
    assert 0 < saved.new_water_share <= 0.6
    assert (
        winter_loss(readings, depth, winter, skimmer_plate=True).new_water_share
        <= saved.new_water_share + 1e-9
    )
    assert winter_loss(Readings(), depth, winter, skimmer_plate=plate).notes == ()


SALT = Product("salt", "sodium_chloride", 100.0, package_g=18_144.0)
LIQUID = Product("liquid", "sodium_hypochlorite", 10.0)
SODA = Product("soda", "sodium_bicarbonate", 100.0)
STABILIZER = Product("cya", "cyanuric_acid", 100.0)
CELL = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)


def question(**values: float) -> ShockRequest:
    now = datetime(2026, 4, 20, 15, tzinfo=UTC)
    usual = {
        "free_chlorine": 1.0,
        "total_chlorine": 1.0,
        "ph": 7.5,
        "total_alkalinity": 70.0,
        "calcium_hardness": 260.0,
        "cyanuric_acid": 70.0,
        "salt": 3000.0,
        "temperature_c": 16.0,
    }
    readings = Readings(**{**usual, **values})
    own = bands(profile("household"), CELL, readings.cyanuric_acid)
    return ShockRequest(
        readings=readings,
        volume_l=60_000.0,
        traits=CELL,
        inventory=(SALT, LIQUID, SODA, STABILIZER),
        bands=own,
        swim_limit_mg_l=4.0,
        strategy=ShockStrategy.RATIO,
        now=now,
        evening=Evening(now + timedelta(hours=8), Message("Dusk.")),
        zone=ZONE,
    )


def stock(**grams: float) -> list[Stocked]:
    return [Stocked(product, grams.get(product.id)) for product in (SALT, LIQUID, SODA, STABILIZER)]


def test_an_item_takes_only_its_own_amounts() -> None:
    """Alkalinity 40 to the band's aim of 70 in 60 m3 is 30 x 60 x 1.68 = 3.0 kg of baking soda (handbook:
    1.68 g per g).
    """
    request = question(total_alkalinity=40.0, salt=2000.0)
    balance = item_doses(Dosed.BALANCE, request, stock())
    assert {line.product_id for line in balance.lines} == {"soda"}
    salt = item_doses(Dosed.SALT, request, stock())
    assert {line.product_id for line in salt.lines} == {"salt"}
    shock = item_doses(Dosed.SHOCK, request, stock())
    assert {line.product_id for line in shock.lines} == {"liquid"}


def test_short_on_the_shelf_is_told_and_enough_is_not() -> None:
    """2000 to 3200 in 60 m3: 72 kg, 3 bags of 40 lb rounded down; one bag stands there."""
    request = question(salt=2000.0)
    [little] = item_doses(Dosed.SALT, request, stock(salt=18_144.0)).lines
    assert little.short is not None
    assert told(little.short).endswith("lb")
    [enough] = item_doses(Dosed.SALT, request, stock(salt=200_000.0)).lines
    assert enough.short == Message("")
    [uncounted] = item_doses(Dosed.SALT, request, stock()).lines
    assert uncounted.short is None


def test_in_range_nothing_is_needed_and_untested_is_asked_for() -> None:
    assert item_doses(Dosed.STABILIZER, question(), stock()) == item_doses(Dosed.STABILIZER, question(), [])
    assert item_doses(Dosed.SALT, question(), stock()).lines == ()
    blind = item_doses(Dosed.SHOCK, ShockRequest(**{**vars(question()), "readings": Readings()}), stock())
    assert blind.lines == ()
    assert "not measured" in told(blind.left[0])


def test_what_closes_by_its_label_is_told_in_its_own_amount_and_the_non_foaming_kind_first() -> None:
    """Handbook 12: polyquat is the winter kind. 8 fl oz for 10 000 gal in 60 m3 is 375 mL by hand, and 13 fl oz by the cup."""
    per_l = 8 * 29.5735 / 37_854.1
    quat = Product("quat", "algaecide_quat", 10, name="Quat", label_dose=LabelDose(first_per_l=2 * per_l))
    poly = Product("poly", "algaecide_polyquat", 60, name="Poly", label_dose=LabelDose(first_per_l=per_l))
    mute = Product("mute", "sequestrant", 100, name="Mute")
    stocked = [Stocked(quat), Stocked(poly, 100.0), Stocked(mute)]
    [line] = item_doses(Dosed.ALGAECIDE, question(), stocked).lines
    assert line.label == "Poly"
    assert told(line.amount).startswith("13")
    assert told(line.amount).endswith("fl oz")
    assert line.short
    assert item_doses(Dosed.SEQUESTRANT, question(), stocked).lines == ()
