"""Plans that a test alone does not ask for: too much chlorine, borate, a mineral unit's programme.

Sources: chlorine-reducer, borate, mineral-programme, mixing.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta, tzinfo

from kumpan.core.dosing.additions import Product
from kumpan.core.dosing.chlorine_reducer import reducer_dose
from kumpan.core.findings import Finding
from kumpan.core.habits import Telling
from kumpan.core.hazards import Hazard
from kumpan.core.planning.dusk import next_morning
from kumpan.core.planning.plan import AS_SOLD, Plan, plan
from kumpan.core.planning.schools import Band
from kumpan.core.planning.solve import Dose, Unmet
from kumpan.core.planning.spread import Part
from kumpan.core.planning.targets import Aims
from kumpan.core.planning.timeline import Timeline
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.units import G_PER_LB, G_PER_OZ, L_PER_US_GAL, ML_PER_FL_OZ
from kumpan.core.water import Measure, Readings

SOURCES_USED = ("chlorine-reducer", "borate", "mineral-programme", "mixing")


@dataclass(frozen=True)
class SpecialAsked:
    """The pool, its water, and what may be poured; `swim_limit_mg_l` is what too much chlorine means."""

    readings: Readings
    volume_l: float
    traits: Traits
    bands: dict[Measure, Band]
    shelf: Sequence[Product]
    swim_limit_mg_l: float
    now: datetime
    zone: tzinfo
    telling: Telling = AS_SOLD


REDUCER = Product("reducer", "sodium_thiosulfate", 100.0)
REDUCER_MIXES_MIN = 30
SUN_FIRST = timedelta(hours=8)
_FEEDER_OFF = {
    Chlorination.SALT_CELL: "Turn the cell to 0",
    Chlorination.TABLETS: "Close the feeder, or take the floater out",
}


def lower_chlorine_plan(asked: SpecialAsked, *, today: bool) -> Plan:
    """Stop what feeds it, uncover, let the sun work, test; `today`: half of the reducer, then a test."""
    free, limit = asked.readings.free_chlorine, asked.swim_limit_mg_l
    if free is None:
        return _none(asked, "not_measured", "Free chlorine is not measured: test it first.")
    if free <= limit:
        return _none(
            asked, "in_range", f"Free chlorine at {free:.3g} is not over the swim limit of {limit:g}."
        )
    line = Timeline(asked.volume_l, asked.readings, asked.telling)
    line.do(
        "Nobody in; a sign at the gate",
        f"Free chlorine {free:.3g} is over the swim limit of {limit:g}.",
        Hazard.OPEN_WATER,
    )
    stop = _FEEDER_OFF.get(asked.traits.chlorination, "Stop whatever still feeds chlorine")
    line.do(
        stop, "First the source, then the rest.", Hazard.TABLETS if "feeder" in stop else Hazard.OPEN_WATER
    )
    line.do("Cover off, pump on", "Sun and moving water take chlorine away for nothing.", Hazard.OPEN_WATER)
    if today:
        _reduce(line, asked, free, limit)
    else:
        morning = next_morning(asked.now, asked.zone, SUN_FIRST)
        line.wait_until(int((morning - asked.now).total_seconds() // 60), "A day of sun, if there is one.")
        line.test(
            (Measure.FREE_CHLORINE, Measure.PH),
            f"Swim at {limit:g} or less. Still over: another day, or the reducer.",
        )
    after = asked.readings.with_value(Measure.FREE_CHLORINE, _after_reducer(free, limit) if today else None)
    bleached = "A high level can bleach the test: mix the sample half and half with bottled water and double the reading."
    return Plan(tuple(line.steps), after, (), (Finding("bleached", bleached, Measure.FREE_CHLORINE),))


def _after_reducer(free: float, limit: float) -> float:
    return limit + (free - limit) / 2


def _reduce(line: Timeline, asked: SpecialAsked, free: float, limit: float) -> None:
    product = next((p for p in asked.shelf if p.chemical == "sodium_thiosulfate"), REDUCER)
    grams = reducer_dose(free, limit, asked.volume_l, product).first_g
    why = f"Half of what is reckoned for {free:.3g} to {limit:g}. Too much eats the next chlorine."
    dose = Dose(product, grams, Measure.FREE_CHLORINE, -(free - limit) / 2, why)
    line.add(Part(dose, grams, 1), expected_change=-(free - limit) / 2)
    line.wait_until(line.now + REDUCER_MIXES_MIN, "Until it is mixed: pump on.")
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH),
        f"Swim at {limit:g} or less. Still over: the other half, never more.",
    )


def _none(asked: SpecialAsked, code: str, reason: str) -> Plan:
    return Plan((), asked.readings, (Unmet(Measure.FREE_CHLORINE, code, reason),), ())


BORATE_TARGET_MG_L = 50.0
BORIC_ACID = Product("boric-acid", "boric_acid", 100.0)
BORAX = Product("borax", "borax", 100.0)
_ACID = Product("acid", "hydrochloric_acid", 31.45)


def borate_plan(asked: SpecialAsked, chemical: str, target_mg_l: float = BORATE_TARGET_MG_L) -> Plan:
    """Borate to its target by boric acid, or by borax and the acid that holds pH; its own sheet, staged by the limits."""
    readings = asked.readings
    if readings.borate is None:
        readings = readings.with_value(Measure.BORATE, 0.0)
    own = [p for p in asked.shelf if p.chemical in (chemical, "hydrochloric_acid", "sodium_bisulfate")]
    shelf = list(own)
    if all(p.chemical != chemical for p in own):
        shelf.append(BORIC_ACID if chemical == "boric_acid" else BORAX)
    if all(p.chemical not in ("hydrochloric_acid", "sodium_bisulfate") for p in own):
        shelf.append(_ACID)
    held = {Measure.PH: asked.bands[Measure.PH]}
    found = plan(
        readings,
        asked.volume_l,
        asked.traits,
        Aims(held, {Measure.BORATE: target_mg_l}),
        shelf,
        telling=asked.telling,
    )
    notes = (Finding("borate", _BORATE_WORDS, Measure.BORATE), *found.notes)
    return Plan(found.steps, found.predicted, found.unmet, notes)


_BORATE_WORDS = (
    "Borate is a choice, not a need: it slows algae and steadies pH. It is not allowed everywhere, pets and children must not "
    "drink the water, it harms plants when drained, and it leaves only with water. Its label and local rules come first."
)

OXIDISER_G_PER_L = G_PER_LB / (10_000 * L_PER_US_GAL)
PHOSPHATE_REMOVER_ML_PER_L = 8 * ML_PER_FL_OZ / (10_000 * L_PER_US_GAL)
STARTER_DISSOLVES_MIN = 2880
WEEK_MIN = 7 * 1440


def mineral_plan(asked: SpecialAsked) -> Plan:
    """The first week of a mineral or ion unit: starter, oxidiser, enzymes, tests; chlorine all the same."""
    if asked.traits.chlorination is not Chlorination.MINERAL:
        return _none(asked, "not_mineral", "This pool has no mineral unit; set it under Pool if it has.")
    oxidiser = asked.volume_l * OXIDISER_G_PER_L / G_PER_OZ
    line = Timeline(asked.volume_l, asked.readings, asked.telling)
    line.prepare(asked.traits, adds_salt=False)
    line.do(
        "One bag of salt for the whole pool, if the unit's manual asks for it",
        "For conductivity only; never to a salt cell's level.",
        Hazard.POWDER,
    )
    line.do(
        "Broadcast the starter over the whole surface, by its label",
        "It dissolves over a day or two; brush what settles.",
        Hazard.POWDER,
    )
    line.wait_until(
        line.now + STARTER_DISSOLVES_MIN, "Until the starter has dissolved; filter 12 h a day from now on."
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.COPPER),
        "Copper at 0.3 or less; over 0.5 it stains. Free chlorine is needed all the same.",
    )
    line.do(
        f"Weekly: the programme's oxidiser, about {oxidiser:.0f} oz here, in a bucket of pool water first",
        "About 1 lb per 10 000 gal, by its label. If it is dichlor it brings stabiliser, and it lasts two to six days.",
        Hazard.OXIDISER_GRANULES,
    )
    line.do("Twice a month: enzymes, by their label", "Only with free chlorine under 5.", Hazard.OPEN_WATER)
    line.wait_until(line.now + WEEK_MIN - STARTER_DISSOLVES_MIN, "A week of the programme.")
    remover = asked.volume_l * PHOSPHATE_REMOVER_ML_PER_L / ML_PER_FL_OZ
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.COPPER, Measure.PHOSPHATE),
        f"Phosphate over 100: remover, about {remover:.0f} fl oz here by the rule, and clean the filter after.",
    )
    note = "The supplement is not a sanitiser by itself: free chlorine is kept in its range, and public codes allow no less."
    return Plan(tuple(line.steps), asked.readings, (), (Finding("supplement", note, Measure.FREE_CHLORINE),))
