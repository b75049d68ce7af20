"""One dose of a product by its label, with what has to be so before it and what follows. Source: label-doses.

The amount is the label's, never reckoned here: so much for each 10 000 gal, times the pool.
"""

from collections.abc import Iterator

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Filter
from kumpan.core.products.by_label import (
    AMMONIUM_KIND,
    COPPER_LIMIT_MG_L,
    PER_L,
    LabelDose,
    LabelKind,
    kind_of_label,
)
from kumpan.core.products.product import Product, mass_by_label_g
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from kumpan.core.quantity import Liquid, Mass, Number
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.request import SpecialRequest

SOURCE = "label-doses"

# 2 lb of ammonium sulfate in 15 000 gal want about 25 mg/L of chlorine to breakpoint: 3 mol Cl2 for each
# mole of
# (NH4)2SO4. [D]
_MG_L_PER_G_PER_L = 25.7 / (2 * G_PER_LB / (15_000 * L_PER_US_GAL))


def label_plan(request: SpecialRequest, product: Product, *, upkeep: bool) -> Plan:
    """The sheet of one dose. Raises InvalidInput for a chemical that has an equation."""
    kind = kind_of_label(product.chemical)
    if kind is None:
        raise InvalidInput(
            Message(
                "{name} is computed, not dosed by a label; choose a plan for it.",
                name=Verbatim(product.label),
            ),
            "use",
        )
    dose = product.label_dose or kind.usual()
    amount_g = mass_by_label_g(product, dose, request.volume_l, upkeep=upkeep)
    against = list(_against(request, product, kind, amount_g))
    if against or amount_g is None:
        return Plan((), request.readings, tuple(against or [_no_dose(product)]), _notes(kind, None, request))
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    line.prepare(request.traits, adds_salt=False)
    if kind.key == AMMONIUM_KIND:
        line.do(
            Message(
                "All the chlorine of the rescue at hand; pH at 7.8 where its label says that it lowers it"
            ),
            Message("It may want {ppm} of chlorine before the pool clears.", ppm=_wants(request, amount_g)),
            Hazard.NONE,
        )
    assert dose is not None
    line.pour_by_label(product, amount_g, _by_your_label(product, dose, upkeep=upkeep), kind.where)
    _afterwards(line, kind, dose)
    predicted = request.readings
    copper = change_per_g(product, Measure.COPPER, request.volume_l) * amount_g
    if copper:
        predicted = predicted.with_value(Measure.COPPER, (predicted.copper or 0.0) + copper)
    return Plan(tuple(line.steps), predicted, (), _notes(kind, dose, request))


def _no_dose(product: Product) -> Unmet:
    return Unmet(
        Measure.FREE_CHLORINE,
        "no_label",
        Message(
            "What its label says of {name} is not told yet; type it on the shelf.",
            name=Verbatim(product.label),
        ),
    )


def _against(
    request: SpecialRequest, product: Product, kind: LabelKind, amount_g: float | None
) -> Iterator[Unmet]:
    """Why it does not go in now."""
    chlorine = request.readings.free_chlorine
    if not kind.into_the_pool:
        yield Unmet(Measure.FREE_CHLORINE, "not_into_the_pool", kind.where)
    if kind.sand_only and request.traits.filter is not Filter.SAND:
        yield Unmet(
            Measure.FREE_CHLORINE,
            "unsuited",
            Message(
                "Only with a sand filter that has a waste setting: it clogs a cartridge and DE for good."
            ),
        )
    if kind.fc_under_mg_l is not None and chlorine is None:
        yield Unmet(
            Measure.FREE_CHLORINE,
            "not_tested",
            Message(
                "Test free chlorine first: over {limit} ppm it is wasted.", limit=Number(kind.fc_under_mg_l)
            ),
        )
    if kind.fc_under_mg_l is not None and chlorine is not None and chlorine >= kind.fc_under_mg_l:
        yield Unmet(
            Measure.FREE_CHLORINE,
            "wait",
            Message(
                "Free chlorine is {now}: chlorine destroys it. Wait until a test reads under {limit}.",
                now=Number(chlorine),
                limit=Number(kind.fc_under_mg_l),
            ),
        )
    if amount_g is not None:
        yield from _copper(request, product, amount_g)


def _copper(request: SpecialRequest, product: Product, amount_g: float) -> Iterator[Unmet]:
    """All copper together stays at its limit: it stains and leaves only with water."""
    brought = change_per_g(product, Measure.COPPER, request.volume_l) * amount_g
    if brought <= 0:
        return
    now = request.readings.copper
    if now is None:
        yield Unmet(
            Measure.COPPER, "not_tested", Message("Test copper first: what it brings stays in the water.")
        )
    elif now + brought > COPPER_LIMIT_MG_L:
        room_g = max(0.0, COPPER_LIMIT_MG_L - now) / (brought / amount_g)
        most = Liquid(room_g / (product.density_g_per_ml or 1.0)) if product.row.is_liquid else Mass(room_g)
        yield Unmet(
            Measure.COPPER,
            "over_cap",
            Message(
                "Its label's dose brings {brought} ppm of copper to "
                "{now}: over {limit} it stains. At most {most}.",
                brought=Number(brought, digits=2),
                now=Number(now, digits=2),
                limit=Number(COPPER_LIMIT_MG_L),
                most=most,
            ),
        )


def _by_your_label(product: Product, dose: LabelDose, *, upkeep: bool) -> Message:
    per_l = dose.upkeep_per_l if upkeep and dose.upkeep_per_l is not None else dose.first_per_l
    each = Liquid(per_l * PER_L) if product.row.is_liquid else Mass(per_l * PER_L)
    if product.label_dose is None:
        return Message(
            "By a usual label: {each} for each 10,000 gal. Yours counts; type it on the shelf.", each=each
        )
    return Message("By your label: {each} for each 10,000 gal.", each=each)


def _afterwards(line: Timeline, kind: LabelKind, dose: LabelDose) -> None:
    if kind.then is not None:
        line.do(kind.then, Message("As its label says."), Hazard.NONE)
    line.wait_until(line.now + dose.swim_wait_min, Message("Nobody in until its label's wait is over."))
    if kind.pump_h:
        line.wait_until(
            line.now + kind.pump_h * 60 - dose.swim_wait_min,
            Message("The pump runs; the filter does the work."),
        )
    if kind.clean_filter:
        line.do(
            Message("Look at the gauge and clean the filter"),
            Message("It has gathered what the product let go."),
            Hazard.PRESSURE,
        )


def _notes(kind: LabelKind, dose: LabelDose | None, request: SpecialRequest) -> tuple[Finding, ...]:
    found = [Finding("label_use", kind.use)]
    if kind.know is not None:
        found.append(Finding("label_know", kind.know))
    if dose is not None and dose.repeat_days:
        found.append(
            Finding(
                "label_repeat", Message("Again in {days} days by its label.", days=Number(dose.repeat_days))
            )
        )
    if kind.key == "algaecide_copper" and request.traits.surface.is_cement:
        found.append(
            Finding(
                "label_stain",
                Message("Light plaster with high pH takes copper as a stain: keep pH under 7.6."),
                Measure.PH,
            )
        )
    return tuple(found)


def _wants(request: SpecialRequest, amount_g: float) -> Number:
    return Number(_MG_L_PER_G_PER_L * amount_g / request.volume_l, digits=0)
