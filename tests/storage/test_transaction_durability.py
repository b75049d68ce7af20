"""What was answered as saved is there after `kill -9` of the app or of MariaDB."""

import json
import os
import signal
import subprocess
import time
import urllib.request
from pathlib import Path
from uuid import uuid4

import pytest

from kumpan.tools.mariadb_server import START_SECONDS
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running
from tests.web.conftest import pool_body


def post(running: Running, path: str, body: object) -> object:
    headers = {"content-type": "application/json", **running.as_office}
    request = urllib.request.Request(f"{running.address}/api/v1{path}", json.dumps(body).encode(), headers)
    with urllib.request.urlopen(request, timeout=10) as reply:
        return json.load(reply)


@pytest.mark.parametrize("victim", ["web", "database"])
def test_saved_means_saved(tmp_path: Path, victim: str) -> None:
    port = free_port()
    running = Running(port, tmp_path / "data")
    again = Running(port, tmp_path / "data")
    try:
        running.start(demo=True)
        pool_id = str(uuid4())
        post(running, "/pools", pool_body(pool_id))
        body = {"id": str(uuid4()), "fields": {"ph": "7.4"}}
        post(running, f"/pools/{pool_id}/tests", body)
        process = running.web if victim == "web" else running.database.process
        assert process is not None
        os.kill(process.pid, signal.SIGKILL)
        process.wait()
        running.stop()
        again.start(demo=True)
        log = f"{again.address}/api/v1/pools/{pool_id}/log"
        with urllib.request.urlopen(
            urllib.request.Request(log, headers=again.as_office), timeout=10
        ) as reply:
            assert body["id"] in {line["id"] for line in json.load(reply)}
    finally:
        running.stop()
        again.stop()


def test_an_orphan_is_ended_and_a_second_server_is_told_at_once(tmp_path: Path) -> None:
    from kumpan.tools.console import Stop
    from kumpan.tools.mariadb_server import MariaDbServer
    from kumpan.tools.processes import start_time

    first = MariaDbServer(tmp_path)
    first.start(durable=False)
    assert first.process is not None
    orphan = first.process.pid
    began = time.monotonic()
    with pytest.raises(Stop, match="in use by another Kumpan"):
        MariaDbServer(tmp_path).start()
    assert time.monotonic() - began < START_SECONDS / 2, "it is told, not waited for"
    # As after kill -9 of ./run: the lock is gone, the server still runs.
    assert first._lock is not None
    first._lock.close()
    second = MariaDbServer(tmp_path)
    try:
        second.start(durable=False)
        assert start_time(orphan) is None
    finally:
        second.stop()
        first.stop()


def test_another_process_with_a_reused_id_is_left_alone(tmp_path: Path) -> None:
    from kumpan.tools.processes import end_remembered

    with subprocess.Popen(["sleep", "60"]) as other:
        file = tmp_path / "pid.json"
        file.write_text(json.dumps({"pid": other.pid, "start_time": "1"}))
        assert end_remembered(file) is False
        assert other.poll() is None
        other.kill()
