"""The amounts: one solution for the whole water with the products at hand, side effects included.

Chlorine, calcium, stabilizer, salt and borate follow from mass alone; pH and alkalinity from the
equilibrium, with the chlorine that the plan adds used up. The two are repeated until they agree:
acid brings chloride, stabilizer lowers pH. Sources: mass-balance, aeration.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from kumpan.core.chemistry.equilibrium import NoCarbonate, State, known_from, solve_readings, solve_totals
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.dosing.balance import (
    ACIDS,
    PH_RAISERS,
    first_of,
    for_alkalinity,
    for_both,
    for_ph,
)
from kumpan.core.dosing.mass_balance import added_to, change_per_g, changes
from kumpan.core.dosing.mixing import all_added
from kumpan.core.dosing.raisers import raiser
from kumpan.core.dosing.solution import Dose, Solution, Unmet
from kumpan.core.messages import Message, listed
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aim, Aims, aim_for

SOURCES_USED = ("mass-balance", "aeration")

# Chlorine carriers move calcium and stabilizer, calcium chloride moves salt: so in this order.
LINEAR_ORDER: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.BORATE,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
)
ROUNDS = 8
PH_MET, ALKALINITY_MET = 0.005, 0.2  # what counts as met after the solution
# Alkalinity that is too high is brought down by acid to this far over the low rope of pH, then aeration.
ACID_THEN_AERATE_OVER_LOW = 0.1


@dataclass(kw_only=True)
class _Work:
    """What one solution gathers on its way."""

    readings: Readings
    volume_l: float
    traits: Traits
    aims: Aims
    inventory: Sequence[Product]
    start: State | None
    linear: dict[Product, tuple[float, Aim, float]] = field(default_factory=dict)
    balance: Mapping[Product, float] = field(default_factory=dict)
    unmet: dict[Measure, Unmet] = field(default_factory=dict)
    aerate_to_ph: float | None = None


_LOWERING: dict[Measure, tuple[str, Message]] = {
    Measure.FREE_CHLORINE: (
        "wait",
        Message("Free chlorine is high: stop the feeder or cell, uncover, and let sun and time work."),
    ),
    Measure.CALCIUM_HARDNESS: ("dilution", Message("Calcium comes down only by replacing water.")),
    Measure.CYANURIC_ACID: ("dilution", Message("Stabilizer comes down only by replacing water.")),
    Measure.SALT: ("dilution", Message("Salt comes down only by replacing water.")),
    Measure.BORATE: ("dilution", Message("Borate comes down only by replacing water.")),
}
_AERATE_ALKALINITY = Message(
    "Alkalinity this high comes down in steps: acid, then aeration until pH is back, then a test, and again."
)
_AERATE_PH = Message(
    "Raise pH by aeration (returns up, fountain on): a soda would push alkalinity higher still."
)


def solve(
    readings: Readings, volume_l: float, traits: Traits, aims: Aims, inventory: Sequence[Product]
) -> Solution:
    """Doses that bring the water to its aims, the water after them, and what stays unmet and why."""
    work = _worked(readings, volume_l, traits=traits, aims=aims, inventory=inventory)
    predicted = _predicted(work)
    doses = _doses(work, predicted)
    return Solution(
        doses=doses,
        predicted=predicted,
        unmet=tuple(work.unmet.values()),
        notes=(),
        start=work.start,
        aerate_to_ph=work.aerate_to_ph,
    )


def masses_by_product(
    readings: Readings, volume_l: float, traits: Traits, aims: Aims, inventory: Sequence[Product]
) -> dict[str, float]:
    """Only the amounts, g by product id: what is asked often, when a reading is moved within its doubt."""
    work = _worked(readings, volume_l, traits=traits, aims=aims, inventory=inventory)
    linear = {product.id: mass for product, (mass, _, _) in work.linear.items()}
    return linear | {product.id: mass for product, mass in work.balance.items()}


def _worked(
    readings: Readings, volume_l: float, traits: Traits, aims: Aims, inventory: Sequence[Product]
) -> _Work:
    start, no_carbonate = _start(readings)
    work = _Work(
        readings=readings, volume_l=volume_l, traits=traits, aims=aims, inventory=inventory, start=start
    )
    _not_measured(work)
    for _ in range(ROUNDS):
        before = dict(work.balance)
        _solve_linear(work)
        if start is not None:
            _solve_balance(work, start)
        if _settled(before, work.balance):
            break
    if start is None:
        _no_ph_work(work, no_carbonate)
    return work


def _start(readings: Readings) -> tuple[State | None, NoCarbonate | None]:
    known = known_from(readings)
    found = solve_readings(known) if known is not None else None
    return (None, found) if isinstance(found, NoCarbonate) else (found, None)


def _not_measured(work: _Work) -> None:
    for measure in (Measure.PH, Measure.TOTAL_ALKALINITY, *LINEAR_ORDER):
        wanted = measure in work.aims.named or measure in work.aims.bands
        if wanted and work.readings.value(measure) is None:
            work.unmet[measure] = Unmet(
                measure, "not_measured", Message("{names} is not measured.", names=NAMES[measure])
            )


def _no_ph_work(work: _Work, no_carbonate: NoCarbonate | None) -> None:
    """pH and alkalinity cannot be reckoned: say what is missing or impossible."""
    missing = [
        name_in_sentence(m)
        for m in (Measure.PH, Measure.TOTAL_ALKALINITY, Measure.CYANURIC_ACID)
        if work.readings.value(m) is None
    ]
    for measure in (Measure.PH, Measure.TOTAL_ALKALINITY):
        value = work.readings.value(measure)
        if value is None or aim_for(measure, work.aims, value) is None:
            continue
        if no_carbonate is not None:
            work.unmet[measure] = Unmet(measure, no_carbonate.code, no_carbonate.reason)
        else:
            reason = (
                Message(
                    "{names} is dosed only when {others} is tested too.",
                    names=NAMES[measure],
                    others=listed(missing),
                )
                if len(missing) == 1
                else Message(
                    "{names} is dosed only when {others} are tested too.",
                    names=NAMES[measure],
                    others=listed(missing),
                )
            )
            work.unmet[measure] = Unmet(measure, "needs_other_reading", reason)


def _solve_linear(work: _Work) -> None:
    """Chlorine, borate, calcium, stabilizer, salt, with what the pH products bring reckoned in."""
    work.linear = {}
    water = work.readings
    for product, mass in work.balance.items():
        moved = changes(product, mass, work.volume_l)
        water = added_to(water, {m: c for m, c in moved.items() if m is not Measure.TOTAL_ALKALINITY})
    for measure in LINEAR_ORDER:
        before = work.readings.value(measure)
        aim = aim_for(measure, work.aims, before) if before is not None else None
        if before is None or aim is None:
            continue
        now = water.value(measure) or 0.0
        if aim.value <= now:
            if aim.value < before and not _met_anyway(measure, aim, before):
                work.unmet[measure] = Unmet(measure, _LOWERING[measure][0], _LOWERING[measure][1])
            continue
        raised_by = raiser(measure, work.traits, work.inventory, stabilizer_full=_stabilizer_full(work))
        if raised_by is None:
            work.unmet[measure] = Unmet(
                measure,
                "no_product",
                Message("Nothing on the shelf raises {measure}.", measure=name_in_sentence(measure)),
            )
            continue
        mass = (aim.value - now) / change_per_g(raised_by, measure, work.volume_l)
        work.linear[raised_by] = (mass, aim, now)
        water = added_to(water, changes(raised_by, mass, work.volume_l))


def _met_anyway(measure: Measure, aim: Aim, before: float) -> bool:
    """Free chlorine a little over a named target is left to the sun without a word."""
    return measure is Measure.FREE_CHLORINE and aim.named and before - aim.value <= 1.0


def _stabilizer_full(work: _Work) -> bool:
    band = work.aims.bands.get(Measure.CYANURIC_ACID)
    if band is None or band.high is None or work.readings.cyanuric_acid is None:
        return False
    return work.readings.cyanuric_acid >= (band.aim or band.high)


def _base(work: _Work, start: State) -> Totals:
    """The water after all but the pH products, the added chlorine used up."""
    amounts = {product: mass for product, (mass, _, _) in work.linear.items()}
    return all_added(start.totals, amounts, work.volume_l, spent=True)


def _solve_balance(work: _Work, start: State) -> None:
    """Amounts for pH and alkalinity; what cannot be reached goes to `unmet`."""
    for measure in (Measure.PH, Measure.TOTAL_ALKALINITY):
        work.unmet.pop(measure, None)
    work.aerate_to_ph = None
    base = _base(work, start)
    ph_aim, alkalinity_aim = _goals(work, base)
    if ph_aim is None and alkalinity_aim is None:
        work.balance = {}
    elif ph_aim is not None and alkalinity_aim is None:
        _ph_alone(work, base, ph_aim)
    elif alkalinity_aim is not None and ph_aim is None:
        _alkalinity_alone(work, base, alkalinity_aim)
    elif ph_aim is not None and alkalinity_aim is not None:
        _both(work, base, ph_aim, alkalinity_aim)


def _goals(work: _Work, base: Totals) -> tuple[float | None, float | None]:
    """What pH and alkalinity aim at: out of range as read, or pushed out of range by the other doses."""
    drifted = solve_totals(base) if work.linear else None
    return (
        _goal(work, Measure.PH, work.readings.ph, float(drifted.species.ph) if drifted else None),
        _goal(
            work,
            Measure.TOTAL_ALKALINITY,
            work.readings.total_alkalinity,
            float(drifted.total_alkalinity_mg_l) if drifted else None,
        ),
    )


def _goal(work: _Work, measure: Measure, read: float | None, drifted: float | None) -> float | None:
    assert read is not None
    aim = aim_for(measure, work.aims, read)
    if aim is not None:
        return aim.value
    if measure in work.aims.named:
        # Within the test's resolution as read, but the other doses move it: hold it where it was named.
        moved = drifted is not None and abs(drifted - read) > (
            PH_MET if measure is Measure.PH else ALKALINITY_MET
        )
        return work.aims.named[measure] if moved else None
    band = work.aims.bands.get(measure)
    return band.aim if band is not None and drifted is not None and _outside(band, drifted) else None


def _outside(band: Band, value: float) -> bool:
    return (band.low is not None and value < band.low) or (band.high is not None and value > band.high)


def _ph_alone(work: _Work, base: Totals, ph: float, *, hold_alkalinity: bool = True) -> None:
    """One product for pH; when that pushes alkalinity out of its band, both are solved together."""
    lower = float(solve_totals(base).species.ph) > ph
    product = first_of(ACIDS if lower else PH_RAISERS, work.inventory)
    mass = for_ph(base, ph, work.volume_l, product) if product is not None else None
    if product is None or mass is None:
        what = Message("lowers") if lower else Message("raises")
        work.unmet[Measure.PH] = Unmet(
            Measure.PH,
            "no_product",
            Message("Nothing on the shelf {what} pH to {ph}.", what=what, ph=Number(ph)),
        )
        work.balance = {}
        return
    after = solve_totals(all_added(base, {product: mass}, work.volume_l, spent=True))
    band = work.aims.bands.get(Measure.TOTAL_ALKALINITY) if hold_alkalinity else None
    if band is not None and band.aim is not None and _outside(band, float(after.total_alkalinity_mg_l)):
        both = for_both(base, ph, alkalinity_mg_l=band.aim, volume_l=work.volume_l, inventory=work.inventory)
        if both.reached:
            work.balance = both.amounts
            return
    work.balance = {product: mass}
    if product.chemical == "sodium_bicarbonate":
        _soda_within_its_band(work, base, soda=product, mass=mass, ph=ph)


def _soda_within_its_band(work: _Work, base: Totals, *, soda: Product, mass: float, ph: float) -> None:
    """Baking soda moves alkalinity many times more than pH: it ends at the top of alkalinity's band."""
    measure = Measure.TOTAL_ALKALINITY
    band = work.aims.bands.get(measure)
    if band is None or band.high is None:
        return
    top = max(band.high, work.aims.named.get(measure, 0.0))
    most = for_alkalinity(base, top, work.volume_l, soda) or 0.0
    if mass <= most:
        return
    work.balance = {soda: most} if most > 0 else {}
    work.unmet[Measure.PH] = Unmet(
        Measure.PH,
        "no_product",
        Message(
            "Baking soda would take alkalinity over {top} before pH is at {ph}: soda ash or borax raises pH "
            "without that; so does aeration, slowly.",
            top=Number(top, digits=0),
            ph=Number(ph),
        ),
    )


