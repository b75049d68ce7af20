"""The rows of a file as they would be made into entries: pure functions, run away from the event loop."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import AdditionMade
from kumpan.core.messages import NOTHING, Message, Value, Verbatim, joined, listed
from kumpan.core.notebook.columns import TableKind
from kumpan.core.notebook.other_tables import (
    PoolRow,
    StockRow,
    StopRow,
    by_role,
    read_pool,
    read_stock,
    read_stop,
)
from kumpan.core.notebook.rows import Manner, Remark, RowRead, RowVerdict, read_rows
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.shown import shown
from kumpan.core.quantity import Liquid, Mass, Number
from kumpan.core.testing.kits import kit_by_key
from kumpan.services.imports.manner import FileManner, Rows

AHEAD = timedelta(minutes=10)


@dataclass(frozen=True, kw_only=True)
class Known:
    """What rows are held against: pools by their name in lower case with their zone,
    the time now, and the number of the `first` row, as a spreadsheet counts.
    """

    pools: Mapping[str, tuple[UUID, str]]
    own: tuple[UUID, str] | None
    now: datetime
    first: int = 2


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """What becomes of a row: what it says, what is to be said of it, and what it is made into."""

    number: int
    verdict: RowVerdict
    says: Message
    remarks: tuple[Remark, ...]
    pool_id: UUID | None = None
    row: RowRead | StockRow | PoolRow | StopRow | None = None


def outcomes(rows: Rows, manner: FileManner, known: Known) -> list[Outcome]:
    """Every row that holds anything, in order."""
    if manner.kind is TableKind.NOTEBOOK:
        read = read_rows(
            rows,
            Manner(
                columns=manner.columns,
                kit=kit_by_key(manner.kit),
                units=manner.units,
                zone=known.own[1] if known.own else "UTC",
                latest=known.now + timedelta(days=1),
            ),
            known.first,
        )
        return [_of_notebook(one, known) for one in read if one.verdict is not RowVerdict.EMPTY]
    return [
        _of_other(number, cells, manner, known)
        for number, cells in enumerate(rows, start=known.first)
        if any(cell.strip() for cell in cells)
    ]


def _of_notebook(row: RowRead, known: Known) -> Outcome:
    found = known.own
    if row.pool:
        found = known.pools.get(row.pool.strip().casefold())
    if row.verdict is not RowVerdict.REFUSED and found is None:
        return _refused(
            row.number,
            Message('There is no pool "{pool}" here; set it up first.', pool=Verbatim(row.pool[:60])),
        )
    if row.at is not None and found is not None:
        row = replace(row, at=row.at.replace(tzinfo=ZoneInfo(found[1])))
        if row.at is not None and row.at > known.now + AHEAD:
            return _refused(
                row.number, Message("This day lies in the future; check the order of day and month.")
            )
    return Outcome(
        number=row.number,
        verdict=row.verdict,
        says=_says(row),
        remarks=row.remarks,
        pool_id=found[0] if found else None,
        row=row,
    )


def _refused(number: int, why: Message) -> Outcome:
    remark = Remark(column=None, text=why)
    return Outcome(number=number, verdict=RowVerdict.REFUSED, says=NOTHING, remarks=(remark,))


def _says(row: RowRead) -> Message:
    parts: list[Value] = [
        Message("{name} {value}", name=name_in_sentence(one.measure), value=shown(one.measure, one.value))
        for one in row.values
    ]
    tested: Value = Message("tested {values}", values=listed(parts)) if parts else NOTHING
    poured: Value = (
        Message("added {what}", what=listed(_poured(one) for one in row.additions))
        if row.additions
        else NOTHING
    )
    seen: Value = (
        Message("water {clarity}", clarity=Verbatim(row.visual_check.clarity.replace("_", " ")))
        if row.visual_check
        else NOTHING
    )
    note: Value = Message("note: {note}", note=Verbatim(row.note)) if row.note else NOTHING
    return Message("{parts}", parts=joined([seen, tested, poured, note], "; "))


def _poured(one: AdditionMade) -> Message:
    amount = Mass(one.mass_g) if one.volume_ml is None else Liquid(one.volume_ml)
    return Message("{amount} {label}", amount=amount, label=Verbatim(one.label))


def _of_other(number: int, cells: Sequence[str], manner: FileManner, known: Known) -> Outcome:
    filled = by_role(manner.columns, cells)
    try:
        match manner.kind:
            case TableKind.STOCK:
                return _stock(number, read_stock(filled, units=manner.units))
            case TableKind.POOLS:
                return _pool(number, read_pool(filled, units=manner.units), known)
            case _:
                return _stop(number, read_stop(filled), known)
    except InvalidInput as trouble:
        return _refused(number, trouble.message)


def _stock(number: int, row: StockRow) -> Outcome:
    bought: Value = NOTHING
    if row.packages:
        bought = Message("{n} packages bought", n=Number(row.packages))
    remark = (
        ()
        if row.product.package_g or row.product.package_ml
        else (
            Remark(column=None, text=Message("No package size: amounts are then by weight or volume only.")),
        )
    )
    return Outcome(
        number=number,
        verdict=RowVerdict.QUESTIONED if remark else RowVerdict.MADE,
        says=Message("{parts}", parts=joined([Verbatim(row.product.label), bought], ", ")),
        remarks=remark,
        row=row,
    )


def _pool(number: int, row: PoolRow, known: Known) -> Outcome:
    if row.name.casefold() in known.pools:
        return _refused(number, Message('There is a pool "{name}" already.', name=Verbatim(row.name[:60])))
    remarks: tuple[Remark, ...] = ()
    if row.assumed:
        what = Verbatim(", ".join(row.assumed))
        remarks = (Remark(column=None, text=Message("Not said, the usual is taken: {what}.", what=what)),)
    return Outcome(
        number=number,
        verdict=RowVerdict.QUESTIONED if remarks else RowVerdict.MADE,
        says=Message(
            "{name}, {volume}, {traits}",
            name=Verbatim(row.name),
            volume=Liquid(row.volume_l * 1000.0),
            traits=Verbatim(f"{row.surface}, {row.chlorination}, {row.filter}".replace("_", " ")),
        ),
        remarks=remarks,
        row=row,
    )


_DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def _stop(number: int, row: StopRow, known: Known) -> Outcome:
    found = known.pools.get(row.pool.strip().casefold())
    if found is None:
        return _refused(
            number, Message('There is no pool "{pool}" here; set it up first.', pool=Verbatim(row.pool[:60]))
        )
    return Outcome(
        number=number,
        verdict=RowVerdict.MADE,
        says=Message("{pool}, {day}", pool=Verbatim(row.pool), day=Verbatim(_DAYS[row.weekday])),
        remarks=(),
        pool_id=found[0],
        row=row,
    )
