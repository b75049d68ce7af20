"""The slip's grammar: whole lines, drops, strips, units, mistakes."""

import pytest

from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.kits import kit_by_key
from kumpan.core.testing.methods import Method
from kumpan.core.testing.test_line import LineReading, read_test_line
from tests.words import told

M = Measure
DROPS, STRIPS = kit_by_key("drops"), kit_by_key("strips")


def values(read: LineReading) -> dict[Measure, float]:
    return {value.measure: round(value.value, 3) for value in read.values}


def test_the_example_line() -> None:
    read = read_test_line("fc 1.5 tc 2 ph 7.8 ta 110 82f", DROPS, "f")
    assert not read.problems
    assert values(read) == {
        M.FREE_CHLORINE: 1.5,
        M.TOTAL_CHLORINE: 2,
        M.PH: 7.8,
        M.TOTAL_ALKALINITY: 110,
        M.TEMPERATURE: 27.778,
    }


def test_bare_numbers_in_the_kits_order() -> None:
    read = read_test_line("1.5 2 7,8 110 250 40 3200 82", DROPS, "f")
    assert not read.problems
    assert [value.measure for value in read.values] == [measure for measure, _ in DROPS.order]
    assert read.values[-1].value == pytest.approx(27.778, abs=1e-3)


def test_drops_by_the_kits_factor_and_by_a_factor() -> None:
    read = read_test_line("fc 15d ta 11x10 ch 25 drops", DROPS, "f")
    found = {value.measure: value for value in read.values}
    assert found[M.FREE_CHLORINE].value == pytest.approx(3.0)
    assert (found[M.FREE_CHLORINE].low, found[M.FREE_CHLORINE].high) == pytest.approx((2.8, 3.0))
    assert (found[M.TOTAL_ALKALINITY].low, found[M.TOTAL_ALKALINITY].high) == (100, 110)
    assert found[M.TOTAL_ALKALINITY].method is Method.DROPS


def test_one_drop_of_combined_on_the_small_sample_is_nought_to_half() -> None:
    """Handbook 02: a drop kit's single drop is its doubt."""
    read = read_test_line("cc 1x0.5", DROPS, "f")
    assert (read.values[0].low, read.values[0].high) == (0.0, 0.5)


def test_a_strip_block_reaches_half_way_to_its_neighbors() -> None:
    read = read_test_line("fc 3 ph 7.2", STRIPS, "f")
    free, ph = read.values
    assert (free.low, free.high) == (2, 4)
    assert (ph.low, ph.high) == pytest.approx((7.0, 7.5))


def test_a_comma_and_a_colon_are_forgiven() -> None:
    read = read_test_line("pH: 7,8 FC=2", DROPS, "c")
    assert values(read) == {M.PH: 7.8, M.FREE_CHLORINE: 2}


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("fc 1.5 taa 110", 'did you mean "ta"'),
        ("fc ph 7.5", "no number"),
        ("fc 1 fc 2", "twice"),
        ("fc 1 110", "no name"),
        ("ph 78", "outside 0 to 14"),
        ("ph 7d", "not counted in drops"),
        ("temp 700f", "outside"),
        ("1 2 7.5 100 250 40 3200 82 9", "only 8 fields"),
        ("fc 2 kg", "not a measure"),
    ],
)
def test_mistakes_are_told_and_the_rest_is_read(line: str, says: str) -> None:
    read = read_test_line(line, DROPS, "f")
    assert any(says in told(problem.text) for problem in read.problems), read.problems


def test_the_rest_of_a_line_is_kept_beside_a_mistake() -> None:
    read = read_test_line("fc 1.5 phh 7.8 ta 110", DROPS, "f")
    assert {value.measure for value in read.values} >= {M.FREE_CHLORINE, M.TOTAL_ALKALINITY}
    assert read.problems[0].suggestion == "ph"


def test_an_empty_line_is_an_empty_test() -> None:
    assert read_test_line("   ", DROPS, "f") == LineReading((), ())


@pytest.mark.parametrize("word", ["cya", "stab", "stabilizer", "stabiliser"])
def test_stabilizer_is_read_by_every_name_it_goes_by(word: str) -> None:
    assert values(read_test_line(f"{word} 40", DROPS, "f")) == {M.CYANURIC_ACID: 40}
