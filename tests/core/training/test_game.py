"""The practice pool: the same moves give the same game, the planner wins every one, and the review says
why.
"""

from zoneinfo import ZoneInfo

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.quantities.readings import Measure
from kumpan.core.training.game import MOST_MOVES, Game, Move, MoveKind, day_and_hour, play
from kumpan.core.training.planner_run import planner_run
from kumpan.core.training.review import review
from kumpan.core.training.scenarios import SCENARIOS
from tests.words import told

ZONE = ZoneInfo("America/Chicago")
K = MoveKind
NIGHT_AND_DAY = (Move(kind=K.WAIT_EVENING), Move(kind=K.WAIT_MORNING))


def lessons(game: Game, seed: int = 3) -> set[str]:
    return {lesson.code for lesson in review(game, seed, ZONE).lessons}


def test_there_are_five_pools_and_more_is_told_than_true() -> None:
    """The scenarios that a learner should meet: green, creeping stabilizer, a scaling cell, after a party,
    the first day.
    """
    assert set(SCENARIOS) == {"holiday", "creep", "cell", "party", "spring"}
    for row in SCENARIOS.values():
        assert row.goals
        assert row.inventory
        assert len({product.id for product in row.inventory}) == len(row.inventory)


@given(
    st.sampled_from(sorted(SCENARIOS)),
    st.integers(1, 1000),
    st.lists(
        st.sampled_from([K.TEST, K.FULL_TEST, K.BRUSH, K.CLEAN_FILTER, K.WAIT_HOUR, K.WAIT_EVENING]),
        max_size=12,
    ),
)
@settings(max_examples=15, deadline=None)
def test_the_same_moves_give_the_same_game(key: str, seed: int, kinds: list[MoveKind]) -> None:
    moves = [Move(kind=kind) for kind in kinds]
    first, again = play(key, seed, moves), play(key, seed, moves)
    assert first.played == again.played
    assert first.player.world.water == again.player.world.water


def test_a_move_more_leaves_what_was_shown_before() -> None:
    """A game is its moves: going on changes nothing of what one has seen."""
    moves = [Move(kind=K.FULL_TEST), Move(kind=K.WAIT_EVENING), Move(kind=K.TEST)]
    assert play("party", 5, moves).played == play("party", 5, [*moves, Move(kind=K.BRUSH)]).played[:3]


def test_evening_and_morning_come_when_they_are_waited_for() -> None:
    game = play("creep", 2, [Move(kind=K.WAIT_EVENING)])
    assert day_and_hour(game.player) == (1, 20)
    assert day_and_hour(play("creep", 2, NIGHT_AND_DAY).player) == (2, 7)


@pytest.mark.parametrize("key", sorted(SCENARIOS))
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_the_planner_wins_every_pool_in_its_days(key: str, seed: int) -> None:
    """Following the plans to the letter on a hidden water, with a noisy kit and a volume that is not quite
    right.
    """
    player = planner_run(key, seed, ZONE)
    assert player.tally.won_on_day is not None
    assert player.tally.won_on_day <= SCENARIOS[key].days


@pytest.mark.parametrize("key", sorted(SCENARIOS))
def test_who_only_waits_does_not_win(key: str) -> None:
    """Each pool needs hands: two days of waiting leave at least one goal open."""
    game = play(key, 3, NIGHT_AND_DAY * 2)
    found = review(game, 3, ZONE)
    assert not all(goal.met for goal in found.learner.goals)
    assert "no_full_test" in lessons(game)


def test_pouring_blind_and_much_is_told() -> None:
    game = play("cell", 3, [Move(kind=K.ADD, product_id="soda", grams=9000.0), *NIGHT_AND_DAY])
    assert "blind_pour" in lessons(game)
    tested = play(
        "cell", 3, [Move(kind=K.FULL_TEST), Move(kind=K.ADD, product_id="soda", grams=9000.0), *NIGHT_AND_DAY]
    )
    assert "not_asked" in lessons(tested)
    assert "blind_pour" not in lessons(tested)


