"""The plan as it may be advised: what the readings allow, what caps and bands allow, nothing left unsaid.

Around the exact solution: readings that may not be dosed by are held, unknown stabilizer and alkalinity are
ranges of which the smallest goes in first, caps hold for every aim, and every managed measure is within its
band after the plan or said. Sources: method-doubt, addition-limits, mixing.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import product as every

from kumpan.core.chemistry.equilibrium import State
from kumpan.core.dosing.balance import ACIDS
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.order_and_waits import PH_WINDOW, POURED_FOR
from kumpan.core.dosing.solver import masses_by_product, solve
from kumpan.core.findings import Finding
from kumpan.core.journal import PoolState, last_reading
from kumpan.core.messages import Message, listed
from kumpan.core.products.catalogue import CHLORINE_CARRIERS, STABILIZED
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aims, aim_for, resolution
from kumpan.core.records.step import TEST, Step
from kumpan.core.records.unmet import Unmet
from kumpan.core.testing.plausibility import spoils_ph
from kumpan.core.treatment.brought_along import chlorine_within
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.plan_inputs import PRIORS, PlanInputs
from kumpan.core.treatment.too_coarse import left_for_a_finer_test, too_coarse

SOURCES_USED = ("method-doubt", "addition-limits", "mixing")

M = Measure
STABILIZED_TO_MG_L = 200.0
OLD_STABILIZER, OLD_STABILIZER_MG_L = (0.5, 1.5), 20.0  # an old reading, thinned out or topped up since
# Which soda a pool's owner has chosen for pH: the others of its role are not used. Baking soda stays for
# alkalinity. Origin: handbook 04.
NOT_FOR_PH: Mapping[str, tuple[str, ...]] = {
    "sum": (),
    "soda_ash": ("borax",),
    "borax": ("sodium_carbonate",),
    "baking_soda": ("borax", "sodium_carbonate"),
}
# What would bring a measure back that a plan itself moves out of its band.
CURES: Mapping[tuple[Measure, bool], Message] = {
    (M.TOTAL_ALKALINITY, True): Message("acid in small parts and aeration bring it down later"),
    (M.TOTAL_ALKALINITY, False): Message("baking soda brings it up after the next test"),
    (M.PH, True): Message("acid after the next test"),
    (M.PH, False): Message("soda ash, borax or aeration after the next test"),
    (M.CYANURIC_ACID, True): Message("only new water; liquid chlorine brings none"),
    (M.CALCIUM_HARDNESS, True): Message("only new water; liquid chlorine brings none"),
    (M.SALT, True): Message("only new water"),
}


@dataclass(frozen=True, kw_only=True)
class Corner:
    """The water as it may be where something is not known, and what each product then takes (g by id)."""

    readings: Readings
    masses: Mapping[str, float] = field(default_factory=dict)


def careful_plan(given: PlanInputs) -> Plan:
    """The plan within all laws of dosing."""
    inputs, notes, held = _prepared(given)
    corners = unknown_corners(inputs)
    missing = _missing(inputs) if corners else ()
    shown = inputs
    if corners:
        shown = replace(
            inputs, readings=_smallest(inputs, corners).readings, aims=_without(inputs.aims, missing)
        )
    found = chlorine_within(shown)
    found = _as_a_first_part(found, inputs, missing) if corners else _not_tested_said(found, inputs)
    unmet = (*_of_others(found.unmet, held), *held)
    said = replace(found, unmet=unmet, notes=(*found.notes, *notes))
    return _within_or_said(_waits(said, given), inputs)


def _prepared(given: PlanInputs) -> tuple[PlanInputs, tuple[Finding, ...], tuple[Unmet, ...]]:
    inputs, notes = _within_caps(_obeying(given))
    notes = (*notes, *_named_within_the_test(inputs))
    inputs, held = _held_back(inputs)
    return inputs, notes, held


def possible_waters(given: PlanInputs) -> tuple[tuple[Readings, ...], Aims]:
    """The waters that a plan is made for, as its amounts' ranges are: one, or the corners of what is not
    known; and the aims that hold for all of them.
    """
    inputs, _, _ = _prepared(given)
    corners = unknown_corners(inputs)
    if not corners:
        return (inputs.readings,), inputs.aims
    return tuple(corner.readings for corner in corners), _without(inputs.aims, _missing(inputs))


# What the owner chose, and the caps.
def _obeying(given: PlanInputs) -> PlanInputs:
    never = NOT_FOR_PH.get(given.raise_ph_by, ())
    barred = {chemical for one in given.waiting for chemical in one.chemicals}
    kept = tuple(p for p in given.inventory if p.chemical not in never and p.chemical not in barred)
    return replace(given, inventory=kept)


def _waits(found: Plan, given: PlanInputs) -> Plan:
    """What is left for want of a product that may not go in now says so, and until when it waits."""
    at_hand = {product.chemical for product in given.inventory}
    said = []
    for left in found.unmet:
        wanted = {chemical for chemical in at_hand if POURED_FOR.get(chemical) is left.measure}
        reasons = [one.reason for one in given.waiting if wanted & set(one.chemicals)]
        wait = left.code == "nothing_suitable_at_hand" and bool(reasons)
        said.append(Unmet(left.measure, "wait", reasons[-1]) if wait else left)
    return replace(found, unmet=tuple(said))


def _within_caps(inputs: PlanInputs) -> tuple[PlanInputs, tuple[Finding, ...]]:
    """No aim, whoever names it, over what this pool bears or outside the window of pH."""
    cap = highest_planned_mg_l(inputs.traits)
    limits = {M.FREE_CHLORINE: (0.0, cap), M.PH: PH_WINDOW}
    named, notes = dict(inputs.aims.named), []
    for measure, (low, high) in limits.items():
        wanted = named.get(measure)
        if wanted is None or low <= wanted <= high:
            continue
        named[measure] = min(max(wanted, low), high)
        text = Message(
            "{name} {wanted} is beyond what any plan here goes to; {limit} is aimed at.",
            name=NAMES[measure],
            wanted=Number(wanted),
            limit=Number(named[measure]),
        )
        notes.append(Finding("over_cap", text, measure, {"cap": named[measure]}))
    bands = {measure: _capped(measure, band, cap) for measure, band in inputs.aims.bands.items()}
    return replace(inputs, aims=Aims(bands, named, inputs.aims.held)), tuple(notes)


def _capped(measure: Measure, band: Band, cap: float) -> Band:
    if measure is not M.FREE_CHLORINE or band.aim is None or band.aim <= cap:
        return band
    return replace(band, aim=cap)


# What may not be dosed by.
def _held_back(inputs: PlanInputs) -> tuple[PlanInputs, tuple[Unmet, ...]]:
    """Readings too coarse to carry a dose, and those that high chlorine spoils, are left alone and said."""
    coarse = too_coarse(inputs.readings, inputs.measured, inputs.aims.bands)
    named = set(inputs.aims.named)
    held = [left for left in left_for_a_finer_test(coarse) if left.measure not in named]
    held += [*_spoiled_ph(inputs), *_bleached(inputs), *_untested(inputs)]
    measures = frozenset(left.measure for left in held)
    rest = {measure: aim for measure, aim in inputs.aims.named.items() if measure not in measures}
    aims = Aims(inputs.aims.bands, rest, inputs.aims.held | measures)
    inventory = tuple(inputs.inventory)
    if inputs.bleached or _spoiled(inputs):
        inventory = tuple(product for product in inventory if product.chemical not in ACIDS)
    return replace(inputs, aims=aims, inventory=inventory), tuple(held)


def _named_within_the_test(inputs: PlanInputs) -> Iterator[Finding]:
    """A target that lies inside its reading's own doubt is aimed at all the same, and said."""
    for one in inputs.measured:
        wanted, now = inputs.aims.named.get(one.measure), inputs.readings.value(one.measure)
        if wanted is None or now is None:
            continue
        if one.low + now - one.value <= wanted <= one.high + now - one.value:
            text = Message(
                "{name} {wanted} lies within this test's own doubt: it may be there already.",
                name=NAMES[one.measure],
                wanted=Number(wanted),
            )
            yield Finding("within_doubt", text, one.measure)


