"""Load the demo season into an empty installation; an installation with pools is left as it is."""

import asyncio
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from math import ceil
from pathlib import Path
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.journal import AdditionMade, CareDone
from kumpan.core.products.product import Product, mass_from_volume_g
from kumpan.core.quantities.units import Units
from kumpan.core.simulation.carer import Report, moment
from kumpan.demo.scenario import (
    FIRM,
    FIRST_TECHNICIAN,
    HOUSEHOLD,
    HOUSEHOLDER,
    INVENTORY,
    OWNER,
    PEOPLE,
    PREFERENCES,
    ROUNDS,
    SHARED_POOL,
    TRUCK,
    ZONE,
    DemoPool,
    InventoryRow,
    pools,
)
from kumpan.demo.season import DAYS, Line, poured_g, season
from kumpan.demo.upkeep import upkeep
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.outgoing.choices import Letter, choose
from kumpan.services.people import commands as people_commands
from kumpan.services.people import queries as people_queries
from kumpan.services.people.access import Role
from kumpan.services.people.team import new_token
from kumpan.services.pools import commands as pools_commands
from kumpan.services.products import commands as products_commands
from kumpan.services.visits import commands as visits_commands
from kumpan.settings import Settings
from kumpan.storage.transaction import Database

SPACE = UUID("6d1f4b1e-3f0a-4c53-9a53-2f1f3b6c8a10")
LAST_BOUGHT_DAYS, FORTNIGHT = 9, 14
DEMO_TOKEN = "demo"


def demo_id(*names: object) -> UUID:
    """The same id for the same thing at every start."""
    return uuid5(SPACE, "/".join(str(name) for name in names))


async def load(database: Database, now: datetime) -> bool:
    """Load all of it in one transaction. False when pools are there already."""
    async with database.transaction() as tx:
        scope = Scope(tx, await people_queries.the_workspace(tx), now)
        if await tx.journal.pools(scope.workspace_id):
            return False
        for name, initials in PEOPLE.items():
            role = Role.OFFICE if name == OWNER else Role.TECHNICIAN
            await people_commands.add_person(scope, demo_id("person", name), name, initials, role=role)
        seasons = [(pool, season(pool, now)) for pool in pools()]
        await _fill_inventory(scope, [line for _, lines in seasons for line in lines])
        for n, (pool, lines) in enumerate(seasons):
            # A millisecond apart, so that the list keeps the scenario's order.
            await _load_pool(replace(scope, now=now + timedelta(milliseconds=n)), pool, lines)
        await _rounds(scope)
        await _household(scope)
        await _letters(scope)
    return True


async def _letters(scope: Scope) -> None:
    """The office reads its week and its day by mail: the demo's mailbox has something in it."""
    await choose(
        replace(scope, person_id=demo_id("person", OWNER)),
        address="office@poolcare.example.com",
        kinds=(Letter.REPORT, Letter.DUE, Letter.DIGEST),
        hour=0,
        time_zone=ZONE,
    )


async def _household(scope: Scope) -> None:
    """The firm under its name; a household that shares one of its pools, and skimmed it yesterday."""
    await scope.tx.workspace.name_workspace(scope.workspace_id, FIRM)
    theirs = replace(scope, workspace_id=demo_id("household"), cached={})
    await scope.tx.workspace.add_workspace(theirs.workspace_id, HOUSEHOLD, scope.now)
    person = await people_commands.add_person(
        theirs, demo_id("person", HOUSEHOLDER), HOUSEHOLDER, "", role=Role.OFFICE
    )
    pool = demo_id("pool", SHARED_POOL)
    await scope.tx.shares.add(demo_id("share"), pool, theirs.workspace_id, scope.now)
    at = scope.now - timedelta(days=1)
    stamp = Stamp(demo_id("household", "skim"), at, person.id)
    await record(replace(theirs, now=at), pool, stamp, CareDone("skim"))


async def _rounds(scope: Scope) -> None:
    """The technicians' rounds, and what the first one's truck held this morning."""
    today = scope.now.astimezone(ZoneInfo(ZONE)).weekday()
    for n, (name, days, stops) in enumerate(ROUNDS):
        stamp = Stamp(demo_id("round", n), scope.now, demo_id("person", name))
        ids = [demo_id("pool", key) for key in stops]
        await visits_commands.set_round(scope, stamp, (today + days) % 7, ids)
    for row in INVENTORY:
        packages = TRUCK.get(row.product.id)
        if packages is not None:
            stamp = Stamp(demo_id("truck", row.product.id), scope.now, demo_id("person", FIRST_TECHNICIAN))
            id_ = str(demo_id("product", row.product.id))
            amount = f"{packages * _package_g(row):.0f} g"
            if row.package_ml is not None:
                amount = f"{packages * row.package_ml:.0f} ml"
            await visits_commands.count_truck(scope, stamp, id_, amount, units=Units.METRIC)


