"""The amounts: one solution for the whole water with the products at hand, side effects included.

Chlorine, calcium, stabilizer, salt and borate follow from mass alone; pH and alkalinity from the
equilibrium, with the chlorine that the plan adds used up. The two are repeated until they agree:
acid brings chloride, stabilizer lowers pH. Sources: mass-balance.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from kumpan.core.chemistry.equilibrium import NoCarbonate, State, known_from, solve_readings, solve_totals
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.dosing.mass_balance import added_to, change_per_g, changes
from kumpan.core.dosing.mixing import added, all_added
from kumpan.core.dosing.ph_and_alkalinity import Work, base_totals, solve_balance
from kumpan.core.dosing.raisers import raiser
from kumpan.core.dosing.solution import Dose, Solution, nothing_at_hand
from kumpan.core.messages import Message, listed
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.targets import Aim, Aims, aim_for
from kumpan.core.records.unmet import Unmet

SOURCES_USED = ("mass-balance",)

# Chlorine carriers move calcium and stabilizer, calcium chloride moves salt: so in this order.
LINEAR_ORDER: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.BORATE,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
)
# Their readings take part in pH and alkalinity only by the strength of the water's ions.
MASS_ALONE = frozenset({Measure.FREE_CHLORINE, Measure.CALCIUM_HARDNESS, Measure.SALT})
ROUNDS = 8
PH_TRACE, ALKALINITY_TRACE = 0.01, 0.5  # a dose that moves less is no dose
EXACT_SHARE = 0.1
PH_HELD = 0.05  # what the whole plan moves pH by less than that is held, not moved


_LOWERING: dict[Measure, tuple[str, Message]] = {
    Measure.FREE_CHLORINE: (
        "wait",
        Message("Free chlorine is high: stop the feeder or cell, uncover, and let sun and time work."),
    ),
    Measure.CALCIUM_HARDNESS: ("dilution_needed", Message("Calcium comes down only by replacing water.")),
    Measure.CYANURIC_ACID: ("dilution_needed", Message("Stabilizer comes down only by replacing water.")),
    Measure.SALT: ("dilution_needed", Message("Salt comes down only by replacing water.")),
    Measure.BORATE: ("dilution_needed", Message("Borate comes down only by replacing water.")),
}


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
    """Only the amounts, g by product id."""
    return _masses(_worked(readings, volume_l, traits=traits, aims=aims, inventory=inventory))


class MovedSolver:
    """The amounts again and again for one water whose readings are moved a little, one at a time.

    Each solution begins at the amounts of the water as read, and what moves neither pH nor alkalinity
    leaves their products as they are there: the strength of the water's ions alone moves them by less
    than anybody measures out.
    """

    def __init__(
        self, readings: Readings, volume_l: float, traits: Traits, aims: Aims, inventory: Sequence[Product]
    ) -> None:
        self._centre = _worked(readings, volume_l, traits=traits, aims=aims, inventory=inventory)

    def centre(self) -> dict[str, float]:
        """The amounts for the readings as they are, g by product id."""
        return _masses(self._centre)

    def moved(self, measure: Measure, value: float) -> dict[str, float]:
        """The amounts with another value of one measure, g by product id."""
        readings = self._centre.readings.with_value(measure, value)
        mass_alone = measure in MASS_ALONE
        start = self._centre.start if mass_alone else _start(readings)[0]
        work = replace(self._centre, readings=readings, start=start, linear={}, unmet={})
        if start is None:
            work.balance = {}
        _solve_linear(work)  # once: the side effects of what changes are far smaller than the change
        if start is not None and not mass_alone:
            solve_balance(work, start)
        return _masses(work)


def _masses(work: Work) -> dict[str, float]:
    linear = {product.id: mass for product, (mass, _, _) in work.linear.items()}
    return linear | {product.id: mass for product, mass in work.balance.items()}


def _worked(
    readings: Readings, volume_l: float, traits: Traits, aims: Aims, inventory: Sequence[Product]
) -> Work:
    start, no_carbonate = _start(readings)
    work = Work(
        readings=readings, volume_l=volume_l, traits=traits, aims=aims, inventory=inventory, start=start
    )
    _not_measured(work)
    for _ in range(ROUNDS):
        before = dict(work.balance)
        _solve_linear(work)
        if start is not None:
            solve_balance(work, start)
        if _settled(before, work.balance):
            break
    if start is None:
        _no_ph_work(work, no_carbonate)
    else:
        work.balance = _without_traces(work, base_totals(work, start))
    return work


def _without_traces(work: Work, base: Totals) -> dict[Product, float]:
    """The pH products without those that nobody can measure out; a named target is met more closely."""
    exact = Measure.PH in work.aims.named or Measure.TOTAL_ALKALINITY in work.aims.named
    share = EXACT_SHARE if exact else 1.0
    kept = {}
    for product, mass in work.balance.items():
        before, after = (
            solve_totals(base),
            solve_totals(added(base, product, mass, work.volume_l, spent=True)),
        )
        moved = abs(float(after.species.ph) - float(before.species.ph))
        alkalinity = abs(float(after.total_alkalinity_mg_l) - float(before.total_alkalinity_mg_l))
        if moved >= share * PH_TRACE or alkalinity >= share * ALKALINITY_TRACE:
            kept[product] = mass
    return kept


def _start(readings: Readings) -> tuple[State | None, NoCarbonate | None]:
    known = known_from(readings)
    found = solve_readings(known) if known is not None else None
    return (None, found) if isinstance(found, NoCarbonate) else (found, None)


def _not_measured(work: Work) -> None:
    for measure in (Measure.PH, Measure.TOTAL_ALKALINITY, *LINEAR_ORDER):
        wanted = measure in work.aims.named or measure in work.aims.bands
        if wanted and work.readings.value(measure) is None:
            work.unmet[measure] = Unmet(
                measure, "not_tested", Message("{names} is not measured.", names=NAMES[measure])
            )


def _no_ph_work(work: Work, no_carbonate: NoCarbonate | None) -> None:
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


def _solve_linear(work: Work) -> None:
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
            work.unmet[measure] = nothing_at_hand(
                measure,
                Message("Nothing on the shelf raises {measure}.", measure=name_in_sentence(measure)),
            )
            continue
        mass = (aim.value - now) / change_per_g(raised_by, measure, work.volume_l)
        work.linear[raised_by] = (mass, aim, now)
        water = added_to(water, changes(raised_by, mass, work.volume_l))


def _met_anyway(measure: Measure, aim: Aim, before: float) -> bool:
    """Free chlorine a little over a named target is left to the sun without a word."""
    return measure is Measure.FREE_CHLORINE and aim.named and before - aim.value <= 1.0


def _stabilizer_full(work: Work) -> bool:
    band = work.aims.bands.get(Measure.CYANURIC_ACID)
    if band is None or band.high is None or work.readings.cyanuric_acid is None:
        return False
    return work.readings.cyanuric_acid >= (band.aim or band.high)


def _settled(before: Mapping[Product, float], after: Mapping[Product, float]) -> bool:
    keys = set(before) | set(after)
    return all(abs(before.get(k, 0.0) - after.get(k, 0.0)) <= 1e-7 * (1 + after.get(k, 0.0)) for k in keys)


def _predicted(work: Work) -> Readings:
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


def _doses(work: Work, predicted: Readings) -> tuple[Dose, ...]:
    found = [
        _linear_dose(work, product, mass=mass, aim=aim, now=now)
        for product, (mass, aim, now) in work.linear.items()
    ]
    return tuple(found + _balance_doses(work, predicted))


def _linear_dose(work: Work, product: Product, mass: float, aim: Aim, now: float) -> Dose:
    before = work.readings.value(aim.measure) or 0.0
    band = work.aims.bands.get(aim.measure)
    below = band is not None and band.low is not None and before < band.low
    goal = Message("your target") if aim.named else Message("the aim of its range")
    why = Message(
        "{names} from {before} to {value}, {goal}.",
        names=NAMES[aim.measure],
        before=Number(before, figures=4),
        value=Number(aim.value, figures=4),
        goal=goal,
    )
    urgent = below and aim.measure is Measure.FREE_CHLORINE
    return Dose(
        product=product,
        mass_g=mass,
        measure=aim.measure,
        change=aim.value - now,
        why=why,
        urgent=urgent,
        reason_code="target" if aim.named else f"{aim.measure.value}_low",
    )


def _balance_doses(work: Work, after: Readings) -> list[Dose]:
    """The pH products, each with what it is for: acid and soda ash for pH, baking soda for alkalinity."""
    if work.start is None or not work.balance:
        return []
    return [_balance_dose(work, product, mass, after) for product, mass in work.balance.items()]


def _balance_dose(work: Work, product: Product, mass: float, after: Readings) -> Dose:
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
    code = f"{measure.value}_{'low' if change > 0 else 'high'}"
    if measure is Measure.PH and abs(work.readings.ph - after.ph) < PH_HELD:
        code = "ph_held"
    if measure in work.aims.named:
        code = "target"
    return Dose(product=product, mass_g=mass, measure=measure, change=change, why=why, reason_code=code)


def _ph_why(before: float, after: float) -> Message:
    if abs(before - after) < PH_HELD:
        return Message(
            "Holds pH at {after} against what the other doses do to it.", after=Number(after, digits=1)
        )
    return Message(
        "pH from {before} to {after}.", before=Number(before, digits=2), after=Number(after, digits=2)
    )
