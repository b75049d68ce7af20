"""What is ahead, in words: which sentence is said when."""

from dataclasses import replace
from datetime import timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.fit import fit
from kumpan.core.forecast.outlook import Outlook, Setting, next_visit, outlook
from kumpan.core.journal import (
    Body,
    CellSet,
    Clarity,
    Level,
    SwimmersCounted,
    TreatmentStarted,
    VisualCheck,
    WaterChange,
    WaterChanged,
)
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.testing.methods import Method
from tests.core.journals import AROUND, LITRES, bleach, reads, reads_by, solid, state, when
from tests.core.samples import PLASTER, SALT_POOL
from tests.words import told

FULL = {"ph": 7.5, "cyanuric_acid": 40.0, "total_alkalinity": 100.0, "temperature_c": 26.0}


def setting(traits: Traits = PLASTER, limit: float = 4.0) -> Setting:
    return Setting(
        place=Place(volume_l=LITRES, latitude_deg=40.0, longitude_deg=0.0),
        around=AROUND,
        bands=bands(profile("household"), traits, 40.0),
        swim_limit_mg_l=limit,
        zone=ZoneInfo("UTC"),
    )


def seen(*rows: tuple[float, Body], day: float, traits: Traits = PLASTER) -> Outlook:
    pool, ahead = state(*rows), setting(traits)
    fitted = fit(pool, ahead.place)
    assert fitted is not None
    return outlook(pool, ahead, when(day), fitted)


def said(found: Outlook) -> dict[str, str]:
    return {sentence.code: told(sentence.text) for sentence in found.sentences}


def test_it_says_when_chlorine_runs_low_with_a_weekday() -> None:
    found = seen((0, reads(free_chlorine=3, **FULL)), day=0.1)
    text = said(found)["runs_low"]
    assert text.startswith("Without another dose free chlorine runs under 2 ")
    assert "tomorrow about" in text or "today about" in text
    assert found.runs_low_at is not None
    assert found.chlorine.at(found.runs_low_at.timestamp())[1] == pytest.approx(2.0, abs=0.15)


def test_it_says_that_chlorine_is_likely_low_already() -> None:
    words = said(seen((0, reads(free_chlorine=3, **FULL)), day=3))
    assert "under 2 already" in words["low_now"]
    assert "next_visit" not in words


def test_a_cell_that_makes_enough_holds() -> None:
    rows = [(n * 3.5, reads(free_chlorine=2.6, **FULL)) for n in range(8)]
    cell = (-1.0, CellSet(15.0, 60.0, 10.0))
    assert "holds" in said(seen(cell, *rows, day=25, traits=SALT_POOL))


def test_after_a_shock_it_says_when_and_when_surely() -> None:
    text = said(seen((0, reads(free_chlorine=3, **FULL)), (0.1, bleach(9)), day=0.2))["swim_again"]
    assert "under the swim limit of 4" in text
    assert "surely" in text
    assert text.endswith("a test decides.")


def test_a_reading_over_the_limit_that_is_gone_by_now() -> None:
    text = said(seen((0, reads(free_chlorine=5, **FULL)), day=1.5))["swim_again"]
    assert "The last test was over the swim limit" in text


def test_the_next_visit_follows_the_usual_gap() -> None:
    pool = state(*[(n * 3.5, reads(free_chlorine=3)) for n in range(5)])
    assert next_visit(pool, when(15)) == when(17.5)
    assert next_visit(pool, when(18)) - when(18) == timedelta(hours=1)
    found = seen(*[(n * 3.5, reads(free_chlorine=8, **FULL)) for n in range(5)], day=14.2)
    low, likely, high = found.at_next_visit
    assert low <= likely <= high


def test_stabilizer_that_climbs_is_told_with_its_weeks() -> None:
    rows = [(7.0 * n, reads(free_chlorine=3, ph=7.5, cyanuric_acid=40 + 6 * n)) for n in range(8)]
    assert "a week: in about" in said(seen(*rows, day=49))["stabiliser_climbs"]


def test_salt_that_falls_is_told_with_its_weeks() -> None:
    rows = [(7.0 * n, reads(free_chlorine=3, ph=7.5, salt=3300 - 50 * n)) for n in range(8)]
    assert "the next bags are due in about" in said(seen(*rows, day=49, traits=SALT_POOL))["salt_due"]


