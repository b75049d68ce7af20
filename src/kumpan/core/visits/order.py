"""In which order the day's pools are driven to: by hand; nearest-next as a suggestion."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import asin, cos, radians, sin, sqrt
from uuid import UUID

EARTH_KM = 6371.0
Place = tuple[float, float]


def distance_km(one: Place, other: Place) -> float:
    """Great-circle distance between two (latitude, longitude) in degrees, by the haversine formula."""
    lat1, lon1, lat2, lon2 = (radians(angle) for angle in (*one, *other))
    h = sin((lat2 - lat1) / 2) ** 2 + cos(lat1) * cos(lat2) * sin((lon2 - lon1) / 2) ** 2
    return 2 * EARTH_KM * asin(min(1.0, sqrt(h)))


def nearest_next(stops: Sequence[UUID], places: Mapping[UUID, Place]) -> tuple[UUID, ...]:
    """From the first stop always on to the nearest that is left.

    Stops without a place keep their order at the end.
    """
    left = [stop for stop in stops if stop in places]
    order = left[:1]
    del left[:1]
    while left:
        here = places[order[-1]]
        near = min(left, key=lambda stop: distance_km(here, places[stop]))
        left.remove(near)
        order.append(near)
    return (*order, *(stop for stop in stops if stop not in places))


def length_km(stops: Sequence[UUID], places: Mapping[UUID, Place]) -> float:
    """The way along the stops in their order, as the crow flies."""
    known = [places[stop] for stop in stops if stop in places]
    return sum(distance_km(one, other) for one, other in pairwise(known))