def _alkalinity_alone(work: _Work, base: Totals, alkalinity: float) -> None:
    """Baking soda for alkalinity; pH is held in its band, at its aim if it would leave it."""
    state = solve_totals(base)
    band = work.aims.bands[Measure.PH]
    if alkalinity < float(state.total_alkalinity_mg_l):
        _lower_alkalinity(work, base, alkalinity=alkalinity, ph=float(state.species.ph), band=band)
        return
    soda = first_of(("sodium_bicarbonate",), work.inventory)
    mass = for_alkalinity(base, alkalinity, work.volume_l, soda) if soda is not None else None
    if soda is not None and mass is not None:
        after = solve_totals(all_added(base, {soda: mass}, work.volume_l, spent=True))
        if not _outside(band, float(after.species.ph)):
            work.balance = {soda: mass}
            return
    ph = band.aim if band.aim is not None else float(state.species.ph)
    both = for_both(base, ph, alkalinity_mg_l=alkalinity, volume_l=work.volume_l, inventory=work.inventory)
    work.balance = both.amounts
    if not both.reached:
        measure = Measure.TOTAL_ALKALINITY
        work.unmet[measure] = Unmet(
            measure, "no_product", Message("Nothing on the shelf raises alkalinity and holds pH.")
        )


def _lower_alkalinity(work: _Work, base: Totals, alkalinity: float, ph: float, band: Band) -> None:
    """Acid towards the low rope of pH, then aeration; the rest in further rounds after a test."""
    acid = first_of(ACIDS, work.inventory)
    floor = (band.low or 7.2) + ACID_THEN_AERATE_OVER_LOW
    measure = Measure.TOTAL_ALKALINITY
    work.balance = {}
    if acid is None:
        work.unmet[measure] = Unmet(measure, "no_product", Message("Nothing on the shelf lowers alkalinity."))
        return
    work.unmet[measure] = Unmet(measure, "aeration", _AERATE_ALKALINITY)
    if Measure.PH in work.aims.named or ph <= floor:
        return
    to_target = for_alkalinity(base, alkalinity, work.volume_l, acid)
    to_floor = for_ph(base, floor, work.volume_l, acid)
    if to_floor is None:
        return
    if to_target is not None and to_target <= to_floor:
        del work.unmet[measure]
        work.balance = {acid: to_target}
    else:
        work.balance = {acid: to_floor}
        work.aerate_to_ph = band.aim


