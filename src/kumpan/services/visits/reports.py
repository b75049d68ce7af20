"""The report to a pool's owner: one day in words, with what is next and when they may swim."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.assessment.swim import SwimAnswer
from kumpan.core.journal import CareDone, Entry
from kumpan.core.messages import Cased, Message, Value, Verbatim, joined
from kumpan.core.products.product import Product
from kumpan.core.quantity import Clock, DateForm, Day, Money
from kumpan.core.ranges.verdicts import VerdictCode
from kumpan.core.visits.day_report import (
    DayReport,
    FoundValue,
    PouredThen,
    day_report,
    days_with_reports,
    usual_day,
)
from kumpan.services.assessment.queries import head
from kumpan.services.journal.ledger import Scope
from kumpan.services.journal.log import describe, task_title, value_message
from kumpan.services.maintenance.queries import calendar_days
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.queries import parts_of
from kumpan.services.products.queries import amount_text
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.visits.views import AheadLine, OwnerReport, ReportLine

AHEAD_DAYS, AHEAD_MOST = 21, 3
DAYS_LISTED = 30


async def owner_report(scope: Scope, pool_id: UUID, day: date | None) -> OwnerReport:
    """The report of a day, or of the last one with something to tell."""
    state = await modeled_state(scope, pool_id)
    parts, top, hand = parts_of(state), await head(scope, pool_id), await at_hand(scope, pool_id)
    zone = ZoneInfo(parts.settings.time_zone)
    days = days_with_reports(state, zone)[::-1]
    today = scope.now.astimezone(zone).date()
    prices = {item.product.id: price for item in hand.stocked if (price := item.price_per_g) is not None}
    day_said = day_report(
        state, zone, day=day or usual_day(state, zone) or today, bands=parts.bands, price_per_g=prices
    )
    names = await scope.tx.shares.people_names(set(day_said.people))
    ahead = [
        AheadLine(due.day, Message("{items}", items=joined([item.title for item in due.items], "; ")))
        for due in await calendar_days(scope, pool_id, AHEAD_DAYS)
    ]
    found = OwnerReport(
        pool=parts.settings.name,
        place=parts.settings.place,
        day=day_said.day,
        days=days[:DAYS_LISTED],
        by=tuple(names[id_] for id_ in day_said.people if id_ in names),
        empty=day_said.empty,
        visual_checks=tuple(describe(visual_check)[1] for visual_check in day_said.visual_checks),
        found=day_said.found,
        poured=tuple(_poured(one) for one in day_said.poured),
        done=tuple(_done(entry) for entry in day_said.other),
        notes=tuple(visit.note for visit in day_said.visits if visit.note),
        trades=tuple(visit.trade for visit in day_said.visits if visit.trade),
        comes_back=any(visit.needs_return for visit in day_said.visits),
        cost=day_said.cost if day_said.poured else None,
        currency=hand.preferences.currency,
        swim=_swim(top.swim, zone),
        next=top.next,
        ahead=tuple(ahead[:AHEAD_MOST]),
        text=(),
    )
    return _with_text(found, day_said, zone)


def _poured(one: PouredThen) -> ReportLine:
    body = one.body
    product = Product("", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml)
    return ReportLine(
        one.at,
        Message(
            "{amount_text} of {label}",
            amount_text=amount_text(product, body.mass_g),
            label=Verbatim(body.label),
        ),
        one.why,
    )


def _done(entry: Entry) -> ReportLine:
    title, detail = describe(entry.body)
    if isinstance(entry.body, CareDone):
        title = task_title(entry.body.task)
    return ReportLine(entry.at, title, detail)


def _swim(answer: SwimAnswer, zone: ZoneInfo) -> Message:
    """The answer with its hour: after a dose an owner must read when, and what it hangs on."""
    if answer.not_before is None:
        return answer.text
    return Message(
        "Not before {time}: {condition}.",
        time=Clock(answer.not_before.astimezone(zone)),
        condition=answer.text,
    )


def _with_text(report: OwnerReport, day_said: DayReport, zone: ZoneInfo) -> OwnerReport:
    """The same in plain words, line by line, to be sent as a message."""
    head = joined([Verbatim(report.pool), _day(report.day), *(Verbatim(name) for name in report.by)])
    lines = [Message("{head}", head=head)]
    if day_said.empty:
        lines.append(Message("Nothing was entered on this day."))
    blocks: tuple[tuple[str, Sequence[Value]], ...] = (
        ("Seen: {what}.", report.visual_checks),
        ("Found: {what}.", [_found(one) for one in report.found]),
        ("Added: {what}.", [_line(one, zone) for one in report.poured]),
        ("Done: {what}.", [_line(one, zone) for one in report.done]),
        ("Note: {what}.", [Verbatim(note.rstrip(".")) for note in report.notes]),
        ("For a licensed trade: {what}.", [Verbatim(trade.rstrip(".")) for trade in report.trades]),
    )
    lines += [Message(template, what=joined(block, "; ")) for template, block in blocks if block]
    if report.cost is not None:
        cost = Money(report.cost, report.currency, digits=2)
        lines.append(Message("Cost of what was added: {cost}.", cost=cost))
    if report.comes_back:
        lines.append(Message("We come back: this pool needs another visit."))
    lines.append(Message("May they swim now? {answer}", answer=report.swim))
    lines.append(Message("Next: {next}. {why}", next=Cased(report.next.text), why=report.next.why))
    if report.ahead:
        then = [Message("{day}: {what}.", day=_day(one.day), what=one.title) for one in report.ahead]
        lines += [Message("Then:"), *then]
    return replace(report, text=tuple(lines))


def _found(one: FoundValue) -> Message:
    words = value_message(one.measure, one.value)
    if one.verdict.code is VerdictCode.NOT_MANAGED:
        return words
    return Message("{value} ({verdict})", value=words, verdict=one.verdict.text)


def _line(one: ReportLine, zone: ZoneInfo) -> Message:
    clock = Clock(one.at.astimezone(zone))
    if not one.detail:
        return Message("{time} {title}", time=clock, title=one.title)
    return Message("{time} {title}: {detail}", time=clock, title=one.title, detail=one.detail)


def _day(day: date) -> Day:
    return Day(day, DateForm.WEEKDAY_AND_DAY)
