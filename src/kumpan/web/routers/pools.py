"""Pools: set up, head, board, changes of settings, basin and equipment."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response
from fastapi.responses import JSONResponse

from kumpan.core.pool.salt_rise import volume_from_salt
from kumpan.services.assessment import queries as assessments
from kumpan.services.assessment import summaries
from kumpan.services.journal.ledger import record
from kumpan.services.pools import board as boards
from kumpan.services.pools import commands as pools_commands
from kumpan.services.pools import presets
from kumpan.services.pools.drawing import basin_view, pool_drawing
from kumpan.services.pools.towns import find_towns, nearest_town
from kumpan.services.season.queries import season_of
from kumpan.web.renewal import renewal
from kumpan.web.requests.pools import (
    BasinChange,
    BasinTyped,
    EquipmentChange,
    NewPoolIn,
    PageQuery,
    SaltRiseTyped,
    SettingsChange,
)
from kumpan.web.responses.assessment import Assessment
from kumpan.web.responses.pools import BasinView, Board, Ribbon, SaltVolume, Town
from kumpan.web.responses.shared import PlanDrawing, PoolHeader, PoolPage
from kumpan.web.scope import ReaderDep, ScopeDep
from kumpan.web.stamps import stamp
from kumpan.wording.reader import US_READER
from kumpan.wording.render import render

router = APIRouter(prefix="/api/v1", tags=["pools"])


@router.post("/basins/preview")
def preview_basin(typed: BasinTyped, reader: ReaderDep) -> BasinView:
    """Volume and to-scale drawing of a basin as typed, without keeping it."""
    return BasinView.of(basin_view(typed.to_core()), reader)


@router.post("/basins/from-salt")
def volume_of_salt(typed: SaltRiseTyped, reader: ReaderDep) -> SaltVolume:
    """The volume from a weighed bag of salt, read before it went in and a day after."""
    return SaltVolume.of(volume_from_salt(*typed.to_core()), reader)


@router.get("/towns")
def find_town(
    find: Annotated[str, Query(max_length=60)], time_zone: Annotated[str, Query(max_length=60)] = ""
) -> list[Town]:
    """Up to eight towns whose name begins so ("Portland", "Portland, ME"), those of the time zone first."""
    return [Town.of(one) for one in find_towns(find, time_zone)]


@router.get("/towns/nearest")
def town_near(
    latitude_deg: Annotated[float, Query(ge=-90, le=90, allow_inf_nan=False)],
    longitude_deg: Annotated[float, Query(ge=-180, le=180, allow_inf_nan=False)],
) -> Town:
    """The town next to a place, with its time zone."""
    return Town.of(nearest_town(latitude_deg, longitude_deg))


@router.get("/pools", response_model=PoolPage)
async def list_pools(
    scope: ScopeDep, reader: ReaderDep, asked: Annotated[PageQuery, Query()]
) -> JSONResponse:
    """A page of the pools, each with its swim answer and the one next thing; pools that cannot be read apart.

    In another language than the stored summaries are told in, each is told anew.
    """
    found = await summaries.page(scope, asked.to_core(), renewal())
    readable = [one for one in found.lines if not one.unreadable]
    if reader.language == US_READER.language:
        told = [_with_marks(one.rendered[reader.units]) for one in readable]
    else:
        heads = [await assessments.head(scope, one.pool_id) for one in readable]
        told = [PoolHeader.of(head, reader).model_dump(mode="json") for head in heads]
    unreadable = [
        {"id": str(one.pool_id), "name": one.name, "why": one.unreadable}
        for one in found.lines
        if one.unreadable
    ]
    page = {"pools": told, "unreadable": unreadable, "cursor": found.cursor, "counts": found.counts}
    return JSONResponse(page)


def _with_marks(rendered: object) -> dict[str, object]:
    """What the version before rendered has no marks, until it is made anew."""
    assert isinstance(rendered, dict)
    return {**rendered, "marks": rendered.get("marks", [])}


@router.get("/pools/{pool_id}/presets/{key}")
async def preset_changes(pool_id: UUID, key: str, scope: ScopeDep, reader: ReaderDep) -> list[str]:
    """What taking this kind of pool would change here; empty where it is one."""
    return [render(one, reader) for one in await presets.changes(scope, pool_id, key)]


@router.get("/pools/{pool_id}/assessment")
async def assessment(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> Assessment:
    """What stands against a pool now and the remedy of each, whether they may swim, and what comes next."""
    return Assessment.of(await assessments.assessment_of(scope, pool_id), reader)


@router.post("/pools", status_code=201)
async def set_up_pool(new: NewPoolIn, scope: ScopeDep, reader: ReaderDep) -> PoolHeader:
    """Set up a pool."""
    await pools_commands.set_up(
        scope,
        pools_commands.NewPool(
            id=new.id,
            settings=new.settings.to_core(),
            basin=new.basin.to_core(),
            equipment=new.equipment.to_core(),
            entry_ids=new.entry_ids,
        ),
        new.at or scope.now,
        new.person_id,
    )
    return PoolHeader.of(await assessments.head(scope, new.id), reader)


@router.get("/pools/{pool_id}")
async def pool_head(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> PoolHeader:
    """One pool's header."""
    return PoolHeader.of(await assessments.head(scope, pool_id), reader)


@router.get("/pools/{pool_id}/board")
async def pool_board(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> Board:
    """Where every measure stands, and why."""
    return Board.of(await boards.board(scope, pool_id), reader)


@router.get("/pools/{pool_id}/plan", responses={204: {"description": "dimensions not known"}})
async def pool_plan(
    pool_id: UUID, scope: ScopeDep, response: Response, reader: ReaderDep
) -> PlanDrawing | None:
    """The pool seen from above; empty when only its volume is known."""
    response.headers["Cache-Control"] = "no-store"
    return None if (found := await pool_drawing(scope, pool_id)) is None else PlanDrawing.of(found, reader)


@router.post("/pools/{pool_id}/settings")
async def change_settings(
    pool_id: UUID, change: SettingsChange, scope: ScopeDep, reader: ReaderDep
) -> PoolHeader:
    """Change name, zone, profile and rules."""
    settings = change.settings.to_core()
    pools_commands.check_settings(settings)
    await record(scope, pool_id, stamp(change, scope), settings)
    return PoolHeader.of(await assessments.head(scope, pool_id), reader)


@router.post("/pools/{pool_id}/basin")
async def change_basin(pool_id: UUID, change: BasinChange, scope: ScopeDep, reader: ReaderDep) -> PoolHeader:
    """Change shape and volume."""
    await record(scope, pool_id, stamp(change, scope), change.basin.to_core())
    return PoolHeader.of(await assessments.head(scope, pool_id), reader)


@router.post("/pools/{pool_id}/equipment")
async def change_equipment(
    pool_id: UUID, change: EquipmentChange, scope: ScopeDep, reader: ReaderDep
) -> PoolHeader:
    """Change surface, chlorination, filter and fill water."""
    await record(scope, pool_id, stamp(change, scope), change.equipment.to_core())
    return PoolHeader.of(await assessments.head(scope, pool_id), reader)


@router.get("/pools/{pool_id}/season")
async def season(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> Ribbon:
    """The year as one strip: warmth, tests, what went in, shocks, new water, care."""
    return Ribbon.of(await season_of(scope, pool_id), reader)
