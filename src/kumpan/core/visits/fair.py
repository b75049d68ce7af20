"""The same pools on fairer days: as much work on each, on a shorter way.

One way through all pools is cut into as many days as there are, so that the longest is as short as can be:
route first, cluster second (Beasley 1983, from memory). A suggestion; a person takes it.

Source: firm-planning.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from uuid import UUID

from kumpan.core.visits.order import Place, distance_km, length_km, shorter_drive
from kumpan.core.visits.weeks import PARK_MIN, ROAD_FACTOR, USUAL_STOP_MIN, drive_min

SOURCE = "firm-planning"

Slot = tuple[UUID, int]
CLOSE_ENOUGH_MIN = 0.5


@dataclass(frozen=True)
class Measure:
    """What a set of rounds comes to: km a week by road, the longest and the shortest day."""

    km: float
    longest_min: float
    shortest_min: float


@dataclass(frozen=True)
class Fair:
    """The suggested stops by technician and weekday, and what both come to."""

    rounds: Mapping[Slot, tuple[UUID, ...]]
    before: Measure
    after: Measure


def day_min(stops: Sequence[UUID], places: Mapping[UUID, Place], minutes: Mapping[UUID, float]) -> float:
    """Minutes of a day with these stops in this order."""
    work = sum(minutes.get(stop, USUAL_STOP_MIN) + PARK_MIN for stop in stops)
    return work + drive_min(length_km(stops, places))


def measured(
    rounds: Mapping[Slot, Sequence[UUID]], places: Mapping[UUID, Place], minutes: Mapping[UUID, float]
) -> Measure:
    """Over the days that have any stops or could have; zeros without a round."""
    days = [day_min(stops, places, minutes) for stops in rounds.values()]
    km = sum(length_km(stops, places) for stops in rounds.values()) * ROAD_FACTOR
    return Measure(km, max(days, default=0.0), min(days, default=0.0))


def fair_rounds(
    rounds: Mapping[Slot, Sequence[UUID]], places: Mapping[UUID, Place], minutes: Mapping[UUID, float]
) -> Fair:
    """For the days that the rounds have; a pool that stands on several days of a week keeps them all."""
    slots = sorted(rounds, key=lambda slot: (slot[1], str(slot[0])))
    often = {stop for stop in _all(rounds) if sum(stop in stops for stops in rounds.values()) > 1}
    free = [stop for stop in _all(rounds) if stop not in often]
    fixed = {slot: [stop for stop in rounds[slot] if stop in often] for slot in slots}
    before = measured(rounds, places, minutes)
    if not slots:
        return Fair({}, before, before)
    parts = _cut(shorter_drive(free, places), len(slots), places, minutes)
    found: dict[Slot, tuple[UUID, ...]] = {}
    left = list(slots)
    # Each part goes to the day that has most of its pools today: customers know their day.
    for part in sorted(parts, key=len, reverse=True):
        slot = max(left, key=lambda one: (len(set(part) & set(rounds[one])), -slots.index(one)))
        left.remove(slot)
        found[slot] = shorter_drive((*part, *fixed[slot]), places)
    return Fair(found, before, measured(found, places, minutes))


def _all(rounds: Mapping[Slot, Sequence[UUID]]) -> tuple[UUID, ...]:
    return tuple(dict.fromkeys(stop for slot in sorted(rounds, key=str) for stop in rounds[slot]))


def _cut(
    order: Sequence[UUID], days: int, places: Mapping[UUID, Place], minutes: Mapping[UUID, float]
) -> list[tuple[UUID, ...]]:
    """The order in at most so many parts, the longest as short as a search by halves finds."""
    if days <= 1 or not order:
        return [tuple(order), *[()] * (days - 1)]
    work = [minutes.get(stop, USUAL_STOP_MIN) + PARK_MIN for stop in order]
    roads = [0.0, *(_drive(one, other, places) for one, other in pairwise(order))]
    low, high = max(work), sum(work) + sum(roads)
    while high - low > CLOSE_ENOUGH_MIN:
        middle = (low + high) / 2
        if len(_parts(work, roads, middle)) <= days:
            high = middle
        else:
            low = middle
    cuts = [*_parts(work, roads, high), len(order)]
    parts = [tuple(order[a:b]) for a, b in pairwise(cuts)]
    return parts + [()] * (days - len(parts))


def _parts(work: Sequence[float], roads: Sequence[float], most_min: float) -> list[int]:
    """Where each part begins, if none is longer than that."""
    begins, total = [0], work[0]
    for at in range(1, len(work)):
        if total + roads[at] + work[at] > most_min:
            begins.append(at)
            total = work[at]
        else:
            total += roads[at] + work[at]
    return begins


def _drive(one: UUID, other: UUID, places: Mapping[UUID, Place]) -> float:
    known = one in places and other in places
    return drive_min(distance_km(places[one], places[other])) if known else 0.0
