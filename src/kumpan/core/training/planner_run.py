"""The same practice pool in the planner's hands: its plans followed to the letter, for comparison.

Source: simulated-world.
"""

from datetime import tzinfo

from kumpan.core.forecast.expected import expected_now
from kumpan.core.journal import PoolState
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import ADD, WAIT
from kumpan.core.training.game import (
    EVENING_HOUR,
    MORNING_HOUR,
    day_and_hour,
    new_player,
    scenario_by_key,
)
from kumpan.core.training.player import Player
from kumpan.core.training.rescuer import Rescuer
from kumpan.core.training.scenarios import Scenario
from kumpan.core.treatment.plan import Plan, plan
from kumpan.core.treatment.special.drain import DrainRequest, Hoses, drain_plan

SOURCE = "simulated-world"

SPLIT_AFTER_MIN = 600  # what a sheet puts on the other side of a long wait is reckoned from a new test
PARTS_MOST = 0.4


def planner_run(key: str, seed: int, zone: tzinfo) -> Player:
    """To the end of the scenario's days, or until it is won and the plan has nothing left to do."""
    scenario = scenario_by_key(key)
    player = new_player(scenario, seed)
    player.visual_check()
    if scenario.rescue is not None:
        Rescuer(
            player=player,
            setting=scenario.rescue,
            traits=scenario.traits,
            inventory=scenario.inventory,
            zone=zone,
            most_days=scenario.days,
        ).run()
    _keep(player, scenario)
    return player


def _keep(player: Player, scenario: Scenario) -> None:
    """Morning and evening: test, do the sheet, until it is won or the days are over."""
    while player.days < scenario.days and player.tally.won_on_day is None:
        player.visual_check()
        player.test(full=True)
        share = water_to_replace(player.state, scenario)
        if share:
            player.replace_water(min(PARTS_MOST, share))
            continue
        _pour(player, scenario, usual_plan(player.state, scenario))
        hour = day_and_hour(player)[1]
        player.wait(((EVENING_HOUR if hour < EVENING_HOUR - 4 else MORNING_HOUR) - hour - 1) % 24 + 1)


def usual_plan(state: PoolState, scenario: Scenario) -> Plan:
    """The sheet that the last test asks for."""
    readings = expected_now(state)
    own = bands(profile("household"), scenario.traits, readings.cyanuric_acid)
    return plan(
        readings,
        scenario.believed_volume_l,
        traits=scenario.traits,
        aims=Aims(own, {}),
        inventory=scenario.inventory,
    )


def water_to_replace(state: PoolState, scenario: Scenario) -> float:
    """The share of water that the draining plan replaces first; 0 where none is asked for."""
    readings = expected_now(state)
    own = bands(profile("household"), scenario.traits, readings.cyanuric_acid)
    fill = Readings(
        ph=7.6, total_alkalinity=scenario.fill_alkalinity, calcium_hardness=scenario.fill_calcium, salt=90.0
    )
    hoses = Hoses(7000.0, 1500.0, None)
    found = drain_plan(
        DrainRequest(
            readings=readings,
            volume_l=scenario.believed_volume_l,
            traits=scenario.traits,
            bands=own,
            fill=fill,
            hoses=hoses,
            measure=Measure.CYANURIC_ACID,
        )
    )
    return sum(step.water_l or 0.0 for step in found.steps) / scenario.believed_volume_l


def _pour(player: Player, scenario: Scenario, found: Plan) -> None:
    """What the sheet adds before its first long wait, at its times."""
    products = {product.id: product for product in scenario.inventory}
    start = player.world.now_s
    for step in found.steps:
        if step.kind == WAIT and (step.minutes or 0) > SPLIT_AFTER_MIN:
            return
        if step.kind == ADD and step.product_id in products:
            while player.world.now_s + 1 < start + 60 * step.offset_min:
                player.wait(1)
            player.add(products[step.product_id], step.rounded_g or 0.0)
