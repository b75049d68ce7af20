"""The season of one pool: the ribbon, opening and closing lists, previewed, kept and ticked, and the
water's climate.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import Conflict, InvalidInput, NotFound
from kumpan.core.findings import Finding
from kumpan.core.forecast.expected import measured_readings
from kumpan.core.journal import (
    ClimateSet,
    ListItemDone,
    Outcome,
    PoolState,
    SeasonListSaved,
    Which,
)
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.maintenance.ribbon import AHEAD, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.shapes import area_m2
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Number
from kumpan.core.ranges.disagreements import answer
from kumpan.core.season.climate import Crossing, crossing, monthly_water_c, water_on_c
from kumpan.core.season.doses import ItemDoses, item_doses
from kumpan.core.season.materials import material_key, materials_of
from kumpan.core.season.plans import DatedItem, SeasonPlan, saved_plan
from kumpan.core.season.saved import RecordedItem, is_green, records_of, saved_lists
from kumpan.core.season.suggested import Suggested, suggested
from kumpan.core.season.winter import winter_loss
from kumpan.core.treatment.dusk import next_evening
from kumpan.core.treatment.special.shock import ShockRequest, ShockStrategy
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.maintenance.maintenance import calendar_days
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.pools import PoolParts, parts_of
from kumpan.services.treatments.at_hand import AtHand, at_hand, display_options

MOST_DAYS_OFF = 366
WORTH_A_MARK_DAYS = 10.0  # what comes round more often would only darken the strip
USUAL_DEPTH_M = 1.5
MOST_OWN = 40
COLDEST_C, HOTTEST_C = -2.0, 42.0


@dataclass(frozen=True, kw_only=True)
class ItemRecord:
    """How an item was ticked; `entry_id` takes it back."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    outcome: Outcome
    note: str


@dataclass(frozen=True)
class ListItem:
    """An item with its tick, its amounts by the last test, and until when to circulate after it."""

    item: DatedItem
    done_as: ItemRecord | None
    doses: ItemDoses | None
    circulate_until: datetime | None


@dataclass(frozen=True)
class MaterialLine:
    """A thing to have at hand, by the key that ticks it; `entry_id` takes its tick back."""

    name: Message
    key: str
    at_hand: bool
    entry_id: UUID | None


@dataclass(frozen=True, kw_only=True)
class SeasonListView:
    """One list.

    `kept` is how it is kept (a preview is not kept yet); `tested_at` the test behind the amounts.
    """

    saved: SeasonListSaved
    is_saved: bool
    items: tuple[ListItem, ...]
    materials: tuple[MaterialLine, ...]
    notes: tuple[Message, ...]
    winter: tuple[Finding, ...]
    crossing: Crossing
    tested_at: datetime | None
    done: int


@dataclass(frozen=True, kw_only=True)
class ClimateView:
    """The water by month, C; `own` once the user has set it; and what a new list begins with."""

    monthly_c: tuple[float, ...]
    own: bool
    opening: Crossing
    closing: Crossing
    suggested: Suggested


async def season_of(scope: Scope, pool_id: UUID) -> Ribbon:
    """The year as one strip, with what is due ahead."""
    state = await modeled_state(scope, pool_id)
    zone = ZoneInfo(parts_of(state).settings.time_zone)
    due = tuple(
        RibbonMark(datetime.combine(day.day, time(9), zone), RibbonRow.DUE, item.title, 0.7)
        for day in await calendar_days(scope, pool_id, AHEAD.days)
        for item in day.items
        if item.days is None or item.days >= WORTH_A_MARK_DAYS
    )
    return ribbon(state, scope.now, due)


async def season_list(
    scope: Scope, pool_id: UUID, request: SeasonListSaved, *, units: Units
) -> SeasonListView:
    """A list as it would be kept. Raises InvalidInput for a day that is nowhere near."""
    _check_day(scope, request.day)
    state = await modeled_state(scope, pool_id)
    hand = await at_hand(scope)
    return _view(scope, state, parts=parts_of(state), hand=hand, saved=request, is_saved=False, units=units)


async def season_lists(scope: Scope, pool_id: UUID, *, units: Units) -> tuple[SeasonListView, ...]:
    """The kept lists, in the order of their days."""
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope)
    return tuple(
        _view(scope, state, parts=parts, hand=hand, saved=saved, is_saved=True, units=units)
        for saved in saved_lists(state)
    )


def _check_day(scope: Scope, day: date) -> None:
    if abs((day - scope.now.date()).days) > MOST_DAYS_OFF:
        raise InvalidInput(Message("Choose a day within a year of today."), "day")


