"""Devices of a pool: link one, take a reading in, sum its days up.

The raw readings stay apart from the journal.
"""

from dataclasses import dataclass
from datetime import datetime, time, timedelta
from functools import partial
from urllib.parse import urlsplit
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import DeviceLinked, DeviceReading, PoolState
from kumpan.core.maintenance.device import TimedReading, changes, day_of, sane, says_anything
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.messages import Message
from kumpan.formats.device_json import reading_from_answer, reading_from_json, reading_to_json
from kumpan.services.each_pool import each_pool
from kumpan.services.journal.ledger import Scope, Stamp, pool_state, record
from kumpan.services.maintenance.views import DeviceView
from kumpan.services.pools.queries import parts_of

SIMULATED = "stand-in"
LOOPBACK = ("127.0.0.1", "localhost", "::1")
ALL_FOR, HOURLY_FOR = timedelta(days=1), timedelta(days=30)
DAYS_MADE_UP_FOR = 7  # days whose entry is still written after a pause


@dataclass(frozen=True)
class LinkedDevice:
    """A device that is polled."""

    pool_id: UUID
    device: str
    address: str


def linked(state: PoolState) -> DeviceLinked | None:
    """The device that is polled now."""
    body = state.devices[-1].body if state.devices else None
    return body if body is not None and body.address else None


PUSH_EVERY = timedelta(seconds=30)


async def push(scope: Scope, pool_id: UUID, device: str, content: bytes) -> bool:
    """A reading that a device or its bridge sends by itself, in the open form; whether it was taken.

    Of a burst one is taken every half minute: the rest says nothing new. Raises InvalidInput for nonsense.
    """
    said = reading_from_answer(content)
    if said is None:
        raise InvalidInput(Message("This is no reading of a device; see docs/device-protocol.md."), "reading")
    last = await scope.tx.devices.last(pool_id, device)
    if last is not None and scope.now - last[0] < PUSH_EVERY:
        return False
    return await take_in(scope, pool_id, device, said)


async def link(scope: Scope, pool_id: UUID, stamp: Stamp, device: str, address: str) -> None:
    """Poll a device from now on; an empty address unlinks it.

    Raises InvalidInput for one that is not on this machine.
    """
    await pool_state(scope, pool_id)
    parts = urlsplit(address)
    if address and address != SIMULATED and (parts.scheme != "http" or parts.hostname not in LOOPBACK):
        raise InvalidInput(
            Message(
                "The address must be on this machine, like http://127.0.0.1:9000/controller; a bridge there "
                "speaks for the device."
            ),
            "address",
        )
    await record(scope, pool_id, stamp, DeviceLinked(device.strip() or "controller", address))


async def all_linked(scope: Scope) -> list[LinkedDevice]:
    """Every device that is to be polled."""
    # A pool that two workspaces work on is polled by the one whose it is.
    own = await scope.tx.journal.pools_with(scope.workspace_id, "device")
    states = await each_pool(own, partial(pool_state, scope))
    devices = ((pool_id, linked(state)) for pool_id, state in states.items())
    return [LinkedDevice(pool_id, one.device, one.address) for pool_id, one in devices if one is not None]


async def device_view(scope: Scope, pool_id: UUID) -> DeviceView:
    """The device that is linked to a pool, what it said last, and for how many minutes it has been silent."""
    device = linked(await pool_state(scope, pool_id))
    if device is None:
        return DeviceView(device="", address="", last=None, last_at=None, silent_min=None)
    stored = await scope.tx.devices.last(pool_id, device.device)
    if stored is None:
        return DeviceView(
            device=device.device, address=device.address, last=None, last_at=None, silent_min=None
        )
    silent = int((scope.now - stored[0]).total_seconds() // 60)
    return DeviceView(
        device=device.device,
        address=device.address,
        last=reading_from_json(stored[1]),
        last_at=stored[0],
        silent_min=silent,
    )


async def take_in(scope: Scope, pool_id: UUID, device: str, said: DeviceReading) -> bool:
    """Keep a reading raw; write what changed, and every day that is over, into the journal.

    False for nonsense.
    """
    reading = sane(said)
    if not says_anything(reading):
        return False
    before = await scope.tx.devices.last(pool_id, device)
    await scope.tx.devices.add(
        scope.workspace_id, pool_id, device, at=scope.now, reading=reading_to_json(reading)
    )
    if before is not None and scope.now - before[0] < ALL_FOR:
        for change in changes(reading_from_json(before[1]), reading, device):
            id_ = uuid5(pool_id, f"{device}/{change.what}/{scope.now.isoformat()}")
            await record(scope, pool_id, Stamp(id_, scope.now, None), change)
    await _sum_days_up(scope, pool_id, device)
    return True


async def _sum_days_up(scope: Scope, pool_id: UUID, device: str) -> None:
    """One entry for each whole day that has none yet; the raw readings are thinned after."""
    state = await pool_state(scope, pool_id)
    zone = ZoneInfo(parts_of(state).settings.time_zone)
    today = local_day(scope.now, zone)
    known = {entry.body.day for entry in state.device_days if entry.body.device == device}
    wrote = False
    for back in range(DAYS_MADE_UP_FOR, 0, -1):
        day = today - timedelta(days=back)
        if day in known:
            continue
        begin = datetime.combine(day, time(0), zone)
        end = datetime.combine(day + timedelta(days=1), time(0), zone)
        rows = await scope.tx.devices.between(pool_id, device=device, begin=begin, end=end)
        found = day_of([TimedReading(at, reading_from_json(data)) for at, data in rows], day, device)
        if found is not None:
            at = min(end - timedelta(minutes=1), scope.now)
            stamp = Stamp(uuid5(pool_id, f"{device}/{day.isoformat()}"), at, None)
            await record(scope, pool_id, stamp, found)
            wrote = True
    if wrote:
        await scope.tx.devices.thin(pool_id, scope.now - ALL_FOR, scope.now - HOURLY_FOR)
