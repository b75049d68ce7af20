"""The table "Low, high, aim" of the handbook (03), row by row: household and service are common practice,
the residential standard and the public code are quoted from memory (ANSI/APSP/ICC-11 2019; CDC MAHC).
"""

import pytest

from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band, bands, profile

M = Measure
CEMENT = Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
CELL = Traits(surface=Surface.TILE, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)
VINYL = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
INDOOR = Traits(surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True)
STABILIZED, BARE = 40.0, 0.0

Row = tuple[str, Traits, float, Measure, float | None, float | None, float | None]
ROWS: tuple[Row, ...] = (
    ("household", CEMENT, STABILIZED, M.FREE_CHLORINE, 2, 3, 2.5),
    ("household", CEMENT, BARE, M.FREE_CHLORINE, 1, 3, 2),
    ("service", CEMENT, STABILIZED, M.FREE_CHLORINE, 2, 3, 2.5),
    ("small_vinyl", VINYL, STABILIZED, M.FREE_CHLORINE, 1, 3, 2),
    ("residential_standard", CEMENT, STABILIZED, M.FREE_CHLORINE, 2, 4, 3),
    ("public_code", CEMENT, STABILIZED, M.FREE_CHLORINE, 2, 5, 3),
    ("public_code", CEMENT, BARE, M.FREE_CHLORINE, 1, 5, 2),
    ("household", CEMENT, STABILIZED, M.PH, 7.2, 7.8, 7.5),
    ("service", CEMENT, STABILIZED, M.PH, 7.4, 7.8, 7.5),
    ("small_vinyl", VINYL, STABILIZED, M.PH, 7.2, 7.8, 7.5),
    ("residential_standard", CEMENT, STABILIZED, M.PH, 7.2, 7.8, 7.5),
    ("public_code", CEMENT, STABILIZED, M.PH, 7.2, 7.8, 7.5),
    ("household", CEMENT, STABILIZED, M.TOTAL_ALKALINITY, 80, 120, 100),
    ("household", CELL, STABILIZED, M.TOTAL_ALKALINITY, 60, 80, 70),
    ("service", CEMENT, STABILIZED, M.TOTAL_ALKALINITY, 80, 120, 90),
    ("service", CELL, STABILIZED, M.TOTAL_ALKALINITY, 60, 80, 70),
    ("small_vinyl", VINYL, STABILIZED, M.TOTAL_ALKALINITY, 100, 150, 120),
    ("residential_standard", CEMENT, STABILIZED, M.TOTAL_ALKALINITY, 60, 180, 100),
    ("residential_standard", CELL, STABILIZED, M.TOTAL_ALKALINITY, 60, 180, 80),
    ("public_code", CEMENT, STABILIZED, M.TOTAL_ALKALINITY, 60, 180, 100),
    ("household", CEMENT, STABILIZED, M.CALCIUM_HARDNESS, 200, 400, 260),
    ("household", CELL, STABILIZED, M.CALCIUM_HARDNESS, 200, 400, 300),  # the refinement for cement
    ("household", CELL, STABILIZED, M.PH, 7.2, 7.8, 7.6),
    ("household", CEMENT, 60.0, M.FREE_CHLORINE, 3, 4, 3.5),
    ("service", CEMENT, 80.0, M.FREE_CHLORINE, 3, 4, 3.5),
    ("public_code", CEMENT, 80.0, M.FREE_CHLORINE, 3, 5, 3.5),
    ("service", CEMENT, STABILIZED, M.CALCIUM_HARDNESS, 220, 350, 260),
    ("residential_standard", CEMENT, STABILIZED, M.CALCIUM_HARDNESS, 150, 1000, 250),
    ("residential_standard", VINYL, STABILIZED, M.CALCIUM_HARDNESS, 150, 1000, 200),
    ("household", CEMENT, STABILIZED, M.CYANURIC_ACID, 30, 50, 40),
    ("household", CELL, STABILIZED, M.CYANURIC_ACID, 60, 80, 70),
    ("service", CEMENT, STABILIZED, M.CYANURIC_ACID, 30, 70, 45),
    ("small_vinyl", VINYL, STABILIZED, M.CYANURIC_ACID, 30, 50, 40),
    ("residential_standard", CEMENT, STABILIZED, M.CYANURIC_ACID, 30, 50, 40),
    ("household", CELL, STABILIZED, M.SALT, 2700, 3400, 3200),
    ("public_code", CELL, STABILIZED, M.SALT, 2700, 3400, 3200),
)


@pytest.mark.parametrize(
    "row", ROWS, ids=lambda row: f"{row[0]}-{row[1].chlorination}-{row[1].surface}-{row[3]}"
)
def test_a_row(row: Row) -> None:
    key, traits, stabilizer, measure, low, high, aim = row
    assert bands(profile(key), traits, stabilizer)[measure] == Band(low, high, aim)


@pytest.mark.parametrize("key", ["household", "service"])
def test_low_calcium_is_not_dosed_in_vinyl_and_fiberglass(key: str) -> None:
    band = bands(profile(key), VINYL, STABILIZED)[M.CALCIUM_HARDNESS]
    assert (band.low, band.high, band.dose_low) == (100, 400, False)


def test_calcium_is_not_managed_in_a_small_soft_pool() -> None:
    assert M.CALCIUM_HARDNESS not in bands(profile("small_vinyl"), VINYL, STABILIZED)


def test_salt_is_managed_only_with_a_cell() -> None:
    assert M.SALT not in bands(profile("household"), CEMENT, STABILIZED)


def test_stabilizer_of_the_public_code_is_dosed_only_by_hand() -> None:
    band = bands(profile("public_code"), CEMENT, STABILIZED)[M.CYANURIC_ACID]
    assert band.high == 90
    assert band.aim is None or not band.dose_low


@pytest.mark.parametrize("key", ["household", "service", "small_vinyl"])
def test_indoors_stabilizer_is_never_dosed(key: str) -> None:
    band = bands(profile(key), INDOOR, BARE).get(M.CYANURIC_ACID)
    assert band is None or not band.dose_low


@pytest.mark.parametrize(
    ("key", "limit"),
    [("household", 4), ("service", 4), ("small_vinyl", 4), ("residential_standard", 4), ("public_code", 10)],
)
def test_swim_limits(key: str, limit: float) -> None:
    """Handbook 05: 4, what most product labels forbid to exceed; a stricter one is typed."""
    assert profile(key).swim_limit_mg_l == limit


@pytest.mark.parametrize(
    ("key", "most"),
    [
        ("household", 0.5),
        ("service", 0.5),
        ("small_vinyl", 0.5),
        ("residential_standard", 0.2),
        ("public_code", 0.4),
    ],
)
def test_combined_chlorine(key: str, most: float) -> None:
    assert bands(profile(key), CEMENT, STABILIZED)[M.COMBINED_CHLORINE].high == most
