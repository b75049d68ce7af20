"""The schedule's speed: 50 pools of 500 entries, a date and the year after it; and Today with a year of
devices.
"""

import json
import statistics
import time
import urllib.request
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.journal import CareDone, DeviceDay, Entry, PoolState, PressureRead, fold
from kumpan.core.maintenance.due import CareInputs, due_list
from kumpan.core.maintenance.index_history import index_history
from kumpan.core.maintenance.recurrence import ALL_YEAR
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.simulation.carer import Report
from kumpan.core.simulation.study import entries
from kumpan.demo.scenario import DemoPool, pools
from kumpan.demo.season import season
from kumpan.tools.serving import Running

POOLS, ENTRIES, MONTHS_DAYS = 50, 500, 365
AT_ONCE = 60
SPACE = UUID("0f0c7d3e-5f53-4b7e-9a43-6a3c7b0b5d11")


def bench_due(now: datetime) -> None:
    """Every pool's list of one date with its dates of a year: with the index history given, and computed."""
    inputs = [_inputs(demo, n, now) for n, demo in zip(range(POOLS), pools() * 10, strict=True)]
    given = [replace(one, index=index_history(one.state)) for one in inputs]
    began = time.perf_counter()
    for one in given:
        due_list(one, now, ahead_days=MONTHS_DAYS)
    with_index = time.perf_counter() - began
    began = time.perf_counter()
    for one in inputs:
        due_list(replace(one, index=index_history(one.state)), now, ahead_days=MONTHS_DAYS)
    computed = time.perf_counter() - began
    print(
        f"due list and a year ahead, {POOLS} pools of {ENTRIES} entries: {with_index:.2f} s with the "
        f"index given "
        f"(bar: 1), {computed:.2f} s with it computed (bar: 3)"
    )


def _inputs(demo: DemoPool, n: int, now: datetime) -> CareInputs:
    reported = [Report(0.0, demo.basin), *(line.reported for line in season(demo, now))]
    listed = list(entries(reported, demo.key))[:ENTRIES]
    more = ENTRIES - len(listed)
    listed += [_filler(n, i, now) for i in range(more)]
    return CareInputs(
        state=_folded(listed),
        traits=demo.equipment.traits,
        volume_l=demo.basin.volume_l,
        preset=Preset.OWNER,
        zone=ZoneInfo("America/Chicago"),
        season=ALL_YEAR,
    )


def _filler(pool: int, n: int, now: datetime) -> Entry:
    at = now - timedelta(hours=6 * n + 1)
    body = PressureRead(80.0 + n % 20) if n % 3 == 0 else CareDone(("vacuum", "brush", "skim")[n % 3])
    return Entry(
        id=uuid5(SPACE, f"{pool}/{n}"), pool_id=None, at=at, recorded_at=at, person_id=None, body=body
    )


def _folded(listed: list[Entry]) -> PoolState:
    return fold(listed)


def bench_today(running: Running) -> None:
    """Today over HTTP before and after a year of a device's days stands in the journal."""
    with urllib.request.urlopen(f"{running.address}/api/v1/pools?sort=name", timeout=10) as reply:
        pool = json.load(reply)["pools"][0]["id"]
    path = f"{running.address}/api/v1/pools/{pool}/today"
    before = _median(path)
    _year_of_days(running, pool)
    after = _median(path)
    print(
        f"Today: {before:.1f} ms; with a year of device days {after:.1f} ms, {after / before:.2f} x (bar: "
        f"1.5)"
    )


def _median(path: str) -> float:
    times = []
    for _ in range(60):
        began = time.perf_counter()
        with urllib.request.urlopen(path, timeout=10) as reply:
            reply.read()
        times.append((time.perf_counter() - began) * 1000)
    return statistics.median(times[10:])


def _year_of_days(running: Running, pool: str) -> None:
    from kumpan.storage.wire.kinds import write_body

    rows = []
    for ago in range(400, 35, -1):
        day = datetime.now(UTC) - timedelta(days=ago)
        body = DeviceDay(
            device="controller",
            day=date(day.year, day.month, day.day),
            readings=288,
            output_percent=55.0,
            salinity_mg_l=3000.0,
            water_c=27.0,
            pressure_kpa=80.0,
            rain_mm=0.0,
        )
        at = day.strftime("%Y-%m-%d %H:%M:%S")
        text = json.dumps(write_body(body))
        rows.append(
            f"('{uuid5(SPACE, at)}', (SELECT id FROM workspace LIMIT 1), '{UUID(pool)}', NULL, 'device_day', "
            f"'{at}', '{at}', NULL, '{text}')"
        )
    columns = "id, workspace_id, pool_id, person_id, kind, at, recorded_at, supersedes, body"
    for first in range(0, len(rows), AT_ONCE):  # a command line holds only so much
        values = ", ".join(rows[first : first + AT_ONCE])
        running.database.run_sql(f"USE kumpan; INSERT INTO entry ({columns}) VALUES {values};")
