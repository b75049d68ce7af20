"""Calendar feeds: whoever has the secret address reads what is due, without signing in."""

from fastapi import APIRouter, Response

from kumpan.services.maintenance import feeds
from kumpan.web.routers.maintenance import ICS
from kumpan.web.scope import HouseDep

router = APIRouter(prefix="/api/v1", tags=["maintenance"])


@router.get("/feeds/{secret}.ics", response_class=Response)
async def feed(secret: str, scope: HouseDep) -> Response:
    """The calendar behind a secret link."""
    return Response(await feeds.feed(scope, secret), media_type=ICS)
