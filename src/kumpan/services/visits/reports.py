"""The report to a pool's owner: one day in words, with what is next and when they may swim."""

from dataclasses import dataclass, replace
from datetime import date, datetime
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.assessment.next_thing import NextThing
from kumpan.core.assessment.swim import SwimAnswer
from kumpan.core.journal import Entry
from kumpan.core.products.product import Product
from kumpan.core.ranges.verdicts import VerdictCode
from kumpan.core.visits.day_report import (
    DayReport,
    FoundValue,
    PouredThen,
    day_report,
    days_with_reports,
    usual_day,
)
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.journal.log import describe, value_text
from kumpan.services.maintenance.maintenance import calendar_days
from kumpan.services.people.people import people
from kumpan.services.pools.pools import head, parts_of
from kumpan.services.products.inventory import amount_text
from kumpan.services.treatments.at_hand import at_hand

AHEAD_DAYS, AHEAD_MOST = 21, 3
DAYS_LISTED = 30


@dataclass(frozen=True)
class ReportLine:
    """A thing that was done: when, what, and the reason or the figures beside it."""

    at: datetime
    title: str
    detail: str


@dataclass(frozen=True)
class AheadLine:
    """What falls on a day ahead, all of it in one line."""

    day: date
    title: str


@dataclass(frozen=True)
class OwnerReport:
    """One day for the owner. `days` are those with something to tell, newest first; `text` is all of it to send."""

    pool: str
    place: str
    day: date
    days: tuple[date, ...]
    by: tuple[str, ...]
    empty: bool
    visual_checks: tuple[str, ...]
    found: tuple[FoundValue, ...]
    poured: tuple[ReportLine, ...]
    done: tuple[ReportLine, ...]
    notes: tuple[str, ...]
    trades: tuple[str, ...]
    comes_back: bool
    cost: float | None
    currency: str
    swim: str
    next: NextThing
    ahead: tuple[AheadLine, ...]
    text: str


async def owner_report(scope: Scope, pool_id: UUID, day: date | None, *, metric: bool) -> OwnerReport:
    """The report of a day, or of the last one with something to tell."""
    state = await pool_state(scope, pool_id)
    parts, top, hand = parts_of(state), await head(scope, pool_id), await at_hand(scope)
    zone = ZoneInfo(parts.settings.time_zone)
    days = days_with_reports(state, zone)[::-1]
    today = scope.now.astimezone(zone).date()
    prices = {item.product.id: price for item in hand.stocked if (price := item.price_per_g) is not None}
    day_told = day_report(state, zone, day or usual_day(state, zone) or today, parts.bands, prices)
    names = {person.id: person.name for person in await people(scope)}
    ahead = [
        AheadLine(due.day, "; ".join(item.title for item in due.items))
        for due in await calendar_days(scope, pool_id, AHEAD_DAYS)
    ]
    found = OwnerReport(
        pool=parts.settings.name,
        place=parts.settings.place,
        day=day_told.day,
        days=days[:DAYS_LISTED],
        by=tuple(names[id_] for id_ in day_told.people if id_ in names),
        empty=day_told.empty,
        visual_checks=tuple(describe(visual_check, metric)[1] for visual_check in day_told.visual_checks),
        found=day_told.found,
        poured=tuple(_poured(one, metric) for one in day_told.poured),
        done=tuple(_done(entry, metric) for entry in day_told.other),
        notes=tuple(visit.note for visit in day_told.visits if visit.note),
        trades=tuple(visit.trade for visit in day_told.visits if visit.trade),
        comes_back=any(visit.needs_return for visit in day_told.visits),
        cost=day_told.cost if day_told.poured else None,
        currency=hand.preferences.currency,
        swim=_swim(top.swim, zone),
        next=top.next,
        ahead=tuple(ahead[:AHEAD_MOST]),
        text="",
    )
    return _with_text(found, day_told, zone, metric)


def _poured(one: PouredThen, metric: bool) -> ReportLine:
    body = one.body
    product = Product("", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml)
    return ReportLine(one.at, f"{amount_text(product, body.mass_g, metric)} of {body.label}", one.why)


def _done(entry: Entry, metric: bool) -> ReportLine:
    title, detail = describe(entry.body, metric)
    plain = title.removeprefix("Done: ")
    return ReportLine(entry.at, plain[:1].upper() + plain[1:], detail)


def _swim(answer: SwimAnswer, zone: ZoneInfo) -> str:
    """The answer with its hour: after a dose an owner must read when, and what it hangs on."""
    if answer.not_before is None:
        return answer.text
    return f"Not before {answer.not_before.astimezone(zone):%H:%M}: {answer.text}."


def _with_text(report: OwnerReport, day_told: DayReport, zone: ZoneInfo, metric: bool) -> OwnerReport:
    """The same in plain words, to be sent as a message."""
    lines = [f"{report.pool}, {_day(report.day)}" + (f", {', '.join(report.by)}" if report.by else "")]
    if day_told.empty:
        lines.append("Nothing was told on this day.")
    found = [_found(one, metric) for one in report.found]
    blocks = (
        ("Seen", report.visual_checks),
        ("Found", found),
        ("Added", [_line(one, zone) for one in report.poured]),
        ("Done", [_line(one, zone) for one in report.done]),
        ("Note", report.notes),
        ("For a licensed trade", report.trades),
    )
    for title, block in blocks:
        if block:
            lines.append(f"{title}: {'; '.join(block)}.".replace("..", "."))
    if report.cost is not None:
        lines.append(f"What went in cost {report.currency}{report.cost:.2f}.")
    if report.comes_back:
        lines.append("We come back: this pool needs another visit.")
    lines.append(f"May they swim now? {report.swim}")
    lines.append(f"Next: {report.next.text[:1].lower()}{report.next.text[1:]}. {report.next.why}")
    if report.ahead:
        lines += ["Then:", *(f"{_day(one.day)}: {one.title}." for one in report.ahead)]
    return replace(report, text="\n".join(lines))


def _found(one: FoundValue, metric: bool) -> str:
    words = value_text(one.measure, one.value, metric)
    return words if one.verdict.code is VerdictCode.NOT_MANAGED else f"{words} ({one.verdict.text})"


def _line(one: ReportLine, zone: ZoneInfo) -> str:
    detail = f": {one.detail.rstrip('.')}" if one.detail else ""
    return f"{one.at.astimezone(zone):%H:%M} {one.title}{detail}"


def _day(day: date) -> str:
    return f"{day:%A} {day.day} {day:%B}"
