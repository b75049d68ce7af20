"""Devices: sane readings, days and changes in the journal, silence and nonsense survived, hand tests above
them.
"""

import http.server
import threading
from collections.abc import AsyncIterator, Iterator
from datetime import UTC, date, datetime, timedelta
from uuid import UUID

import httpx
import pytest
import pytest_asyncio
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.journal import DeviceDay, DeviceReading
from kumpan.core.maintenance.device import TimedReading, changes, day_of, sane, says_anything
from kumpan.core.simulation.controller import LOW_SALT_MG_L, reading_at
from kumpan.devices.adapter import Device, HttpDevice
from kumpan.devices.poller import poll_once
from kumpan.devices.simulator import app
from kumpan.formats.device_json import reading_from_answer, reading_from_json, reading_to_json
from kumpan.services.maintenance.devices import LinkedDevice
from kumpan.storage.transaction import Database
from tests.web.conftest import START, Api, Json, new_id

GOOD = DeviceReading(
    output_percent=55.0,
    salinity_mg_l=3000.0,
    water_c=27.0,
    flow=True,
    pressure_kpa=80.0,
    rain_mm=0.0,
    air_c=29.0,
    uv_index=8.0,
)
SALT = {"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"}
NUMBERS = st.none() | st.floats(allow_nan=False, allow_infinity=False)


@given(
    st.builds(
        DeviceReading,
        output_percent=NUMBERS,
        salinity_mg_l=NUMBERS,
        water_c=NUMBERS,
        flow=st.none() | st.booleans(),
        pressure_kpa=NUMBERS,
        rain_mm=NUMBERS,
        air_c=NUMBERS,
        uv_index=NUMBERS,
    )
)
def test_what_cannot_be_is_left_out_and_stored_readings_come_back(said: DeviceReading) -> None:
    saved = sane(said)
    assert sane(saved) == saved
    assert saved.water_c is None or -2 <= saved.water_c <= 50
    assert reading_from_json(reading_to_json(saved)) == saved


@pytest.mark.parametrize(
    "answer",
    [
        b"",
        b"not json",
        b"[1, 2]",
        b'{"water_c": "warm"}',
        b'{"salinity_mg_l": NaN}',
        b'{"lamps": 7}',
        b"\xff\xfe",
    ],
)
def test_nonsense_is_no_reading(answer: bytes) -> None:
    assert reading_from_answer(answer) is None


def test_unknown_fields_are_passed_over_and_an_empty_answer_says_nothing() -> None:
    found = reading_from_answer(b'{"water_c": 27.5, "firmware": "1.2"}')
    assert found == DeviceReading(water_c=27.5)
    empty = reading_from_answer(b"{}")
    assert empty is not None
    assert not says_anything(empty)


def test_only_changes_of_lamp_flow_and_output_are_told() -> None:
    after = DeviceReading(
        output_percent=40.0,
        salinity_mg_l=2700.0,
        water_c=27.5,
        flow=False,
        pressure_kpa=0.0,
        rain_mm=0.0,
        air_c=29.0,
        uv_index=8.0,
        lamps=("low_salt",),
    )
    reported = list(changes(GOOD, after, "controller"))
    assert [(one.what, one.before, one.after) for one in reported] == [
        ("lamps", "none", "low salt"),
        ("flow", "on", "off"),
        ("output", "55 %", "40 %"),
    ]
    assert list(changes(None, after, "controller")) == []
    assert (
        list(
            changes(
                GOOD,
                DeviceReading(output_percent=53.0, salinity_mg_l=2900.0, water_c=26.0, flow=True),
                "controller",
            )
        )
        == []
    )


def test_a_day_is_summed_up_and_pressure_counts_with_the_pump_on() -> None:
    off = DeviceReading(
        output_percent=0.0,
        salinity_mg_l=3100.0,
        water_c=25.0,
        flow=False,
        pressure_kpa=0.0,
        rain_mm=6.0,
        air_c=19.0,
        uv_index=0.0,
    )
    found = day_of([TimedReading(START, GOOD), TimedReading(START, off)], date(2026, 6, 1), "controller")
    assert found == DeviceDay(
        device="controller",
        day=date(2026, 6, 1),
        readings=2,
        output_percent=27.5,
        salinity_mg_l=3050.0,
        water_c=26.0,
        pressure_kpa=80.0,
        rain_mm=6.0,
        air_low_c=19.0,
        air_high_c=29.0,
        uv_index=8.0,
    )
    assert day_of([], date(2026, 6, 1), "controller") is None


