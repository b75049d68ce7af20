"""`./run client` is made where it is wanted; that it works is shown with the API's other tests."""

from pathlib import Path

import pytest

from kumpan.tools.client import main


def test_the_package_stands_where_it_is_wanted(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([str(tmp_path)]) == 0
    assert (tmp_path / "kumpan_client/api/pools/list_pools.py").exists()
    assert "modules" in capsys.readouterr().out
