"""The stateless calculations: analysis, after, preview. No journal, no database."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.dosing.additions import Addition, Product, addition_mass_g
from kumpan.core.dosing.catalogue import chemical
from kumpan.core.dosing.mass_balance import BALANCED, added_to, changes
from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding, not_yet
from kumpan.core.planning.choice import STANDARD_SHELF
from kumpan.core.planning.plan import Plan, plan
from kumpan.core.planning.schools import school
from kumpan.core.planning.targets import aims
from kumpan.core.planning.verdicts import bound_chlorine
from kumpan.core.pool.equipment import Traits
from kumpan.core.testing.plausibility import doubts
from kumpan.core.water import Measure, Readings, combined_chlorine

ASSUMED_TEMPERATURE_C = 25.0


@dataclass(frozen=True)
class Analysis:
    """What the readings say together; null where a reading is missing (named in `missing`)."""

    saturation_index: float | None
    saturation_index_classic: float | None
    carbonate_alkalinity: float | None
    combined_chlorine: float | None
    hypochlorous_acid: float | None
    hypochlorous_fraction: float | None
    ionic_strength: float | None
    assumed: Mapping[str, float]
    missing: tuple[str, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class AfterView:
    readings: Readings
    analysis: Analysis


def analyse(readings: Readings) -> Analysis:
    """Combined chlorine and findings; the equilibrium is marked `not_yet`."""
    needed = (
        Measure.PH,
        Measure.TOTAL_ALKALINITY,
        Measure.CALCIUM_HARDNESS,
        Measure.CYANURIC_ACID,
        Measure.FREE_CHLORINE,
    )
    missing = tuple(str(m) for m in needed if readings.value(m) is None)
    assumed = {} if readings.temperature_c is not None else {"temperature_c": ASSUMED_TEMPERATURE_C}
    bound = bound_chlorine(readings)
    findings = (*doubts(readings), *((bound,) if bound else ()), not_yet("The water's equilibrium"))
    return Analysis(
        None, None, None, combined_chlorine(readings), None, None, None, assumed, missing, findings
    )


@dataclass(frozen=True)
class Dilution:
    fraction: float
    fill: Readings


_UNKNOWN_IN_FILL_IS_ZERO = (Measure.FREE_CHLORINE, Measure.CYANURIC_ACID, Measure.BORATE)


def after(
    readings: Readings, volume_l: float, additions: Sequence[Addition], dilution: Dilution | None
) -> AfterView:
    """The readings after mixing. Dilution first, then all additions together; pH becomes unknown."""
    water = readings if dilution is None else _diluted(readings, dilution)
    for addition in additions:
        chemical(addition.chemical)
        product = Product(
            "", addition.chemical, addition.strength_percent, density_g_per_ml=addition.density_g_per_ml
        )
        water = added_to(water, changes(product, addition_mass_g(addition), volume_l))
    if additions or dilution:
        water = water.with_value(Measure.PH, None)
    return AfterView(water, analyse(water))


def _diluted(readings: Readings, dilution: Dilution) -> Readings:
    water = readings
    for measure in (*BALANCED, Measure.TOTAL_CHLORINE, Measure.COPPER, Measure.PHOSPHATE):
        old, new = readings.value(measure), dilution.fill.value(measure)
        if new is None and measure in _UNKNOWN_IN_FILL_IS_ZERO:
            new = 0.0
        mixed = None
        if old is not None and new is not None:
            mixed = old + (new - old) * dilution.fraction
        water = water.with_value(measure, mixed)
    return water


def preview(
    readings: Readings,
    volume_l: float,
    traits: Traits,
    targets: Mapping[Measure, float],
    school_key: str,
    shelf: Sequence[Product] | None,
) -> Plan:
    """The plan for one water. Raises InvalidInput for an unknown chemical, school or a doubled product id."""
    if shelf is not None:
        for product in shelf:
            chemical(product.chemical)
        if len({product.id for product in shelf}) < len(shelf):
            raise InvalidInput("shelf: two products have the same id; give each its own.", "shelf")
    aimed = aims(school(school_key), traits, readings, targets)
    return plan(readings, volume_l, traits, aimed, STANDARD_SHELF if shelf is None else shelf)
