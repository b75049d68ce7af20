"""`./run client FOLDER`: a Python client of this version's API, generated from its OpenAPI document.

The folder becomes the package `kumpan_client`; it needs `httpx` and `attrs`, and nothing of Kumpan.
"""

import subprocess
import sys
import tempfile
from pathlib import Path

from kumpan.tools.generate import openapi_text

PACKAGE = "kumpan_client"


def make_client(folder: Path) -> Path:
    """The package in the folder, in place of one made before. Raises CalledProcessError."""
    package = folder / PACKAGE
    with tempfile.TemporaryDirectory(prefix="kumpan client ") as made:
        document, config = Path(made) / "openapi.json", Path(made) / "config.json"
        document.write_text(openapi_text())
        config.write_text('{"post_hooks": []}')  # JSON is YAML; nothing is formatted that nobody edits
        command = [sys.executable, "-m", "openapi_python_client", "generate", "--meta", "none", "--overwrite"]
        where = ["--path", str(document), "--config", str(config), "--output-path", str(package)]
        subprocess.run([*command, *where], check=True, capture_output=True, text=True)
    return package


def main(arguments: list[str]) -> int:
    """Make it, and say where it is."""
    made = make_client(Path(arguments[0] if arguments else "."))
    print(f"{made}: {sum(1 for _ in made.rglob('*.py'))} modules")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
