"""Photos taken at a pool: made anew, stored once, named in the journal by their hash."""

from dataclasses import dataclass
from datetime import datetime
from hashlib import sha256
from uuid import UUID

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.journal import PhotoOf, PhotoTaken, RescueSet, effective, of_kind
from kumpan.core.messages import Message, Verbatim
from kumpan.formats.images import made_anew
from kumpan.services.journal.ledger import Scope, Stamp, pool_entries, pool_rows, record
from kumpan.services.workers import WORKERS

MOST_OF_A_POOL = 2_000
MOST_OF_A_WORKSPACE = 20_000_000_000  # bytes
NO_SUCH_PHOTO = Message("There is no such photo here; reload the page.")


@dataclass(frozen=True, kw_only=True)
class PhotoView:
    """A photo without what it shows."""

    entry_id: UUID
    at: datetime
    by: str
    sha256: str
    shows: PhotoOf
    about: str
    note: str
    width: int
    height: int


@dataclass(frozen=True)
class PhotosView:
    """The photos of a pool, the newest first; first and last of the rescue begun last, side by side."""

    photos: tuple[PhotoView, ...]
    before: PhotoView | None
    after: PhotoView | None


async def take_photo(scope: Scope, pool_id: UUID, stamp: Stamp, *, content: bytes, taken: PhotoTaken) -> str:
    """Its hash. The same id with the same picture again is answered. Raises InvalidInput."""
    photo = await WORKERS.run(made_anew, content)
    digest = sha256(photo.jpeg).hexdigest()
    known = of_kind(effective(await pool_entries(scope, pool_id)), PhotoTaken)
    if len(known) >= MOST_OF_A_POOL and all(one.id != stamp.id for one in known):
        raise InvalidInput(
            Message(
                "This pool has {most} photos; take some back first.", most=Verbatim(f"{MOST_OF_A_POOL:,}")
            ),
            "image",
        )
    room = MOST_OF_A_WORKSPACE - await scope.tx.photos.total_bytes(scope.workspace_id)
    if len(photo.jpeg) > room:
        raise InvalidInput(
            Message(
                "The photos here take {most} GB, which is all there is room for.",
                most=Verbatim(f"{MOST_OF_A_WORKSPACE / 1e9:g}"),
            ),
            "image",
        )
    body = PhotoTaken(
        sha256=digest,
        shows=taken.shows,
        about=taken.about,
        note=taken.note,
        width=photo.width,
        height=photo.height,
    )
    await record(scope, pool_id, stamp, body)
    await scope.tx.photos.add(scope.workspace_id, digest, (photo.jpeg, photo.thumb), scope.now)
    return digest


async def photos_of(scope: Scope, pool_id: UUID) -> PhotosView:
    """All that count. Raises NotFound."""
    entries = effective(await pool_entries(scope, pool_id))
    taken = of_kind(entries, PhotoTaken)
    people = await scope.tx.shares.people_names({one.person_id for one in taken if one.person_id is not None})
    views = tuple(
        PhotoView(
            entry_id=one.id,
            at=one.at,
            by=people.get(one.person_id, "") if one.person_id is not None else "",
            **vars(one.body),
        )
        for one in sorted(taken, key=lambda one: one.at, reverse=True)
    )
    rescues = of_kind(entries, RescueSet)
    since = [view for view in views if rescues and view.at >= rescues[-1].at]
    both = len(since) > 1
    return PhotosView(views, since[-1] if both else None, since[0] if both else None)


async def picture(scope: Scope, pool_id: UUID, digest: str, *, thumb: bool) -> bytes:
    """What a photo of this pool shows, as a JPEG. Raises NotFound."""
    entries = await pool_entries(scope, pool_id)
    if any(isinstance(one.body, PhotoTaken) and one.body.sha256 == digest for one in entries):
        places = {row.workspace_id for row in await pool_rows(scope, pool_id)}
        found = await scope.tx.photos.one(places, digest, thumb=thumb)
        if found is not None:
            return found
    raise NotFound(NO_SUCH_PHOTO)


async def put_back(scope: Scope, jpeg: bytes) -> None:
    """A picture of an archive, byte for byte: its hash is what the journal names. Raises InvalidInput."""
    small = await WORKERS.run(made_anew, jpeg)
    await scope.tx.photos.add(scope.workspace_id, sha256(jpeg).hexdigest(), (jpeg, small.thumb), scope.now)


async def set_mark(scope: Scope, content: bytes | None) -> None:
    """The picture that stands on the workspace's papers; None for none. Raises InvalidInput."""
    if content is None:
        await scope.tx.workspace.set_mark(scope.workspace_id, None)
        return
    found = await WORKERS.run(made_anew, content)
    digest = sha256(found.jpeg).hexdigest()
    await scope.tx.photos.add(scope.workspace_id, digest, (found.jpeg, found.thumb), scope.now)
    await scope.tx.workspace.set_mark(scope.workspace_id, digest)
