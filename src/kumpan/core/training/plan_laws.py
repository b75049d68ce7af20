"""The laws that no plan may break, as checks of a finished plan, and random pools to try them on.

Each check names its law; the study counts breaches per thousand plans, and the tests look for one.
Sources: method-doubt, addition-limits, separation.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

import numpy as np

from kumpan.core.dosing.balance import ACIDS
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.order_and_waits import CALCIUM, separation
from kumpan.core.dosing.solver import masses_by_product
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.by_label import KINDS
from kumpan.core.products.catalogue import BY_LABEL, CHLORINE_CARRIERS, STABILIZED
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import ProfileKey, bands, profile
from kumpan.core.ranges.targets import TARGETABLE, Aims, aim_for, resolution
from kumpan.core.records.step import ADD, TEST, Step
from kumpan.core.testing.kits import KITS, Kit, kit_by_key
from kumpan.core.testing.methods import Measured, Method, measured
from kumpan.core.testing.plausibility import BLEACHING_FREE_CHLORINE_MG_L
from kumpan.core.treatment.amount_ranges import TYPED, with_ranges
from kumpan.core.treatment.careful import careful_plan
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.plan_inputs import PlanInputs

SOURCES_USED = ("method-doubt", "addition-limits", "separation")

M = Measure
INVENTORY: tuple[Product, ...] = (
    Product("liquid", "sodium_hypochlorite", 10.0),
    Product("cal-hypo", "calcium_hypochlorite", 65.0),
    Product("dichlor", "sodium_dichlor", 56.0),
    Product("trichlor", "trichlor", 90.0),
    Product("acid", "hydrochloric_acid", 31.45),
    Product("dry-acid", "sodium_bisulfate", 93.2),
    Product("baking-soda", "sodium_bicarbonate", 100.0),
    Product("soda-ash", "sodium_carbonate", 100.0),
    Product("borax", "borax", 100.0),
    Product("calcium", "calcium_chloride", 77.0),
    Product("stabilizer", "cyanuric_acid", 100.0),
    Product("salt", "sodium_chloride", 100.0),
)
BARE_ALKALINITY_MG_L = 30.0
DAY_MIN = 1440
SOLVED_WITHIN = 0.02  # of a band's edge, mg/L or pH: what the solution itself is exact to

Breach = tuple[str, str]
Check = Callable[[Plan, PlanInputs], Iterator[str]]


def breaches(found: Plan, inputs: PlanInputs) -> list[Breach]:
    """Every law that a plan breaks: its number, and what was wrong."""
    return [(law, wrong) for law, check in CHECKS.items() for wrong in check(found, inputs)]


def _adds(found: Plan) -> list[Step]:
    return [step for step in found.steps if step.kind == ADD]


def _within_or_said(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    said = {left.measure for left in found.unmet}
    said |= {
        Measure(note.measure)
        for note in found.notes
        if note.code in ("leaves_band", "over_cap") and note.measure
    }
    for measure, band in inputs.aims.bands.items():
        if measure in said or measure is M.SATURATION_INDEX:
            continue
        then, wanted = found.predicted.value(measure), inputs.aims.named.get(measure)
        if then is None:
            if measure in TARGETABLE and (inputs.readings.value(measure) is not None or band.aim is not None):
                yield f"{measure} is not known afterwards, and nothing says so"
            continue
        if wanted is not None:
            if abs(then - wanted) > resolution(measure):
                yield f"{measure} was named {wanted}, ends at {then:.2f}, and nothing says so"
            continue
        over = band.high is not None and then > band.high + SOLVED_WITHIN
        under = band.low is not None and then < band.low - SOLVED_WITHIN
        if over or under:
            yield f"{measure} ends at {then:.2f} outside its band, and nothing says so"


def _baking_soda(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    used = {step.chemical for step in _adds(found)}
    band, then = inputs.aims.bands.get(M.TOTAL_ALKALINITY), found.predicted.total_alkalinity
    before = inputs.readings.total_alkalinity
    if "sodium_bicarbonate" not in used or used & {"sodium_carbonate", "borax"} or band is None:
        return
    top = max(band.high or 0.0, inputs.aims.named.get(M.TOTAL_ALKALINITY, 0.0), before or 0.0)
    if then is not None and band.high is not None and then > top + 1.0:
        yield f"baking soda took alkalinity to {then:.0f}"


def _unreadable(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    by_color = any(
        one.measure is M.PH and one.method not in (Method.METER, Method.SHOP) for one in inputs.measured
    )
    if (inputs.readings.free_chlorine or 0.0) > BLEACHING_FREE_CHLORINE_MG_L and by_color:
        for step in _adds(found):
            if step.chemical in ACIDS and M.PH in step.measures and step.reason_code == "ph_high":
                yield "acid by a pH that was read by color over 10 of chlorine"
    spoiled = {*CHLORINE_CARRIERS, *ACIDS, "cyanuric_acid"}
    if inputs.bleached and {step.chemical for step in _adds(found)} & spoiled:
        yield "dosed by a zero that may be bleached"


def _smallest_first(found: Plan, _: PlanInputs) -> Iterator[str]:
    """Where something is not known the amount told is the lower end of its range, and a test follows."""
    for step in _adds(found):
        if step.mass_low_g is None or step.mass_high_g is None or step.mass_g is None:
            continue
        if not step.mass_low_g <= step.mass_g + 1e-6 <= step.mass_high_g + 2e-6:
            yield f"{step.chemical}: {step.mass_g:.1f} g is outside its own range"


def _apart(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    past = [(-ago, chemical) for ago, chemical in inputs.poured]
    for step in _adds(found):
        assert step.chemical is not None
        for at, other in past:
            if step.offset_min - at < separation(other, step.chemical).minutes:
                yield f"{step.chemical} {step.offset_min - at} min after {other}"
        past.append((step.offset_min, step.chemical))


def _chlorine_lives(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    """On each later day of a plan chlorine is tested; under the minimum it is dosed the first day."""
    days = {1 + step.offset_min // DAY_MIN for step in found.steps}
    tested = {
        1 + s.offset_min // DAY_MIN for s in found.steps if s.kind == TEST and M.FREE_CHLORINE in s.measures
    }
    last = max(days, default=1)
    for day in range(2, last):
        if not {day, day + 1} & tested and day not in tested:
            yield f"chlorine is not tested about day {day} of {last}"
    free, band = inputs.readings.free_chlorine, inputs.aims.bands.get(M.FREE_CHLORINE)
    low = free is not None and band is not None and free < inputs.least_mg_l
    carriers = [s for s in _adds(found) if s.chemical in CHLORINE_CARRIERS]
    if low and carriers and min(s.offset_min for s in carriers) > DAY_MIN:
        yield "chlorine under the minimum waits for another day"


def _alkalinity_first(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    alkalinity = inputs.readings.total_alkalinity
    adds = [step.chemical for step in _adds(found)]
    if alkalinity is None or alkalinity >= BARE_ALKALINITY_MG_L or "sodium_bicarbonate" not in adds:
        return
    first = adds.index("sodium_bicarbonate")
    if any(chemical in (*ACIDS, "trichlor") for chemical in adds[:first]):
        yield "acid before baking soda at bare alkalinity"


def _caps(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    free, cap = inputs.readings.free_chlorine, highest_planned_mg_l(inputs.traits)
    then = found.predicted.free_chlorine
    if free is not None and then is not None and then > max(cap, free) + SOLVED_WITHIN:
        yield f"free chlorine is taken to {then:.1f}, over {cap:.0f}"
    chemicals = {step.chemical for step in _adds(found)}
    if inputs.traits.chlorination is Chlorination.SALT_CELL and chemicals & set(CALCIUM[1:]):
        yield "calcium hypochlorite to a salt cell"
    if inputs.traits.indoor and chemicals & set(STABILIZED):
        yield "stabilized chlorine indoors"


def _stabilizer(found: Plan, inputs: PlanInputs) -> Iterator[str]:
    band, before = inputs.aims.bands.get(M.CYANURIC_ACID), inputs.readings.cyanuric_acid
    then = found.predicted.cyanuric_acid
    if not {step.chemical for step in _adds(found)} & set(STABILIZED) or before is None or then is None:
        return
    if band is None or band.high is None:
        return
    top = max(band.high, inputs.aims.named.get(M.CYANURIC_ACID, 0.0), before)
    free = inputs.readings.free_chlorine or 0.0
    to_the_minimum = found.predicted.free_chlorine is not None and (
        found.predicted.free_chlorine <= max(inputs.least_mg_l, free) + SOLVED_WITHIN
    )
    if then > top + 0.1 and not to_the_minimum:
        yield f"stabilized chlorine takes stabilizer to {then:.1f}, over {top:.0f}"


def _no_trifles(found: Plan, _: PlanInputs) -> Iterator[str]:
    for step in _adds(found):
        if not step.rounded_g or step.rounded_g <= 0:
            yield f"nothing of {step.chemical}"
        elif step.mass_g and not 0.5 <= step.rounded_g / step.mass_g <= 1.6:
            yield f"{step.chemical}: {step.mass_g:.1f} g is told as {step.rounded_g:.1f} g"


CHECKS: Mapping[str, Check] = {
    "D.1": _within_or_said,
    "D.2": _baking_soda,
    "D.3": _unreadable,
    "D.4": _smallest_first,
    "D.6": _apart,
    "D.7": _chlorine_lives,
    "D.8": _alkalinity_first,
    "D.9": _caps,
    "D.12": _no_trifles,
    "D.13": _stabilizer,
}


# Random pools.
@dataclass(frozen=True, kw_only=True)
class Drawn:
    """A random question: what was read, by which kit, in which pool."""

    inputs: PlanInputs
    kit: Kit


def drawn(number: int, seed: int = 1) -> Drawn:
    """One random pool, water, shelf and aims, by a seed."""
    draw = np.random.default_rng([seed, number])
    traits = Traits(
        surface=list(Surface)[draw.integers(len(Surface))],
        chlorination=list(Chlorination)[draw.integers(len(Chlorination))],
        filter=Filter.SAND,
        indoor=bool(draw.random() < 0.15),
    )
    kit = KITS[int(draw.integers(len(KITS)))]
    readings = _readings(draw)
    school = list(ProfileKey)[draw.integers(len(ProfileKey))]
    aims = Aims(bands(profile(school), traits, readings.cyanuric_acid), _named(draw, readings))
    kept = tuple(product for product in INVENTORY if draw.random() < 0.7) or INVENTORY
    kept += _by_label(number, seed)
    poured = ((int(draw.integers(1, 200)), str(draw.choice([p.chemical for p in INVENTORY]))),)
    return Drawn(
        inputs=PlanInputs(
            readings=readings,
            volume_l=float(draw.uniform(10_000, 150_000)),
            traits=traits,
            aims=aims,
            inventory=kept,
            measured=_by_kit(readings, kit),
            poured=poured if draw.random() < 0.3 else (),
            bleached=readings.free_chlorine == 0 and bool(draw.random() < 0.3),
        ),
        kit=kit,
    )


def _by_label(number: int, seed: int) -> tuple[Product, ...]:
    """What is dosed by its label stands on half of the shelves; drawn apart: all else stays as it was."""
    draw = np.random.default_rng([seed, number, 12])
    if draw.random() < 0.5:
        return ()
    return tuple(
        Product(
            f"own-{key}",
            key,
            row.usual_strength_percent,
            density_g_per_ml=1.0 if row.is_liquid else None,
            label_dose=KINDS[key].usual(),
        )
        for key, row in BY_LABEL.items()
        if draw.random() < 0.5
    )


def _readings(draw: np.random.Generator) -> Readings:
    def maybe(value: float, share: float, digits: int = 0) -> float | None:
        return round(float(value), digits) if draw.random() < share else None

    return Readings(
        free_chlorine=maybe(
            draw.choice([0.0, draw.uniform(0, 5), draw.uniform(5, 16)], p=[0.15, 0.7, 0.15]), 0.95, 1
        ),
        ph=maybe(draw.uniform(6.6, 8.6), 0.95, 1),
        total_alkalinity=maybe(
            draw.choice([draw.uniform(10, 60), draw.uniform(60, 240)], p=[0.2, 0.8]), 0.85
        ),
        calcium_hardness=maybe(draw.uniform(50, 600), 0.85),
        cyanuric_acid=maybe(draw.choice([0.0, draw.uniform(0, 120)], p=[0.1, 0.9]), 0.85),
        salt=maybe(draw.uniform(200, 4200), 0.6),
        temperature_c=maybe(draw.uniform(12, 33), 0.8),
    )


def _named(draw: np.random.Generator, readings: Readings) -> dict[Measure, float]:
    """Sometimes a target of one's own, sometimes one that equals its reading."""
    if draw.random() < 0.6:
        return {}
    measure = (M.PH, M.TOTAL_ALKALINITY, M.FREE_CHLORINE, M.CALCIUM_HARDNESS)[int(draw.integers(4))]
    now = readings.value(measure)
    usual = {
        M.PH: draw.uniform(6.8, 8.2),
        M.TOTAL_ALKALINITY: draw.uniform(50, 160),
        M.FREE_CHLORINE: draw.uniform(1, 60),
        M.CALCIUM_HARDNESS: draw.uniform(150, 400),
    }
    wanted = now if now is not None and draw.random() < 0.3 else float(round(usual[measure], 1))
    return {measure: wanted}


