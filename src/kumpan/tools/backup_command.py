"""`./run backup FILE` and `./run restore FILE`: of a data directory, or of an outside database."""

import os
import sys
from collections.abc import Callable
from contextlib import nullcontext, suppress
from datetime import UTC, datetime
from pathlib import Path

from kumpan.tools.backup import check, dump, load
from kumpan.tools.console import Stop, stage
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.serving import DATABASE, prepare


def backup(url: str, file: Path) -> str:
    """Write and check a backup; a sentence about it. Raises Stop."""
    with stage("Backup"):
        dump(url, file)
    with stage("Check: loaded into a server of its own"):
        entries = check(file)
    return f"{file}: {entries} entries, {file.stat().st_size / 1e6:.1f} MB, checked."


def restore(url: str, file: Path, backups: Path) -> str:
    """Put a checked backup in the place of what is there, which is kept as a backup. Raises Stop."""
    if not file.is_file():
        raise Stop(f"There is no file {file}.")
    with stage("Check: loaded into a server of its own"):
        entries = check(file)
    before = backups / f"before-restore-{datetime.now(UTC):%Y%m%d-%H%M%S}.sql.gz"
    with stage("Backup of what is there"):
        dump(url, before)
    with stage("Restore"):
        load(url, file)
        prepare(url, backups=backups)
    return f"{entries} entries are back. What was there before is in {before}."


def reach(server: MariaDbServer, *, alone: bool) -> None:
    """Start the server of a data directory, or use the one that runs; `alone` refuses that. Raises Stop."""
    if not (server.folder / "mariadb").is_dir():
        raise Stop(f"The data directory {server.folder} holds no Kumpan; say --port or --data.")
    with nullcontext() if alone else suppress(Stop):
        server.start()


def on_the_database(folder: Path, work: Callable[[str], str], *, alone: bool) -> int:
    """Do something with the database of a data directory, or with the one that KUMPAN_DATABASE_URL names, and
    say what came of it; the exit code. `alone`: not while Kumpan runs.
    """
    outside = os.environ.get("KUMPAN_DATABASE_URL", "")
    server = MariaDbServer(folder)
    try:
        if not outside:
            reach(server, alone=alone)
        print(work(outside or server.url(DATABASE)))
    except Stop as reason:
        print(reason, file=sys.stderr)
        return 1
    finally:
        if server.process is not None:
            server.stop()
    return 0


def main(arguments: list[str]) -> int:
    """`backup` or `restore`, the data directory, the file."""
    command, folder, file = arguments[0], Path(arguments[1]), Path(arguments[2])
    if command == "backup":
        return on_the_database(folder, lambda url: backup(url, file), alone=False)
    return on_the_database(folder, lambda url: restore(url, file, folder / "backups"), alone=True)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
