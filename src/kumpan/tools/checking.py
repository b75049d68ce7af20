"""`./run test`: every check, each stage named with its time; the first red one ends it."""

import os
import subprocess
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from kumpan.tools.console import Stop, stage
from kumpan.tools.packages import FRONTEND, ROOT, VENV

BIN = VENV / "bin"
# What is not run is not known to work: the rules and the use cases are measured by their own tests. Counting
# lines elsewhere, where whole seasons are played and in the few long tests marked `no_cover` would double the
# minutes and find the same.
PLAYED = ["tests/core/training", "tests/core/simulation"]
RULES = ["--cov=kumpan.core", "--cov-report=term:skip-covered", "--cov-fail-under=90", "tests/core"]
RULES += [f"--ignore={folder}" for folder in PLAYED]
ROUTES = ["tests/services", "tests/web/routers"]
USE_CASES = ["--cov=kumpan.services", "--cov-report=term:skip-covered", "--cov-fail-under=90", *ROUTES]
OTHERS = ["tests", *(f"--ignore={folder}" for folder in ("tests/core", "tests/browser", *ROUTES))]

# They only read, and each keeps one core busy: two at a time.
SIDE_BY_SIDE = ("Lint", "Format", "Types", "Import rules", "Front-end lint", "Front-end types")

Stage = tuple[str, list[str], Path]


def stages(extra: list[str]) -> list[Stage]:
    """Name, command and folder of each stage of the checks."""
    pytest = [str(BIN / "python"), "-m", "pytest", "-q"]
    workers = ["-n", str(max(2, os.cpu_count() or 2))]
    if extra:
        return [("Tests", [*pytest, *extra], ROOT)]
    return [
        ("Lint", [str(BIN / "ruff"), "check", "."], ROOT),
        ("Format", [str(BIN / "ruff"), "format", "--check", "."], ROOT),
        ("Types", [str(BIN / "mypy")], ROOT),
        ("Import rules", [str(BIN / "lint-imports"), "--no-cache"], ROOT),
        ("Front-end lint", ["npx", "biome", "check", "--error-on-warnings", "."], FRONTEND),
        ("Front-end types", ["npx", "tsc", "--noEmit"], FRONTEND),
        ("Front-end units", ["npx", "vitest", "run", "--coverage"], FRONTEND),
        ("Core", [*pytest, *workers, *RULES], ROOT),
        ("Seasons", [*pytest, *workers, *PLAYED], ROOT),
        ("API", [*pytest, *workers, *USE_CASES], ROOT),
        ("All others", [*pytest, *workers, *OTHERS, "-m", "not cluster"], ROOT),
        ("Browser", [*pytest, *workers, "tests/browser"], ROOT),
        # By itself: beside other work a node may take longer to join than its time allows.
        ("Cluster", [*pytest, "-m", "cluster", "tests/tools/test_cluster.py"], ROOT),
    ]


def run_all(extra: list[str]) -> None:
    """Raises Stop at the first stage that fails."""
    every = stages(extra)
    with ThreadPoolExecutor(max_workers=2) as two:
        for read in [two.submit(_run, one, aside=True) for one in every if one[0] in SIDE_BY_SIDE]:
            read.result()
    for one in every:
        if one[0] not in SIDE_BY_SIDE:
            _run(one)


def _run(one: Stage, *, aside: bool = False) -> None:
    """`aside`: beside another, so that what it says is shown in one piece, and only where it failed."""
    name, command, folder = one
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
    with stage(name):
        done = subprocess.run(
            command, cwd=folder, env=environment, check=False, capture_output=aside, text=True
        )
        if done.returncode != 0:
            print(done.stdout or "", done.stderr or "", flush=True)
            raise Stop(f"{name}: failed; see above.")
