"""Three MariaDB servers that are one database (Galera), on loopback: started, killed, brought back.

Each node has a file of options: with options on the command line the transfer of state dies. The scripts of
the transfer are only in Debian's mariadb-server, whose installation would start a system server; the package
is unpacked instead.
"""

import os
import re
import shutil
import signal
import subprocess
import tempfile
import time
from dataclasses import dataclass
from pathlib import Path

from kumpan.tools import processes
from kumpan.tools.console import Stop
from kumpan.tools.mariadb_server import SERVER, install
from kumpan.tools.packages import ROOT
from kumpan.tools.ports import free_ports

PROVIDER = "/usr/lib/galera/libgalera_smm.so"
SCRIPTS = ROOT / ".run" / "mariadb-server"
STARTS_WITHIN_S = 180.0
# A node that is silent for a second is suspected, for three it is out: by default writes would wait six.
GROUP = "evs.suspect_timeout=PT1S;evs.inactive_timeout=PT3S;evs.inactive_check_period=PT0.25S;"
GROUP += "evs.keepalive_period=PT0.25S;gcache.size=32M"
USER, PASSWORD = "kumpan", "on-loopback-only"
FILE = """[mysqld]
{user}datadir={folder}/data
socket={private}/s
pid-file={private}/pid
tmpdir={private}
bind-address=127.0.0.1
port={sql}
skip-name-resolve
character-set-server=utf8mb4
collation-server=utf8mb4_bin
innodb-buffer-pool-size=64M
max-connections=200
binlog-format=ROW
default-storage-engine=InnoDB
innodb-autoinc-lock-mode=2
wsrep-on=ON
wsrep-provider={provider}
wsrep-cluster-name={name}
wsrep-cluster-address=gcomm://{members}
wsrep-node-name=node{number}
wsrep-node-address=127.0.0.1:{group}
wsrep-sst-method=mariabackup
wsrep-sst-auth=root:
wsrep-sst-receive-address=127.0.0.1:{transfer}
wsrep-provider-options="gmcast.listen_addr=tcp://127.0.0.1:{group};ist.recv_addr=127.0.0.1:{increment};{options}"
"""


@dataclass(frozen=True)
class Ports:
    """Where a node listens: for SQL, for the group, for a whole state and for what it missed."""

    sql: int
    group: int
    transfer: int
    increment: int


