"""A mineral or ion unit's program.

Source: mineral-program.
"""

from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, ML_PER_FL_OZ
from kumpan.core.quantity import Liquid, RoughMass
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.request import SpecialRequest, nothing_to_do

SOURCE = "mineral-programme"

OXIDIZER_G_PER_L = G_PER_LB / (10_000 * L_PER_US_GAL)
PHOSPHATE_REMOVER_ML_PER_L = 8 * ML_PER_FL_OZ / (10_000 * L_PER_US_GAL)
STARTER_DISSOLVES_MIN = 2880
WEEK_MIN = 7 * 1440
SUPPLEMENT = Finding(
    "supplement",
    Message(
        "The supplement is not a sanitizer by itself: free chlorine is kept in its range, and "
        "public codes allow no less."
    ),
    Measure.FREE_CHLORINE,
)


def mineral_plan(request: SpecialRequest) -> Plan:
    """The first week of a mineral or ion unit: starter, oxidizer, enzymes, tests; chlorine all the same."""
    if request.traits.chlorination is not Chlorination.MINERAL:
        return nothing_to_do(
            request, "not_mineral", Message("This pool has no mineral unit; set it under Pool if it has.")
        )
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    line.prepare(request.traits, adds_salt=False)
    _start(line)
    _weekly(line, request.volume_l)
    return Plan(tuple(line.steps), request.readings, (), (SUPPLEMENT,))


def _start(line: Timeline) -> None:
    line.do(
        Message("One bag of salt for the whole pool, if the unit's manual asks for it"),
        Message("For conductivity only; never to a salt cell's level."),
        Hazard.POWDER,
    )
    line.do(
        Message("Broadcast the starter over the whole surface, by its label"),
        Message("It dissolves over a day or two; brush what settles."),
        Hazard.POWDER,
    )
    line.wait_until(
        line.now + STARTER_DISSOLVES_MIN,
        Message("Until the starter has dissolved; filter 12 h a day from now on."),
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.COPPER),
        Message("Copper at 0.3 or less; over 0.5 it stains. Free chlorine is needed all the same."),
    )


def _weekly(line: Timeline, volume_l: float) -> None:
    oxidizer = volume_l * OXIDIZER_G_PER_L
    line.do(
        Message(
            "Weekly: the program's oxidizer, about {oxidizer} here, in a bucket of pool water first",
            oxidizer=RoughMass(oxidizer),
        ),
        Message(
            "About 1 lb per 10,000 gal (12 g per 1000 L), by its label. If it is dichlor it brings "
            "stabilizer, and it lasts two to six days."
        ),
        Hazard.OXIDIZER_GRANULES,
    )
    line.do(
        Message("Twice a month: enzymes, by their label"),
        Message("Only with free chlorine under 5."),
        Hazard.OPEN_WATER,
    )
    line.wait_until(line.now + WEEK_MIN - STARTER_DISSOLVES_MIN, Message("A week of the program."))
    remover = volume_l * PHOSPHATE_REMOVER_ML_PER_L
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.COPPER, Measure.PHOSPHATE),
        Message(
            "Phosphate over 100: remover, about {remover} here by the rule, and clean the filter after.",
            remover=Liquid(remover),
        ),
    )
