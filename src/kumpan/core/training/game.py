"""The practice pool as a game: moves in order, played again from the first each time, so that nothing is
kept but them.

Source: simulated-world.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import PoolState, TestTaken, VisualCheck
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantity import Number
from kumpan.core.training.goals import won
from kumpan.core.training.player import Player
from kumpan.core.training.scenarios import SCENARIOS, Scenario, new_world

SOURCE = "simulated-world"

MOST_MOVES = 200
EVENING_HOUR, MORNING_HOUR = 20, 7
UTC_OFFSET_H = -5  # the practice pools lie in the middle of North America, in summer
MOST_SHARE = 0.5


class MoveKind(StrEnum):
    """What a learner can do."""

    TEST = "test"
    FULL_TEST = "full_test"
    ADD = "add"
    BRUSH = "brush"
    CLEAN_FILTER = "clean_filter"
    REPLACE_WATER = "replace_water"
    CELL = "cell"
    WAIT_HOUR = "wait_hour"
    WAIT_EVENING = "wait_evening"
    WAIT_MORNING = "wait_morning"


@dataclass(frozen=True, kw_only=True)
class Move:
    """One move. `grams` of `product_id` to add, `share` of water to replace, `percent` to set the cell to."""

    kind: MoveKind
    product_id: str = ""
    grams: float = 0.0
    share: float = 0.0
    percent: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Played:
    """A move with what it showed. `day` counts from 1, `hour` on the pool's clock; before the move."""

    move: Move
    day: int
    hour: int
    visual_check: VisualCheck | None
    test: TestTaken | None


@dataclass(frozen=True, kw_only=True)
class Game:
    """The game after its moves."""

    scenario: Scenario
    player: Player
    played: tuple[Played, ...]
    first_visual_check: VisualCheck
    last_visual_check: VisualCheck
    gauge_kpa: float

    @property
    def over(self) -> bool:
        """The scenario's days are used up."""
        return self.player.days >= self.scenario.days

    @property
    def state(self) -> PoolState:
        """The practice pool as its journal tells it."""
        return self.player.state


def scenario_by_key(key: str) -> Scenario:
    """Raises InvalidInput for a pool that there is not."""
    if key not in SCENARIOS:
        raise InvalidInput(
            Message(
                "There is no such practice pool; choose one of: {known}.",
                known=Verbatim(", ".join(SCENARIOS)),
            ),
            "scenario",
        )
    return SCENARIOS[key]


def new_player(scenario: Scenario, seed: int) -> Player:
    """A learner at the beginning of a scenario."""
    prices = {item.product.id: item.price_per_g or 0.0 for item in scenario.stocked}
    return Player(
        world=new_world(scenario, seed),
        believed_volume_l=scenario.believed_volume_l,
        prices=prices,
        cell=scenario.cell,
        won=lambda world: won(scenario, world),
    )


def play(key: str, seed: int, moves: Sequence[Move]) -> Game:
    """All moves from the first. Raises InvalidInput for too many, or for one that cannot be."""
    scenario = scenario_by_key(key)
    if len(moves) > MOST_MOVES:
        raise InvalidInput(
            Message("A game has at most {most_moves} moves; finish it.", most_moves=Number(MOST_MOVES)),
            "moves",
        )
    player = new_player(scenario, seed)
    first = visual_check = player.visual_check()
    played = []
    for move in moves:
        if player.days >= scenario.days:
            break
        day, hour = day_and_hour(player)
        test = _do(player, scenario, move)
        if test is not None or move.kind in _PASSING:
            visual_check = player.visual_check()
        seen = visual_check if test is not None or move.kind in _PASSING else None
        played.append(Played(move=move, day=day, hour=hour, visual_check=seen, test=test))
    return Game(
        scenario=scenario,
        player=player,
        played=tuple(played),
        first_visual_check=first,
        last_visual_check=visual_check,
        gauge_kpa=player.world.gauge_kpa,
    )


_PASSING = (MoveKind.WAIT_HOUR, MoveKind.WAIT_EVENING, MoveKind.WAIT_MORNING, MoveKind.REPLACE_WATER)


def day_and_hour(player: Player) -> tuple[int, int]:
    """The day of the game, from 1, and the hour on the pool's clock."""
    local = player.world.now_s / 3600 + UTC_OFFSET_H
    start = player.world.start_s / 3600 + UTC_OFFSET_H
    return int(local // 24) - int(start // 24) + 1, int(local % 24)


def _do(player: Player, scenario: Scenario, move: Move) -> TestTaken | None:
    kind = move.kind
    if kind in (MoveKind.TEST, MoveKind.FULL_TEST):
        return player.test(full=kind is MoveKind.FULL_TEST)
    if kind is MoveKind.ADD:
        product = next((one for one in scenario.inventory if one.id == move.product_id), None)
        if product is None or not 0 < move.grams <= 1e6:
            raise InvalidInput(Message("Choose a product of this shelf and an amount over 0."), "moves")
        player.add(product, move.grams)
    elif kind is MoveKind.BRUSH:
        player.brush()
    elif kind is MoveKind.CLEAN_FILTER:
        player.clean_filter()
    elif kind is MoveKind.REPLACE_WATER:
        if not 0 < move.share <= MOST_SHARE:
            raise InvalidInput(
                Message("Replace at most half of the water at once, and more than none."), "moves"
            )
        player.replace_water(move.share)
    elif kind is MoveKind.CELL:
        _set_cell(player, scenario, move.percent)
    elif kind is MoveKind.WAIT_HOUR:
        player.wait(1)
    else:
        player.wait(_hours_until(player, EVENING_HOUR if kind is MoveKind.WAIT_EVENING else MORNING_HOUR))
    return None


def _set_cell(player: Player, scenario: Scenario, percent: float) -> None:
    if scenario.cell is None or not 0 <= percent <= 100:
        raise InvalidInput(
            Message("This pool has no cell to set, or the setting is not 0 to 100 %."), "moves"
        )
    player.world.water.cell_g_h = scenario.cell.output_g_per_h * percent / 100


def _hours_until(player: Player, hour: int) -> int:
    return (hour - day_and_hour(player)[1] - 1) % 24 + 1
