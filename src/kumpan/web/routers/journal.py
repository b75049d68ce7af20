"""Looks, tests, additions, the log, corrections and voids."""

from uuid import UUID

from fastapi import APIRouter

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import chemical
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.services.journal import commands as journal_commands
from kumpan.services.journal import queries as journal_queries
from kumpan.services.journal.ledger import correct, record, void
from kumpan.services.journal.log import log
from kumpan.services.pools.outlooks import histories_of, history_of, outlook_of
from kumpan.services.tests import commands as tests_commands
from kumpan.services.tests import queries as tests_queries
from kumpan.web.requests.journal import (
    AdditionTyped,
    AmountChange,
    CellIn,
    LookIn,
    SlipIn,
    SwimmersIn,
    TemperatureUnit,
    TestIn,
    VoidIn,
    WaterChangeIn,
)
from kumpan.web.responses.journal import (
    HistoryView,
    LastValue,
    LogLine,
    MeasureHistory,
    OutlookView,
    TestFormView,
)
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1", tags=["journal"])


@router.post("/pools/{pool_id}/slip/read")
async def read_test_line(pool_id: UUID, slip: SlipIn, scope: ScopeDep, reader: ReaderDep) -> TestFormView:
    """Read a slip without keeping it: values with their doubt, what is unreadable, what to question."""
    return TestFormView.of(
        await tests_queries.question(
            scope,
            pool_id,
            line=slip.line,
            fields=slip.fields,
            kit_key=slip.kit,
            temperature_unit=slip.temperature_unit,
        ),
        reader,
    )


@router.get("/pools/{pool_id}/slip/last")
async def last_values(
    pool_id: UUID, scope: ScopeDep, reader: ReaderDep, temperature_unit: TemperatureUnit = "f"
) -> dict[Measure, LastValue]:
    """What each measure read last, for the slip's ghosts and "same as last"."""
    return {
        measure: LastValue.of(one, reader)
        for measure, one in (await tests_queries.last_values_of(scope, pool_id, temperature_unit)).items()
    }


@router.post("/pools/{pool_id}/tests", status_code=201)
async def keep_test(pool_id: UUID, test: TestIn, scope: ScopeDep) -> UUID:
    """Keep a test as it was typed."""
    entry = await tests_commands.keep_test(
        scope,
        pool_id,
        stamp=stamp(test, scope),
        fields=test.fields,
        kit_key=test.kit,
        temperature_unit=test.temperature_unit,
        note=test.note,
    )
    return entry.id


@router.post("/pools/{pool_id}/looks", status_code=201)
async def keep_look(pool_id: UUID, visual_check: LookIn, scope: ScopeDep) -> UUID:
    """Keep what was seen at the pool."""
    return (await record(scope, pool_id, stamp(visual_check, scope), visual_check.to_core())).id


@router.post("/pools/{pool_id}/additions", status_code=201)
async def keep_addition(pool_id: UUID, addition: AdditionTyped, scope: ScopeDep, units: UnitsDep) -> UUID:
    """Something poured outside a sheet."""
    if addition.product_id is not None:
        product = await journal_queries.product_by_id(scope, addition.product_id)
    elif addition.chemical is not None and addition.strength_percent is not None:
        chemical(addition.chemical)
        product = Product("", addition.chemical, addition.strength_percent)
    else:
        raise InvalidInput(
            Message("Say what was poured: product_id, or chemical and strength_percent."), "product_id"
        )
    entry = await journal_commands.pour(
        scope,
        pool_id,
        stamp=stamp(addition, scope),
        product=product,
        amount=addition.amount,
        units=units,
    )
    return entry.id


@router.post("/pools/{pool_id}/water-changes", status_code=201)
async def keep_water_change(pool_id: UUID, change: WaterChangeIn, scope: ScopeDep) -> UUID:
    """Backwash, refill, rain that ran over, a drain."""
    return (await journal_commands.change_water(scope, pool_id, stamp(change, scope), change.to_core())).id


@router.post("/pools/{pool_id}/cell", status_code=201)
async def keep_cell_setting(pool_id: UUID, cell: CellIn, scope: ScopeDep) -> UUID:
    """The salt cell's setting from now on."""
    return (await record(scope, pool_id, stamp(cell, scope), cell.to_core())).id


@router.post("/pools/{pool_id}/swimmers", status_code=201)
async def keep_swimmers(pool_id: UUID, swimmers: SwimmersIn, scope: ScopeDep) -> UUID:
    """Keep how many swam, and how long."""
    return (await record(scope, pool_id, stamp(swimmers, scope), swimmers.to_core())).id


@router.get("/pools/{pool_id}/outlook")
async def pool_outlook(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> OutlookView:
    """What is ahead: when chlorine runs low, what the next visit finds, what drifts."""
    return OutlookView.of(await outlook_of(scope, pool_id), reader)


@router.get("/pools/{pool_id}/history")
async def pool_histories(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> list[MeasureHistory]:
    """Every measure that was ever tested, over the whole journal."""
    return [MeasureHistory.of(one, reader) for one in await histories_of(scope, pool_id)]


@router.get("/pools/{pool_id}/history/{measure}")
async def pool_history(pool_id: UUID, measure: Measure, scope: ScopeDep, reader: ReaderDep) -> HistoryView:
    """One measure over time with its forecast."""
    return HistoryView.of(await history_of(scope, pool_id, measure), reader)


@router.get("/pools/{pool_id}/log")
async def pool_log(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> list[LogLine]:
    """The whole journal of a pool, the latest first."""
    return [LogLine.of(one, reader) for one in await log(scope, pool_id)]


@router.post("/entries/{entry_id}/void")
async def void_entry(entry_id: UUID, taken_back: VoidIn, scope: ScopeDep) -> UUID:
    """Take an entry back. It stays in the log, marked so."""
    return (await void(scope, entry_id, stamp(taken_back, scope), taken_back.reason)).id


@router.post("/entries/{entry_id}/correct-test")
async def correct_test(entry_id: UUID, test: TestIn, scope: ScopeDep) -> UUID:
    """Replace a test by a corrected one, with its true time."""
    entry = await tests_commands.correct_test(
        scope,
        entry_id,
        stamp=stamp(test, scope),
        fields=test.fields,
        kit_key=test.kit,
        temperature_unit=test.temperature_unit,
        note=test.note,
    )
    return entry.id


@router.post("/entries/{entry_id}/correct-look")
async def correct_look(entry_id: UUID, visual_check: LookIn, scope: ScopeDep) -> UUID:
    """Put a visual check right; the old one stays in the journal."""
    return (await correct(scope, entry_id, stamp(visual_check, scope), visual_check.to_core())).id


@router.post("/entries/{entry_id}/correct-addition")
async def correct_addition(entry_id: UUID, addition: AmountChange, scope: ScopeDep, units: UnitsDep) -> UUID:
    """Correct how much was poured and when."""
    entry = await journal_commands.correct_amount(
        scope, entry_id, stamp(addition, scope), addition.amount, units=units
    )
    return entry.id
