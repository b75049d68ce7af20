"""A program begins without the libraries that it may never need."""

import json
import os
import subprocess
import sys

import pytest

from kumpan.tools.packages import ROOT

# Half a second of the processor each, at every start of every program (measured with `-X importtime`).
LARGE = ["scipy", "weasyprint", "openpyxl", "fontTools"]


@pytest.mark.parametrize("program", ["kumpan.web.main", "kumpan.devices.poller", "kumpan.tools.prepare"])
def test_large_libraries_are_loaded_when_they_are_first_used(program: str) -> None:
    said = f"import {program}, json, sys; print(json.dumps([one for one in {LARGE} if one in sys.modules]))"
    done = subprocess.run(
        [sys.executable, "-c", said],
        capture_output=True,
        check=True,
        text=True,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src")},
    )
    assert json.loads(done.stdout) == []
