"""Lines through slow measures, pH between acid doses, and the closed loop. Journals of their own making."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.closed_loop import (
    Response,
    last_check,
    responses,
    strength_hint,
    volume_from_salt,
    volume_hint,
)
from kumpan.core.forecast.slow import (
    LINED,
    PH_RISE_PER_DAY,
    ph_drift,
    routine_slope,
    trend,
    usual_slope,
)
from kumpan.core.journal import Body, TreatmentStarted, WaterChange, WaterChanged
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.testing.methods import Method
from tests.core.journals import AROUND, LITRES, START, bleach, reads, reads_by, solid, state, when

M = Measure
DAY_S = 86_400.0


def at(day: float) -> float:
    return START.timestamp() + day * DAY_S


def weekly(measure: Measure, first: float, per_day: float, weeks: int = 8) -> list[tuple[float, Body]]:
    return [(7.0 * n, reads(**{measure.value: first + per_day * 7 * n})) for n in range(weeks)]


@pytest.mark.parametrize(
    ("measure", "per_day"), [(M.CYANURIC_ACID, 0.8), (M.SALT, -12.0), (M.CALCIUM_HARDNESS, 0.9)]
)
def test_a_line_is_found(measure: Measure, per_day: float) -> None:
    found = trend(
        state(*weekly(measure, 1500 if measure is M.SALT else 60, per_day)), measure, AROUND, at(49)
    )
    assert found is not None
    assert found.slope == pytest.approx(per_day, rel=0.25)
    low, likely, high = found.band(at(63))
    assert low < likely < high


def test_known_additions_are_no_drift() -> None:
    """30 mg/L of stabilizer poured in the middle, and level otherwise."""
    rows = [(7.0 * n, reads(cyanuric_acid=40.0 if n < 4 else 70.0)) for n in range(8)]
    pool = state(*rows, (24.0, solid("cyanuric_acid", 30 * LITRES / 1000)))
    found = trend(pool, M.CYANURIC_ACID, AROUND, at(49))
    assert found is not None
    assert found.slope == pytest.approx(0.0, abs=0.1)
    assert found.value == pytest.approx(70, abs=3)


def test_what_was_poured_since_the_last_test_counts() -> None:
    pool = state((0, reads(salt=2500)), (1, solid("sodium_chloride", 400 * LITRES / 1000)))
    found = trend(pool, M.SALT, AROUND, at(2))
    assert found is not None
    assert found.value == pytest.approx(2900, abs=15)


def test_a_known_drain_is_no_drift() -> None:
    rows = [(7.0 * n, reads(cyanuric_acid=100.0 if n < 4 else 75.0)) for n in range(8)]
    pool = state(*rows, (24.0, WaterChanged(kind=WaterChange.DRAIN, volume_l=LITRES / 4)))
    found = trend(pool, M.CYANURIC_ACID, AROUND, at(49))
    assert found is not None
    assert found.slope == pytest.approx(0.0, abs=0.15)


def test_evaporation_brings_what_the_fill_holds() -> None:
    """5 mm a day from 1.5 m of depth, fill 150 mg/L: half a mg/L a day; a tenth under a cover."""
    hard = replace(AROUND, fill=Readings(calcium_hardness=150))
    assert usual_slope(M.CALCIUM_HARDNESS, hard) == pytest.approx(0.5)
    assert usual_slope(M.CALCIUM_HARDNESS, replace(hard, covered=True)) == pytest.approx(0.05)
    assert usual_slope(M.SALT, hard) == 0.0


def test_tablets_that_are_fed_every_week_are_drift_not_steps() -> None:
    """227 g of trichlor a week in 60,000 L: 3.4 mg/L of chlorine and 2.07 of stabilizer (handbook 04:
    0.61).
    """
    grams, per_week = 227.0, 227.0 * 0.9 * 1000 / LITRES * 0.607
    rows = [(7.0 * n, reads(cyanuric_acid=40 + per_week * n)) for n in range(8)]
    tablets = [(7.0 * n + 0.1, solid("trichlor", grams, 90)) for n in range(8)]
    pool = state(*rows, *tablets)
    assert routine_slope(pool, M.CYANURIC_ACID, AROUND, at(49.5)) == pytest.approx(per_week / 7, rel=0.02)
    found = trend(pool, M.CYANURIC_ACID, AROUND, at(49.5))
    assert found is not None
    assert found.slope == pytest.approx(per_week / 7, rel=0.1)
    assert routine_slope(pool, M.TOTAL_ALKALINITY, AROUND, at(49.5)) < 0


def test_no_reading_no_line() -> None:
    assert trend(state(), M.SALT, AROUND, at(0)) is None


def test_days_until_a_level() -> None:
    found = trend(state(*weekly(M.SALT, 3400, -10)), M.SALT, AROUND, at(49))
    assert found is not None
    days = found.days_until(2700)
    assert days is not None
    assert found.band(at(49 + days))[1] == pytest.approx(2700, abs=1)
    assert found.days_until(9999) is None


@given(st.floats(0.0, 0.06))
def test_the_drift_of_ph_is_learned_and_levels_off(per_day: float) -> None:
    rows = [(3.0 * n, reads(ph=7.4 + 3 * per_day * (n % 2))) for n in range(16)]
    acid = [(3.0 * n + 0.1, solid("hydrochloric_acid", 500, 31.45)) for n in range(1, 16, 2)]
    found = ph_drift(state(*rows, *acid), 7.4, at(46))
    assert found.per_day == pytest.approx(per_day / ((8.2 - 7.4) / 0.7), abs=0.012)
    assert found.band(at(400))[1] <= 8.2


def test_before_there_are_pairs_the_usual_drift_stands() -> None:
    found = ph_drift(state((0, reads(ph=7.5))), 7.5, at(1))
    assert found.per_day == pytest.approx(PH_RISE_PER_DAY)
    low, likely, high = found.band(at(8))
    assert low < likely < high
    assert likely > 7.6


def dosed(
    share: float, doses: int, step: float = 400.0, method: Method = Method.PHOTOMETER
) -> list[tuple[float, Body]]:
    """Salt doses computed for `step` mg/L that each moved the water by `share` of it."""
    rows: list[tuple[float, Body]] = []
    salt = 2000.0
    for n in range(doses):
        rows += [
            (10.0 * n, reads_by(method, salt=salt)),
            (10.0 * n + 0.2, solid("sodium_chloride", step * LITRES / 1000)),
            (10.0 * n + 2.0, reads_by(method, salt=salt + share * step)),
        ]
        salt += share * step - 200
    return rows


def test_doses_that_agree_offer_another_volume() -> None:
    found = volume_hint(responses(state(*dosed(0.88, 4, step=1000, method=Method.METER)), AROUND), LITRES)
    assert found is not None
    assert found.volume_l == pytest.approx(LITRES / 0.88, rel=0.01)
    assert found.doses == 4


def test_few_or_right_doses_offer_nothing() -> None:
    assert volume_hint(responses(state(*dosed(0.88, 1)), AROUND), LITRES) is None
    assert (
        volume_hint(responses(state(*dosed(1.0, 4, step=1000, method=Method.METER)), AROUND), LITRES) is None
    )
    assert volume_hint([], LITRES) is None


def test_one_large_dose_is_enough() -> None:
    """A salt bump of 2000 mg/L on a good meter."""
    found = volume_hint(responses(state(*dosed(0.85, 1, step=2000, method=Method.METER)), AROUND), LITRES)
    assert found is not None
    assert found.sd_l / found.volume_l < 0.06


def test_doses_that_contradict_each_other_offer_nothing() -> None:
    reported = [
        Response(measure=M.SALT, at=START, computed=400, measured=400 * share, sd=40)
        for share in (0.5, 1.5, 0.6, 1.6)
    ]
    assert volume_hint(reported, LITRES) is None


def chlorinated(share: float, doses: int) -> list[tuple[float, Body]]:
    """Doses of bleach computed for 4 mg/L, tested an hour before and two hours after."""
    rows: list[tuple[float, Body]] = []
    for n in range(doses):
        rows += [
            (3.0 * n, reads(free_chlorine=1.0)),
            (3.0 * n + 0.04, bleach(4.0)),
            (3.0 * n + 0.12, reads(free_chlorine=1.0 + 4.0 * share)),
        ]
    return rows


def test_aged_bleach_is_told_from_its_doses() -> None:
    found = strength_hint(state(*chlorinated(0.75, 5)), AROUND)
    assert found is not None
    assert found.strength_percent == pytest.approx(7.5, abs=0.2)
    assert found.doses == 5


def test_fresh_bleach_few_doses_or_another_product_between_offer_nothing() -> None:
    assert strength_hint(state(*chlorinated(1.0, 5)), AROUND) is None
    assert strength_hint(state(*chlorinated(0.75, 2)), AROUND) is None
    assert strength_hint(state((0, reads(free_chlorine=1))), AROUND) is None
    mixed = [(3.0 * n + 0.05, solid("sodium_dichlor", 100, 56)) for n in range(5)]
    assert strength_hint(state(*chlorinated(0.75, 5), *mixed), AROUND) is None


def test_a_water_change_between_spoils_a_response() -> None:
    rows = [*dosed(0.9, 1), (1.0, WaterChanged(kind=WaterChange.BACKWASH, volume_l=1000))]
    assert responses(state(*rows), AROUND) == []


def test_volume_from_a_bag_of_salt() -> None:
    """40 lb of salt that lifts a meter by 300 mg/L: 18.14 kg / 0.3 g/L = 60 500 L."""
    bag = Product("s", "sodium_chloride", 100)
    volume, sd = volume_from_salt(bag, 18_144, 2500, 2800, 25)
    assert volume == pytest.approx(60_480, rel=0.002)
    assert sd == pytest.approx(volume * 2**0.5 * 25 / 300)
    with pytest.raises(InvalidInput, match="did not rise"):
        volume_from_salt(bag, 18_144, 2500, 2500, 25)


def test_a_sheet_is_checked_by_the_next_test() -> None:
    treatment = TreatmentStarted(
        steps=(),
        profile="household",
        before=Readings(ph=7.9, salt=3000),
        predicted=Readings(ph=7.5, salt=3000),
    )
    acid = solid("hydrochloric_acid", 900, 31.45)
    found = last_check(
        state((0, reads(ph=7.9)), (0.1, treatment), (0.2, acid), (1.0, reads(ph=7.7, salt=3000)))
    )
    assert [(check.measure, check.differs) for check in found] == [(M.PH, True)]
    assert last_check(state((0, reads(ph=7.9)), (0.1, treatment), (0.2, acid), (9.0, reads(ph=7.7)))) == []
    assert last_check(state((0, reads(ph=7.9)))) == []


def test_every_lined_measure_is_a_conserved_one() -> None:
    assert set(LINED) == {M.CYANURIC_ACID, M.CALCIUM_HARDNESS, M.SALT, M.TOTAL_ALKALINITY}
    assert when(1) > START


def test_what_evaporation_brought_meanwhile_is_taken_off_a_doses_answer() -> None:
    """Hard fill brings half a mg/L a day: of what six days changed, three are not the dose's."""
    hard = replace(AROUND, fill=Readings(calcium_hardness=150))
    rows: list[tuple[float, Body]] = [
        (0.0, reads(calcium_hardness=200.0)),
        (0.1, solid("calcium_chloride", 4000.0)),
        (6.0, reads(calcium_hardness=250.0)),
    ]
    (with_drift,) = responses(state(*rows), hard)
    (without,) = responses(state(*rows), AROUND)
    assert without.measured - with_drift.measured == pytest.approx(3.0)
