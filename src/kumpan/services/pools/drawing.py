"""The basin: its volume and its drawing."""

from uuid import UUID

from kumpan.core.journal import BasinMeasured
from kumpan.core.pool.plan_drawing import Fixture, PlanDrawing, draw
from kumpan.core.pool.shapes import Part, area_m2, mean_depth_m
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.views import BasinView


def basin_view(basin: BasinMeasured) -> BasinView:
    """Its water, surface and mean depth, as far as its dimensions are known."""
    if not basin.parts:
        return BasinView(basin.volume_l, None, None, None)
    area = sum(area_m2(part) for part in basin.parts)
    content = sum(area_m2(part) * mean_depth_m(part) for part in basin.parts)
    return BasinView(basin.volume_l, area, content / area, drawing_of(basin))


def drawing_of(basin: BasinMeasured) -> PlanDrawing | None:
    """The pool seen from above, or None when its dimensions are not known."""
    return _drawn(basin.parts, basin.fixtures) if basin.parts else None


@remembered(most=128)
def _drawn(parts: tuple[Part, ...], fixtures: tuple[Fixture, ...]) -> PlanDrawing:
    """Where to sample and to pour is searched along the edge; a basin seldom changes."""
    return draw(parts, fixtures)


async def pool_drawing(scope: Scope, pool_id: UUID) -> PlanDrawing | None:
    """The plan to draw, where the pool's parts are known."""
    basin = (await pool_state(scope, pool_id)).basin
    return drawing_of(basin) if basin else None
