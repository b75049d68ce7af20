"""Handbook 11 and 05, row by row: what is done when it goes wrong, how chemicals are kept, which caution
stands where.

The handbook's rows are common practice of pool safety sheets, quoted from memory; a label and the emergency
services come first, and the page says so.
"""

import pytest

from kumpan.core.hazards import (
    EMERGENCIES,
    EMERGENCY_PREAMBLE,
    HAZARDS,
    STORAGE_RULES,
    Hazard,
    cautions_for,
)
from kumpan.core.products.catalogue import CATALOGUE
from tests.words import told

H = Hazard


def reported(key: str) -> str:
    return " ".join(map(told, next(row.measures for row in EMERGENCIES if row.key == key))).lower()


@pytest.mark.parametrize(
    ("key", "words"),
    [
        ("gas", ("upwind", "others", "close the area", "fire service", "nobody goes back")),
        ("eyes", ("running water", "15 to 20 minutes", "poison center", "label")),
        ("swallowed", ("rinse the mouth", "not make them vomit", "poison center", "label")),
        ("hot_tub_of_oxidiser", ("do not touch", "do not move", "leave", "no dry-powder", "trained people")),
        ("damp_oxidiser", ("never goes back into its tub", "nor into the bin")),
        ("electric", ("without touching metal", "breaker", "licensed electrician")),
        ("water", ("reach", "throw", "do not go in", "resuscitation")),
        ("accident_in_water", ("close the pool", "never with the vacuum", "health authority")),
    ],
)
def test_what_is_done_in_the_order_in_which_it_matters(key: str, words: tuple[str, ...]) -> None:
    for word in words:
        assert word in reported(key), word


def test_nobody_is_sent_back_in_before_help_is_called() -> None:
    """To leave comes first with gas and a hot tub; to get out comes first with current."""
    assert reported("gas").startswith("leave at once")
    assert reported("hot_tub_of_oxidiser").startswith("do not touch it")
    assert reported("electric").startswith("everyone out")


def test_labels_and_emergency_services_come_first() -> None:
    assert told(EMERGENCY_PREAMBLE).startswith("The emergency services and the product label come before")


@pytest.mark.parametrize(
    "words", ["original", "vented", "dry", "locked", "acids never with or above", "trichlor apart", "one feeder or scoop", "fertilizer"]
)  # fmt: skip
def test_how_chemicals_are_kept(words: str) -> None:
    assert words in " ".join(map(told, STORAGE_RULES)).lower()


# Handbook 05: the class of each product and the caution that must stand at its step.
@pytest.mark.parametrize(
    ("chemical", "hazard", "must_say"),
    [
        ("hydrochloric_acid", H.ACID, "acid goes into water, never water into acid"),
        ("sodium_bisulfate", H.ACID, "never in a bucket that held chlorine"),
        ("sodium_hypochlorite", H.OXIDIZER_LIQUID, "never mix it"),
        ("calcium_hypochlorite", H.OXIDIZER_GRANULES, "never mix it"),
        ("sodium_dichlor", H.OXIDIZER_GRANULES, "never into the skimmer"),
        ("trichlor", H.TABLETS, "never"),
        ("calcium_chloride", H.HEAT_OF_SOLUTION, "hot"),
        ("sodium_hydroxide", H.CAUSTIC, ""),
        ("boric_acid", H.BORATE, ""),
    ],
)
def test_each_product_says_what_can_hurt(chemical: str, hazard: Hazard, must_say: str) -> None:
    if chemical not in CATALOGUE:
        assert chemical == "sodium_hydroxide", "only lye is not sold to pool owners here"
        return
    assert CATALOGUE[chemical].hazard is hazard
    assert must_say in " ".join(map(told, cautions_for(hazard))).lower()


@pytest.mark.parametrize(
    ("hazard", "must_say"),
    [
        (H.ELECTRICITY, ("breaker off", "dry hands", "licensed electrician")),
        (H.CELL, ("without flow", "flow switch")),
        (H.SUCTION, ("drain cover", "nobody in the water")),
        (H.PRESSURE, ("gauge at zero", "never tighten a clamp under pressure")),
        (H.SHELL, ("ground water",)),
        (H.SHELL_WASH, ("respirator", "never alone")),
        (H.SILICA, ("mask",)),
        (H.VALVE, ("never move the handle with the pump on", "never start against closed valves")),
    ],
)
def test_tools_water_and_shell_say_theirs(hazard: Hazard, must_say: tuple[str, ...]) -> None:
    words = " ".join(map(told, cautions_for(hazard))).lower()
    for word in must_say:
        assert word in words, word


def test_a_hazardous_class_leads_to_the_emergency_page_and_says_something_first() -> None:
    for row in HAZARDS.values():
        if row.hazardous:
            assert len(told(row.cautions[0])) > 15
    assert not HAZARDS[H.NONE].hazardous


def test_every_caution_is_a_sentence_that_a_tired_person_understands() -> None:
    """Short, with an end, without a cry: product.md."""
    for row in HAZARDS.values():
        for caution in row.cautions:
            assert told(caution).endswith("."), caution
            assert "!" not in told(caution)
            assert len(told(caution)) <= 160, caution
            assert told(caution)[0].isupper()
