"""In which order the day's pools are driven to: by hand; nearest-next, then 2-opt, as a suggestion."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import asin, cos, radians, sin, sqrt
from uuid import UUID

import numpy as np
from numpy.typing import NDArray

EARTH_KM = 6371.0
Place = tuple[float, float]
MOST_TURNS, LEAST_SAVED_KM, MOST_MOVED = 500, 1e-6, 3


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


def shorter_drive(stops: Sequence[UUID], places: Mapping[UUID, Place]) -> tuple[UUID, ...]:
    """Nearest-next; then, while any saves, what saves most: a part of the way turned round (2-opt; Croes
    1958, from memory), else one to three stops put elsewhere on it (Or 1976, from memory). It begins at the
    first stop and ends wherever the last one is.
    """
    order = list(nearest_next(stops, places))
    placed = [stop for stop in order if stop in places]
    if len(placed) < 3:
        return tuple(order)
    km = _between([places[stop] for stop in placed])
    at = np.arange(len(placed))
    for _ in range(MOST_TURNS):
        turned = _best_turn(at, km)
        better = _best_move(at, km) if turned is None else turned
        if better is None:
            break
        at = better
    return (*(placed[n] for n in at), *(stop for stop in order if stop not in places))


def _between(places: Sequence[Place]) -> NDArray[np.float64]:
    """Distances of all places from each other, km."""
    lat, lon = np.radians(np.array(places)).T
    h = (
        np.sin((lat[:, None] - lat) / 2) ** 2
        + np.cos(lat[:, None]) * np.cos(lat) * np.sin((lon[:, None] - lon) / 2) ** 2
    )
    found: NDArray[np.float64] = 2 * EARTH_KM * np.arcsin(np.minimum(1.0, np.sqrt(h)))
    return found


Order = NDArray[np.int_]


def _best_turn(at: Order, km: NDArray[np.float64]) -> Order | None:
    """The order with the part turned that saves most by it; None where none saves. The first stop stays."""
    ordered = km[np.ix_(at, at)]
    count = len(at)
    steps = ordered[np.arange(count - 1), np.arange(1, count)]  # from each stop to the next
    onward = np.append(steps, 0.0)  # nothing follows the last one
    # For a part first..last: the way in and the way on change ends.
    then = ordered[:-1, 1:] + np.append(ordered[1:, 2:], np.zeros((count - 1, 1)), axis=1)
    now = steps[:, None] + onward[None, 1:]
    saved = np.triu(now - then, k=1)
    best = int(np.argmax(saved))
    first, last = divmod(best, count - 1)
    if saved[first, last] <= LEAST_SAVED_KM:
        return None
    first, last = first + 1, last + 1
    return np.concatenate([at[:first], at[first : last + 1][::-1], at[last + 1 :]])


def _best_move(at: Order, km: NDArray[np.float64]) -> Order | None:
    """The order with up to three neighbors put where they lengthen it least; None where none saves."""
    best_saved, best = LEAST_SAVED_KM, None
    for length in range(1, min(MOST_MOVED, len(at) - 2) + 1):
        for first in range(1, len(at) - length + 1):
            part, rest = at[first : first + length], np.delete(at, np.s_[first : first + length])
            saved = km[at[first - 1], part[0]]
            if first + length < len(at):
                saved += km[part[-1], at[first + length]] - km[at[first - 1], at[first + length]]
            # After each stop of the rest; behind the last one nothing follows.
            onward = np.append(km[part[-1], rest[1:]] - km[rest[:-1], rest[1:]], 0.0)
            added = km[rest, part[0]] + onward
            place = int(np.argmin(added))
            if saved - added[place] > best_saved:
                best_saved = float(saved - added[place])
                best = np.concatenate([rest[: place + 1], part, rest[place + 1 :]])
    return best


def length_km(stops: Sequence[UUID], places: Mapping[UUID, Place]) -> float:
    """The way along the stops in their order, as the crow flies."""
    known = [places[stop] for stop in stops if stop in places]
    return sum(distance_km(one, other) for one, other in pairwise(known))