def test_the_stand_in_says_the_same_at_the_same_hour_and_is_always_sane() -> None:
    for hours in range(0, 24 * 200, 7):
        at = datetime(2026, 3, 1, tzinfo=UTC) + timedelta(hours=hours)
        said = reading_at(at)
        assert said == reading_at(at)
        assert sane(said) == said
        assert (said.lamps == ("low_salt",)) == (
            (said.salinity_mg_l or 0) < LOW_SALT_MG_L
        ) or said.salinity_mg_l == 2750


async def test_the_stand_in_answers_over_http_and_can_speak_nonsense() -> None:
    transport = httpx.ASGITransport(app=app)
    async with httpx.AsyncClient(transport=transport, base_url="http://stand-in") as client:
        said = await HttpDevice("http://stand-in/controller", client).read()
        assert said is not None
        assert says_anything(said)
        assert await HttpDevice("http://stand-in/nonsense", client).read() is None
        assert await HttpDevice("http://stand-in/nowhere", client).read() is None


class _Hangs(http.server.BaseHTTPRequestHandler):
    """Takes the connection and closes it without a word."""

    def log_message(self, format: str, *args: object) -> None:
        """Say nothing."""

    def do_GET(self) -> None:
        self.connection.close()


@pytest.fixture
def broken() -> Iterator[str]:
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), _Hangs)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}/controller"
    server.shutdown()
    server.server_close()


async def test_silence_and_a_closed_door_are_nothing(broken: str) -> None:
    async with httpx.AsyncClient() as client:
        assert await HttpDevice(broken, client).read() is None
        assert await HttpDevice("http://127.0.0.1:1/controller", client).read() is None


class Says:
    """A device that says what the test gives it, one after the other."""

    def __init__(self, *said: DeviceReading | None) -> None:
        self._said = list(said)

    async def read(self) -> DeviceReading | None:
        return self._said.pop(0) if self._said else None


@pytest_asyncio.fixture
async def database(database_url: str) -> AsyncIterator[Database]:
    found = Database(database_url)
    yield found
    await found.close()


async def salt_pool(api: Api, **reading: str) -> str:
    pool = await api.new_pool(equipment=SALT)
    await api.test(pool, free_chlorine="2.5", ph="7.5", **reading)
    await api.post(f"/pools/{pool}/device", {"id": new_id(), "address": "stand-in"}, 201)
    return pool


async def polled(
    api: Api, database: Database, *said: DeviceReading | None, hours: float = 1.0
) -> dict[str, int]:
    """Poll once for each reading, so many hours apart; the counts of the last round."""
    device: Device = Says(*said)
    counts: dict[str, int] = {}

    def reach(_: LinkedDevice) -> Device:
        return device

    for _ in said:
        counts = await poll_once(database, reach, lambda: api.now)
        api.pass_time(hours=hours)
    return counts


async def kinds(api: Api, pool: str) -> list[str]:
    return [line["kind"] for line in await api.get(f"/pools/{pool}/log")]


async def test_the_journal_gets_a_day_and_each_change_not_each_reading(api: Api, database: Database) -> None:
    pool = await salt_pool(api)
    lit = DeviceReading(
        output_percent=0.0,
        salinity_mg_l=2600.0,
        water_c=26.0,
        flow=True,
        pressure_kpa=80.0,
        rain_mm=0.0,
        air_c=25.0,
        uv_index=3.0,
        lamps=("low_salt",),
    )
    await polled(api, database, *[GOOD] * 12, lit, *[lit] * 16)
    found = await kinds(api, pool)
    assert found.count("device_day") == 1
    assert found.count("device_change") == 2  # the lamp and the output
    view = (await api.get(f"/pools/{pool}/benches"))["device"]
    assert view["last"]["lamps"] == ["low_salt"]
    assert view["silent_min"] >= 59
    due = {item["task"]: item for item in (await api.get(f"/pools/{pool}/today"))["items"]}
    assert "low salt" in due["device_lamp"]["title"]


async def test_silence_and_nonsense_leave_the_journal_as_it_was_and_are_told(
    api: Api, database: Database
) -> None:
    pool = await salt_pool(api)
    before = await kinds(api, pool)
    nonsense = DeviceReading(water_c=999.0, salinity_mg_l=-5.0)
    counts = await polled(api, database, nonsense, None)
    assert counts == {"taken": 0, "silent": 1, "failed": 0}
    assert await kinds(api, pool) == before
    api.pass_time(days=3)
    due = {item["task"] for item in (await api.get(f"/pools/{pool}/today"))["items"]}
    assert "device_silent" in due
    assert await polled(api, database, GOOD) == {"taken": 1, "silent": 0, "failed": 0}


