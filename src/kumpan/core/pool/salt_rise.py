"""A pool's volume from a weighed addition of salt: what it weighs over how far the reading rose.

Salt is neither used up nor driven off, so its rise says how much water it spread in. Source: salt-bump.
"""

from dataclasses import dataclass
from math import hypot

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.shown import shown
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from kumpan.core.quantity import Percent, PoolWater, RoughMass

SOURCE = "salt-bump"

MG_PER_G = 1000.0
COARSE_SHARE = 0.15  # a volume that somebody knows is as good: handbook 01
UNUSABLE_SHARE = 0.5

# A bag in ten thousand gallons is a rise of 480 mg/L: enough for a meter good to 50. Source: salt-bump.
STEPS: tuple[Message, ...] = (
    Message("Test salt, and write it down as the value before."),
    Message(
        "Weigh in pool salt: about {bag} for each {water} you guess. Cell off, pump on; broadcast "
        "it over the deep end and brush what lies on the floor.",
        bag=RoughMass(40 * G_PER_LB),
        water=PoolWater(10_000 * L_PER_US_GAL),
    ),
    Message("Leave the pump on for a day, then test salt again with the same kit."),
)


@dataclass(frozen=True)
class SaltReading:
    """Salt in mg/L with the half-width of the method's interval there."""

    value: float
    half_width: float


@dataclass(frozen=True)
class VolumeFromSalt:
    """Liters, and how far they may be off as a share, from the two readings' own intervals."""

    volume_l: float
    uncertainty_share: float

    @property
    def is_coarse(self) -> bool:
        """Whether another bag is worth its trouble."""
        return self.uncertainty_share > COARSE_SHARE

    @property
    def sentence(self) -> Message:
        """How far to trust it, and what makes it surer."""
        if not self.is_coarse:
            return Message(
                "Within {share}, by what the two readings may be off.", share=Percent(self.uncertainty_share)
            )
        return Message(
            "Within {share} only: the rise is small beside what the method may be off. Another bag makes it "
            "surer.",
            share=Percent(self.uncertainty_share),
        )


def volume_from_salt(mass_g: float, before: SaltReading, after: SaltReading) -> VolumeFromSalt:
    """The volume that `mass_g` of salt spread in, mixed for a day with the pump on.

    The two readings err by themselves, so their half-widths add as the sides of a right angle do: a meter
    good to 100 mg/L leaves a rise of 600 at 24 %. Raises InvalidInput where nothing was added, or the rise
    is hardly more than the method's own error.
    """
    if mass_g <= 0:
        raise InvalidInput(Message("Write what the added salt weighs, like 40 lb."), "added")
    rise = after.value - before.value
    width = hypot(before.half_width, after.half_width)
    if rise <= 0 or width / rise > UNUSABLE_SHARE:
        raise InvalidInput(
            Message(
                "A rise of {rise} ppm is within what this method may be off: add another bag, run the pump "
                "for a day and test again.",
                rise=shown(Measure.SALT, max(rise, 0.0)),
            ),
            "after",
        )
    return VolumeFromSalt(mass_g * MG_PER_G / rise, width / rise)
