"""The stateless calculations: analysis, after, preview. No journal, no database."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from kumpan.core.assessment.swim import least_free_mg_l
from kumpan.core.chemistry import molar
from kumpan.core.chemistry.equilibrium import (
    ASSUMED_TEMPERATURE_C,
    MG_PER_EQ,
    NoCarbonate,
    State,
    known_from,
    solve_readings,
    solve_totals,
)
from kumpan.core.chemistry.saturation import (
    ClassicIndex,
    classic_index,
    dissolved_solids_mg_l,
    saturation_index,
)
from kumpan.core.dosing.dilution import fill_with_zeros, mixed, solved
from kumpan.core.dosing.mass_balance import added_to, changes
from kumpan.core.dosing.mixing import all_added, diluted
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import with_equation
from kumpan.core.products.product import Addition, Product, addition_mass_g, moles_per_g
from kumpan.core.quantities.readings import READING_MEASURES, Measure, Readings, combined_chlorine
from kumpan.core.ranges.profiles import profile
from kumpan.core.ranges.targets import aims
from kumpan.core.ranges.verdicts import bound_chlorine
from kumpan.core.testing.kits import Kit
from kumpan.core.testing.methods import Measured, measured
from kumpan.core.testing.plausibility import questions
from kumpan.core.treatment.amount_ranges import with_ranges
from kumpan.core.treatment.careful import careful_plan
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.plan_inputs import PlanInputs
from kumpan.services.tests.queries import kit
from kumpan.services.treatments.views import AfterView, Analysis

M = Measure


def analyze(readings: Readings) -> Analysis:
    """Indices, carbonate, active chlorine; with what was assumed, what is missing, and what is worth
    knowing.
    """
    missing = tuple(
        str(m)
        for m in (M.PH, M.TOTAL_ALKALINITY, M.CALCIUM_HARDNESS, M.CYANURIC_ACID, M.FREE_CHLORINE)
        if readings.value(m) is None
    )
    known = known_from(readings)
    found = solve_readings(known) if known is not None else None
    state = found if isinstance(found, State) else None
    thermodynamic, classic = _indices(readings, state)
    hocl = _hypochlorous(readings, state)
    free = readings.free_chlorine
    return Analysis(
        saturation_index=thermodynamic,
        saturation_index_classic=classic.value if classic else None,
        carbonate_alkalinity=None if state is None else float(state.species.carbonate_alkalinity) * MG_PER_EQ,
        combined_chlorine=combined_chlorine(readings),
        hypochlorous_acid=hocl,
        hypochlorous_fraction=hocl / free if hocl is not None and free else None,
        ionic_strength=None if state is None else float(state.species.frame.strength),
        assumed=_assumed(readings),
        missing=missing,
        findings=tuple(_findings(readings, found, classic)),
    )


def _findings(
    readings: Readings, found: State | NoCarbonate | None, classic: ClassicIndex | None
) -> Iterator[Finding]:
    yield from questions(readings)
    if bound := bound_chlorine(readings):
        yield bound
    if isinstance(found, NoCarbonate):
        yield Finding(found.code, found.reason, M.TOTAL_ALKALINITY, {"other_alkalinity": found.other_mg_l})
    for name in classic.clamped if classic is not None else ():
        yield Finding(
            "classic_clamped",
            Message(
                "The classic table ends before this {name}; its last factor is used.", name=Verbatim(name)
            ),
        )


def _indices(readings: Readings, state: State | None) -> tuple[float | None, ClassicIndex | None]:
    hardness = readings.calcium_hardness
    if state is None or not hardness or readings.ph is None or readings.total_alkalinity is None:
        return None, None
    salt = float(state.totals.chloride) * molar.SODIUM_CHLORIDE * 1000
    solids = dissolved_solids_mg_l(salt, readings.total_alkalinity, hardness)
    carbonate = float(state.species.carbonate_alkalinity) * MG_PER_EQ
    classic = classic_index(
        readings.ph,
        state.totals.temperature_c,
        hardness_mg_l=hardness,
        carbonate_alkalinity_mg_l=carbonate,
        solids_mg_l=solids,
    )
    return float(saturation_index(state)), classic


def _hypochlorous(readings: Readings, state: State | None) -> float | None:
    if state is None or readings.free_chlorine is None:
        return None
    return float(state.species.hocl) * molar.CHLORINE * 1000


def _assumed(readings: Readings) -> dict[str, float]:
    implied = 2 * (readings.calcium_hardness or 0.0) / molar.CALCIUM_CARBONATE * molar.SODIUM_CHLORIDE
    values = {
        M.TEMPERATURE: ASSUMED_TEMPERATURE_C,
        M.BORATE: 0.0,
        M.SALT: implied,
        M.CALCIUM_HARDNESS: 0.0,
    }
    return {str(measure): value for measure, value in values.items() if readings.value(measure) is None}


@dataclass(frozen=True)
class Dilution:
    """That fraction of the water (0 to 1) drained, then replaced by `fill`."""

    fraction: float
    fill: Readings


def after(
    readings: Readings, volume_l: float, additions: Sequence[Addition], dilution: Dilution | None
) -> AfterView:
    """The readings after dilution, then all additions together, mixed and closed to the air."""
    amounts = _amounts(additions)
    fill = None if dilution is None else fill_with_zeros(dilution.fill)
    fraction = dilution.fraction if dilution is not None else 0.0
    water = readings if fill is None else mixed(readings, fill, fraction)
    for product, mass in amounts.items():
        water = added_to(water, changes(product, mass, volume_l))
    changed = bool(fraction) or any(mass > 0 for mass in amounts.values())
    if changed:
        state = _state_after(readings, fill, fraction=fraction, amounts=amounts, volume_l=volume_l)
        water = replace(
            water,
            ph=None if state is None else float(state.species.ph),
            total_alkalinity=None if state is None else float(state.total_alkalinity_mg_l),
        )
    return AfterView(water, analyze(water))


def _amounts(additions: Sequence[Addition]) -> dict[Product, float]:
    """Grams by product; a chemical may come twice. Raises InvalidInput for an unknown one or a bad amount."""
    found: dict[Product, float] = {}
    for addition in additions:
        with_equation(addition.chemical)
        product = Product(
            "", addition.chemical, addition.strength_percent, density_g_per_ml=addition.density_g_per_ml
        )
        mass = addition_mass_g(addition)
        moles_per_g(product)
        found[product] = found.get(product, 0.0) + mass
    return found


def _state_after(
    readings: Readings,
    fill: Readings | None,
    fraction: float,
    amounts: Mapping[Product, float],
    volume_l: float,
) -> State | None:
    """The solved water afterwards; None where pH, alkalinity or stabilizer of either water is not known."""
    own = solved(readings)
    if own is None:
        return None
    totals = own.totals
    if fill is not None and fraction > 0:
        other = solved(fill)
        if other is None:
            return None
        totals = diluted(totals, other.totals, fraction)
    return solve_totals(all_added(totals, amounts, volume_l, spent=False), float(own.species.ph))


def preview(
    readings: Readings,
    volume_l: float,
    traits: Traits,
    targets: Mapping[Measure, float],
    profile_key: str,
    inventory: Sequence[Product] | None,
    kit_key: str = "drops",
    volume_uncertainty_percent: float = 15.0,
) -> Plan:
    """The plan for one water. Raises InvalidInput for an unknown chemical, school, kit or a doubled id."""
    if inventory is not None:
        for product in inventory:
            with_equation(product.chemical)
        if len({product.id for product in inventory}) < len(inventory):
            raise InvalidInput(Message("shelf: two products have the same id; give each its own."), "shelf")
    aimed = aims(profile(profile_key), traits, readings, targets)
    inputs = PlanInputs(
        readings=readings,
        volume_l=volume_l,
        traits=traits,
        aims=aimed,
        inventory=STANDARD_INVENTORY if inventory is None else inventory,
        measured=_by_kit(readings, kit(kit_key)),
        least_mg_l=least_free_mg_l(profile_key, stabilized=(readings.cyanuric_acid or 0.0) > 0),
    )
    return with_ranges(careful_plan(inputs), inputs, volume_uncertainty_percent / 100)


def _by_kit(readings: Readings, used: Kit) -> tuple[Measured, ...]:
    """Each reading with the doubt of the method that the kit has for it."""
    return tuple(
        measured(measure, value, used.method_of(measure))
        for measure in READING_MEASURES
        if (value := readings.value(measure)) is not None
    )
