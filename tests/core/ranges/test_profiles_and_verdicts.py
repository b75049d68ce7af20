"""Ranges by school and pool; verdicts in words; the lane's one scale.

The range figures repeat handbook 03: household, service and small vinyl are common practice; the
residential standard (ANSI/APSP/ICC-11 2019) and the public code (CDC MAHC) are quoted from memory.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.other_profiles import other_profiles
from kumpan.core.ranges.profiles import PROFILES, Band, bands, profile
from kumpan.core.ranges.verdicts import VerdictCode, bound_chlorine, chlorine_verdict, verdict
from kumpan.wording.gauges import EDGE, spot
from tests.core.samples import INDOOR, PLASTER, SALT_POOL, VINYL_TABLETS
from tests.words import told

M = Measure
FIGURES = [
    ("household", PLASTER, 40, M.FREE_CHLORINE, (2, 3, 2.5)),
    ("household", PLASTER, 0, M.FREE_CHLORINE, (1, 3, 2)),
    ("public_code", PLASTER, 0, M.FREE_CHLORINE, (1, 5, 2)),
    ("residential_standard", PLASTER, 40, M.FREE_CHLORINE, (2, 4, 3)),
    ("household", PLASTER, 40, M.PH, (7.2, 7.8, 7.5)),
    ("service", PLASTER, 40, M.PH, (7.4, 7.8, 7.5)),
    ("household", PLASTER, 40, M.TOTAL_ALKALINITY, (80, 120, 100)),
    ("household", SALT_POOL, 70, M.TOTAL_ALKALINITY, (60, 80, 70)),
    ("small_vinyl", VINYL_TABLETS, 40, M.TOTAL_ALKALINITY, (100, 150, 120)),
    ("residential_standard", SALT_POOL, 40, M.TOTAL_ALKALINITY, (60, 180, 80)),
    ("service", PLASTER, 40, M.CALCIUM_HARDNESS, (220, 350, 260)),
    ("household", SALT_POOL, 70, M.CALCIUM_HARDNESS, (200, 400, 300)),
    ("household", VINYL_TABLETS, 40, M.CALCIUM_HARDNESS, (100, 400, None)),
    ("service", PLASTER, 40, M.CYANURIC_ACID, (30, 70, 45)),
    ("household", SALT_POOL, 70, M.CYANURIC_ACID, (60, 80, 70)),
    ("household", SALT_POOL, 70, M.SALT, (2700, 3400, 3200)),
]


@pytest.mark.parametrize(("key", "traits", "stabilizer", "measure", "expected"), FIGURES)
def test_figures_of_the_handbook(
    key: str, traits: object, stabilizer: float, measure: Measure, expected: tuple[float, float, float]
) -> None:
    assert traits in (PLASTER, SALT_POOL, VINYL_TABLETS)
    pool = {id(PLASTER): PLASTER, id(SALT_POOL): SALT_POOL, id(VINYL_TABLETS): VINYL_TABLETS}[id(traits)]
    band = bands(profile(key), pool, stabilizer)[measure]
    assert (band.low, band.high, band.aim) == expected


def test_what_is_not_managed_has_no_band() -> None:
    small = bands(profile("small_vinyl"), VINYL_TABLETS, 40)
    assert M.CALCIUM_HARDNESS not in small
    assert M.SALT not in small


def test_indoors_no_stabilizer_is_wanted() -> None:
    band = bands(profile("household"), INDOOR, 0)[M.CYANURIC_ACID]
    assert (band.high, band.dose_low) == (0, False)


def test_an_unknown_school_is_refused_with_the_known_ones() -> None:
    with pytest.raises(InvalidInput) as reported:
        profile("guesswork")
    assert "household" in told(reported.value.message)


@pytest.mark.parametrize(
    ("value", "code"), [(1.9, "low"), (2, "good"), (3, "good"), (3.1, "high"), (None, "not_measured")]
)
def test_verdicts(value: float | None, code: str) -> None:
    assert verdict(M.FREE_CHLORINE, value, Band(2, 3, 2.5)).code == code


def test_bound_chlorine_is_never_plainly_good() -> None:
    """Falk et al. 2019, Water 11(6) 1314, quoted from memory: CYA to FC no more than 20 to 1."""
    water = Readings(free_chlorine=2.5, cyanuric_acid=90)
    finding = bound_chlorine(water)
    assert finding is not None
    assert finding.fields["least_free_chlorine"] == pytest.approx(4.5)
    said = chlorine_verdict(water, Band(2, 3, 2.5))
    assert said.code is VerdictCode.GOOD
    assert "bound" in told(said.text)
    assert bound_chlorine(Readings(free_chlorine=2.5, cyanuric_acid=50)) is None


@given(st.floats(0, 1e5), st.floats(0, 1e5))
def test_the_lane_keeps_the_order_of_values(a: float, b: float) -> None:
    band = Band(80, 120, 100)
    low, high = sorted((a, b))
    assert spot(low, band).position <= spot(high, band).position + 1e-12


def test_the_lane_is_linear_between_the_ropes_and_one_band_beyond() -> None:
    band = Band(80, 120, 100)
    assert [spot(v, band).position for v in (40, 80, 100, 120, 160)] == pytest.approx([-1, 0, 0.5, 1, 2])


def test_past_the_edge_an_arrow_stands() -> None:
    far = spot(5000, Band(80, 120, 100))
    assert far.off_edge == 1
    assert far.position == pytest.approx(2 + EDGE)
    assert spot(0, Band(2700, 3400, 3200)).off_edge == -1


def test_every_school_has_its_own_source() -> None:
    assert len({row.source for row in PROFILES.values()}) == len(PROFILES)


def test_what_another_school_would_say_stands_only_where_it_differs() -> None:
    """Handbook 03: pH 7.25 is in range for a household, low for the service round (7.4 to 7.8)."""
    own = bands(profile("household"), PLASTER, 40)
    said = other_profiles(Measure.PH, 7.25, own[Measure.PH], PLASTER, 40)
    assert said is not None
    assert told(said.text) == "low by service"
    assert other_profiles(Measure.PH, 7.5, own[Measure.PH], PLASTER, 40) is None
    calcium = other_profiles(Measure.CALCIUM_HARDNESS, 180, own[Measure.CALCIUM_HARDNESS], PLASTER, 40)
    assert calcium is not None
    assert told(calcium.text) == "in range by residential and public code"
