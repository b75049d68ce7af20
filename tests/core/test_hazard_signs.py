"""The short line of cautions stands for the full words and for nothing else."""

import pytest

from kumpan.core.hazard_signs import SIGNS, Sign, signs_for
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.wording.render import render

# A sign -> words of which one stands in the full cautions.
MEANT = {
    Sign.GOGGLES: ("Goggles", "face shield"),
    Sign.GLOVES: ("loves",),
    Sign.UPWIND: ("upwind", "fumes"),
    Sign.NEVER_MIX: ("Never mix", "never mixed", "poison gas", "chlorine gas", "calcium hypochlorite", "Nothing with chlorine"),
    Sign.NOT_SKIMMER: ("skimmer",),
    Sign.INTO_WATER: ("into water", "into a bucket", "Into a bucket", "much cold water"),
    Sign.NOBODY_IN: ("Nobody in", "Barrier"),
    Sign.DUST: ("dust", "Dust"),
    Sign.SLOWLY: ("little at a time", "small batches"),
    Sign.PUMP: ("ump off", "pump on", "pressure gone"),
    Sign.POWER_OFF: ("Breaker off", "Never power"),
    Sign.LABEL: ("label",),
}  # fmt: skip


@pytest.mark.parametrize("hazard", list(Hazard))
def test_each_sign_stands_in_the_full_words(hazard: Hazard) -> None:
    full = " ".join(render(one) for one in HAZARDS[hazard].cautions)
    for one in signs_for(hazard):
        assert any(word in full for word in MEANT[one.sign]), (hazard, one.sign)


def test_nothing_hazardous_is_without_a_sign() -> None:
    assert {hazard for hazard, row in HAZARDS.items() if row.hazardous and not SIGNS[hazard]} == set()


def test_what_burns_the_eyes_says_so() -> None:
    for hazard, row in HAZARDS.items():
        full = " ".join(render(one) for one in row.cautions)
        drawn = {one.sign for one in signs_for(hazard)}
        if "Goggles" in full or "face shield" in full:
            assert Sign.GOGGLES in drawn, hazard
