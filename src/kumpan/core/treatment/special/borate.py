"""Borate as a plan of its own, staged by the limits of single additions.

Source: borate.
"""

from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.targets import Aims
from kumpan.core.treatment.plan import Plan, plan
from kumpan.core.treatment.special.request import SpecialRequest

SOURCE = "borate"

BORATE_TARGET_MG_L = 50.0
BORIC_ACID = Product("boric-acid", "boric_acid", 100.0)
BORAX = Product("borax", "borax", 100.0)
_ACID = Product("acid", "hydrochloric_acid", 31.45)


def borate_plan(request: SpecialRequest, chemical: str, target_mg_l: float = BORATE_TARGET_MG_L) -> Plan:
    """Borate to its target by boric acid, or by borax and the acid that holds pH; its own sheet, staged by
    the limits.
    """
    readings = request.readings
    if readings.borate is None:
        readings = readings.with_value(Measure.BORATE, 0.0)
    own = [p for p in request.inventory if p.chemical in (chemical, "hydrochloric_acid", "sodium_bisulfate")]
    inventory = list(own)
    if all(p.chemical != chemical for p in own):
        inventory.append(BORIC_ACID if chemical == "boric_acid" else BORAX)
    if all(p.chemical not in ("hydrochloric_acid", "sodium_bisulfate") for p in own):
        inventory.append(_ACID)
    held = {Measure.PH: request.bands[Measure.PH]}
    found = plan(
        readings,
        request.volume_l,
        traits=request.traits,
        aims=Aims(held, {Measure.BORATE: target_mg_l}),
        inventory=inventory,
        display=request.display,
    )
    notes = (Finding("borate", _BORATE_WORDS, Measure.BORATE), *found.notes)
    return Plan(found.steps, found.predicted, found.unmet, notes)


_BORATE_WORDS = Message(
    "Borate is a choice, not a need: it slows algae and steadies pH. It is not allowed "
    "everywhere, pets and children must not drink the water, it harms plants when drained, and "
    "it leaves only with water. Its label and local rules come first."
)
