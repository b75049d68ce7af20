"""Where to sample and where to pour: away from skimmer and returns, in the deep half."""

from math import dist

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.pool.plan_drawing import KEEP_AWAY_M, Fixture, FixtureKind, draw, edge_point
from kumpan.core.pool.shapes import Part, ShapeKind, even_slope

POOL = Part(shape=ShapeKind.RECTANGLE, length_m=10.0, depth=even_slope(10.0, 1.0, 2.4), width_m=5.0)


@given(
    st.lists(
        st.tuples(st.sampled_from([FixtureKind.SKIMMER, FixtureKind.RETURN]), st.floats(0, 1)), max_size=5
    )
)
def test_the_pour_path_keeps_away_from_skimmers_and_returns(placed: list[tuple[FixtureKind, float]]) -> None:
    plan = draw((POOL,), [Fixture(kind, along) for kind, along in placed])
    for point in plan.pour_path:
        assert point[0] >= POOL.length_m / 2
        assert all(dist(point, fixture.at) >= KEEP_AWAY_M for fixture in plan.fixtures)


def test_the_sample_is_taken_in_the_deep_half_an_arms_length_in() -> None:
    plan = draw((POOL,), [Fixture(FixtureKind.RETURN, 0.5)])
    assert plan.sample_at[0] > POOL.length_m / 2
    assert 0 < plan.sample_at[1] < 5.0


def test_a_pool_that_is_deep_at_the_near_end_is_poured_there() -> None:
    pool = Part(shape=ShapeKind.RECTANGLE, length_m=10.0, depth=even_slope(10.0, 2.4, 1.0), width_m=5.0)
    assert all(x <= 5.0 for x, _ in draw((pool,), []).pour_path)


def test_a_fixture_sits_on_the_edge() -> None:
    square = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))
    assert edge_point(square, 0.375) == pytest.approx((1.0, 0.5))
    assert edge_point(square, 0.0) == pytest.approx((0.0, 0.0))


def test_several_parts_stand_beside_each_other() -> None:
    ledge = Part(shape=ShapeKind.ROUND, length_m=2.0, depth=even_slope(2.0, 0.4, 0.4))
    plan = draw((POOL, ledge), [])
    assert len(plan.outlines) == 2
    assert min(x for x, _ in plan.outlines[1]) > 10.0
    assert plan.width_m == pytest.approx(12.4, abs=0.05)