def _both(work: _Work, base: Totals, ph: float, alkalinity: float) -> None:
    """pH and alkalinity exactly; where carbon would have to leave, pH exactly and alkalinity is told."""
    both = for_both(base, ph, alkalinity_mg_l=alkalinity, volume_l=work.volume_l, inventory=work.inventory)
    if both.reached:
        work.balance = both.amounts
        return
    now = solve_totals(base)
    too_much = alkalinity < float(now.total_alkalinity_mg_l)
    if too_much and ph > float(now.species.ph):
        work.balance = {}
        work.unmet[Measure.PH] = Unmet(Measure.PH, "aeration", _AERATE_PH)
        work.unmet[Measure.TOTAL_ALKALINITY] = Unmet(Measure.TOTAL_ALKALINITY, "aeration", _AERATE_ALKALINITY)
        return
    _ph_alone(work, base, ph, hold_alkalinity=False)
    after = solve_totals(all_added(base, work.balance, work.volume_l, spent=True))
    if abs(float(after.total_alkalinity_mg_l) - alkalinity) > ALKALINITY_MET:
        reason = (
            _AERATE_ALKALINITY
            if too_much
            else Message("The products at hand do not reach this alkalinity and pH together.")
        )
        work.unmet[Measure.TOTAL_ALKALINITY] = Unmet(
            Measure.TOTAL_ALKALINITY, "aeration" if too_much else "no_product", reason
        )


