"""The season of one pool: the ribbon, opening and closing lists, previewed, kept and ticked, and the water's climate."""

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
    ListTicked,
    Outcome,
    PoolState,
    SeasonListKept,
    Which,
)
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.maintenance.ribbon import AHEAD, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.core.pool.shapes import area_m2
from kumpan.core.ranges.disagreements import answer
from kumpan.core.season.climate import Crossing, crossing, monthly_water_c, water_on_c
from kumpan.core.season.doses import ItemDoses, item_doses
from kumpan.core.season.kept import TickedItem, is_green, kept_lists, ticks_of
from kumpan.core.season.materials import material_key, materials_of
from kumpan.core.season.plans import DatedItem, SeasonPlan, kept_plan
from kumpan.core.season.suggested import Suggested, suggested
from kumpan.core.season.winter import winter_loss
from kumpan.core.treatment.dusk import next_evening
from kumpan.core.treatment.special.shock import ShockAsked, ShockWay
from kumpan.services.journal.ledger import Scope, Stamp, pool_state, record
from kumpan.services.maintenance.maintenance import calendar_days
from kumpan.services.pools.expectations import water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.pools import PoolParts, parts_of
from kumpan.services.treatments.at_hand import AtHand, at_hand, telling

MOST_DAYS_OFF = 366
WORTH_A_MARK_DAYS = 10.0  # what comes round more often would only darken the strip
USUAL_DEPTH_M = 1.5
MOST_OWN = 40
COLDEST_C, HOTTEST_C = -2.0, 42.0


@dataclass(frozen=True)
class ItemTick:
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
    ticked: ItemTick | None
    doses: ItemDoses | None
    circulate_until: datetime | None


@dataclass(frozen=True)
class MaterialLine:
    """A thing to have at hand, by the key that ticks it; `entry_id` takes its tick back."""

    name: str
    key: str
    at_hand: bool
    entry_id: UUID | None


@dataclass(frozen=True)
class SeasonListView:
    """One list. `kept` is how it is kept (a preview is not kept yet); `tested_at` the test behind the amounts."""

    kept: SeasonListKept
    is_kept: bool
    items: tuple[ListItem, ...]
    materials: tuple[MaterialLine, ...]
    notes: tuple[str, ...]
    winter: tuple[Finding, ...]
    crossing: Crossing
    tested_at: datetime | None
    done: int


@dataclass(frozen=True)
class ClimateView:
    """The water by month, C; `own` once the user has set it; and what a new list begins with."""

    monthly_c: tuple[float, ...]
    own: bool
    opening: Crossing
    closing: Crossing
    suggested: Suggested


async def season_of(scope: Scope, pool_id: UUID) -> Ribbon:
    """The year as one strip, with what is due ahead."""
    state = await pool_state(scope, pool_id)
    zone = ZoneInfo(parts_of(state).settings.time_zone)
    due = tuple(
        RibbonMark(datetime.combine(day.day, time(9), zone), RibbonRow.DUE, item.title, 0.7)
        for day in await calendar_days(scope, pool_id, AHEAD.days)
        for item in day.items
        if item.days is None or item.days >= WORTH_A_MARK_DAYS
    )
    return ribbon(state, scope.now, due)


async def season_list(scope: Scope, pool_id: UUID, asked: SeasonListKept, *, metric: bool) -> SeasonListView:
    """A list as it would be kept. Raises InvalidInput for a day that is nowhere near."""
    _check_day(scope, asked.day)
    state = await pool_state(scope, pool_id)
    hand = await at_hand(scope)
    return _view(scope, state, parts_of(state), hand, asked, is_kept=False, metric=metric)


async def season_lists(scope: Scope, pool_id: UUID, *, metric: bool) -> tuple[SeasonListView, ...]:
    """The kept lists, in the order of their days."""
    state = await pool_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope)
    return tuple(
        _view(scope, state, parts, hand, kept, is_kept=True, metric=metric) for kept in kept_lists(state)
    )


def _check_day(scope: Scope, day: date) -> None:
    if abs((day - scope.now.date()).days) > MOST_DAYS_OFF:
        raise InvalidInput("Choose a day within a year of today.", "day")


def _view(
    scope: Scope,
    state: PoolState,
    parts: PoolParts,
    hand: AtHand,
    kept: SeasonListKept,
    *,
    is_kept: bool,
    metric: bool,
) -> SeasonListView:
    zone = ZoneInfo(parts.settings.time_zone)
    latitude = place_of(parts.settings)[0]
    water_c = None if parts.equipment.traits.indoor else water_on_c(kept.day, state, latitude, zone)
    found = kept_plan(kept, parts.equipment.traits, green=is_green(state), water_c=water_c)
    question = _dose_question(scope, state, parts, hand, metric)
    ticks = ticks_of(state, kept.list_id)
    items = []
    for item in found.items:
        tick = ticks.get(item.key)
        told = None
        if tick is not None and not item.every_days:
            body, entry = tick.body, tick.entry
            told = ItemTick(entry.id, entry.at, entry.person_id, body.outcome, body.note)
        doses = (
            item_doses(item.dosed, question, hand.stocked)
            if item.dosed is not None and told is None
            else None
        )
        items.append(ListItem(item, told, doses, _circulate_until(scope, item, told)))
    return SeasonListView(
        kept,
        is_kept,
        tuple(items),
        _materials(found, ticks),
        found.notes,
        _winter(parts, state, kept),
        crossing(kept.which, state, latitude, zone, local_day(scope.now, zone)),
        state.last_test.at if state.last_test is not None else None,
        sum(one.ticked is not None for one in items),
    )


