"""Molar masses against periodictable (registry library, CIAAW standard atomic weights)."""

import periodictable
import pytest

from kumpan.core.chemistry import molar

FORMULAS = {
    "CHLORINE": "Cl2", "CALCIUM_CARBONATE": "CaCO3", "CYANURIC_ACID": "C3H3N3O3", "SODIUM_CHLORIDE": "NaCl",
    "SODIUM_BICARBONATE": "NaHCO3", "SODIUM_CARBONATE": "Na2CO3", "SODIUM_BISULFATE": "NaHSO4",
    "SODIUM_HYDROXIDE": "NaOH", "HYDROGEN_CHLORIDE": "HCl", "CALCIUM_CHLORIDE": "CaCl2",
    "BORAX_DECAHYDRATE": "Na2B4O7(H2O)10", "BORIC_ACID": "B(OH)3",
    "SODIUM_THIOSULFATE_PENTAHYDRATE": "Na2S2O3(H2O)5", "POTASSIUM_PEROXYMONOSULFATE": "KHSO5", "SULFATE": "SO4",
}  # fmt: skip


@pytest.mark.parametrize("name", FORMULAS)
def test_molar_mass(name: str) -> None:
    expected = periodictable.formula(FORMULAS[name]).mass
    assert getattr(molar, name) == pytest.approx(expected, rel=3e-4)
