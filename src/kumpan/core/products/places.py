"""Where a product stands, and which pools it serves. Common practice of the trade."""

from collections.abc import Collection
from uuid import UUID

from kumpan.core.journal.workspace_entries import Place, ProductPlaced

SOURCES_USED = ()


def serves(placed: ProductPlaced | None, pool_id: UUID | None, drivers: Collection[UUID] = ()) -> bool:
    """Whether a plan may pour it: what stands at a pool serves that pool alone, what rides on a truck the
    pools on its driver's rounds, what lies in the store is fetched first. Asked without a pool: whether it is
    there at all. `drivers`: who has the pool on a round.
    """
    place = placed.place if placed is not None else Place.HERE
    if place is Place.GONE or pool_id is None:
        return place is not Place.GONE
    if place is Place.POOL:
        return placed is not None and placed.pool_id == pool_id
    if place is Place.TRUCK:
        return placed is not None and placed.technician_id in drivers
    return place is Place.HERE
