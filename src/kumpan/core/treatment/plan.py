"""From readings to a run sheet: what to add, in which order, with which waits, tests and cautions.

The amounts come from one solution of the whole water (`solve`), are split and put on days (`spread`)
and laid out in time (`timeline`). Nothing here knows the clock: steps carry minutes from the start.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.mass_balance import added_to, changes
from kumpan.core.dosing.solution import Dose, Solution
from kumpan.core.dosing.solver import solve
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import SATURATION_BAND
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import ADD, Step
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.lowering_advice import Means, with_amounts
from kumpan.core.treatment.rules_beside import RULE_BESIDE, rule_beside
from kumpan.core.treatment.schedule import lay_out
from kumpan.core.treatment.split import Spread, masses, spread

AS_SOLD = DisplayOptions()


@dataclass(frozen=True)
class Plan:
    """A run sheet not yet started: steps in order, the water after it, what it cannot do."""

    steps: tuple[Step, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]


# Origin: handbook 07: green water is kept far above its usual range until the algae are dead.
RESCUE_FIRST = Finding(
    "rescue_first",
    Message(
        "Plan the rescue instead: this water is green or under a rescue. What stands here only brings "
        "chlorine into its usual range, which the algae use up."
    ),
    Measure.FREE_CHLORINE,
)


def beside_a_rescue(found: Plan) -> Plan:
    """The usual sheet of water that needs a rescue: says so first, and no rule for a usual week beside it."""
    notes = (note for note in found.notes if note.code != RULE_BESIDE)
    return replace(found, notes=(RESCUE_FIRST, *notes))


def poured_by(found: Plan, *, first_day: bool = False) -> dict[str, float]:
    """What a sheet pours, g by product id; of its first day alone where asked."""
    needs: dict[str, float] = {}
    for step in found.steps:
        if step.kind == ADD and step.product_id and (step.day == 1 or not first_day):
            needs[step.product_id] = needs.get(step.product_id, 0.0) + (step.rounded_g or 0.0)
    return needs


def plan(
    readings: Readings,
    volume_l: float,
    traits: Traits,
    aims: Aims,
    inventory: Sequence[Product],
    *,
    display: DisplayOptions = AS_SOLD,
    fill: Readings | None = None,
    poured: Sequence[tuple[int, str]] = (),
) -> Plan:
    """The whole plan for one water. `shelf` is what may be poured; amounts are in g and mL.

    `fill` is the fill water's readings, for what only new water lowers; `telling` how amounts are said.
    """
    solution = solve(readings, volume_l, traits=traits, aims=aims, inventory=inventory)
    rules = _rules(solution, volume_l)
    placed = spread(solution.doses, readings, volume_l, solution.start)
    steps = lay_out(
        placed.parts,
        volume_l,
        traits,
        readings,
        display=display,
        aerate_to_ph=solution.aerate_to_ph,
        poured=poured,
    )
    means = Means(volume_l, fill or Readings(), inventory, display.units)
    unmet = with_amounts(solution.unmet, readings, aims, means)
    if not placed.held_back:
        notes = (*solution.notes, *rules, *index_notes(readings, solution.predicted, traits))
        return Plan(steps, solution.predicted, unmet, notes)
    unmet = (*unmet, *(_held_back(dose) for dose in placed.held_back))
    return Plan(
        steps, _as_far_as_it_goes(readings, volume_l, solution, placed), unmet, (*solution.notes, *rules)
    )


def _rules(solution: Solution, volume_l: float) -> tuple[Finding, ...]:
    """The trade's weekly rule for the chlorine of this plan, beside what it adds."""
    doses = [dose for dose in solution.doses if dose.measure is Measure.FREE_CHLORINE]
    found = [rule_beside(d.product, d.change, volume_l, weekly=True) for d in doses]
    return tuple(rule for rule in found if rule is not None)


def index_notes(before: Readings, after: Readings, traits: Traits) -> tuple[Finding, ...]:
    """A word where the plan itself takes a cement pool's scaling index out of its band."""
    now, then = _index(before), _index(after)
    low, high = SATURATION_BAND.low or 0.0, SATURATION_BAND.high or 0.0
    if (
        not traits.surface.is_cement
        or now is None
        or then is None
        or low <= then <= high
        or now < low
        or now > high
    ):
        return ()
    what = (
        Message("softer than cement likes; keep pH toward the upper end of its range")
        if then < low
        else Message("scaling; keep pH toward the lower end of its range")
    )
    text = Message(
        "After this plan the scaling index is {then}: {what}.",
        then=Number(then, digits=1, signed=True),
        what=what,
    )
    return (Finding("leaves_band", text, Measure.SATURATION_INDEX, {"index": then}),)


def _index(readings: Readings) -> float | None:
    known = known_from(readings) if readings.calcium_hardness else None
    found = solve_readings(known) if known is not None else None
    return float(saturation_index(found)) if isinstance(found, State) else None


def _held_back(dose: Dose) -> Unmet:
    reason = Message(
        "{names}: no safe addition goes further now; pH would leave 7.0 to 8.0. Test after this plan.",
        names=NAMES[dose.measure],
    )
    return Unmet(dose.measure, "limits", reason)


def _as_far_as_it_goes(readings: Readings, volume_l: float, solution: Solution, placed: Spread) -> Readings:
    """The water after the parts that could be placed."""
    water = readings
    for dose, mass in masses(placed.parts).items():
        water = added_to(water, changes(dose.product, mass, volume_l))
    last = placed.parts[-1].after if placed.parts else solution.start
    if last is None:
        return water
    return replace(water, ph=float(last.species.ph), total_alkalinity=float(last.total_alkalinity_mg_l))
