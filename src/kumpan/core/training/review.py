"""The learner's game beside the planner's on the same pool, and what made the difference.

Source: simulated-world.
"""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import tzinfo

from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import changes
from kumpan.core.dosing.order_and_waits import separation
from kumpan.core.findings import Finding
from kumpan.core.journal import AdditionMade, Entry, fold
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.records.step import ADD
from kumpan.core.training.game import Game, MoveKind, Played
from kumpan.core.training.goals import Goal, goals
from kumpan.core.training.planner_run import planner_run, usual_plan, water_to_replace
from kumpan.core.training.player import Player, Tally

SOURCE = "simulated-world"

TESTED_WITHIN_H = 24
MUCH_MORE, MUCH_LESS = 1.5, 0.6
LESSONS_MOST = 8


@dataclass(frozen=True)
class Side:
    """One run in figures. `won_on_day` counts from 1; None where the goals were not reached."""

    won_on_day: int | None
    tally: Tally
    goals: tuple[Goal, ...]


@dataclass(frozen=True)
class Review:
    """Both runs, and the lessons in the order of the game."""

    learner: Side
    planner: Side
    lessons: tuple[Finding, ...]
    lesson: Message


def review(game: Game, seed: int, zone: tzinfo) -> Review:
    """At the end: the truth, the planner's run on the same pool, and what differed."""
    other = planner_run(game.scenario.key, seed, zone)
    lessons = tuple(_lessons(game, other))[:LESSONS_MOST]
    return Review(_side(game.player, game), _side(other, game), lessons, game.scenario.lesson)


def _side(player: Player, game: Game) -> Side:
    day = player.tally.won_on_day
    return Side(None if day is None else int(day) + 1, player.tally, goals(game.scenario, player.world))


def _lessons(game: Game, other: Player) -> Iterator[Finding]:
    yield from _tests(game)
    yield from _pours(game)
    yield from _mixed(game.played, game)
    yield from _water(game)
    yield from _course(game, other)


def _tests(game: Game) -> Iterator[Finding]:
    full = [p for p in game.played if p.move.kind is MoveKind.FULL_TEST]
    pours = [p for p in game.played if p.move.kind is MoveKind.ADD]
    if not full:
        text = Message(
            "No full test: stabilizer, alkalinity and calcium stayed unknown, and most amounts hang on them."
        )
        yield Finding("no_full_test", text)
    blind = [p for p in pours if not _tested_before(game.played, p)]
    if blind:
        text = Message(
            "Day {day}: poured without a test of the last day. The plan computes each pour from a test.",
            day=Number(blind[0].day),
        )
        yield Finding("blind_pour", text)


def _hours(one: Played) -> int:
    return one.day * 24 + one.hour


def _tested_before(played: Sequence[Played], pour: Played) -> bool:
    return any(
        p.test is not None and _hours(pour) - TESTED_WITHIN_H <= _hours(p)
        for p in played[: played.index(pour)]
    )


def _pours(game: Game) -> Iterator[Finding]:
    """Each pour against what the plan asked for at the same readings; in a rescue its level counts."""
    products = {product.id: product for product in game.scenario.inventory}
    for n, one in enumerate(game.played):
        if one.move.kind is MoveKind.ADD:
            product = products[one.move.product_id]
            yield from _over_cap(game, one, product) or _against_plan(game, n, one, product)


def _over_cap(game: Game, one: Played, product: Product) -> tuple[Finding, ...]:
    cap = highest_planned_mg_l(game.scenario.traits)
    rise = changes(product, one.move.grams, game.scenario.believed_volume_l).get(Measure.FREE_CHLORINE, 0.0)
    if rise <= cap:
        return ()
    text = Message(
        "Day {day}: {label} for {rise} of free chlorine at once; {cap} is the most this pool bears.",
        day=Number(one.day),
        label=Verbatim(product.label),
        rise=Number(rise, digits=0),
        cap=Number(cap, digits=0),
    )
    return (Finding("over_cap", text),)


