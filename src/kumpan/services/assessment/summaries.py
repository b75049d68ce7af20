"""Lists of many pools read stored summaries: told once, each with the hour until which it holds.

A summary is out of date once its time is over or something was written that it was made from; it is then made
anew, by the renewer in the background or by the page that shows it. One pool that cannot be read is shown as
such; the others go on.
"""

import asyncio
import base64
import binascii
import json
from collections import OrderedDict
from collections.abc import Awaitable, Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID
from weakref import WeakValueDictionary

import structlog

from kumpan.core.assessment.assessment import Assessment
from kumpan.core.assessment.order import FindingSeverity
from kumpan.core.errors import InvalidInput, KumpanError
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.core.treatment.plan import poured_by
from kumpan.core.visits.season_work import filter_cleaned_on
from kumpan.core.visits.stop_time import usual_minutes
from kumpan.services.algae.queries import plan_that_counts
from kumpan.services.assessment.queries import Judged, head_of, looked_at
from kumpan.services.journal.ledger import Scope, require_pool
from kumpan.services.journal.rounds import planned_once, rounds
from kumpan.services.pools.expectations import TOO_OLD
from kumpan.services.pools.places import place_of
from kumpan.services.pools.views import PoolHeader
from kumpan.services.visits.stops import last_visit, stop_inside
from kumpan.services.visits.views import StopInside, VisitView
from kumpan.storage.repositories.summaries import Listed, Order, Shown, Summary, Wanted, key_of
from kumpan.storage.transaction import is_of_the_database
from kumpan.wording.render import render

MOST_A_PAGE = 200
MOST_LIVE = 20  # made anew while somebody waits
TRY_AGAIN_AFTER = timedelta(
    minutes=15
)  # a pool that cannot be read is tried again, though nothing was written
UNTESTED_FOR = timedelta(days=7)  # a pool that nobody tested for a week is looked for by the office
FIGURES_HOLD = timedelta(minutes=30)
NOT_READ = Message("This pool cannot be read now. Its journal is whole: download it, or ask for help.")
# Told in both units, so that a list is read without telling anything anew.
Teller = Callable[[PoolHeader], dict[str, object]]
StopTeller = Callable[[StopInside, Units], dict[str, object]]
VisitTeller = Callable[[VisitView], dict[str, object]]


@dataclass(frozen=True, kw_only=True)
class PageRequest:
    """Which lines: `query` in name or place, an order, so many, after a cursor."""

    query: str = ""
    order: Order = Order.ATTENTION
    shown: Shown = Shown.ALL
    most: int = 50
    cursor: str | None = None


@dataclass(frozen=True, kw_only=True)
class Page:
    """The lines, and where the next page begins; None at the end; how many there are of what is shown."""

    lines: tuple[Summary, ...]
    cursor: str | None
    counts: Mapping[Shown, int]


@dataclass(frozen=True)
class Renewal:
    """How summaries are made: rendered by the tellers, under the name of this program."""

    tell: Teller
    tell_stop: StopTeller
    tell_visit: VisitTeller
    program: str


@dataclass(frozen=True, kw_only=True)
class StoredVisit:
    """What a summary holds for a round: the pool's clock and place, its last visit, what today's sheet pours
    (g by product id), how long a stop takes, when its filter was cleaned and, where it stands on a round, the
    whole stop as told by units.
    """

    zone: str
    place: tuple[float, float]
    last_at: datetime | None
    last: dict[str, object] | None
    needs: dict[str, float]
    rendered: dict[str, dict[str, object]]
    minutes: float | None
    filter_on: datetime | None


def visit_of(summary: Summary) -> StoredVisit:
    """Read off a summary that can be read."""
    stored: dict[str, Any] = summary.visit
    return StoredVisit(
        zone=stored["zone"],
        place=(stored["place"][0], stored["place"][1]),
        last_at=datetime.fromisoformat(stored["last_at"]) if stored["last_at"] else None,
        last=stored["last"],
        needs=stored["needs"],
        minutes=stored.get("minutes"),
        filter_on=datetime.fromisoformat(stored["filter_on"]) if stored.get("filter_on") else None,
        rendered=stored["rendered"],
    )


async def page(scope: Scope, request: PageRequest, renewal: Renewal) -> Page:
    """One page. What is out of date on it is made anew and stays on it, wherever it will stand next time, so
    that whoever reads on misses nothing. It is not stored here: readers would wait for each other's rows; the
    renewer does that.
    """
    after = _from_cursor(request)
    await _complete(scope, renewal)
    found = await scope.tx.summaries.page(
        scope.workspace_id,
        scope.pools,
        order=request.order,
        wanted=_wanted(scope, request, request.shown),
        after=after,
        most=request.most + 1,
    )
    lines, more = found[: request.most], len(found) > request.most
    cursor = _cursor(key_of(request.order, lines[-1])) if more else None
    shown = sorted(await _now(scope, lines, renewal), key=lambda line: key_of(request.order, line))
    return Page(
        lines=tuple(line.summary for line in shown if line.summary is not None),
        cursor=cursor,
        counts=await _counts(scope, request),
    )


