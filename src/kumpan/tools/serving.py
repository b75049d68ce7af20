"""Start all that a running Kumpan consists of, and end it again within seconds."""

import json
import os
import secrets
import shutil
import signal
import socket
import ssl
import subprocess
import threading
import time
import urllib.request
from collections.abc import Callable, Mapping
from pathlib import Path
from types import MappingProxyType

from kumpan.tools import processes
from kumpan.tools.console import Stop, stage
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.packages import DIST, ROOT, VENV
from kumpan.tools.ports import free_port

PYTHON = str(VENV / "bin/python")
DATABASE = "kumpan"
NOBODY = "nobody can sign in yet"  # what the preparing program says
MOST_ENDS_A_MINUTE = 5
WEB_WITHIN_S = 90  # a slow machine takes a while to load; one that works answers in a second or two


def environment(
    database_url: str, simulator_port: int | None = None, more: Mapping[str, str] = MappingProxyType({})
) -> dict[str, str]:
    """The environment of our own programs."""
    simulator = {} if simulator_port is None else {"KUMPAN_SIMULATOR_URL": simulator_url(simulator_port)}
    return {
        **os.environ,
        **simulator,
        **more,
        "PYTHONPATH": str(ROOT / "src"),
        "KUMPAN_DATABASE_URL": database_url,
        "KUMPAN_STATIC_DIR": str(DIST),
    }


def simulator_url(port: int) -> str:
    """Where the simulated device answers."""
    return f"http://127.0.0.1:{port}/controller"


