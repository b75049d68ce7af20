"""What is missing is installed once, and made again only when what it is made from changed."""

import gzip
import re
import threading
from importlib import metadata
from pathlib import Path

import pytest

from kumpan.tools import packages
from kumpan.tools.console import Stop


@pytest.fixture
def tree(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A small tree in place of the real one, in a folder with a space in its name; nothing is really run."""
    root = tmp_path / "a tree"
    (root / "frontend/src/api").mkdir(parents=True)
    (root / "frontend/node_modules").mkdir()
    (root / "frontend/package-lock.json").write_text("{}")
    (root / "frontend/src/api/openapi.json").write_text("{}")
    monkeypatch.setattr(packages, "ROOT", root)
    monkeypatch.setattr(packages, "FRONTEND", root / "frontend")
    monkeypatch.setattr(packages, "DIST", root / "frontend/dist")
    monkeypatch.setattr(packages, "OPENAPI", root / "frontend/src/api/openapi.json")
    monkeypatch.setattr(packages, "SCHEMA", root / "frontend/src/api/schema.ts")
    return root


@pytest.fixture
def ran(tree: Path, monkeypatch: pytest.MonkeyPatch) -> list[list[str]]:
    """The commands that would have been run."""
    commands: list[list[str]] = []

    def note(command: list[str], problem: str, folder: Path = tree) -> None:  # noqa: ARG001
        commands.append(command)
        if "openapi-typescript" in command:
            packages.SCHEMA.write_text("types")
        if "build" in command:
            (packages.DIST / "assets").mkdir(exist_ok=True, parents=True)
            (packages.DIST / "assets/index.js").write_text("a script")
            (packages.DIST / "assets/icon.png").write_text("a picture, packed by itself")

    monkeypatch.setattr(packages, "_run", note)
    return commands


def test_the_clients_types_are_made_once(tree: Path, ran: list[list[str]]) -> None:
    packages.ensure_client_types()
    packages.ensure_client_types()
    assert len(ran) == 1
    assert (tree / "frontend/src/api/schema.ts").read_text() == "types"


def test_the_clients_types_follow_the_document(tree: Path, ran: list[list[str]]) -> None:
    packages.ensure_client_types()
    (tree / "frontend/src/api/openapi.json").write_text('{"changed": true}')
    packages.ensure_client_types()
    assert len(ran) == 2


def test_types_that_somebody_removed_are_made_again(ran: list[list[str]]) -> None:
    packages.ensure_client_types()
    packages.SCHEMA.unlink()
    packages.ensure_client_types()
    assert len(ran) == 2


@pytest.mark.parametrize("name", ["src/App.tsx", "index.html", "vite.config.ts", "vite.pwa.ts", "public/worker.js", "package-lock.json", "../docs/guide/readings.md"])  # fmt: skip
def test_the_screens_are_built_again_when_an_input_changed(
    tree: Path, ran: list[list[str]], name: str
) -> None:
    packages.ensure_build()
    packages.ensure_build()
    assert len(ran) == 1
    file = tree / "frontend" / name
    file.parent.mkdir(exist_ok=True, parents=True)
    file.write_text("something new")
    packages.ensure_build()
    assert len(ran) == 2


@pytest.mark.usefixtures("ran")
def test_a_build_is_packed_for_browsers() -> None:
    packages.ensure_build()
    assert gzip.decompress((packages.DIST / "assets/index.js.gz").read_bytes()) == b"a script"
    assert not (packages.DIST / "assets/icon.png.gz").exists()


def test_a_note_beside_the_inputs_builds_nothing(tree: Path, ran: list[list[str]]) -> None:
    packages.ensure_build()
    (tree / "frontend/notes.md").write_text("not an input")
    packages.ensure_build()
    assert len(ran) == 1


def test_packages_are_installed_once_for_a_lock(
    tree: Path, ran: list[list[str]], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("shutil.which", lambda name: f"/usr/bin/{name}")
    packages.ensure_front_end()
    packages.ensure_front_end()
    assert len(ran) == 1
    (tree / "frontend/package-lock.json").write_text('{"lockfileVersion": 3}')
    packages.ensure_front_end()
    assert len(ran) == 2
    assert "--no-save" in ran[0], "the lock stays as it is"


def test_without_npm_it_says_what_to_install(ran: list[list[str]], monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("shutil.which", lambda name: None)  # noqa: ARG005
    with pytest.raises(Stop, match="Node 20 with npm"):
        packages.ensure_front_end()
    assert ran == []


def test_a_digest_knows_names_and_contents(tree: Path) -> None:
    one = tree / "one.txt"
    one.write_text("a")
    first = packages._digest_of(one)
    one.write_text("b")
    assert packages._digest_of(one) != first
    one.write_text("a")
    assert packages._digest_of(one) == first
    other = tree / "other.txt"
    other.write_text("a")
    assert packages._digest_of(other) != first


def test_a_folder_is_digested_whole_and_what_is_missing_counts_as_nothing(tree: Path) -> None:
    folder = tree / "frontend/src"
    first = packages._digest_of(folder)
    (folder / "deeper").mkdir()
    (folder / "deeper/file.ts").write_text("x")
    assert packages._digest_of(folder) != first
    assert packages._digest_of(folder, tree / "nowhere") == packages._digest_of(folder)


def test_two_installs_wait_for_each_other(tree: Path) -> None:
    """Two commands started at once: the second goes on when the first is through."""
    order: list[str] = []
    inside, leave = threading.Event(), threading.Event()

    def first() -> None:
        with packages.install_lock():
            order.append("first in")
            inside.set()
            leave.wait(10)
            order.append("first out")

    def second() -> None:
        inside.wait(10)
        with packages.install_lock():
            order.append("second in")

    threads = [threading.Thread(target=first), threading.Thread(target=second)]
    for thread in threads:
        thread.start()
    inside.wait(10)
    leave.set()
    for thread in threads:
        thread.join(10)
    assert order == ["first in", "first out", "second in"]
    assert (tree / ".run/install.lock").exists()


def test_missing_debian_packages_are_told_to_who_may_not_install(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    """One line to type, and nothing tried behind anybody's back."""
    monkeypatch.setattr(packages, "DEBIAN", {"mariadb-server-core": tmp_path / "no such file"})
    monkeypatch.setattr(packages, "_has_venv", lambda: True)
    monkeypatch.setattr(packages, "_root_prefix", lambda: None)
    with pytest.raises(Stop, match="sudo sh -c 'apt-get update && apt-get install -y"):
        packages.ensure_debian()


def test_what_is_there_is_not_installed_again(
    monkeypatch: pytest.MonkeyPatch, ran: list[list[str]], tmp_path: Path
) -> None:
    there = tmp_path / "mariadbd"
    there.write_text("")
    monkeypatch.setattr(packages, "DEBIAN", {"mariadb-server-core": there})
    monkeypatch.setattr(packages, "_has_venv", lambda: True)
    packages.ensure_debian()
    assert ran == []


def test_nothing_is_installed_here_that_the_lock_does_not_name() -> None:
    """A package put in by hand makes a check pass here that fails on a fresh machine."""
    root = Path(__file__).resolve().parents[2]
    lock = (root / "requirements/dev.txt").read_text()
    locked = {canonical(line.partition("==")[0]) for line in lock.splitlines() if "==" in line.split(" ")[0]}
    installed = {canonical(found.metadata["Name"]) for found in metadata.distributions()}
    assert installed - locked <= {"pip", "setuptools", "kumpan"}


def canonical(name: str) -> str:
    """PEP 503's spelling of a package's name."""
    return re.sub(r"[-_.]+", "-", name).lower()
