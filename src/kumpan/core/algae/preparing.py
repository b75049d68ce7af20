"""What is done before the first shock and after the last: tables that read like the handbook's. Source: rescue-plan."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.algae.request import RescueRequest
from kumpan.core.hazards import Hazard
from kumpan.core.journal import Severity
from kumpan.core.pool.equipment import Chlorination, Filter

SOURCE = "rescue-plan"

COPPER_FIRST_MG_L = 0.2

CLEAN_FILTER: Mapping[Filter, tuple[str, Hazard]] = MappingProxyType({
    Filter.SAND: ("Backwash until the glass is clear, then rinse", Hazard.VALVE),
    Filter.CARTRIDGE: ("Hose the cartridge out, or swap it for the clean one", Hazard.PRESSURE),
    Filter.DE: ("Backwash and recharge with powder", Hazard.SILICA),
})  # fmt: skip


@dataclass(frozen=True)
class PrepareRow:
    """One thing to prepare, and for which pools."""

    title: str
    why: str
    hazard: Hazard
    when: Callable[[RescueRequest], bool] = lambda _: True


def _has_copper(request: RescueRequest) -> bool:
    return (request.readings.copper or 0.0) > COPPER_FIRST_MG_L


PREPARE: tuple[PrepareRow, ...] = (
    PrepareRow("Close the pool: nobody in, children and pets away, a sign at the gate",
               "Nobody would see a swimmer in trouble, and free chlorine goes over the swim limit.", Hazard.OPEN_WATER),
    PrepareRow("Cover and solar blanket off", "Sun and air help, and the cover's underside holds algae: brush it.",
               Hazard.OPEN_WATER, lambda a: a.traits.covered),
    PrepareRow("Leaves and debris out, skimmer and pump baskets empty", "What lies there eats the chlorine.", Hazard.SUCTION),
    PrepareRow("Water to the middle of the skimmer", "Rounds, backwashing and vacuuming all take water.", Hazard.OPEN_WATER),
    PrepareRow("Timer trippers out: pump day and night", "36 to 48 hours at least, and on until it is clear.", Hazard.ELECTRICITY),
    PrepareRow("Robot cleaner out", "It comes back when the water is clear.", Hazard.OPEN_WATER,
               lambda a: a.setting.severity is not Severity.MUSTARD),
    PrepareRow("Chlorinator cell to 0", "Its output is small here, and the unit is spared.", Hazard.CELL,
               lambda a: a.traits.chlorination is Chlorination.SALT_CELL),
    PrepareRow("Feeder off, floater out, tablets dry into their own tub", "Many tablets are slow, and each 10 ppm of chlorine from "
               "them leaves 6 ppm of stabiliser.", Hazard.TABLETS, lambda a: a.traits.chlorination is Chlorination.TABLETS),
    PrepareRow("Sequestrant by its label, and its wait, before the first shock", "Copper was found: a shock would turn it to stain.",
               Hazard.POWDER, _has_copper),
    PrepareRow("Into the water with it: toys, suits, hoses, brushes, the cleaner", "Mustard comes back on what was not treated along.",
               Hazard.OPEN_WATER, lambda a: a.setting.severity is Severity.MUSTARD),
)  # fmt: skip

AFTER: tuple[tuple[str, str, Hazard], ...] = (
    ("Filter thoroughly cleaned, cartridge soaked", "It is full of what died.", Hazard.PRESSURE),
    ("Timer back to the schedule, feeder or cell back on", "A clear pool needs its usual hours.", Hazard.ELECTRICITY),
    ("Returns aimed down 45 degrees, dead corners brushed weekly", "Algae come back where no water moves.", Hazard.OPEN_WATER),
    ("Balance by the usual sheet, stabiliser last", "It binds chlorine, so it goes in when the water is clear.", Hazard.NONE),
    ("Preventive algaecide, if you use one: by its label", "With free chlorine under 5; copper kinds stain over 0.3.", Hazard.POWDER),
)  # fmt: skip
