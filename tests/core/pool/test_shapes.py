"""Volumes from dimensions, and the outline drawn to scale."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.pool.shapes import (
    DepthPoint,
    Part,
    ShapeKind,
    area_m2,
    even_slope,
    mean_depth_m,
    outline,
    polygon_area_m2,
    volume_l,
)
from kumpan.core.quantities.units import L_PER_US_GAL, M_PER_FT

S = ShapeKind


def part(
    shape: ShapeKind, length: float, width: float, second: float | None = None, depth: float = 1.5
) -> Part:
    return Part(
        shape=shape,
        length_m=length,
        depth=even_slope(length, depth, depth),
        width_m=width,
        second_width_m=second,
    )


@pytest.mark.parametrize(
    ("shape", "length_ft", "width_ft", "gallons"),
    [
        # The trade's gallons-from-feet shortcuts (common practice): x 7.5 and x 5.9, within their rounding.
        (S.RECTANGLE, 32, 16, 32 * 16 * 5 * 7.5),
        (S.ROUND, 24, 24, 24 * 24 * 5 * 5.9),
        (S.ELLIPSE, 30, 18, 30 * 18 * 5 * 5.9),
    ],
)
def test_volume_agrees_with_the_trades_shortcut(
    shape: ShapeKind, length_ft: float, width_ft: float, gallons: float
) -> None:
    pool = part(shape, length_ft * M_PER_FT, width_ft * M_PER_FT, depth=5 * M_PER_FT)
    assert volume_l((pool,)) / L_PER_US_GAL == pytest.approx(gallons, rel=0.005)


def test_stadium_is_a_rectangle_and_a_circle() -> None:
    assert area_m2(part(S.STADIUM, 10, 4)) == pytest.approx(6 * 4 + pi / 4 * 16)


def test_kidney_by_the_trades_factor() -> None:
    """0.45 x (A + B) x length (common practice)."""
    assert area_m2(part(S.KIDNEY, 9, 4, 5)) == pytest.approx(0.45 * 9 * 9)


def test_even_slope_is_the_average_of_both_ends() -> None:
    pool = Part(shape=S.RECTANGLE, length_m=10.0, depth=even_slope(10.0, 1.0, 2.4), width_m=5.0)
    assert mean_depth_m(pool) == pytest.approx(1.7)
    assert volume_l((pool,)) == pytest.approx(85_000)


def test_a_depth_profile_is_integrated_and_held_level_beyond_its_ends() -> None:
    profile = (DepthPoint(2, 1.0), DepthPoint(4, 1.0), DepthPoint(6, 3.0))
    pool = Part(shape=S.RECTANGLE, length_m=10.0, depth=profile, width_m=1.0)
    assert mean_depth_m(pool) == pytest.approx((4 * 1.0 + 2 * 2.0 + 4 * 3.0) / 10)


def test_parts_add_up() -> None:
    main, ledge = part(S.RECTANGLE, 8, 4), part(S.ROUND, 2, 2, depth=0.5)
    assert volume_l((main, ledge)) == pytest.approx(volume_l((main,)) + volume_l((ledge,)))


@given(
    st.sampled_from(list(S)), st.floats(4, 30), st.floats(0.3, 1.0), st.floats(0.5, 1.0)
)  # fmt: skip
def test_the_drawing_is_to_scale(shape: ShapeKind, length: float, slender: float, second: float) -> None:
    pool = part(shape, length, length * slender, length * slender * second)
    assert polygon_area_m2(outline(pool, 384)) == pytest.approx(area_m2(pool), rel=2e-3)


@pytest.mark.parametrize(
    ("pool", "says"),
    [
        (part(S.RECTANGLE, 0, 4), "over 0"),
        (part(S.STADIUM, 4, 8), "longer than wide"),
        (part(S.RECTANGLE, 8, 4, depth=0), "Depths"),
        (Part(shape=S.RECTANGLE, length_m=8, depth=(DepthPoint(9, 1),), width_m=4), "outside"),
        (Part(shape=S.RECTANGLE, length_m=8, depth=(DepthPoint(0, 1),)), "width"),
        (Part(shape=S.KIDNEY, length_m=8, depth=(DepthPoint(0, 1),), width_m=4), "both lobes"),
    ],
)
def test_dimensions_that_cannot_be_are_refused_with_the_cure(pool: Part, says: str) -> None:
    with pytest.raises(InvalidInput, match=says):
        volume_l((pool,))


def test_no_part_no_volume() -> None:
    with pytest.raises(InvalidInput):
        volume_l(())
