"""Every sentence of the handbook's cleaning and filter pages (08) that says do, never or first has its step.

The key is short for the sentence; the words are those that its step must say.
"""

import pytest

from kumpan.core.maintenance.procedures import PROCEDURES
from tests.words import told

SENTENCES = (
    # Debris and baskets.
    ("leaf rake first", "clean", "Leaf rake for what sank, before any vacuum"),
    ("twigs hurt the pump", "clean", "twigs and nuts clog the main drain"),
    ("animals under the lid", "baskets", "snakes, spiders and insects"),
    ("lid with a hook", "baskets", "with a hook"),
    ("lock or pull, leaves kept inside", "baskets", "by a turn or a pull, the leaves kept inside"),
    ("rinse the emptied basket", "baskets", "rinsed with the hose"),
    ("stuck: pump off", "baskets", "a stuck basket comes free"),
    ("torn: replace", "baskets", "A torn one is replaced"),
    ("sock and stone", "baskets", "clean stone"),
    ("after wind the same day", "baskets", "again the same day and the next"),
    ("pot filled, o-ring seen", "baskets", "fill the pot with water"),
    ("pressure proves it", "baskets", "that proves lid and flow"),
    # Brushing.
    ("valve to the drain while brushing", "clean", "most comes from the main drain"),
    ("nobody in the water", "clean", "nobody in the water"),
    ("shallow to deep, just under the waterline", "clean", "from shallow to deep, just under the waterline"),
    ("toward the drain, valve back", "clean", "back to about 80 % skimmer, 20 % drain"),
    ("above the waterline by hand", "clean", "above the waterline by hand"),
    ("nylon on vinyl", "clean", "steel tears vinyl"),
    # Waterline.
    ("gentle circles", "tile", "gentle circles"),
    ("scum is not scale", "tile", "scale, not scum"),
    ("pumice on tile only", "tile", "on tile only"),
    ("never pumice on vinyl", "tile", "never pumice"),
    ("vinegar for small vinyl", "tile", "white vinegar"),
    ("enzyme keeps it away", "tile", "regular enzyme"),
    # Vacuum.
    ("head, pole, hose, lower", "vacuum", "Head on the pole, hose on the head"),
    ("straight down hand over hand", "vacuum", "straight down, hand over hand"),
    ("palm over the end", "vacuum", "Palm over the end"),
    ("canister before the skimmer", "vacuum", "canister"),
    ("overlapping strokes", "vacuum", "overlapping strokes"),
    ("fine dead algae to waste", "vacuum", "go to waste"),
    # Automatic cleaners.
    ("booster only while the filter pump runs", "booster_cleaner", "only while the filter pump runs"),
    ("booster off first", "booster_cleaner", "booster off first"),
    ("bag, wheels and hose are care", "booster_cleaner", "wheels and hose"),
    ("robot: mains last", "robot", "mains last"),
    ("robot: cable half way", "robot", "cable half way"),
    ("robot out before chemicals", "robot", "Out before chemicals go in"),
    ("robot: filter washed, dried", "robot", "Wash its own filter"),
    ("out while levels are high", "robot", "any cleaner stays out"),
    # Level and timer.
    ("half to two thirds", "level", "Half to two thirds up the skimmer mouth"),
    (
        "too high: backwash or waste",
        "level",
        "by a backwash and rinse if that is due, else by the waste setting",
    ),
    ("too low: pump off", "level", "pump off until it is up"),
    ("hose filter", "level", "hose filter"),
    ("leveler hides a leak", "level", "hides a leak"),
    ("both windows, after a power cut", "equipment", "after a power cut"),
    # Filter.
    ("never move the handle under power", "backwash", "Pump off. Handle to BACKWASH"),
    ("rinse after the wash", "backwash", "Handle to RINSE"),
    ("hose between the pleats, no pressure washer", "cartridge_hose", "No pressure washer"),
    ("cleaner before acid", "cartridge_soak", "Grease must go before any acid"),
    ("gauge at zero before it is opened", "cartridge_hose", "the gauge must read zero"),
    ("stand clear of the lid", "cartridge_hose", "stand clear"),
    ("new clean pressure", "backwash", "new clean pressure"),
    ("returns 45 degrees down", "returns", "45 degrees down"),
)


@pytest.mark.parametrize(("sentence", "procedure", "words"), SENTENCES, ids=[row[0] for row in SENTENCES])
def test_a_sentence_has_its_step(sentence: str, procedure: str, words: str) -> None:
    steps = [told(step.text) for step in PROCEDURES[procedure].steps]
    assert any(words in step for step in steps), sentence


def test_power_is_off_before_anything_is_opened() -> None:
    """The step that opens a pot, a lid or a housing comes after the pump is off."""
    for key in ("baskets", "cartridge_hose", "cartridge_soak", "cartridge_new", "de_clean"):
        steps = [told(step.text) for step in PROCEDURES[key].steps]
        off = next(n for n, step in enumerate(steps) if "Pump off" in step)
        opened = next(n for n, step in enumerate(steps) if "Air relief open" in step)
        assert off < opened, key