def _settled(before: Mapping[Product, float], after: Mapping[Product, float]) -> bool:
    keys = set(before) | set(after)
    return all(abs(before.get(k, 0.0) - after.get(k, 0.0)) <= 1e-7 * (1 + after.get(k, 0.0)) for k in keys)


def _predicted(work: _Work) -> Readings:
    """The water after all additions: chlorine as freshly reached, pH and alkalinity with it used up."""
    amounts = {product: mass for product, (mass, _, _) in work.linear.items()} | dict(work.balance)
    return after_all(work.readings, work.start, amounts, work.volume_l)


def after_all(
    readings: Readings, start: State | None, amounts: Mapping[Product, float], volume_l: float
) -> Readings:
    """The readings once all amounts (g) are in and mixed; `start` is the solved water, where it is known.

    Chlorine as freshly reached, pH and alkalinity with it used up; unknown where they cannot be reckoned.
    """
    water = readings
    for product, mass in amounts.items():
        water = added_to(water, changes(product, mass, volume_l))
    if start is None:
        changed = any(p.row.effect.spent_alkalinity or p.row.effect.carbon for p in amounts)
        water = replace(water, total_alkalinity=None if changed else readings.total_alkalinity)
        return water if not amounts else water.with_value(Measure.PH, None)
    if not amounts:
        return readings
    after = solve_totals(all_added(start.totals, amounts, volume_l, spent=True))
    return replace(water, ph=float(after.species.ph), total_alkalinity=float(after.total_alkalinity_mg_l))


