"""The simulated chlorinator and weather station: a small program that answers as a controller would.

uvicorn kumpan.devices.stand_in:app --host 127.0.0.1 --port 9000
"""

import os
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from datetime import UTC, datetime
from email.message import EmailMessage
from html import escape

from fastapi import FastAPI, Response
from fastapi.responses import JSONResponse

from kumpan.core.simulation.controller import reading_at
from kumpan.devices.mailbox import Mailbox
from kumpan.formats.device_json import reading_to_json

MAILBOX = Mailbox()


@asynccontextmanager
async def lifespan(app: FastAPI) -> AsyncIterator[None]:  # noqa: ARG001 - FastAPI passes it
    """The mailbox listens for as long as the program runs."""
    port = int(os.environ.get("KUMPAN_MAILBOX_PORT", "0"))
    if port:
        await MAILBOX.start(port)
    yield
    await MAILBOX.stop()


app = FastAPI(title="Stand-in controller", docs_url=None, redoc_url=None, openapi_url=None, lifespan=lifespan)


@app.get("/mailbox")
def mailbox() -> Response:
    """Every message that came, the newest first, for whoever looks at the demo."""
    rows = [
        f"<article><h2>{escape(str(one.message['Subject']))}</h2><p>to {escape(str(one.message['To']))}, "
        f"{escape(str(one.message['Date']))}</p><pre>{escape(_text(one.message))}</pre></article>"
        for one in reversed(MAILBOX.taken.values())
    ]
    title = "Mailbox of the demo"
    page = f"<!DOCTYPE html><html lang=en><title>{title}</title><h1>{title}</h1>{''.join(rows)}"
    return Response(page, media_type="text/html; charset=utf-8")


def _text(message: EmailMessage) -> str:
    body = message.get_body(("plain",))
    return "" if body is None else str(body.get_content())


@app.get("/controller")
def controller() -> dict[str, object]:
    """What it says now."""
    return reading_to_json(reading_at(datetime.now(UTC)))


@app.get("/probe")
def probe() -> Response:
    """Another maker's: a bare probe with names of its own beside ours, silent each third minute."""
    now = datetime.now(UTC)
    if now.minute % 3 == 2:
        return Response(status_code=503)
    reading = reading_at(now)
    said = {"water_c": reading.water_c, "salinity_mg_l": reading.salinity_mg_l, "battery_v": 3.1, "rssi": -61}
    return JSONResponse(said)


@app.get("/nonsense")
def nonsense() -> Response:
    """What a broken controller says, for tests and for the curious."""
    return Response('{"salinity_mg_l": "NaN", "water_c": 999, "lamps": 7', media_type="application/json")
