"""The key to what is in the water: the handbook's table row by row, confidence, and what would settle it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.algae.identify import KINDS, LIKELY, QUESTIONS, SURE, Kind, identify
from kumpan.core.errors import InvalidInput
from tests.words import told

ANSWERS = st.fixed_dictionaries(
    {},
    optional={
        question.key: st.sampled_from([choice.key for choice in question.choices]) for question in QUESTIONS
    },
)


@pytest.mark.parametrize(
    ("answers", "kind"),
    [
        # Handbook 07, common practice: look, where, brush, history.
        ({"look": "haze", "place": "everywhere", "touch": "off", "history": "low_chlorine"}, Kind.GREEN),
        ({"look": "film", "place": "shade", "touch": "off", "history": "low_chlorine"}, Kind.GREEN),
        ({"look": "dust", "place": "shade", "touch": "easy", "history": "returns"}, Kind.MUSTARD),
        ({"look": "spots", "place": "pits", "touch": "holds", "history": "returns"}, Kind.BLACK),
        ({"look": "dust", "place": "surface", "touch": "nothing", "history": "flowers"}, Kind.POLLEN),
        ({"look": "dust", "place": "floor", "touch": "grains", "history": "wind"}, Kind.SAND),
        ({"look": "tint", "place": "everywhere", "touch": "nothing", "history": "copper"}, Kind.METAL),
        ({"look": "cloud", "place": "everywhere", "touch": "nothing", "history": "shock"}, Kind.DEAD),
    ],
)
def test_the_handbooks_rows_are_told_apart_surely(answers: dict[str, str], kind: Kind) -> None:
    found = identify(answers)
    assert found.candidates[0].kind is kind
    assert found.candidates[0].share >= SURE
    assert told(found.confidence) == "quite sure"
    assert found.headline == found.candidates[0].name
    assert found.ask_next is None


def test_mustard_is_rare_and_dust_alone_is_not_it() -> None:
    """Handbook 07: truly rare, often misnamed; taken for sand or dirt."""
    found = identify({"look": "dust"})
    assert found.candidates[0].kind is not Kind.MUSTARD
    assert found.candidates[0].share < LIKELY
    assert told(found.headline) == "Not clear yet"
    assert found.ask_next is not None


def test_a_stain_is_not_shocked() -> None:
    found = identify({"look": "tint", "touch": "holds", "history": "copper"})
    assert found.candidates[0].kind is Kind.METAL
    assert "not now" in told(found.then)


@given(ANSWERS)
def test_shares_are_shares_and_the_likeliest_comes_first(answers: dict[str, str]) -> None:
    found = identify(answers)
    shares = [one.share for one in found.candidates]
    assert sum(shares) == pytest.approx(1)
    assert shares == sorted(shares, reverse=True)
    assert len(shares) == len(KINDS)
    assert found.settles
    assert found.then
    assert (found.ask_next is None) == (len(answers) == len(QUESTIONS))


@given(ANSWERS)
def test_what_is_asked_next_is_still_open(answers: dict[str, str]) -> None:
    request = identify(answers).ask_next
    assert request is None or request not in answers


def test_every_answer_weighs_every_kind() -> None:
    for question in QUESTIONS:
        for choice in question.choices:
            assert len(choice.fits) == len(KINDS)
            assert all(0 < fit <= 10 for fit in choice.fits)
    for n, row in enumerate(KINDS):  # each kind is what some answer of some question speaks for most
        assert any(max(choice.fits) == choice.fits[n] for q in QUESTIONS for choice in q.choices), row.kind


@pytest.mark.parametrize("answers", [{"smell": "bad"}, {"look": "weird"}])
def test_what_is_not_in_the_key_is_refused(answers: dict[str, str]) -> None:
    with pytest.raises(InvalidInput):
        identify(answers)
