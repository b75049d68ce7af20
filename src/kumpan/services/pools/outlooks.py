"""What is ahead of a pool, and what lies behind it measure by measure."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

import numpy as np

from kumpan.core.forecast.outlook import DAYS_AHEAD, Outlook, Setting, outlook
from kumpan.core.forecast.slow import Surroundings
from kumpan.core.journal import Body, Entry, PoolState, effective, fold, history, kind_of
from kumpan.core.messages import Message
from kumpan.core.pool.shapes import area_m2, mean_depth_m
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure
from kumpan.services.cache import mark_of, remembered
from kumpan.services.journal.ledger import Scope, pool_entries
from kumpan.services.journal.log import describe
from kumpan.services.pools.expectations import TOO_OLD, model_of
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.pools.views import (
    AheadPoint,
    DayAhead,
    HistoryMark,
    HistoryPoint,
    HistoryView,
    OutlookView,
)
from kumpan.services.workers import WORKERS

USUAL_DEPTH_M = 1.4
FRESH_FOR_S = 600  # the outlook moves slowly; within ten minutes the same one serves
STRIP_DAYS = 7
STRIP_HOUR = 18
HOURS_BETWEEN_POINTS = 4
MARKED = ("addition", "water", "cell", "swimmers")
# Total chlorine is told by free and combined; the scaling index is computed, not tested.
CHARTED = tuple(
    measure for measure in Measure if measure not in (Measure.TOTAL_CHLORINE, Measure.SATURATION_INDEX)
)


@dataclass(frozen=True)
class _Question:
    """One outlook asked for: the pool as it stands, under its rules, as of the last ten minutes."""

    state: PoolState
    parts: PoolParts
    now: datetime


async def outlook_of(scope: Scope, pool_id: UUID) -> OutlookView:
    """The outlook of one pool, in words and as a strip of days; empty before the first chlorine test."""
    request = _request(scope, await pool_entries(scope, pool_id))
    found = await _ready(request)
    if found is None:
        return OutlookView(sentences=(), days=(), runs_low_at=None, loss_mg_l_day=None, volume_hint_l=None)
    volume_l = found.volume.volume_l if found.volume is not None else None
    return OutlookView(
        sentences=found.sentences,
        days=_strip(found, request),
        runs_low_at=found.runs_low_at,
        loss_mg_l_day=found.loss_mg_l_day,
        volume_hint_l=volume_l,
    )


async def outlook_now(scope: Scope, pool_id: UUID) -> Outlook | None:
    """The outlook itself, for who reckons on with it; None before the first test or long after the last."""
    return await _ready(_request(scope, await pool_entries(scope, pool_id)))


async def history_of(scope: Scope, pool_id: UUID, measure: Measure) -> HistoryView:
    """One measure over the whole journal, with what went in, and the forecast where there is one."""
    entries = await pool_entries(scope, pool_id)
    request = _request(scope, entries)
    marks = tuple(
        HistoryMark(entry.at, kind_of(entry.body), _mark_words(entry.body))
        for entry in effective(entries, scope.now)
        if kind_of(entry.body) in MARKED
    )
    return replace(_measure_history(request, await _ready(request), measure), marks=marks)


async def histories_of(scope: Scope, pool_id: UUID) -> list[HistoryView]:
    """Every measure that was ever tested, for one time axis, in the board's order; what was done is the
    season's to tell.
    """
    request = _request(scope, await pool_entries(scope, pool_id))
    found = await _ready(request)
    every = (_measure_history(request, found, measure) for measure in CHARTED)
    return [one for one in every if one.points]


def _measure_history(request: _Question, found: Outlook | None, measure: Measure) -> HistoryView:
    band = request.parts.bands.get(measure)
    return HistoryView(
        measure=measure,
        name=NAMES[measure],
        low=band.low if band else None,
        high=band.high if band else None,
        points=tuple(
            HistoryPoint(r.at, r.value.value, r.value.low, r.value.high)
            for r in history(request.state, measure)
        ),
        marks=(),
        ahead=_ahead(found, measure, request.now),
    )


def _request(scope: Scope, entries: list[Entry]) -> _Question:
    state = fold(entries, scope.now)
    return _Question(
        state, parts_of(state), mark_of(scope.now, every_s=FRESH_FOR_S, entered=state.entered_at)
    )


_outlook = remembered(most=24)(outlook)


async def _ready(request: _Question) -> Outlook | None:
    found = await model_of(request.state, request.parts.place)
    if found is None or request.now.timestamp() - found.last_at_s > TOO_OLD.total_seconds():
        return None  # nothing can be said so long after the last test
    asked = (request.state, _setting(request.parts), request.now, found)
    return await _outlook.awaited(lambda: WORKERS.run(outlook, *asked), *asked)


def _setting(parts: PoolParts) -> Setting:
    traits, volume_l = parts.equipment.traits, parts.basin.volume_l
    return Setting(
        place=parts.place,
        around=Surroundings(
            volume_l=volume_l,
            mean_depth_m=_depth_m(parts),
            covered=traits.covered,
            indoor=traits.indoor,
            fill=parts.equipment.fill_water,
        ),
        bands=dict(parts.bands),
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        zone=ZoneInfo(parts.settings.time_zone),
    )


def _depth_m(parts: PoolParts) -> float:
    rows = parts.basin.parts
    if not rows:
        return USUAL_DEPTH_M
    area = sum(area_m2(part) for part in rows)
    return sum(area_m2(part) * mean_depth_m(part) for part in rows) / area


def _strip(found: Outlook, request: _Question) -> tuple[DayAhead, ...]:
    """The evenings of the coming week."""
    local = request.now.astimezone(ZoneInfo(request.parts.settings.time_zone))
    evening = local.replace(hour=STRIP_HOUR, minute=0, second=0, microsecond=0)
    first = evening if evening > local else evening + timedelta(days=1)
    low = request.parts.bands[Measure.FREE_CHLORINE].low or 0.0
    days = []
    for n in range(STRIP_DAYS):
        at = first + timedelta(days=n)
        free_low, free_likely, free_high = found.chlorine.at(at.timestamp())
        ph = found.ph.band(at.timestamp())[1] if found.ph is not None else None
        days.append(
            DayAhead(
                at=at, low=free_low, likely=free_likely, high=free_high, under_range=free_likely < low, ph=ph
            )
        )
    return tuple(days)


def _ahead(found: Outlook | None, measure: Measure, now: datetime) -> tuple[AheadPoint, ...]:
    """The forecast of one measure for the coming two weeks; empty where there is none."""
    if found is None:
        return ()
    times = now.timestamp() + 3600.0 * np.arange(0, DAYS_AHEAD * 24, HOURS_BETWEEN_POINTS)
    if measure is Measure.FREE_CHLORINE:
        rows = [found.chlorine.at(float(at)) for at in times]
    elif measure is Measure.COMBINED_CHLORINE and found.combined is not None:
        rows = [found.combined.at(float(at)) for at in times]
    elif measure is Measure.PH and found.ph is not None:
        rows = [found.ph.band(float(at)) for at in times]
    elif measure in found.trends:
        rows = [found.trends[measure].band(float(at)) for at in times]
    else:
        return ()
    return tuple(
        AheadPoint(datetime.fromtimestamp(float(at), UTC), *row) for at, row in zip(times, rows, strict=True)
    )


def _mark_words(body: Body) -> Message:
    title, detail = describe(body)
    return Message("{title}: {detail}", title=title, detail=detail) if detail else title
