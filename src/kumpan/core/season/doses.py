"""The amounts of an opening or a closing, from the last test: what each item takes, against what stands on
the shelf.

Sources: season-lists, mass-balance.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kumpan.core.dosing.rounding import rough_amount, round_dose
from kumpan.core.messages import NOTHING, Message
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import ADD
from kumpan.core.records.unmet import Unmet
from kumpan.core.season.plans import Dosed
from kumpan.core.treatment.careful import careful_plan
from kumpan.core.treatment.label_words import by_own_label
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.plan_inputs import PlanInputs
from kumpan.core.treatment.special.shock import ShockRequest, shock_plan

SOURCES_USED = ("season-lists", "mass-balance")

_MEASURES: Mapping[Dosed, tuple[Measure, ...]] = {
    Dosed.BALANCE: (Measure.TOTAL_ALKALINITY, Measure.PH, Measure.CALCIUM_HARDNESS),
    Dosed.SALT: (Measure.SALT,),
    Dosed.STABILIZER: (Measure.CYANURIC_ACID,),
}
# What is dosed by its label, the kinds that suit it best first. Foam over a winter is nobody's wish.
_BY_LABEL: Mapping[Dosed, tuple[str, ...]] = {
    Dosed.SEQUESTRANT: ("sequestrant",),
    Dosed.ALGAECIDE: ("algaecide_polyquat", "algaecide_quat", "algaecide_copper"),
}


@dataclass(frozen=True, kw_only=True)
class DoseLine:
    """One product of an item: how much in all, in how many parts on their own days, and what is short of it
    on the shelf (None where the stock is not counted).
    """

    product_id: str
    label: str
    amount: Message
    parts: int
    short: Message | None


@dataclass(frozen=True)
class ItemDoses:
    """What an item takes by the last test; `left` is why there is none, or what must be tested first."""

    lines: tuple[DoseLine, ...]
    left: tuple[Message, ...]


def item_doses(dosed: Dosed, request: ShockRequest, stocked: Sequence[Stocked]) -> ItemDoses:
    """The amounts of one item as they would be today; the sheet of the day itself is reckoned anew."""
    if dosed in _BY_LABEL:
        return _by_label(_BY_LABEL[dosed], request, stocked)
    found = shock_plan(request) if dosed is Dosed.SHOCK else _part_of(request, _MEASURES[dosed])
    by_id = {item.product.id: item for item in stocked}
    parts: dict[str, list[float]] = {}
    for step in found.steps:
        if step.kind == ADD and step.product_id in by_id:
            parts.setdefault(step.product_id, []).append(step.rounded_g or 0.0)
    lines = tuple(_line(by_id[id_], masses, request) for id_, masses in parts.items())
    return ItemDoses(lines, tuple(dict.fromkeys(_left(unmet) for unmet in found.unmet)))


def _by_label(kinds: Sequence[str], request: ShockRequest, stocked: Sequence[Stocked]) -> ItemDoses:
    """The first that stands on the shelf with its label told; nothing where only the bottle says it."""
    found = by_own_label([item.product for item in stocked], kinds, request.volume_l)
    if found is None:
        return ItemDoses((), ())
    item = next(one for one in stocked if one.product.id == found[0].id)
    return ItemDoses((_line(item, [found[1]], request),), ())


def _line(item: Stocked, masses: Sequence[float], request: ShockRequest) -> DoseLine:
    display, total = request.display, sum(masses)
    amount = round_dose(
        item.product, total, units=display.units, uncertainty_share=0.0, containers=display.containers
    ).text
    return DoseLine(
        product_id=item.product.id,
        label=item.product.label,
        amount=amount,
        parts=len(masses),
        short=_short(item, total),
    )


def _part_of(request: ShockRequest, measures: tuple[Measure, ...]) -> Plan:
    """The usual plan, held to these measures."""
    own: dict[Measure, Band] = {m: band for m, band in request.bands.items() if m in measures}
    found = careful_plan(
        PlanInputs(
            readings=request.readings,
            volume_l=request.volume_l,
            traits=request.traits,
            aims=Aims(own, {}),
            inventory=request.inventory,
            measured=request.measured,
            display=request.display,
        )
    )
    return replace(found, unmet=tuple(unmet for unmet in found.unmet if unmet.measure in measures))


def _left(unmet: Unmet) -> Message:
    return unmet.reason


def _short(item: Stocked, mass_g: float) -> Message | None:
    if item.stock_g is None:
        return None
    short = mass_g - max(0.0, item.stock_g)
    return Message("{amount}", amount=rough_amount(item.product, short)) if short > 0.02 * mass_g else NOTHING
