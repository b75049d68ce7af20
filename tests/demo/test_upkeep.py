"""The demo's care: every screen has something true to show, and no pool drowns in what is late."""

from datetime import UTC, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

import pytest

from kumpan.core.journal import Body, DeviceDay, Entry, PoolState, fold
from kumpan.core.maintenance.cell_life import cell_life
from kumpan.core.maintenance.due import CareInputs, DueItem, Standing, due_list
from kumpan.core.maintenance.filter_pressure import pressure_trend
from kumpan.core.maintenance.index_history import index_history
from kumpan.core.maintenance.recurrence import ALL_YEAR
from kumpan.core.maintenance.tasks import preset_for
from kumpan.demo.scenario import ROUNDS, TRUCK, ZONE, DemoPool, pools
from kumpan.demo.season import season
from kumpan.demo.upkeep import upkeep

NOW = datetime(2026, 9, 18, 17, 40, tzinfo=UTC)


def journal(demo: DemoPool) -> PoolState:
    """The demo pool's journal as it is loaded."""
    lines = season(demo, NOW)
    began = NOW - timedelta(days=141)
    bodies: list[tuple[datetime, Body]] = [
        (began, body) for body in (demo.settings, demo.basin, demo.equipment)
    ]
    bodies += [(datetime.fromtimestamp(line.reported.at_s, UTC), line.reported.body) for line in lines]
    bodies += [(done.at, done.body) for done in upkeep(demo, lines, NOW)]
    return fold(
        [
            Entry(id=UUID(int=n), pool_id=None, at=at, recorded_at=at, person_id=None, body=body)
            for n, (at, body) in enumerate(bodies)
        ],
        NOW,
    )


JOURNALS = {demo.key: (demo, journal(demo)) for demo in pools()}


def due(key: str) -> dict[str, DueItem]:
    demo, state = JOURNALS[key]
    traits, volume_l = demo.equipment.traits, demo.basin.volume_l
    preset = preset_for(demo.settings.profile, traits, volume_l)
    inputs = CareInputs(
        state=state,
        traits=traits,
        volume_l=volume_l,
        preset=preset,
        zone=ZoneInfo(ZONE),
        season=ALL_YEAR,
        index=index_history(state),
    )
    return {item.task: item for item in due_list(inputs, NOW)}


@pytest.mark.parametrize("key", [key for key in JOURNALS if key != "tannery"])
def test_a_pool_that_is_looked_after_has_little_that_is_late(key: str) -> None:
    late = [item for item in due(key).values() if item.standing is Standing.OVERDUE]
    assert len(late) <= 8
    assert all(item.late_days <= 21 for item in late), [(item.task, item.late_days) for item in late]


def test_the_neglected_pool_shows_its_neglect() -> None:
    found = due("tannery")
    late = [item for item in found.values() if item.standing is Standing.OVERDUE]
    assert len(late) >= 7
    assert "shock" not in found  # it is green: the rescue is its shock
    assert "test_phosphate" in found  # it is green


def test_the_salt_pool_has_a_cell_with_a_history_and_a_controller() -> None:
    _, state = JOURNALS["millrace"]
    life = cell_life(state, NOW)
    assert life is not None
    assert 100 < life.run_h < 3000
    assert len(state.device_days) == 60
    days = [entry.body for entry in state.device_days if isinstance(entry.body, DeviceDay)]
    assert all(day.salinity_mg_l is not None for day in days)
    assert len({day.day for day in days}) == 60


@pytest.mark.parametrize("key", ["millrace", "swan"])
def test_the_gauge_rises_between_backwashes(key: str) -> None:
    trend = pressure_trend(JOURNALS[key][1], NOW)
    assert trend is not None
    assert trend.clean_known
    assert trend.rise_kpa > -3


def test_rounds_and_trucks_name_pools_and_products_that_are_there() -> None:
    keys = {demo.key for demo in pools()}
    for _, days, stops in ROUNDS:
        assert set(stops) <= keys
        assert 0 <= days < 7
    assert all(packages > 0 for packages in TRUCK.values())


def test_nothing_of_it_lies_in_the_future() -> None:
    for demo, _ in JOURNALS.values():
        times = [done.at for done in upkeep(demo, season(demo, NOW), NOW)]
        assert max(times) <= NOW
        assert times == sorted(times)
