"""The rules one pool is kept by: schools, own ranges, answers where practitioners differ, the way of
chlorine.
"""

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import SettingsMade
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.chlorine_targets import hypochlorous_mg_l, reference_hypochlorous_mg_l
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.ranges.disagreements import QUESTIONS, answer
from kumpan.core.ranges.pool_rules import check_rules, rules_for
from kumpan.core.ranges.profiles import Band
from tests.core.samples import GOOD, PLASTER, SALT_POOL
from tests.words import told

MINERAL = Traits(surface=Surface.VINYL, chlorination=Chlorination.MINERAL, filter=Filter.SAND)
FREE = Measure.FREE_CHLORINE


def made(
    *choices: tuple[str, str],
    own: tuple[OwnRange, ...] = (),
    public: bool = False,
    limit: float | None = None,
) -> SettingsMade:
    return SettingsMade(
        name="P",
        place="",
        time_zone="UTC",
        profile="household",
        public=public,
        swim_limit_mg_l=limit,
        own_ranges=own,
        choices=tuple(Chosen(*c) for c in choices),
    )


def test_every_question_has_a_default_with_a_reason() -> None:
    for question in QUESTIONS:
        assert len(question.answers) > 1
        assert all(option.reason and option.label for option in question.answers)
        assert answer((), question.key) == question.default


def test_without_choices_the_school_stands() -> None:
    rules = rules_for(made(), PLASTER, GOOD)
    assert (told(rules.name), rules.bands[FREE], rules.swim_limit_mg_l) == ("Household", Band(2, 3, 2.5), 4.0)


def test_a_limit_kept_from_before_is_never_over_ten() -> None:
    """Handbook 05: never above 10, whatever is typed; one place, so that swim answer and plans agree."""
    assert rules_for(made(limit=20), PLASTER, GOOD).swim_limit_mg_l == 10
    check_rules(made(limit=10))


def test_by_stabilizer_ratio() -> None:
    """Handbook 03: at least a twentieth of stabilizer, about twice that to work with; never under the fixed
    least.
    """
    by_50 = rules_for(
        made(("chlorine", "ratio"), limit=10), PLASTER, GOOD.with_value(Measure.CYANURIC_ACID, 50)
    )
    assert (by_50.bands[FREE].low, by_50.bands[FREE].aim) == (2.5, 5.0)
    assert "stabilizer ratio" in told(by_50.name)
    by_20 = rules_for(
        made(("chlorine", "ratio"), limit=10), PLASTER, GOOD.with_value(Measure.CYANURIC_ACID, 20)
    )
    assert by_20.bands[FREE].low == 2.0


def test_over_the_swim_limit_dilution_is_named() -> None:
    """Handbook 03: where both cannot hold it is said, and that dilution is the way out."""
    rules = rules_for(made(("chlorine", "ratio")), PLASTER, GOOD.with_value(Measure.CYANURIC_ACID, 90))
    assert rules.bands[FREE].low == 4.5
    assert "replacing water" in told(rules.findings[0].text)
    held = rules_for(made(("chlorine", "ratio")), PLASTER, GOOD.with_value(Measure.CYANURIC_ACID, 50))
    assert (held.bands[FREE].aim, held.findings[0].code) == (4.0, "way_held_at_limit")


def test_by_active_chlorine_the_least_is_as_strong_as_the_reference() -> None:
    readings = GOOD.with_value(Measure.CYANURIC_ACID, 80)
    band = rules_for(made(("chlorine", "active"), limit=20), PLASTER, readings).bands[FREE]
    strength = hypochlorous_mg_l(readings.with_value(FREE, band.low))
    assert strength == pytest.approx(reference_hypochlorous_mg_l(), rel=0.03)


def test_a_way_that_cannot_be_reckoned_says_so_and_the_fixed_range_holds() -> None:
    rules = rules_for(made(("chlorine", "ratio")), PLASTER, GOOD.with_value(Measure.CYANURIC_ACID, None))
    assert rules.bands[FREE] == Band(2, 3, 2.5)
    assert rules.findings[0].code == "way_not_known"


def test_own_ranges_go_before_the_school() -> None:
    rules = rules_for(made(own=(OwnRange(Measure.PH, 7.2, 7.6, 7.4),)), PLASTER, GOOD)
    assert rules.bands[Measure.PH] == Band(7.2, 7.6, 7.4)
    assert told(rules.name) == "Own, from Household"


def test_calcium_and_stabilizer_answers() -> None:
    rules = rules_for(made(("calcium", "careful"), ("stabiliser", "tablets")), PLASTER, GOOD)
    assert rules.bands[Measure.CALCIUM_HARDNESS] == Band(200, 300, 250)
    assert rules.bands[Measure.CYANURIC_ACID] == Band(40, 100, 75)


def test_less_chlorine_only_beside_a_mineral_unit_and_never_in_public() -> None:
    choice = ("supplement", "lower")
    assert rules_for(made(choice), MINERAL, GOOD).bands[FREE].low == 0.5
    assert rules_for(made(choice), SALT_POOL, GOOD).bands[FREE].low == 2
    assert rules_for(made(choice, public=True), MINERAL, GOOD).bands[FREE].low == 2
    with pytest.raises(InvalidInput, match="public"):
        check_rules(made(choice, public=True))


@pytest.mark.parametrize(("settings", "words"), [
    (made(("chlorine", "magic")), "choose one of"),
    (made(("colour", "blue")), "not a question"),
    (made(limit=10.5), "Nobody swims over"),
    (made(own=(OwnRange(Measure.PH, 7.8, 7.2, 7.5),)), "must rise"),
    (made(own=(OwnRange(Measure.PH, 7.2, 7.8, None),)), "the aim"),
    (made(own=(OwnRange(Measure.COPPER, 0, 1, 0.5),)), "no range of its own"),
])  # fmt: skip
def test_bad_rules_are_refused_with_the_cure(settings: SettingsMade, words: str) -> None:
    with pytest.raises(InvalidInput, match=words):
        check_rules(settings)
