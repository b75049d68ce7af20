"""Round a dose to what a person can measure, and say it in their units.

Whole packages for salt, half packages for what comes in bags, quarters for jugs, else the scale or
the measuring cup. Acid, calcium, stabiliser and salt round down. No rounding moves a dose by more
than 10 percent or the reading's own doubt: then a smaller measure is named. Source: rounding.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import floor
from types import MappingProxyType

from kumpan.core.products.product import Product, mass_from_volume_g, volume_from_mass_ml
from kumpan.core.quantities.units import G_PER_LB, G_PER_OZ, L_PER_US_GAL, ML_PER_FL_OZ
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
    text: str


def round_dose(
    product: Product,
    mass_g: float,
    metric: bool = False,
    uncertainty_share: float = 0.0,
    containers: Sequence[Container] = (),
    *,
    down: bool = False,
) -> Rounded:
    """The measurable amount nearest to `mass_g` (below it where the trade rounds down, or where `down` says so).

    `doubt_share` is the dose's own doubt as a share of it: packages may shift the dose that far. `containers`
    are what the person measures with; where none is fine enough, a smaller measure is named.
    """
    down = down or product.chemical in ROUND_DOWN
    allowed = max(LARGEST_SHIFT, uncertainty_share)
    in_packages = _in_packages(product, mass_g, allowed, down, metric)
    if in_packages is not None:
        return in_packages
    fitting = [
        box
        for box in containers
        if measures(box, product) and _fillings(box, product, mass_g) <= MOST_FILLINGS
    ]
    if fitting:
        return _in_containers(product, mass_g, allowed, down, metric, fitting)
    return _plainly(product, mass_g, metric, down)


def _plainly(product: Product, mass_g: float, metric: bool, down: bool) -> Rounded:
    """By an ordinary kitchen scale or measuring cup."""
    volume = volume_from_mass_ml(product, mass_g)
    if volume is None:
        grams = _on_scale(mass_g, metric, down)
        return Rounded(grams, None, mass_text(grams, metric))
    ml = _in_cup(volume, metric, down)
    return Rounded(mass_from_volume_g(product, ml), ml, volume_text(ml, metric))


def _snap(amount: float, step: float, down: bool) -> float:
    count = floor(amount / step + 1e-9) if down else floor(amount / step + 0.5)
    return count * step


def _coarsest(amount: float, steps: Sequence[float], down: bool) -> float:
    for step in steps:
        snapped = _snap(amount, step, down)
        if snapped > 0 and abs(snapped - amount) <= SCALE_SHIFT * amount:
            return snapped
    return amount


def _on_scale(mass_g: float, metric: bool, down: bool) -> float:
    if metric:
        return _coarsest(mass_g, GRAM_STEPS, down)
    return _coarsest(mass_g / G_PER_OZ, OUNCE_STEPS, down) * G_PER_OZ


def _in_cup(volume_ml: float, metric: bool, down: bool) -> float:
    if metric:
        return _coarsest(volume_ml, ML_STEPS, down)
    return _coarsest(volume_ml / ML_PER_FL_OZ, FL_OZ_STEPS, down) * ML_PER_FL_OZ


def _in_packages(product: Product, mass_g: float, allowed: float, down: bool, metric: bool) -> Rounded | None:
    """Whole, half or quarter packages when that is close enough; None otherwise."""
    volume = volume_from_mass_ml(product, mass_g)
    amount, package = (mass_g, product.package_g) if volume is None else (volume, product.package_ml)
    if not package or amount < package / 2:
        return None
    fraction = 1.0 if product.chemical == "sodium_chloride" else 0.5 if volume is None else 0.25
    snapped = _snap(amount, package * fraction, down)
    if snapped <= 0 or abs(snapped - amount) > allowed * amount:
        return None
    count = snapped / package
    noun = package_noun(product)
    size = mass_text(package, metric) if volume is None else volume_text(package, metric)
    text = f"{_count_text(count)} {noun}{'' if count <= 1 else 's'} of {size}"
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
    """Whether it can measure this product: cups and jugs liquids, a scoop what it was weighed with, a scale solids."""
    if product.row.is_liquid:
        return bool(box.volume_ml)
    return bool(box.mass_g) and (box.kind is ContainerKind.SCALE or box.product_id == product.id)


def _in_containers(
    product: Product, mass_g: float, allowed: float, down: bool, metric: bool, boxes: Sequence[Container]
) -> Rounded:
    """The container with the fewest fillings that comes close enough; else a smaller measure is named."""
    amount = volume_from_mass_ml(product, mass_g) or mass_g
    for limit in (SCALE_SHIFT, allowed):
        close = [
            (snapped / size, snapped, box)
            for box in boxes
            if (size := box.volume_ml or box.mass_g or 0.0)
            and (snapped := _snap(amount, size / box.parts, down)) > 0
            and abs(snapped - amount) <= limit * amount
        ]
        if close:
            count, snapped, box = min(close, key=lambda found: (_is_scale(found[2]), found[0]))
            return _reported(product, count, snapped, box, metric)
    plain = _plainly(product, mass_g, metric, down)
    return replace(plain, text=f"{plain.text} (finer than your measures show)")


def _is_scale(box: Container) -> bool:
    return box.kind is ContainerKind.SCALE


def _reported(product: Product, count: float, snapped: float, box: Container, metric: bool) -> Rounded:
    if not product.row.is_liquid:
        text = mass_text(snapped, metric)
        return Rounded(
            snapped, None, text if _is_scale(box) else f"{_count_text(count)} × {box.name} ({text})"
        )
    text = f"{_count_text(count)} × {box.name} ({volume_text(snapped, metric)})"
    return Rounded(mass_from_volume_g(product, snapped), snapped, text)


def package_noun(product: Product) -> str:
    """What a package of it is called on a sheet."""
    if product.row.is_liquid:
        return "jug"
    return "tablet" if product.chemical == "trichlor" else "bag"


_PARTS: Mapping[Fraction, str] = MappingProxyType({
    Fraction(0): "", Fraction(1, 4): "¼", Fraction(1, 3): "⅓", Fraction(1, 2): "½", Fraction(2, 3): "⅔", Fraction(3, 4): "¾",
})  # fmt: skip


def _count_text(count: float) -> str:
    """ "1½", "⅔"; other parts in figures: a jug read in tenths may be filled to 0.4."""
    exact = Fraction(count).limit_denominator(100)
    whole, part = divmod(exact, 1)
    if part not in _PARTS:
        return f"{count:.3g}"
    return f"{whole or ''}{_PARTS[part]}" or "0"


def mass_text(mass_g: float, metric: bool = False) -> str:
    """A mass in words: "3 lb 10 oz", "13.5 oz"; metric "1.64 kg", "380 g"."""
    if metric:
        return f"{mass_g / 1000:.3g} kg" if mass_g >= 1000 else f"{mass_g:.3g} g"
    ounces = mass_g / G_PER_OZ
    if ounces < 16:
        return f"{ounces:.2f}".rstrip("0").rstrip(".") + " oz"
    if mass_g >= 10 * G_PER_LB and abs(ounces / 16 - round(ounces / 16)) < 0.02:
        return f"{round(ounces / 16)} lb"
    pounds, rest = divmod(round(ounces, 1), 16)
    return f"{pounds:.0f} lb" + (f" {rest:.3g} oz" if rest >= 0.05 else "")


def volume_text(volume_ml: float, metric: bool = False) -> str:
    """A liquid's volume in words: "44 fl oz", "2½ gal", "1 gal 20 fl oz"; metric "1.3 L", "650 mL"."""
    if metric:
        return f"{volume_ml / 1000:.3g} L" if volume_ml >= 1000 else f"{volume_ml:.3g} mL"
    fl_oz = volume_ml / ML_PER_FL_OZ
    if fl_oz < 128:
        return f"{fl_oz:.2f}".rstrip("0").rstrip(".") + " fl oz"
    gallons, rest = divmod(round(volume_ml / 1000 / L_PER_US_GAL * 128), 128)
    if rest % 32 == 0:
        return f"{_count_text(gallons + rest / 128)} gal"
    return f"{gallons} gal {rest} fl oz"


def rough_amount(product: Product, mass_g: float, metric: bool = False) -> str:
    """An amount to buy by or to expect, in one large unit: "3.5 gal", "12 lb", "9 kg"; two figures at most."""
    ml = volume_from_mass_ml(product, mass_g)
    if ml is None:
        value, unit = (mass_g / 1000, "kg") if metric else (mass_g / G_PER_LB, "lb")
    else:
        value, unit = (ml / 1000, "L") if metric else (ml / 1000 / L_PER_US_GAL, "gal")
    rounded = round(value * 2) / 2 if value < 10 else float(f"{value:.2g}")
    return f"{max(0.5, rounded):g} {unit}"
