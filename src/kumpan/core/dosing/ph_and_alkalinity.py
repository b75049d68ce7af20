"""pH and alkalinity of one solution: which of them is aimed at, and with what it is reached or left.

Sources: aeration, order.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from kumpan.core.chemistry.equilibrium import State, solve_totals
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.dosing.balance import (
    ACIDS,
    PH_RAISERS,
    first_of,
    for_alkalinity,
    for_both,
    for_ph,
)
from kumpan.core.dosing.mixing import all_added
from kumpan.core.dosing.solution import nothing_at_hand
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aim, Aims, aim_for
from kumpan.core.records.unmet import Unmet

SOURCES_USED = ("aeration", "order")

TOO_MUCH_MG_L = 0.5  # less than that over its aim alkalinity is not in the way
PH_MET, ALKALINITY_MET = 0.005, 0.2  # what counts as met after the solution
# Alkalinity that is too high is brought down by acid to this far over the low rope of pH, then aeration.
ACID_THEN_AERATE_OVER_LOW = 0.1


@dataclass(kw_only=True)
class Work:
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


_AERATE_ALKALINITY = Message(
    "Alkalinity this high comes down in steps: acid, then aeration until pH is back, then a test, and again."
)
_AERATE_PH = Message(
    "Raise pH by aeration (returns up, fountain on): a soda would push alkalinity higher still."
)


def base_totals(work: Work, start: State) -> Totals:
    """The water after all but the pH products, the added chlorine used up."""
    amounts = {product: mass for product, (mass, _, _) in work.linear.items()}
    return all_added(start.totals, amounts, work.volume_l, spent=True)


def solve_balance(work: Work, start: State) -> None:
    """Amounts for pH and alkalinity; what cannot be reached goes to `unmet`."""
    for measure in (Measure.PH, Measure.TOTAL_ALKALINITY):
        work.unmet.pop(measure, None)
    work.aerate_to_ph = None
    base = base_totals(work, start)
    ph_aim, alkalinity_aim = _held_as_named(work, *_goals(work, base))
    if ph_aim is None and alkalinity_aim is None:
        work.balance = {}
    elif ph_aim is not None and alkalinity_aim is None:
        _ph_alone(work, base, ph_aim)
    elif alkalinity_aim is not None and ph_aim is None:
        _alkalinity_alone(work, base, alkalinity_aim)
    elif ph_aim is not None and alkalinity_aim is not None:
        _both(work, base, ph_aim, alkalinity_aim)


def _goals(work: Work, base: Totals) -> tuple[float | None, float | None]:
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


def _held_as_named(
    work: Work, ph: float | None, alkalinity: float | None
) -> tuple[float | None, float | None]:
    """A target that equals its reading is held while the other one is moved."""
    named = work.aims.named
    if ph is not None and alkalinity is None:
        alkalinity = named.get(Measure.TOTAL_ALKALINITY)
    elif alkalinity is not None and ph is None:
        ph = named.get(Measure.PH)
    return ph, alkalinity


def _goal(work: Work, measure: Measure, read: float | None, drifted: float | None) -> float | None:
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
    if measure in work.aims.held or band is None or drifted is None:
        return None
    return band.aim if _outside(band, drifted) else None


def _outside(band: Band, value: float) -> bool:
    return (band.low is not None and value < band.low) or (band.high is not None and value > band.high)


def _ph_alone(work: Work, base: Totals, ph: float, *, hold_alkalinity: bool = True) -> None:
    """One product for pH; when that pushes alkalinity out of its band, both are solved together."""
    lower = float(solve_totals(base).species.ph) > ph
    product = first_of(ACIDS if lower else PH_RAISERS, work.inventory)
    mass = for_ph(base, ph, work.volume_l, product) if product is not None else None
    if product is None or mass is None:
        what = Message("lowers") if lower else Message("raises")
        work.unmet[Measure.PH] = nothing_at_hand(
            Measure.PH,
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


def _soda_within_its_band(work: Work, base: Totals, *, soda: Product, mass: float, ph: float) -> None:
    """Baking soda moves alkalinity many times more than pH: it ends at the top of alkalinity's band."""
    measure = Measure.TOTAL_ALKALINITY
    band = work.aims.bands.get(measure)
    if band is None or band.high is None:
        return
    top = work.aims.named.get(measure, band.high)
    most = for_alkalinity(base, top, work.volume_l, soda) or 0.0
    if mass <= most:
        return
    work.balance = {soda: most} if most > 0 else {}
    work.unmet[Measure.PH] = nothing_at_hand(
        Measure.PH,
        Message(
            "Baking soda would take alkalinity over {top} before pH is at {ph}: soda ash or borax raises pH "
            "without that; so does aeration, slowly.",
            top=Number(top, digits=0),
            ph=Number(ph),
        ),
    )


def _alkalinity_alone(work: Work, base: Totals, alkalinity: float) -> None:
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
        work.unmet[measure] = nothing_at_hand(
            measure,
            Message("Nothing on the shelf raises alkalinity and holds pH."),
        )


def _lower_alkalinity(work: Work, base: Totals, alkalinity: float, ph: float, band: Band) -> None:
    """Acid towards the low rope of pH, then aeration; the rest in further rounds after a test."""
    acid = first_of(ACIDS, work.inventory)
    floor = (band.low or 7.2) + ACID_THEN_AERATE_OVER_LOW
    measure = Measure.TOTAL_ALKALINITY
    work.balance = {}
    if acid is None:
        work.unmet[measure] = nothing_at_hand(measure, Message("Nothing on the shelf lowers alkalinity."))
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


def _ph_must_rise(work: Work) -> bool:
    """pH is under its band and something at hand raises it without baking soda: no comfort band cuts that."""
    band, read = work.aims.bands.get(Measure.PH), work.readings.ph
    under = read is not None and band is not None and band.low is not None and read < band.low
    return under and first_of(("sodium_carbonate", "borax"), work.inventory) is not None


def _both(work: Work, base: Totals, ph: float, alkalinity: float) -> None:
    """pH and alkalinity exactly; where carbon would have to leave, pH exactly and alkalinity is told."""
    both = for_both(base, ph, alkalinity_mg_l=alkalinity, volume_l=work.volume_l, inventory=work.inventory)
    if both.reached:
        work.balance = both.amounts
        return
    now = solve_totals(base)
    too_much = alkalinity < float(now.total_alkalinity_mg_l) - TOO_MUCH_MG_L
    if too_much and ph > float(now.species.ph) and not _ph_must_rise(work):
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
            Measure.TOTAL_ALKALINITY, "aeration" if too_much else "nothing_suitable_at_hand", reason
        )
