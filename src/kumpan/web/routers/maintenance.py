"""Care of a pool: what is due, procedures, benches, the calendar and its feed."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Path, Query, Request, Response

from kumpan.core.journal import PartReplaced
from kumpan.services.maintenance import commands as maintenance_commands
from kumpan.services.maintenance import devices, feeds
from kumpan.services.maintenance import equipment as equipment_view
from kumpan.services.maintenance import queries as maintenance_queries
from kumpan.web.requests.base import AsTyped
from kumpan.web.requests.maintenance import (
    DeviceIn,
    DoneIn,
    EventIn,
    FinishIn,
    IntervalIn,
    InterviewIn,
    LampsIn,
    MachineIn,
    OwnTaskIn,
    PartIn,
    PlantIn,
    PressureIn,
    PutOffIn,
)
from kumpan.web.responses.maintenance import (
    AcidBath,
    CalendarDay,
    CareView,
    EquipmentView,
    FinishedView,
    Interview,
    ProcedureView,
    TodayView,
)
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep
from kumpan.web.stamps import stamp

DeviceName = Annotated[str, Path(min_length=1, max_length=40)]
router = APIRouter(prefix="/api/v1", tags=["care"])
ICS = "text/calendar"


@router.get("/pools/{pool_id}/today")
async def today(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> TodayView:
    """What is due now and soon, most pressing first."""
    return TodayView.of(await maintenance_queries.today(scope, pool_id), reader)


@router.get("/pools/{pool_id}/care")
async def all_care(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> CareView:
    """Every task with its date and interval, suggestions from the log, and the procedures."""
    return CareView.of(await maintenance_queries.care(scope, pool_id), reader)


@router.get("/pools/{pool_id}/calendar")
async def calendar(
    pool_id: UUID, scope: ScopeDep, reader: ReaderDep, days: Annotated[int, Query(ge=1, le=366)] = 42
) -> tuple[CalendarDay, ...]:
    """What falls on each day ahead, as if each were done on its day."""
    return tuple(
        [CalendarDay.of(one, reader) for one in await maintenance_queries.calendar_days(scope, pool_id, days)]
    )


@router.get("/pools/{pool_id}/procedures/{key}")
async def procedure(
    pool_id: UUID, key: str, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> ProcedureView:
    """One procedure as it stands for this pool."""
    return ProcedureView.of(
        await maintenance_queries.procedure_view(scope, pool_id, key, units=units), reader
    )


@router.post("/pools/{pool_id}/procedures/{key}/finish", status_code=201)
async def finish(
    pool_id: UUID, key: str, given: FinishIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> FinishedView:
    """Write what it led to: care done, dates moved, water lost."""
    return FinishedView.of(
        await maintenance_commands.finish(
            scope,
            pool_id,
            stamp=stamp(given, scope),
            key=key,
            typed=given.values,
            note=given.note,
            units=units,
        ),
        reader,
    )


@router.post("/pools/{pool_id}/care/done", status_code=201)
async def done(pool_id: UUID, given: DoneIn, scope: ScopeDep) -> UUID:
    """A task that was done without its procedure, or by somebody else."""
    await maintenance_commands.done(
        scope, pool_id, stamp=stamp(given, scope), task=given.task, note=given.note
    )
    return given.id


@router.post("/pools/{pool_id}/care/put-off", status_code=201)
async def put_off(pool_id: UUID, given: PutOffIn, scope: ScopeDep) -> UUID:
    """To a later day, or left out this time with a reason."""
    await maintenance_commands.put_off(
        scope, pool_id, stamp=stamp(given, scope), task=given.task, until=given.until, reason=given.reason
    )
    return given.id


@router.post("/pools/{pool_id}/care/interval", status_code=201)
async def interval(pool_id: UUID, given: IntervalIn, scope: ScopeDep) -> UUID:
    """Set how often a task comes round here, or that it does not."""
    await maintenance_commands.set_interval(
        scope, pool_id, stamp=stamp(given, scope), task=given.task, days=given.days, off=given.off
    )
    return given.id


@router.post("/care/tasks", status_code=201)
async def own_task(given: OwnTaskIn, scope: ScopeDep) -> str:
    """A task of one's own on the list of one pool or of many; its key. The same title again changes it."""
    return await maintenance_commands.set_own_task(
        scope, given.pool_ids, stamp(given, scope), given.to_core()
    )


@router.post("/pools/{pool_id}/events", status_code=201)
async def event(pool_id: UUID, given: EventIn, scope: ScopeDep) -> UUID:
    """A storm, a crowd, a hot spell: what asks for a test."""
    await maintenance_commands.note_event(scope, pool_id, stamp(given, scope), given.to_core())
    return given.id


