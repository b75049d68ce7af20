"""From readings to conserved totals and back: pH, titrated alkalinity, carbonate.

Total alkalinity is what a titration with strong acid to pH 4.5 takes at the water's temperature,
closed, chlorine left in: the alkalinity now minus what is left of it at pH 4.5.
Sources: phreeqc-dat, mass-balance.
"""

from dataclasses import dataclass

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.constants import Constants, constants_at
from kumpan.core.chemistry.speciation import (
    MOST_ROUNDS,
    Frame,
    Number,
    Species,
    Totals,
    one_round,
    speciate,
    start_frame,
    worst,
)
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Readings

TITRATION_END_PH = 4.5
ASSUMED_TEMPERATURE_C = 25.0
LOWEST_PH, HIGHEST_PH = 0.5, 13.5
SLOPE_STEP_PH = 1e-5
SLOPE_HOLDS_PH = 1e-3  # after a shorter step the old slope still serves
BRACKET_SLACK_PH = 0.02
LARGEST_STEP_PH = 1.5
FRAME_STILL = 1e-4
END_STANDS_STILL = 1e-6  # mol/L: the titration's end no longer moves the answer; 4e-7 in the index at most
CARBON_STILL = 1e-10  # mol/L, of the carbon that is sought from a pH: 1e-7 mg/L of carbonate
SETTLED = 1e-12  # mol/L; a round trip then closes to 1e-6 even at the corners of the range
MG_PER_EQ = molar.ALKALINITY_EQUIVALENT_AS_CACO3 * 1000.0


@dataclass(frozen=True)
class NoCarbonate:
    """Why no carbonate alkalinity exists: stabilizer, borate and the rest exceed the measured alkalinity."""

    other_mg_l: float
    code: str = "no_carbonate"

    @property
    def reason(self) -> Message:
        """Why no carbonate is left, and what to do."""
        return Message(
            "Stabilizer, borate and chlorine already make more than the measured alkalinity, "
            "so no carbonate is left; test alkalinity, stabilizer and pH again."
        )


@dataclass(frozen=True)
class State:
    """One water solved: its totals, its species, and its alkalinity as titrated (mg/L as CaCO3)."""

    totals: Totals
    species: Species
    total_alkalinity_mg_l: Number

    @property
    def constants(self) -> Constants:
        """The equilibrium constants at this water's temperature."""
        return constants_at(self.totals.temperature_c)


@dataclass(frozen=True)
class Known:
    """What the readings say, mol/L, with what is assumed filled in: all but carbon and the strong ions'
    balance.
    """

    ph: float
    total_alkalinity: float
    base: Totals
    sulfate_known: bool


def known_from(readings: Readings) -> Known | None:
    """The inputs of the pH work; None when pH, alkalinity or stabilizer is not known.

    Assumed when not known: temperature 25 C, borate 0, calcium 0, salt the chloride that the hardness
    implies; free chlorine adds only its small share of alkalinity and counts as 0.
    """
    if readings.ph is None or readings.total_alkalinity is None or readings.cyanuric_acid is None:
        return None
    calcium = (readings.calcium_hardness or 0.0) / (molar.CALCIUM_CARBONATE * 1000.0)
    salt = readings.salt
    chloride = 2 * calcium if salt is None else salt / (molar.SODIUM_CHLORIDE * 1000.0)
    base = Totals(
        alkalinity=0.0,
        carbon=0.0,
        calcium=calcium,
        cyanurate=readings.cyanuric_acid / (molar.CYANURIC_ACID * 1000.0),
        borate=(readings.borate or 0.0) / (molar.B * 1000.0),
        chlorine=(readings.free_chlorine or 0.0) / (molar.CHLORINE * 1000.0),
        chloride=chloride,
        sulfate=(readings.sulfate or 0.0) / (molar.SULFATE * 1000.0),
        potassium=0.0,
        temperature_c=ASSUMED_TEMPERATURE_C if readings.temperature_c is None else readings.temperature_c,
    )
    return Known(readings.ph, readings.total_alkalinity / MG_PER_EQ, base, readings.sulfate is not None)


def solve_readings(known: Known) -> State | NoCarbonate:
    """The state at a measured pH and titrated alkalinity: inorganic carbon is what is sought.

    For fixed coefficients the alkalinity is linear in carbon, both now and at the end of the titration,
    so each round solves for carbon directly. Round trip better than 1e-9 where carbonate exists.
    """
    state = _iterate(known)
    # An array goes on as it is: who asks for many waters at once masks where carbon is not positive.
    if isinstance(state.totals.carbon, float) and state.totals.carbon <= 0:
        return NoCarbonate((state.species.other_alkalinity) * MG_PER_EQ)
    return state


