"""Kinds of pool as handbook 12 has them, and what taking another one would change."""

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import EquipmentSet, SettingsMade
from kumpan.core.maintenance.pool_presets import PRESETS, PoolPreset, preset, what_changes
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.pool.equipment import Chlorination, Filter, Surface
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.choices import Chosen
from kumpan.core.ranges.pool_rules import rules_for
from kumpan.core.ranges.profiles import Band
from tests.words import told


def made(found: PoolPreset) -> tuple[SettingsMade, EquipmentSet]:
    chosen = tuple(Chosen(question, option) for question, option in found.choices.items())
    settings = SettingsMade(
        name="One", place="", time_zone="America/Chicago", profile=found.profile, choices=chosen
    )
    return settings, EquipmentSet(traits=found.traits)


def bands(key: str, stabilizer: float | None = None) -> dict[Measure, Band]:
    settings, equipment = made(preset(key))
    readings = Readings(cyanuric_acid=stabilizer)
    return dict(rules_for(settings, equipment.traits, readings).bands)


def test_the_handbooks_eight_kinds_are_there() -> None:
    assert list(PRESETS) == [
        "plaster_salt",
        "vinyl_tablets",
        "liquid_by_hand",
        "above_ground",
        "soft_sided",
        "indoor",
        "mineral",
        "late_opening",
    ]


def test_a_salt_pool_on_plaster_holds_alkalinity_and_stabilizer_at_sixty_to_eighty() -> None:
    found = bands("plaster_salt", 70.0)
    for measure in (Measure.TOTAL_ALKALINITY, Measure.CYANURIC_ACID):
        assert (found[measure].low, found[measure].high) == (60, 80)
    assert (found[Measure.SALT].low, found[Measure.SALT].high) == (2700, 3400)


def test_tablets_climb_to_their_aim_of_stabilizer() -> None:
    band = bands("vinyl_tablets", 50.0)[Measure.CYANURIC_ACID]
    assert (band.low, band.high, band.aim) == (40, 100, 75)


def test_a_soft_sided_pool_asks_for_no_calcium_and_is_kept_as_a_small_one() -> None:
    found = preset("soft_sided")
    assert Measure.CALCIUM_HARDNESS not in bands("soft_sided", 40.0)
    assert found.care is Preset.SMALL
    assert found.traits.filter is Filter.CARTRIDGE
    assert found.traits.covered


def test_an_indoor_pool_wants_no_stabilizer() -> None:
    assert bands("indoor", 0.0)[Measure.CYANURIC_ACID].high == 0


@pytest.mark.parametrize("key", list(PRESETS))
def test_a_pool_made_by_its_kind_would_change_nothing_by_it(key: str) -> None:
    settings, equipment = made(preset(key))
    assert list(what_changes(preset(key), settings, equipment)) == []


def test_what_another_kind_would_change_is_told_one_by_one() -> None:
    settings, equipment = made(preset("plaster_salt"))
    said = [told(one) for one in what_changes(preset("soft_sided"), settings, equipment)]
    assert "Surface: plaster becomes vinyl" in said
    assert "Chlorine: salt cell becomes granules" in said
    assert "Covered at night" in said
    assert any(line.startswith("Ranges: Household becomes Small vinyl") for line in said)


def test_every_word_of_every_trait_is_told() -> None:
    settings, equipment = made(preset("plaster_salt"))
    for key in PRESETS:
        for one in what_changes(preset(key), settings, equipment):
            assert "_" not in told(one)
    assert {row.traits.chlorination for row in PRESETS.values()} == set(Chlorination)
    assert Surface.PLASTER in {row.traits.surface for row in PRESETS.values()}


def test_an_unknown_kind_is_refused_with_the_known_ones() -> None:
    with pytest.raises(InvalidInput, match="not a known kind"):
        preset("lake")
