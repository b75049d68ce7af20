"""When the stops that are left will be reached, by the clock of now: a late start moves the whole day.

Source: firm-planning.
"""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from uuid import UUID

from kumpan.core.visits.order import Place, distance_km
from kumpan.core.visits.weeks import PARK_MIN, USUAL_STOP_MIN, drive_min

SOURCE = "firm-planning"


def arrivals(
    now: datetime,
    left: Sequence[UUID],
    places: Mapping[UUID, Place],
    minutes: Mapping[UUID, float],
    *,
    come_from: UUID | None = None,
) -> dict[UUID, datetime]:
    """By stop; `come_from` is where the truck stands; where nobody knows, the first stop is reached now."""
    found, at, before = {}, now, come_from
    for stop in left:
        if before is not None and before in places and stop in places:
            at += timedelta(minutes=drive_min(distance_km(places[before], places[stop])))
        found[stop] = at
        at += timedelta(minutes=minutes.get(stop, USUAL_STOP_MIN) + PARK_MIN)
        before = stop
    return found
