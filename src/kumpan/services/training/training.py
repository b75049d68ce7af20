"""The practice pool: scenarios, a game played from its moves, the review at the end.

Nothing of it is kept here.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from kumpan.core.dosing.typed_amount import read_amount
from kumpan.core.journal import TestTaken
from kumpan.core.messages import NOTHING, Message, Verbatim, joined
from kumpan.core.pool.equipment import CHLORINATIONS, FILTERS, SURFACES
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Clock, Liquid, Mass, Number, PoolWater, Pressure
from kumpan.core.training.game import (
    Game,
    Move,
    MoveKind,
    Played,
    day_and_hour,
    play,
    scenario_by_key,
)
from kumpan.core.training.goals import titles
from kumpan.core.training.review import review
from kumpan.core.training.scenarios import SCENARIOS, TIME_ZONE, Scenario
from kumpan.services.training.views import (
    GameView,
    PracticeLine,
    PracticeProduct,
    PracticeReading,
    ScenarioView,
)


@dataclass(frozen=True, kw_only=True)
class MoveTyped:
    """A move with its amount as typed."""

    kind: MoveKind
    product_id: str = ""
    amount: str = ""
    share: float = 0.0
    percent: float = 0.0


def scenarios() -> tuple[ScenarioView, ...]:
    """All practice pools."""
    return tuple(_scenario(row) for row in SCENARIOS.values())


def _scenario(row: Scenario) -> ScenarioView:
    traits = row.traits
    words = joined(
        [
            PoolWater(row.believed_volume_l),
            SURFACES[traits.surface],
            CHLORINATIONS[traits.chlorination],
            FILTERS[traits.filter],
        ]
    )
    inventory = tuple(
        PracticeProduct(
            id=p.id, label=p.label, package=_package(p), price=item.price, is_liquid=p.row.is_liquid
        )
        for item in row.stocked
        for p in (item.product,)
    )
    return ScenarioView(
        key=row.key,
        title=row.title,
        story=row.story,
        goals=titles(row),
        days=row.days,
        pool=Message("{words}", words=words),
        has_cell=row.cell is not None,
        inventory=inventory,
    )


def _clock(hour: int) -> Message:
    """The hour of the practice pool's day, as the reader tells time."""
    return Message("{clock}", clock=Clock(datetime(2026, 6, 1, hour, tzinfo=UTC)))


def _package(product: Product) -> Message:
    if product.package_ml is not None:
        return Message("{amount}", amount=Liquid(product.package_ml))
    return NOTHING if product.package_g is None else Message("{amount}", amount=Mass(product.package_g))


def played(key: str, seed: int, typed: Sequence[MoveTyped], *, finished: bool, units: Units) -> GameView:
    """The game after its moves; with the review once it is finished or its days are over.

    Raises InvalidInput, UnreadableQuantity for an amount that cannot be read.
    """
    row = scenario_by_key(key)
    moves = [_move(row, one, units) for one in typed]
    game = play(key, seed, moves)
    day, hour = day_and_hour(game.player)
    zone = ZoneInfo(TIME_ZONE)
    done = finished or game.over
    return GameView(
        scenario=_scenario(row),
        day=min(day, row.days),
        clock=_clock(hour),
        days_left=max(0, row.days - int(game.player.days)),
        first_clarity=game.first_visual_check.clarity,
        clarity=game.last_visual_check.clarity,
        odd=game.last_visual_check.odd,
        gauge=Message("{pressure}", pressure=Pressure(game.gauge_kpa)),
        cost=game.player.tally.cost,
        lines=tuple(_line(game, one) for one in game.played),
        over=done,
        review=review(game, seed, zone) if done else None,
    )


def _move(row: Scenario, typed: MoveTyped, units: Units) -> Move:
    if typed.kind is not MoveKind.ADD:
        return Move(kind=typed.kind, share=typed.share, percent=typed.percent)
    product = next((one for one in row.inventory if one.id == typed.product_id), None)
    grams = 0.0 if product is None else read_amount(product, typed.amount, units=units).mass_g
    return Move(kind=MoveKind.ADD, product_id=typed.product_id, grams=grams)


_WORDS = {
    MoveKind.TEST: Message("Tested"),
    MoveKind.FULL_TEST: Message("Tested everything"),
    MoveKind.BRUSH: Message("Brushed walls and floor"),
    MoveKind.CLEAN_FILTER: Message("Cleaned the filter"),
    MoveKind.WAIT_HOUR: Message("Waited an hour"),
    MoveKind.WAIT_EVENING: Message("Waited until evening"),
    MoveKind.WAIT_MORNING: Message("Waited until morning"),
}


def _line(game: Game, one: Played) -> PracticeLine:
    return PracticeLine(
        day=one.day,
        clock=_clock(one.hour),
        text=_reported(game, one.move),
        readings=_readings(one.test),
        clarity=None if one.visual_check is None else one.visual_check.clarity,
    )


def _reported(game: Game, move: Move) -> Message:
    if move.kind is MoveKind.ADD:
        product = next(p for p in game.scenario.inventory if p.id == move.product_id)
        ml = volume_from_mass_ml(product, move.grams)
        amount = Mass(move.grams) if ml is None else Liquid(ml)
        return Message("Added {amount} of {label}", amount=amount, label=Verbatim(product.label))
    if move.kind is MoveKind.REPLACE_WATER:
        return Message("Replaced {share} % of the water", share=Number(100 * move.share, digits=0))
    if move.kind is MoveKind.CELL:
        return Message("Set the cell to {percent} %", percent=Number(move.percent, digits=0))
    return _WORDS[move.kind]


def _readings(test: TestTaken | None) -> tuple[PracticeReading, ...]:
    return () if test is None else tuple(PracticeReading(v.measure, v.value) for v in test.values)
