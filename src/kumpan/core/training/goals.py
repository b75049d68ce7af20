"""When a practice pool is won: by the truth, not by the kit. Source: simulated-world."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Readings
from kumpan.core.quantity import Number
from kumpan.core.simulation.green_world import GreenWorld
from kumpan.core.training.scenarios import Scenario

SOURCE = "simulated-world"


@dataclass(frozen=True)
class Goal:
    """One goal; `met` by the truth, `text` how it stands in truth."""

    key: str
    title: Message
    met: bool
    text: Message


def truth(world: GreenWorld) -> Readings:
    """The true water as readings."""
    w = world.water
    return Readings(
        free_chlorine=world.mean_free,
        total_chlorine=world.mean_free + w.combined,
        ph=w.ph,
        total_alkalinity=w.alkalinity,
        calcium_hardness=w.calcium,
        cyanuric_acid=w.stabilizer,
        salt=w.salt,
        temperature_c=w.temperature_c,
    )


def true_index(world: GreenWorld) -> float:
    """The scaling index of the true water."""
    known = known_from(truth(world))
    state = solve_readings(known) if known is not None else None
    return float(saturation_index(state)) if isinstance(state, State) else 0.0


def _clear(world: GreenWorld) -> tuple[bool, Message]:
    return world.shown < 1.0, Message(
        "cloud {shown}, 1 is where the drain is plain to see", shown=Number(world.shown, digits=1)
    )


def _dead(world: GreenWorld) -> tuple[bool, Message]:
    return world.water.bloom < 0.5, Message(
        "what lives would take {bloom} ppm a day", bloom=Number(world.water.bloom, digits=1)
    )


def _combined(world: GreenWorld) -> tuple[bool, Message]:
    return world.water.combined <= 0.55, Message(
        "{combined}", combined=Number(world.water.combined, digits=1)
    )


def _ph(world: GreenWorld) -> tuple[bool, Message]:
    return 7.15 <= world.water.ph <= 7.85, Message("{ph}", ph=Number(world.water.ph, digits=2))


def _free(world: GreenWorld) -> tuple[bool, Message]:
    return 1.0 <= world.mean_free <= 5.0, Message("{mean_free}", mean_free=Number(world.mean_free, digits=1))


def _stabilizer(world: GreenWorld) -> tuple[bool, Message]:
    return 25 <= world.water.stabilizer <= 60, Message(
        "{stabilizer}", stabilizer=Number(world.water.stabilizer, digits=0)
    )


def _index(world: GreenWorld) -> tuple[bool, Message]:
    index = true_index(world)
    return -0.4 <= index <= 0.3, Message("{index}", index=Number(index, digits=2, signed=True))


def _salt(world: GreenWorld) -> tuple[bool, Message]:
    return 2700 <= world.water.salt <= 3400, Message("{salt}", salt=Number(world.water.salt, digits=0))


_GOALS: Mapping[str, tuple[Message, Callable[[GreenWorld], tuple[bool, Message]]]] = MappingProxyType({
    "clear": (Message("The main drain plain to see"), _clear),
    "nothing_lives": (Message("Nothing lives in it any more"), _dead),
    "combined": (Message("Combined chlorine at 0.5 or less"), _combined),
    "ph": (Message("pH 7.2 to 7.8"), _ph),
    "free_chlorine": (Message("Free chlorine 1 to 5"), _free),
    "stabiliser": (Message("Stabilizer 25 to 60"), _stabilizer),
    "salt": (Message("Salt 2700 to 3400"), _salt),
    "index": (Message("Scaling index within 0.3"), _index),
})  # fmt: skip


def titles(scenario: Scenario) -> tuple[Message, ...]:
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
    """Every goal is met."""
    return all(goal.met for goal in goals(scenario, world))
