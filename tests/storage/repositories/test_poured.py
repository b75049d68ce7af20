"""The books of what was poured say what a walk through all entries says, whatever is corrected or taken back."""

import random
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import pytest

from kumpan.core.journal import AdditionMade, effective, of_kind
from kumpan.services.journal.ledger import Scope, Stamp, correct, entries_in, record, void
from kumpan.storage.transaction import Database


def poured(product: str, mass_g: float) -> AdditionMade:
    return AdditionMade(
        chemical="sodium_hypochlorite", strength_percent=10, label="Liquid", mass_g=mass_g, product_id=product
    )


async def walked(scope: Scope, since: datetime | None = None) -> dict[str, float]:
    """What the entries themselves add up to."""
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, ("addition", "void"))
    total: dict[str, float] = {}
    for entry in of_kind(effective(entries_in(rows)), AdditionMade):
        if entry.body.product_id and (since is None or entry.at > since):
            total[entry.body.product_id] = total.get(entry.body.product_id, 0.0) + entry.body.mass_g
    return total


@pytest.mark.parametrize("seed", range(5))
async def test_the_books_agree_with_the_journal(database_url: str, seed: int) -> None:
    chance, pools, database = random.Random(seed), (uuid4(), uuid4()), Database(database_url)
    async with database.transaction() as tx:
        home = (await tx.workspace.workspace_ids())[0]
        scope = Scope(tx, home, datetime.now(UTC) + timedelta(minutes=1))
        for pool in pools:
            await tx.journal.add_pool(home, pool, scope.now)
        live: list[UUID] = []
        for step in range(40):
            at = datetime.now(UTC) - timedelta(days=chance.uniform(0, 60))
            stamp = Stamp(uuid4(), at, None)
            body = poured(chance.choice(["a", "b"]), chance.uniform(1, 900))
            if live and chance.random() < 0.3:
                old = live.pop(chance.randrange(len(live)))
                await correct(scope, old, stamp, body)
                live.append(stamp.id)
            elif live and chance.random() < 0.2:
                await void(scope, live.pop(chance.randrange(len(live))), stamp, "")
            else:
                await record(scope, pools[step % 2], stamp, body)
                live.append(stamp.id)
        cut = datetime.now(UTC) - timedelta(days=28)
        assert await tx.poured.totals(home) == pytest.approx(await walked(scope))
        assert await tx.poured.since(home, cut) == pytest.approx(await walked(scope, cut))
        one = await tx.poured.by_person(home, None, product_id="a", after=cut)
        assert one == pytest.approx((await walked(scope, cut)).get("a", 0.0))
    await database.close()
