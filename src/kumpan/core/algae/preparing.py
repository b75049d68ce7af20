"""What is done before the first shock and after the last: tables that read like the handbook's. Source: rescue-plan."""

from collections.abc import Callable, Mapping
from dataclasses import KW_ONLY, dataclass
from types import MappingProxyType

from kumpan.core.algae.request import RescueRequest
from kumpan.core.hazards import Hazard
from kumpan.core.journal import Severity
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter

SOURCE = "rescue-plan"

COPPER_FIRST_MG_L = 0.2

CLEAN_FILTER: Mapping[Filter, tuple[Message, Hazard]] = MappingProxyType({
    Filter.SAND: (Message("Backwash until the glass is clear, then rinse"), Hazard.VALVE),
    Filter.CARTRIDGE: (Message("Hose the cartridge out, or swap it for the clean one"), Hazard.PRESSURE),
    Filter.DE: (Message("Backwash and recharge with powder"), Hazard.SILICA),
})  # fmt: skip


@dataclass(frozen=True)
class PrepareRow:
    """One thing to prepare, and for which pools."""

    title: Message
    why: Message
    hazard: Hazard
    care: tuple[str, ...] = ()
    _: KW_ONLY
    when: Callable[[RescueRequest], bool] = lambda _: True


def _has_copper(request: RescueRequest) -> bool:
    return (request.readings.copper or 0.0) > COPPER_FIRST_MG_L


PREPARE: tuple[PrepareRow, ...] = (
    PrepareRow(Message("Close the pool: nobody in, children and pets away, a sign at the gate"),
               Message("Nobody would see a swimmer in trouble, and free chlorine goes over the swim limit."), Hazard.OPEN_WATER),
    PrepareRow(Message("Cover and solar blanket off"), Message("Sun and air help, and the cover's underside holds algae: brush it."),
               Hazard.OPEN_WATER, when=lambda a: a.traits.covered),
    PrepareRow(Message("Leaves and debris out, skimmer and pump baskets empty"), Message("What lies there eats the chlorine."), Hazard.SUCTION, ("baskets",)),
    PrepareRow(Message("Water to the middle of the skimmer"), Message("Rounds, backwashing and vacuuming all take water."), Hazard.OPEN_WATER),
    PrepareRow(Message("Timer trippers out: pump day and night"), Message("36 to 48 hours at least, and on until it is clear."), Hazard.ELECTRICITY),
    PrepareRow(Message("Robot cleaner out"), Message("It comes back when the water is clear."), Hazard.OPEN_WATER,
               when=lambda a: a.setting.severity is not Severity.MUSTARD),
    PrepareRow(Message("Chlorinator cell to 0"), Message("Its output is small here, and the unit is spared."), Hazard.CELL,
               when=lambda a: a.traits.chlorination is Chlorination.SALT_CELL),
    PrepareRow(Message("Feeder off, floater out, tablets dry into their own tub"), Message("Many tablets are slow, and each 10 ppm of chlorine from them leaves 6 ppm of stabilizer."), Hazard.TABLETS, when=lambda a: a.traits.chlorination is Chlorination.TABLETS),
    PrepareRow(Message("Sequestrant by its label, and its wait, before the first shock"), Message("Copper was found: a shock would turn it to stain."),
               Hazard.POWDER, when=_has_copper),
    PrepareRow(Message("Into the water with it: toys, suits, hoses, brushes, the cleaner"), Message("Mustard comes back on what was not treated along."),
               Hazard.OPEN_WATER, when=lambda a: a.setting.severity is Severity.MUSTARD),
)  # fmt: skip

AFTER: tuple[tuple[Message, Message, Hazard], ...] = (
    (Message("Filter thoroughly cleaned, cartridge soaked"), Message("It is full of what died."), Hazard.PRESSURE),
    (Message("Timer back to the schedule, feeder or cell back on"), Message("A clear pool needs its usual hours."), Hazard.ELECTRICITY),
    (Message("Returns aimed down 45 degrees, dead corners brushed weekly"), Message("Algae come back where no water moves."), Hazard.OPEN_WATER),
    (Message("Balance by the usual plan, stabilizer last"), Message("It binds chlorine, so it goes in when the water is clear."), Hazard.NONE),
    (Message("Preventive algaecide, if you use one: by its label"), Message("With free chlorine under 5; copper kinds stain over 0.3."), Hazard.POWDER),
)  # fmt: skip
