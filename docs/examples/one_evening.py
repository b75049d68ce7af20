"""One evening from another program: a test told, the judge asked, the plan read, a table taken out.

    python docs/examples/one_evening.py http://localhost:8000 "$(cat data/8000/api-token)"

Needs `httpx`. A token is made under *You*; the demo writes one into its data directory.
"""

import hmac
import sys
from hashlib import sha256
from uuid import uuid4

import httpx


def one_evening(client: httpx.Client) -> list[str]:
    """What the program would say, line by line."""
    pools = taken(client.get("/api/v1/pools", params={"sort": "attention", "limit": 5}))["pools"]
    pool = pools[0]
    said = [f"{pool['settings']['name']}: {pool['next']['text']}"]
    test = {"id": str(uuid4()), "kit": "drops", "fields": {"free_chlorine": "2.5", "ph": "7.6"}}
    taken(client.post(f"/api/v1/pools/{pool['id']}/tests", json=test))
    judged = taken(client.get(f"/api/v1/pools/{pool['id']}/assessment"))
    said.append(f"Swim: {judged['swim']['code']}. Next: {judged['next']['text']}")
    plan = taken(client.get(f"/api/v1/pools/{pool['id']}/sheet"))
    said += [f"{step['number'] + 1}. {step['step']['title']}" for step in plan["steps"]]
    table = client.get("/api/v1/exports/tests.csv", params={"pool_id": pool["id"]}).raise_for_status()
    said.append(f"{len(table.text.splitlines()) - 1} tests in the table")
    return said


def taken(reply: httpx.Response) -> dict:
    """The answer, or the one sentence with the cure."""
    if reply.is_error:
        raise SystemExit(reply.json()["error"]["message"])
    return reply.json()


def is_from_kumpan(secret: str, body: bytes, signature: str) -> bool:
    """Whether a call to this program is Kumpan's: `signature` is the header `kumpan-signature`."""
    time, _, signed = signature.partition(",v1=")
    expected = hmac.new(secret.encode(), time.removeprefix("t=").encode() + b"." + body, sha256).hexdigest()
    return hmac.compare_digest(signed, expected)


if __name__ == "__main__":
    with httpx.Client(
        base_url=sys.argv[1], headers={"authorization": f"Bearer {sys.argv[2]}"}, timeout=60
    ) as kumpan:
        print("\n".join(one_evening(kumpan)))