@router.post("/pools/{pool_id}/pressures", status_code=201)
async def pressure(pool_id: UUID, given: PressureIn, scope: ScopeDep, units: UnitsDep) -> UUID:
    """The filter's gauge with the pump on."""
    await maintenance_commands.note_pressure(scope, pool_id, stamp(given, scope), given.pressure, units=units)
    return given.id


@router.post("/pools/{pool_id}/plant", status_code=201)
async def plant(pool_id: UUID, given: PlantIn, scope: ScopeDep, units: UnitsDep) -> UUID:
    """Pump, filter and cell as they are from now on."""
    await maintenance_commands.set_plant(scope, pool_id, stamp(given, scope), given.to_core(units))
    return given.id


@router.get("/pools/{pool_id}/benches")
async def all_benches(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> EquipmentView:
    """The cell's, the filter's and the pump's bench."""
    return EquipmentView.of(await equipment_view.equipment_view(scope, pool_id), reader)


@router.post("/pools/{pool_id}/machines", status_code=201)
async def machine(pool_id: UUID, given: MachineIn, scope: ScopeDep) -> UUID:
    """A cleaner, a feeder, a cover, a heater or another machine, as it is from now on; it brings its care."""
    await maintenance_commands.set_machine(scope, pool_id, stamp(given, scope), given.to_core())
    return given.id


@router.post("/pools/{pool_id}/parts", status_code=201)
async def part(pool_id: UUID, given: PartIn, scope: ScopeDep) -> UUID:
    """A part that was replaced."""
    replaced = PartReplaced(given.part.strip(), given.machine_id, given.note.strip())
    await maintenance_commands.replace_part(scope, pool_id, stamp(given, scope), replaced)
    return given.id


@router.post("/pools/{pool_id}/lamps", status_code=201)
async def lamps(pool_id: UUID, given: LampsIn, scope: ScopeDep) -> UUID:
    """What the chlorinator's lamps show, read by a person; an empty list: none is lit."""
    await equipment_view.note_lamps(scope, pool_id, stamp(given, scope), given.lamps)
    return given.id


@router.get("/interview")
def interview(
    tree: str,
    reader: ReaderDep,
    answers: Annotated[list[str], Query(max_length=20)] = [],  # noqa: B006
) -> Interview:
    """Where a fault interview stands after these answers. Nothing is kept."""
    return Interview.of(equipment_view.ask(tree, answers), reader)


@router.post("/pools/{pool_id}/interviews", status_code=201)
async def keep_interview(pool_id: UUID, given: InterviewIn, scope: ScopeDep, reader: ReaderDep) -> Interview:
    """Keep how a fault interview went."""
    return Interview.of(
        await equipment_view.keep_interview(
            scope, pool_id, stamp=stamp(given, scope), tree=given.tree, answers=given.answers
        ),
        reader,
    )


@router.get("/acid-bath")
def acid_bath(
    container: Annotated[str, Query(max_length=40)],
    reader: ReaderDep,
    units: UnitsDep,
    acid_percent: Annotated[float, AsTyped, Query(gt=0, le=40, allow_inf_nan=False)] = 31.45,
    ratio: Annotated[int, Query(ge=1, le=10)] = 5,
) -> AcidBath:
    """Water and acid that fill a container to the strength of 4:1 or 5:1 of the usual acid."""
    return AcidBath.of(equipment_view.mix_acid(container, acid_percent, ratio, units=units), reader)


@router.get("/pools/{pool_id}/care.ics", response_class=Response)
async def care_file(pool_id: UUID, scope: ScopeDep) -> Response:
    """The coming year of a pool's care as a calendar file."""
    headers = {"content-disposition": 'attachment; filename="pool-care.ics"'}
    return Response(await feeds.care_file(scope, pool_id), media_type=ICS, headers=headers)


@router.post("/pools/{pool_id}/device", status_code=201)
async def link_device(pool_id: UUID, given: DeviceIn, scope: ScopeDep) -> UUID:
    """Poll a controller or station on this machine from now on; an empty address unlinks it."""
    await devices.link(scope, pool_id, stamp=stamp(given, scope), device=given.device, address=given.address)
    return given.id


@router.post(
    "/pools/{pool_id}/device/{device}/readings",
    status_code=202,
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
        }
    },
)
async def push_reading(pool_id: UUID, device: DeviceName, request: Request, scope: ScopeDep) -> bool:
    """A reading that a device or its bridge sends, with a token: JSON as in docs/device-protocol.md.

    False where it said nothing or came less than half a minute after the last.
    """
    return await devices.push(scope, pool_id, device, await request.body())
