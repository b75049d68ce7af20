"""A journal goes out and comes in: byte for byte, with the same judgement, whole or not at all."""

import asyncio
import json
from datetime import UTC, datetime, timedelta
from itertools import count
from pathlib import Path
from typing import Any
from uuid import UUID, uuid5

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kumpan.demo.__main__ import load
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, header_line, journal_line
from kumpan.services.journal.export import journal_file
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import the_workspace
from kumpan.services.sharing.bring_in import bring_in
from kumpan.storage.transaction import Database
from kumpan.tools.mariadb_server import MariaDbServer
from tests.conftest import wipe
from tests.web.conftest import START, office_token, running

NOW = datetime(2026, 9, 18, 17, 40, tzinfo=UTC)
ROWS: list[dict[str, Any]] = [
    row
    for name in ("rows_v1.json", "rows_of_november_2026.json")
    for row in json.loads((Path(__file__).parents[2] / "stored_forms" / name).read_text())
]
UNKNOWN = {
    "kind": "from_the_future",
    "body": {"v": 9, "what": ["no", {"version": "knows"}], "x": 1.50, "é": None},
}
POOLS = count(1)


async def exported(database: Database, pool_id: UUID, now: datetime) -> bytes:
    async with database.transaction() as tx:
        return (await journal_file(Scope(tx, await the_workspace(tx), now), pool_id)).content


def entries_of(content: bytes) -> list[bytes]:
    return content.splitlines()[1:]


@st.composite
def journals(draw: st.DrawFn) -> list[JournalLine]:
    """Entries of every kind and of none that is known, some replaced or taken back, told by anybody."""
    pool = UUID(int=next(POOLS))
    lines: list[JournalLine] = []
    for n in range(draw(st.integers(1, 12))):
        row = draw(st.sampled_from([*ROWS, UNKNOWN]))
        open_ones = {line.id for line in lines} - {line.supersedes for line in lines}
        replaced = draw(st.none() | st.sampled_from(sorted(open_ones))) if open_ones else None
        voided = replaced is not None and draw(st.booleans())
        at = START - timedelta(microseconds=draw(st.integers(0, 10**13)))
        lines.append(
            JournalLine(
                id=uuid5(pool, str(n)),
                kind="void" if voided else row["kind"],
                at=at,
                recorded_at=at + timedelta(microseconds=draw(st.integers(0, 10**9))),
                by=draw(st.sampled_from(["", "Ann Onym", "Åse Ødegård"])),
                workspace=draw(st.sampled_from(["My pools", "Another firm"])),
                supersedes=replaced,
                body={"reason": "a slip"} if voided else row["body"],
            )
        )
    return draw(st.permutations(lines))


@pytest.mark.no_cover
@given(lines=journals())
@settings(max_examples=40, suppress_health_check=[HealthCheck.function_scoped_fixture])  # each its own pool
def test_any_journal_comes_in_and_goes_out_as_it_was(database_url: str, lines: list[JournalLine]) -> None:
    pool_id = UUID(int=next(POOLS))
    header = JournalHeader(
        pool_id=pool_id, name="Any", workspace="My pools", exported_at=START, entries=len(lines)
    )
    in_order = sorted(lines, key=lambda line: (line.at, line.recorded_at, str(line.id)))
    text = "".join([header_line(header), *(journal_line(line) for line in lines)]).encode()

    async def there_and_back() -> tuple[bytes, list[int]]:
        database = Database(database_url)
        counts = []
        for _ in range(2):
            async with database.transaction() as tx:
                scope = Scope(tx, await the_workspace(tx), START + timedelta(days=1))
                counts.append((await bring_in(scope, text)).added)
        found = await exported(database, pool_id, START + timedelta(days=1))
        await database.close()
        return found, counts

    found, counts = asyncio.run(there_and_back())
    assert counts == [len(lines), 0]
    assert (
        b"".join(line + b"\n" for line in entries_of(found)) == "".join(map(journal_line, in_order)).encode()
    )


@pytest.mark.no_cover
async def test_the_demo_season_is_the_same_in_an_empty_instance(
    mariadb: MariaDbServer, database_url: str
) -> None:
    """Bytes but for the header, and the judgement at the same moment."""
    database = Database(database_url)
    assert await load(database, NOW)
    secret = await office_token(database)
    files, judged = {}, {}
    async with running(database_url) as api:
        api.now = NOW
        api.client.headers["authorization"] = f"Bearer {secret}"
        for pool in await api.pools():
            files[pool["id"]] = (await api.client.get(f"/api/v1/pools/{pool['id']}/journal.jsonl")).content
            judged[pool["id"]] = await api.get(f"/pools/{pool['id']}/assessment")
    await database.close()
    wipe(mariadb)
    other = Database(database_url)
    secret = await office_token(other)
    await other.close()
    assert len(files) == 5
    async with running(database_url) as api:
        api.now = NOW
        api.client.headers["authorization"] = f"Bearer {secret}"
        for pool_id, content in files.items():
            taken = await api.client.post(f"/api/v1/pools/{pool_id}/journal", content=content)
            assert taken.json()["added"] == len(entries_of(content)) > 50
            back = (await api.client.get(f"/api/v1/pools/{pool_id}/journal.jsonl")).content
            assert entries_of(back) == entries_of(content)
            assert await api.get(f"/pools/{pool_id}/assessment") == judged[pool_id]