def _untested(inputs: PlanInputs) -> Iterator[Unmet]:
    """Something went in since: more of it only after a test, for one can add and not take out."""
    for measure in sorted(inputs.untested):
        value = inputs.readings.value(measure)
        if value is None or aim_for(measure, inputs.aims, value) is None:
            continue
        text = Message("{name} was moved since its test: test it before more goes in.", name=NAMES[measure])
        yield Unmet(measure, "wait", text)


def _spoiled_ph(inputs: PlanInputs) -> Iterator[Unmet]:
    """pH by color at such a chlorine reads too high: no acid by it. A low one is an upper bound."""
    if not _spoiled(inputs):
        return
    text = Message("pH read by color at such a chlorine reads too high: no acid by it. Test it under 10.")
    for measure in (M.PH, M.TOTAL_ALKALINITY):
        value = inputs.readings.value(measure)
        aim = aim_for(measure, inputs.aims, value) if value is not None else None
        if aim is not None and value is not None and aim.value < value:
            yield Unmet(measure, "ph_unreliable", text)


def _spoiled(inputs: PlanInputs) -> bool:
    """pH was read by a color while chlorine was over what spoils it."""
    ph = next((one for one in inputs.measured if one.measure is M.PH), None)
    return ph is not None and spoils_ph(inputs.readings.free_chlorine or 0.0, ph.method)


