"""What stands on each paper: a visit, season, plan, procedure, opening or closing, water log, notice."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from enum import StrEnum
from uuid import UUID
from zoneinfo import ZoneInfo

import segno

from kumpan.core.assessment.swim import SwimCode
from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.journal import (
    AdditionMade,
    CareDone,
    Entry,
    Outcome,
    PoolState,
    TestTaken,
    Which,
    history,
    readings_of,
)
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units, fahrenheit_from_celsius
from kumpan.core.ranges.profiles import Band
from kumpan.formats.pdf import Chart, Document, Grid, Heading, Lines, Part, Picture
from kumpan.services.assessment.queries import head
from kumpan.services.exports.tables import measure_title
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.journal.log import describe, task_title
from kumpan.services.maintenance.queries import procedure_view
from kumpan.services.people import links
from kumpan.services.pools.queries import parts_of
from kumpan.services.products.queries import amount_text
from kumpan.services.season.queries import season_lists
from kumpan.services.season.views import ListItem
from kumpan.services.treatments.queries import current_treatment
from kumpan.services.visits.reports import owner_report
from kumpan.services.visits.views import OwnerReport, ReportLine
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

M = Measure
CHARTED = (M.FREE_CHLORINE, M.PH, M.TOTAL_ALKALINITY, M.CALCIUM_HARDNESS, M.CYANURIC_ACID, M.SALT)
LOGGED = (M.FREE_CHLORINE, M.COMBINED_CHLORINE, M.PH, M.TOTAL_ALKALINITY, M.CYANURIC_ACID, M.TEMPERATURE)
MOST_DAYS, MOST_ROWS, MOST_POINTS = 400, 1_500, 400
DEFERS = "Kumpan's advice gives way to labels, local codes and licensed trades."


class PaperKind(StrEnum):
    """Which paper."""

    VISIT = "visit"
    SEASON = "season"
    PLAN = "plan"
    PROCEDURE = "procedure"
    RECORD = "record"
    WATER_LOG = "water-log"


@dataclass(frozen=True, kw_only=True)
class PaperWanted:
    """Of which pool and day or days; `key` names a procedure, `list_id` an opening or closing."""

    pool_id: UUID
    first: date | None = None
    last: date | None = None
    key: str = ""
    list_id: UUID | None = None
    reader: Reader


async def document(scope: Scope, kind: PaperKind, wanted: PaperWanted) -> Document:
    """The paper, as its reader reads it. Raises NotFound and InvalidInput."""
    makers = {
        PaperKind.VISIT: _visit,
        PaperKind.SEASON: _season,
        PaperKind.PLAN: _plan,
        PaperKind.PROCEDURE: _procedure,
        PaperKind.RECORD: _record,
        PaperKind.WATER_LOG: _water_log,
    }
    return await _sent(scope, await makers[kind](scope, wanted))


async def notice(scope: Scope, pool_id: UUID, address: str, reader: Reader) -> Document:
    """A sheet for the gate: no swimming, why, until when; a code that opens what the pool says of itself now.

    Makes a link for guests, which ends after 90 days or when it is ended under the pool's links.
    """
    state, top = await pool_state(scope, pool_id), await head(scope, pool_id)
    _, secret = await links.new_link(scope, pool_id, links.LinkKind.GUEST, "Notice at the gate")
    url = f"{address}/guest/{secret}"
    code = segno.make(url, error="m").svg_inline(scale=4, border=2)
    # Hung up though the water would bear swimmers: who hangs it knows why, and "yes" would contradict it.
    why = () if top.swim.code is SwimCode.YES else (render(top.swim.text, reader),)
    parts: tuple[Part, ...] = (
        Lines((*why, "The pool opens after a test, not by the clock."), strong=True),
        Picture(
            code.replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1).encode(),
            "image/svg+xml;charset=utf-8",
            f"Code that opens {url}",
            52.0,
        ),
        Lines(
            (
                "What the pool says now: point a phone at the code.",
                "In an emergency call the emergency number.",
            )
        ),
    )
    name = state.settings.name if state.settings else ""
    made = Document(title="No swimming", subtitle=name, parts=parts, notice=True, footer=DEFERS)
    return await _sent(scope, made)


async def _sent(scope: Scope, made: Document) -> Document:
    """With who hands it out, and their mark."""
    name = await scope.tx.shares.workspace_name(scope.workspace_id)
    mark = await scope.tx.workspace.mark(scope.workspace_id)
    picture = await scope.tx.photos.one([scope.workspace_id], mark, thumb=True) if mark else None
    return replace(made, sender=name, mark=picture, footer=made.footer or DEFERS)


async def _visit(scope: Scope, wanted: PaperWanted) -> Document:
    """One day in words, for the owner."""
    report = await owner_report(scope, wanted.pool_id, wanted.last or wanted.first)
    r = wanted.reader
    zone = ZoneInfo(parts_of(await pool_state(scope, wanted.pool_id)).settings.time_zone)

    def lines(rows: Iterable[ReportLine]) -> tuple[str, ...]:
        said = ((one.at.astimezone(zone), render(one.title, r), render(one.detail, r)) for one in rows)
        return tuple(f"{at:%H:%M} {title}" + (f": {detail}" if detail else "") for at, title, detail in said)

    blocks: list[tuple[str, tuple[str, ...]]] = [
        ("Seen", tuple(render(one, r) for one in report.visual_checks)),
        ("Added", lines(report.poured)),
        ("Done", lines(report.done)),
        ("Notes", report.notes),
        ("For a licensed trade", report.trades),
    ]
    parts: list[Part] = [Heading("May they swim?"), Lines((render(report.swim, r),), strong=True)]
    if report.found:
        parts += [Heading("The water"), _found(report, r)]
    for title, said in blocks:
        if said:
            parts += [Heading(title), Lines(said)]
    ahead = tuple(f"{one.day:%B %-d}: {render(one.title, r)}" for one in report.ahead)
    following = (f"{render(report.next.text, r)}. {render(report.next.why, r)}", *ahead)
    parts += [Heading("What is next"), Lines(following)]
    by = f", {', '.join(report.by)}" if report.by else ""
    if report.empty:
        parts.insert(0, Lines(("Nothing was entered on this day.",)))
    return Document(
        title=report.pool, subtitle=f"Visit of {report.day:%A, %B %-d, %Y}{by}", parts=tuple(parts)
    )


def _found(report: OwnerReport, reader: Reader) -> Grid:
    rows = (
        (
            measure_title(one.measure, reader.units),
            _number(one.measure, one.value, reader),
            _range(one.measure, one.low, one.high, reader),
            render(one.verdict.text, reader),
        )
        for one in report.found
    )
    return Grid(("Found", "Value", "Range", "Means"), tuple(rows))


async def _season(scope: Scope, wanted: PaperWanted) -> Document:
    """Every measure over the time, what went in, what was done."""
    state = await pool_state(scope, wanted.pool_id)
    parts_ = parts_of(state)
    zone, r = ZoneInfo(parts_.settings.time_zone), wanted.reader
    first, last = _days(scope, wanted, zone, usual=180)
    entries = _within(_happened(state), zone, first, last)
    parts: list[Part] = [Heading("The water")]
    for measure in CHARTED:
        points = [
            (one.at, one.value.value)
            for one in history(state, measure)
            if first <= one.at.astimezone(zone).date() <= last
        ]
        if len(points) > 1:
            band = parts_.bands.get(measure)
            parts.append(_chart(measure, points[-MOST_POINTS:], band, r))
    if len(parts) == 1:
        parts.append(Lines(("No measure was tested twice in this time.",)))
    parts += [Heading("What went in"), _poured(entries, r), Heading("Care"), _care(entries, zone, r)]
    return Document(
        title=parts_.settings.name,
        subtitle=f"{first:%B %-d, %Y} to {last:%B %-d, %Y}",
        parts=tuple(parts),
    )


def _happened(state: PoolState) -> list[Entry]:
    """What papers tell of, one after the other."""
    found: list[Entry] = [
        *state.tests,
        *state.visual_checks,
        *state.additions,
        *state.care,
        *state.water_changes,
    ]
    return sorted(found, key=lambda entry: entry.at)


def _within(entries: Sequence[Entry], zone: ZoneInfo, first: date, last: date) -> list[Entry]:
    return [entry for entry in entries if first <= entry.at.astimezone(zone).date() <= last]


def _days(scope: Scope, wanted: PaperWanted, zone: ZoneInfo, usual: int) -> tuple[date, date]:
    last = wanted.last or scope.now.astimezone(zone).date()
    first = wanted.first or last - timedelta(days=usual)
    if first > last:
        raise InvalidInput(Message("The first day lies after the last; swap them."), "first")
    if (last - first).days > MOST_DAYS:
        raise InvalidInput(Message("A paper covers a year at most; choose fewer days."), "first")
    return first, last


def _number(measure: Measure, value: float, reader: Reader) -> str:
    if measure is M.TEMPERATURE and reader.units is Units.US:
        value = fahrenheit_from_celsius(value)
    return f"{round(value, 2):,g}"


def _range(measure: Measure, low: float | None, high: float | None, reader: Reader) -> str:
    if low is not None and high is not None:
        return f"{_number(measure, low, reader)} to {_number(measure, high, reader)}"
    if low is not None:
        return f"from {_number(measure, low, reader)}"
    return f"to {_number(measure, high, reader)}" if high is not None else ""


def _chart(
    measure: Measure, points: Sequence[tuple[datetime, float]], band: Band | None, reader: Reader
) -> Chart:
    values = [value for _, value in points]
    low, high = (band.low, band.high) if band else (None, None)
    first, last = points[0][0], points[-1][0]
    ends = (_number(measure, one, reader) for one in (min(values), max(values)))
    words = f"{len(points)} tests from {' to '.join(ends)}"
    within = _range(measure, low, high, reader)
    return Chart(
        title=f"{render(NAMES[measure], reader)}: {words}" + (f", range {within}" if within else ""),
        points=tuple(((at - first).total_seconds() / 86_400, value) for at, value in points),
        low=low,
        high=high,
        first=f"{first:%b %-d}",
        last=f"{last:%b %-d}",
        words=f"{render(NAMES[measure], reader)}, {words}, last {_number(measure, values[-1], reader)}",
    )


def _poured(entries: Sequence[Entry], reader: Reader) -> Part:
    """By product: how often, and how much in all."""
    found: dict[str, tuple[AdditionMade, int, float]] = {}
    for entry in entries:
        if isinstance(entry.body, AdditionMade):
            _, times, mass_g = found.get(entry.body.label, (entry.body, 0, 0.0))
            found[entry.body.label] = (entry.body, times + 1, mass_g + entry.body.mass_g)
    if not found:
        return Lines(("Nothing was added.",))
    rows = (
        (label, str(times), render(amount_text(_product(body), mass_g), reader))
        for label, (body, times, mass_g) in sorted(found.items())
    )
    return Grid(("Product", "Times", "In all"), tuple(rows))


def _product(body: AdditionMade) -> Product:
    return Product(
        "", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml, name=body.label
    )


def _care(entries: Sequence[Entry], zone: ZoneInfo, reader: Reader) -> Part:
    done = [entry for entry in entries if isinstance(entry.body, CareDone)][:MOST_ROWS]
    if not done:
        return Lines(("No care was noted.",))
    rows = (
        (
            f"{entry.at.astimezone(zone):%Y-%m-%d}",
            render(task_title(entry.body.task), reader),
            entry.body.note,
        )
        for entry in done
        if isinstance(entry.body, CareDone)
    )
    return Grid(("Day", "What", "Note"), tuple(rows))


async def _plan(scope: Scope, wanted: PaperWanted) -> Document:
    """The plan as it stands: each step with its hour, why, and the cautions where they are needed."""
    plan = await current_treatment(scope, wanted.pool_id, units=wanted.reader.units)
    settings, r = parts_of(await pool_state(scope, wanted.pool_id)).settings, wanted.reader
    zone = ZoneInfo(settings.time_zone)
    parts: list[Part] = []
    for one in plan.steps:
        done = " (done)" if one.done_as is not None else ""
        parts.append(Heading(f"{one.number + 1}. {render(one.step.title, r)}{done}"))
        parts.append(Lines((f"{one.at.astimezone(zone):%A %H:%M}. {render(one.step.why, r)}",)))
        if one.step.cautions:
            parts.append(Lines(tuple(render(caution, r) for caution in one.step.cautions), strong=True))
    if not parts:
        parts.append(Lines(("Nothing has to be done now.",)))
    notes = tuple(render(note.text, r) for note in plan.notes)
    if notes:
        parts += [Heading("To know"), Lines(notes)]
    return Document(title="Plan", subtitle=settings.name, parts=tuple(parts))


async def _procedure(scope: Scope, wanted: PaperWanted) -> Document:
    """Step by step, with the caution at its step."""
    found, r = (
        await procedure_view(scope, wanted.pool_id, wanted.key, units=wanted.reader.units),
        wanted.reader,
    )
    settings = parts_of(await pool_state(scope, wanted.pool_id)).settings
    parts: list[Part] = []
    if found.materials:
        parts += [Heading("At hand"), Lines(tuple(render(one, r) for one in found.materials))]
    for n, step in enumerate(found.steps, start=1):
        parts.append(Heading(f"{n}. {render(step.text, r)}"))
        cautions = tuple(render(one, r) for one in step.cautions)
        if cautions:
            parts.append(Lines(cautions, strong=True))
    return Document(title=render(found.title, r), subtitle=settings.name, parts=tuple(parts))


async def _record(scope: Scope, wanted: PaperWanted) -> Document:
    """An opening or closing as it was done: each item with its day, and who ticked it."""
    lists = await season_lists(scope, wanted.pool_id, units=wanted.reader.units)
    chosen = [one for one in lists if wanted.list_id in (None, one.saved.list_id)]
    if not chosen:
        raise NotFound(Message("There is no such opening or closing here; make one under Season."))
    found, r = chosen[-1], wanted.reader
    settings = parts_of(await pool_state(scope, wanted.pool_id)).settings
    zone = ZoneInfo(settings.time_zone)
    who = {one.done_as.person_id for one in found.items if one.done_as and one.done_as.person_id}
    people = await scope.tx.shares.people_names(who)

    def outcome(one: ListItem) -> str:
        if one.done_as is None:
            return "open"
        done = "left out" if one.done_as.outcome is Outcome.SKIPPED else "done"
        by = people.get(one.done_as.person_id, "") if one.done_as.person_id else ""
        note = f": {one.done_as.note}" if one.done_as.note else ""
        return f"{done} {one.done_as.at.astimezone(zone):%Y-%m-%d %H:%M} {by}{note}".strip()

    rows = tuple((f"{one.item.day:%Y-%m-%d}", render(one.item.title, r), outcome(one)) for one in found.items)
    which = "Opening" if found.saved.which is Which.OPENING else "Closing"
    parts: tuple[Part, ...] = (
        Grid(("Planned", "What", "Done"), rows),
        Lines(("Signed:  ______________________________",)),
    )
    return Document(title=f"{which} record", subtitle=settings.name, parts=parts)


async def _water_log(scope: Scope, wanted: PaperWanted) -> Document:
    """The daily table that many health codes ask for: when, by whom, readings, what was seen and added."""
    state, r = await pool_state(scope, wanted.pool_id), wanted.reader
    parts_ = parts_of(state)
    zone = ZoneInfo(parts_.settings.time_zone)
    first, last = _days(scope, wanted, zone, usual=31)
    happened = _within(_happened(state), zone, first, last)
    entries = [entry for entry in happened if not isinstance(entry.body, CareDone)]
    ids = {entry.person_id for entry in entries if entry.person_id is not None}
    people = await scope.tx.shares.people_names(ids)
    rows = []
    for entry in entries[:MOST_ROWS]:
        local = entry.at.astimezone(zone)
        cells = [""] * len(LOGGED)
        said = ""
        if isinstance(entry.body, TestTaken):
            values = readings_of(entry.body.values)
            cells = ["" if (value := values.value(one)) is None else _number(one, value, r) for one in LOGGED]
            said = entry.body.note
        else:
            title, detail = describe(entry.body)
            said = f"{render(title, r)}: {render(detail, r)}" if detail else render(title, r)
        by = people.get(entry.person_id, "") if entry.person_id else ""
        rows.append((f"{local:%Y-%m-%d}", f"{local:%H:%M}", *cells, said, by))
    heads = tuple(measure_title(one, r.units) for one in LOGGED)
    table = Grid(("Day", "Time", *heads, "Seen, added, remarks", "By"), tuple(rows))
    parts: tuple[Part, ...] = (table if rows else Lines(("Nothing was tested in this time.",)),)
    return Document(
        title="Water log",
        subtitle=f"{parts_.settings.name}, {first:%B %-d, %Y} to {last:%B %-d, %Y}",
        parts=parts,
        wide=True,
    )
