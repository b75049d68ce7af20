"""Backups: whole, checked, restored with what was there kept; a point in time; which are kept for how long."""

import gzip
import subprocess
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from kumpan.tools.backup import check, dump, is_due, load, made_at, prune, scheduled
from kumpan.tools.backup_command import backup, main, restore
from kumpan.tools.backup_keeper import once
from kumpan.tools.console import Stop
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.serving import DATABASE, prepare

NOON = datetime(2026, 11, 28, 12, 0, tzinfo=UTC)
SHELF = "INSERT INTO kumpan.product (id, workspace_id, name, chemical, strength_percent, created_at) SELECT UUID(), id, {}, 'sodium_chloride', 100, NOW() FROM kumpan.workspace"


@pytest.fixture
def server(tmp_path: Path) -> Iterator[MariaDbServer]:
    """A prepared database on a server of its own, with binary logs as a running Kumpan has them."""
    found = MariaDbServer(tmp_path / "with a space")
    found.start()
    found.run_sql(f"CREATE DATABASE {DATABASE}")
    prepare(found.url(DATABASE))
    yield found
    found.stop()


def put(server: MariaDbServer, name: str) -> None:
    client = ["mariadb", "--no-defaults", f"--socket={server.socket}", "-uroot"]
    sql = SHELF.format("'" + name.replace("'", "''") + "'")
    subprocess.run([*client, "--default-character-set=utf8mb4"], input=sql.encode(), check=True)


def shelf(server: MariaDbServer) -> list[str]:
    command = ["mariadb", "--no-defaults", f"--socket={server.socket}", "-uroot", "-NBe"]
    command.insert(2, "--default-character-set=utf8mb4")
    query = "SELECT name FROM kumpan.product ORDER BY name"
    return subprocess.run([*command, query], check=True, capture_output=True, text=True).stdout.split("\n")[
        :-1
    ]


def test_what_is_backed_up_comes_back_and_what_was_there_is_kept(
    server: MariaDbServer, tmp_path: Path
) -> None:
    put(server, "salt; 'quoted' – ½ 🏊")
    url, file = server.url(DATABASE), tmp_path / "out" / "kumpan.sql.gz"
    assert "0 entries" in backup(url, file)
    put(server, "later")
    said = restore(url, file, tmp_path / "backups")
    assert shelf(server) == ["salt; 'quoted' – ½ 🏊"]
    before = next((tmp_path / "backups").glob("before-restore-*"))
    assert str(before) in said
    load(url, before)
    assert len(shelf(server)) == 2


def test_a_broken_backup_is_refused_and_nothing_is_touched(server: MariaDbServer, tmp_path: Path) -> None:
    put(server, "salt")
    url, whole = server.url(DATABASE), tmp_path / "whole.sql.gz"
    dump(url, whole)
    cut, other, text = (tmp_path / f"{name}.sql.gz" for name in ("cut", "other", "text"))
    cut.write_bytes(whole.read_bytes()[:-2000])
    other.write_bytes(gzip.compress(b"SELECT nonsense;"))
    text.write_bytes(b"no gzip at all")
    for wrong in (cut, other, text, tmp_path / "missing.sql.gz"):
        with pytest.raises(Stop):
            restore(url, wrong, tmp_path / "backups")
    assert shelf(server) == ["salt"]


def test_a_backup_that_cannot_be_made_leaves_no_half_file(server: MariaDbServer, tmp_path: Path) -> None:
    with pytest.raises(Stop, match="The backup was not made"):
        dump(server.url("no_such_database"), tmp_path / "x.sql.gz")
    assert list(tmp_path.glob("x*")) == []


def test_a_point_in_time_comes_back_from_the_binary_logs(server: MariaDbServer, tmp_path: Path) -> None:
    """As docs/operations.md says it: the backup, then the logs from the backup's time to a moment."""
    url, file = server.url(DATABASE), tmp_path / "kumpan.sql.gz"
    put(server, "before")
    position = server.log_position()
    dump(url, file)
    server.run_sql("SET timestamp = 2000000000; " + SHELF.format("'wanted'"))
    server.run_sql("SET timestamp = 2000000100; " + SHELF.format("'too late'"))
    logs = sorted(str(one) for one in (server.folder / "binlog").glob("kumpan.0*"))
    load(url, file)
    stop = datetime.fromtimestamp(2_000_000_050, UTC).astimezone().strftime("%Y-%m-%d %H:%M:%S")
    replay = ["mariadb-binlog", f"--start-position={position}", f"--stop-datetime={stop}", *logs[-1:]]
    sql = subprocess.run(replay, check=True, capture_output=True).stdout
    client = ["mariadb", "--no-defaults", f"--socket={server.socket}", "-uroot"]
    subprocess.run(client, input=sql, check=True)
    assert shelf(server) == ["before", "wanted"]


def test_the_command_reaches_a_server_that_runs_and_restores_only_alone(
    server: MariaDbServer, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    put(server, "salt")
    file = str(tmp_path / "a.sql.gz")
    assert main(["backup", str(server.folder), file]) == 0
    assert main(["restore", str(server.folder), file]) == 1
    assert "in use by another Kumpan" in capsys.readouterr().err
    assert main(["backup", str(tmp_path / "nothing"), file]) == 1
    assert "holds no Kumpan" in capsys.readouterr().err


def test_a_backup_is_due_a_day_after_the_last(server: MariaDbServer, tmp_path: Path) -> None:
    url = server.url(DATABASE)
    first = once(url, tmp_path, NOON)
    assert first is not None
    assert check(first) == 0
    assert once(url, tmp_path, NOON + timedelta(hours=23)) is None
    assert once(url, tmp_path, NOON + timedelta(hours=24)) is not None


def test_seven_days_and_five_weeks_are_kept_and_other_files_stay(tmp_path: Path) -> None:
    for days in range(60):
        scheduled(tmp_path, NOON - timedelta(days=days)).touch()
    (tmp_path / "before-0006-20260101-120000.sql.gz").touch()
    (tmp_path / "kumpan-mine.sql.gz").touch()
    gone = prune(tmp_path)
    left = sorted(at for file in tmp_path.glob("kumpan-2*") if (at := made_at(file)))
    ages = [(NOON - at).days for at in left][::-1]
    assert ages[:7] == list(range(7))
    assert len({at.strftime("%G-%V") for at in left}) == 5
    assert 27 <= max(ages) <= 35
    assert len(gone) == 60 - len(left)
    assert len(list(tmp_path.iterdir())) == len(left) + 2
    assert not is_due(tmp_path, NOON + timedelta(hours=1), timedelta(days=1))
