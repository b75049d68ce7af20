"""Accidents in the water, as the health authority's guidance has them. Where it gives no time, none is given.

Source: fecal-guidance. The local health authority comes first, and in a public pool it decides.
"""

from dataclasses import dataclass, replace
from enum import StrEnum

from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.dosing.solution import Dose, nothing_at_hand
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Cased, Message
from kumpan.core.products.catalogue import STABILIZED
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.shock import ShockRequest, shock_product
from kumpan.core.treatment.split import Part

SOURCE = "faecal-guidance"


class Incident(StrEnum):
    """What got into the water."""

    FORMED_STOOL = "formed_stool"
    DIARRHEA = "diarrhoea"
    VOMIT = "vomit"
    BLOOD = "blood"


NAMES: dict[Incident, Message] = {
    Incident.FORMED_STOOL: Message("Formed stool"),
    Incident.DIARRHEA: Message("Diarrhea"),
    Incident.VOMIT: Message("Vomit"),
    Incident.BLOOD: Message("Blood"),
}
HIGHEST_PH = 7.5
LEAST_TEMPERATURE_C = 25.0
# Minutes times mg/L against the hardiest germ, without stabilizer.
CT_MG_MIN_L = 15_300.0


@dataclass(frozen=True)
class Holding:
    """Free chlorine (mg/L) to hold and for how many minutes, up to a stabilizer level (mg/L)."""

    incident: Incident
    stabilizer_to: float
    free_chlorine_mg_l: float
    minutes: float


HOLDINGS: tuple[Holding, ...] = (
    Holding(Incident.FORMED_STOOL, 0.0, 2.0, 25),
    Holding(Incident.FORMED_STOOL, float("inf"), 2.0, 50),
    Holding(Incident.DIARRHEA, 0.0, 20.0, CT_MG_MIN_L / 20.0),
    Holding(Incident.DIARRHEA, 15.0, 20.0, 28 * 60),
)
# Where a shell or a hall bears no 20: only without stabilizer, and longer.
UNDER_A_CAP = Holding(Incident.DIARRHEA, 0.0, 15.0, CT_MG_MIN_L / 15.0)
# Formed matter needs more where stabilizer binds: at least a twenty-fifth of it, over 50.
FORMED_SHARE_OF_STABILIZER, FORMED_FROM_STABILIZER = 1 / 25, 50.0


def holding(incident: Incident, stabilizer: float | None, cap_mg_l: float = float("inf")) -> Holding | None:
    """The guidance for this accident at this stabilizer in a pool that bears `cap_mg_l`; None where it gives
    none, or stabilizer is unknown.
    """
    if stabilizer is None:
        return None
    rows = (row for row in HOLDINGS if row.incident is incident and stabilizer <= row.stabilizer_to)
    row = next(rows, None)
    if row is not None and row.free_chlorine_mg_l > cap_mg_l:
        fits = stabilizer <= UNDER_A_CAP.stabilizer_to and UNDER_A_CAP.free_chlorine_mg_l <= cap_mg_l
        return UNDER_A_CAP if fits else None
    if row is not None and incident is Incident.FORMED_STOOL and stabilizer > FORMED_FROM_STABILIZER:
        level = max(row.free_chlorine_mg_l, FORMED_SHARE_OF_STABILIZER * stabilizer)
        return replace(row, free_chlorine_mg_l=level)
    return row


def incident_plan(incident: Incident, request: ShockRequest) -> Plan:
    """Close, remove, disinfect, and hold the chlorine that the guidance names for its time."""
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    line.do(
        Message("Close the pool: everybody out, nobody in"),
        Message("{names} in the water. A sign at the gate; tell who was in it.", names=NAMES[incident]),
        Hazard.OPEN_WATER,
    )
    line.do(
        Message("Take it out with a scoop or net, never the vacuum"),
        Message(
            "Into the sanitary sewer, not onto the ground. Then disinfect the tool in the pool's chlorine."
        ),
        Hazard.SOILED_WATER,
    )
    row = holding(incident, request.readings.cyanuric_acid, highest_planned_mg_l(request.traits))
    unmet: tuple[Unmet, ...] = ()
    if row is None:
        unmet = (Unmet(Measure.FREE_CHLORINE, "no_guidance", _no_time(incident, request)),)
    else:
        unmet = _hold(line, row, request)
    after = request.readings
    for step in line.steps:
        after = replace(after, free_chlorine=step.expected.get(Measure.FREE_CHLORINE, after.free_chlorine))
    line.do(
        Message("Backwash or clean the filter, to waste"),
        Message("What it caught must not come back. Local rules decide where the water goes."),
        Hazard.SOILED_WATER,
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH),
        Message("Open only with free chlorine and pH back in range and the drain plain to see."),
    )
    return Plan(tuple(line.steps), after, unmet, _notes(request))