def _iterate(known: Known) -> State:
    """Rounds at the measured pH and at the titration's end together; works on arrays too."""
    k = constants_at(known.base.temperature_c)
    totals = known.base._replace(alkalinity=known.total_alkalinity, carbon=known.total_alkalinity + 1e-9)
    totals = _balanced(totals)
    now_frame = end_frame = start_frame(totals)
    carbon: Number = totals.carbon
    end, step = None, 1.0
    for _ in range(MOST_ROUNDS):
        now = one_round(known.ph, totals, k, now_frame)
        if end is None or step > END_STANDS_STILL:
            end = one_round(TITRATION_END_PH, _titrated(totals, known.total_alkalinity), k, end_frame)
        per_carbon = now.carbonate_alkalinity_per_carbon - end.carbonate_alkalinity_per_carbon
        new = (known.total_alkalinity - now.other_alkalinity + end.other_alkalinity) / per_carbon
        alkalinity = now.other_alkalinity + new * now.carbonate_alkalinity_per_carbon
        step = worst(new - carbon) + worst(now.frame.strength - now_frame.strength)
        carbon, now_frame, end_frame = new, now.frame, end.frame
        held = (
            0.5 * (abs(carbon) + carbon) + 1e-15
        )  # below zero is told afterwards; the iteration needs a water
        totals = _balanced(totals._replace(carbon=held, alkalinity=alkalinity, sulfate=known.base.sulfate))
        if step < CARBON_STILL:
            break
    return State(totals._replace(carbon=carbon), now, known.total_alkalinity * MG_PER_EQ)


def _balanced(totals: Totals) -> Totals:
    """Where the anions do not suffice for the hardness, the missing one is sulfate (sodium is then 0)."""
    lacking = -totals.sodium
    missing = 0.5 * (abs(lacking) + lacking) / 2
    return totals._replace(sulfate=totals.sulfate + missing) if worst(missing) > 0 else totals


def _titrated(totals: Totals, taken_eq: Number) -> Totals:
    """The same water once the titrant's acid is in it: alkalinity gone, its chloride added."""
    return totals._replace(chloride=totals.chloride + taken_eq, alkalinity=totals.alkalinity - taken_eq)


def solve_totals(totals: Totals, near_ph: float = 7.5) -> State:
    """The state of known totals: pH is what is sought. Bracketed, with a cap on rounds; floats only."""
    totals = _balanced(totals)
    k = constants_at(totals.temperature_c)
    ph, frame = _find_ph(totals, k, near_ph)
    species = speciate(ph, totals, k, frame)
    return State(totals, species, titrated_alkalinity(totals, species, k))


def _find_ph(totals: Totals, k: Constants, near_ph: float) -> tuple[float, Frame]:
    """pH at which the bases' alkalinity is that of the strong ions.

    Newton at a fixed frame, then the frame follows: a slope must not be taken across two frames. The
    alkalinity rises with pH, so once the frame stands nearly still a bracket catches steps that go astray;
    until then a step is only held short.
    """
    low, high = LOWEST_PH, HIGHEST_PH
    ph, frame = near_ph, start_frame(totals)
    slope, step = 0.0, 1.0
    for _ in range(MOST_ROUNDS):
        species = one_round(ph, totals, k, frame)
        value = species.alkalinity - totals.alkalinity
        if step > SLOPE_HOLDS_PH:
            beside = one_round(ph + SLOPE_STEP_PH, totals, k, frame)
            slope = (beside.alkalinity - species.alkalinity) / SLOPE_STEP_PH
        moved = worst(species.frame.strength - frame.strength) + worst(species.frame.calcium - frame.calcium)
        if moved > FRAME_STILL * species.frame.strength:
            low, high = LOWEST_PH, HIGHEST_PH
        else:
            low, high = (low, ph + BRACKET_SLACK_PH) if value > 0 else (ph - BRACKET_SLACK_PH, high)
        new = ph - value / slope if slope > 0 else 0.5 * (low + high)
        if not low <= new <= high:
            new = 0.5 * (ph + (low if value > 0 else high))
        new = min(max(new, ph - LARGEST_STEP_PH), ph + LARGEST_STEP_PH)
        step, ph, frame = abs(new - ph), new, species.frame
        if step < 1e-10 and moved < SETTLED:
            break
    return ph, frame


def remaining_alkalinity(totals: Totals, taken_eq: Number) -> Number:
    """Alkalinity (eq/L) that is left, or owed, at the titration's end once `taken_eq` of acid is in."""
    end = speciate(TITRATION_END_PH, _titrated(totals, taken_eq), constants_at(totals.temperature_c))
    return end.alkalinity


def titrated_alkalinity(totals: Totals, species: Species, k: Constants) -> Number:
    """mg/L as CaCO3 that a titration of this water to pH 4.5 takes; the acid it takes is part of the
    answer.
    """
    taken: Number = totals.alkalinity
    frame = species.frame
    for _ in range(MOST_ROUNDS):
        end = one_round(TITRATION_END_PH, _titrated(totals, taken), k, frame)
        new = species.alkalinity - end.alkalinity
        step = worst(new - taken)
        taken, frame = new, end.frame
        if step < SETTLED:
            break
    return taken * MG_PER_EQ
