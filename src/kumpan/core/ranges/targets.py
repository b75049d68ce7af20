"""What a plan aims at: what the user named, else the profile's aim where a reading is out of range."""

from collections.abc import Mapping
from dataclasses import dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Traits
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band, Profile, bands

# Below these differences a target counts as met: what common methods can tell apart.
RESOLUTION: dict[Measure, float] = {
    Measure.PH: 0.05,
    Measure.FREE_CHLORINE: 0.2,
    Measure.SATURATION_INDEX: 0.03,
}
DEFAULT_RESOLUTION_MG_L = 1.0


def resolution(measure: Measure) -> float:
    """The smallest difference worth telling apart, in the measure's unit."""
    return RESOLUTION.get(measure, DEFAULT_RESOLUTION_MG_L)


TARGETABLE: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.PH,
    Measure.TOTAL_ALKALINITY,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
    Measure.BORATE,
)


@dataclass(frozen=True)
class Aims:
    """The bands that judge the water, and the targets that the user named, which go before them.

    `held` are measures that no dose is made for, since their reading does not carry one.
    """

    bands: Mapping[Measure, Band]
    named: Mapping[Measure, float]
    held: frozenset[Measure] = frozenset()


@dataclass(frozen=True)
class Aim:
    """One measure's goal; `least_shift` is the smallest difference worth a dose."""

    measure: Measure
    value: float
    named: bool


def aims(rows: Profile, traits: Traits, readings: Readings, named: Mapping[Measure, float]) -> Aims:
    """Bands of the school for this pool, with the user's named targets. Raises InvalidInput."""
    for measure in named:
        if measure not in TARGETABLE:
            known = ", ".join(TARGETABLE)
            raise InvalidInput(
                Message(
                    "{measure} cannot be a target; use one of: {known}.",
                    measure=Verbatim(str(measure)),
                    known=Verbatim(known),
                ),
                "targets",
            )
    stabilizer = named.get(Measure.CYANURIC_ACID, readings.cyanuric_acid)
    return Aims(bands(rows, traits, stabilizer), dict(named))


def aim_for(measure: Measure, aims_: Aims, value: float) -> Aim | None:
    """Where a measured value should go, or None when it is left alone."""
    if measure in aims_.named:
        goal = aims_.named[measure]
        if abs(goal - value) <= resolution(measure) - 1e-9:
            return None
        return Aim(measure, goal, named=True)
    band = aims_.bands.get(measure)
    if band is None or measure in aims_.held:
        return None
    if band.low is not None and value < band.low:
        return Aim(measure, band.aim, named=False) if band.dose_low and band.aim is not None else None
    if band.high is not None and value > band.high:
        return Aim(measure, band.aim if band.aim is not None else band.high, named=False)
    return None
