"""The commands of `./run`."""

import argparse
import contextlib
import os
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Mapping, Sequence
from pathlib import Path
from types import MappingProxyType

from kumpan.tools import checking
from kumpan.tools.console import Stop, stage, stop
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.packages import FRONTEND, ROOT, VENV, ensure_all
from kumpan.tools.serving import DATABASE, Running, environment

OF_A_FILE = {
    "backup": "kumpan.tools.backup_command",
    "restore": "kumpan.tools.backup_command",
    "export": "kumpan.tools.archive_command",
    "import": "kumpan.tools.archive_command",
}
LOAD = {"pools": 200, "years": 1, "clients": 50, "seconds": 60, "workers": 1}


def parser() -> argparse.ArgumentParser:
    """The commands and their options."""
    top = argparse.ArgumentParser(prog="./run", description="Kumpan, a poolside companion.")
    commands = top.add_subparsers(dest="command", required=True)
    for name, help_ in (
        ("demo", "install what is missing, load demo data, serve"),
        ("serve", "serve without demo data"),
        ("dev", "serve with hot reload, front end on port + 1"),
    ):
        command = commands.add_parser(name, help=help_)
        command.add_argument("--port", type=int, default=8000)
        command.add_argument("--data", type=Path, help="data directory (default: data/PORT)")
        command.add_argument("--lan", action="store_true", help="on the local network, with TLS of its own")
        command.add_argument(
            "--workers", type=int, default=1, help="web processes (an outside database: KUMPAN_DATABASE_URL)"
        )
        command.add_argument(
            "--proxy", action="store_true", help="behind a proxy of this machine that ends TLS (KUMPAN_HOSTS)"
        )
    test = commands.add_parser("test", help="lint, types, import rules, core, API, browser")
    test.add_argument("pytest_arguments", nargs=argparse.REMAINDER, help="only these tests")
    commands.add_parser("bench", help="speed, as ratios in one run")
    commands.add_parser(
        "study", help="the chlorine forecast and rescues on simulated pools; the tables go into docs"
    )
    load = commands.add_parser("loadtest", help="many pools, many clients: rates, times, errors, memory")
    for name, usual in LOAD.items():
        load.add_argument(f"--{name}", type=int, default=usual)
    cluster = commands.add_parser(
        "cluster", help="three database nodes and two web processes behind HAProxy, on loopback"
    )
    cluster.add_argument("--trial", action="store_true", help="kill parts in the middle of writes")
    commands.add_parser("shots", help="make the pictures of docs/screenshots from the demo data")
    client = commands.add_parser("client", help="a Python client of the API, generated into a folder")
    client.add_argument("folder", type=Path, help="where the package kumpan_client comes to stand")
    commands.add_parser("examples", help="record an example for each route from the tests of the API")
    commands.add_parser("generate", help="write the OpenAPI document and the client's types again")
    mutate = commands.add_parser(
        "mutate", help="break a seeded sample of the core; which breaks go unnoticed?"
    )
    mutate.add_argument("--seed", type=int, default=1, help="which modules are drawn")
    mutate.add_argument("--modules", type=int, default=3, help="how many")
    commands.add_parser("answers", help="record the answers that the tests of the screens render")
    _with_data(commands)
    commands.add_parser("messages", help="gather all templates for translators")
    return top