def _materials(found: SeasonPlan, ticks: Mapping[str, TickedItem]) -> tuple[MaterialLine, ...]:
    return tuple(
        MaterialLine(one.name, one.key, one.at_hand, one.ticked.entry.id if one.ticked is not None else None)
        for one in materials_of(found.materials, ticks)
    )


def _circulate_until(scope: Scope, item: DatedItem, told: ItemTick | None) -> datetime | None:
    """The end of the circulation after a ticked step, while it is still ahead."""
    if told is None or told.outcome is not Outcome.DONE or not item.minutes:
        return None
    until = told.at + timedelta(minutes=item.minutes)
    return until if until > scope.now else None


def _winter(parts: PoolParts, state: PoolState, kept: SeasonListKept) -> tuple[Finding, ...]:
    if kept.which is not Which.CLOSING or parts.equipment.traits.indoor:
        return ()
    area = sum(area_m2(part) for part in parts.basin.parts)
    depth = parts.basin.volume_l / 1000 / area if area else USUAL_DEPTH_M
    return winter_loss(measured_readings(state), depth, kept.winter, skimmer_plate=kept.skimmer_plate).notes


def _dose_question(
    scope: Scope, state: PoolState, parts: PoolParts, hand: AtHand, metric: bool
) -> ShockAsked:
    zone, choices = ZoneInfo(parts.settings.time_zone), parts.settings.choices
    way = ShockWay(answer(choices, "shock"))
    return ShockAsked(
        water_now(state, parts.place, scope.now),
        parts.basin.volume_l,
        parts.equipment.traits,
        hand.products,
        dict(parts.rules.bands),
        parts.rules.swim_limit_mg_l,
        ShockWay.FIXED if way is ShockWay.OXIDISER else way,
        scope.now,
        next_evening(scope.now, *place_of(parts.settings), zone),
        zone,
        telling=telling(parts.settings, hand.habits, metric=metric),
    )


async def keep_list(
    scope: Scope, pool_id: UUID, stamp: Stamp, kept: SeasonListKept, *, metric: bool
) -> tuple[SeasonListView, ...]:
    """Keep a list, or change one that is kept. Raises InvalidInput for a far day, an item twice or without a name."""
    _check_day(scope, kept.day)
    keys = [item.key for item in kept.own]
    if len(set(keys)) != len(keys) or len(keys) > MOST_OWN:
        raise InvalidInput(f"Own items need keys of their own, at most {MOST_OWN} of them.", "own")
    if any(not item.title.strip() for item in kept.own):
        raise InvalidInput("Give your own item a few words, so that it can be ticked.", "own")
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, kept)
    return await season_lists(scope, pool_id, metric=metric)


async def tick_item(
    scope: Scope, pool_id: UUID, stamp: Stamp, told: ListTicked, *, metric: bool
) -> tuple[SeasonListView, ...]:
    """Tick an item. The same id again changes nothing; a second tick of an item is a Conflict. Raises NotFound."""
    state = await pool_state(scope, pool_id)
    if not any(entry.id == stamp.id for entry in state.list_ticks):
        _must_be_open(state, parts_of(state), told)
    await record(scope, pool_id, stamp, told)
    return await season_lists(scope, pool_id, metric=metric)


def _must_be_open(state: PoolState, parts: PoolParts, told: ListTicked) -> None:
    kept = next((one for one in kept_lists(state) if one.list_id == told.list_id), None)
    if kept is None:
        raise NotFound("This list is no longer kept; reload the season page.")
    plan = _plan(state, parts, kept)
    once = {item.key: not item.every_days for item in plan.items}
    once |= {material_key(name): True for name in plan.materials}
    if told.item not in once:
        raise InvalidInput(f'"{told.item}" is not on this list; reload it.', "item")
    if told.item in ticks_of(state, kept.list_id) and once[told.item]:
        raise Conflict("This item was already ticked; take that tick back first.", "item")


def _plan(state: PoolState, parts: PoolParts, kept: SeasonListKept) -> SeasonPlan:
    return kept_plan(kept, parts.equipment.traits, green=is_green(state))


async def climate(scope: Scope, pool_id: UUID) -> ClimateView:
    """The water by month, and the crossings that follow."""
    state = await pool_state(scope, pool_id)
    settings = parts_of(state).settings
    latitude, zone = place_of(settings)[0], ZoneInfo(settings.time_zone)
    today, monthly_c = local_day(scope.now, zone), monthly_water_c(state, latitude)
    opening, closing = (crossing(which, state, latitude, zone, today) for which in Which)
    begins_with = suggested(state, monthly_c, opening, closing, today)
    return ClimateView(monthly_c, bool(state.climates), opening, closing, begins_with)


async def set_climate(scope: Scope, pool_id: UUID, stamp: Stamp, body: ClimateSet) -> ClimateView:
    """Keep one's own table. Raises InvalidInput for what no pool has."""
    for value in body.monthly_c:
        if not COLDEST_C <= value <= HOTTEST_C:
            raise InvalidInput(
                "A month's water is between 28 and 108 F (-2 and 42 C); check the table.", "monthly"
            )
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, body)
    return await climate(scope, pool_id)
