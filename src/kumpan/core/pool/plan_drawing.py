"""The pool seen from above, to scale: where to sample, where to pour, where not to.

Fixtures on the wall are placed as a fraction along the edge (0 to 1, from the edge's first point).
Source: sampling.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import dist

from kumpan.core.pool.shapes import Part, Point, outline

SOURCE = "sampling"

KEEP_AWAY_M = 1.0
DEEP_SHARE = 0.55  # the part of the length, from the shallow end, where the deep half begins
EDGE_STEPS = 240


class FixtureKind(StrEnum):
    """What can be marked on the wall of a plan."""

    SKIMMER = "skimmer"
    RETURN = "return"
    DRAIN = "drain"


@dataclass(frozen=True)
class Fixture:
    """A fixture at `along` the edge (0 to 1); a drain sits in the floor of the deep half."""

    kind: FixtureKind
    along: float


@dataclass(frozen=True)
class PlacedFixture:
    """A fixture with its place on the outline (share of the way round, and point in m)."""

    kind: FixtureKind
    along: float
    at: Point


@dataclass(frozen=True)
class DepthMark:
    """A depth (m) written at a place of the plan."""

    at: Point
    depth_m: float


@dataclass(frozen=True, kw_only=True)
class PlanDrawing:
    """All in meters; y grows downward as on a screen. `pour_path` runs along the deep end's edge."""

    width_m: float
    height_m: float
    outlines: tuple[tuple[Point, ...], ...]
    fixtures: tuple[PlacedFixture, ...]
    depth_marks: tuple[DepthMark, ...]
    sample_at: Point
    pour_path: tuple[Point, ...]


def edge_point(polygon: Sequence[Point], along: float) -> Point:
    """The point at a fraction of the way round a closed polygon."""
    corners = [*polygon, polygon[0]]
    legs = [dist(a, b) for a, b in itertools.pairwise(corners)]
    left = (along % 1.0) * sum(legs)
    for (ax, ay), (bx, by), leg in zip(corners, corners[1:], legs, strict=False):
        if left <= leg and leg > 0:
            share = left / leg
            return ax + (bx - ax) * share, ay + (by - ay) * share
        left -= leg
    return corners[0]


def draw(parts: Sequence[Part], fixtures: Sequence[Fixture]) -> PlanDrawing:
    """Draw a pool from its parts (the first is the main one) and its fixtures."""
    outlines: list[tuple[Point, ...]] = []
    right = 0.0
    for part in parts:
        shifted = tuple((x + right, y) for x, y in outline(part))
        outlines.append(shifted)
        right = max(x for x, _ in shifted) + 0.4
    main = outlines[0]
    placed = tuple(PlacedFixture(f.kind, f.along, _place(f, main, parts[0])) for f in fixtures)
    return PlanDrawing(
        width_m=max(x for polygon in outlines for x, _ in polygon),
        height_m=max(y for polygon in outlines for _, y in polygon),
        outlines=tuple(outlines),
        fixtures=placed,
        depth_marks=_depth_marks(main, parts[0]),
        sample_at=_sample_at(main, parts[0], placed),
        pour_path=_pour_path(main, parts[0], placed),
    )


def _deep_at_far_end(part: Part) -> bool:
    by_distance = sorted(part.depth, key=lambda point: point.distance_m)
    return by_distance[-1].depth_m >= by_distance[0].depth_m


def _middle_y(polygon: Sequence[Point]) -> float:
    ys = [y for _, y in polygon]
    return (min(ys) + max(ys)) / 2


def _place(fixture: Fixture, polygon: tuple[Point, ...], part: Part) -> Point:
    if fixture.kind is FixtureKind.DRAIN:
        share = 0.8 if _deep_at_far_end(part) else 0.2
        return part.length_m * share, _middle_y(polygon)
    return edge_point(polygon, fixture.along)


def _depth_marks(polygon: tuple[Point, ...], part: Part) -> tuple[DepthMark, ...]:
    points = sorted(part.depth, key=lambda point: point.distance_m)
    middle = _middle_y(polygon)
    shallow, deep = points[0], points[-1]
    if abs(shallow.depth_m - deep.depth_m) < 0.05:
        return (DepthMark((part.length_m / 2, middle), deep.depth_m),)
    return (
        DepthMark((part.length_m * 0.18, middle), shallow.depth_m),
        DepthMark((part.length_m * 0.8, middle), deep.depth_m),
    )


def _away(point: Point, placed: Sequence[PlacedFixture]) -> float:
    return min((dist(point, f.at) for f in placed if f.kind is not FixtureKind.DRAIN), default=99.0)


def _sample_at(polygon: tuple[Point, ...], part: Part, placed: Sequence[PlacedFixture]) -> Point:
    """A spot an arm's length from the deep half's edge, farthest from skimmer and returns."""
    edge = [edge_point(polygon, i / EDGE_STEPS) for i in range(EDGE_STEPS)]
    deep = [point for point in edge if _in_deep_half(point, part)]
    best = max(deep, key=lambda point: _away(point, placed))
    centre = (part.length_m / 2, _middle_y(polygon))
    reach = min(1.0, 0.45 / max(0.1, dist(best, centre)))
    return best[0] + (centre[0] - best[0]) * reach, best[1] + (centre[1] - best[1]) * reach


def _in_deep_half(point: Point, part: Part) -> bool:
    share = point[0] / part.length_m
    return share >= DEEP_SHARE if _deep_at_far_end(part) else share <= 1 - DEEP_SHARE


def _pour_path(polygon: tuple[Point, ...], part: Part, placed: Sequence[PlacedFixture]) -> tuple[Point, ...]:
    """The longest run of the deep half's edge that keeps away from skimmer and returns."""
    edge = [edge_point(polygon, i / EDGE_STEPS) for i in range(EDGE_STEPS)]
    allowed = [_in_deep_half(point, part) and _away(point, placed) >= KEEP_AWAY_M for point in edge]
    runs: list[list[Point]] = [[]]
    for i in range(2 * EDGE_STEPS):  # twice round, so that a run over the seam stays whole
        if allowed[i % EDGE_STEPS]:
            runs[-1].append(edge[i % EDGE_STEPS])
        elif runs[-1]:
            runs.append([])
    longest = max(runs, key=len)[:EDGE_STEPS]
    return tuple(longest[::4] + longest[-1:]) if longest else ()