def _wanted(scope: Scope, request: PageRequest, shown: Shown) -> Wanted:
    return Wanted(
        query=" ".join(request.query.split()),
        shown=shown,
        asks_to=max(at for at, severity in enumerate(FindingSeverity) if severity.asks),
        untested_since=scope.now - UNTESTED_FOR,
    )


async def _counts(scope: Scope, request: PageRequest) -> dict[Shown, int]:
    return {
        shown: await scope.tx.summaries.count(scope.workspace_id, scope.pools, _wanted(scope, request, shown))
        for shown in Shown
    }


async def _now(scope: Scope, lines: Sequence[Listed], renewal: Renewal) -> list[Listed]:
    """The lines, with those made anew that no longer hold."""
    found = []
    for line in lines:
        holds = line.holds(scope.now, renewal.program)
        found.append(line if holds else replace(line, summary=await made(scope, line.pool_id, renewal)))
    return found


async def some(scope: Scope, pool_ids: Sequence[UUID], renewal: Renewal) -> list[Summary]:
    """The stops of a round as they are now, in the order named. One that joined it lately is told now."""
    found = []
    for line in await _now(scope, await scope.tx.summaries.some(scope.workspace_id, pool_ids), renewal):
        assert line.summary is not None
        whole = line.summary.unreadable or line.summary.visit["rendered"]
        found.append(line.summary if whole else await made(scope, line.pool_id, renewal))
    return found


async def beside(scope: Scope, listed: Sequence[UUID], most: int, renewal: Renewal) -> list[Summary]:
    """Pools outside a round, first those that ask to be come back to, then by attention."""
    await _complete(scope, renewal)
    lines = await scope.tx.summaries.beside(scope.workspace_id, scope.pools, listed, most)
    return [line.summary for line in await _now(scope, lines, renewal) if line.summary is not None]


async def needs_of_all(scope: Scope, renewal: Renewal) -> dict[str, float]:
    """What the sheets offered now at all pools would take, g by product id. Some that no longer hold are made
    anew first; where there are very many, the renewer does the rest.
    """
    await _complete(scope, renewal)
    due = await scope.tx.summaries.out_of_date(
        scope.now, renewal.program, most=MOST_LIVE, workspace_id=scope.workspace_id
    )
    live = {pool_id: (await made(scope, pool_id, renewal)).needs for _, pool_id in due}
    total: dict[str, float] = {}
    for pool_id, stored in await scope.tx.summaries.needs(scope.workspace_id, scope.pools):
        for product_id, grams in live.get(pool_id, stored).items():
            total[product_id] = total.get(product_id, 0.0) + grams
    return total


async def _complete(scope: Scope, renewal: Renewal) -> None:
    """Every pool has a summary, so that it has its place and can be found. Where there are very many without
    one, the renewer does the rest.
    """
    inside = replace(scope, pools=None)
    ids = await scope.tx.summaries.missing(scope.workspace_id, MOST_A_PAGE)
    for pool_id in sorted(ids, key=str):
        await renew(inside, pool_id, renewal)


async def renew(scope: Scope, pool_id: UUID, renewal: Renewal) -> Summary:
    """Make a summary anew and store it."""
    summary = await made(scope, pool_id, renewal)
    await scope.tx.summaries.save(summary)
    return summary


class Recent:
    """The summaries made lately by this process, by what they were made from: lists that are read while their
    pools are written share the work, and so does the renewer. Many at once wait for the one that makes it.
    """

    def __init__(self, most: int = 512) -> None:
        self.most = most
        self._made: OrderedDict[tuple[object, ...], Summary] = OrderedDict()
        self._locks: WeakValueDictionary[tuple[object, ...], asyncio.Lock] = WeakValueDictionary()

    async def get(
        self, key: tuple[object, ...], now: datetime, make: Callable[[], Awaitable[Summary]]
    ) -> Summary:
        """One that still holds, or a new one."""
        lock = self._locks.setdefault(key, asyncio.Lock())
        async with lock:
            found = self._made.get(key)
            if found is None or not found.made_at <= now < found.holds_until:
                found = self._made[key] = await make()
                while len(self._made) > self.most:
                    self._made.popitem(last=False)
            return found


async def made(scope: Scope, pool_id: UUID, renewal: Renewal) -> Summary:
    """A summary as of now. A pool that cannot be read gets one that says so."""
    await require_pool(scope, pool_id)
    writes = await scope.tx.summaries.writes(scope.workspace_id, pool_id)
    recent = scope.tx.shared.setdefault("summaries", Recent())
    assert isinstance(recent, Recent)
    on_a_round = pool_id in await _on_rounds(scope)
    key = (scope.workspace_id, pool_id, *writes, renewal.program, on_a_round)
    return await recent.get(key, scope.now, lambda: _made_anew(scope, pool_id, writes, renewal))