async def _fill_inventory(scope: Scope, lines: list[Line]) -> None:
    """Every product in whole packages: what was poured and some over; liquids every fortnight, for they
    age.
    """
    poured = poured_g(lines)
    for row in INVENTORY:
        id_ = str(demo_id("product", row.product.id))
        product = replace(row.product, id=id_, package_g=row.package_g, package_ml=row.package_ml)
        await products_commands.add_product(scope, product)
        packages = ceil(poured.get(row.product.id, 0.0) / _package_g(row)) + row.spare
        times = range(LAST_BOUGHT_DAYS, DAYS, FORTNIGHT) if product.row.is_liquid else (DAYS,)
        for n, days in enumerate(times):
            share = packages // len(times) + (1 if n < packages % len(times) else 0)
            at = scope.now - timedelta(days=days)
            stamp = Stamp(demo_id("purchase", row.product.id, n), at, demo_id("person", OWNER))
            if share:
                await products_commands.buy(
                    replace(scope, now=at), stamp, product_id=id_, packages=share, price=share * row.price
                )
    began = scope.now - timedelta(days=DAYS)
    stamp = Stamp(demo_id("habits"), began, demo_id("person", OWNER))
    await products_commands.set_preferences(replace(scope, now=began), stamp, PREFERENCES)


def _package_g(row: InventoryRow) -> float:
    product: Product = row.product
    if row.package_ml is not None:
        return mass_from_volume_g(product, row.package_ml)
    assert row.package_g is not None
    return row.package_g


async def _load_pool(scope: Scope, demo: DemoPool, lines: list[Line]) -> None:
    id_, began = demo_id("pool", demo.key), scope.now - timedelta(days=DAYS, hours=1)
    ids = (demo_id(demo.key, "settings"), demo_id(demo.key, "basin"), demo_id(demo.key, "equipment"))
    person = demo_id("person", demo.person)
    new = pools_commands.NewPool(
        id=id_, settings=demo.settings, basin=demo.basin, equipment=demo.equipment, entry_ids=ids
    )
    await pools_commands.set_up(scope, new, began, person)
    for n, line in enumerate(lines):
        at = moment(line.reported.at_s)
        stamp = Stamp(demo_id(demo.key, n), at, demo_id("person", line.person))
        await record(
            replace(scope, now=at + timedelta(minutes=1)), id_, stamp, _with_product(line.reported).body
        )
    for n, done in enumerate(upkeep(demo, lines, scope.now)):
        stamp = Stamp(demo_id(demo.key, "upkeep", n), done.at, person)
        await record(replace(scope, now=done.at + timedelta(minutes=1)), id_, stamp, done.body)


def _with_product(reported: Report) -> Report:
    """The carer's product as the one that stands on the shelf."""
    if not isinstance(reported.body, AdditionMade):
        return reported
    return replace(
        reported, body=replace(reported.body, product_id=str(demo_id("product", reported.body.product_id)))
    )


async def make_token(database: Database, now: datetime, file: Path) -> None:
    """A new token of the demo's office in a file that only its owner reads; those of earlier starts end.

    A demo of a version without roles has its office made here.
    """
    office = demo_id("person", OWNER)
    async with database.transaction() as tx:
        scope = Scope(tx, await people_queries.the_workspace(tx), now, person_id=office)
        person = await tx.workspace.person(scope.workspace_id, office)
        if person is None:
            return
        await tx.workspace.change_person(replace(person, role=Role.OFFICE.value))
        for token in await tx.accounts.tokens(office):
            if token.name == DEMO_TOKEN:
                await tx.accounts.revoke_tokens(office, now, only=token.id)
        _, secret = await new_token(scope, DEMO_TOKEN, "write")
    file.unlink(missing_ok=True)
    file.touch(mode=0o600)
    file.write_text(secret + "\n")


async def main(token_file: Path | None = None) -> None:
    """Load the demo data into an empty database."""
    database, now = Database(Settings().database_url), datetime.now(UTC)
    await load(database, now)
    if token_file is not None:
        await make_token(database, now, token_file)
    await database.close()


if __name__ == "__main__":
    asyncio.run(main())