def _with_data(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """The commands on what is stored: people, backups, files."""
    users = commands.add_parser(
        "users", help="list people, make a link for a new password, a second workspace"
    )
    users.add_argument("--port", type=int, default=8000)
    users.add_argument("--data", type=Path, help="data directory (default: data/PORT)")
    users.add_argument("words", nargs="*", help="list | reset LOGIN | workspace NAME OFFICE")
    for name, help_ in (
        ("backup", "write all data into a file, checked by loading it into a server of its own"),
        ("restore", "put a backup in the place of what is there; that is kept as a backup itself"),
        ("export", "write the workspace into one file of open formats"),
        ("import", "bring such a file, or a pool's journal, in"),
    ):
        command = commands.add_parser(name, help=help_)
        like = "kumpan.sql.gz" if name in ("backup", "restore") else "workspace.zip"
        command.add_argument("file", type=Path, help=f"like {like}")
        command.add_argument("--port", type=int, default=8000)
        command.add_argument("--data", type=Path, help="data directory (default: data/PORT)")


def main(arguments: list[str]) -> int:
    """Run one command; the exit code."""
    given = parser().parse_args(arguments)
    try:
        if given.command in ("demo", "serve", "dev"):
            _serve(given)
        elif given.command == "test":
            ensure_all(dev=True)
            checking.run_all(given.pytest_arguments)
        elif given.command == "users":
            ensure_all(dev=False)
            _users(given)
        elif given.command in OF_A_FILE:
            ensure_all(dev=False)
            where = [given.command, str(_folder(given)), str(given.file.absolute())]
            _own_program(OF_A_FILE[given.command], where)
        else:
            ensure_all(dev=True)
            module = {
                "answers": "kumpan.tools.answers",
                "loadtest": "kumpan.tools.loadtest",
                "cluster": "kumpan.tools.cluster",
                "bench": "kumpan.tools.bench",
                "study": "kumpan.tools.study",
                "shots": "kumpan.tools.shots",
                "generate": "kumpan.tools.generate",
                "client": "kumpan.tools.client",
                "examples": "kumpan.tools.api_examples",
                "messages": "kumpan.tools.messages",
                "mutate": "kumpan.tools.mutate",
            }
            _own_program(module[given.command], _words_of(given))
    except Stop as reason:
        return stop(str(reason))
    except KeyboardInterrupt:
        return 130
    return 0


def _words_of(given: argparse.Namespace) -> list[str]:
    """What a command hands on to its own program."""
    if given.command == "loadtest":
        return [text for name in LOAD for text in (f"--{name}", str(getattr(given, name)))]
    if given.command == "client":
        return [str(given.folder.absolute())]
    if given.command == "cluster":
        return ["--trial"] if given.trial else []
    if given.command == "mutate":
        return ["--seed", str(given.seed), "--modules", str(given.modules)]
    return []


def console() -> int:
    """The installed command, `kumpan`: the same as ./run, in a checkout of the project."""
    return main(sys.argv[1:])


def _own_program(
    module: str, arguments: Sequence[str], more: Mapping[str, str] = MappingProxyType({})
) -> None:
    around = {**os.environ, "PYTHONPATH": str(ROOT / "src"), **more}
    if subprocess.run(
        [str(VENV / "bin/python"), "-m", module, *arguments], cwd=ROOT, env=around, check=False
    ).returncode:
        raise Stop(f"{module} failed; see above.")


def _folder(given: argparse.Namespace) -> Path:
    """The data directory that is meant."""
    folder: Path = (given.data or ROOT / "data" / str(given.port)).absolute()
    return folder


def _users(given: argparse.Namespace) -> None:
    """With the database of a Kumpan that runs, else with one started for this alone."""
    database = MariaDbServer(_folder(given))
    with contextlib.suppress(Stop):  # it runs already
        database.start()
    try:
        _own_program("kumpan.tools.users", given.words, environment(database.url(DATABASE)))
    finally:
        if database.process is not None:
            database.stop()


def _serve(given: argparse.Namespace) -> None:
    started = time.monotonic()
    stopped = threading.Event()
    for signal_number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(signal_number, lambda *_: stopped.set())
    ensure_all(dev=given.command == "dev")
    running = Running(given.port, _folder(given), lan=given.lan, proxy=given.proxy, workers=given.workers)
    hot: subprocess.Popen[bytes] | None = None
    try:
        running.start(demo=given.command == "demo", reload=given.command == "dev")
        if given.command == "dev":
            hot = _hot_front_end(given.port)
        print(
            f"Kumpan is at {running.address} (ready after {time.monotonic() - started:.1f} s). Ctrl-C "
            f"ends it.",
            flush=True,
        )
        if running.empty:
            print(
                f"Nobody can sign in yet. Open it and type this code to be the first: {running.first_code}",
                flush=True,
            )
        if given.command == "demo":
            print(f"A token of the demo's office for other programs: {running.token_file}", flush=True)
            print(f"The demo's mailbox, where its mail arrives: {running.mailbox}", flush=True)
        running.wait(stopped)
    finally:
        with stage("Stopping"):
            if hot is not None:
                os.killpg(hot.pid, signal.SIGTERM)
            running.stop()


def _hot_front_end(port: int) -> subprocess.Popen[bytes]:
    environment = {**os.environ, "KUMPAN_API": f"http://127.0.0.1:{port}"}
    command = ["npx", "vite", "--host", "127.0.0.1", "--port", str(port + 1)]
    print(f"Hot reload at http://127.0.0.1:{port + 1}", flush=True)
    return subprocess.Popen(command, cwd=FRONTEND, env=environment, start_new_session=True)
