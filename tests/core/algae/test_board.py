"""The board, treat or drain, the draining day, causes: what they say for which water."""

from dataclasses import replace
from datetime import timedelta

import pytest

from kumpan.core.algae.board import board
from kumpan.core.algae.boosters import BOOSTERS, RULE
from kumpan.core.algae.causes import causes
from kumpan.core.algae.drain_day import drain_day_plan
from kumpan.core.algae.overnight import night, nights
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.treat_or_drain import treat_or_drain
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.journal import Clarity, PlantSet, PumpWindow, RescueSet, Severity
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Readings
from kumpan.core.treatment.special.drain import DrainRequest, Hoses
from tests.core.algae.cases import (
    DICHLOR,
    HYPO,
    LIQUID,
    PLASTER,
    TABLETS,
    VINYL,
    VOLUME_L,
    Case,
    nearly_over,
)
from tests.words import told

FILL = Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120, salt=90)
PRICES = {"liquid": 0.0012, "acid": 0.002, "ash": 0.006, "hypo": 0.012, "dichlor": 0.014}


def verdict(request: RescueRequest) -> str:
    return treat_or_drain(request, board(request)).verdict


def opaque(**values: float) -> RescueRequest:
    case = Case(setting=RescueSet(severity=Severity.OPAQUE)).begin(**values)
    return case.request(price_per_g=PRICES, hoses=Hoses(7000, 1500, 1.6), fill=FILL)


@pytest.mark.parametrize(
    ("values", "expected"),
    [
        # Handbook 07: cannot see past the first step and stabilizer over 100 or calcium over 600.
        ({"cyanuric_acid": 110.0}, "drain"),
        ({"calcium_hardness": 650.0}, "drain"),
        ({"cyanuric_acid": 60.0}, "treat"),
        # 40 % of 90 is 36, over the cap of 30: some water first.
        ({"cyanuric_acid": 90.0}, "part"),
    ],
)
def test_treat_or_drain_by_the_handbook(values: dict[str, float], expected: str) -> None:
    assert verdict(opaque(**values)) == expected


def test_a_floor_that_is_seen_is_treated_whatever_stabilizer_says() -> None:
    case = Case(setting=RescueSet(severity=Severity.GREEN, by_ratio=False)).begin(cyanuric_acid=110.0)
    assert verdict(case.request()) == "treat"


def test_the_limits_are_the_users() -> None:
    request = replace(
        opaque(cyanuric_acid=110.0), setting=RescueSet(severity=Severity.OPAQUE, drain_over_stabilizer=150.0)
    )
    assert verdict(request) == "part"


def test_treating_that_costs_more_than_a_refill_is_told() -> None:
    cheap_water = replace(
        opaque(),
        price_per_g={"liquid": 5.0},
        fill=replace(
            FILL, cyanuric_acid=40.0, free_chlorine=3.0, total_alkalinity=100.0, calcium_hardness=250.0
        ),
    )
    found = treat_or_drain(cheap_water, board(cheap_water))
    assert found.verdict == "drain"
    assert any("costs more than a refill" in told(reason) for reason in found.reasons)


def test_what_is_not_tested_is_said_to_matter() -> None:
    case = (
        Case(setting=RescueSet(severity=Severity.OPAQUE))
        .tell(RescueSet(severity=Severity.OPAQUE))
        .test(free_chlorine=0.0, ph=7.4)
    )
    request = case.request()
    assert "not tested" in told(treat_or_drain(request, board(request)).reasons[0])


def test_the_sums_of_the_ways() -> None:
    """Drain: water at its price; 60 m3 at 7 and 1.5 m3/h take 48.6 h; hand arithmetic."""
    request = opaque()
    drain = treat_or_drain(request, board(request)).strategies[-1]
    assert (drain.key, drain.water_l) == ("drain", VOLUME_L)
    assert list(drain.days) == [4, 7]
    found = board(request)
    low, _, high = found.tally.ahead_mg_l
    grams = low * VOLUME_L / 1000 / 0.0885  # 10 g per 100 mL at 1.13 g/mL: 8.85 % by mass
    assert found.tally.ahead_cost is not None
    assert found.tally.ahead_cost[0] == pytest.approx(grams * PRICES["liquid"], rel=0.05)
    assert low < high


