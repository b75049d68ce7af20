"""A technician's round: the day's stops, what each needs, the load list, what to come back for."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import partial
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.findings import Finding
from kumpan.core.journal import (
    AdditionMade,
    Entry,
    PoolState,
    RoundSet,
    TruckCounted,
    effective,
    of_kind,
)
from kumpan.core.maintenance.due import Standing, due_list
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.maintenance.test_intervals import DueTest, Rhythm, due_tests
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.records.step import ADD
from kumpan.core.treatment.plan import Plan
from kumpan.core.visits.load_list import TRAYS, LoadLine, load_list
from kumpan.core.visits.order import length_km, nearest_next
from kumpan.core.visits.until_next import Between, UntilNext, until_next
from kumpan.services.assessment.queries import head
from kumpan.services.each_pool import each_pool
from kumpan.services.journal.ledger import Scope, entries_in, pool_ids
from kumpan.services.maintenance.queries import care_inputs
from kumpan.services.pools.expectations import model_of, modeled_state, water_now
from kumpan.services.pools.outlooks import outlook_of
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, offered_plan, parts_of
from kumpan.services.pools.views import PoolHeader
from kumpan.services.products.queries import roughly_text
from kumpan.services.treatments.at_hand import AtHand, at_hand
from kumpan.services.visits.views import LoadLineView, RoundView, StopNeed, StopView, TrayView, VisitView

VISIT_EVERY = timedelta(days=7)
MOST_STOPS = 40
DRIFTS = ("stabiliser_climbs", "salt_due", "off_prediction", "volume_hint", "low_now", "over_limit")
WEEKDAYS = (
    Message("Monday"),
    Message("Tuesday"),
    Message("Wednesday"),
    Message("Thursday"),
    Message("Friday"),
    Message("Saturday"),
    Message("Sunday"),
)


@dataclass(frozen=True)
class _Book:
    """The workspace's rounds and trucks: the last word for each technician."""

    rounds: Mapping[tuple[UUID | None, int], RoundSet]
    counts: Mapping[tuple[UUID | None, str], Entry[TruckCounted]]
    poured: tuple[Entry[AdditionMade], ...]


async def _book(scope: Scope) -> _Book:
    kinds = ("round", "truck", "addition", "void")
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, kinds)
    entries = effective(entries_in(rows), scope.now)
    return _Book(
        {(entry.person_id, entry.body.weekday): entry.body for entry in of_kind(entries, RoundSet)},
        {(entry.person_id, entry.body.product_id): entry for entry in of_kind(entries, TruckCounted)},
        tuple(of_kind(entries, AdditionMade)),
    )


def _on_truck(book: _Book, person_id: UUID | None) -> dict[str, float]:
    """By product id, g: as last counted, less what that technician poured since."""
    left: dict[str, float] = {}
    for (who, product_id), counted in book.counts.items():
        if who == person_id:
            poured = (e.body for e in book.poured if e.person_id == who and e.at > counted.at)
            since = sum(b.mass_g for b in poured if b.product_id == product_id)
            left[product_id] = counted.body.mass_g - since
    return left


async def the_round(scope: Scope, person_id: UUID | None, weekday: int | None, *, units: Units) -> RoundView:
    """One technician's round on a weekday (today's where none is named), its load list and exceptions."""
    book, ids = await _book(scope), await pool_ids(scope)
    heads = await each_pool(ids, partial(head, scope))
    zone = _zone(heads.values())
    today = scope.now.astimezone(zone)
    day = today.weekday() if weekday is None else weekday
    found = book.rounds.get((person_id, day))
    listed = [stop for stop in found.stops if stop in heads] if found is not None else []
    stops, needs = [], dict[Product, float]()
    for id_ in listed:
        stop, wanted = await _stop(scope, id_, top=heads[id_], today=day == today.weekday(), units=units)
        stops.append(stop)
        for product, grams in wanted.items():
            needs[product] = needs.get(product, 0.0) + grams
    places = {id_: place_of(heads[id_].settings) for id_ in listed}
    nearest = nearest_next(listed, places)
    drifting = await each_pool(
        (id_ for id_ in heads if id_ not in listed), lambda id_: _drifting(scope, id_, heads[id_])
    )
    return RoundView(
        weekday=day,
        day_name=WEEKDAYS[day],
        is_today=day == today.weekday(),
        stops=tuple(stops),
        others=tuple(drifting.values()),
        load=_trays(load_list(needs, _on_truck(book, person_id)), units),
        nearest_next=nearest if nearest != tuple(listed) else (),
        length_km=length_km(listed, places),
        nearest_km=length_km(nearest, places),
        days=tuple(sorted({key[1] for key in book.rounds if key[0] == person_id and book.rounds[key].stops})),
    )


def _zone(heads: Iterable[PoolHeader]) -> ZoneInfo:
    """The round is driven on the clock of the first pool."""
    return next((ZoneInfo(one.settings.time_zone) for one in heads), ZoneInfo("UTC"))


async def _stop(
    scope: Scope, pool_id: UUID, top: PoolHeader, *, today: bool, units: Units
) -> tuple[StopView, dict[Product, float]]:
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope)
    offered = await offered_plan(scope, state, parts, units=units)
    tests = due_tests(state, parts.equipment.traits, Rhythm.SERVICE, scope.now)
    doses, needs = _doses(offered, hand, units)
    if parts.basin.volume_is_unknown:
        needs = {}  # its doses are for each 1,000 gal; nobody can say how much to load
    next_time = await _until_next(
        scope, pool_id, state=state, parts=parts, offered=offered, hand=hand, units=units
    )
    view = StopView(
        head=top,
        tests=_needs(tests),
        care=_care_due(state, parts, scope.now),
        doses=doses,
        next_visit=next_time.sentences if next_time else (),
        holds=next_time.holds if next_time else None,
        drift=await _drift(scope, pool_id),
        done=_visit_today(state, scope.now, ZoneInfo(parts.settings.time_zone)) if today else None,
        last_visit=_last_visit(state),
    )
    return view, needs


