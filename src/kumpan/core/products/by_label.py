"""What is dosed by its label: half of a shop's shelf has no equation, only "so much per 10 000 gal".

Read a row as a handbook line. The figures help to fill in a form; what the person's own label says
counts. The
amounts are for each 10 000 gal of pool, low to high. Source: label-doses.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import BY_LABEL
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, ML_PER_FL_OZ

SOURCE = "label-doses"

PER_L = 10_000 * L_PER_US_GAL
COPPER_LIMIT_MG_L = 0.3
AMMONIUM_KIND = "algae_booster"


@dataclass(frozen=True, kw_only=True)
class LabelDose:
    """What a label says, for each liter of pool: g of a solid, mL of a liquid.

    `first` the first dose, `upkeep` every `repeat_days`, `most` the label's own maximum; `swim_wait_min` till
    somebody may swim. None where the label says nothing of it.
    """

    first_per_l: float
    upkeep_per_l: float | None = None
    most_per_l: float | None = None
    repeat_days: int | None = None
    swim_wait_min: int = 15


@dataclass(frozen=True, kw_only=True)
class LabelKind:
    """A kind of such products. Doses in fl oz (liquids) or lb (solids) per 10 000 gal, low to high.

    `fc_under_mg_l`: not before free chlorine is under it. What it keeps apart from stands with the
    separations.
    `sand_only`: with cartridge or DE it is refused. `pump_h` the pump runs on, `clean_filter` after that.
    """

    key: str
    use: Message
    first: tuple[float, float] | None
    upkeep: tuple[float, float] | None
    where: Message
    repeat_days: int | None = None
    swim_wait_min: int = 15
    fc_under_mg_l: float | None = None
    sand_only: bool = False
    pump_h: int = 0
    clean_filter: bool = False
    into_the_pool: bool = True
    then: Message | None = None
    know: Message | None = None

    @property
    def name(self) -> str:
        """What it is called."""
        return BY_LABEL[self.key].name

    @property
    def is_liquid(self) -> bool:
        """Sold by volume."""
        return BY_LABEL[self.key].is_liquid

    def usual(self) -> LabelDose | None:
        """The usual label, to begin a form with: the low end first, the high end as the most."""
        if self.first is None:
            return None
        unit = (ML_PER_FL_OZ if self.is_liquid else G_PER_LB) / PER_L
        return LabelDose(
            first_per_l=self.first[0] * unit,
            upkeep_per_l=None if self.upkeep is None else self.upkeep[0] * unit,
            most_per_l=self.first[1] * unit,
            repeat_days=self.repeat_days,
            swim_wait_min=self.swim_wait_min,
        )


_EDGE = Message("Straight to the pool, round the edge, more of it at the deep end; never in a bucket.")
_WALK = Message("Pour round the edge, walking, with the pump on.")
_ROWS: tuple[LabelKind, ...] = (
    LabelKind(  # handbook 12 [M]
        key="algaecide_quat", use=Message("Keeps algae from starting; it kills no bloom."),
        first=(10, 16), upkeep=(3, 5), repeat_days=7, swim_wait_min=60, fc_under_mg_l=5, where=_WALK,
        then=Message("It foams for a day or two with jets or a waterfall on."),
        know=Message("30 to 40 % active is worth buying; the large cheap jug is mostly water."),
    ),
    LabelKind(  # handbook 12 [M]
        key="algaecide_polyquat", use=Message("Keeps algae from starting and does "
            "not foam; for the winter too."),
        first=(5, 16), upkeep=(2, 4), repeat_days=7, swim_wait_min=60, fc_under_mg_l=5, where=_WALK,
        know=Message("The 60 % kind is the one for closing."),
    ),
    LabelKind(  # handbook 12 [C], strength [M]
        key="algaecide_copper", use=Message("Copper against algae; what it brings stays in the water."),
        first=(6, 6), upkeep=None, swim_wait_min=60, fc_under_mg_l=5, where=_WALK,
        know=Message("Copper is tested before each dose: over 0.3 ppm "
            "it stains plaster and turns hair green."),
    ),
    LabelKind(  # handbook 12 [C]; 2 lb per 15 000 gal
        key="algae_booster", use=Message("A powder that goes along with a shock against algae."),
        first=(1.333, 1.333), upkeep=None, swim_wait_min=60, where=_EDGE,
        then=Message("The water foams and turns white; combined chlorine reads high till the last round."),
        know=Message(
            "Where its kind is unknown it counts as ammonium: all the "
                "chlorine of the rescue stands at hand first."
        ),
    ),
    LabelKind(  # handbook 12 [M]
        key="clarifier", use=Message("Gathers fine haze so that the filter holds it."),
        first=(4, 8), upkeep=(2, 4), repeat_days=7, fc_under_mg_l=5, where=_WALK, pump_h=24,
        clean_filter=True,
        know=Message("The kind with enzymes is for dead algae."),
    ),
    LabelKind(  # handbook 12 [M]
        key="flocculant", use=Message("Sinks what floats, to be vacuumed to waste."),
        first=(16, 32), upkeep=None, swim_wait_min=720, where=_WALK, sand_only=True, pump_h=2,
        then=Message(
            "Valve on recirculate for two hours, then the pump off "
                "overnight; in the morning vacuum slowly to waste."
        ),
    ),
    LabelKind(  # handbook 12 [C]
        key="enzyme", use=Message("Breaks down oils and what bathers leave."),
        first=(16, 32), upkeep=(8, 16), repeat_days=14, fc_under_mg_l=5, where=_WALK,
        know=Message("Chlorine over 5 ppm destroys it."),
    ),
    LabelKind(  # handbook 12 [C]
        key="phosphate_remover", use=Message("Takes out phosphate, to under 100 ppb by test."),
        first=(8, 8), upkeep=None, where=_WALK, pump_h=12, clean_filter=True,
        then=Message("The water clouds; the filter runs 12 h a day or more and is cleaned after."),
        know=Message("Never within four weeks after a metal sequestrant of "
            "the phosphonate kind: it reads as phosphate."),
    ),
    LabelKind(  # handbook 12 [M]
        key="sequestrant", use=Message("Keeps iron and copper in solution; before a shock and at closing."),
        first=(16, 32), upkeep=(4, 8), repeat_days=7, fc_under_mg_l=5, where=_WALK, pump_h=24,
        clean_filter=True,
        know=Message("Chlorine over 5 ppm destroys it: wait until it is under."),
    ),
    LabelKind(  # handbook 12 [C]
        key="mineral_starter", use=Message("Starts a mineral or ion unit: the whole package."),
        first=None, upkeep=None, swim_wait_min=60, pump_h=48,
        where=Message("Broadcast over the whole surface with the pump on."),
        then=Message("It dissolves over a day or two; brush what settles."),
    ),
    LabelKind(  # handbook 12 [M]
        key="surface_cleaner", use=Message("For stains, tile, filter or cell."),
        first=None, upkeep=None, into_the_pool=False, where=Message("By its label; not into the pool."),
        know=Message("Never with chlorine or acid near."),
    ),
    LabelKind(  # handbook 12 [C]
        key="filter_aid", use=Message("Fiber or powder that a filter is coated with."),
        first=None, upkeep=None, into_the_pool=False, where=Message("Through the skimmer as its label says."),
    ),
    LabelKind(  # handbook 12 [C]
        key="supply", use=Message("Counted, changed by date: scum balls, hose filters, skimmer socks."),
        first=None, upkeep=None, into_the_pool=False, where=Message("Where it belongs."), repeat_days=14,
    ),
)  # fmt: skip
KINDS: Mapping[str, LabelKind] = MappingProxyType({row.key: row for row in _ROWS})
# By what a label or a person may say; the reason instead of a dose. Origin: handbook 12.
NEVER: Mapping[str, Message] = MappingProxyType({
    "bromide": Message(
        "Bromide is refused: it turns the pool into a bromine pool for good, and nothing here holds for that."
    ),
})  # fmt: skip


def kind_of_label(chemical: str) -> LabelKind | None:
    """The kind of a product that is dosed by its label; None for a chemical with an equation.

    Raises InvalidInput, with the reason, for what is never put in.
    """
    if chemical in NEVER:
        raise InvalidInput(NEVER[chemical], "chemical")
    return KINDS.get(chemical)


def repeat_days(chemical: str, dose: LabelDose | None) -> int | None:
    """After how many days the next dose is due: by the product's own label, or by a usual one of its kind.

    None where neither says so, and for a chemical with an equation.
    """
    kind = KINDS.get(chemical)
    if kind is None or dose is not None:
        return dose.repeat_days if kind is not None and dose is not None else None
    return kind.repeat_days


def checked(dose: LabelDose) -> LabelDose:
    """A label as typed. Raises InvalidInput where it says less than nothing or more than its own most."""
    most = dose.most_per_l
    for field, value in (("first", dose.first_per_l), ("upkeep", dose.upkeep_per_l)):
        if value is not None and value <= 0:
            raise InvalidInput(
                Message("The dose must be over 0; type it as on the label, like 8 fl oz."), field
            )
        if value is not None and most is not None and value > most * (1 + 1e-9):
            raise InvalidInput(Message("This is over the label's own maximum; read the label again."), field)
    return replace(dose, most_per_l=most)