def _by_kit(readings: Readings, kit: Kit) -> tuple[Measured, ...]:
    return tuple(
        measured(measure, value, kit.method_of(measure))
        for measure in (*TARGETABLE, M.TEMPERATURE)
        if (value := readings.value(measure)) is not None
    )


def planned(question: Drawn) -> Plan:
    """The plan for a random question, with its ranges."""
    return with_ranges(careful_plan(question.inputs), question.inputs, TYPED)


# Whether the ranges hold the truth.
@dataclass(frozen=True, kw_only=True)
class Coverage:
    """Of so many doses by one kit: the share whose range holds the true dose, and its median width as a share
    of the dose.
    """

    kit: str
    doses: int
    inside: float
    width: float


def coverage(kit_key: str, pools: int, seed: int = 1) -> Coverage:
    """Random true waters, read by a kit in a volume that is up to 15 % off, dosed to the same targets."""
    kit = kit_by_key(kit_key)
    held, widths = [], []
    for number in range(pools):
        draw = np.random.default_rng([seed, number, 77])
        question = drawn(number, seed)
        readings = replace(question.inputs.readings, total_chlorine=None)
        inputs = replace(question.inputs, measured=_by_kit(readings, kit), bleached=False)
        found = with_ranges(careful_plan(inputs), inputs, TYPED)
        truth = _true_doses(found, inputs, draw)
        for step in _adds(found):
            assert step.mass_g is not None
            if step.product_id not in truth or step.mass_low_g is None or step.mass_high_g is None:
                continue
            whole = sum(s.mass_g or 0.0 for s in _adds(found) if s.product_id == step.product_id)
            true_g = truth[step.product_id] * step.mass_g / whole
            held.append(step.mass_low_g - 1e-6 <= true_g <= step.mass_high_g + 1e-6)
            widths.append((step.mass_high_g - step.mass_low_g) / step.mass_g)
    return Coverage(kit=kit_key, doses=len(held), inside=float(np.mean(held)), width=float(np.median(widths)))


def _true_doses(found: Plan, inputs: PlanInputs, draw: np.random.Generator) -> dict[str | None, float]:
    """Grams by product that the true water takes to the same targets, with the products of the plan."""
    truth = inputs.readings
    for one in inputs.measured:
        if one.measure in TARGETABLE:
            truth = truth.with_value(one.measure, max(0.0, float(draw.uniform(one.low, one.high))))
    used = {step.product_id for step in _adds(found)}
    inventory = tuple(product for product in inputs.inventory if product.id in used)
    if any(inputs.readings.value(m) is None for m in (M.TOTAL_ALKALINITY, M.CYANURIC_ACID)):
        return {}
    goals = dict(inputs.aims.named)
    for measure in TARGETABLE:
        value = inputs.readings.value(measure)
        aim = aim_for(measure, inputs.aims, value) if value is not None else None
        if aim is not None:
            goals[measure] = aim.value
    aims = Aims(inputs.aims.bands, goals, inputs.aims.held)
    volume = inputs.volume_l * float(draw.uniform(1 - TYPED, 1 + TYPED))
    masses = masses_by_product(truth, volume, traits=inputs.traits, aims=aims, inventory=inventory)
    return {key: masses.get(str(key), 0.0) for key in used}
