"""A mineral or ion unit's program.

Source: mineral-program.
"""

from collections.abc import Mapping

from kumpan.core.dosing.mass_balance import added_to, changes
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, ML_PER_FL_OZ
from kumpan.core.quantity import Liquid, Number, RoughMass
from kumpan.core.treatment.label_words import by_own_label, label_words
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.request import SpecialRequest, nothing_to_do
from kumpan.core.treatment.special.shock import chlorine_part, not_here

SOURCE = "mineral-programme"

OXIDIZER_G_PER_L = G_PER_LB / (10_000 * L_PER_US_GAL)
PHOSPHATE_REMOVER_ML_PER_L = 8 * ML_PER_FL_OZ / (10_000 * L_PER_US_GAL)
STARTER_DISSOLVES_MIN = 2880
DAY_MIN = 1440
WEEK_MIN, OVERNIGHT_MIN, LASTS_MIN = 7 * DAY_MIN, 720, 2 * DAY_MIN
# Powders that such a program's oxidizer is made of. Origin: handbook 06.
POWDERS = ("sodium_dichlor", "calcium_hypochlorite")
LEAST_MG_L = 1.0
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
    _start(line, request)
    after = _weekly(line, request)
    return Plan(tuple(line.steps), after, (), (SUPPLEMENT,))


def _start(line: Timeline, request: SpecialRequest) -> None:
    line.do(
        Message("One bag of salt for the whole pool, if the unit's manual asks for it"),
        Message("For conductivity only; never to a salt cell's level."),
        Hazard.POWDER,
    )
    starter = by_own_label(request.inventory, ("mineral_starter",), request.volume_l)
    dissolves = Message("It dissolves over a day or two; brush what settles.")
    if starter is not None:
        line.pour_by_label(*starter, dissolves, Message("Broadcast it over the whole surface."))
    else:
        line.do(
            Message("Broadcast the starter over the whole surface: the whole package, by its label"),
            dissolves,
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


def _oxidizer(request: SpecialRequest) -> Product | None:
    """The powder of the shelf that serves: what brings calcium or stabilizer only while those have room, and
    no calcium where it scales.
    """
    for chemical in POWDERS:
        for product in (one for one in request.inventory if one.chemical == chemical):
            moved = changes(product, request.volume_l * OXIDIZER_G_PER_L, request.volume_l)
            if not_here(product, request.traits) is None and not _over(request, moved):
                return product
    return None


def _over(request: SpecialRequest, moved: Mapping[Measure, float]) -> bool:
    for measure in (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS):
        band, now = request.bands.get(measure), request.readings.value(measure)
        if measure in moved and (
            now is None or (band is not None and band.high is not None and now + moved[measure] > band.high)
        ):
            return True
    return False


def _pour_oxidizer(line: Timeline, request: SpecialRequest) -> Readings:
    """The week's oxidizer is chlorine: poured as such, with the swim after it and the days that it lasts."""
    product, grams = _oxidizer(request), request.volume_l * OXIDIZER_G_PER_L
    about = Message("About 1 lb per 10,000 gal (12 g per 1000 L), by its label.")
    if product is None:
        line.do(
            Message(
                "Weekly: the program's oxidizer, about {oxidizer} here, in a bucket of pool water first",
                oxidizer=RoughMass(grams),
            ),
            Message(
                "{about} If it is dichlor it brings stabilizer, and it lasts two to six days.", about=about
            ),
            Hazard.OXIDIZER_GRANULES,
        )
        return request.readings
    moved = changes(product, grams, request.volume_l)
    rise = moved[Measure.FREE_CHLORINE]
    why = Message(
        "Weekly, at dusk. {about} It brings {rise} of free chlorine, which lasts two to six days.",
        about=about,
        rise=Number(rise, figures=2),
    )
    line.add(chlorine_part(request.readings, product, rise_mg_l=rise, volume_l=request.volume_l, why=why))
    line.wait_until(line.now + OVERNIGHT_MIN, Message("Overnight, pump on, nobody in."))
    line.test(
        (Measure.FREE_CHLORINE,),
        Message("Nobody swims until it reads under {limit}.", limit=Number(request.swim_limit_mg_l)),
    )
    line.wait_until(line.now + LASTS_MIN - OVERNIGHT_MIN, Message("Two days: it may be gone by now."))
    low = _least(request)
    line.test(
        (Measure.FREE_CHLORINE,),
        Message(
            "Under {low} chlorine goes in as in any pool; the unit alone is no sanitizer.", low=Number(low)
        ),
    )
    return added_to(request.readings, moved)


def _least(request: SpecialRequest) -> float:
    band = request.bands.get(Measure.FREE_CHLORINE)
    return band.low if band is not None and band.low is not None else LEAST_MG_L


def _weekly(line: Timeline, request: SpecialRequest) -> Readings:
    """One week of the program; the water after it."""
    enzyme = label_words(request.inventory, ("enzyme",), request.volume_l, request.display)
    began = line.now
    line.do(
        Message("Twice a month: {enzyme}", enzyme=enzyme or Message("enzymes, by their label")),
        Message("Only with free chlorine under 5."),
        Hazard.OPEN_WATER,
    )
    after = _pour_oxidizer(line, request)
    line.wait_until(
        began + WEEK_MIN,
        Message("A week of the program: the next oxidizer is due, the list of care says when."),
    )
    remover = label_words(request.inventory, ("phosphate_remover",), request.volume_l, request.display)
    by_the_rule = Message(
        "about {remover} here by the rule", remover=Liquid(request.volume_l * PHOSPHATE_REMOVER_ML_PER_L)
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.COPPER, Measure.PHOSPHATE),
        Message(
            "Phosphate over 100: remover, {remover}, and clean the filter after.",
            remover=remover or by_the_rule,
        ),
    )
    return after
