"""One season of the five pools, simulated: what each journal is told, ending where it is loaded."""

from dataclasses import dataclass, replace
from datetime import datetime

from kumpan.core.journal import AdditionMade
from kumpan.core.simulation.carer import Carer, Report
from kumpan.core.simulation.world import World
from kumpan.demo.scenario import CLIMATE, SECOND_TECHNICIAN, DemoPool

DAYS = 140
LAST_CHECK_BEFORE_S = 2_400.0


@dataclass(frozen=True)
class Line:
    """Something told, and by whom."""

    reported: Report
    person: str


def season(demo: DemoPool, now: datetime) -> list[Line]:
    """Everything of one pool's season, in order. A pool that was given up is found at the end."""
    end_s = now.timestamp()
    world = World(
        nature=demo.nature,
        climate=CLIMATE,
        water=replace(demo.water),
        start_s=end_s - DAYS * 86_400,
        seed=demo.seed,
    )
    carer = Carer(world=world, preferences=demo.preferences)
    lines = [
        Line(reported, demo.person)
        for reported in carer.season(DAYS)
        if reported.at_s < end_s - 2 * LAST_CHECK_BEFORE_S
    ]
    if demo.preferences.gives_up_after_day is not None:
        at = end_s - LAST_CHECK_BEFORE_S
        found = (Report(at, carer.visual_check()), Report(at + 300, carer.test(full=True)))
        lines += [Line(reported, SECOND_TECHNICIAN) for reported in found]
    return lines


def poured_g(lines: list[Line]) -> dict[str, float]:
    """Grams by product id, for what has to have been bought."""
    found: dict[str, float] = {}
    for line in lines:
        body = line.reported.body
        if isinstance(body, AdditionMade) and body.product_id is not None:
            found[body.product_id] = found.get(body.product_id, 0.0) + body.mass_g
    return found
