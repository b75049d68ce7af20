"""House rules that neither the linter nor the import rules hold: origins, docstrings, sizes, honest tests."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from kumpan.core.sources import SOURCES
from kumpan.tools.packages import ROOT

SRC = ROOT / "src/kumpan"
CORE = SRC / "core"
TESTS = ROOT / "tests"
LONGEST_FILE = 500
LONGEST_FUNCTION = {"core": 40, "services": 40}  # lines; LONGEST_ELSEWHERE in the other rooms
LONGEST_ELSEWHERE = 60
MOST_POSITIONAL = 4
KEYWORD_ONLY_FROM = 5  # fields of a dataclass
ANY_NUMBER = {
    "select",
    "_inventory",
    "datetime",
    "where",
    "zip",
}  # each further argument is one more of the same
# Rows of the trade's tables stand as tuples under the header of their class's fields, at module level only.
TABLE_ROWS = {
    "Ask", "Chemical", "CareTask", "End", "KindRow", "MachineCare", "Procedure", "Profile", "Row", "Rule", "Scenario", "SeverityRow",
}  # fmt: skip
DEEPEST = 5
OF_THE_TRADE = (
    "algae",
    "assessment",
    "chemistry",
    "dosing",
    "forecast",
    "maintenance",
    "products",
    "ranges",
    "season",
    "simulation",
    "training",
    "treatment",
    "visits",
)
# They lay out, convert or show what the tables of other modules say, and hold no figure of the trade
# themselves.
NO_RULE_OF_ITS_OWN = {
    "__init__", "equilibrium", "speciation", "other_profiles", "plan", "targets", "schedule", "derivations", "controller",
    "order", "choices", "stock", "request", "solution", "case",
}  # fmt: skip
ONE_SYSTEM_OF_EQUATIONS = {"one_round"}  # read from top to bottom like the page it is from


def modules(folder: Path) -> Iterator[tuple[Path, ast.Module]]:
    for path in sorted(folder.rglob("*.py")):
        yield path, ast.parse(path.read_text())


def named(path: Path) -> str:
    return str(path.relative_to(ROOT))


def functions(tree: ast.AST) -> Iterator[ast.FunctionDef | ast.AsyncFunctionDef]:
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            yield node


def depth(node: ast.AST, so_far: int = 0) -> int:
    """How deep blocks stand in each other; an `elif` stands beside its `if`."""
    deepest = so_far
    for field, value in ast.iter_fields(node):
        inner = value if isinstance(value, list) else [value]
        elif_ = (
            isinstance(node, ast.If)
            and field == "orelse"
            and len(inner) == 1
            and isinstance(inner[0], ast.If)
        )
        for child in inner:
            if isinstance(child, ast.AST):
                opens = isinstance(
                    child, ast.If | ast.For | ast.While | ast.With | ast.Try | ast.AsyncFor | ast.AsyncWith
                )
                deepest = max(deepest, depth(child, so_far + (opens and not elif_)))
    return deepest


def test_every_module_of_the_trade_names_where_its_rules_come_from() -> None:
    """A key of the table of sources, or several."""
    without = []
    for folder in OF_THE_TRADE:
        for path, tree in modules(CORE / folder):
            names = {
                target.id
                for node in tree.body
                if isinstance(node, ast.Assign)
                for target in node.targets
                if isinstance(target, ast.Name)
            }
            if path.stem not in NO_RULE_OF_ITS_OWN and not names & {"SOURCE", "SOURCES_USED"}:
                without.append(named(path))
    assert without == []


def test_every_origin_says_what_it_is() -> None:
    """What stands in a table of the core is published, common practice, derived, or from memory, and says
    which.
    """
    assert all(source.reference.strip() for source in SOURCES.values())
    assert all(key == key.lower() and " " not in key for key in SOURCES)


def test_every_module_says_in_a_line_what_it_is_for() -> None:
    bare = [named(path) for path, tree in modules(SRC) if tree.body and not ast.get_docstring(tree)]
    assert bare == []


@pytest.mark.parametrize("folder", ["core", "services", "formats"])
def test_public_functions_and_classes_of_the_core_are_explained(folder: str) -> None:
    """One clear sentence at least; short helpers whose name says all may go without."""
    bare = []
    for path, tree in modules(SRC / folder):
        for node in tree.body:
            if not isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef) or node.name.startswith("_"):
                continue
            if not ast.get_docstring(node) and len(node.body) > 3:
                bare.append(f"{named(path)}: {node.name}")
    assert bare == []


def test_no_file_is_so_long_that_a_reader_is_lost() -> None:
    long = [named(path) for path in SRC.rglob("*.py") if len(path.read_text().splitlines()) > LONGEST_FILE]
    assert long == []


def test_no_function_is_longer_than_a_page() -> None:
    long = [
        f"{named(path)}: {node.name}"
        for path, tree in modules(SRC)
        for node in functions(tree)
        if (node.end_lineno or 0) - node.lineno + 1
        > LONGEST_FUNCTION.get(path.relative_to(SRC).parts[0], LONGEST_ELSEWHERE)
        and node.name not in ONE_SYSTEM_OF_EQUATIONS
    ]
    assert long == []


def of_a_table(tree: ast.Module) -> set[ast.AST]:
    """What stands in the assignments of a module, its tables among them."""
    return {
        inner
        for node in tree.body
        if isinstance(node, ast.Assign | ast.AnnAssign)
        for inner in ast.walk(node)
    }


def called(node: ast.Call) -> str:
    return ast.unparse(node.func).split("[")[0].split(".")[-1]


def test_no_call_leaves_a_reader_counting_arguments() -> None:
    """More than four are named."""
    counted = []
    for path, tree in modules(SRC):
        rows = of_a_table(tree)
        for node in ast.walk(tree):
            if not isinstance(node, ast.Call) or len(node.args) <= MOST_POSITIONAL:
                continue
            if called(node) in ANY_NUMBER or (node in rows and called(node) in TABLE_ROWS):
                continue
            counted.append(f"{named(path)}:{node.lineno}: {ast.unparse(node.func)}")
    assert counted == []


def test_wide_dataclasses_are_built_by_name() -> None:
    """Keyword-only from five fields on: all of them, or all behind a `KW_ONLY` mark after four at most."""
    loose = []
    for path, tree in modules(SRC):
        for node in ast.walk(tree):
            if not isinstance(node, ast.ClassDef) or node.name in TABLE_ROWS:
                continue
            marks = [ast.unparse(mark) for mark in node.decorator_list]
            fields = [
                ast.unparse(one.annotation)
                for one in node.body
                if isinstance(one, ast.AnnAssign) and not ast.unparse(one.annotation).startswith("ClassVar")
            ]
            before_mark = fields.index("KW_ONLY") if "KW_ONLY" in fields else len(fields)
            if not any("dataclass" in mark for mark in marks) or any("kw_only" in mark for mark in marks):
                continue
            if before_mark >= KEYWORD_ONLY_FROM:
                loose.append(f"{named(path)}: {node.name}")
    assert loose == []


def test_the_formatter_is_held_off_tables_only() -> None:
    """`fmt: skip` ends a module's table or the cases of a test, nothing else."""
    held_off = []
    for folder in (SRC, TESTS):
        for path, tree in modules(folder):
            tables = of_a_table(tree) | {
                inner
                for node in tree.body
                if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef | ast.ClassDef)
                for mark in node.decorator_list
                for inner in ast.walk(mark)
            }
            lines = {getattr(node, "end_lineno", 0) for node in tables}
            held_off += [
                f"{named(path)}:{number}"
                for number, line in enumerate(path.read_text().splitlines(), 1)
                if re.search(r"# fmt: (skip|off)$", line) and number not in lines
            ]
    assert held_off == []


