"""Round a dose to what a person can measure, and say it in their units.

Whole packages for salt, half packages for what comes in bags, quarters for jugs, else the scale or
the measuring cup. Acid, calcium, stabilizer and salt round down. No rounding moves a dose by more
than 10 percent or the reading's own doubt: then a smaller measure is named. Source: rounding.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import ceil, floor
from types import MappingProxyType

from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.product import Product, mass_from_volume_g, volume_from_mass_ml
from kumpan.core.quantities.units import G_PER_OZ, ML_PER_FL_OZ, Units
from kumpan.core.quantity import Count, Liquid, Mass, RoughLiquid, RoughMass
from kumpan.core.records.containers import Container, ContainerKind

SOURCE = "rounding"

LARGEST_SHIFT = 0.10
SCALE_SHIFT = 0.05
MOST_FILLINGS = 12  # nobody counts to thirty with a cup: then the plain amount is told
ROUND_DOWN = ("hydrochloric_acid", "sodium_bisulfate", "calcium_chloride", "cyanuric_acid", "sodium_chloride")
# What a scale or a measuring cup shows, coarsest first, as multiples of the unit below.
OUNCE_STEPS = (80.0, 16.0, 8.0, 4.0, 2.0, 1.0, 0.5, 0.25, 0.1)
GRAM_STEPS = (5000.0, 1000.0, 500.0, 250.0, 100.0, 50.0, 25.0, 10.0, 5.0, 1.0, 0.1)
FL_OZ_STEPS = (32.0, 16.0, 8.0, 4.0, 2.0, 1.0, 0.5, 0.25, 0.1)
ML_STEPS = (1000.0, 500.0, 250.0, 100.0, 50.0, 25.0, 10.0, 5.0, 1.0)


@dataclass(frozen=True)
class Rounded:
    """A measurable amount: grams, mL for liquids, and the words for it."""

    mass_g: float
    volume_ml: float | None
    text: Message


def round_dose(
    product: Product,
    mass_g: float,
    units: Units = Units.US,
    uncertainty_share: float = 0.0,
    containers: Sequence[Container] = (),
    *,
    down: bool = False,
) -> Rounded:
    """The measurable amount nearest to `mass_g` (below it where the trade rounds down, or where `down` says
    so).

    `doubt_share` is the dose's own doubt as a share of it: packages may shift the dose that far. `containers`
    are what the person measures with; where none is fine enough, a smaller measure is named.
    """
    down = down or product.chemical in ROUND_DOWN
    allowed = max(LARGEST_SHIFT, uncertainty_share)
    in_packages = _in_packages(product, mass_g, allowed, down=down)
    if in_packages is not None:
        return in_packages
    fitting = [
        box
        for box in containers
        if measures(box, product) and _fillings(box, product, mass_g) <= MOST_FILLINGS
    ]
    if fitting:
        return _in_containers(product, mass_g, allowed=allowed, down=down, units=units, boxes=fitting)
    return _plainly(product, mass_g, units, down=down)


def _plainly(product: Product, mass_g: float, units: Units, *, down: bool) -> Rounded:
    """By an ordinary kitchen scale or measuring cup."""
    volume = volume_from_mass_ml(product, mass_g)
    if volume is None:
        grams = _on_scale(mass_g, units, down=down)
        return Rounded(grams, None, Message("{amount}", amount=Mass(grams)))
    ml = _in_cup(volume, units, down=down)
    return Rounded(mass_from_volume_g(product, ml), ml, Message("{amount}", amount=Liquid(ml)))


def _snap(amount: float, step: float, *, down: bool) -> float:
    count = floor(amount / step + 1e-9) if down else floor(amount / step + 0.5)
    return count * step


def _coarsest(amount: float, steps: Sequence[float], *, down: bool) -> float:
    for step in steps:
        snapped = _snap(amount, step, down=down)
        if snapped > 0 and abs(snapped - amount) <= SCALE_SHIFT * amount:
            return snapped
    return amount


def _on_scale(mass_g: float, units: Units, *, down: bool) -> float:
    if units is Units.METRIC:
        return _coarsest(mass_g, GRAM_STEPS, down=down)
    return _coarsest(mass_g / G_PER_OZ, OUNCE_STEPS, down=down) * G_PER_OZ


def _in_cup(volume_ml: float, units: Units, *, down: bool) -> float:
    if units is Units.METRIC:
        return _coarsest(volume_ml, ML_STEPS, down=down)
    return _coarsest(volume_ml / ML_PER_FL_OZ, FL_OZ_STEPS, down=down) * ML_PER_FL_OZ


def _in_packages(product: Product, mass_g: float, allowed: float, *, down: bool) -> Rounded | None:
    """Whole, half or quarter packages when that is close enough; None otherwise."""
    volume = volume_from_mass_ml(product, mass_g)
    amount, package = (mass_g, product.package_g) if volume is None else (volume, product.package_ml)
    if not package or amount < package / 2:
        return None
    fraction = 1.0 if product.chemical == "sodium_chloride" else 0.5 if volume is None else 0.25
    snapped = _snap(amount, package * fraction, down=down)
    if snapped <= 0 or abs(snapped - amount) > allowed * amount:
        return None
    count = snapped / package
    size = Mass(package) if volume is None else Liquid(package)
    text = Message(_PACKAGES[package_noun(product)][count > 1], count=Count(count), size=size)
    if volume is None:
        return Rounded(snapped, None, text)
    return Rounded(mass_from_volume_g(product, snapped), snapped, text)


def _fillings(box: Container, product: Product, mass_g: float) -> float:
    """How often it would be filled; a scale takes any amount."""
    size = box.volume_ml if product.row.is_liquid else box.mass_g
    if _is_scale(box) or not size:
        return 0.0
    return (volume_from_mass_ml(product, mass_g) or mass_g) / size


def measures(box: Container, product: Product) -> bool:
    """Whether it can measure this product: cups and jugs liquids, a scoop what it was weighed with, a scale
    solids.
    """
    if product.row.is_liquid:
        return bool(box.volume_ml)
    return bool(box.mass_g) and (box.kind is ContainerKind.SCALE or box.product_id == product.id)


def _in_containers(
    product: Product, mass_g: float, *, allowed: float, down: bool, units: Units, boxes: Sequence[Container]
) -> Rounded:
    """The container with the fewest fillings that comes close enough; else a smaller measure is named."""
    amount = volume_from_mass_ml(product, mass_g) or mass_g
    for limit in (SCALE_SHIFT, allowed):
        close = [
            (snapped / size, snapped, box)
            for box in boxes
            if (size := box.volume_ml or box.mass_g or 0.0)
            and (snapped := _snap(amount, size / box.parts, down=down)) > 0
            and abs(snapped - amount) <= limit * amount
        ]
        if close:
            count, snapped, box = min(close, key=lambda found: (_is_scale(found[2]), found[0]))
            return _reported(product, count, snapped, box)
    plain = _plainly(product, mass_g, units, down=down)
    return replace(plain, text=Message("{text} (finer than your measures show)", text=plain.text))


def _is_scale(box: Container) -> bool:
    return box.kind is ContainerKind.SCALE


def _reported(product: Product, count: float, snapped: float, box: Container) -> Rounded:
    if _is_scale(box):
        return Rounded(snapped, None, Message("{amount}", amount=Mass(snapped)))
    amount = Liquid(snapped) if product.row.is_liquid else Mass(snapped)
    text = Message("{count} × {name} ({amount})", count=Count(count), name=Verbatim(box.name), amount=amount)
    if not product.row.is_liquid:
        return Rounded(snapped, None, text)
    return Rounded(mass_from_volume_g(product, snapped), snapped, text)


def outward(product: Product, mass_g: float, units: Units, *, up: bool) -> Mass | Liquid:
    """An end of a range in the coarse steps of a scale or cup, away from the middle."""
    metric = units is Units.METRIC
    volume = volume_from_mass_ml(product, mass_g)
    if volume is None:
        steps = [one * (1.0 if metric else G_PER_OZ) for one in (GRAM_STEPS if metric else OUNCE_STEPS)]
        return Mass(_outward(mass_g, steps, up=up))
    steps = [one * (1.0 if metric else ML_PER_FL_OZ) for one in (ML_STEPS if metric else FL_OZ_STEPS)]
    return Liquid(_outward(volume, steps, up=up))


def _outward(amount: float, steps: Sequence[float], *, up: bool) -> float:
    step = next((step for step in steps if step <= 2 * SCALE_SHIFT * amount), steps[-1])
    count = ceil(amount / step - 1e-9) if up else floor(amount / step + 1e-9)
    return count * step


# One and several packages of each kind, as whole templates.
_PACKAGES: Mapping[str, tuple[str, str]] = MappingProxyType({
    "jug": ("{count} jug of {size}", "{count} jugs of {size}"),
    "tablet": ("{count} tablet of {size}", "{count} tablets of {size}"),
    "bag": ("{count} bag of {size}", "{count} bags of {size}"),
})  # fmt: skip


def package_noun(product: Product) -> str:
    """What a package of it is called on a plan, in the words that are typed back."""
    if product.row.is_liquid:
        return "jug"
    return "tablet" if product.chemical == "trichlor" else "bag"


def rough_amount(product: Product, mass_g: float) -> RoughMass | RoughLiquid:
    """An amount to buy by or to expect, in one large unit; two figures at most."""
    ml = volume_from_mass_ml(product, mass_g)
    return RoughMass(mass_g) if ml is None else RoughLiquid(ml)
