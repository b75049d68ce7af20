"""Photos, as the screens show them."""

from datetime import datetime
from uuid import UUID

from kumpan.core.journal import PhotoOf
from kumpan.web.responses.base import Response


class PhotoLine(Response):
    """A photo; what it shows is at `/pools/{pool_id}/photos/{sha256}.jpg`, small with `?thumb=true`."""

    entry_id: UUID
    at: datetime
    by: str
    sha256: str
    shows: PhotoOf
    about: str
    note: str
    width: int
    height: int


class PoolPhotos(Response):
    """The photos of a pool, the newest first; `before` and `after` of the rescue begun last."""

    photos: tuple[PhotoLine, ...]
    before: PhotoLine | None
    after: PhotoLine | None
