"""`./run export FILE` and `./run import FILE`: a workspace as one file of open formats, out and in."""

import asyncio
import sys
from datetime import UTC, datetime
from pathlib import Path

from kumpan.core.errors import KumpanError
from kumpan.services.exports.archive import archive_of, bring_back
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import the_workspace
from kumpan.services.sharing.bring_in import bring_in
from kumpan.storage.transaction import Database
from kumpan.tools.backup_command import on_the_database
from kumpan.tools.console import Stop
from kumpan.wording.render import render


async def export(url: str, file: Path) -> str:
    """Write the first workspace into a file; a sentence about it."""
    database = Database(url)
    try:
        async with database.transaction() as tx:
            scope = Scope(tx, await the_workspace(tx), datetime.now(UTC))
            content = await archive_of(scope)
    finally:
        await database.close()
    file.write_bytes(content)
    return f"{file}: {len(content) / 1e6:.1f} MB."


async def bring(url: str, file: Path) -> str:
    """Bring an archive or a journal into the first workspace; a sentence about it. Raises Stop."""
    if not file.is_file():
        raise Stop(f"There is no file {file}.")
    content = file.read_bytes()
    database = Database(url)
    try:
        async with database.transaction() as tx:
            workspace = await the_workspace(tx)
            await tx.workspace.one_writer(workspace)
            scope = Scope(tx, workspace, datetime.now(UTC))
            if content[:2] == b"PK":
                came = await bring_back(scope, content)
                new = f"{came.entries} entries, {came.people} people, {came.products} products"
                return f"{came.pools} pools; new here: {new}."
            journal = await bring_in(scope, content)
            return (
                f"{journal.name}: {journal.added} entries are new here, {journal.known} stood here already."
            )
    except KumpanError as trouble:
        raise Stop(f"{file}: {render(trouble.message)}") from trouble
    finally:
        await database.close()


def main(arguments: list[str]) -> int:
    """`export` or `import`, the data directory, the file."""
    command, folder, file = arguments[0], Path(arguments[1]), Path(arguments[2])
    work = export if command == "export" else bring
    return on_the_database(folder, lambda url: asyncio.run(work(url, file)), alone=False)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
