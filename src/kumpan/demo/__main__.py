"""Load the demo data into an empty installation; an installation with pools is left as it is."""

import asyncio
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5

from kumpan.demo.scenario import BOUGHT, PEOPLE, SHELF, DemoPool, pools
from kumpan.services import additions, shelf, slips, workspace
from kumpan.services import pools as pool_cases
from kumpan.services.ledger import Scope, Stamp, record
from kumpan.settings import Settings
from kumpan.storage.transaction import Database

SPACE = UUID("6d1f4b1e-3f0a-4c53-9a53-2f1f3b6c8a10")


def demo_id(*names: object) -> UUID:
    """The same id for the same thing at every start."""
    return uuid5(SPACE, "/".join(str(name) for name in names))


async def load(database: Database, now: datetime) -> bool:
    """Load all of it in one transaction. False when pools are there already."""
    async with database.transaction() as tx:
        scope = Scope(tx, await workspace.the_workspace(tx), now)
        if await tx.journal.pool_ids(scope.workspace_id):
            return False
        for name, initials in PEOPLE.items():
            await workspace.add_person(scope, demo_id("person", name), name, initials)
        for product in SHELF:
            await shelf.add_product(scope, replace(product, id=str(demo_id("product", product.id))))
            stamp = Stamp(
                demo_id("purchase", product.id), now - timedelta(days=40), demo_id("person", "Ines Varga")
            )
            await shelf.buy(scope, stamp, str(demo_id("product", product.id)), BOUGHT[product.id], None)
        for n, pool in enumerate(pools()):
            # A millisecond apart, so that the list keeps the scenario's order.
            await _load_pool(replace(scope, now=now + timedelta(milliseconds=n)), pool)
    return True


async def _load_pool(scope: Scope, demo: DemoPool) -> None:
    id_, began = demo_id("pool", demo.key), scope.now - timedelta(days=45)
    ids = (demo_id(demo.key, "settings"), demo_id(demo.key, "basin"), demo_id(demo.key, "equipment"))
    person = demo_id("person", "Ines Varga")
    new = pool_cases.NewPool(id_, demo.settings, demo.basin, demo.equipment, ids)
    await pool_cases.set_up(scope, new, began, person)
    for n, test in enumerate(demo.tests):
        stamp = Stamp(demo_id(demo.key, "test", n), scope.now - test.ago, demo_id("person", test.person))
        await slips.keep_test(scope, id_, stamp, test.fields, demo.settings.kit, "f", "")
    for n, pour in enumerate(demo.pours):
        stamp = Stamp(demo_id(demo.key, "pour", n), scope.now - pour.ago, demo_id("person", pour.person))
        product = await additions.product_by_id(scope, str(demo_id("product", pour.product)))
        await additions.pour(scope, id_, stamp, product, pour.amount, metric=False)
    look = Stamp(demo_id(demo.key, "look"), scope.now - demo.tests[-1].ago - timedelta(minutes=4), person)
    await record(scope, id_, look, demo.look)


async def main() -> None:
    database = Database(Settings().database_url)
    await load(database, datetime.now(UTC))
    await database.close()


if __name__ == "__main__":
    asyncio.run(main())
