"""One picture of a pool's head in eight states of the laws' table, each a pool of its own."""

import base64
import json
import urllib.request
import uuid
from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass, field
from datetime import UTC, datetime, timedelta
from pathlib import Path

from playwright.sync_api import Browser

from kumpan.tools.browser import enter

Json = dict[str, object]
GOOD = {"free_chlorine": "2.5", "total_chlorine": "2.6", "ph": "7.5", "total_alkalinity": "100"}
GOOD |= {"calcium_hardness": "270", "cyanuric_acid": "40", "temperature_c": "80F"}
HEAD = "[data-head]"
WIDTH, HEIGHT = 1280, 1160


@dataclass(frozen=True)
class State:
    """A state by its name: what was tested, seen and poured half an hour ago."""

    name: str
    water: dict[str, str] = field(default_factory=dict)
    _: KW_ONLY
    odd: Sequence[str] = ()
    clarity: str = "clear"
    poured: str = ""


STATES = (
    State("Everything good"),
    State("FC 1.4", {"free_chlorine": "1.4", "total_chlorine": "1.4"}),
    State("FC 0.4", {"free_chlorine": "0.4", "total_chlorine": "0.4"}),
    State("FC 2, TC 4", {"free_chlorine": "2", "total_chlorine": "4"}),
    State("CYA 110, FC 3", {"cyanuric_acid": "110", "free_chlorine": "3", "total_chlorine": "3.1"}),
    State("Acid 20 minutes ago", {"ph": "7.9"}, poured="20 fl oz"),
    State("Hazy, and algae spots", odd=("algae spots",), clarity="hazy"),
    State("Drain cover loose", odd=("drain_cover",)),
)


def heads_picture(browser: Browser, address: str, file: Path) -> None:
    """Make the pools, take each head, and lay them under each other."""
    context = browser.new_context(viewport={"width": 620, "height": 800}, base_url=address)
    enter(context)
    page = context.new_page()
    shots = []
    for state in STATES:
        page.goto(f"/pools/{_made(address, state)}")
        page.wait_for_load_state("networkidle")
        shots.append((state.name, base64.b64encode(page.locator(HEAD).screenshot()).decode()))
    context.close()
    page = browser.new_page(viewport={"width": WIDTH, "height": HEIGHT})
    cells = "".join(
        f"<figure><figcaption>{name}</figcaption><img src='data:image/png;base64,{shot}'></figure>"
        for name, shot in shots
    )
    style = "body{columns:2;margin:12px;font:600 15px sans-serif;background:#fff}"
    style += "figure{break-inside:avoid;margin:0 0 14px;border-top:2px solid #888}img{width:100%}"
    page.set_content(f"<!doctype html><style>{style}</style>{cells}")
    page.screenshot(path=file, full_page=True)
    page.close()


def _made(address: str, state: State) -> str:
    pool = str(uuid.uuid4())
    at = (datetime.now(UTC) - timedelta(minutes=30)).isoformat()
    basin = {"unit": "ft", "volume": "18000 gal"}
    equipment = {"surface": "plaster", "chlorination": "liquid", "filter": "sand"}
    settings = {"name": "Quarry Court", "time_zone": "America/Chicago"}
    whole = {"id": pool, "settings": settings, "basin": basin, "equipment": equipment}
    ids = [str(uuid.uuid4()) for _ in range(3)]
    _post(address, "/pools", {**whole, "at": at, "entry_ids": ids})
    test = {"fields": {**GOOD, **state.water}, "kit": "drops"}
    look = {"clarity": state.clarity, "level": "normal", "odd": list(state.odd)}
    for route, body in (("tests", test), ("looks", look)):
        _post(address, f"/pools/{pool}/{route}", {"id": str(uuid.uuid4()), "at": at, **body})
    if state.poured:
        acid = {"chemical": "hydrochloric_acid", "strength_percent": 31.45, "amount": state.poured}
        then = (datetime.now(UTC) - timedelta(minutes=20)).isoformat()
        _post(address, f"/pools/{pool}/additions", {"id": str(uuid.uuid4()), "at": then, **acid})
    return pool


def _post(address: str, path: str, body: Json) -> None:
    request = urllib.request.Request(
        f"{address}/api/v1{path}",
        json.dumps(body).encode(),
        {"Content-Type": "application/json"},
        method="POST",
    )
    with urllib.request.urlopen(request, timeout=20) as reply:
        reply.read()
