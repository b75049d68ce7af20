"""Hazard classes by product, tool, electricity, water and shell, each with the cautions said at the step.

Every step names its class, `none` included. The product's label comes first, always.
Sources: cautions, emergency.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

SOURCES_USED = ("cautions", "emergency")


class Hazard(StrEnum):
    NONE = "none"
    OPEN_WATER = "open_water"
    POWDER = "powder"
    ACID = "acid"
    ALKALI = "alkali"
    CAUSTIC = "caustic"
    BORATE = "borate"
    OXIDIZER_LIQUID = "oxidiser_liquid"
    OXIDIZER_GRANULES = "oxidiser_granules"
    TABLETS = "tablets"
    HEAT_OF_SOLUTION = "heat_of_solution"
    ELECTRICITY = "electricity"
    PRESSURE = "pressure"
    SHELL = "shell"
    SHELL_WASH = "shell_wash"
    SOILED_WATER = "soiled_water"
    VALVE = "valve"
    CELL = "cell"
    CELL_ACID = "cell_acid"
    SILICA = "silica"
    SUCTION = "suction"


@dataclass(frozen=True)
class HazardClass:
    """What can go wrong, and the cautions in the order in which they matter.

    `hazardous` steps carry a way to the emergency page.
    """

    hazard: Hazard
    title: str
    cautions: tuple[str, ...]
    hazardous: bool = True


_GEAR = "Goggles and gloves on, old clothes, stand upwind. Read the label first."
_NEVER_MIX = "Never mix it with another product, and never share a scoop or bucket: fire and chlorine gas."
_NOT_SKIMMER = "Never into the skimmer."

_ROWS = (
    HazardClass(Hazard.NONE, "Nothing special", (), hazardous=False),
    HazardClass(
        Hazard.OPEN_WATER, "Open water",
        ("Keep children in sight. Mind the wet edge.",), hazardous=False,
    ),
    HazardClass(
        Hazard.SOILED_WATER, "Soiled water",
        ("Gloves on; wash hands and tool afterwards. Nobody in the water.", "Never the vacuum: it spreads it."),
    ),
    HazardClass(
        Hazard.POWDER, "Powder",
        ("Keep the dust out of eyes and lungs.", _NOT_SKIMMER + " On vinyl, brush it until dissolved."),
        hazardous=False,
    ),
    HazardClass(
        Hazard.ACID, "Acid",
        (
            _GEAR,
            "Acid goes into water, never water into acid.",
            "Pour low, walking backwards, deep end, away from metal and returns.",
            "Never in a bucket that held chlorine: acid on chlorine makes poison gas.",
        ),
    ),
    HazardClass(
        Hazard.ALKALI, "Alkaline powder",
        (_GEAR, "Into a bucket half full of water, a little at a time; never water onto the powder."),
    ),
    HazardClass(
        Hazard.CAUSTIC, "Caustic",
        (
            "Destroys eyes and skin: face shield, long gloves, running water at hand.",
            "A little at a time into much cold water, never water onto it: it boils and spits.",
        ),
    ),
    HazardClass(
        Hazard.BORATE, "Borate",
        (
            _GEAR,
            "Pets and children must not drink the water; it harms plants when drained.",
            "Not allowed everywhere: follow its label.",
        ),
    ),
    HazardClass(
        Hazard.OXIDIZER_LIQUID, "Liquid chlorine",
        (
            _GEAR,
            "Pour low, close to the water, along the deep end with the pump on. It bleaches cloth.",
            _NEVER_MIX,
            _NOT_SKIMMER,
        ),
    ),
    HazardClass(
        Hazard.OXIDIZER_GRANULES, "Chlorine or oxidiser granules",
        (
            _GEAR,
            "Dry, clean scoop. Product into water, never water onto the product.",
            _NEVER_MIX,
            _NOT_SKIMMER + " No undissolved grains on a vinyl floor: brush them.",
        ),
    ),
    HazardClass(
        Hazard.TABLETS, "Chlorine tablets",
        (
            "Only in a feeder or floater made for them, opened with flow off and pressure gone, face away.",
            "Never in the skimmer, never with calcium hypochlorite: fire and explosion.",
            "Gloves on; do not breathe the air out of the tub.",
        ),
    ),
    HazardClass(
        Hazard.HEAT_OF_SOLUTION, "Heats strongly",
        (
            "It gets hot: dissolve in a bucket of pool water held in the pool, small batches.",
            "Goggles and gloves on. Product into water, never water onto the product.",
            "Pour off the clear part, stir the rest again; no flakes onto the surface.",
        ),
    ),
    HazardClass(
        Hazard.ELECTRICITY, "Electricity",
        ("Breaker off, dry hands, dry ground.", "Hard-wired equipment is work for a licensed electrician."),
    ),
    HazardClass(
        Hazard.PRESSURE, "Pressure",
        (
            "Pump off and gauge at zero before anything is opened or the valve handle is moved.",
            "Never tighten a clamp under pressure; stand clear of the lid while the tank fills.",
        ),
    ),
    HazardClass(
        Hazard.VALVE, "Multiport valve",
        (
            "Never move the handle with the pump on: it tears the seal and can burst the tank.",
            "Breaker off, dry hands. Never start against closed valves.",
        ),
    ),
    HazardClass(
        Hazard.CELL, "Chlorinator cell",
        (
            "Never power a cell without flow: hydrogen and oxygen collect and explode.",
            "Never bridge, wedge or bypass a flow switch. Nobody in the water when flow returns after a stop.",
        ),
    ),
    HazardClass(
        Hazard.CELL_ACID, "Acid on a cell",
        (
            "Rinsed until no chlorine smell is left? Acid on what is left of it makes chlorine gas.",
            "Goggles, gloves, outdoors, upwind. Acid into water, never water into acid.",
            "Cell upright and never capped: gas builds pressure. Nothing with chlorine near, nor the cartridge's bucket.",
        ),
    ),
    HazardClass(
        Hazard.SILICA, "Filter powder",
        ("Dust mask on: the powder harms the lungs. Wet it before it is swept.",),
    ),
    HazardClass(
        Hazard.SUCTION, "Suction",
        (
            "Nobody in the water while the suction is changed.",
            "A missing, loose or cracked drain cover closes the pool at once.",
        ),
    ),
    HazardClass(
        Hazard.SHELL, "Empty or half-empty shell",
        (
            "Ground water can lift or crack an emptied shell: ask a professional first.",
            "Barrier round an empty pool; discharge only where local rules allow.",
        ),
    ),
    HazardClass(
        Hazard.SHELL_WASH, "Chlorine on a bare shell",
        (
            "Respirator, face shield, long gloves, boots. Never alone; a helper stays outside.",
            "Out of the deep end while fumes hang there. Never on the same day as acid: it makes poison gas.",
            "Neutralise what pools before it leaves. A licensed pool trade does this better.",
        ),
    ),
)  # fmt: skip
HAZARDS: Mapping[Hazard, HazardClass] = MappingProxyType({row.hazard: row for row in _ROWS})


@dataclass(frozen=True)
class Emergency:
    """What to do when it has gone wrong: first measures in order, in short sentences."""

    key: str
    title: str
    measures: tuple[str, ...]


EMERGENCY_PREAMBLE = (
    "The emergency services and the product label come before this page. "
    "It works without a connection once the app has been opened."
)
EMERGENCIES: tuple[Emergency, ...] = (
    Emergency("gas", "Sharp smell, cough, gas", (
        "Leave at once, upwind. Take the others along.",
        "Close the area. Nobody goes back for the drum.",
        "Call the fire service.",
    )),
    Emergency("eyes", "In the eyes or on the skin", (
        "Running water for 15 to 20 minutes, lids held open. Clothes off.",
        "Then a doctor or the poison centre, with the label in hand.",
    )),
    Emergency("swallowed", "Swallowed", (
        "Rinse the mouth. Do not make them vomit.",
        "Call the poison centre, with the label in hand.",
    )),
    Emergency("water", "Someone in trouble in the water", (
        "Reach with a pole or throw something that floats. Do not go in.",
        "Call the emergency number. Follow the resuscitation chart at the pool.",
    )),
    Emergency("electric", "Electric shock or tingling in the water", (
        "Everyone out without touching metal.",
        "Power off at the breaker.",
        "A licensed electrician before anyone goes in again.",
    )),
    Emergency("hot_tub_of_oxidiser", "A tub of chlorine that is hot, hisses or fumes", (
        "Do not touch it, do not move it. Leave and call the fire service.",
        "Only trained people use water on it, and a lot of it. No dry-powder extinguisher.",
    )),
    Emergency("damp_oxidiser", "Damp or dirty calcium hypochlorite or trichlor", (
        "It never goes back into its tub, nor into the bin.",
        "Keep it apart, in the open, away from anything that burns; ask the fire service or the maker.",
    )),
    Emergency("accident_in_water", "Faeces, vomit or blood in the water", (
        "Close the pool. Everyone out.",
        "Remove it with a scoop or net, never with the vacuum. Disinfect the tool.",
        "Follow the health authority before anyone swims again.",
    )),
)  # fmt: skip
STORAGE_RULES: tuple[str, ...] = (
    "Original, vented containers; dry, cool, locked.",
    "Acids never with or above chlorines.",
    "Calcium hypochlorite and trichlor apart; never through one feeder or scoop.",
    "Fertiliser, oil and paint elsewhere; away from pool equipment, which corrodes.",
)


def cautions_for(hazard: Hazard) -> tuple[str, ...]:
    return HAZARDS[hazard].cautions
