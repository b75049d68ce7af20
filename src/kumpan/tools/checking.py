"""`./run test`: every check, each stage named with its time; the first red one ends it."""

import os
import subprocess
from pathlib import Path

from kumpan.tools.console import Stop, stage
from kumpan.tools.packages import FRONTEND, ROOT, VENV

BIN = VENV / "bin"
# What is not run is not known to work: the rules are measured by their own tests. Elsewhere, and where whole
# seasons are played, counting lines would double the minutes and find the same; the use cases are counted by
# `./run test -n 2 --cov=kumpan.services tests/services tests/web/routers`.
PLAYED = ["tests/core/training", "tests/core/simulation"]
RULES = ["--cov=kumpan.core", "--cov-report=term:skip-covered", "--cov-fail-under=90", "tests/core"]
RULES += [f"--ignore={folder}" for folder in PLAYED]
ROUTES = ["tests/services", "tests/web/routers"]
OTHERS = ["tests", *(f"--ignore={folder}" for folder in ("tests/core", "tests/browser", *ROUTES))]


def stages(extra: list[str]) -> list[tuple[str, list[str], Path]]:
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
        ("API", [*pytest, *workers, *ROUTES], ROOT),
        ("All others", [*pytest, *workers, *OTHERS, "-m", "not cluster"], ROOT),
        ("Browser", [*pytest, *workers, "tests/browser"], ROOT),
        # By itself: beside other work a node may take longer to join than its time allows.
        ("Cluster", [*pytest, "-m", "cluster", "tests/tools/test_cluster.py"], ROOT),
    ]


def run_all(extra: list[str]) -> None:
    """Raises Stop at the first stage that fails."""
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
    for name, command, folder in stages(extra):
        with stage(name):
            if subprocess.run(command, cwd=folder, env=environment, check=False).returncode != 0:
                raise Stop(f"{name}: failed; see above.")
