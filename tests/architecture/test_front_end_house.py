"""House rules of the front end: who imports whom, where colors and requests live, and no rule of the job in
it.
"""

import json
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.readings import Measure
from kumpan.tools.packages import FRONTEND, SCHEMA

SRC = FRONTEND / "src"
IMPORT = re.compile(r"from \"(\.[^\"]+)\"")
LONGEST = 330


def files() -> Iterator[tuple[Path, str]]:
    for path in sorted(SRC.rglob("*.ts*")):
        if path != SCHEMA and ".test." not in path.name:
            yield path, path.read_text()


def layer(path: Path) -> str:
    return path.relative_to(SRC).parts[0]


def targets(path: Path, text: str) -> Iterator[Path]:
    for name in IMPORT.findall(text):
        yield (path.parent / name).resolve()


def said(path: Path) -> str:
    return str(path.relative_to(SRC))


@pytest.mark.parametrize(
    ("below", "above"),
    [
        ("lib", {"components", "features", "app"}),
        ("theme", {"components", "features", "app", "api"}),
        ("api", {"features", "app"}),
        ("components", {"forms", "features", "app"}),
        ("forms", {"features", "app"}),
        ("features", {"app"}),
    ],
)
def test_nothing_reaches_up(below: str, above: set[str]) -> None:
    wrong = [
        f"{said(path)} -> {target.name}"
        for path, text in files()
        if layer(path) == below
        for target in targets(path, text)
        if target.is_relative_to(SRC) and layer(target) in above
    ]
    assert wrong == []


def test_features_never_import_each_other() -> None:
    wrong = []
    for path, text in files():
        if layer(path) != "features":
            continue
        own = path.relative_to(SRC).parts[1]
        for target in targets(path, text):
            parts = target.relative_to(SRC).parts
            if parts[0] == "features" and parts[1] != own:
                wrong.append(f"{said(path)} -> {'/'.join(parts)}")
    assert wrong == []


def test_requests_are_made_in_one_place() -> None:
    wrong = [
        said(p) for p, text in files() if layer(p) != "api" and re.search(r"\bfetch\(|XMLHttpRequest", text)
    ]
    assert wrong == []


def test_colors_stand_in_the_theme_alone() -> None:
    """So that sun, dusk and paper change them all at once."""
    color = re.compile(r"(?<!href=\")#[0-9a-fA-F]{3,8}\b|\brgba?\(|\bhsla?\(")
    wrong = [said(p) for p, text in files() if layer(p) != "theme" and color.search(text)]
    assert wrong == []


def test_nothing_is_any_and_no_check_is_switched_off() -> None:
    loose = re.compile(r":\s*any\b|\bas any\b|<any>|@ts-ignore|@ts-expect-error|@ts-nocheck|biome-ignore-all")
    assert [said(p) for p, text in files() if loose.search(text)] == []


def test_no_chemical_is_reckoned_with_on_the_screen() -> None:
    """Rules of the trade are Python: the screen names no chemical of the catalog by its key.

    A product's form names what can stand on a shelf; the borate plan is asked for by one of its two products.
    """
    chosen = {"boric_acid", "borax"}
    names = set(CATALOGUE) - {measure.value for measure in Measure} - chosen
    keys = re.compile(r"\b(" + "|".join(map(re.escape, sorted(names))) + r")\b")
    allowed = {"features/products", "api"}
    wrong = [
        f"{said(path)}: {found.group()}"
        for path, text in files()
        if not any(said(path).startswith(name) for name in allowed) and (found := keys.search(text))
    ]
    assert wrong == []


def test_no_file_is_so_long_that_a_reader_is_lost() -> None:
    assert [said(path) for path, text in files() if len(text.splitlines()) > LONGEST] == []


def test_nothing_is_loaded_from_elsewhere() -> None:
    """Fonts, icons, styles and scripts ship with it: the page names no address but its own."""
    address = re.compile(r"https?://(?!www\.w3\.org|127\.0\.0\.1|localhost|kumpan\b)")
    pages = [FRONTEND / "index.html", *SRC.rglob("*.ts*"), *SRC.rglob("*.css")]
    assert [str(page) for page in pages if page != SCHEMA and address.search(page.read_text())] == []


def test_every_package_is_pinned_to_one_version() -> None:
    package = json.loads((FRONTEND / "package.json").read_text())
    versions = {**package["dependencies"], **package["devDependencies"]}
    assert all(re.fullmatch(r"\d+\.\d+\.\d+", version) for version in versions.values())


def test_the_lock_names_no_registry() -> None:
    lock = json.loads((FRONTEND / "package-lock.json").read_text())
    assert not any("resolved" in entry for entry in lock["packages"].values())
    assert sum("integrity" in entry for entry in lock["packages"].values()) > 100


def test_the_pins_of_python_carry_their_hashes() -> None:
    for name in ("app", "dev"):
        text = (FRONTEND.parent / f"requirements/{name}.txt").read_text()
        pins = re.findall(r"^([\w.\[\]-]+)==[\w.]+", text, re.MULTILINE)
        assert len(pins) > 10
        assert text.count("--hash=sha256:") >= len(pins)
        assert "://" not in text


NO_COMPONENT = {
    "app/start.tsx",
    "app/router.tsx",
}  # they put the app together; Shell.test.tsx loads every station


def test_every_component_has_a_test_that_renders_it() -> None:
    """Beside it, under its name, and importing it."""
    bare = []
    for path, _ in files():
        if path.suffix != ".tsx" or said(path) in NO_COMPONENT or layer(path) == "testing":
            continue
        test = path.with_suffix(".test.tsx")
        if (
            not test.exists()
            or f'from "./{path.stem}"' not in test.read_text()
            or "render(" not in test.read_text()
        ):
            bare.append(said(path))
    assert bare == []


def test_every_form_is_made_with_the_kit() -> None:
    """One place that sends, says what was refused at its field, and keeps what was typed."""
    own = [said(path) for path, text in files() if "<form" in text and said(path) != "forms/kit.tsx"]
    assert own == []


def test_what_is_sent_goes_through_the_generated_client() -> None:
    bare = [
        said(path)
        for path, text in files()
        if re.search(r"\bfetch\(", text) and said(path) not in ("api/client.ts", "testing/server.ts")
    ]
    assert bare == []
