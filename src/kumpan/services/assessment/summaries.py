"""Lists of many pools read stored summaries: told once, each with the hour until which it holds.

A summary is out of date once its time is over or something was written that it was made from; it is then made
anew, by the renewer in the background or by the page that shows it. One pool that cannot be read is shown as
such; the others go on.
"""

import base64
import binascii
import json
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

import structlog

from kumpan.core.assessment.assessment import Assessment
from kumpan.core.assessment.order import FindingSeverity
from kumpan.core.errors import InvalidInput, KumpanError, Unavailable
from kumpan.core.messages import Message
from kumpan.services.assessment.queries import head_and_assessment
from kumpan.services.journal.ledger import Scope, require_pool
from kumpan.services.pools.expectations import TOO_OLD
from kumpan.services.pools.views import PoolHeader
from kumpan.storage.repositories.summaries import Order, Summary, key_of
from kumpan.wording.render import render

MOST_A_PAGE = 200
TRY_AGAIN_AFTER = timedelta(
    minutes=15
)  # a pool that cannot be read is tried again, though nothing was written
FIGURES_HOLD = timedelta(minutes=30)
NOT_READ = Message("This pool cannot be read now. Its journal is whole: download it, or ask for help.")
# Told in both units, so that a list is read without telling anything anew.
Teller = Callable[[PoolHeader], dict[str, object]]


@dataclass(frozen=True, kw_only=True)
class PageRequest:
    """Which lines: `query` in name or place, an order, so many, after a cursor."""

    query: str = ""
    order: Order = Order.ATTENTION
    most: int = 50
    cursor: str | None = None


@dataclass(frozen=True, kw_only=True)
class Page:
    """The lines, and where the next page begins; None at the end."""

    lines: tuple[Summary, ...]
    cursor: str | None


@dataclass(frozen=True)
class Renewal:
    """How summaries are made: rendered by `tell`, under the name of this program."""

    tell: Teller
    program: str


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
        query=" ".join(request.query.split()),
        after=after,
        most=request.most + 1,
    )
    lines, more = found[: request.most], len(found) > request.most
    cursor = _cursor(key_of(request.order, lines[-1])) if more else None
    stale = [line for line in lines if not line.holds(scope.now, renewal.program)]
    anew = {line.pool_id: replace(line, summary=await made(scope, line.pool_id, renewal)) for line in stale}
    shown = sorted(
        (anew.get(line.pool_id, line) for line in lines), key=lambda line: key_of(request.order, line)
    )
    return Page(lines=tuple(line.summary for line in shown if line.summary is not None), cursor=cursor)


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


async def made(scope: Scope, pool_id: UUID, renewal: Renewal) -> Summary:
    """A summary as of now. A pool that cannot be read gets one that says so."""
    await require_pool(scope, pool_id)
    # As the workspace's staff sees it; nothing of it is internal.
    inside = replace(scope, pools=None, staff=True, cached={**scope.cached})
    pool_writes, workspace_writes = await scope.tx.summaries.writes(scope.workspace_id, pool_id)
    summary = Summary(
        workspace_id=scope.workspace_id,
        pool_id=pool_id,
        name="",
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
    )
    try:
        summary = _readable(summary, *await head_and_assessment(inside, pool_id), renewal.tell)
    except Unavailable:
        raise
    except Exception as trouble:
        structlog.get_logger().error("a pool cannot be read", pool=str(pool_id), exc_info=trouble)
        why = trouble.message if isinstance(trouble, KumpanError) else NOT_READ
        summary = replace(summary, unreadable=render(why)[:300])
    return summary


def _readable(summary: Summary, head: PoolHeader, found: Assessment, tell: Teller) -> Summary:
    settings = head.settings
    return replace(
        summary,
        name=settings.name[:120],
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
        Order.TESTED: (datetime.fromisoformat, UUID),
    }
    try:
        parts = json.loads(base64.urlsafe_b64decode(request.cursor))
        return tuple(part(text) for part, text in zip(read[request.order], parts, strict=True))
    except (ValueError, TypeError, binascii.Error) as trouble:
        wrong = Message("This is no cursor of such a list; begin at its first page.")
        raise InvalidInput(wrong, "cursor") from trouble
