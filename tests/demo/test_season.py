"""The demo season: five pools that show what the scenario promises, the same at every start."""

from datetime import UTC, datetime

import pytest

from kumpan.core.journal import AdditionMade, Clarity, TestTaken, VisualCheck
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.demo.__main__ import demo_id, load
from kumpan.demo.scenario import INVENTORY, PEOPLE, DemoPool, pools
from kumpan.demo.season import DAYS, Line, poured_g, season
from kumpan.services.assessment import queries as assessments
from kumpan.services.journal.ledger import Scope, pool_ids
from kumpan.services.people import queries as people_queries
from kumpan.services.pools import outlooks
from kumpan.services.products import queries as products_queries
from kumpan.storage.transaction import Database

NOW = datetime(2026, 9, 18, 17, 40, tzinfo=UTC)
SEASONS = {pool.key: (pool, season(pool, NOW)) for pool in pools()}


def values(key: str, measure: Measure) -> list[float]:
    found = []
    for line in SEASONS[key][1]:
        if isinstance(line.reported.body, TestTaken):
            found += [value.value for value in line.reported.body.values if value.measure is measure]
    return found


def test_five_pools_of_different_kinds_and_three_people() -> None:
    made = [pool.equipment.traits for pool in pools()]
    assert len({(t.surface, t.chlorination, t.filter, t.indoor) for t in made}) == 5
    assert len(PEOPLE) == 3
    assert {pool.person for pool in pools()} <= set(PEOPLE)


@pytest.mark.parametrize("key", list(SEASONS))
def test_it_is_the_same_at_every_start_and_ends_now(key: str) -> None:
    pool, lines = SEASONS[key]
    assert season(pool, NOW) == lines
    times = [line.reported.at_s for line in lines]
    assert NOW.timestamp() - DAYS * 86_400 <= min(times)
    assert NOW.timestamp() - 8 * 86_400 < max(times) < NOW.timestamp()


def test_the_stabilizer_of_the_tablet_pool_climbs() -> None:
    stabilizer = values("weir", Measure.CYANURIC_ACID)
    assert stabilizer[-1] > stabilizer[0] + 50


def test_the_hard_pool_hardens_and_its_volume_is_believed_too_large() -> None:
    calcium = values("millrace", Measure.CALCIUM_HARDNESS)
    assert calcium[-1] > calcium[0] + 30
    pool: DemoPool = SEASONS["millrace"][0]
    assert pool.nature.true_volume_l < 0.95 * pool.basin.volume_l


def test_the_neglected_pool_is_found_green_without_chlorine() -> None:
    lines: list[Line] = SEASONS["tannery"][1]
    visual_checks = [line.reported.body for line in lines if isinstance(line.reported.body, VisualCheck)]
    assert visual_checks[-1].clarity in (Clarity.GREEN, Clarity.DRAIN_HIDDEN)
    assert values("tannery", Measure.FREE_CHLORINE)[-1] < 0.5


@pytest.mark.parametrize("key", ["millrace", "weir", "swan"])
def test_ph_stays_where_people_keep_it(key: str) -> None:
    assert all(6.6 <= ph <= 8.3 for ph in values(key, Measure.PH))


def test_everything_poured_stands_on_the_shelf() -> None:
    known = {row.product.id for row in INVENTORY}
    for _, lines in SEASONS.values():
        assert set(poured_g(lines)) <= known
        assert all(
            isinstance(line.reported.body, AdditionMade) is False or line.person in PEOPLE for line in lines
        )


async def test_loaded_once_with_stock_for_all_of_it_and_an_outlook_for_each(database_url: str) -> None:
    database = Database(database_url)
    assert await load(database, NOW)
    assert not await load(database, NOW)
    async with database.transaction() as tx:
        scope = Scope(tx, await people_queries.the_workspace(tx), NOW)
        heads = [await assessments.head(scope, pool_id) for pool_id in await pool_ids(scope)]
        assert [head.settings.name for head in heads] == [pool.settings.name for pool in pools()]
        for line in await products_queries.inventory(scope, units=Units.US):
            assert line.stock_g is None or line.stock_g > 0
        for head in heads:
            found = await outlooks.outlook_of(scope, head.id)
            assert len(found.days) == 7
        assert heads[0].id == demo_id("pool", "millrace")
    await database.close()
