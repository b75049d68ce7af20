"""Backups of a database: one consistent dump a file, checked by loading it into a server of its own.

A dump is a plain SQL file, gzipped: it goes into any MariaDB of the same or a newer version.
"""

import gzip
import os
import shutil
import subprocess
import tempfile
from datetime import datetime, timedelta
from pathlib import Path

from sqlalchemy.engine import URL, make_url

from kumpan.tools.console import Stop
from kumpan.tools.mariadb_server import MariaDbServer

SCRATCH = "checked"
DAILY, WEEKLY = 7, 5  # so many of the last days, and of the last weeks, are kept
STAMP = "%Y%m%d-%H%M%S"
PREFIX, SUFFIX = "kumpan-", ".sql.gz"
# One snapshot of all tables without locking anybody out; binary columns as hexadecimal text.
DUMP = (
    "mariadb-dump", "--no-defaults", "--single-transaction", "--quick", "--skip-lock-tables", "--hex-blob",
    "--skip-comments", "--skip-dump-date", "--no-tablespaces", "--default-character-set=utf8mb4",
)  # fmt: skip


def dump(database_url: str, file: Path) -> None:
    """Write a database into a file, whole or not at all. Raises Stop where the server refuses."""
    url = make_url(database_url)
    file.parent.mkdir(parents=True, exist_ok=True)
    part = file.with_name(file.name + ".part")
    options, around = _client(url)
    with part.open("wb") as raw:
        command = [*DUMP, *options, str(url.database)]
        with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, env=around) as running:
            assert running.stdout is not None
            assert running.stderr is not None
            with gzip.GzipFile(fileobj=raw, mode="wb", mtime=0) as packed:
                shutil.copyfileobj(running.stdout, packed)
            complaint = running.stderr.read().decode(errors="replace").strip()
        raw.flush()
        os.fsync(raw.fileno())
    if running.returncode != 0:
        part.unlink()
        raise Stop(f"The backup was not made: {complaint[-500:]}")
    part.replace(file)


def load(database_url: str, file: Path) -> None:
    """Put a dump in the place of all that a database holds. Raises Stop where it is no backup."""
    url = make_url(database_url)
    name = str(url.database)
    options, around = _client(url)
    client = ["mariadb", "--no-defaults", "--default-character-set=utf8mb4", *options]
    again = f"DROP DATABASE IF EXISTS `{name}`; CREATE DATABASE `{name}`"
    subprocess.run([*client, "-e", again], check=True, capture_output=True, env=around)
    with subprocess.Popen(
        [*client, name], stdin=subprocess.PIPE, stderr=subprocess.PIPE, env=around
    ) as running:
        assert running.stdin is not None
        assert running.stderr is not None
        try:
            with gzip.open(file) as packed:
                shutil.copyfileobj(packed, running.stdin)
            running.stdin.close()
        except (gzip.BadGzipFile, EOFError, OSError) as trouble:
            running.kill()
            raise Stop(f"{file} is no whole backup of Kumpan.") from trouble
        complaint = running.stderr.read().decode(errors="replace").strip()
    if running.returncode != 0:
        raise Stop(f"The backup could not be loaded: {complaint[-500:]}")


def check(file: Path) -> int:
    """Load a backup into a server of its own and dump that again: the same, byte for byte. Its entries.

    Raises Stop where it is not.
    """
    with tempfile.TemporaryDirectory(prefix="kumpan-check-") as folder:
        server = MariaDbServer(Path(folder))
        server.start(durable=False)
        try:
            url = server.url(SCRATCH)
            load(url, file)
            again = Path(folder) / "again.sql.gz"
            dump(url, again)
            if gzip.decompress(again.read_bytes()) != gzip.decompress(file.read_bytes()):
                raise Stop(f"{file} does not come back as it went in; keep it, and make another one.")
            return server.count(SCRATCH, "entry")
        finally:
            server.stop()


def made_at(file: Path) -> datetime | None:
    """When a backup of ours was made, by its name; None for any other file."""
    try:
        stamp = file.name.removeprefix(PREFIX).removesuffix(SUFFIX)
        return datetime.strptime(stamp, STAMP).astimezone()
    except ValueError:
        return None


def scheduled(folder: Path, now: datetime) -> Path:
    """The name of a backup that is made now."""
    return folder / f"{PREFIX}{now:{STAMP}}{SUFFIX}"


def prune(folder: Path) -> list[Path]:
    """Take away what is not of the last seven days or five weeks; what went. Other files stay."""
    kept: set[Path] = set()
    found = sorted((at, file) for file in folder.glob(f"{PREFIX}*{SUFFIX}") if (at := made_at(file)))
    for form, most in (("%Y-%m-%d", DAILY), ("%G-%V", WEEKLY)):
        newest = {at.strftime(form): file for at, file in found}  # the last one of each day and each week
        kept |= {file for _, file in sorted(newest.items())[-most:]}
    gone = [file for _, file in found if file not in kept]
    for file in gone:
        file.unlink()
    return gone


def is_due(folder: Path, now: datetime, every: timedelta) -> bool:
    """Whether the last backup is too old, or there is none."""
    times = [at for file in folder.glob(f"{PREFIX}*{SUFFIX}") if (at := made_at(file))]
    return not times or now - max(times) >= every


def _client(url: URL) -> tuple[list[str], dict[str, str]]:
    """How MariaDB's own programs reach a database; the password goes by the environment, not the list of
    processes.
    """
    options = [f"--user={url.username or 'root'}"]
    socket = url.query.get("unix_socket")
    if isinstance(socket, str):
        options.append(f"--socket={socket}")
    else:
        options += [f"--host={url.host or '127.0.0.1'}", f"--port={url.port or 3306}", "--protocol=tcp"]
    around = dict(os.environ)
    if url.password:
        around["MYSQL_PWD"] = str(url.password)
    return options, around
