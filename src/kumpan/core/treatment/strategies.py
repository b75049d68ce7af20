"""Several ways through the same plan side by side: cost, additions, hours to swimming, and what is left
behind.

Sources: mass-balance, season-loss, swim-limit.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.dosing.product_choice import ROLES, ChoiceRequest, Strategy, choose, using, why_not
from kumpan.core.messages import Cased, Message, Verbatim, joined
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.products.purchase import Missing, missing
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import ADD, TEST
from kumpan.core.treatment.plan import Plan, plan

SOURCES_USED = ("mass-balance", "season-loss", "swim-limit")

NAMES: Mapping[Strategy, Message] = {
    Strategy.USUAL: Message("As usual here"),
    Strategy.CHEAPEST: Message("Least money"),
    Strategy.FEWEST: Message("Fewest products"),
    Strategy.CLEANEST: Message("Least left behind"),
}
WEEKS = 4
USUAL_LOSS_MG_L_DAY = 2.0  # where the pool's own loss is not known yet
# Salt (as NaCl) for each part of chlorine used up: by molar masses, liquid holds one more.
SALT_FROM_LIQUID, SALT_FROM_OTHERS = 1.65, 0.82
BUILDS_UP = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS, Measure.SALT)
# What keeps a pool of this kind going between the sheets; others go on with the sheet's own chlorine.
_KEEPS_GOING: Mapping[Chlorination, str | None] = {
    Chlorination.TABLETS: "trichlor",
    Chlorination.SALT_CELL: None,
}


@dataclass(frozen=True, kw_only=True)
class StrategyOutcome:
    """One way: its names, products and amounts (g), and what it comes to.

    `use` is the product it was made with.

    `used_cost` is the worth of what is poured, None when a price is missing; `minutes_to_swim` until the test
    that opens the pool, None when nothing closes it; `in_four_weeks` mg/L by measure.
    """

    strategies: tuple[Strategy, ...]
    use: str | None
    name: Message
    plan: Plan
    amounts: Mapping[Product, float]
    used_cost: float | None
    additions: int
    days: int
    minutes_to_swim: int | None
    in_four_weeks: Mapping[Measure, float]
    missing: tuple[Missing, ...]

    @property
    def buy_cost(self) -> float | None:
        """Money for what has to be bought; None where a price is missing."""
        costs = [buy.cost for short in self.missing for buy in short.buy]
        return None if any(cost is None for cost in costs) else sum(cost or 0.0 for cost in costs)


def compare(
    request: ChoiceRequest, loss_mg_l_day: float | None, display: DisplayOptions
) -> tuple[StrategyOutcome, ...]:
    """All ways; those that pour the same products stand as one, under their joined names.

    What else on the shelf could do the work of a poured product follows, each with its own outcome.
    """
    found: dict[frozenset[str], tuple[list[Strategy], str | None, Plan]] = {}
    for strategy in Strategy:
        made = _made(request, choose(request, strategy), display)
        found.setdefault(_poured(made), ([], None, made))[0].append(strategy)
    for product in _alternatives(request, frozenset().union(*found)):
        made = _made(request, choose(using(request, product.id), Strategy.USUAL), display)
        if product.id in _poured(made):
            found.setdefault(_poured(made), ([Strategy.USUAL], product.id, made))
    return tuple(outcome(request, *row, loss_mg_l_day) for row in found.values())


def not_offered(
    request: ChoiceRequest, found: Sequence[StrategyOutcome]
) -> tuple[tuple[Product, Message], ...]:
    """Products of the shelf that share the work of what is poured and do not serve here, with the reason."""
    poured = frozenset(product.id for way in found for product in way.amounts)
    reasons = ((product, why_not(product, request)) for product in _of_their_roles(request, poured))
    return tuple((product, why) for product, why in reasons if why is not None)


def _made(request: ChoiceRequest, products: Sequence[Product], display: DisplayOptions) -> Plan:
    return plan(
        request.readings,
        request.volume_l,
        traits=request.traits,
        aims=request.aims,
        inventory=products,
        display=display,
    )


def _poured(made: Plan) -> frozenset[str]:
    return frozenset(step.product_id or "" for step in made.steps if step.kind == ADD)


def _alternatives(request: ChoiceRequest, poured: frozenset[str]) -> list[Product]:
    """Those that could do the work of what is poured."""
    return [one for one in _of_their_roles(request, poured) if why_not(one, request) is None]


def _of_their_roles(request: ChoiceRequest, poured: frozenset[str]) -> list[Product]:
    """Products of the shelf, not poured by any way yet, that share a role with one that is."""
    roles = [
        role
        for role in ROLES
        for item in request.inventory
        if item.product.id in poured and item.product.chemical in role
    ]
    return [
        item.product
        for item in request.inventory
        if item.product.id not in poured and any(item.product.chemical in role for role in roles)
    ]


def outcome(
    request: ChoiceRequest,
    strategies: Sequence[Strategy],
    use: str | None,
    found: Plan,
    loss_mg_l_day: float | None,
) -> StrategyOutcome:
    """What one plan comes to."""
    amounts = _amounts(request, found)
    adds = [step for step in found.steps if step.kind == ADD]
    names = joined(
        NAMES[strategy] if n == 0 else Cased(NAMES[strategy]) for n, strategy in enumerate(strategies)
    )
    instead = next((product.label for product in amounts if product.id == use), None)
    return StrategyOutcome(
        strategies=tuple(strategies),
        use=use,
        name=Message("{names}", names=names)
        if instead is None
        else Message("With {product}", product=Verbatim(instead)),
        plan=found,
        amounts=amounts,
        used_cost=_cost(request, amounts),
        additions=len(adds),
        days=max((step.day for step in adds), default=1),
        minutes_to_swim=_minutes_to_swim(found),
        in_four_weeks=_in_four_weeks(request, found, amounts, loss_mg_l_day),
        missing=missing(amounts, request.inventory),
    )


def _amounts(request: ChoiceRequest, found: Plan) -> dict[Product, float]:
    products = {item.product.id: item.product for item in request.inventory}
    amounts: dict[Product, float] = {}
    for step in found.steps:
        if step.kind == ADD and step.product_id in products:
            product = products[step.product_id]
            amounts[product] = amounts.get(product, 0.0) + (step.rounded_g or 0.0)
    return amounts


def _cost(request: ChoiceRequest, amounts: Mapping[Product, float]) -> float | None:
    prices = {item.product.id: item.price_per_g for item in request.inventory}
    costs = [(prices.get(product.id), mass) for product, mass in amounts.items()]
    return None if any(price is None for price, _ in costs) else sum((p or 0.0) * mass for p, mass in costs)


def _minutes_to_swim(found: Plan) -> int | None:
    """Until the first test of chlorine or pH that comes after the last pour of its day."""
    poured = [step.offset_min for step in found.steps if step.kind == ADD and step.day == 1]
    if not poured:
        return None
    tests = [
        step.offset_min
        for step in found.steps
        if step.kind == TEST
        and step.offset_min >= max(poured)
        and {Measure.FREE_CHLORINE, Measure.PH} & set(step.measures)
    ]
    return min(tests, default=max(poured) + 60)


def _in_four_weeks(
    request: ChoiceRequest, found: Plan, amounts: Mapping[Product, float], loss_mg_l_day: float | None
) -> dict[Measure, float]:
    """What has built up when the pool's loss is made good for four weeks by what keeps it going."""
    chlorine = loss_mg_l_day if loss_mg_l_day is not None else USUAL_LOSS_MG_L_DAY
    carrier = _carrier(request, amounts)
    grams = 0.0
    if carrier is not None:
        grams = 7 * WEEKS * chlorine / change_per_g(carrier, Measure.FREE_CHLORINE, request.volume_l)
    levels = {}
    for measure in BUILDS_UP:
        after = found.predicted.value(measure)
        if after is not None:
            brings = change_per_g(carrier, measure, request.volume_l) if carrier is not None else 0.0
            salt_in_the_end = _chloride(chlorine, carrier) if measure is Measure.SALT else 0.0
            levels[measure] = after + grams * brings + salt_in_the_end
    return levels


