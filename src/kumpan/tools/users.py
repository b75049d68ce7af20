"""`./run users`: people of an installation from its terminal, for who runs the server.

It lists them, makes a link for somebody who lost every other way in, and a second workspace.
"""

import asyncio
import sys
from datetime import UTC, datetime
from uuid import uuid4

from kumpan.services.journal.ledger import Scope
from kumpan.services.people.access import Role
from kumpan.services.people.accounts import RESET, invite
from kumpan.services.people.commands import add_person
from kumpan.services.people.team import members
from kumpan.settings import Settings
from kumpan.storage.transaction import Database


def new_workspace(url: str, name: str, office: str, now: datetime) -> str:
    """Another workspace with its office; the path of the office's invitation."""
    return asyncio.run(_new_workspace(url, name, office, now))


async def _new_workspace(url: str, name: str, office: str, now: datetime) -> str:
    database = Database(url)
    async with database.transaction() as tx:
        scope = Scope(tx, uuid4(), now)
        await tx.workspace.add_workspace(scope.workspace_id, name, now)
        person = await add_person(scope, None, office, "", role=Role.OFFICE)
        secret = await invite(scope, person.id)
    await database.close()
    return f"/join/{secret}"


async def listed(url: str, now: datetime) -> list[str]:
    """A line each: name, role, how they sign in."""
    database, lines = Database(url), []
    async with database.transaction() as tx:
        for workspace_id in await tx.workspace.workspace_ids():
            for one in await members(Scope(tx, workspace_id, now)):
                login = one.login or "cannot sign in yet"
                state = "left" if one.person.ended_at else one.person.role
                lines.append(f"{one.person.name}: {state}, {login}")
    await database.close()
    return lines


async def reset(url: str, login: str, now: datetime) -> str | None:
    """The path of a link for a new password; None where nobody signs in by this name."""
    database, path = Database(url), None
    async with database.transaction() as tx:
        account = await tx.accounts.account(login.strip().casefold())
        if account is not None:
            workspace_id = await tx.accounts.workspace_of(account.person_id)
            path = f"/join/{await invite(Scope(tx, workspace_id, now), account.person_id, RESET)}"
    await database.close()
    return path


def main(arguments: list[str]) -> int:
    """What was asked for: `list`, `reset LOGIN`, or `workspace NAME OFFICE`."""
    url, now = Settings().database_url, datetime.now(UTC)
    match arguments:
        case ["list"]:
            lines = asyncio.run(listed(url, now))
        case ["reset", login]:
            path = asyncio.run(reset(url, login, now))
            lines = [path or "Nobody signs in by this name."]
        case ["workspace", name, office]:
            lines = [new_workspace(url, name, office, now)]
        case _:
            lines = ["./run users list | reset LOGIN | workspace NAME OFFICE"]
    for line in lines:
        print(line)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
