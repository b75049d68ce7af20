"""Handbook 07 and 09, figure by figure: shock levels, rounds, caps, severities, nights, boosters, draining,
the year.

Each row is the handbook's; [C] common practice of the trade, [D] derived, [M] from memory, as it marks them.
"""

import pytest

from kumpan.core.algae.boosters import BOOSTERS
from kumpan.core.algae.causes import PHOSPHATE_HIGH_PPB, PREVENTION
from kumpan.core.algae.overnight import HIGHEST_COMBINED_MG_L, MOST_LOST_MG_L
from kumpan.core.algae.severity import SEVERITIES
from kumpan.core.algae.stages import CLARIFIER_UNDER_MG_L
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import changes, mass_for_change_g
from kumpan.core.dosing.water_change import share_to_replace
from kumpan.core.journal import RescueSet, Severity
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, celsius_from_fahrenheit
from kumpan.core.ranges.chlorine_targets import hypochlorous_mg_l
from kumpan.core.season.plans import CLOSING, OPENING, SWIM_SEASON_C
from kumpan.core.treatment.special.shock import FIXED_MG_L, PH_FOR_SHOCK
from tests.core.algae.cases import Case
from tests.words import told

S, M = Severity, Measure
TEN_THOUSAND_L = 10_000 * L_PER_US_GAL
HYPO = Product("hypo", "calcium_hypochlorite", 65.0)
DICHLOR = Product("dichlor", "sodium_dichlor", 56.0)
TRICHLOR = Product("tablets", "trichlor", 90.0)


def traits(surface: Surface, *, indoor: bool = False) -> Traits:
    return Traits(surface=surface, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=indoor)


def test_the_fixed_school_shocks_to_ten_and_the_acid_window_is_7_2_to_7_6() -> None:
    assert FIXED_MG_L == 10.0
    assert PH_FOR_SHOCK == (7.2, 7.6)


@pytest.mark.parametrize(
    ("pool", "cap"),
    [
        (traits(Surface.PLASTER), 30.0),
        (traits(Surface.FIBERGLASS), 30.0),
        (traits(Surface.VINYL), 15.0),
        (traits(Surface.PLASTER, indoor=True), 15.0),
    ],
)
def test_the_highest_planned_chlorine(pool: Traits, cap: float) -> None:
    """[M] 30; vinyl, dyed surfaces and indoor pools 15."""
    assert highest_planned_mg_l(pool) == cap


@pytest.mark.parametrize(
    ("severity", "ratio", "rounds", "days"),
    [
        (S.LIGHT, 0.40, 1, "2 to 4 days"),  # to shock level, once, hold overnight
        (S.GREEN, 0.40, 3, "4 to 8 days"),  # rounds 12 h apart x 3
        (S.OPAQUE, 0.40, 4, "10 to 14 days"),  # dose twice daily; clear in 10-14 days [C]
        (S.MUSTARD, 0.60, 3, "4 to 9 days"),  # as green at a higher level
        (S.BLACK, 0.40, 3, "10 to 21 days"),  # needs weeks
    ],
)
def test_each_severity_is_the_handbooks_row(severity: Severity, ratio: float, rounds: int, days: str) -> None:
    row = SEVERITIES[severity]
    assert (row.ratio, row.rounds, told(row.days), row.hours_between) == (ratio, rounds, days, 12)


def test_black_alone_is_held_over_three_for_a_week() -> None:
    assert {severity: row.week_over_mg_l for severity, row in SEVERITIES.items() if row.week_over_mg_l} == {
        S.BLACK: 3.0
    }


@pytest.mark.parametrize(
    ("severity", "stabilizer", "level"),
    [
        (S.GREEN, 0.0, 10.0),  # 10 at least
        (S.GREEN, 25.0, 10.0),
        (S.GREEN, 50.0, 20.0),
        (S.GREEN, 70.0, 28.0),
        (S.MUSTARD, 40.0, 24.0),
        (S.GREEN, 100.0, 30.0),  # 40 asked, 30 borne: "dilute first"
    ],
)
def test_the_ratio_schools_level(severity: Severity, stabilizer: float, level: float) -> None:
    case = Case(setting=RescueSet(severity=severity, by_ratio=True)).begin(cyanuric_acid=stabilizer)
    assert case.request().level_mg_l == pytest.approx(level, abs=0.5)


def killing(free: float, stabilizer: float) -> float:
    """Hypochlorous acid of a usual summer water, by the engine, mg/L."""
    water = Readings(
        free_chlorine=free,
        ph=7.4,
        total_alkalinity=90,
        calcium_hardness=250,
        cyanuric_acid=stabilizer,
        temperature_c=25,
    )
    found = hypochlorous_mg_l(water)
    assert found is not None
    return found


@pytest.mark.parametrize(("stabilizer", "times"), [(50.0, 3.0), (70.0, 4.7), (100.0, 7.2)])
def test_ten_is_three_to_seven_times_too_weak_with_stabilizer(stabilizer: float, times: float) -> None:
    """The two schools are not the same thing: by the engine 40 % of stabilizer kills so many times as fast
    as 10.
    """
    assert killing(0.4 * stabilizer, stabilizer) / killing(10.0, stabilizer) == pytest.approx(times, rel=0.03)


def test_ten_is_sixteen_times_stronger_without_stabilizer() -> None:
    """[D] against 40 % of stabilizer at 30 and 50; the engine has 18 and 17."""
    for stabilizer in (30.0, 50.0):
        assert killing(10.0, 0.0) / killing(0.4 * stabilizer, stabilizer) == pytest.approx(16, rel=0.15)