def test_nothing_is_nested_deeper_than_one_can_follow() -> None:
    deep = [
        f"{named(path)}: {node.name}"
        for path, tree in modules(SRC)
        for node in functions(tree)
        if depth(node) > DEEPEST
    ]
    assert deep == []


def test_the_core_asks_no_clock() -> None:
    """`now` is an argument: what is asked twice at one time is answered alike."""
    asks = [
        f"{named(path)}:{node.lineno}"
        for path, tree in modules(CORE)
        for node in ast.walk(tree)
        if isinstance(node, ast.Call)
        and isinstance(node.func, ast.Attribute)
        and node.func.attr in ("now", "today", "utcnow", "time_ns")
        and isinstance(node.func.value, ast.Name)
        and node.func.value.id in ("datetime", "date", "time")
    ]
    assert asks == []


def test_what_the_core_draws_it_draws_by_a_seed() -> None:
    unseeded = [
        f"{named(path)}:{node.lineno}"
        for path, tree in modules(CORE)
        for node in ast.walk(tree)
        if isinstance(node, ast.Call)
        and isinstance(node.func, ast.Attribute)
        and node.func.attr == "default_rng"
        and not node.args
    ]
    assert unseeded == []


def test_values_of_the_core_are_frozen() -> None:
    """Free functions compute, frozen records carry; only the simulated worlds and those at work in them may
    change.
    """
    may_change = ("core/simulation/", "core/training/", "core/treatment/schedule.py", "ph_and_alkalinity.py")
    loose = []
    for path, tree in modules(CORE):
        for node in ast.walk(tree):
            if not isinstance(node, ast.ClassDef) or node.name.startswith("_"):
                continue
            if any(part in named(path) for part in may_change):
                continue
            for mark in node.decorator_list:
                name = mark.func if isinstance(mark, ast.Call) else mark
                frozen = isinstance(mark, ast.Call) and any(k.arg == "frozen" for k in mark.keywords)
                if isinstance(name, ast.Name) and name.id == "dataclass" and not frozen:
                    loose.append(f"{named(path)}: {node.name}")
    assert loose == []


