"""What a winter does to stabilizer and salt: new water thins both, and bacteria may take the stabilizer.

Source: winter-losses.
"""

from dataclasses import dataclass

from kumpan.core.findings import Finding
from kumpan.core.journal import Winter
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number

SOURCE = "winter-losses"

LOWERED_M = {True: 0.08, False: 0.30}  # by a sealed skimmer or not
RAIN_AND_MELT_SHARE = 0.10
MILD_SHARE = 0.15  # rain that ran over


@dataclass(frozen=True)
class WinterLoss:
    """The share of the water that is new in spring, and what that leaves of stabilizer and salt, mg/L."""

    new_water_share: float
    stabilizer_most: float | None
    salt: float | None
    notes: tuple[Finding, ...]


def winter_loss(
    readings: Readings, mean_depth_m: float, winter: Winter, *, skimmer_plate: bool
) -> WinterLoss:
    """What to expect at opening, so that a low reading then is no surprise.

    A figure to test against, not to dose from.
    """
    share = MILD_SHARE
    if winter is Winter.FROST:
        share = min(0.6, LOWERED_M[skimmer_plate] / mean_depth_m + RAIN_AND_MELT_SHARE)
    stabilizer = None if readings.cyanuric_acid is None else readings.cyanuric_acid * (1 - share)
    salt = None if readings.salt is None else readings.salt * (1 - share)
    return WinterLoss(share, stabilizer, salt, tuple(_notes(share, stabilizer, salt)))


def _notes(share: float, stabilizer: float | None, salt: float | None) -> list[Finding]:
    found = []
    if stabilizer is not None:
        text = Message(
            "Expect stabilizer at {stabilizer} or less in spring: about {share} % of the water is new "
            "by then. Near 0 with much combined chlorine means that bacteria turned it to ammonia: "
            "chlorine is then used up in large amounts.",
            stabilizer=Number(stabilizer, digits=0),
            share=Number(100 * share, digits=0),
        )
        found.append(Finding("winter_stabiliser", text, Measure.CYANURIC_ACID, {"most": stabilizer}))
    if salt is not None:
        text = Message(
            "Expect salt about {salt} in spring, by the same new water.", salt=Number(salt, digits=0)
        )
        found.append(Finding("winter_salt", text, Measure.SALT, {"salt": salt}))
    return found
