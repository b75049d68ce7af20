"""The program that reaches out: polls every linked device in turn, a silent one stops nobody; sends mail.

python -m kumpan.devices.poller
"""

import asyncio
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import httpx
import structlog

from kumpan.devices.adapter import Device, HttpDevice
from kumpan.devices.outgoing import keep_sending
from kumpan.services.journal.ledger import Scope
from kumpan.services.maintenance import devices
from kumpan.services.maintenance.devices import SIMULATED, LinkedDevice
from kumpan.settings import Settings
from kumpan.storage.transaction import Database

Clock = Callable[[], datetime]
Reach = Callable[[LinkedDevice], Device]


async def poll_once(database: Database, reach: Reach, clock: Clock) -> dict[str, int]:
    """Ask every linked device once. Returns how many were taken in, silent, or failed."""
    counts = {"taken": 0, "silent": 0, "failed": 0}
    async with database.transaction() as tx:
        spaces = [Scope(tx, id_, clock()) for id_ in await tx.workspace.workspace_ids()]
        linked = [(one.workspace_id, device) for one in spaces for device in await devices.all_linked(one)]
    for workspace_id, device in linked:
        said = await reach(device).read()
        if said is None:
            counts["silent"] += 1
            continue
        try:
            async with database.transaction() as tx:
                scope = Scope(tx, workspace_id, clock())
                taken = await devices.take_in(scope, device.pool_id, device.device, said)
            counts["taken" if taken else "silent"] += 1
        except Exception:
            # One device's trouble must not keep the others from being heard; the next round tries again.
            structlog.get_logger().exception("device_not_taken_in", device=device.device)
            counts["failed"] += 1
    return counts


async def _is_mine(database: Database, own: UUID, lasts: timedelta, duty: str = "devices") -> bool:
    async with database.transaction() as tx:
        return await tx.leases.take(duty, own, datetime.now(UTC), lasts)


async def main() -> None:
    """Ask every linked device at its interval and send what goes out, until ended."""
    settings = Settings()
    database = Database(settings.database_url)
    own, lasts = uuid4(), timedelta(seconds=60 + 3 * settings.mail_every_s)
    sending = keep_sending(
        database, settings, lambda: datetime.now(UTC), lambda: _is_mine(database, own, lasts, "mail")
    )
    await asyncio.gather(sending, _keep_polling(database, settings))


async def _keep_polling(database: Database, settings: Settings) -> None:
    async with httpx.AsyncClient() as client:

        def reach(device: LinkedDevice) -> Device:
            address = settings.simulator_url if device.address == SIMULATED else device.address
            return HttpDevice(address, client)

        own = uuid4()
        while True:
            try:
                # Of several machines one polls: each device is asked and written down once.
                if await _is_mine(database, own, timedelta(seconds=1.5 * settings.poll_s)):
                    await poll_once(database, reach, lambda: datetime.now(UTC))
            except Exception:
                structlog.get_logger().exception("poll_failed")
            await asyncio.sleep(settings.poll_s)


if __name__ == "__main__":
    asyncio.run(main())
