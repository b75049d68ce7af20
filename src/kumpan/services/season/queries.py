"""The season of one pool: the ribbon, opening and closing lists, previewed, kept and ticked, and the
water's climate.
"""

from collections.abc import Mapping
from datetime import date, datetime, time, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.forecast.expected import last_values, measured_readings
from kumpan.core.journal import (
    Outcome,
    PoolState,
    SeasonListSaved,
    Which,
    is_green,
)
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.maintenance.ribbon import AHEAD, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.core.messages import Message
from kumpan.core.pool.shapes import area_m2
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.disagreements import answer
from kumpan.core.season.climate import crossing, crossing_text, monthly_water_c, season_text, water_on_c
from kumpan.core.season.doses import item_doses
from kumpan.core.season.materials import materials_of
from kumpan.core.season.plans import DatedItem, SeasonPlan, saved_plan
from kumpan.core.season.saved import RecordedItem, records_of, saved_lists
from kumpan.core.season.suggested import suggested
from kumpan.core.season.winter import winter_loss
from kumpan.core.treatment.dusk import next_evening
from kumpan.core.treatment.special.shock import ShockRequest, ShockStrategy
from kumpan.services.journal.ledger import Scope
from kumpan.services.maintenance.queries import calendar_days
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.season.views import ClimateView, ItemRecord, ListItem, MaterialLine, SeasonListView
from kumpan.services.treatments.at_hand import AtHand, at_hand, display_options

MOST_DAYS_OFF = 366
WORTH_A_MARK_DAYS = 10.0  # what comes round more often would only darken the strip
USUAL_DEPTH_M = 1.5


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
    check_day(scope, request.day)
    state = await modeled_state(scope, pool_id)
    hand = await at_hand(scope, pool_id)
    return _view(scope, state, parts=parts_of(state), hand=hand, saved=request, is_saved=False, units=units)


async def season_lists(scope: Scope, pool_id: UUID, *, units: Units) -> tuple[SeasonListView, ...]:
    """The kept lists, in the order of their days."""
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope, pool_id)
    return tuple(
        _view(scope, state, parts=parts, hand=hand, saved=saved, is_saved=True, units=units)
        for saved in saved_lists(state)
    )


def check_day(scope: Scope, day: date) -> None:
    """Raises InvalidInput for a day that is more than a year away."""
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
    latitude, indoor = place_of(parts.settings)[0], parts.equipment.traits.indoor
    water_c = None if indoor else water_on_c(saved.day, state, latitude, zone)
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
    today = local_day(scope.now, zone)
    crosses = crossing(saved.which, state, indoor=indoor, latitude_deg=latitude, zone=zone, today=today)
    return SeasonListView(
        saved=saved,
        is_saved=is_saved,
        items=tuple(items),
        materials=_materials(found, steps_done),
        notes=found.notes,
        winter=_winter(parts, state, saved),
        crossing=crosses,
        crossing_text=crossing_text(saved.which, crosses, today),
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
        measured=last_values(state),
    )


async def climate(scope: Scope, pool_id: UUID) -> ClimateView:
    """The water by month, and the crossings that follow."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    settings, indoor = parts.settings, parts.equipment.traits.indoor
    latitude, zone = place_of(settings)[0], ZoneInfo(settings.time_zone)
    today, monthly_c = local_day(scope.now, zone), monthly_water_c(state, latitude)
    opening, closing = (
        crossing(which, state, indoor=indoor, latitude_deg=latitude, zone=zone, today=today)
        for which in Which
    )
    begins_with = suggested(state, monthly_c, opening=opening, closing=closing, today=today)
    return ClimateView(
        monthly_c=monthly_c,
        own=bool(state.climates),
        opening=opening,
        closing=closing,
        text=season_text(opening, closing, today),
        suggested=begins_with,
    )