def _bleached(inputs: PlanInputs) -> Iterator[Unmet]:
    if not inputs.bleached:
        return
    text = Message("Zero may be a bleached test: dilute the sample and test again before anything goes in.")
    for measure in (M.FREE_CHLORINE, M.CYANURIC_ACID, M.PH, M.TOTAL_ALKALINITY):
        value = inputs.readings.value(measure)
        if value is None or (measure is M.TOTAL_ALKALINITY and not _wants_acid(inputs, value)):
            continue
        yield Unmet(measure, "bleached_test", text)


def _wants_acid(inputs: PlanInputs, alkalinity: float) -> bool:
    aim = aim_for(M.TOTAL_ALKALINITY, inputs.aims, alkalinity)
    return aim is not None and aim.value < alkalinity


# What is not known.
def stabilizer_prior(state: PoolState) -> tuple[float, float]:
    """What stabilizer may be where no reading carries a dose: about an old one, else the usual span; further
    up where stabilized chlorine went in.
    """
    stabilized = any(entry.body.chemical in STABILIZED for entry in state.additions)
    low, high = PRIORS[M.CYANURIC_ACID]
    old = last_reading(state, M.CYANURIC_ACID)
    if old is not None:
        value = old.value.value
        return OLD_STABILIZER[0] * value, max(OLD_STABILIZER[1] * value, value + OLD_STABILIZER_MG_L)
    return low, STABILIZED_TO_MG_L if stabilized else high


def _missing(inputs: PlanInputs) -> tuple[Measure, ...]:
    return tuple(m for m in PRIORS if inputs.readings.value(m) is None)


def unknown_corners(inputs: PlanInputs) -> tuple[Corner, ...]:
    """The waters as they may be, where alkalinity or stabilizer is not known and pH or alkalinity has to
    move; empty where all is known, nothing has to move, or the direction of the dose is in doubt.
    """
    missing, readings = _missing(inputs), inputs.readings
    if not missing or readings.ph is None or not _has_ph_work(inputs):
        return ()
    ends = [_prior(inputs, measure) for measure in missing]
    corners, directions = [], set()
    for values in every(*ends):
        water = readings
        for measure, value in zip(missing, values, strict=True):
            water = water.with_value(measure, value)
        aims = _without(inputs.aims, missing)
        found = solve(water, inputs.volume_l, traits=inputs.traits, aims=aims, inventory=inputs.inventory)
        if not isinstance(found.start, State):
            continue  # so much stabilizer leaves no carbonate: it cannot be
        masses = masses_by_product(
            water, inputs.volume_l, traits=inputs.traits, aims=aims, inventory=inputs.inventory
        )
        directions |= {dose.product.chemical in ACIDS for dose in found.doses if dose.measure is M.PH}
        corners.append(Corner(readings=water, masses=masses))
    return tuple(corners) if len(directions) <= 1 else ()


def _has_ph_work(inputs: PlanInputs) -> bool:
    for measure in (M.PH, M.TOTAL_ALKALINITY):
        value = inputs.readings.value(measure)
        if value is not None and aim_for(measure, inputs.aims, value) is not None:
            return True
    return False


def _prior(inputs: PlanInputs, measure: Measure) -> tuple[float, float]:
    return inputs.stabilizer_prior if measure is M.CYANURIC_ACID else PRIORS[measure]


def _without(aims: Aims, measures: Sequence[Measure]) -> Aims:
    """The same aims without those of some measures."""
    named = {measure: aim for measure, aim in aims.named.items() if measure not in measures}
    return Aims(aims.bands, named, aims.held | frozenset(measures))


def _smallest(inputs: PlanInputs, corners: Sequence[Corner]) -> Corner:
    """The water that takes least: one can add, not take out."""
    moves = {p.id for p in inputs.inventory if p.chemical not in CHLORINE_CARRIERS}
    return min(corners, key=lambda corner: sum(g for key, g in corner.masses.items() if key in moves))


def _as_a_first_part(found: Plan, inputs: PlanInputs, missing: Sequence[Measure]) -> Plan:
    """The smallest dose that the unknown allows, with a test after it; what is not known stays so."""
    predicted = found.predicted
    for measure in missing:
        predicted = predicted.with_value(measure, None)
    names = listed(name_in_sentence(measure) for measure in missing)
    moved = M.PH if inputs.aims.named.get(M.PH) or _outside_band(inputs, M.PH) else M.TOTAL_ALKALINITY
    first = Unmet(
        moved,
        "not_tested",
        Message(
            "{name}: only the smallest part that any {names} would ask for goes in. Test both then.",
            name=NAMES[moved],
            names=names,
        ),
    )
    if moved is M.PH:
        predicted = replace(predicted, ph=None)
    own = tuple(
        Unmet(measure, "not_tested", Message("{names} is not measured.", names=NAMES[measure]))
        for measure in missing
    )
    others = tuple(u for u in found.unmet if u.measure not in (*missing, moved))
    steps = tuple(_tested_with(step, missing) for step in found.steps)
    return replace(found, steps=steps, predicted=predicted, unmet=(*others, first, *own))


