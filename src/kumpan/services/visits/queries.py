"""A technician's round: the day's stops, what each needs, the load list, what to come back for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.journal import Entry, TruckCounted, effective, of_kind
from kumpan.core.messages import NOTHING, Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import Units
from kumpan.core.visits.arrivals import arrivals
from kumpan.core.visits.load_list import TRAYS, LoadLine, load_list
from kumpan.core.visits.order import Place, length_km, shorter_drive
from kumpan.services.assessment.summaries import Renewal, beside, some, visit_of
from kumpan.services.journal.ledger import Scope, entries_in, pool_ids, pool_state
from kumpan.services.journal.rounds import Rounds, rounds
from kumpan.services.products.queries import roughly_text
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.visits.firm import changed_today
from kumpan.services.visits.views import LoadLineView, RoundView, TrayView
from kumpan.storage.repositories.summaries import Summary

MOST_STOPS = 40
MOST_OTHERS = 50
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

    rounds: Rounds
    counts: Mapping[tuple[UUID | None, str], Entry[TruckCounted]]


async def _book(scope: Scope) -> _Book:
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, ("truck", "void"))
    entries = effective(entries_in(rows), scope.now)
    return _Book(
        await rounds(scope.tx, scope.workspace_id, scope.now),
        {(entry.person_id, entry.body.product_id): entry for entry in of_kind(entries, TruckCounted)},
    )


async def _on_truck(scope: Scope, book: _Book, person_id: UUID | None) -> dict[str, float]:
    """By product id, g: as last counted, less what that technician poured since."""
    left: dict[str, float] = {}
    for (who, product_id), counted in book.counts.items():
        if who == person_id:
            since = await scope.tx.poured.by_person(
                scope.workspace_id, person_id, product_id=product_id, after=counted.at
            )
            left[product_id] = counted.body.mass_g - since
    return left


async def the_round(
    scope: Scope, person_id: UUID | None, weekday: int | None, *, renewal: Renewal, units: Units
) -> RoundView:
    """One technician's round on a weekday (today's where none is named), its load list and exceptions.

    Stops and pools come from the stored summaries; what is out of date on them is made anew.
    """
    book, here = await _book(scope), await pool_ids(scope)
    zone = await zone_of_rounds(scope, here)
    today = scope.now.astimezone(zone)
    day = today.weekday() if weekday is None else weekday
    is_today = day == today.weekday()
    standing = [stop for stop in book.rounds.get((person_id, day), ()) if stop in here]
    planned = await changed_today(scope, person_id, today.date(), renewal) if is_today else None
    listed = standing if planned is None else [stop.pool for stop in planned if stop.pool in here]
    stops = [one for one in await some(scope, listed, renewal) if not one.unreadable]
    listed = [one.pool_id for one in stops]
    places = {one.pool_id: visit_of(one).place for one in stops}
    # An order is suggested for the weekly round, not for a day that differs from it.
    nearest = shorter_drive(listed, places) if planned is None else tuple(listed)
    done = frozenset(one.pool_id for one in stops if is_today and _done(one, scope.now))
    others = await beside(scope, listed, MOST_OTHERS, renewal)
    return RoundView(
        weekday=day,
        day_name=WEEKDAYS[day],
        is_today=is_today,
        stops=tuple(stops),
        standing=tuple(standing),
        others=tuple(one for one in others if not one.unreadable),
        done=done,
        arrivals=_arrivals(stops, done, places, scope.now) if is_today else {},
        load=_trays(load_list(await _load(scope, stops), await _on_truck(scope, book, person_id)), units),
        nearest_next=nearest if nearest != tuple(listed) else (),
        length_km=length_km(listed, places),
        nearest_km=length_km(nearest, places),
        days=tuple(sorted({key[1] for key in book.rounds if key[0] == person_id and book.rounds[key]})),
    )


def _arrivals(
    stops: Sequence[Summary], done: frozenset[UUID], places: Mapping[UUID, Place], now: datetime
) -> dict[UUID, datetime]:
    """Of those that are left, from the one that was finished last."""
    finished = [one for one in stops if one.pool_id in done]
    last = max(finished, key=lambda one: visit_of(one).last_at or now).pool_id if finished else None
    known = {one.pool_id: visit_of(one).minutes for one in stops}
    minutes = {pool: value for pool, value in known.items() if value is not None}
    left = [one.pool_id for one in stops if one.pool_id not in done]
    return arrivals(now, left, places, minutes, come_from=last)


async def zone_of_rounds(scope: Scope, here: Sequence[UUID]) -> ZoneInfo:
    """The round is driven on the clock of the first pool that can be read."""
    for one in here:
        settings = (await pool_state(scope, one)).settings
        if settings is not None:
            return ZoneInfo(settings.time_zone)
    return ZoneInfo("UTC")


async def _load(scope: Scope, stops: Sequence[Summary]) -> dict[Product, float]:
    """What the sheets of these stops pour today, g."""
    needs: dict[Product, float] = {}
    products = {product.id: product for product in (await at_hand(scope, None)).products}
    for one in stops:
        for product_id, grams in visit_of(one).needs.items():
            if product_id in products:
                product = products[product_id]
                needs[product] = needs.get(product, 0.0) + grams
    return needs


def _done(one: Summary, now: datetime) -> bool:
    """Whether the stop was finished on this day of the pool's own clock."""
    visit = visit_of(one)
    zone = ZoneInfo(visit.zone)
    return visit.last_at is not None and visit.last_at.astimezone(zone).date() == now.astimezone(zone).date()


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
