"""The classic index from its published factor table (Langelier 1936; operators' handbooks, quoted from
memory).

Tolerance: the table's own rounding, 0.05 a factor.
"""

import pytest

from kumpan.core.chemistry.saturation import classic_index, dissolved_solids_mg_l, solids_constant

WORKED = [
    # pH, F, hardness, carbonate alkalinity, solids -> pH + TF + CF + AF - constant, by hand from the table
    (7.5, 84, 250, 100, 900, 7.5 + 0.7 + 2.0 + 2.0 - 12.1),
    (7.8, 76, 400, 125, 1500, 7.8 + 0.6 + 2.2 + 2.1 - 12.2),
    (7.2, 60, 150, 75, 800, 7.2 + 0.4 + 1.8 + 1.9 - 12.1),
    (7.6, 94, 200, 50, 3500, 7.6 + 0.8 + 1.9 + 1.7 - 12.3),
]


@pytest.mark.parametrize(("ph", "fahrenheit", "hardness", "alkalinity", "solids", "expected"), WORKED)
def test_at_the_tables_entries(
    ph: float, fahrenheit: float, hardness: float, alkalinity: float, solids: float, expected: float
) -> None:
    found = classic_index(ph, (fahrenheit - 32) / 1.8, hardness, alkalinity, solids)
    assert found.value == pytest.approx(expected, abs=1e-9)
    assert found.clamped == ()


def test_between_entries_it_is_linear_and_beyond_them_held_with_a_word() -> None:
    between = classic_index(7.5, (80 - 32) / 1.8, 225, 100, 900).value
    assert between == pytest.approx(7.5 + 0.65 + 1.95 + 2.0 - 12.1, abs=1e-9)
    beyond = classic_index(7.5, 45.0, 1200, 500, 900)
    assert beyond.clamped == ("temperature", "calcium", "alkalinity")
    assert beyond.value == pytest.approx(7.5 + 0.9 + 2.5 + 2.6 - 12.1, abs=1e-9)


def test_constant_by_dissolved_solids() -> None:
    """12.1 under 1000, 12.2 to 2000 (published); beyond that from memory."""
    values = [solids_constant(s) for s in (500, 1500, 2500, 3500, 4500, 9000)]
    assert values == [12.1, 12.2, 12.25, 12.3, 12.35, 12.4]
    assert dissolved_solids_mg_l(1000, 100, 250) == pytest.approx(1222)