def test_a_sheet_that_came_out_otherwise_is_told() -> None:
    treatment = TreatmentStarted(
        steps=(), profile="household", before=Readings(ph=7.9), predicted=Readings(ph=7.4)
    )
    acid = solid("hydrochloric_acid", 900, 31.45)
    first = reads(free_chlorine=3, **{**FULL, "ph": 7.9})
    later = reads(free_chlorine=3, **{**FULL, "ph": 7.7})
    words = said(seen((0, first), (0.1, treatment), (0.2, acid), (1.0, later), day=1.2))
    assert "pH came out 0.3 over what the last plan computed (7.4)" in words["off_prediction"]


def test_a_volume_that_does_not_fit_is_offered_not_taken() -> None:
    rows: list[tuple[float, Body]] = [(0.0, reads(free_chlorine=3, **FULL))]
    salt = 1000.0
    for n in range(4):
        rows += [
            (10.0 * n, reads_by(Method.METER, salt=salt)),
            (10.0 * n + 0.2, solid("sodium_chloride", 1000 * LITRES / 1000)),
            (10.0 * n + 2.0, reads_by(Method.METER, salt=salt + 850)),
        ]
        salt += 700
    found = seen(*rows, day=33)
    assert found.volume is not None
    assert found.volume.volume_l == pytest.approx(LITRES / 0.85, rel=0.02)
    assert "15 % less than computed: the pool may be 18 % larger" in said(found)["volume_hint"]


def test_with_few_tests_it_says_what_it_rests_on() -> None:
    assert "rests on 1 test" in said(seen((0, reads(free_chlorine=3, **FULL)), day=0.1))["narrow"]


def test_acid_since_the_last_test_moves_the_expected_ph() -> None:
    test = (0.0, reads(free_chlorine=3, calcium_hardness=250, **{**FULL, "ph": 7.8}))
    plain = seen(test, day=0.5).ph
    acid = seen(test, (0.1, solid("hydrochloric_acid", 700, 31.45)), day=0.5).ph
    assert plain is not None
    assert acid is not None
    assert acid.value < plain.value - 0.1


def test_the_loss_a_day_is_plausible() -> None:
    found = seen((0, reads(free_chlorine=3, **FULL)), day=0.1)
    assert 1 < found.loss_mg_l_day < 4
    assert 0 < found.overnight_mg_l < 1
    assert Measure.CYANURIC_ACID in found.trends


ENTRIES = st.one_of(
    st.builds(
        lambda free, ph, cya, temperature: reads(
            free_chlorine=free, ph=ph, cyanuric_acid=cya, total_alkalinity=90, temperature_c=temperature
        ),
        st.floats(0, 30),
        st.floats(6, 9),
        st.floats(0, 250),
        st.floats(2, 38),
    ),
    st.builds(lambda free: reads_by(Method.STRIP, free_chlorine=free), st.sampled_from([0, 1, 5, 10])),
    st.builds(
        lambda key, grams: solid(key, grams, CATALOGUE[key].usual_strength_percent),
        st.sampled_from(sorted(CATALOGUE)),
        st.floats(1, 20_000),
    ),
    st.builds(CellSet, st.floats(1, 60), st.floats(0, 100), st.floats(0, 24)),
    st.builds(SwimmersCounted, st.floats(0.5, 200)),
    st.builds(WaterChanged, kind=st.sampled_from(WaterChange), volume_l=st.floats(1, 100_000)),
    st.builds(VisualCheck, st.sampled_from(Clarity), st.sampled_from(Level)),
)
JOURNALS = st.lists(st.tuples(st.floats(0, 20), ENTRIES), max_size=14)


@settings(max_examples=30, deadline=None, phases=(Phase.explicit, Phase.generate))
@given(JOURNALS, st.booleans(), st.floats(-60, 60))
def test_whatever_stands_in_the_journal_the_outlook_is_finite_and_ordered(
    rows: list[tuple[float, Body]], indoor: bool, latitude: float
) -> None:
    pool = state((0.0, reads(free_chlorine=2, **FULL)), *rows)
    place = Place(volume_l=LITRES, latitude_deg=latitude, longitude_deg=10.0, indoor=indoor)
    ahead = replace(setting(SALT_POOL), place=place)
    fitted = fit(pool, place)
    assert fitted is not None
    found = outlook(pool, ahead, when(21), fitted)
    assert np.isfinite(found.chlorine.high).all()
    assert np.all(found.chlorine.low <= found.chlorine.likely + 1e-9)
    assert np.all(found.chlorine.likely <= found.chlorine.high + 1e-9)
    assert found.chlorine.low.min() >= 0
    assert found.loss_mg_l_day >= 0
    for line in found.trends.values():
        low, likely, high = line.band(when(30).timestamp())
        assert low <= likely <= high
    assert all(sentence.text and "nan" not in told(sentence.text) for sentence in found.sentences)