def _tested_with(step: Step, missing: Sequence[Measure]) -> Step:
    """After the smallest part what was not known is tested too."""
    if step.kind != TEST or not {M.PH, M.TOTAL_ALKALINITY} & set(step.measures):
        return step
    measures = (*step.measures, *(m for m in missing if m not in step.measures))
    names = listed(name_in_sentence(measure) for measure in measures)
    return replace(step, measures=measures, title=Message("Test {names}", names=names))


def _outside_band(inputs: PlanInputs, measure: Measure) -> bool:
    value, band = inputs.readings.value(measure), inputs.aims.bands.get(measure)
    return value is not None and band is not None and _beyond(band, value) != 0.0


def _not_tested_said(found: Plan, inputs: PlanInputs) -> Plan:
    """Every missing measure says so for itself, beside those that need it."""
    known = {left.measure for left in found.unmet}
    own = tuple(
        Unmet(measure, "not_tested", Message("{names} is not measured.", names=NAMES[measure]))
        for measure in _missing(inputs)
        if measure in inputs.aims.bands and measure not in known
    )
    after = tuple(
        Unmet(
            measure,
            "not_tested",
            Message("{name} after this plan is not known; test it then.", name=NAMES[measure]),
        )
        for measure in (M.PH, M.TOTAL_ALKALINITY)
        if found.predicted.value(measure) is None
        and inputs.readings.value(measure) is not None
        and measure not in known
    )
    return replace(found, unmet=(*found.unmet, *own, *after))


# Within its band, or said.
def _within_or_said(found: Plan, inputs: PlanInputs) -> Plan:
    """Nothing that the plan leaves or puts outside its band is silent."""
    said = {left.measure for left in found.unmet}
    unmet, notes = list(found.unmet), list(found.notes)
    for measure, band in inputs.aims.bands.items():
        then, now = found.predicted.value(measure), inputs.readings.value(measure)
        wanted = inputs.aims.named.get(measure)
        if then is None or measure in said or measure is M.SATURATION_INDEX:
            continue
        if wanted is not None:
            if abs(then - wanted) > resolution(measure):
                unmet.append(_not_as_named(measure, wanted, then))
            continue
        over = _beyond(band, then)
        if over == 0.0:
            continue
        was = _beyond(band, now) if now is not None else 0.0
        if abs(over) > abs(was) + 1e-6:
            notes.append(_leaves_band(measure, band, then))
        else:
            unmet.append(_left_alone(measure, band, then))
    return replace(found, unmet=tuple(unmet), notes=tuple(notes))


def _beyond(band: Band, value: float) -> float:
    """By how much a value is over (positive) or under its band; 0 inside it."""
    if band.high is not None and value > band.high + 1e-6:
        return value - band.high
    if band.low is not None and value < band.low - 1e-6:
        return value - band.low
    return 0.0


def _leaves_band(measure: Measure, band: Band, then: float) -> Finding:
    high = _beyond(band, then) > 0
    text = Message(
        "{name} goes to {then}, {side} its range of {edge}: {cure}.",
        name=NAMES[measure],
        then=Number(then, figures=3),
        side=Message("over") if high else Message("under"),
        edge=Number((band.high if high else band.low) or 0.0),
        cure=CURES.get((measure, high), Message("test it again and plan anew")),
    )
    return Finding("leaves_band", text, measure, {"then": then})


def _not_as_named(measure: Measure, wanted: float, then: float) -> Unmet:
    text = Message(
        "{name} ends at {then}, not at {wanted}: the rest of this plan moves it.",
        name=NAMES[measure],
        then=Number(then, figures=3),
        wanted=Number(wanted, figures=3),
    )
    return Unmet(measure, "wait" if measure is M.FREE_CHLORINE else "left_alone", text)


def _left_alone(measure: Measure, band: Band, then: float) -> Unmet:
    if measure is M.COMBINED_CHLORINE:
        return Unmet(measure, "needs_shock", Message("Combined chlorine takes a shock, not this plan."))
    if not band.dose_low and band.low is not None and then < band.low:
        text = Message("{name} this low does no harm here and is not dosed.", name=NAMES[measure])
        return Unmet(measure, "not_dosed", text)
    text = Message("{name} stays where it is; this plan does not move it.", name=NAMES[measure])
    return Unmet(measure, "left_alone", text)


def _of_others(unmet: Sequence[Unmet], held: Sequence[Unmet]) -> tuple[Unmet, ...]:
    measures = {left.measure for left in held}
    return tuple(left for left in unmet if left.measure not in measures)