async def test_a_hand_test_goes_before_the_unit_and_the_difference_is_due(
    api: Api, database: Database
) -> None:
    """Handbook 02, common practice: more than 400 ppm apart, calibrate or clean."""
    pool = await salt_pool(
        api, salt="3200", total_alkalinity="70", cyanuric_acid="70", calcium_hardness="260"
    )
    low = DeviceReading(output_percent=55.0, salinity_mg_l=2600.0, water_c=27.0, flow=True, pressure_kpa=80.0)
    await polled(api, database, *[low] * 4, hours=8)
    board = await api.get(f"/pools/{pool}/board")
    salt = next(gauge for gauge in board["lanes"] if gauge["measure"] == "salt")
    assert salt["reading"]["value"] == 3200
    after = (await api.get(f"/pools/{pool}/sheet"))["steps"]
    assert "sodium_chloride" not in {one["step"]["chemical"] for one in after}
    due = {item["task"]: item for item in (await api.get(f"/pools/{pool}/today"))["items"]}
    assert "The hand test holds" in due["display_apart"]["why"]


async def test_heavy_rain_by_the_station_asks_for_a_test(api: Api, database: Database) -> None:
    pool = await salt_pool(api)
    api.pass_time(hours=1)
    await polled(api, database, *[DeviceReading(rain_mm=40.0, air_c=20.0)] * 4, hours=8)
    due = {item["task"]: item for item in (await api.get(f"/pools/{pool}/today"))["items"]}
    assert "1.6 in of rain" in due["test_rain"]["why"]


async def test_raw_readings_are_thinned_to_one_an_hour(api: Api, database: Database) -> None:
    pool = await salt_pool(api)
    await polled(api, database, *[GOOD] * 100, hours=0.25)
    await polled(api, database, *[GOOD] * 3, hours=24)
    async with database.transaction() as tx:
        rows = await tx.devices.between(UUID(pool), "controller", START, START + timedelta(hours=24))
    assert 20 <= len(rows) <= 26


@pytest.mark.parametrize(
    "address", ["http://10.0.0.5/controller", "https://example.org", "file:///etc/hosts"]
)
async def test_only_this_machine_is_polled(api: Api, address: str) -> None:
    pool = await api.new_pool(equipment=SALT)
    body: Json = {"id": new_id(), "address": address}
    reply = await api.client.post(f"/api/v1/pools/{pool}/device", json=body)
    assert reply.status_code == 422
    assert "on this machine" in reply.text


async def test_an_unlinked_device_is_left_alone(api: Api, database: Database) -> None:
    pool = await salt_pool(api)
    api.pass_time(minutes=1)
    await api.post(f"/pools/{pool}/device", {"id": new_id(), "address": ""}, 201)
    assert await polled(api, database, GOOD) == {"taken": 0, "silent": 0, "failed": 0}


async def pushed(api: Api, pool: str, content: bytes, device: str = "probe") -> tuple[int, object]:
    reply = await api.client.post(f"/api/v1/pools/{pool}/device/{device}/readings", content=content)
    return reply.status_code, reply.json()


async def test_a_burst_a_gap_and_a_stuck_sensor_are_survived(api: Api) -> None:
    pool = await salt_pool(api)
    content = b'{"water_c": 27.5, "salinity_mg_l": 3150, "rssi": -60}'
    burst = [await pushed(api, pool, content) for _ in range(50)]
    assert burst == [(202, True)] + [(202, False)] * 49
    api.pass_time(days=3)
    for _ in range(30):  # stuck at one value for a day and more
        assert await pushed(api, pool, content) == (202, True)
        api.pass_time(hours=1)
    found = await kinds(api, pool)
    assert found.count("device_day") == 2
    assert found.count("device_change") == 0


async def test_pushed_nonsense_is_refused_with_a_sentence(api: Api) -> None:
    pool = await salt_pool(api)
    for content in (b"", b"[]", b'{"water_c": "NaN"}', b"\xff\xfe", b'{"lamps": 7}'):
        status, reply = await pushed(api, pool, content)
        assert (status, reply["error"]["field"]) == (422, "reading")  # type: ignore[index]
    assert await pushed(api, pool, b"{}") == (202, False)
    assert (await pushed(api, pool, b"{}", "x" * 200))[0] == 422


async def test_the_two_stand_ins_differ_and_both_are_readings() -> None:
    transport = httpx.ASGITransport(app=app)
    async with httpx.AsyncClient(transport=transport, base_url="http://stand-in") as client:
        whole = await client.get("/controller")
        bare = await client.get("/probe")
        box = await client.get("/mailbox")
    assert reading_from_answer(whole.content) is not None
    assert bare.status_code in (200, 503)
    if bare.status_code == 200:
        assert set(bare.json()) != set(whole.json())
    assert "Mailbox of the demo" in box.text
