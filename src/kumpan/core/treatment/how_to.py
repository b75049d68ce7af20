"""Where and how each chemical goes in, said at the step. Source: cautions."""

from math import ceil

from kumpan.core.dosing.rounding import mass_text
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.records.display import DisplayOptions

SOURCE = "cautions"

_WHERE: dict[str, str] = {
    "sodium_hypochlorite": "Pour low along the deep end's edge, walking.",
    "calcium_hypochlorite": "Dissolve in a bucket of pool water, let it settle, pour the clear part along the deep end.",
    "sodium_dichlor": "Dissolve in a bucket of pool water, pour along the deep end.",
    "trichlor": "Into the feeder or floater; it dissolves over days.",
    "potassium_monopersulfate": "Broadcast over the deep end with the pump on.",
    "hydrochloric_acid": "Pour low along the deep end's edge, walking backwards.",
    "sodium_bisulfate": "Dissolve in a bucket of pool water, pour along the deep end.",
    "sodium_carbonate": "Dissolve in a bucket of pool water, pour along the deep end.",
    "sodium_bicarbonate": "Broadcast over the deep end; brush what settles.",
    "borax": "Dissolve in a bucket of pool water, pour along the deep end.",
    "boric_acid": "Broadcast over the deep end; brush what settles.",
    "calcium_chloride": "Dissolve in a bucket of pool water held in the pool; pour the clear part around the deep end.",
    "cyanuric_acid": "In a sock before a return, off the wall; squeeze it now and then.",
    "sodium_chloride": "Pour along the deep end and brush it about until dissolved; not on the drain.",
    "sodium_hydroxide": "By the label only.",
    "sodium_thiosulfate": "Dissolve in a bucket of pool water, pour around the pool.",
}
_POURED = frozenset(_WHERE) - {"trichlor", "cyanuric_acid"}


SALT_AT_THE_SHALLOW_END = (
    "Pour along the shallow end, so that it drifts and spreads; brush it until dissolved, none on the drain."
)
# What a bucket of pool water takes at once without boiling up or being left undissolved.
MOST_IN_A_BUCKET_G = {"calcium_chloride": 1000.0, "sodium_carbonate": 1000.0, "calcium_hypochlorite": 500.0}


def where(chemical: str, mass_g: float, display: DisplayOptions) -> str:
    """The place and the manner, with the number of buckets where it is dissolved in small batches."""
    if chemical == "sodium_chloride" and display.salt_end == "shallow":
        return SALT_AT_THE_SHALLOW_END
    batches = ceil(mass_g / MOST_IN_A_BUCKET_G.get(chemical, mass_g or 1.0) - 1e-6)
    if batches <= 1:
        return _WHERE[chemical]
    each = mass_text(mass_g / batches, display.metric)
    return f"{_WHERE[chemical]} {batches} buckets, about {each} in each."


def uses_pour_path(chemical: str) -> bool:
    """Whether the step is shown with the pour path on the pool's plan."""
    return chemical in _POURED


def prepare(traits: Traits, adds_salt: bool) -> str:
    """The first step of any sheet: the pump, the robot, and the cell where salt goes in."""
    steps = "Pump on, robot out, nobody in the water."
    if adds_salt and traits.chlorination is Chlorination.SALT_CELL:
        return steps + " Cell off until the salt has dissolved."
    return steps