def prepare(database_url: str, *, demo: Path | None = None, backups: Path | None = None) -> bool:
    """Bring the database up to date, after a backup of one that holds something; if asked, load the demo data
    into an empty one, its token into a file. Whether nobody can sign in yet.
    """
    given = {"--demo": demo, "--backups": backups}
    options = [text for name, path in given.items() if path is not None for text in (name, str(path))]
    done = subprocess.run(
        [PYTHON, "-m", "kumpan.tools.prepare", *options],
        cwd=ROOT,
        env=environment(database_url),
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode != 0:
        raise Stop(f"The database could not be prepared:\n{done.stderr.strip()[-2000:]}")
    return NOBODY in done.stdout


class Running:
    """MariaDB and the web server on one port with one data directory.

    `workers` web processes; an outside database where KUMPAN_DATABASE_URL names one.
    """

    def __init__(
        self, port: int, folder: Path, *, lan: bool = False, proxy: bool = False, workers: int = 1
    ) -> None:
        self.port = port
        self.folder = folder
        self.lan = lan
        self.proxy = proxy
        self.workers = workers
        self.outside = os.environ.get("KUMPAN_DATABASE_URL", "")
        self.names: list[str] = []
        self.database = MariaDbServer(folder)
        self.web: subprocess.Popen[bytes] | None = None
        self.helpers: list[tuple[str, subprocess.Popen[bytes]]] = []
        self._helpers_commands: dict[str, tuple[list[str], Mapping[str, str]]] = {}
        self._relaunch: Callable[[], None] | None = None
        self._ends: list[float] = []
        self.first_code = os.environ.get("KUMPAN_FIRST_CODE", "")
        self.empty = False
        self.mailbox = ""

    @property
    def token_file(self) -> Path:
        """Where the demo's token of its office stands."""
        return self.folder / "api-token"

    @property
    def backups(self) -> Path:
        """Where backups go: one before each change of the database's form, and the scheduled ones."""
        return self.folder / "backups"

    @property
    def address(self) -> str:
        """Where the web server answers."""
        return f"{'https' if self.lan else 'http'}://127.0.0.1:{self.port}"

    @property
    def tls(self) -> Path:
        """Where the authority of this installation and the certificate of this machine stand."""
        return self.folder / "tls"

    @property
    def trusted(self) -> ssl.SSLContext | None:
        """What this process trusts of it."""
        return ssl.create_default_context(cafile=self.tls / "authority.pem") if self.lan else None

    def start(self, *, demo: bool, reload: bool = False) -> None:
        """Start database, web server and helpers; back when pages are answered."""
        self._one_purpose("demo" if demo else "serve")
        if self.lan:
            with stage("Certificate for this network"):
                self._certify()
        if not self.outside:
            with stage("MariaDB"):
                self.database.start()
        processes.end_remembered(self.folder / "web.pid.json")
        _check_port_free(self.port)
        url = self.outside or self.database.url(DATABASE)
        # The web server loads while the database is brought up to date; nobody is sent to it before that.
        with stage("Database up to date, demo data" if demo else "Database up to date"):
            if not self.outside:
                self.database.run_sql(f"CREATE DATABASE IF NOT EXISTS {DATABASE}")
            self.first_code = "" if demo else (self.first_code or secrets.token_hex(4))
            self._launch_web(url, reload=reload, demo=demo)
            self.empty = prepare(url, demo=self.token_file if demo else None, backups=self.backups)
        with stage("Web server"):
            self._wait_for_web()
        self._launch_devices(url, simulator=demo)
        if not demo:
            keeper = [PYTHON, "-m", "kumpan.tools.backup_keeper", str(self.backups)]
            self._launch("backups", keeper, environment(url))
        if self.lan:
            self._launch_trust_page()

    def _one_purpose(self, purpose: str) -> None:
        """A demo and somebody's own pools never share a data directory. Raises Stop."""
        mark = self.folder / "purpose"
        before = mark.read_text().strip() if mark.exists() else "demo" if self.token_file.exists() else ""
        if before and before != purpose:
            what = "a demo" if before == "demo" else "somebody's own pools"
            raise Stop(f"The data directory {self.folder} holds {what}; give --data another one for this.")
        self.folder.mkdir(parents=True, exist_ok=True)
        mark.write_text(purpose + "\n")

    def _certify(self) -> None:
        """A certificate for the names of this machine; they are then the ones that are served."""
        command = [PYTHON, "-m", "kumpan.tools.local_authority", str(self.tls)]
        done = subprocess.run(
            command, cwd=ROOT, env=environment(""), capture_output=True, text=True, check=False
        )
        if done.returncode != 0:
            raise Stop(f"The certificate could not be made:\n{done.stderr.strip()[-1000:]}")
        self.names = json.loads(done.stdout)

    def _launch_trust_page(self) -> None:
        """The page on plain http that tells phones how to trust this machine; its own port, nothing else."""
        port, name = free_port(), self.names[-1]
        address, page = f"https://{name}:{self.port}/", f"http://{name}:{port}/"
        arguments = [str(port), address, page, str(self.tls / "authority.pem")]
        self._launch("trust", [PYTHON, "-m", "kumpan.tools.trust_page", *arguments], environment(""))

    def _launch(self, name: str, command: list[str], around: Mapping[str, str]) -> None:
        processes.end_remembered(self.folder / f"{name}.pid.json")
        started = subprocess.Popen(command, cwd=ROOT, env=around, start_new_session=True)
        processes.remember(self.folder / f"{name}.pid.json", started.pid)
        self.helpers.append((name, started))
        self._helpers_commands[name] = (command, around)

    def _launch_web(self, url: str, *, reload: bool, demo: bool) -> None:
        command = [
            PYTHON,
            "-m",
            "uvicorn",
            "kumpan.web.main:create_app",
            "--factory",
            "--host",
            "0.0.0.0" if self.lan else "127.0.0.1",
            "--port",
            str(self.port),
            "--timeout-graceful-shutdown",
            "2",
            "--log-level",
            "warning",
            "--no-server-header",
            *self._transport(),
        ]
        # A terminal shows what went wrong; who wants a line for each request says KUMPAN_LOG_LEVEL=INFO.
        door = {"KUMPAN_LOG_LEVEL": os.environ.get("KUMPAN_LOG_LEVEL", "WARNING")}
        door |= {"KUMPAN_DEMO": "true" if demo else "false", "KUMPAN_FIRST_CODE": self.first_code}
        if self.names:
            door["KUMPAN_HOSTS"] = ",".join(self.names)
        if self.proxy:
            door["KUMPAN_STRICT_TRANSPORT"] = "true"
        if self.workers > 1 and not reload:
            counts = self.folder / "metrics"
            shutil.rmtree(counts, ignore_errors=True)
            counts.mkdir()
            door["PROMETHEUS_MULTIPROC_DIR"] = str(counts)
            command += ["--workers", str(self.workers)]
        if reload:
            command += ["--reload", "--reload-dir", str(ROOT / "src")]
        around = environment(url, more=door)

        def launch() -> None:
            self.web = subprocess.Popen(command, cwd=ROOT, env=around, start_new_session=True)
            processes.remember(self.folder / "web.pid.json", self.web.pid)

        self._relaunch = launch
        launch()

    def _transport(self) -> list[str]:
        """How the web server speaks. What a proxy says of the sender is believed only where there is one:
        else whoever sends a header would choose the address that attempts are counted for.
        """
        if self.proxy:
            return ["--proxy-headers", "--forwarded-allow-ips", "127.0.0.1"]
        if self.lan:
            files = [str(self.tls / "key.pem"), str(self.tls / "certificate.pem")]
            return ["--no-proxy-headers", "--ssl-keyfile", files[0], "--ssl-certfile", files[1]]
        return ["--no-proxy-headers"]

    def _launch_devices(self, url: str, *, simulator: bool) -> None:
        """The program that polls devices and, for the demo, the simulated one.

        The app runs on without them.
        """
        port = free_port() if simulator else None
        commands = {"poller": [PYTHON, "-m", "kumpan.devices.poller"]}
        if port is not None:
            commands["simulator"] = [
                PYTHON,
                "-m",
                "uvicorn",
                "kumpan.devices.simulator:app",
                "--host",
                "127.0.0.1",
                "--port",
                str(port),
                "--log-level",
                "warning",
            ]
        more = {"KUMPAN_PUBLIC_ADDRESS": os.environ.get("KUMPAN_PUBLIC_ADDRESS", self.address)}
        if port is not None:
            mailbox = str(free_port())
            more |= {
                "KUMPAN_MAIL_HOST": "127.0.0.1",
                "KUMPAN_MAIL_PORT": mailbox,
                "KUMPAN_MAILBOX_PORT": mailbox,
            }
            more |= {"KUMPAN_MAIL_TLS": "false", "KUMPAN_MAIL_EVERY_S": "3"}
            self.mailbox = simulator_url(port).replace("/controller", "/mailbox")
        for name, command in commands.items():
            self._launch(name, command, environment(url, port, more))

    def _end_helpers(self) -> None:
        for _, process in self.helpers:
            if process.poll() is None:
                os.killpg(process.pid, signal.SIGTERM)
        for name, process in self.helpers:
            try:
                process.wait(2)
            except subprocess.TimeoutExpired:
                os.killpg(process.pid, signal.SIGKILL)
                process.wait()
            (self.folder / f"{name}.pid.json").unlink(missing_ok=True)
        self.helpers.clear()

    def _wait_for_web(self) -> None:
        assert self.web is not None
        deadline = time.monotonic() + WEB_WITHIN_S
        while time.monotonic() < deadline:
            if self.web.poll() is not None:
                raise Stop("The web server ended at once; its message stands above.")
            if answers(f"{self.address}/api/health", self.trusted):
                return
            time.sleep(0.05)
        raise Stop(f"The web server did not answer within {WEB_WITHIN_S} s.")

    @property
    def as_office(self) -> dict[str, str]:
        """The header with which the demo's office asks."""
        return {"authorization": f"Bearer {self.token_file.read_text().strip()}"}

    def ask_as_office(self) -> None:
        """From now on whatever this process asks by urllib is asked by the demo's office."""
        opener = urllib.request.build_opener()
        opener.addheaders = list(self.as_office.items())
        urllib.request.install_opener(opener)

    def stop(self) -> None:
        """End the helpers, web server and database; well under five seconds even with a page open."""
        self._end_helpers()
        if self.web is not None and self.web.poll() is None:
            os.killpg(self.web.pid, signal.SIGTERM)
            try:
                self.web.wait(3)
            except subprocess.TimeoutExpired:
                os.killpg(self.web.pid, signal.SIGKILL)
                self.web.wait()
        (self.folder / "web.pid.json").unlink(missing_ok=True)
        self.database.stop(4)

    def wait(self, stopped: threading.Event) -> None:
        """Until asked to stop; a part that ends by itself is started again, at most five times a minute."""
        while not stopped.wait(0.2):
            if self.database.process is not None and self.database.process.poll() is not None:
                self._count_end("MariaDB")
                self.database.restart()
            if self.web is not None and self.web.poll() is not None:
                self._count_end("The web server")
                assert self._relaunch is not None
                self._relaunch()
            for name, ended in [(name, one) for name, one in self.helpers if one.poll() is not None]:
                self._count_end(f"The part {name}")
                self.helpers.remove((name, ended))
                self._launch(name, *self._helpers_commands[name])

    def _count_end(self, what: str) -> None:
        """Say that a part ended by itself and is started again. Raises Stop where that happens too often."""
        now = time.monotonic()
        self._ends = [at for at in self._ends if now - at < 60] + [now]
        if len(self._ends) > MOST_ENDS_A_MINUTE:
            raise Stop(f"{what} ended by itself {MOST_ENDS_A_MINUTE} times within a minute; see its log.")
        print(f"{what} ended by itself and is started again; what was saved is kept.", flush=True)


def answers(address: str, trusted: ssl.SSLContext | None = None) -> bool:
    """Whether an address answers well."""
    try:
        with urllib.request.urlopen(address, timeout=2, context=trusted) as reply:
            return bool(reply.status == 200)
    except OSError:
        return False


def _check_port_free(port: int) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            raise Stop(f"Port {port} is taken by another program; choose another with --port.") from None