def _care_due(state: PoolState, parts: PoolParts, now: datetime) -> tuple[Message, ...]:
    """What of the equipment's care is due at this visit, by a technician's intervals."""
    inputs = replace(care_inputs(state, parts), preset=Preset.SERVICE)
    items = due_list(inputs, now)
    return tuple(
        item.title
        for item in items
        if item.standing in (Standing.DUE, Standing.OVERDUE) and item.station != "slip"
    )


AT_EVERY_STOP = (Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE, Measure.PH)


def _needs(tests: Sequence[DueTest]) -> tuple[StopNeed, ...]:
    """Chlorine and pH at every visit, the others by their date."""
    always = tuple(StopNeed(measure, Message("At every visit.")) for measure in AT_EVERY_STOP)
    due = (StopNeed(test.measure, test.why) for test in tests if test.measure not in AT_EVERY_STOP)
    return (*always, *due)


def _doses(
    offered: Plan | None, hand: AtHand, units: Units
) -> tuple[tuple[Message, ...], dict[Product, float]]:
    """What the offered sheet pours, in words and in g by product of the shelf."""
    products = {product.id: product for product in hand.products}
    needs: dict[Product, float] = {}
    for step in offered.steps if offered is not None else ():
        product = products.get(step.product_id or "")
        if step.kind == ADD and product is not None and step.day == 1:
            needs[product] = needs.get(product, 0.0) + (step.rounded_g or 0.0)
    words = tuple(
        Message(
            "{amount} {product}",
            amount=roughly_text(product, grams, units),
            product=Verbatim(product.label),
        )
        for product, grams in needs.items()
    )
    return words, needs


async def _until_next(
    scope: Scope,
    pool_id: UUID,
    state: PoolState,
    parts: PoolParts,
    offered: Plan | None,
    hand: AtHand,
    units: Units,
) -> UntilNext | None:
    """What the next weekly visit will find after today's sheet; None without a model to say it by."""
    found = await model_of(state, parts.place)
    loss = (await outlook_of(scope, pool_id)).loss_mg_l_day
    minimum = parts.bands[Measure.FREE_CHLORINE].low
    if found is None or loss is None or minimum is None:
        return None
    now = water_now(state, parts.place, scope.now).free_chlorine or 0.0
    then = offered.predicted.free_chlorine if offered is not None and offered.steps else now
    return until_next(
        Between(
            state=state,
            place=parts.place,
            traits=parts.equipment.traits,
            fitted=found,
            now=scope.now,
            visit_at=scope.now + VISIT_EVERY,
            dose_mg_l=max(0.0, (then or now) - now),
            minimum_mg_l=minimum,
            limit_mg_l=parts.rules.swim_limit_mg_l,
            loss_mg_l_day=loss,
            zone=ZoneInfo(parts.settings.time_zone),
            products=hand.products,
            units=units,
        )
    )


async def _drift(scope: Scope, pool_id: UUID) -> tuple[Finding, ...]:
    """What the outlook says that a technician should see coming."""
    said = (await outlook_of(scope, pool_id)).sentences
    return tuple(sentence for sentence in said if sentence.code in DRIFTS)


async def _drifting(scope: Scope, pool_id: UUID, top: PoolHeader) -> StopView:
    """A pool outside today's round: its head and what drifts."""
    state = await modeled_state(scope, pool_id)
    return StopView(
        head=top,
        tests=(),
        care=(),
        doses=(),
        next_visit=(),
        holds=None,
        drift=await _drift(scope, pool_id),
        done=None,
        last_visit=_last_visit(state),
    )


def _visits(state: PoolState) -> list[VisitView]:
    return [
        VisitView(
            entry_id=entry.id,
            at=entry.at,
            person_id=entry.person_id,
            note=entry.body.note,
            needs_return=entry.body.needs_return,
            trade=entry.body.trade,
        )
        for entry in state.visits
    ]


def _last_visit(state: PoolState) -> VisitView | None:
    visits = _visits(state)
    return visits[-1] if visits else None


def _visit_today(state: PoolState, now: datetime, zone: ZoneInfo) -> VisitView | None:
    last = _last_visit(state)
    same = last is not None and last.at.astimezone(zone).date() == now.astimezone(zone).date()
    return last if same else None


def _trays(lines: Sequence[LoadLine], units: Units) -> tuple[TrayView, ...]:
    found = []
    for row in TRAYS:
        inside = tuple(_load_view(line, units) for line in lines if line.tray is row.tray)
        if inside:
            found.append(TrayView(row.title, row.caution, inside))
    return tuple(found)


def _load_view(line: LoadLine, units: Units) -> LoadLineView:
    def words(grams: float) -> Message:
        return roughly_text(line.product, grams, units) if grams > 0 else Message("none")

    return LoadLineView(
        product_id=line.product.id,
        label=line.product.label,
        need_text=words(line.need_g),
        on_truck_text=(Message("not counted") if line.on_truck_g is None else words(line.on_truck_g)),
        short_text=(words(line.short_g) if line.short_g > 0 else NOTHING),
    )
