"""A MariaDB server of our own: started on a socket in a private folder, ended by its recorded id.

One data directory, one server: an own lock says so at once, and an orphan left by a killed `./run`
is ended first.
"""

import fcntl
import os
import shutil
import subprocess
import tempfile
import time
from pathlib import Path
from typing import IO

from kumpan.tools import processes
from kumpan.tools.console import Stop

SERVER = "/usr/sbin/mariadbd"
START_SECONDS = 60.0


class MariaDbServer:
    """`start()` returns when the server takes connections; `stop()` ends it. No network, socket only."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder.resolve()
        self.process: subprocess.Popen[bytes] | None = None
        self._lock: IO[str] | None = None
        self._private: str | None = None
        self._durable = True

    @property
    def socket(self) -> str:
        """The server's socket, in a private folder; that of another process where it runs there.

        Raises Stop where no server was ever started on this data directory.
        """
        if self._private is None:
            try:
                return self._told_socket.read_text()
            except FileNotFoundError:
                raise Stop(f"No Kumpan runs on the data directory {self.folder}.") from None
        return f"{self._private}/s"

    @property
    def _told_socket(self) -> Path:
        """Where other programs of this data directory read the socket."""
        return self.folder / "socket"

    def url(self, database: str) -> str:
        """The SQLAlchemy URL of a database on this server."""
        return f"mariadb+asyncmy://root@/{database}?unix_socket={self.socket}&charset=utf8mb4"

    def start(self, *, durable: bool = True) -> None:
        """Raises Stop with one clear sentence when the data directory is in use or the server fails."""
        self.folder.mkdir(parents=True, exist_ok=True)
        self._take_lock()
        processes.end_remembered(self.folder / "mariadb.pid.json")
        data = self.folder / "mariadb"
        if not (data / "mysql").is_dir():
            install(data)
        # A socket path over 107 characters aborts the server: keep it short and private.
        self._private = tempfile.mkdtemp(prefix="kumpan-", dir="/tmp")
        self._durable = durable
        self._told_socket.write_text(self.socket)
        self._launch()

    def restart(self) -> None:
        """Start a server that has died again, at the same socket: who was connected finds it there."""
        Path(self.socket).unlink(missing_ok=True)  # the dead one's: it must not be taken for the new one's
        self._launch()

    def _launch(self) -> None:
        data = self.folder / "mariadb"
        log = self.folder / "mariadb.log"
        with log.open("ab") as out:
            self.process = subprocess.Popen(
                self._command(data, durable=self._durable),
                stdout=out,
                stderr=out,
                stdin=subprocess.DEVNULL,
                start_new_session=True,
            )
        processes.remember(self.folder / "mariadb.pid.json", self.process.pid)
        self._wait_ready(log)

    def _command(self, data: Path, *, durable: bool) -> list[str]:
        command = [
            SERVER,
            "--no-defaults",
            f"--datadir={data}",
            f"--socket={self.socket}",
            "--skip-networking",
            f"--pid-file={self._private}/pid",
            f"--tmpdir={self._private}",
            "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_bin",
            "--innodb-buffer-pool-size=64M",
            "--max-connections=200",
        ]
        if durable:
            # What a restore to a point in time is made of; two weeks of it, in one file per 64 MB.
            logs = self.folder / "binlog"
            logs.mkdir(exist_ok=True)
            command += [
                f"--log-bin={logs}/kumpan",
                "--server-id=1",
                "--binlog-format=ROW",
                "--sync-binlog=1",
                "--expire-logs-days=14",
                "--max-binlog-size=64M",
            ]
        else:
            command += ["--skip-log-bin", "--innodb-flush-log-at-trx-commit=0"]
        return [*command, "--user=root"] if os.geteuid() == 0 else command

    def _take_lock(self) -> None:
        self._lock = (self.folder / "lock").open("w")
        try:
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            self._lock.close()
            self._lock = None
            raise Stop(
                f"The data directory {self.folder} is in use by another Kumpan; stop that one or give "
                f"--data another."
            ) from None

    def _wait_ready(self, log: Path) -> None:
        deadline = time.monotonic() + START_SECONDS
        ping = ["mariadb-admin", "--no-defaults", f"--socket={self.socket}", "-uroot", "--silent", "ping"]
        while time.monotonic() < deadline:
            if self.process is not None and self.process.poll() is not None:
                break
            if (
                Path(self.socket).exists()
                and subprocess.run(ping, capture_output=True, check=False).returncode == 0
            ):
                return
            time.sleep(0.05)
        self.stop()
        raise Stop(f"MariaDB did not start; its log {log} says why.")

    def run_sql(self, sql: str) -> None:
        """Run a statement as the server's own administrator."""
        command = ["mariadb", "--no-defaults", f"--socket={self.socket}", "-uroot", "-e", sql]
        subprocess.run(command, check=True, capture_output=True)

    def log_position(self) -> int:
        """Where the binary log stands now."""
        command = [
            "mariadb",
            "--no-defaults",
            f"--socket={self.socket}",
            "-uroot",
            "-NBe",
            "SHOW MASTER STATUS",
        ]
        done = subprocess.run(command, check=True, capture_output=True, text=True)
        return int(done.stdout.split("\t")[1])

    def count(self, database: str, table: str) -> int:
        """How many rows a table has."""
        command = ["mariadb", "--no-defaults", f"--socket={self.socket}", "-uroot", "-NBe"]
        done = subprocess.run(
            [*command, f"SELECT COUNT(*) FROM `{database}`.`{table}`"], check=True, capture_output=True
        )
        return int(done.stdout)

    def stop(self, seconds: float = 20.0) -> None:
        """End the server and take its private folder away. Safe to call twice."""
        if self.process is not None and self.process.poll() is None:
            self.process.terminate()
            try:
                self.process.wait(seconds)
            except subprocess.TimeoutExpired:
                self.process.kill()
                self.process.wait()
        self.process = None
        (self.folder / "mariadb.pid.json").unlink(missing_ok=True)
        if self._private is not None:
            self._told_socket.unlink(missing_ok=True)
            shutil.rmtree(self._private, ignore_errors=True)
        if self._lock is not None:
            self._lock.close()
            self._lock = None


def install(data: Path) -> None:
    """Make the system tables. `--user=root` is not given: with it, a path with a space fails."""
    data.parent.mkdir(parents=True, exist_ok=True)
    # A temporary folder of its own: a server that starts elsewhere sweeps the shared one.
    with tempfile.TemporaryDirectory(prefix="kumpan-", dir="/tmp") as private:
        command = ["mariadb-install-db", "--no-defaults", f"--datadir={data}", f"--tmpdir={private}"]
        done = subprocess.run(
            [*command, "--auth-root-authentication-method=normal", "--skip-test-db"],
            capture_output=True,
            text=True,
            check=False,
        )
    if done.returncode != 0:
        shutil.rmtree(data, ignore_errors=True)
        raise Stop(
            f"MariaDB's tables could not be made in {data}: {(done.stderr or done.stdout).strip()[-400:]}"
        )