def test_the_board_counts_rounds_and_chlorine() -> None:
    case = Case().begin().prepared().pour(10.0).later(hours=1).pour(5.0).later(hours=12).pour(1.0).pour(8.0)
    case.test(free_chlorine=15.0)
    found = board(case.request())
    assert found.rounds == 2  # two pours an hour apart are one round, a top-up is none
    assert found.tally.used_mg_l == pytest.approx(24.0, rel=1e-6)
    assert found.tally.pump_hours == pytest.approx(13.0, abs=0.1)


def test_the_band_is_told_from_the_beginning_and_narrows_on_the_whole() -> None:
    case = Case().begin().prepared().pour(16.0)
    for _ in range(3):
        case.later(hours=14).test(free_chlorine=13.0, total_chlorine=13.5).pour(3.0)
        case.later(hours=10).visual_check(Clarity.HAZY).test(free_chlorine=14.0, total_chlorine=14.5)
    trail = board(case.request()).trail
    assert trail[0].at == case.request().episode.began_at  # type: ignore[union-attr]
    widths = [point.clear.high - point.clear.low for point in trail]
    assert widths[-1] <= widths[0]
    assert all(point.clear.low <= point.clear.likely <= point.clear.high for point in trail)


def test_what_climbs_is_watched_for_each_product_of_the_shelf() -> None:
    """10 ppm of chlorine from dichlor leave about 9 of stabilizer, from calcium hypochlorite 7 of calcium
    (common practice).
    """
    found = board(Case(inventory=(LIQUID, HYPO, DICHLOR)).begin().request())
    after = {note.code: note.fields["after"] for note in found.watch}
    rise = found.tally.ahead_mg_l[1]
    assert after["climbs_sodium_dichlor"] == pytest.approx(40 + 0.91 * rise, rel=0.03)
    assert after["climbs_calcium_hypochlorite"] == pytest.approx(250 + 0.71 * rise, rel=0.03)


def test_the_stages_stand_in_their_order() -> None:
    lines = board(
        nearly_over().visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6).request()
    ).stages
    assert [line.standing for line in lines] == ["done", "done", "done", "now", "ahead"]
    days = [line.to_on for line in lines]
    assert days == sorted(days)  # type: ignore[type-var]


def test_a_night_is_dark_undisturbed_and_long_enough() -> None:
    """Only pairs with next to no sun between them and nothing poured count."""
    case = Case().begin().later(hours=14).test(free_chlorine=9.0).later(hours=9).test(free_chlorine=8.2)
    case.later(hours=8).test(free_chlorine=6.0)
    request = case.request()
    [found] = request.nights
    assert (found.evening_mg_l, found.morning_mg_l, round(found.lost_mg_l, 1), found.holds) == (
        9.0,
        8.2,
        0.8,
        True,
    )
    poured = Case().begin().later(hours=14).test(free_chlorine=9.0).later(hours=3).pour(2.0)
    poured.later(hours=6).test(free_chlorine=10.0)
    assert poured.request().nights == ()
    assert nights((), (), 32.0, -95.0) == ()


def test_with_next_to_no_chlorine_a_night_tells_nothing() -> None:
    at = Case().now
    assert night(at, at + timedelta(hours=9), 0.8, 0.6).holds is False
    assert night(at, at + timedelta(hours=9), 8.0, 7.0).holds is True
    assert night(at, at + timedelta(hours=9), 8.0, 6.9).holds is False


def test_what_early_light_took_is_no_loss_of_the_night() -> None:
    """A tenth to the sun: 9.0 to 7.4 is 0.8 by the sun (7.4 was 8.2 before it), 0.8 eaten."""
    at = Case().now
    found = night(at, at + timedelta(hours=9), 9.0, 7.4, sun_share=0.1)
    assert found.sun_mg_l == pytest.approx(0.822, abs=0.01)
    assert found.lost_mg_l == pytest.approx(0.778, abs=0.01)
    assert found.holds


def drained(traits: Traits) -> DrainRequest:
    return DrainRequest(
        readings=Readings(),
        volume_l=VOLUME_L,
        traits=traits,
        bands={},
        fill=FILL,
        hoses=Hoses(7000, 1500, 1.6),
    )