# What a test must not do: pass over itself, sleep, draw without a seed, or say nothing.
def test_no_test_sleeps_or_is_passed_over_without_a_reason() -> None:
    found = []
    for path, tree in modules(TESTS):
        for node in ast.walk(tree):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
                bare_skip = node.func.attr in ("skip", "skipif", "xfail") and not (node.args or node.keywords)
                if node.func.attr in ("sleep", "wait_for_timeout") or bare_skip:
                    found.append(f"{named(path)}:{node.lineno}")
    assert found == []


def test_every_test_can_fail() -> None:
    """It asserts, expects an error, or hands on to a function that does."""
    silent = []
    every = [(path, node) for path, tree in modules(TESTS) for node in functions(tree)]
    helpers = {node.name for _, node in every if not node.name.startswith("test_") and _says(node)}
    for path, node in every:
        if node.name.startswith("test_") and not _says(node) and not helpers & _called(node):
            silent.append(f"{named(path)}: {node.name}")
    assert silent == []


def _says(node: ast.AST) -> bool:
    if any(isinstance(inner, ast.Assert | ast.Raise) for inner in ast.walk(node)):
        return True
    return bool(_called(node) & {"raises", "expect", "fail", "assert_current"})


def _called(node: ast.AST) -> set[str]:
    names = set()
    for inner in ast.walk(node):
        if isinstance(inner, ast.Call):
            names.add(
                inner.func.attr if isinstance(inner.func, ast.Attribute) else getattr(inner.func, "id", "")
            )
    return names


def test_every_published_check_names_its_source() -> None:
    for path in sorted((TESTS / "published").glob("test_*.py")):
        words = ast.get_docstring(ast.parse(path.read_text())) or ""
        assert re.search(r"[A-Z][\w.-]+", words), named(path)
        assert len(words) > 40, named(path)