def _hold(line: Timeline, row: Holding, request: ShockRequest) -> tuple[Unmet, ...]:
    free = request.readings.free_chlorine
    if free is None:
        return (
            Unmet(
                Measure.FREE_CHLORINE, "not_tested", Message("Free chlorine is not measured: test it now.")
            ),
        )
    if free < row.free_chlorine_mg_l and (unmet := _raise(line, row, request, free)):
        return unmet
    line.wait_until(
        line.now + round(row.minutes),
        Message(
            "Free chlorine at {free_chlorine} or more, pH at {highest_ph} or less, water at 25 C (77 "
            "F) or more, filter running: test and top up, and begin the time again if it falls under.",
            free_chlorine=Number(row.free_chlorine_mg_l),
            highest_ph=Number(HIGHEST_PH),
        ),
    )
    return ()


def _raise(line: Timeline, row: Holding, request: ShockRequest, free: float) -> tuple[Unmet, ...]:
    """To the level that the guidance holds, mixed and tested; or why that cannot be."""
    rise = row.free_chlorine_mg_l - free
    product = shock_product(request, rise, never=STABILIZED)
    if product is None:
        reason = Message(
            "Nothing on the shelf brings free chlorine to {free_chlorine} here; it takes chlorine without "
            "stabilizer.",
            free_chlorine=Number(row.free_chlorine_mg_l),
        )
        return (nothing_at_hand(Measure.FREE_CHLORINE, reason),)
    grams = mass_for_change_g(product, Measure.FREE_CHLORINE, rise, request.volume_l)
    why = Message(
        "Free chlorine from {free} to {free_chlorine}, as the guidance holds it.",
        free=Number(free, figures=3),
        free_chlorine=Number(row.free_chlorine_mg_l),
    )
    dose = Dose(product=product, mass_g=grams, measure=Measure.FREE_CHLORINE, change=rise, why=why)
    line.add(Part(dose=dose, mass_g=grams, day=1))
    line.wait_until(line.now + 60, Message("Until it is mixed: pump on."))
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH),
        Message("The time counts only from here, with both as named."),
    )
    return ()


def _no_time(incident: Incident, request: ShockRequest) -> Message:
    if request.readings.cyanuric_acid is None:
        return Message(
            "Stabilizer is not measured: the time depends on it. Test it, and keep the pool closed."
        )
    if incident is Incident.DIARRHEA:
        return Message(
            "With stabilizer at {cyanuric_acid} no time is given: drain or dilute to 15 or less first, "
            "and ask the health authority.",
            cyanuric_acid=Number(request.readings.cyanuric_acid, digits=0),
        )
    return Message(
        "For {incident} no time is named here: ask the health authority, and keep the pool closed till then.",
        incident=Cased(NAMES[incident]),
    )


def _notes(request: ShockRequest) -> tuple[Finding, ...]:
    found = [
        Finding(
            "authority",
            Message(
                "Guidance quoted from memory. The health authority's own words come first, and in a public "
                "pool they bind."
            ),
        )
    ]
    ph, temperature = request.readings.ph, request.readings.temperature_c
    if ph is None or ph > HIGHEST_PH:
        found.append(
            Finding(
                "ph_first",
                Message(
                    "Bring pH to {highest_ph} or less first; above it the times do not hold.",
                    highest_ph=Number(HIGHEST_PH),
                ),
                Measure.PH,
            )
        )
    if temperature is None or temperature < LEAST_TEMPERATURE_C:
        found.append(
            Finding(
                "too_cold",
                Message("The times hold at 25 C (77 F) or warmer; colder water has none here."),
                Measure.TEMPERATURE,
            )
        )
    return tuple(found)