def test_three_times_the_acid_is_told_as_such() -> None:
    """By the same readings the plan pours a part of it."""
    game = play(
        "cell",
        3,
        [Move(kind=K.FULL_TEST), Move(kind=K.ADD, product_id="acid", grams=12_000.0), *NIGHT_AND_DAY],
    )
    other = next(lesson for lesson in review(game, 3, ZONE).lessons if lesson.code == "other_amount")
    assert "times the Muriatic acid" in told(other.text)


def test_chlorine_over_what_the_pool_bears_is_told() -> None:
    assert "over_cap" in lessons(
        play("party", 3, [Move(kind=K.FULL_TEST), Move(kind=K.ADD, product_id="liquid", grams=30_000.0)])
    )


def test_acid_right_after_chlorine_is_told() -> None:
    """Handbook 05: acid and chlorine an hour apart at least."""
    hurried = [
        Move(kind=K.FULL_TEST),
        Move(kind=K.ADD, product_id="liquid", grams=900.0),
        Move(kind=K.ADD, product_id="acid", grams=400.0),
    ]
    assert "too_soon" in lessons(play("cell", 3, hurried))
    slow = [*hurried[:2], Move(kind=K.WAIT_HOUR), Move(kind=K.WAIT_HOUR), hurried[2]]
    assert "too_soon" not in lessons(play("cell", 3, slow))


def test_stabilizer_without_new_water_is_told() -> None:
    game = play("creep", 3, [Move(kind=K.FULL_TEST), *NIGHT_AND_DAY])
    assert "no_water" in lessons(game)
    drained = play(
        "creep",
        3,
        [
            Move(kind=K.FULL_TEST),
            Move(kind=K.REPLACE_WATER, share=0.4),
            Move(kind=K.REPLACE_WATER, share=0.4),
        ],
    )
    assert "no_water" not in lessons(drained)
    assert drained.player.world.water.stabilizer < 60


def test_new_water_takes_its_hours_and_its_money() -> None:
    before, after = play("creep", 3, []), play("creep", 3, [Move(kind=K.REPLACE_WATER, share=0.5)])
    assert after.player.days - before.player.days == pytest.approx(15 / 24)
    assert after.player.tally.cost == pytest.approx(0.5 * 45 * 1.6)


def test_nothing_brushed_nothing_cleaned_is_told_at_a_green_pool() -> None:
    assert {"not_brushed", "not_cleaned", "too_little", "ran_dry"} <= lessons(
        play("holiday", 3, NIGHT_AND_DAY * 3)
    )


def test_tablets_only_begin_to_dissolve() -> None:
    """A tablet in the feeder is no shock: after an hour next to nothing is in the water."""
    game = play("holiday", 3, [Move(kind=K.ADD, product_id="tablets", grams=500.0), Move(kind=K.WAIT_HOUR)])
    assert game.player.tally.chlorine_mg_l == 0
    assert game.player.world.mean_free < 0.3


def test_a_kit_shows_steps_and_has_its_noise() -> None:
    shown = [play("cell", seed, [Move(kind=K.FULL_TEST)]).played[0].test for seed in range(1, 9)]
    ph = {
        value.value
        for test in shown
        if test is not None
        for value in test.values
        if value.measure is Measure.PH
    }
    assert len(ph) > 1
    assert all(abs(value * 10 - round(value * 10)) < 1e-9 for value in ph)


@pytest.mark.parametrize(
    ("key", "moves", "said"),
    [
        ("pond", [], "no such practice pool"),
        ("party", [Move(kind=K.ADD, product_id="gold", grams=5.0)], "product of this shelf"),
        ("party", [Move(kind=K.ADD, product_id="liquid", grams=0.0)], "over 0"),
        ("party", [Move(kind=K.REPLACE_WATER, share=0.9)], "at most half"),
        ("party", [Move(kind=K.CELL, percent=50)], "no cell"),
        ("party", [Move(kind=K.BRUSH)] * (MOST_MOVES + 1), "at most"),
    ],
)  # fmt: skip
def test_a_move_that_cannot_be_is_refused(key: str, moves: list[Move], said: str) -> None:
    with pytest.raises(InvalidInput, match=said):
        play(key, 1, moves)


def test_the_game_ends_with_its_days() -> None:
    game = play("party", 1, [Move(kind=K.WAIT_EVENING), Move(kind=K.WAIT_MORNING)] * 12)
    assert game.over
    assert game.player.days < SCENARIOS["party"].days + 1