def test_the_draining_day_goes_by_the_handbook() -> None:
    """Handbook 07 and 05: ask first, brush wet, breaker off, pump minded, wash last, refill at once, filter
    clean, test chlorine first.
    """
    treatment = drain_day_plan(drained(PLASTER))
    order = (
        "ground water",
        "mild",
        "brush the walls while they are wet",
        "breaker",
        "barrier",
        "someone to mind it",
        "into a bucket",
        "pressure washing",
        "chlorine wash",
        "neutralize",
        "refill at once",
        "filter cleaned",
        "test free chlorine",
    )
    reported = [told(step.title).lower() for step in treatment.steps]
    places = [next(n for n, title in enumerate(reported) if words in title) for words in order]
    assert places == sorted(places)
    wash = next(step for step in treatment.steps if "chlorine wash" in told(step.title).lower())
    assert wash.hazard is Hazard.SHELL_WASH
    assert any("acid" in told(caution) for caution in wash.cautions)
    assert all(step.hazard in HAZARDS for step in treatment.steps)
    assert sum(step.water_l or 0 for step in treatment.steps) == VOLUME_L


@pytest.mark.parametrize("surface", [Surface.VINYL, Surface.FIBERGLASS])
def test_a_liner_or_a_fiberglass_shell_is_never_stood_dry(surface: Surface) -> None:
    found = drain_day_plan(
        drained(Traits(surface=surface, chlorination=Chlorination.LIQUID, filter=Filter.SAND))
    )
    assert found.steps == ()
    assert found.unmet[0].code == "never_dry"


def codes(case: Case) -> set[str]:
    return {cause.code for cause in causes(case.request())}


def test_causes_are_read_from_the_log() -> None:
    neglected = Case().test(free_chlorine=2.5).later(days=25).begin(cyanuric_acid=70.0)
    assert {"not_tested", "stabiliser_high", "phosphate_unknown", "no_shock"} <= codes(neglected)
    bare = Case().begin(cyanuric_acid=5.0, phosphate_ppb=400.0)
    assert {"stabiliser_low", "phosphate_high"} <= codes(bare)
    low = Case()
    for _ in range(4):
        low.test(free_chlorine=0.5).later(days=3)
    assert "chlorine_low" in codes(low.begin())
    short = Case().tell(PlantSet(pump_flow_l_min=100.0, windows=(PumpWindow(480, 780),))).begin()
    assert "pump_short" in codes(short)  # 5 h of 6 m3/h turn half of 60 m3
    saved = Case()
    for _ in range(6):
        saved.test(free_chlorine=3.0).later(days=2)
    saved.pour(9.0).later(days=2)
    assert not {"not_tested", "chlorine_low", "no_shock"} & codes(saved.begin())


def test_a_new_pool_is_not_blamed_for_weeks_that_nobody_told_of() -> None:
    """Law E.4: causes from evidence in the journal, never from its absence."""
    assert not {"not_tested", "no_shock"} & codes(Case().begin())


def test_the_vinyl_cap_is_fifteen() -> None:
    """Handbook 07: highest planned free chlorine 30, vinyl and indoor 15."""
    assert Case(traits=VINYL).begin().request().cap_mg_l == 15.0
    assert Case().begin().request().cap_mg_l == 30.0


def test_many_tablets_are_told_with_what_they_leave() -> None:
    """Handbook 07: six to eight tablets every third day; each 10 ppm of chlorine from them brings 6 of
    stabilizer.
    """
    found = board(Case(inventory=(LIQUID, TABLETS)).begin().request())
    note = next(note for note in found.watch if note.code == "rule_tablets")
    # Eight of 8 oz are 1.81 kg; 90 % available chlorine in 60 m3 is 27.2 mg/L, six tenths of it 16.5 of
    # stabilizer.
    assert note.fields["stabiliser"] == pytest.approx(0.607 * 27.2, rel=0.01)
    assert all(note.code != "rule_tablets" for note in board(Case().begin().request()).watch)


def test_boosters_are_told_by_kind_and_bromide_is_refused() -> None:
    """Handbook 07: one product at a time, by its label; ammonium makes demand, bromide changes the pool for
    good.
    """
    kinds = {one.key: one for one in BOOSTERS}
    assert set(kinds) == {"monopersulfate", "ammonium", "bromide", "algaecide"}
    assert [one.key for one in BOOSTERS if one.refused] == ["bromide"]
    assert "7.8" in told(kinds["monopersulfate"].text)
    assert "one product at a time" in told(RULE)
