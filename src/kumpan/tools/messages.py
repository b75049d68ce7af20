"""`./run messages`: gather every template of the program into the catalog that translators start from.

Templates are whole sentences, so the catalog is a list of sentences with their places. A template is the
first argument of a message, or a constant with named values that is handed to one.
"""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.pofile import write_po

from kumpan.tools.packages import ROOT
from kumpan.wording.catalogs import CATALOGS, DOMAIN

FOLDERS = ("core", "services", "wording")
TEMPLATE = CATALOGS / f"{DOMAIN}.pot"
_VALUES = re.compile(r"\{\w+\}")
Found = tuple[str | tuple[str, str], int]


def templates(tree: ast.Module) -> Iterator[Found]:
    """Each template of a module with its line; a plural as the pair of its forms."""
    inside_f_strings = {
        id(part) for node in ast.walk(tree) if isinstance(node, ast.JoinedStr) for part in ast.walk(node)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
            yield from _of_call(node.func.id, node)
        elif isinstance(node, ast.Constant) and id(node) not in inside_f_strings and _is_template(node.value):
            yield str(node.value), node.lineno


def _is_template(value: object) -> bool:
    """A sentence with named values, handed to a message from a table."""
    return isinstance(value, str) and "\n" not in value and _VALUES.search(value) is not None


def _of_call(name: str, call: ast.Call) -> Iterator[Found]:
    texts = [arg.value for arg in call.args if isinstance(arg, ast.Constant) and isinstance(arg.value, str)]
    if name == "Message" and texts and texts[0]:
        yield texts[0], call.lineno
    elif name == "Plural" and len(texts) == 2:
        yield (texts[0], texts[1]), call.lineno


def gathered(root: Path = ROOT / "src/kumpan") -> Catalog:
    """The catalog of all templates, in US English."""
    catalog = Catalog(project="Kumpan", version="1", charset="utf-8", fuzzy=False)
    for folder in FOLDERS:
        for path in sorted((root / folder).rglob("*.py")):
            place = str(path.relative_to(root.parent))
            for text, line in templates(ast.parse(path.read_text())):
                catalog.add(text, locations=[(place, line)])
    return catalog


def main() -> None:
    """Write the template catalog."""
    CATALOGS.mkdir(exist_ok=True)
    with TEMPLATE.open("wb") as out:
        write_po(out, gathered(), omit_header=True, sort_output=True, no_location=True, width=0)
    print(f"{len(gathered())} templates in {TEMPLATE.relative_to(ROOT)}")


if __name__ == "__main__":
    main()
