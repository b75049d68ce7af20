"""One way to read any device: ask, get a reading or nothing. Silence and nonsense are both nothing."""

from typing import Protocol

import httpx

from kumpan.core.journal import DeviceReading
from kumpan.formats.device_json import reading_from_answer

TIMEOUT_S = 3.0
MOST_BYTES = 20_000


class Device(Protocol):
    """Something that can be asked for a reading."""

    async def read(self) -> DeviceReading | None:
        """What it says now; None when it is silent or speaks nonsense. Never raises for either."""
        ...


class HttpDevice:
    """A controller or station that speaks JSON over HTTP."""

    def __init__(self, address: str, client: httpx.AsyncClient) -> None:
        self._address = address
        self._client = client

    async def read(self) -> DeviceReading | None:
        """What the controller says now; None where it does not answer."""
        try:
            answer = await self._client.get(self._address, timeout=TIMEOUT_S, follow_redirects=False)
        except httpx.HTTPError:
            return None
        if answer.status_code != 200 or len(answer.content) > MOST_BYTES:
            return None
        return reading_from_answer(answer.content)
