"""When a practice pool is won: by the truth, not by the kit. Source: simulated-world."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.quantities.readings import Readings
from kumpan.core.simulation.green_world import GreenWorld
from kumpan.core.training.scenarios import Scenario

SOURCE = "simulated-world"


@dataclass(frozen=True)
class Goal:
    """One goal; `met` by the truth, `text` how it stands in truth."""

    key: str
    title: str
    met: bool
    text: str


def truth(world: GreenWorld) -> Readings:
    """The true water as readings."""
    w = world.water
    return Readings(
        world.mean_free, world.mean_free + w.combined, w.ph, w.alkalinity, w.calcium, w.stabilizer, w.salt,
        temperature_c=w.temperature_c,
    )  # fmt: skip


def true_index(world: GreenWorld) -> float:
    """The scaling index of the true water."""
    known = known_from(truth(world))
    state = solve_readings(known) if known is not None else None
    return float(saturation_index(state)) if isinstance(state, State) else 0.0


def _clear(world: GreenWorld) -> tuple[bool, str]:
    return world.shown < 1.0, f"cloud {world.shown:.1f}, 1 is where the drain is plain to see"


def _dead(world: GreenWorld) -> tuple[bool, str]:
    return world.water.bloom < 0.5, f"what lives would take {world.water.bloom:.1f} ppm a day"


def _combined(world: GreenWorld) -> tuple[bool, str]:
    return world.water.combined <= 0.55, f"{world.water.combined:.1f}"


def _ph(world: GreenWorld) -> tuple[bool, str]:
    return 7.15 <= world.water.ph <= 7.85, f"{world.water.ph:.2f}"


def _free(world: GreenWorld) -> tuple[bool, str]:
    return 1.0 <= world.mean_free <= 5.0, f"{world.mean_free:.1f}"


def _stabilizer(world: GreenWorld) -> tuple[bool, str]:
    return 25 <= world.water.stabilizer <= 60, f"{world.water.stabilizer:.0f}"


def _index(world: GreenWorld) -> tuple[bool, str]:
    index = true_index(world)
    return -0.4 <= index <= 0.3, f"{index:+.2f}"


def _salt(world: GreenWorld) -> tuple[bool, str]:
    return 2700 <= world.water.salt <= 3400, f"{world.water.salt:.0f}"


_GOALS: Mapping[str, tuple[str, Callable[[GreenWorld], tuple[bool, str]]]] = MappingProxyType({
    "clear": ("The main drain plain to see", _clear),
    "nothing_lives": ("Nothing lives in it any more", _dead),
    "combined": ("Combined chlorine at 0.5 or less", _combined),
    "ph": ("pH 7.2 to 7.8", _ph),
    "free_chlorine": ("Free chlorine 1 to 5", _free),
    "stabiliser": ("Stabiliser 25 to 60", _stabilizer),
    "salt": ("Salt 2700 to 3400", _salt),
    "index": ("Scaling index within 0.3", _index),
})  # fmt: skip


def titles(scenario: Scenario) -> tuple[str, ...]:
    """What is to be reached, in words."""
    return tuple(_GOALS[key][0] for key in scenario.goals)


def goals(scenario: Scenario, world: GreenWorld) -> tuple[Goal, ...]:
    """Every goal as it stands in truth."""
    found = []
    for key in scenario.goals:
        title, test = _GOALS[key]
        met, text = test(world)
        found.append(Goal(key, title, met, text))
    return tuple(found)


def won(scenario: Scenario, world: GreenWorld) -> bool:
    return all(goal.met for goal in goals(scenario, world))
