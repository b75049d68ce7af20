"""Keep an opening or closing list, tick its items, set the climate."""

from uuid import UUID

from kumpan.core.errors import Conflict, InvalidInput, NotFound
from kumpan.core.journal import (
    ClimateSet,
    ListItemDone,
    Outcome,
    PoolState,
    SeasonListSaved,
    is_green,
)
from kumpan.core.maintenance.done_elsewhere import LIST_ITEMS
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Number
from kumpan.core.season.materials import material_key
from kumpan.core.season.plans import SeasonPlan, saved_plan
from kumpan.core.season.saved import records_of, saved_lists
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.maintenance.commands import lose_water_by
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.season.queries import check_day, climate, season_lists
from kumpan.services.season.views import ClimateView, SeasonListView

COLDEST_C, HOTTEST_C = -2.0, 42.0
MOST_OWN = 40


async def keep_list(
    scope: Scope, pool_id: UUID, stamp: Stamp, saved: SeasonListSaved, *, units: Units
) -> tuple[SeasonListView, ...]:
    """Keep a list, or change one that is kept.

    Raises InvalidInput for a far day, an item twice or without a name.
    """
    check_day(scope, saved.day)
    keys = [item.key for item in saved.own]
    if len(set(keys)) != len(keys) or len(keys) > MOST_OWN:
        raise InvalidInput(
            Message(
                "Own items need keys of their own, at most {most_own} of them.", most_own=Number(MOST_OWN)
            ),
            "own",
        )
    if any(not item.title.strip() for item in saved.own):
        raise InvalidInput(Message("Give your own item a few words, so that it can be marked done."), "own")
    await modeled_state(scope, pool_id)
    await record(scope, pool_id, stamp, saved)
    return await season_lists(scope, pool_id, units=units)


async def record_item(
    scope: Scope, pool_id: UUID, stamp: Stamp, reported: ListItemDone, *, units: Units
) -> tuple[SeasonListView, ...]:
    """Tick an item.

    The same id again changes nothing; a second tick of an item is a Conflict. Raises NotFound.
    """
    state = await modeled_state(scope, pool_id)
    if not any(entry.id == stamp.id for entry in state.list_items_done):
        _must_be_open(state, parts_of(state), reported)
    await record(scope, pool_id, stamp, reported)
    if reported.outcome is Outcome.DONE:
        await lose_water_by(scope, stamp, state, LIST_ITEMS.get(reported.item, ()))
    return await season_lists(scope, pool_id, units=units)


def _must_be_open(state: PoolState, parts: PoolParts, reported: ListItemDone) -> None:
    saved = next((one for one in saved_lists(state) if one.list_id == reported.list_id), None)
    if saved is None:
        raise NotFound(Message("This list is no longer kept; reload the season page."))
    plan = _plan(state, parts, saved)
    once = {item.key: not item.every_days for item in plan.items}
    once |= {material_key(name): True for name in plan.materials}
    if reported.item not in once:
        raise InvalidInput(
            Message('"{item}" is not on this list; reload it.', item=Verbatim(reported.item)), "item"
        )
    if reported.item in records_of(state, saved.list_id) and once[reported.item]:
        raise Conflict(Message("This item was already marked done; take that back first."), "item")


def _plan(state: PoolState, parts: PoolParts, saved: SeasonListSaved) -> SeasonPlan:
    return saved_plan(saved, parts.equipment.traits, green=is_green(state))


async def set_climate(scope: Scope, pool_id: UUID, stamp: Stamp, body: ClimateSet) -> ClimateView:
    """Keep one's own table. Raises InvalidInput for what no pool has."""
    for value in body.monthly_c:
        if not COLDEST_C <= value <= HOTTEST_C:
            raise InvalidInput(
                Message("A month's water is between 28 and 108 F (-2 and 42 C); check the table."), "monthly"
            )
    await modeled_state(scope, pool_id)
    await record(scope, pool_id, stamp, body)
    return await climate(scope, pool_id)
