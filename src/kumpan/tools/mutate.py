"""`./run mutate`: break the core on purpose and see which breaks no test notices.

A seeded sample of the core's modules is mutated by mutmut, each against the tests that lie where it lies.
What survives is printed; it is a place where a test is missing, or where two ways of writing mean the same.
"""

import argparse
import os
import random
import shutil
import subprocess
import tempfile
from collections.abc import Sequence
from pathlib import Path

from kumpan.tools.console import stage
from kumpan.tools.packages import ROOT, VENV

CORE = Path("src/kumpan/core")
NEEDED = ("src", "tests", "pyproject.toml")
TABLES = "\n[tool.mutmut]\nsource_paths = [{source!r}]\npytest_add_cli_args_test_selection = {tests}\nalso_copy = {also}\n"


def with_tests() -> dict[Path, list[Path]]:
    """Every module of the core that has tests of its own, with these; paths from the root."""
    found: dict[Path, list[Path]] = {}
    for module in sorted((ROOT / CORE).rglob("*.py")):
        relative = module.relative_to(ROOT / "src/kumpan")
        tests = sorted((ROOT / "tests" / relative.parent).glob(f"test_{module.stem}*.py"))
        if tests:
            found[module.relative_to(ROOT)] = [path.relative_to(ROOT) for path in tests]
    return found


def sample(known: Sequence[Path], seed: int, modules: int) -> list[Path]:
    """The same seed draws the same modules."""
    return sorted(random.Random(seed).sample(list(known), min(modules, len(known))))


def survivors(module: Path, tests: Sequence[Path]) -> tuple[list[str], int]:
    """Names of the mutants that lived, and how many there were."""
    with tempfile.TemporaryDirectory(prefix="kumpan mutants ") as folder:
        for name in NEEDED:
            source = ROOT / name
            copy = shutil.copytree if source.is_dir() else shutil.copy
            copy(source, Path(folder) / name)
        table = TABLES.format(source=str(module), tests=[str(path) for path in tests], also=list(NEEDED))
        with (Path(folder) / "pyproject.toml").open("a") as config:
            config.write(table)
        mutmut = str(VENV / "bin/mutmut")
        environment = {**os.environ, "PYTHONDONTWRITEBYTECODE": "1"}
        ran = subprocess.run(
            [mutmut, "run"], cwd=folder, env=environment, check=False, capture_output=True, text=True
        )
        told = subprocess.run(
            [mutmut, "results", "--all", "true"],
            cwd=folder,
            env=environment,
            check=False,
            capture_output=True,
            text=True,
        ).stdout
    rows = [line.strip().split(": ") for line in told.splitlines() if "__mutmut_" in line]
    if not rows:
        raise RuntimeError(f"mutmut made nothing of {module}: {ran.stdout[-400:]}{ran.stderr[-400:]}")
    return [name for name, standing in rows if standing in ("survived", "no tests")], len(rows)


def main(arguments: Sequence[str] | None = None) -> None:
    """Mutate a seeded sample of modules and print the survivors; the exit code."""
    top = argparse.ArgumentParser(prog="./run mutate", description=__doc__)
    top.add_argument("--seed", type=int, default=1, help="which modules are drawn")
    top.add_argument("--modules", type=int, default=3, help="how many modules")
    given = top.parse_args(arguments)
    known = with_tests()
    for module in sample(list(known), given.seed, given.modules):
        with stage(str(module)):
            lived, made = survivors(module, known[module])
        print(f"{made - len(lived)} of {made} mutants were noticed; these were not:")
        print("\n".join(f"  {name}" for name in lived) or "  none")


if __name__ == "__main__":
    main()
