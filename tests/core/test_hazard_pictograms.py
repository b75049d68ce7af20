"""The short line of cautions stands for the full words and for nothing else."""

import pytest

from kumpan.core.hazard_pictograms import PICTOGRAMS, Pictogram, pictograms_for
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.wording.render import render

# A sign -> words of which one stands in the full cautions.
MEANT = {
    Pictogram.GOGGLES: ("Goggles", "face shield"),
    Pictogram.GLOVES: ("loves",),
    Pictogram.UPWIND: ("upwind", "fumes"),
    Pictogram.NEVER_MIX: ("Never mix", "never mixed", "poison gas", "chlorine gas", "calcium hypochlorite", "Nothing with chlorine"),
    Pictogram.NOT_SKIMMER: ("skimmer",),
    Pictogram.INTO_WATER: ("into water", "into a bucket", "Into a bucket", "much cold water"),
    Pictogram.NOBODY_IN: ("Nobody in", "Barrier"),
    Pictogram.DUST: ("dust", "Dust"),
    Pictogram.SLOWLY: ("little at a time", "small batches"),
    Pictogram.PUMP: ("ump off", "pump on", "pressure gone"),
    Pictogram.POWER_OFF: ("Breaker off", "Never power"),
    Pictogram.LABEL: ("label",),
}  # fmt: skip


@pytest.mark.parametrize("hazard", list(Hazard))
def test_each_sign_stands_in_the_full_words(hazard: Hazard) -> None:
    full = " ".join(render(one) for one in HAZARDS[hazard].cautions)
    for one in pictograms_for(hazard):
        assert any(word in full for word in MEANT[one.pictogram]), (hazard, one.pictogram)


def test_nothing_hazardous_is_without_a_sign() -> None:
    assert {hazard for hazard, row in HAZARDS.items() if row.hazardous and not PICTOGRAMS[hazard]} == set()


def test_what_burns_the_eyes_says_so() -> None:
    for hazard, row in HAZARDS.items():
        full = " ".join(render(one) for one in row.cautions)
        drawn = {one.pictogram for one in pictograms_for(hazard)}
        if "Goggles" in full or "face shield" in full:
            assert Pictogram.GOGGLES in drawn, hazard
