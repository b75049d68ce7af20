"""The volume from a weighed bag of salt, against the handbook's worked example."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.pool.salt_rise import SaltReading, volume_from_salt
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL


def test_the_handbooks_hundred_pounds() -> None:
    """Handbook 01: 100 lb and a rise of 600 ppm is 75.6 m3, 19,970 gal; a meter good to 100 ppm leaves 24 %."""
    found = volume_from_salt(100 * G_PER_LB, SaltReading(2400, 100), SaltReading(3000, 100))
    assert found.volume_l == pytest.approx(75_600, rel=1e-3)
    assert found.volume_l / L_PER_US_GAL == pytest.approx(19_970, rel=1e-3)
    assert found.uncertainty_share == pytest.approx(0.24, abs=0.005)
    assert found.is_coarse
    assert "Another bag" in found.sentence.template


def test_a_good_meter_says_so() -> None:
    found = volume_from_salt(100 * G_PER_LB, SaltReading(400, 20), SaltReading(1000, 20))
    assert not found.is_coarse
    assert "Another bag" not in found.sentence.template


@pytest.mark.parametrize(
    ("mass_g", "before", "after", "field"),
    [
        (0.0, 400.0, 1000.0, "added"),
        (1000.0, 400.0, 400.0, "after"),
        (1000.0, 1000.0, 400.0, "after"),
        (1e5, 400.0, 500.0, "after"),
    ],
)
def test_what_tells_nothing_is_refused_with_its_cure(
    mass_g: float, before: float, after: float, field: str
) -> None:
    with pytest.raises(InvalidInput) as refused:
        volume_from_salt(mass_g, SaltReading(before, 50), SaltReading(after, 50))
    assert refused.value.field == field


@given(
    volume_l=st.floats(2_000, 5e6),
    before=st.floats(0, 3000),
    rise=st.floats(300, 3000),
    error=st.tuples(st.floats(-1, 1), st.floats(-1, 1)),
)
def test_the_true_volume_lies_within_what_is_said(
    volume_l: float, before: float, rise: float, error: tuple[float, float]
) -> None:
    """Two readings, each off by anything on the circle that its interval is a side of."""
    half = 50.0
    size = (error[0] ** 2 + error[1] ** 2) ** 0.5
    one, other = (part / max(size, 1.0) * half for part in error)
    found = volume_from_salt(
        volume_l * rise / 1000, SaltReading(before + one, half), SaltReading(before + rise + other, half)
    )
    assert abs(1 / volume_l - 1 / found.volume_l) * found.volume_l <= found.uncertainty_share * (1 + 1e-6)