class Node:
    """One server of the cluster."""

    def __init__(self, number: int, folder: Path, ports: Ports, scripts: Path) -> None:
        self.number, self.folder, self.ports, self.scripts = number, folder, ports, scripts
        self.process: subprocess.Popen[bytes] | None = None
        self._private = tempfile.mkdtemp(prefix="kumpan-", dir="/tmp")

    @property
    def socket(self) -> str:
        """Its socket."""
        return f"{self._private}/s"

    def prepare(self, name: str, members: str) -> None:
        """Its data directory and file of options."""
        install(self.folder / "data")
        text = FILE.format(
            user="user=root\n" if os.geteuid() == 0 else "",
            folder=self.folder,
            private=self._private,
            provider=PROVIDER,
            name=name,
            members=members,
            number=self.number,
            options=GROUP,
            sql=self.ports.sql,
            group=self.ports.group,
            transfer=self.ports.transfer,
            increment=self.ports.increment,
        )
        (self.folder / "node.cnf").write_text(text)

    def start(self, *, first: bool = False) -> float:
        """Join the cluster, or begin it; the seconds until it is synced."""
        began = time.monotonic()
        more = ["--wsrep-new-cluster"] if first else self._where_it_was()
        with (self.folder / "log").open("ab") as out:
            self.process = subprocess.Popen(
                [*self._command(), *more],
                stdout=out,
                stderr=out,
                stdin=subprocess.DEVNULL,
                env={**os.environ, "PATH": f"{self.scripts}:{os.environ['PATH']}"},
                start_new_session=True,
            )
        processes.remember(self.folder / "pid.json", self.process.pid)
        while time.monotonic() - began < STARTS_WITHIN_S:
            if self.process.poll() is not None:
                break
            if self.synced():
                return time.monotonic() - began
            time.sleep(0.1)
        raise Stop(f"Node {self.number} did not join; its log is {self.folder}/log.")

    def kill(self) -> None:
        """As when its machine loses power."""
        assert self.process is not None
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()
        Path(self.socket).unlink(missing_ok=True)

    def stop(self) -> None:
        """End it."""
        if self.process is not None and self.process.poll() is None:
            os.killpg(self.process.pid, signal.SIGTERM)
            try:
                self.process.wait(10)
            except subprocess.TimeoutExpired:
                self.kill()
        (self.folder / "pid.json").unlink(missing_ok=True)
        shutil.rmtree(self._private, ignore_errors=True)

    def synced(self) -> bool:
        """Whether it takes reads and writes as a member of the cluster."""
        return self.ask("SHOW STATUS LIKE 'wsrep_local_state'").split()[-1:] == ["4"]

    def ask(self, sql: str) -> str:
        """What it answers, tab-separated; empty where it does not."""
        command = ["mariadb", "--no-defaults", "-uroot", f"--socket={self.socket}", "-BN", "-e", sql]
        try:
            done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=10)
        except subprocess.TimeoutExpired:
            return ""
        return done.stdout if done.returncode == 0 else ""

    def _command(self) -> list[str]:
        return [SERVER, f"--defaults-file={self.folder}/node.cnf"]

    def _where_it_was(self) -> list[str]:
        """After a crash: the position up to which it has everything, so that it fetches only the rest."""
        if not (self.folder / "data" / "grastate.dat").exists():
            return []
        done = subprocess.run(
            [*self._command(), "--wsrep-recover", f"--log-error={self.folder}/recovered.err"],
            capture_output=True,
            text=True,
            check=False,
        )
        text = (self.folder / "recovered.err").read_text() + done.stderr
        found = re.findall(r"Recovered position: *(\S+)", text)
        return [f"--wsrep-start-position={found[-1]}"] if found else []


class Galera:
    """Three nodes."""

    def __init__(self, folder: Path) -> None:
        _unpack_scripts()
        # Under a name without a space: the server hands the script's path to a shell as it is.
        self._private = Path(tempfile.mkdtemp(prefix="kumpan-", dir="/tmp"))
        scripts = self._private / "scripts"
        scripts.symlink_to(SCRIPTS / "usr/bin")
        ports = free_ports(12)
        self.nodes = [
            Node(number, folder / f"node{number}", Ports(*ports[number * 4 - 4 : number * 4]), scripts)
            for number in (1, 2, 3)
        ]

    def start(self) -> list[float]:
        """All of them, the first begins the cluster; seconds of each."""
        members = ",".join(f"127.0.0.1:{node.ports.group}" for node in self.nodes)
        for node in self.nodes:
            node.folder.mkdir(parents=True, exist_ok=True)
            node.prepare("kumpan", members)
        took = [self.nodes[0].start(first=True)]
        account = f"'{USER}'@'127.0.0.1' IDENTIFIED BY '{PASSWORD}'"
        self.nodes[0].ask(
            f"CREATE DATABASE kumpan; CREATE USER {account}; GRANT ALL ON kumpan.* TO '{USER}'@'127.0.0.1'"
        )
        return took + [node.start() for node in self.nodes[1:]]

    def stop(self) -> None:
        """End all."""
        for node in reversed(self.nodes):
            node.stop()
        shutil.rmtree(self._private, ignore_errors=True)


def _unpack_scripts() -> None:
    if (SCRIPTS / "usr/bin/wsrep_sst_mariabackup").exists():
        return
    SCRIPTS.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(prefix="kumpan ", dir="/tmp") as folder:
        fetched = subprocess.run(
            ["apt-get", "download", "mariadb-server"], cwd=folder, capture_output=True, text=True, check=False
        )
        packages = list(Path(folder).glob("*.deb"))
        if not packages:
            raise Stop(f"Debian's mariadb-server could not be fetched: {fetched.stderr.strip()[-300:]}")
        subprocess.run(["dpkg", "-x", str(packages[0]), str(SCRIPTS)], check=True)
