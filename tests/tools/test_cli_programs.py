"""What `./run` does: commands, processes known by id and start time, stages in their order."""

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

from kumpan.tools import checking, processes
from kumpan.tools.cli import parser
from kumpan.tools.console import Stop
from kumpan.tools.packages import ROOT
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running, environment, simulator_url

SLEEPS = [
    sys.executable,
    "-c",
    "import signal, time; signal.signal(signal.SIGTERM, signal.SIG_DFL); time.sleep(60)",
]


def test_every_command_is_known_and_a_wrong_one_is_told(capsys: pytest.CaptureFixture[str]) -> None:
    known = parser()
    for command in ("demo", "serve", "dev", "test", "bench", "study", "shots", "generate"):
        assert known.parse_args([command]).command == command
    assert known.parse_args(["demo", "--port", "8123", "--data", "x y"]).data == Path("x y")
    with pytest.raises(SystemExit):
        known.parse_args(["swim"])
    assert "invalid choice" in capsys.readouterr().err


def test_the_checks_run_from_cheap_to_dear_and_some_tests_can_be_run_alone() -> None:
    names = [name for name, _, _ in checking.stages([])]
    assert names[0] == "Lint"
    assert names[-6:] == ["Core", "Seasons", "API", "All others", "Browser", "Cluster"]
    assert {"Types", "Import rules", "Front-end types", "Front-end units"} <= set(names)
    commands = {name: command for name, command, _ in checking.stages([])}
    left_to_others = [
        part.removeprefix("--ignore=") for part in commands["All others"] if "--ignore=" in part
    ]
    elsewhere = [*commands["Core"], *commands["API"], *commands["Browser"]]
    assert set(left_to_others) == {part for part in elsewhere if part.startswith("tests/")}
    left_out = {part.removeprefix("--ignore=") for part in commands["Core"] if "--ignore=" in part}
    assert left_out == {part for part in commands["Seasons"] if part.startswith("tests/")}
    assert set(checking.SIDE_BY_SIDE) == set(names[: len(checking.SIDE_BY_SIDE)])
    alone = checking.stages(["tests/core"])
    assert len(alone) == 1
    assert alone[0][1][-1] == "tests/core"


def test_what_failed_beside_another_is_shown_whole(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def failing(extra: list[str]) -> list[checking.Stage]:
        lint = [sys.executable, "-c", "print('line 3 is too long'); raise SystemExit(1)"]
        return [("Lint", lint, tmp_path), ("Core", [sys.executable, "-c", *extra], tmp_path)]

    monkeypatch.setattr(checking, "stages", failing)
    with pytest.raises(Stop, match="Lint: failed"):
        checking.run_all(["print('never run')"])
    said = capsys.readouterr().out
    assert "line 3 is too long" in said
    assert "Core ..." not in said


def test_a_remembered_process_is_ended_and_only_that_one(tmp_path: Path) -> None:
    file = tmp_path / "a process.json"
    process = subprocess.Popen(SLEEPS)
    processes.remember(file, process.pid)
    assert processes.end_remembered(file, 5.0)
    assert processes.start_time(process.pid) is None
    assert not file.exists()
    assert not processes.end_remembered(file)
    process.wait()


def test_an_id_that_another_process_has_by_now_is_left_alone(tmp_path: Path) -> None:
    file = tmp_path / "reused.json"
    process = subprocess.Popen(SLEEPS)
    file.write_text(json.dumps({"pid": process.pid, "start_time": "1"}))
    assert not processes.end_remembered(file)
    assert processes.start_time(process.pid) is not None
    process.kill()
    process.wait()


@pytest.mark.parametrize("text", ["", "not json", "[]", "{}", "7"])
def test_a_torn_file_of_a_process_stops_nobody(tmp_path: Path, text: str) -> None:
    file = tmp_path / "torn.json"
    file.write_text(text)
    assert not processes.end_remembered(file)


def test_our_own_programs_get_their_addresses_by_the_environment() -> None:
    given = environment("mariadb+asyncmy://x", 9123)
    assert given["KUMPAN_DATABASE_URL"] == "mariadb+asyncmy://x"
    assert given["KUMPAN_SIMULATOR_URL"] == simulator_url(9123) == "http://127.0.0.1:9123/controller"
    assert given["PYTHONPATH"] == str(ROOT / "src")
    assert "KUMPAN_SIMULATOR_URL" not in {k for k in environment("x") if k not in os.environ}


def test_a_free_port_is_free_and_on_loopback() -> None:
    assert 1024 < free_port() < 65536
    assert free_port() != 0


def test_all_that_was_started_is_ended(tmp_path: Path) -> None:
    """Web server, database, poller and stand-in: none is left, and their notes are gone."""
    running = Running(free_port(), tmp_path / "with a space")
    try:
        running.start(demo=True)
        started = [process.pid for _, process in running.helpers]
        assert len(started) == 2
        assert running.web is not None
        started.append(running.web.pid)
        assert all(processes.start_time(pid) is not None for pid in started)
    finally:
        running.stop()
    assert all(processes.start_time(pid) is None for pid in started)
    assert not list((tmp_path / "with a space").glob("*.pid.json"))
