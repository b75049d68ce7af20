"""What is prepared for which pool, and what is done at the end: row by row as the handbook has it (07, 1 to
4 and 8 to 10).
"""

from dataclasses import replace

import pytest

from kumpan.core.algae.preparing import AFTER, CLEAN_FILTER, PREPARE
from kumpan.core.algae.stages import stage_plan
from kumpan.core.hazards import HAZARDS, Hazard, cautions_for
from kumpan.core.journal import RescueSet, Severity
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from tests.core.algae.cases import PLASTER, VINYL, Case
from tests.words import told

SALT = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.CARTRIDGE)
FED = Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.SAND)
COVERED = Traits(
    surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.DE, indoor=False, covered=True
)


def prepared_for(traits: Traits, severity: Severity = Severity.GREEN, **values: float) -> list[str]:
    request = Case(traits=traits, setting=RescueSet(severity=severity)).begin(**values).request()
    return [told(step.title) for step in stage_plan(request).steps]


@pytest.mark.parametrize(
    "words",
    ["nobody in", "children", "Leaves and debris", "baskets", "middle of the skimmer", "Timer trippers out"],
)
@pytest.mark.parametrize("traits", [PLASTER, VINYL, SALT, FED, COVERED])
def test_every_pool_is_closed_cleaned_filled_and_run(words: str, traits: Traits) -> None:
    assert any(words in title for title in prepared_for(traits))


@pytest.mark.parametrize(
    ("words", "fits", "others"),
    [
        ("Cover and solar blanket off", [COVERED], [PLASTER, VINYL, SALT, FED]),
        ("cell to 0", [SALT], [PLASTER, VINYL, FED, COVERED]),
        ("Feeder off", [FED], [PLASTER, VINYL, SALT, COVERED]),
        ("Backwash until", [PLASTER, FED], [VINYL, SALT, COVERED]),
        ("Hose the cartridge", [VINYL, SALT], [PLASTER, FED, COVERED]),
        ("recharge with powder", [COVERED], [PLASTER, VINYL, SALT, FED]),
    ],
)
def test_what_only_some_pools_have(words: str, fits: list[Traits], others: list[Traits]) -> None:
    assert all(any(words in title for title in prepared_for(traits)) for traits in fits)
    assert not any(words in title for traits in others for title in prepared_for(traits))


@pytest.mark.parametrize("severity", list(Severity))
def test_mustard_alone_is_treated_with_all_that_was_in_the_water(severity: Severity) -> None:
    """Handbook 07: toys, suits and hoses carry it; elsewhere the robot comes out."""
    titles = prepared_for(PLASTER, severity)
    along = any("toys, suits, hoses" in title for title in titles)
    assert along is (severity is Severity.MUSTARD)
    assert ("Robot cleaner out" in titles) is (severity is not Severity.MUSTARD)


@pytest.mark.parametrize(("copper", "first"), [(0.0, False), (0.2, False), (0.3, True), (1.0, True)])
def test_sequestrant_goes_before_the_shock_where_there_is_copper(copper: float, first: bool) -> None:
    titles = prepared_for(PLASTER, copper=copper)
    assert any("Sequestrant" in title for title in titles) is first


def test_the_pool_is_closed_before_anything_else_and_the_filter_cleaned_last() -> None:
    """A clean filter before the first shock, and nobody in while it is worked on."""
    for traits in (PLASTER, VINYL, SALT, FED, COVERED):
        titles = prepared_for(traits)
        assert titles[0].startswith("Close the pool")
        assert titles[-1] == told(CLEAN_FILTER[traits.filter][0])


def test_every_row_carries_the_cautions_of_its_class() -> None:
    hazards = {row.hazard for row in PREPARE} | {hazard for _, _, hazard in AFTER}
    hazards |= {hazard for _, hazard in CLEAN_FILTER.values()}
    for hazard in hazards - {Hazard.NONE}:
        assert cautions_for(hazard) == HAZARDS[hazard].cautions
        assert cautions_for(hazard)


@pytest.mark.parametrize(
    ("words", "number"),
    [
        ("Filter thoroughly cleaned", "8"),
        ("Timer back to the schedule", "8"),
        ("45 degrees", "10: dead zones"),
        ("stabilizer last", "10"),
        ("algaecide", "10: preventive, after clearing"),
    ],
)
def test_the_end_leaves_nothing_of_the_handbook_out(words: str, number: str) -> None:
    assert any(words in f"{title} {why}" for title, why, _ in AFTER), number


def test_a_filter_of_every_kind_is_cleaned_its_own_way() -> None:
    assert set(CLEAN_FILTER) == set(Filter)
    assert CLEAN_FILTER[Filter.DE][1] is Hazard.SILICA, "the dust of the powder"
    assert CLEAN_FILTER[Filter.CARTRIDGE][1] is Hazard.PRESSURE


def test_nothing_is_prepared_twice() -> None:
    for traits in (PLASTER, VINYL, SALT, FED, replace(COVERED, chlorination=Chlorination.TABLETS)):
        titles = prepared_for(traits, copper=1.0)
        assert len(titles) == len(set(titles))