async def _made_anew(scope: Scope, pool_id: UUID, writes: tuple[int, int], renewal: Renewal) -> Summary:
    # As the workspace's staff sees it; nothing of it is internal.
    inside = replace(scope, pools=None, staff=True, cached={**scope.cached})
    pool_writes, workspace_writes = writes
    summary = Summary(
        workspace_id=scope.workspace_id,
        pool_id=pool_id,
        name="",
        place="",
        searched="",
        rank=0,
        tested_at=None,
        made_at=scope.now,
        holds_until=scope.now + TRY_AGAIN_AFTER,
        pool_writes=pool_writes,
        workspace_writes=workspace_writes,
        program=renewal.program,
        unreadable="",
        rendered={},
        returns=False,
        needs={},
        visit={},
    )
    try:
        judged = await looked_at(inside, pool_id)
        summary = _readable(summary, *head_of(judged), renewal.tell)
        summary = replace(summary, **await _for_a_round(inside, judged, renewal))
    except Exception as trouble:
        if is_of_the_database(trouble):
            raise
        structlog.get_logger().error("a pool cannot be read", pool=str(pool_id), exc_info=trouble)
        why = trouble.message if isinstance(trouble, KumpanError) else NOT_READ
        summary = replace(summary, unreadable=render(why)[:300])
    return summary


async def _for_a_round(scope: Scope, judged: Judged, renewal: Renewal) -> dict[str, Any]:
    """What rounds and the shopping list read. The whole stop is told where the pool stands on a round."""
    state, settings = judged.case.state, judged.parts.settings
    offered = await plan_that_counts(scope, state, judged.parts, units=Units.US)
    counted = offered is not None and not judged.parts.basin.volume_is_unknown
    last, cleaned = last_visit(state), filter_cleaned_on(state)
    rendered: dict[str, object] = {}
    if judged.pool_id in await _on_rounds(scope):
        rendered = {
            units: renewal.tell_stop(await stop_inside(scope, judged.pool_id, units), units)
            for units in Units
        }
    return {
        "returns": last is not None and (last.needs_return or bool(last.trade)),
        "needs": poured_by(offered) if counted and offered is not None else {},
        "visit": {
            "zone": settings.time_zone,
            "place": place_of(settings),
            "last_at": last.at.isoformat() if last else None,
            "minutes": usual_minutes(state),
            "filter_on": cleaned.isoformat() if cleaned is not None else None,
            "last": renewal.tell_visit(last) if last else None,
            "needs": poured_by(offered, first_day=True) if counted and offered is not None else {},
            "rendered": rendered,
        },
    }


async def _on_rounds(scope: Scope) -> frozenset[UUID]:
    """Pools that stand on somebody's round."""
    found = await rounds(scope.tx, scope.workspace_id, scope.now)
    once = await planned_once(scope.tx, scope.workspace_id, scope.now)
    return once | {stop for stops in found.values() for stop in stops}


def _readable(summary: Summary, head: PoolHeader, found: Assessment, tell: Teller) -> Summary:
    settings = head.settings
    return replace(
        summary,
        name=settings.name[:120],
        place=settings.place.strip()[:120],
        searched=f"{settings.name} {settings.place}".casefold()[:250],
        rank=rank(found),
        tested_at=head.last_test_at,
        holds_until=_holds_until(head, found),
        rendered=tell(head),
    )


def _holds_until(head: PoolHeader, found: Assessment) -> datetime:
    """As long as the judge says; where a forecast speaks, its figures move, and are told anew in between."""
    forecast = head.last_test_at is not None and found.at - head.last_test_at < TOO_OLD
    return min(found.holds_until, found.at + FIGURES_HOLD) if forecast else found.holds_until


def rank(found: Assessment) -> int:
    """0 for what is most urgent; by the first finding, as the judge ordered them."""
    severities = list(FindingSeverity)
    return severities.index(found.findings[0].severity) if found.findings else len(severities)


def _cursor(key: Sequence[Any]) -> str:
    parts = [part.isoformat() if isinstance(part, datetime) else str(part) for part in key]
    return base64.urlsafe_b64encode(json.dumps(parts).encode()).decode()


def _from_cursor(request: PageRequest) -> tuple[Any, ...] | None:
    """The place where the page before ended. Raises InvalidInput for what is no cursor of this order."""
    if not request.cursor:
        return None
    read: Mapping[Order, tuple[Callable[[str], Any], ...]] = {
        Order.ATTENTION: (int, str, UUID),
        Order.NAME: (str, UUID),
        Order.PLACE: (int, str, str, UUID),
        Order.TESTED: (datetime.fromisoformat, UUID),
    }
    try:
        parts = json.loads(base64.urlsafe_b64decode(request.cursor))
        return tuple(part(text) for part, text in zip(read[request.order], parts, strict=True))
    except (ValueError, TypeError, binascii.Error) as trouble:
        wrong = Message("This is no cursor of such a list; begin at its first page.")
        raise InvalidInput(wrong, "cursor") from trouble
