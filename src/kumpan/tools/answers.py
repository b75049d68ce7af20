"""./run answers: record what the API answers for the demo season; the tests of the screens render these.

They are real answers, shortened only where a list is long, and hold invented data. A test checks them
against the models of the routes, so that a change of the API asks for a new recording.
"""

import json
import tempfile
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import NAMESPACE_URL, uuid5

import httpx

from kumpan.tools.browser import OFFICE
from kumpan.tools.packages import FRONTEND
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running

FILE = FRONTEND / "src/testing/answers.json"
BASIN = {"shape": "rectangle", "length": "32", "width": "16", "second_width": "", "name": "",
         "depths": [{"distance": "0", "depth": "3"}, {"distance": "32", "depth": "8"}]}  # fmt: skip
LONGEST_LIST = 12
PAGE, ALL_POOLS = "/pools?sort=attention&limit=50", "/pools?sort=name&limit=200"
EVERYWHERE = ("/choices", PAGE, ALL_POOLS, "/people", "/shelf", "/shelf/to-buy", "/habits", "/practice",
              "/auth/state", "/me", "/me/tokens", "/members", "/links", "/archived-pools", "/journal-copies", "/audit", "/mail-choice", "/outbox", "/hooks",
              "/identify/questions", "/identify", "/interview?tree=low_salt")  # fmt: skip
OF_EVERY_POOL = (
    "",
    "/assessment",
    "/board",
    "/sheet",
    "/today",
    "/care",
    "/benches",
    "/plan",
    "/climate",
    "/photos",
)
OF_ONE = (
    "/log", "/outlook", "/ways", "/weekly", "/shock-products", "/slip/last?temperature_unit=f", "/season", "/season-lists", "/rescue?by_ratio=true",
    "/report", "/shares", "/calendar?days=42", "/history", "/offer?plan=shock", "/offer?plan=drain",
    "/procedures/backwash", "/season-plan?which=closing&day={soon}&kind=in_ground&cover=solid&winter=frost&skimmer_plate=true",
)  # fmt: skip


def shortened(answer: object) -> object:
    """The same answer with long lists cut; pairs and months stay whole."""
    if isinstance(answer, list):
        return [shortened(one) for one in answer[:LONGEST_LIST]]
    if isinstance(answer, dict):
        return {key: shortened(value) for key, value in answer.items()}
    return answer


def recorded(client: httpx.Client, soon: str) -> dict[str, Any]:
    """Every answer by its path and query."""
    answers: dict[str, Any] = {}

    def ask(path: str) -> Any:
        found = client.get(f"/api/v1{path}")
        found.raise_for_status()
        answers[path] = shortened(found.json())
        return found.json()

    for path in EVERYWHERE:
        ask(path)
    for head in answers[ALL_POOLS]["pools"]:
        pool = f"/pools/{head['id']}"
        for path in OF_EVERY_POOL:
            ask(pool + path)
        for path in OF_ONE:
            found = client.get(f"/api/v1{pool}{path.format(soon=soon)}")
            if found.is_success:
                answers[pool + path.format(soon="soon")] = shortened(found.json())
    for person in answers["/people"]:
        ask(f"/round?person_id={person['id']}")
    first = f"/pools/{answers[ALL_POOLS]['pools'][0]['id']}"

    def after(key: str, path: str, body: dict[str, Any], seen: str) -> None:
        """How another question is answered once something has been told."""
        client.post(f"/api/v1{path}", json={"id": str(uuid5(NAMESPACE_URL, key)), **body}).raise_for_status()
        answers[f"{seen}#{key}"] = shortened(client.get(f"/api/v1{seen}").json())

    def posted(path: str, body: dict[str, Any]) -> None:
        """A question that is posted, since it is long, and changes nothing."""
        found = client.post(f"/api/v1{path}", json=body)
        found.raise_for_status()
        answers[f"POST {path}"] = shortened(found.json())

    posted(
        "/practice/play", {"scenario": "holiday", "seed": 1, "moves": [{"kind": "test"}], "finished": True}
    )
    posted(f"{first}/second-opinion", {"text": "salt 20 kg, soda 400 g"})
    posted(f"{first}/what-if", {"values": {"ph": 7.4}})
    posted(
        f"{first}/slip/read", {"kit": "drops", "temperature_unit": "f", "line": "fc 1 ph 7.5 ta 100 cya 40"}
    )
    basin = {"unit": "ft", "parts": [BASIN], "fixtures": [], "volume": "", "volume_unit": "gal"}
    posted("/basins/preview", basin)

    # Whatever the hour: what was poured last may not be mixed yet, and then no sheet is offered.
    low = {"free_chlorine": "1", "total_chlorine": "1", "ph": "7.6", "total_alkalinity": "80"}
    after("tested", f"{first}/tests", {"fields": low, "kit": "drops"}, f"{first}/today")
    after("started", f"{first}/sheets", {"asked": {}}, f"{first}/sheet")
    after("begun", f"{first}/rescue", {"severity": "green"}, f"{first}/rescue?by_ratio=true")
    plan = next(found for path, found in answers.items() if path.startswith(f"{first}/season-plan"))
    kept = {**plan["kept"], "list_id": str(uuid5(NAMESPACE_URL, "list"))}
    after("kept", f"{first}/season-lists", kept, f"{first}/season-lists")
    return answers


def _enter(client: httpx.Client) -> None:
    """As the demo's office, by its session: a token may not read everything."""
    people = client.get("/api/v1/auth/state").raise_for_status().json()["demo"]
    office = next(one["id"] for one in people if one["name"] == OFFICE)
    client.post("/api/v1/auth/demo", json={"person_id": office}).raise_for_status()


def main() -> None:
    """Start the demo on a free port, ask, write the file, end it."""
    with tempfile.TemporaryDirectory(prefix="kumpan answers ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            now = datetime.now(UTC)
            with httpx.Client(base_url=running.address, timeout=60) as client:
                _enter(client)
                answers = recorded(client, now.date().isoformat())
        finally:
            running.stop()
    FILE.parent.mkdir(parents=True, exist_ok=True)
    FILE.write_text(
        json.dumps({"now": now.isoformat(), "answers": answers}, ensure_ascii=False, sort_keys=True) + "\n"
    )
    print(f"{len(answers)} answers in {FILE.name}, {FILE.stat().st_size / 1000:.0f} kB.")


if __name__ == "__main__":
    main()
