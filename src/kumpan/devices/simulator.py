"""The simulated chlorinator and weather station: a small program that answers as a controller would.

uvicorn kumpan.devices.stand_in:app --host 127.0.0.1 --port 9000
"""

from datetime import UTC, datetime

from fastapi import FastAPI, Response

from kumpan.core.simulation.controller import reading_at
from kumpan.formats.device_json import reading_to_json

app = FastAPI(title="Stand-in controller", docs_url=None, redoc_url=None, openapi_url=None)


@app.get("/controller")
def controller() -> dict[str, object]:
    """What it says now."""
    return reading_to_json(reading_at(datetime.now(UTC)))


@app.get("/nonsense")
def nonsense() -> Response:
    """What a broken controller says, for tests and for the curious."""
    return Response('{"salinity_mg_l": "NaN", "water_c": 999, "lamps": 7', media_type="application/json")
