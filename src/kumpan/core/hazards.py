"""Hazard classes by product, tool, electricity, water and shell, each with the cautions said at the step.

Every step names its class, `none` included. The product's label comes first, always.
Sources: cautions, emergency.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.messages import Message

SOURCES_USED = ("cautions", "emergency")


class Hazard(StrEnum):
    """What can hurt someone at a step."""

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
    LABEL = "label"


@dataclass(frozen=True)
class HazardClass:
    """What can go wrong, and the cautions in the order in which they matter.

    `hazardous` steps carry a way to the emergency page.
    """

    hazard: Hazard
    title: Message
    cautions: tuple[Message, ...]
    hazardous: bool = True


_GEAR = Message("Goggles and gloves on, old clothes, stand upwind. Read the label first.")
_NEVER_MIX = Message(
    "Never mix it with another product, and never share a scoop or bucket: fire and chlorine gas."
)
_NOT_SKIMMER = Message("Never into the skimmer.")

_ROWS = (
    HazardClass(Hazard.NONE, Message("Nothing special"), (), hazardous=False),
    HazardClass(
        Hazard.OPEN_WATER, Message("Open water"),
        (Message("Keep children in sight. Mind the wet edge."),), hazardous=False,
    ),
    HazardClass(
        Hazard.SOILED_WATER, Message("Soiled water"),
        (Message("Gloves on; wash hands and tool afterwards. Nobody in the water."), Message("Never the vacuum: it spreads it.")),
    ),
    HazardClass(
        Hazard.POWDER, Message("Powder"),
        (Message("Keep the dust out of eyes and lungs."), Message("{not_skimmer} On vinyl, brush it until dissolved.", not_skimmer=_NOT_SKIMMER)),
        hazardous=False,
    ),
    HazardClass(
        Hazard.ACID, Message("Acid"),
        (
            _GEAR,
            Message("Acid goes into water, never water into acid."),
            Message("Pour low, walking backwards, deep end, away from metal and returns."),
            Message("Never in a bucket that held chlorine: acid on chlorine makes poison gas."),
        ),
    ),
    HazardClass(
        Hazard.ALKALI, Message("Alkaline powder"),
        (_GEAR, Message("Into a bucket half full of water, a little at a time; never water onto the powder.")),
    ),
    HazardClass(
        Hazard.CAUSTIC, Message("Caustic"),
        (
            Message("Destroys eyes and skin: face shield, long gloves, running water at hand."),
            Message("A little at a time into much cold water, never water onto it: it boils and spits."),
        ),
    ),
    HazardClass(
        Hazard.BORATE, Message("Borate"),
        (
            _GEAR,
            Message("Pets and children must not drink the water; it harms plants when drained."),
            Message("Not allowed everywhere: follow its label."),
        ),
    ),
    HazardClass(
        Hazard.OXIDIZER_LIQUID, Message("Liquid chlorine"),
        (
            _GEAR,
            Message("Pour low, close to the water, along the deep end with the pump on. It bleaches cloth."),
            _NEVER_MIX,
            _NOT_SKIMMER,
        ),
    ),
    HazardClass(
        Hazard.OXIDIZER_GRANULES, Message("Chlorine or oxidizer granules"),
        (
            _GEAR,
            Message("Dry, clean scoop. Product into water, never water onto the product."),
            _NEVER_MIX,
            Message("{not_skimmer} No undissolved grains on a vinyl floor: brush them.", not_skimmer=_NOT_SKIMMER),
        ),
    ),
    HazardClass(
        Hazard.TABLETS, Message("Chlorine tablets"),
        (
            Message("Only in a feeder or floater made for them, opened with flow off and pressure gone, face away."),
            Message("Never in the skimmer, never with calcium hypochlorite: fire and explosion."),
            Message("Gloves on; do not breathe the air out of the tub."),
        ),
    ),
    HazardClass(
        Hazard.HEAT_OF_SOLUTION, Message("Heats strongly"),
        (
            Message("It gets hot: dissolve in a bucket of pool water held in the pool, small batches."),
            Message("Goggles and gloves on. Product into water, never water onto the product."),
            Message("Pour off the clear part, stir the rest again; no flakes onto the surface."),
        ),
    ),
    HazardClass(
        Hazard.LABEL, Message("By its label"),
        (
            Message("Its label comes first: amount, gloves, and what it must not meet."),
            Message("One product at a time, straight to the pool; never mixed with another, never into the skimmer."),
        ),
        hazardous=False,
    ),
    HazardClass(
        Hazard.ELECTRICITY, Message("Electricity"),
        (Message("Breaker off, dry hands, dry ground."), Message("Hard-wired equipment is work for a licensed electrician.")),
    ),
    HazardClass(
        Hazard.PRESSURE, Message("Pressure"),
        (
            Message("Pump off and gauge at zero before anything is opened or the valve handle is moved."),
            Message("Never tighten a clamp under pressure; stand clear of the lid while the tank fills."),
        ),
    ),
    HazardClass(
        Hazard.VALVE, Message("Multiport valve"),
        (
            Message("Never move the handle with the pump on: it tears the seal and can burst the tank."),
            Message("Breaker off, dry hands. Never start against closed valves."),
        ),
    ),
    HazardClass(
        Hazard.CELL, Message("Chlorinator cell"),
        (
            Message("Never power a cell without flow: hydrogen and oxygen collect and explode."),
            Message("Never bridge, wedge or bypass a flow switch. Nobody in the water when flow returns after a stop."),
        ),
    ),
    HazardClass(
        Hazard.CELL_ACID, Message("Acid on a cell"),
        (
            Message("Rinsed until no chlorine smell is left? Acid on what is left of it makes chlorine gas."),
            Message("Goggles, gloves, outdoors, upwind. Acid into water, never water into acid."),
            Message("Cell upright and never capped: gas builds pressure. Nothing with chlorine near, nor the cartridge's bucket."),
        ),
    ),
    HazardClass(
        Hazard.SILICA, Message("Filter powder"),
        (Message("Dust mask on: the powder harms the lungs. Wet it before it is swept."),),
    ),
    HazardClass(
        Hazard.SUCTION, Message("Suction"),
        (
            Message("Nobody in the water while the suction is changed."),
            Message("A missing, loose or cracked drain cover closes the pool at once."),
        ),
    ),
    HazardClass(
        Hazard.SHELL, Message("Empty or half-empty shell"),
        (
            Message("Ground water can lift or crack an emptied shell: ask a professional first."),
            Message("Barrier round an empty pool; discharge only where local rules allow."),
        ),
    ),
    HazardClass(
        Hazard.SHELL_WASH, Message("Chlorine on a bare shell"),
        (
            Message("Respirator, face shield, long gloves, boots. Never alone; a helper stays outside."),
            Message("Out of the deep end while fumes hang there. Never on the same day as acid: it makes poison gas."),
            Message("Neutralize what pools before it leaves. A licensed pool trade does this better."),
        ),
    ),
)  # fmt: skip
HAZARDS: Mapping[Hazard, HazardClass] = MappingProxyType({row.hazard: row for row in _ROWS})


@dataclass(frozen=True)
class Emergency:
    """What to do when it has gone wrong: first measures in order, in short sentences."""

    key: str
    title: Message
    measures: tuple[Message, ...]


EMERGENCY_PREAMBLE = Message(
    "The emergency services and the product label come before this page. "
    "It works without a connection once the app has been opened."
)
EMERGENCIES: tuple[Emergency, ...] = (
    Emergency("gas", Message("Sharp smell, cough, gas"), (
        Message("Leave at once, upwind. Take the others along."),
        Message("Close the area. Nobody goes back for the drum."),
        Message("Call the fire service."),
    )),
    Emergency("eyes", Message("In the eyes or on the skin"), (
        Message("Running water for 15 to 20 minutes, lids held open. Clothes off."),
        Message("Then a doctor or the poison center, with the label in hand."),
    )),
    Emergency("swallowed", Message("Swallowed"), (
        Message("Rinse the mouth. Do not make them vomit."),
        Message("Call the poison center, with the label in hand."),
    )),
    Emergency("water", Message("Someone in trouble in the water"), (
        Message("Reach with a pole or throw something that floats. Do not go in."),
        Message("Call the emergency number. Follow the resuscitation chart at the pool."),
    )),
    Emergency("electric", Message("Electric shock or tingling in the water"), (
        Message("Everyone out without touching metal."),
        Message("Power off at the breaker."),
        Message("A licensed electrician before anyone goes in again."),
    )),
    Emergency("hot_tub_of_oxidiser", Message("A tub of chlorine that is hot, hisses or fumes"), (
        Message("Do not touch it, do not move it. Leave and call the fire service."),
        Message("Only trained people use water on it, and a lot of it. No dry-powder extinguisher."),
    )),
    Emergency("damp_oxidiser", Message("Damp or dirty calcium hypochlorite or trichlor"), (
        Message("It never goes back into its tub, nor into the bin."),
        Message("Keep it apart, in the open, away from anything that burns; ask the fire service or the maker."),
    )),
    Emergency("accident_in_water", Message("Feces, vomit or blood in the water"), (
        Message("Close the pool. Everyone out."),
        Message("Remove it with a scoop or net, never with the vacuum. Disinfect the tool."),
        Message("Follow the health authority before anyone swims again."),
    )),
)  # fmt: skip
STORAGE_RULES: tuple[Message, ...] = (
    Message("Original, vented containers; dry, cool, locked."),
    Message("Acids never with or above chlorines."),
    Message("Calcium hypochlorite and trichlor apart; never through one feeder or scoop."),
    Message("Fertilizer, oil and paint elsewhere; away from pool equipment, which corrodes."),
)


def cautions_for(hazard: Hazard) -> tuple[Message, ...]:
    """The cautions that stand at a step with this hazard."""
    return HAZARDS[hazard].cautions
