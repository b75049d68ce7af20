"""A pool that nobody cares for any more: archived, only read; deleted once its journal was downloaded."""

from uuid import UUID

from kumpan.core.errors import Conflict, InvalidInput
from kumpan.core.journal import AdditionMade, PhotoTaken, effective, of_kind
from kumpan.core.messages import Message
from kumpan.services.journal.export import journal_file, pool_name
from kumpan.services.journal.ledger import Scope, forget_pools, own_pool, pool_entries
from kumpan.services.people.audit import audited
from kumpan.services.sharing.shares import end_share, shares
from kumpan.storage.repositories.journal import StoredPool


async def archive(scope: Scope, pool_id: UUID, *, back: bool) -> None:
    """Take a pool out of the lists, or bring it `back`. Raises NotPermitted for a pool of others."""
    await own_pool(scope, pool_id)
    await scope.tx.journal.archive(pool_id, None if back else scope.now)
    forget_pools(scope)
    await audited(scope, scope.person_id, "pool_unarchived" if back else "pool_archived", pool=str(pool_id))


async def archived(scope: Scope) -> list[tuple[StoredPool, str]]:
    """The archived pools that the workspace works on, each with its name."""
    found = await scope.tx.journal.pools(scope.workspace_id, archived=True)
    return [(pool, await pool_name(scope, pool.id)) for pool in found]


async def delete(scope: Scope, pool_id: UUID, sha256: str) -> None:
    """Delete an archived pool, its journal and its photos for good, if the journal was downloaded.

    `sha256` is that of the download: nothing goes that nobody has. Whoever shares the pool gets their copy.
    What was poured stays on the shelf's books, of no pool any more. Raises Conflict and InvalidInput.
    """
    pool = await own_pool(scope, pool_id)
    if pool.archived_at is None:
        raise Conflict(Message("Archive this pool first; an archived one can be deleted."))
    if (await journal_file(scope, pool_id)).sha256 != sha256:
        raise InvalidInput(
            Message(
                "Something was entered since you downloaded the journal; download it again, then delete."
            ),
            "sha256",
        )
    for share in await shares(scope, pool_id):
        await end_share(scope, pool_id, share.id)
    entries = await pool_entries(scope, pool_id)
    poured = of_kind(effective(entries), AdditionMade)
    pictures = {entry.body.sha256 for entry in of_kind(entries, PhotoTaken)}
    await scope.tx.journal.delete_pool(pool_id, {entry.id for entry in poured})
    await scope.tx.photos.drop(scope.workspace_id, pictures)
    forget_pools(scope)
    await audited(scope, scope.person_id, "pool_deleted", pool=str(pool_id), sha256=sha256)