def _doses(work: _Work, predicted: Readings) -> tuple[Dose, ...]:
    found = [
        _linear_dose(work, product, mass=mass, aim=aim, now=now)
        for product, (mass, aim, now) in work.linear.items()
    ]
    return tuple(found + _balance_doses(work, predicted))


def _linear_dose(work: _Work, product: Product, mass: float, aim: Aim, now: float) -> Dose:
    before = work.readings.value(aim.measure) or 0.0
    band = work.aims.bands.get(aim.measure)
    below = band is not None and band.low is not None and before < band.low
    goal = Message("your target") if aim.named else Message("the school's aim")
    why = Message(
        "{names} from {before} to {value}, {goal}.",
        names=NAMES[aim.measure],
        before=Number(before, figures=4),
        value=Number(aim.value, figures=4),
        goal=goal,
    )
    urgent = below and aim.measure is Measure.FREE_CHLORINE
    return Dose(
        product=product, mass_g=mass, measure=aim.measure, change=aim.value - now, why=why, urgent=urgent
    )


def _balance_doses(work: _Work, after: Readings) -> list[Dose]:
    """The pH products, each with what it is for: acid and soda ash for pH, baking soda for alkalinity."""
    if work.start is None or not work.balance:
        return []
    return [_balance_dose(work, product, mass, after) for product, mass in work.balance.items()]


def _balance_dose(work: _Work, product: Product, mass: float, after: Readings) -> Dose:
    assert work.readings.ph is not None
    assert after.ph is not None
    measure = Measure.TOTAL_ALKALINITY
    change = change_per_g(product, measure, work.volume_l) * mass
    if product.chemical == "sodium_bicarbonate":
        before, then = work.readings.total_alkalinity or 0.0, after.total_alkalinity or 0.0
        why = Message(
            "Alkalinity from {before} to {then}.",
            before=Number(before, digits=0),
            then=Number(then, digits=0),
        )
    elif work.aerate_to_ph is not None:
        why = Message(
            "Takes alkalinity down by {change}; pH goes to {ph} and comes back by aeration.",
            change=Number(-change, digits=0),
            ph=Number(after.ph, digits=1),
        )
    else:
        measure, why = Measure.PH, _ph_why(work.readings.ph, after.ph)
    return Dose(product=product, mass_g=mass, measure=measure, change=change, why=why)


def _ph_why(before: float, after: float) -> Message:
    if abs(before - after) < 0.05:
        return Message(
            "Holds pH at {after} against what the other doses do to it.", after=Number(after, digits=1)
        )
    return Message(
        "pH from {before} to {after}.", before=Number(before, digits=2), after=Number(after, digits=2)
    )
