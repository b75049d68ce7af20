"""Photos of a pool."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Path, Response

from kumpan.services.photos.photos import photos_of, picture, take_photo
from kumpan.web.requests.photos import PhotoIn
from kumpan.web.responses.photos import PoolPhotos
from kumpan.web.scope import ScopeDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1", tags=["journal"])
Digest = Annotated[str, Path(pattern="^[0-9a-f]{64}$")]


@router.get("/pools/{pool_id}/photos")
async def pool_photos(pool_id: UUID, scope: ScopeDep) -> PoolPhotos:
    """What was taken here, and before and after of the rescue begun last."""
    return PoolPhotos.of(await photos_of(scope, pool_id))


@router.post("/pools/{pool_id}/photos", status_code=201)
async def keep_photo(pool_id: UUID, photo: PhotoIn, scope: ScopeDep) -> UUID:
    """A photo: turned upright, made smaller, without where and by what it was taken."""
    told, taken = stamp(photo, scope), photo.to_core()
    await take_photo(scope, pool_id, told, content=photo.content(), taken=taken)
    return photo.id


@router.get("/pools/{pool_id}/photos/{sha256}.jpg", response_class=Response)
async def photo(pool_id: UUID, sha256: Digest, scope: ScopeDep, *, thumb: bool = False) -> Response:
    """What it shows."""
    content = await picture(scope, pool_id, sha256, thumb=thumb)
    headers = {"cache-control": "private, max-age=31536000, immutable"}
    return Response(content, media_type="image/jpeg", headers=headers)
