"""Where and how each chemical goes in, said at the step. Source: cautions."""

from math import ceil

from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.quantity import Mass, Number
from kumpan.core.records.display import DisplayOptions

SOURCE = "cautions"

_WHERE: dict[str, Message] = {
    "sodium_hypochlorite": Message("Pour low along the deep end's edge, walking."),
    "calcium_hypochlorite": Message(
        "Dissolve in a bucket of pool water, let it settle, pour the clear part along the deep end."
    ),
    "sodium_dichlor": Message("Dissolve in a bucket of pool water, pour along the deep end."),
    "trichlor": Message("Into the feeder or floater; it dissolves over days."),
    "potassium_monopersulfate": Message("Broadcast over the deep end with the pump on."),
    "hydrochloric_acid": Message("Pour low along the deep end's edge, walking backwards."),
    "sodium_bisulfate": Message("Dissolve in a bucket of pool water, pour along the deep end."),
    "sodium_carbonate": Message("Dissolve in a bucket of pool water, pour along the deep end."),
    "sodium_bicarbonate": Message("Broadcast over the deep end; brush what settles."),
    "borax": Message("Dissolve in a bucket of pool water, pour along the deep end."),
    "boric_acid": Message("Broadcast over the deep end; brush what settles."),
    "calcium_chloride": Message(
        "Dissolve in a bucket of pool water held in the pool; pour the clear part around the deep end."
    ),
    "cyanuric_acid": Message("In a sock before a return, off the wall; squeeze it now and then."),
    "sodium_chloride": Message(
        "Pour along the deep end and brush it about until dissolved; not on the drain."
    ),
    "sodium_hydroxide": Message("By the label only."),
    "sodium_thiosulfate": Message("Dissolve in a bucket of pool water, pour around the pool."),
}
_POURED = frozenset(_WHERE) - {"trichlor", "cyanuric_acid"}


SALT_AT_THE_SHALLOW_END = Message(
    "Pour along the shallow end, so that it drifts and spreads; brush it until dissolved, none on the drain."
)
# What a bucket of pool water takes at once without boiling up or being left undissolved.
MOST_IN_A_BUCKET_G = {"calcium_chloride": 1000.0, "sodium_carbonate": 1000.0, "calcium_hypochlorite": 500.0}


def where(chemical: str, mass_g: float, display: DisplayOptions) -> Message:
    """The place and the manner, with the number of buckets where it is dissolved in small batches."""
    if chemical == "sodium_chloride" and display.salt_end == "shallow":
        return SALT_AT_THE_SHALLOW_END
    batches = ceil(mass_g / MOST_IN_A_BUCKET_G.get(chemical, mass_g or 1.0) - 1e-6)
    if batches <= 1:
        return _WHERE[chemical]
    each = Message("{amount}", amount=Mass(mass_g / batches))
    return Message(
        "{where} {batches} buckets, about {each} in each.",
        where=_WHERE[chemical],
        batches=Number(batches),
        each=each,
    )


def uses_pour_path(chemical: str) -> bool:
    """Whether the step is shown with the pour path on the pool's plan."""
    return chemical in _POURED


def prepare(traits: Traits, *, adds_salt: bool) -> Message:
    """The first step of any sheet: the pump, the robot, and the cell where salt goes in."""
    if adds_salt and traits.chlorination is Chlorination.SALT_CELL:
        return Message("Pump on, robot out, nobody in the water. Cell off until the salt has dissolved.")
    return Message("Pump on, robot out, nobody in the water.")