def _chloride(chlorine_mg_l_day: float, carrier: Product | None) -> float:
    """Used-up chlorine is chloride; liquid brings as much again with it."""
    if carrier is None:
        return 0.0
    per_chlorine = SALT_FROM_LIQUID if carrier.row.is_liquid else SALT_FROM_OTHERS
    return per_chlorine * 7 * WEEKS * chlorine_mg_l_day


def _carrier(request: ChoiceRequest, amounts: Mapping[Product, float]) -> Product | None:
    kind = request.traits.chlorination
    if kind in _KEEPS_GOING:
        return next((i.product for i in request.inventory if i.product.chemical == _KEEPS_GOING[kind]), None)
    poured = [product for product in amounts if product.chemical in CHLORINE_CARRIERS]
    if poured:
        return poured[0]
    return next((i.product for i in request.inventory if i.product.chemical in CHLORINE_CARRIERS), None)


def loss_text(loss_mg_l_day: float | None) -> Message:
    """With which loss of chlorine the weeks ahead are reckoned."""
    if loss_mg_l_day is None:
        return Message(
            "Four weeks ahead at a usual loss of {loss} ppm a day; this pool's own is not known yet.",
            loss=Number(USUAL_LOSS_MG_L_DAY, digits=0),
        )
    return Message(
        "Four weeks ahead at this pool's own loss of {loss} ppm a day.", loss=Number(loss_mg_l_day, digits=1)
    )
