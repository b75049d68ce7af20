"""A pool's volume and outline from its own dimensions.

A pool is one or more parts; a part has a shape in plan and a depth. Metres in, liters out.
Volume is area times mean depth (the trade's rule); a depth profile is integrated along the length.
Source: pool-shapes.
"""

import itertools
from dataclasses import dataclass
from enum import StrEnum
from math import cos, pi, sin, sqrt

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.units import L_PER_M3

SOURCE = "pool-shapes"

KIDNEY_FACTOR = 0.45
Point = tuple[float, float]


class ShapeKind(StrEnum):
    """The shapes whose area is known by formula."""

    RECTANGLE = "rectangle"
    ROUND = "round"
    ELLIPSE = "ellipse"
    STADIUM = "stadium"
    KIDNEY = "kidney"


@dataclass(frozen=True)
class DepthPoint:
    """Depth at a distance from the shallow end's wall, both in meters."""

    distance_m: float
    depth_m: float


@dataclass(frozen=True, kw_only=True)
class Part:
    """One part of a pool. `length_m` is the diameter of a round one; a kidney has two lobe widths.

    The shallow end is at distance 0. `depth` is two points for an even slope, more for a profile.
    """

    shape: ShapeKind
    length_m: float
    depth: tuple[DepthPoint, ...]
    width_m: float | None = None
    second_width_m: float | None = None
    name: str = ""


def even_slope(length_m: float, shallow_m: float, deep_m: float) -> tuple[DepthPoint, ...]:
    """A floor that falls evenly over the length; all in m."""
    return DepthPoint(0.0, shallow_m), DepthPoint(length_m, deep_m)


def mean_depth_m(part: Part) -> float:
    """Mean of the depth profile along the length, trapezoid by trapezoid; held level beyond its ends."""
    points = sorted(part.depth, key=lambda point: point.distance_m)
    if points[0].distance_m > 0:
        points.insert(0, DepthPoint(0.0, points[0].depth_m))
    if points[-1].distance_m < part.length_m:
        points.append(DepthPoint(part.length_m, points[-1].depth_m))
    total = sum(
        (b.distance_m - a.distance_m) * (a.depth_m + b.depth_m) / 2 for a, b in itertools.pairwise(points)
    )
    return total / part.length_m


def area_m2(part: Part) -> float:
    """Plan area of one part. Raises InvalidInput when a dimension it needs is missing."""
    length, width = part.length_m, part.width_m
    if part.shape is ShapeKind.ROUND:
        return pi / 4 * length**2
    if width is None:
        raise InvalidInput(Message("A {value} needs a width.", value=Verbatim(part.shape.value)), "width_m")
    if part.shape is ShapeKind.RECTANGLE:
        return length * width
    if part.shape is ShapeKind.ELLIPSE:
        return pi / 4 * length * width
    if part.shape is ShapeKind.STADIUM:
        return (length - width) * width + pi / 4 * width**2
    if part.second_width_m is None:
        raise InvalidInput(Message("A kidney needs the widths of both lobes."), "second_width_m")
    return KIDNEY_FACTOR * (width + part.second_width_m) * length


def volume_l(parts: tuple[Part, ...]) -> float:
    """Liters in all parts together. Raises InvalidInput for a dimension that cannot be."""
    if not parts:
        raise InvalidInput(Message("A pool needs at least one part with its dimensions."), "parts")
    for part in parts:
        _check(part)
    return sum(area_m2(part) * mean_depth_m(part) for part in parts) * L_PER_M3


def _check(part: Part) -> None:
    lengths = (part.length_m, part.width_m, part.second_width_m)
    if any(length is not None and not 0 < length <= 200 for length in lengths):
        raise InvalidInput(Message("Lengths must be over 0 and at most 200 m; check the unit."), "length_m")
    if not part.depth or any(not 0 < point.depth_m <= 20 for point in part.depth):
        raise InvalidInput(Message("Depths must be over 0 and at most 20 m; check the unit."), "depth")
    if any(not 0 <= point.distance_m <= part.length_m * (1 + 1e-9) for point in part.depth):
        raise InvalidInput(Message("A depth lies outside the pool's length; check its distance."), "depth")
    if part.shape is ShapeKind.STADIUM and part.width_m is not None and part.width_m > part.length_m:
        raise InvalidInput(Message("A stadium is longer than wide; swap length and width."), "width_m")


def outline(part: Part, points: int = 96) -> tuple[Point, ...]:
    """The edge of a part seen from above, as a closed polygon in meters, shallow end at x = 0.

    The polygon's area equals `area_m2`: the drawing is to scale.
    """
    length, width = part.length_m, part.width_m or part.length_m
    if part.shape is ShapeKind.RECTANGLE:
        return ((0.0, 0.0), (length, 0.0), (length, width), (0.0, width))
    if part.shape is ShapeKind.STADIUM:
        return _stadium(length, width, points)
    if part.shape is ShapeKind.KIDNEY:
        return _kidney(part, points)
    across = length if part.shape is ShapeKind.ROUND else width
    return tuple(
        (length / 2 * (1 - cos(angle)), across / 2 * (1 - sin(angle)))
        for angle in (2 * pi * i / points for i in range(points))
    )


def _stadium(length: float, width: float, points: int) -> tuple[Point, ...]:
    radius, half = width / 2, points // 2
    right = [
        (length - radius + radius * sin(a), radius - radius * cos(a))
        for a in (pi * i / half for i in range(half + 1))
    ]
    left = [
        (radius - radius * sin(a), radius + radius * cos(a)) for a in (pi * i / half for i in range(half + 1))
    ]
    return tuple(right + left)


def _kidney(part: Part, points: int) -> tuple[Point, ...]:
    """A bean: the width runs from one lobe to the other, the middle line bends, the ends are round."""
    a, b, length = part.width_m or 0.0, part.second_width_m or 0.0, part.length_m
    bend = 0.18 * (a + b) / 2
    half = points // 2
    stations = [(1 - cos(pi * i / half)) / 2 for i in range(half + 1)]

    def edge(t: float, side: float) -> Point:
        round_off = sqrt(max(0.0, 1 - (2 * t - 1) ** 4))
        waist = 1 - 0.18 * sin(pi * t) ** 2
        half_width = (a + (b - a) * t) / 2 * round_off * waist
        return length * t, bend * sin(pi * t) + side * half_width

    raw = [edge(t, -1) for t in stations] + [edge(t, 1) for t in reversed(stations)][1:-1]
    scale = area_m2(part) / abs(polygon_area_m2(tuple(raw)))
    low = min(y for _, y in raw) * scale
    return tuple((x, y * scale - low) for x, y in raw)


def polygon_area_m2(polygon: tuple[Point, ...]) -> float:
    """Shoelace area, positive for either direction of travel."""
    pairs = zip(polygon, polygon[1:] + polygon[:1], strict=True)
    return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in pairs)) / 2
