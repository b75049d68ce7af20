"""Every step names its hazard class; every source key is known and used."""

import ast
from pathlib import Path

import pytest

from kumpan.core.dosing.order_and_waits import ANY_TWO_MINUTES, ORDER, separation
from kumpan.core.hazards import EMERGENCIES, HAZARDS, Hazard
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.ranges.profiles import PROFILES
from kumpan.core.records.display import DisplayOptions
from kumpan.core.sources import SOURCES, source
from kumpan.core.treatment.how_to import where

CORE = Path(__file__).parents[2] / "src/kumpan/core"


def test_every_class_is_in_the_table_and_hazardous_ones_have_cautions() -> None:
    assert set(HAZARDS) == set(Hazard)
    for row in HAZARDS.values():
        assert row.cautions or not row.hazardous, row.hazard


@pytest.mark.parametrize("key", sorted(CATALOGUE))
def test_every_chemical_has_its_hazard_its_place_and_its_order(key: str) -> None:
    assert CATALOGUE[key].hazard in HAZARDS
    assert where(key, 100.0, DisplayOptions())
    assert key in ORDER


def test_separations_of_the_handbook() -> None:
    """Handbook 05, from memory: acid or stabilizer and chlorine 60 min; calcium and carbonate 2 to 4 h."""
    assert separation("hydrochloric_acid", "sodium_hypochlorite").minutes >= 60
    assert separation("trichlor", "cyanuric_acid").minutes >= 60
    assert separation("calcium_chloride", "sodium_bicarbonate").minutes >= 120
    assert separation("sodium_chloride", "cyanuric_acid").minutes == ANY_TWO_MINUTES
    assert separation("calcium_chloride", "calcium_chloride").minutes == 0


def test_emergencies_of_the_handbook_are_all_there() -> None:
    """Handbook 11 (from memory): gas, eyes and skin, swallowed, hot oxidizer, damp oxidizer, electric,
    drowning.
    """
    keys = {row.key for row in EMERGENCIES}
    assert {"gas", "eyes", "swallowed", "hot_tub_of_oxidiser", "damp_oxidiser", "electric", "water"} <= keys


def _used_keys() -> set[str]:
    """Keys named in SOURCE or SOURCES_USED of any core module, and by the schools."""
    used = {row.source for row in PROFILES.values()}
    for file in CORE.rglob("*.py"):
        for node in ast.parse(file.read_text()).body:
            target = node.targets[0] if isinstance(node, ast.Assign) else None
            if (
                isinstance(node, ast.Assign)
                and isinstance(target, ast.Name)
                and target.id in ("SOURCE", "SOURCES_USED")
            ):
                used |= {
                    c.value
                    for c in ast.walk(node.value)
                    if isinstance(c, ast.Constant) and isinstance(c.value, str)
                }
    return used


def test_no_source_key_is_unknown_or_unused() -> None:
    used = _used_keys()
    assert used - set(SOURCES) == set()
    assert set(SOURCES) - used == set()
    for key in used:
        assert source(key).reference