def _view(
    scope: Scope,
    state: PoolState,
    parts: PoolParts,
    hand: AtHand,
    saved: SeasonListSaved,
    *,
    is_saved: bool,
    units: Units,
) -> SeasonListView:
    zone = ZoneInfo(parts.settings.time_zone)
    latitude = place_of(parts.settings)[0]
    water_c = None if parts.equipment.traits.indoor else water_on_c(saved.day, state, latitude, zone)
    found = saved_plan(saved, parts.equipment.traits, green=is_green(state), water_c=water_c)
    question = _dose_question(scope, state, parts=parts, hand=hand, units=units)
    steps_done = records_of(state, saved.list_id)
    items = []
    for item in found.items:
        reported = None if item.every_days else _reported(steps_done.get(item.key))
        doses = (
            item_doses(item.dosed, question, hand.stocked)
            if item.dosed is not None and reported is None
            else None
        )
        items.append(ListItem(item, reported, doses, _circulate_until(scope, item, reported)))
    return SeasonListView(
        saved=saved,
        is_saved=is_saved,
        items=tuple(items),
        materials=_materials(found, steps_done),
        notes=found.notes,
        winter=_winter(parts, state, saved),
        crossing=crossing(
            saved.which, state, latitude_deg=latitude, zone=zone, today=local_day(scope.now, zone)
        ),
        tested_at=state.last_test.at if state.last_test is not None else None,
        done=sum(one.done_as is not None for one in items),
    )


def _reported(record: RecordedItem | None) -> ItemRecord | None:
    if record is None:
        return None
    body, entry = record.body, record.entry
    return ItemRecord(
        entry_id=entry.id, at=entry.at, person_id=entry.person_id, outcome=body.outcome, note=body.note
    )


def _materials(found: SeasonPlan, steps_done: Mapping[str, RecordedItem]) -> tuple[MaterialLine, ...]:
    return tuple(
        MaterialLine(
            one.name, one.key, one.at_hand, one.done_as.entry.id if one.done_as is not None else None
        )
        for one in materials_of(found.materials, steps_done)
    )


def _circulate_until(scope: Scope, item: DatedItem, reported: ItemRecord | None) -> datetime | None:
    """The end of the circulation after a ticked step, while it is still ahead."""
    if reported is None or reported.outcome is not Outcome.DONE or not item.minutes:
        return None
    until = reported.at + timedelta(minutes=item.minutes)
    return until if until > scope.now else None


def _winter(parts: PoolParts, state: PoolState, saved: SeasonListSaved) -> tuple[Finding, ...]:
    if saved.which is not Which.CLOSING or parts.equipment.traits.indoor:
        return ()
    area = sum(area_m2(part) for part in parts.basin.parts)
    depth = parts.basin.volume_l / 1000 / area if area else USUAL_DEPTH_M
    return winter_loss(measured_readings(state), depth, saved.winter, skimmer_plate=saved.skimmer_plate).notes


def _dose_question(
    scope: Scope, state: PoolState, parts: PoolParts, hand: AtHand, units: Units
) -> ShockRequest:
    zone, choices = ZoneInfo(parts.settings.time_zone), parts.settings.choices
    strategy = ShockStrategy(answer(choices, "shock"))
    return ShockRequest(
        readings=water_now(state, parts.place, scope.now),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        inventory=hand.products,
        bands=dict(parts.rules.bands),
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        strategy=ShockStrategy.FIXED if strategy is ShockStrategy.OXIDIZER else strategy,
        now=scope.now,
        evening=next_evening(scope.now, *place_of(parts.settings), zone),
        zone=zone,
        display=display_options(parts.settings, hand.preferences, units=units),
    )


async def keep_list(
    scope: Scope, pool_id: UUID, stamp: Stamp, saved: SeasonListSaved, *, units: Units
) -> tuple[SeasonListView, ...]:
    """Keep a list, or change one that is kept.

    Raises InvalidInput for a far day, an item twice or without a name.
    """
    _check_day(scope, saved.day)
    keys = [item.key for item in saved.own]
    if len(set(keys)) != len(keys) or len(keys) > MOST_OWN:
        raise InvalidInput(
            Message(
                "Own items need keys of their own, at most {most_own} of them.", most_own=Number(MOST_OWN)
            ),
            "own",
        )
    if any(not item.title.strip() for item in saved.own):
        raise InvalidInput(Message("Give your own item a few words, so that it can be ticked."), "own")
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
        raise Conflict(Message("This item was already ticked; take that tick back first."), "item")


def _plan(state: PoolState, parts: PoolParts, saved: SeasonListSaved) -> SeasonPlan:
    return saved_plan(saved, parts.equipment.traits, green=is_green(state))


async def climate(scope: Scope, pool_id: UUID) -> ClimateView:
    """The water by month, and the crossings that follow."""
    state = await modeled_state(scope, pool_id)
    settings = parts_of(state).settings
    latitude, zone = place_of(settings)[0], ZoneInfo(settings.time_zone)
    today, monthly_c = local_day(scope.now, zone), monthly_water_c(state, latitude)
    opening, closing = (
        crossing(which, state, latitude_deg=latitude, zone=zone, today=today) for which in Which
    )
    begins_with = suggested(state, monthly_c, opening=opening, closing=closing, today=today)
    return ClimateView(
        monthly_c=monthly_c, own=bool(state.climates), opening=opening, closing=closing, suggested=begins_with
    )


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
