"""The sample of modules that is broken on purpose."""

from pathlib import Path

from kumpan.tools.cli import parser
from kumpan.tools.mutate import sample, with_tests
from kumpan.tools.packages import ROOT


def test_a_seed_draws_the_same_modules_and_another_seed_others() -> None:
    known = list(with_tests())
    assert sample(known, 1, 3) == sample(known, 1, 3)
    assert sample(known, 1, 3) != sample(known, 2, 3)
    assert len(sample(known, 1, 10_000)) == len(known)


def test_only_modules_with_tests_of_their_own_are_drawn() -> None:
    known = with_tests()
    assert known[Path("src/kumpan/core/algae/next_test.py")] == [Path("tests/core/algae/test_next_test.py")]
    assert len(known) > 30
    assert all((ROOT / path).exists() for tests in known.values() for path in tests)


def test_the_command_takes_a_seed_and_how_many() -> None:
    given = parser().parse_args(["mutate", "--seed", "5", "--modules", "2"])
    assert (given.seed, given.modules) == (5, 2)