def _against_plan(game: Game, n: int, one: Played, product: Product) -> tuple[Finding, ...]:
    if game.scenario.rescue is not None and product.chemical in CHLORINE_CARRIERS:
        return ()  # a rescue's rounds are judged by their course
    wanted = _wanted_g(game, n, product.id)
    if wanted is None:
        return ()
    if wanted <= 0:
        text = Message(
            "Day {day}: {label} was not asked for by the last test.",
            day=Number(one.day),
            label=Verbatim(product.label),
        )
        return (Finding("not_asked", text),)
    if MUCH_LESS * wanted <= one.move.grams <= MUCH_MORE * wanted:
        return ()
    text = Message(
        "Day {day}: {times} times the {label} that the plan would pour at these readings.",
        day=Number(one.day),
        times=Number(one.move.grams / wanted, digits=1),
        label=Verbatim(product.label),
    )
    return (Finding("other_amount", text),)


def _wanted_g(game: Game, number: int, product_id: str) -> float | None:
    """What the plan would pour of a product at what the learner knew; None before any test."""
    entries = _entries_before(game, number)
    state = fold(entries)
    if state.last_test is None:
        return None
    found = usual_plan(state, game.scenario)
    return sum(
        step.rounded_g or 0.0 for step in found.steps if step.kind == ADD and step.product_id == product_id
    )


def _entries_before(game: Game, number: int) -> list[Entry]:
    """The journal as it was before a pour: up to the same count of pours."""
    pours = sum(p.move.kind is MoveKind.ADD for p in game.played[:number])
    found, seen = [], 0
    for entry in game.player.entries:
        if isinstance(entry.body, AdditionMade):
            if seen == pours:
                break
            seen += 1
        found.append(entry)
    return found


def _mixed(played: Sequence[Played], game: Game) -> Iterator[Finding]:
    products = {product.id: product for product in game.scenario.inventory}
    adds = [p for p in played if p.move.kind is MoveKind.ADD]
    for first, then in itertools.pairwise(adds):
        one, other = products[first.move.product_id], products[then.move.product_id]
        row = separation(one.chemical, other.chemical)
        if one.chemical != other.chemical and (_hours(then) - _hours(first)) * 60 < row.minutes:
            text = Message(
                "Day {day}: {label} within the wait after {label_2}: {why}.",
                day=Number(then.day),
                label=Verbatim(other.label),
                label_2=Verbatim(one.label),
                why=row.why,
            )
            yield Finding("too_soon", text)


def _water(game: Game) -> Iterator[Finding]:
    replaced = any(p.move.kind is MoveKind.REPLACE_WATER for p in game.played)
    share = water_to_replace(game.state, game.scenario) if game.state.last_test is not None else 0.0
    if share and not replaced:
        text = Message("Stabilizer over its range comes down by new water only; none was replaced.")
        yield Finding("no_water", text, Measure.CYANURIC_ACID)


def _course(game: Game, other: Player) -> Iterator[Finding]:
    mine, theirs = game.player.tally, other.tally
    if mine.hours_without > theirs.hours_without + 6:
        text = Message(
            "For {hours_without} hours there was no chlorine at all; the plan's pool went "
            "{hours_without_2} without.",
            hours_without=Number(mine.hours_without),
            hours_without_2=Number(theirs.hours_without),
        )
        yield Finding("ran_dry", text, Measure.FREE_CHLORINE)
    if game.scenario.rescue is not None:
        brushed = any(p.move.kind is MoveKind.BRUSH for p in game.played)
        cleaned = any(p.move.kind is MoveKind.CLEAN_FILTER for p in game.played)
        if not brushed:
            yield Finding(
                "not_brushed", Message("Nothing was brushed: what sits on walls is out of chlorine's reach.")
            )
        if not cleaned:
            yield Finding(
                "not_cleaned", Message("The filter was never cleaned: a full one takes nothing out any more.")
            )
        if mine.chlorine_mg_l < 0.6 * theirs.chlorine_mg_l:
            text = Message(
                "{chlorine} ppm of chlorine in all; the plan took {chlorine_2}: it holds the level until a "
                "night costs less than 1.",
                chlorine=Number(mine.chlorine_mg_l, digits=0),
                chlorine_2=Number(theirs.chlorine_mg_l, digits=0),
            )
            yield Finding("too_little", text, Measure.FREE_CHLORINE)
    if mine.cost > 1.5 * theirs.cost + 5:
        yield Finding(
            "dear",
            Message(
                "It cost {cost}, the plan's run {cost_2}.",
                cost=Number(mine.cost, digits=0),
                cost_2=Number(theirs.cost, digits=0),
            ),
        )
