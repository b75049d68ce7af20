"""The files of `deploy/` name what is there, and the programs they are for take them."""

import re
import subprocess
from typing import Any

import pytest
import yaml

from kumpan.tools.packages import ROOT

DEPLOY = ROOT / "deploy"


def test_haproxy_takes_its_file() -> None:
    """The trial of the cluster runs with it; its checker and names stand as delivered here."""
    done = subprocess.run(
        ["/usr/sbin/haproxy", "-c", "-f", str(DEPLOY / "haproxy.cfg")],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr


def test_the_image_copies_what_is_there_and_starts_the_app() -> None:
    text = (DEPLOY / "Containerfile").read_text()
    for line in re.findall(r"^COPY (?!--from)(.+)$", text, re.MULTILINE):
        *sources, _ = line.split()
        for source in sources:
            assert (ROOT / source).exists(), source
    assert "kumpan.web.main:create_app" in text
    assert "\nUSER kumpan\n" in text


@pytest.fixture(scope="module")
def services() -> dict[str, Any]:
    """The services of the compose file."""
    found: dict[str, Any] = yaml.safe_load((DEPLOY / "compose.yaml").read_text())["services"]
    return found


def test_the_app_waits_for_a_database_that_was_brought_up_to_date(services: dict[str, Any]) -> None:
    assert set(services) == {"database", "prepare", "web"}
    assert services["web"]["depends_on"]["prepare"]["condition"] == "service_completed_successfully"
    assert services["database"]["image"].endswith("mariadb:10.11")
    assert services["web"]["ports"] == ["127.0.0.1:8000:8000"]  # TLS ends in front of it
    for service in ("prepare", "web"):
        assert (
            DEPLOY / services[service]["build"]["context"] / services[service]["build"]["dockerfile"]
        ).exists()


def test_every_setting_that_is_named_is_one() -> None:
    named = set(re.findall(r"KUMPAN_[A-Z_]+", "".join(file.read_text() for file in DEPLOY.iterdir())))
    known = "".join(file.read_text() for file in (ROOT / "src").rglob("*.py"))
    assert named, "no setting is named"
    assert {
        name for name in named if name not in known and name.removeprefix("KUMPAN_").lower() not in known
    } == set()
