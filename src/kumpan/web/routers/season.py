"""Opening and closing lists."""

from datetime import date
from uuid import UUID

from fastapi import APIRouter

from kumpan.core.journal import Cover, PoolKind, Which, Winter
from kumpan.core.season.plans import SeasonPlan
from kumpan.services.seasons import season_list
from kumpan.web.scope import ScopeDep

router = APIRouter(prefix="/api/v1", tags=["season"])


@router.get("/pools/{pool_id}/season-plan")
async def plan(
    pool_id: UUID,
    scope: ScopeDep,
    which: Which,
    day: date,
    kind: PoolKind = PoolKind.IN_GROUND,
    cover: Cover = Cover.SOLID,
    winter: Winter = Winter.FROST,
    skimmer_plate: bool = False,
) -> SeasonPlan:
    """The dated list for opening or closing on a day; adapted to filter, cell, surface and the last look."""
    return await season_list(scope, pool_id, which, day, kind, cover, winter, skimmer_plate=skimmer_plate)