def test_forty_percent_kills_alike_at_any_stabilizer() -> None:
    """Why the ratio school goes by a share: from 30 to 100 its active chlorine stays within a tenth."""
    found = [killing(0.4 * stabilizer, stabilizer) for stabilizer in (30.0, 50.0, 70.0, 100.0)]
    assert max(found) / min(found) < 1.1


def test_a_night_holds_at_one_lost_and_half_combined() -> None:
    """[M] at most 1 ppm lost between dusk and dawn, CC at most 0.5."""
    assert (MOST_LOST_MG_L, HIGHEST_COMBINED_MG_L) == (1.0, 0.5)


def test_a_clarifier_waits_for_chlorine_under_five() -> None:
    assert CLARIFIER_UNDER_MG_L == 5.0


def test_a_pound_of_hypo_in_ten_thousand_gallons_every_other_day() -> None:
    """[C] 1 lb per 10,000 gal: 7.8 ppm by mass."""
    rise = changes(HYPO, G_PER_LB, TEN_THOUSAND_L)[M.FREE_CHLORINE]
    assert rise == pytest.approx(7.8, abs=0.1)


def test_each_ten_of_chlorine_leaves_six_of_stabilizer_by_tablets_and_nine_by_dichlor() -> None:
    """[C] handbook 07 and 04."""
    for product, stabilizer in ((TRICHLOR, 6.1), (DICHLOR, 9.1)):
        grams = mass_for_change_g(product, M.FREE_CHLORINE, 10.0, TEN_THOUSAND_L)
        assert changes(product, grams, TEN_THOUSAND_L)[M.CYANURIC_ACID] == pytest.approx(stabilizer, abs=0.2)


@pytest.mark.parametrize(
    ("before", "after", "fill", "share"), [(120.0, 50.0, 0.0, 0.583), (800.0, 400.0, 200.0, 0.667), (100.0, 50.0, 0.0, 0.5)]
)  # fmt: skip
def test_the_share_of_water_to_replace(before: float, after: float, fill: float, share: float) -> None:
    """(a - b) / (a - f)."""
    assert share_to_replace(before, after, fill) == pytest.approx(share, abs=0.001)


def test_boosters_go_by_kind_and_bromide_is_refused() -> None:
    assert [(one.key, one.refused) for one in BOOSTERS] == [
        ("monopersulfate", False),
        ("ammonium", False),
        ("bromide", True),
        ("algaecide", False),
    ]


def test_phosphate_over_a_hundred_ppb_feeds_it() -> None:
    assert PHOSPHATE_HIGH_PPB == 100.0


@pytest.mark.parametrize("words", ["Test at least once a week", "Shock weekly", "Brush weekly", "turnover", "Phosphate", "algaecide", "borate at 30 to 50", "enzymes twice a month"])  # fmt: skip
def test_prevention_is_told_above_all(words: str) -> None:
    assert words in " ".join(map(told, PREVENTION))


def test_the_season_turns_at_65_f() -> None:
    assert pytest.approx(celsius_from_fahrenheit(65.0), abs=0.4) == SWIM_SEASON_C


@pytest.mark.parametrize(
    ("first", "then"),
    [
        # Handbook 09, closing 3: balance before all; metals before the shock; sequestrant when chlorine is at 5
        # or under, algaecide the next day, the cover at 3. The electricity off before a plug is opened.
        ("test", "balance"),
        ("balance", "metals"),
        ("metals", "shock"),
        ("shock", "sequestrant"),
        ("sequestrant", "algaecide"),
        ("algaecide", "cover"),
        ("filter_sand", "plant"),
        ("power", "plant"),
        ("power", "sand_plugs"),
        ("power", "lines"),
    ],
)
def test_closing_goes_in_its_safe_order(first: str, then: str) -> None:
    order = {row.key: (row.day, number) for number, row in enumerate(CLOSING)}
    assert order[first] < order[then]


@pytest.mark.parametrize(
    ("first", "then"),
    [
        # Handbook 09, opening 1 to 11.
        ("safety", "cover_off"),
        ("cover_off", "plugs"),
        ("plugs", "level"),
        ("level", "start"),
        ("start", "test"),
        ("test", "clean"),
        ("clean", "balance"),
        ("balance", "first_shock"),
        ("balance", "salt"),
        ("salt", "cell_on"),
        ("first_shock", "stabiliser"),
        ("stabiliser", "routine"),
    ],
)
def test_opening_goes_in_its_safe_order(first: str, then: str) -> None:
    order = {row.key: (row.day, number) for number, row in enumerate(OPENING)}
    assert order[first] < order[then]


def test_salt_mixes_a_day_before_the_cell_has_power() -> None:
    """Handbook 09, 9: salt to its window, 24 h, then power."""
    day = {row.key: row.day for row in OPENING}
    assert day["cell_on"] - day["salt"] >= 1


def test_closing_begins_five_days_before() -> None:
    assert min(row.day for row in CLOSING) == -5


def test_water_over_three_inches_on_a_cover_is_pumped_off_safely() -> None:
    duty = next(row for row in CLOSING if row.key == "duty_water")
    for words in ("3 in", "plate under the pump", "GFCI or RCD", "drowns children"):
        assert words in told(duty.text)
    assert duty.every_days
