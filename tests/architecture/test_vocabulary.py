"""Names are the field's standard terms, and tests lie where what they test lies."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from kumpan.tools.packages import ROOT

SOURCE = ROOT / "src/kumpan"
TESTS = ROOT / "tests"
# The private language of the first version; docs/glossary.md says what each is called now.
OLD = frozenset(
    [
        "school",
        "schools",
        "lane",
        "lanes",
        "slip",
        "look",
        "looks",
        "sheet",
        "sheets",
        "tick",
        "ticks",
        "ticked",
        "deck",
        "sign",
        "signs",
        "bench",
        "shelf",
        "habits",
        "telling",
        "asked",
        "swarm",
        "told",
        "kept",
        "doubt",
        "way",
        "ways",
        "working",
        "standin",
    ]
)
# Stored names and public routes keep the words they were born with; `bench` is what measures our speed.
MAY_KEEP_THEM = ("web", "tools", "storage/wire")
NOT_MIRRORED = ("architecture", "browser", "published", "stored_forms")


def words(name: str) -> frozenset[str]:
    return frozenset(word.lower() for word in re.findall(r"[A-Z]?[a-z]+|[A-Z]+(?![a-z])", name))


def names(tree: ast.AST) -> Iterator[str]:
    """Of classes, functions, their parameters, and attributes."""
    for node in ast.walk(tree):
        if isinstance(node, ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef):
            yield node.name
        elif isinstance(node, ast.arg):
            yield node.arg
        elif isinstance(node, ast.AnnAssign) and isinstance(node.target, ast.Name):
            yield node.target.id


def modules() -> Iterator[tuple[str, Path]]:
    for path in sorted(SOURCE.rglob("*.py")):
        yield path.relative_to(SOURCE).as_posix(), path


def test_code_speaks_the_fields_standard_terms() -> None:
    found = []
    for relative, path in modules():
        if relative.startswith(MAY_KEEP_THEM):
            continue
        told = [path.stem, *names(ast.parse(path.read_text()))]
        found += [f"{relative}: {name}" for name in told if words(name) & OLD]
    assert found == []


def test_the_glossary_names_what_is_there() -> None:
    """Each name and file in its middle column exists."""
    code = "\n".join(path.read_text() for _, path in modules())
    missing = []
    for row in (ROOT / "docs/glossary.md").read_text().splitlines():
        if not row.startswith("| ") or row.startswith(("| on the screen", "|---")):
            continue
        for name in re.findall(r"`([^`]+)`", row.split("|")[2]):
            is_file = "/" in name
            there = (SOURCE / name).exists() or (ROOT / "frontend/src" / name).exists()
            if not (there if is_file else name.rpartition(".")[2] in code):
                missing.append(name)
    assert missing == []


def test_tests_lie_where_what_they_test_lies() -> None:
    """`tests/core/forecast/test_fit*.py` for `core/forecast/fit.py`: the file begins with a module's name."""
    lost = []
    for path in sorted(TESTS.rglob("test_*.py")):
        relative = path.relative_to(TESTS)
        if relative.parts[0] in NOT_MIRRORED:
            continue
        stem, folder = path.stem.removeprefix("test_").split("_"), SOURCE / relative.parent
        known = ("_".join(stem[:n]) for n in range(len(stem), 0, -1))
        if not any((folder / f"{name}.py").exists() or (folder / name).is_dir() for name in known):
            lost.append(relative.as_posix())
    assert lost == []


def test_answers_are_kept_in_one_place_only() -> None:
    """services/cache.py: nothing else above the core keeps answers by a key of its own making."""
    found = [
        relative
        for relative, path in modules()
        if relative.startswith(("services", "web", "storage"))
        and re.search(r"\b(lru_cache|functools\.cache|TTLCache)\b", path.read_text())
    ]
    assert found == []
