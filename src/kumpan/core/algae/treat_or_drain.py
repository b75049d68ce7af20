"""Treat or drain: in money, days and water, and which of them the handbook would take.

Sources: treat-or-drain, mass-balance.
"""

from dataclasses import dataclass
from math import ceil

from kumpan.core.algae.board import RescueBoard
from kumpan.core.algae.request import RescueRequest
from kumpan.core.dosing.dilution import fill_with_zeros
from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.dosing.raisers import raiser
from kumpan.core.dosing.water_change import share_to_replace
from kumpan.core.journal import Severity
from kumpan.core.messages import NOTHING, Cased, Message, Verbatim, listed
from kumpan.core.pool.equipment import Surface
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.treatment.special.drain import goes

SOURCES_USED = ("treat-or-drain", "mass-balance")

BACKWASHES_SHARE_A_DAY = 0.015  # of the water, for the filter
STARTUP_DAYS = 3.0
STARTUP = (
    Measure.FREE_CHLORINE,
    Measure.TOTAL_ALKALINITY,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
)


@dataclass(frozen=True, kw_only=True)
class OptionCost:
    """One way: money (low, high; None where a price is not told), days (low, high), water in L, words.

    `at_least` is what is known of the money; `gaps` names what it leaves out.
    """

    key: str
    title: Message
    money: tuple[float, float] | None
    days: tuple[float, float]
    water_l: float
    text: Message
    at_least: float
    gaps: tuple[Message, ...]


NO_WATER_PRICE = Message("the price of water")
NO_POWER_PRICE = Message("power for the pump")


@dataclass(frozen=True, kw_only=True)
class TreatOrDrain:
    """The ways side by side, the one that the handbook's rules point to, and why."""

    strategies: tuple[OptionCost, ...]
    verdict: str
    reasons: tuple[Message, ...]
    drain_over_stabilizer: float
    drain_over_calcium: float
    currency: str


def treat_or_drain(request: RescueRequest, board: RescueBoard) -> TreatOrDrain:
    """Both costs and both times; the thresholds are the setting's."""
    treat, drain, part = _treat(request, board), _drain(request), _part(request, board)
    verdict, reasons = _verdict(request, treat, drain, part)
    strategies = (treat, *((part,) if part is not None else ()), drain)
    setting = request.setting
    return TreatOrDrain(
        strategies=strategies,
        verdict=verdict,
        reasons=reasons,
        drain_over_stabilizer=setting.drain_over_stabilizer,
        drain_over_calcium=setting.drain_over_calcium,
        currency=request.hoses.currency,
    )


def _treat(request: RescueRequest, board: RescueBoard) -> OptionCost:
    today = request.now.astimezone(request.zone).date()
    days = (float((board.clear.low - today).days), float((board.clear.high - today).days))
    plant, cost = request.state.plant, board.tally.ahead_cost
    power = None
    if plant.pump_kw is not None and plant.price_per_kwh is not None:
        power = plant.pump_kw * plant.price_per_kwh * 24
    water = BACKWASHES_SHARE_A_DAY * request.volume_l * sum(days) / 2
    water_money = (request.hoses.price_per_m3 or 0.0) * water / 1000
    low, high = (cost[0], cost[2]) if cost is not None else (0.0, 0.0)
    low, high = low + (power or 0.0) * days[0] + water_money, high + (power or 0.0) * days[1] + water_money
    gaps = [Message("the price of the chlorine")] if cost is None else []
    gaps += [NO_POWER_PRICE] if power is None else []
    gaps += [NO_WATER_PRICE] if request.hoses.price_per_m3 is None else []
    amount = board.tally.ahead_text
    text = (
        Message("Chlorine: {amount}.", amount=amount)
        if amount is not None
        else Message("Nothing on the shelf treats it.")
    )
    return OptionCost(
        key="treat",
        title=Message("Treat it"),
        money=(low, high) if cost is not None else None,
        days=days,
        water_l=water,
        text=text,
        at_least=low,
        gaps=tuple(gaps),
    )


def _drain(request: RescueRequest) -> OptionCost:
    hours = request.volume_l / request.hoses.drain_l_per_h + request.volume_l / request.hoses.fill_l_per_h
    days = hours / 24 + 1
    startup, gaps = _startup_money(request)
    water = request.hoses.price_per_m3
    total = (water or 0.0) * request.volume_l / 1000 + startup
    gaps += (NO_WATER_PRICE,) if water is None else ()
    text = Message(
        "Empty, wash, refill, start up. A professional is asked first: ground water can lift or "
        "crack a shell."
    )
    if request.traits.surface is Surface.VINYL:
        text = Message("A liner shrinks when it stands dry: emptying it whole is a liner installer's work.")
    return OptionCost(
        key="drain",
        title=Message("Drain and refill"),
        money=None if gaps else (total, total),
        days=(ceil(days), ceil(days) + STARTUP_DAYS),
        water_l=request.volume_l,
        text=text,
        at_least=total,
        gaps=gaps,
    )


def _startup_money(request: RescueRequest) -> tuple[float, tuple[Message, ...]]:
    """The chemicals that bring fill water to the pool's aims, in money, and those whose price is not told."""
    fill = fill_with_zeros(request.fill)
    total = 0.0
    gaps: list[Message] = []
    for measure in STARTUP:
        band, now = request.bands.get(measure), fill.value(measure)
        if band is None or band.aim is None or not band.dose_low or now is None or now >= (band.low or 0.0):
            continue
        product: Product | None = raiser(measure, request.traits, request.inventory)
        price = request.price_per_g.get(product.id) if product is not None else None
        if product is None or price is None:
            what = name_in_sentence(measure) if product is None else Verbatim(product.label)
            gaps.append(Message("the price of {product}", product=what))
            continue
        total += price * mass_for_change_g(product, measure, band.aim - now, request.volume_l)
    return total, tuple(gaps)


def _part(request: RescueRequest, board: RescueBoard) -> OptionCost | None:
    """Some water first, so that the level that stabilizer asks for can be reached at all."""
    stabilizer = request.readings.cyanuric_acid
    if stabilizer is None or not request.setting.by_ratio or request.wanted_mg_l <= request.cap_mg_l:
        return None
    wanted = request.cap_mg_l / request.row.ratio
    share = share_to_replace(stabilizer, wanted, fill_with_zeros(request.fill).cyanuric_acid or 0.0)
    if share is None or share <= 0:
        return None
    count, each = goes(share)
    water = count * each * request.volume_l
    hours = water / request.hoses.drain_l_per_h + water / request.hoses.fill_l_per_h
    treat = _treat(request, board)
    price = request.hoses.price_per_m3
    money = None
    if price is not None and treat.money is not None:
        money = (treat.money[0] + price * water / 1000, treat.money[1] + price * water / 1000)
    days = (treat.days[0] + ceil(hours / 24), treat.days[1] + ceil(hours / 24))
    parts = Message(" in {count} parts", count=Number(count)) if count > 1 else NOTHING
    text = Message(
        "Replace {share} %{parts}: stabilizer {stabilizer} to {wanted}, then the level is within the cap.",
        share=Number(100 * share, digits=0),
        parts=parts,
        stabilizer=Number(stabilizer, digits=0),
        wanted=Number(wanted, digits=0),
    )
    return OptionCost(
        key="part",
        title=Message("Replace some, then treat"),
        money=money,
        days=days,
        water_l=treat.water_l + water,
        text=text,
        at_least=treat.at_least + (price or 0.0) * water / 1000,
        gaps=treat.gaps,
    )


def _verdict(
    request: RescueRequest, treat: OptionCost, drain: OptionCost, part: OptionCost | None
) -> tuple[str, tuple[Message, ...]]:
    """The handbook's rule first, then the money, then what cannot be reached otherwise."""
    hidden = request.setting.severity is Severity.OPAQUE
    over, unknown = _over_and_unknown(request)
    reasons: list[Message] = []
    if unknown:
        names = Cased(Message("{names}", names=listed(unknown)), upper=True)
        reasons.append(Message("{names} not tested: the answer may change with it.", names=names))
    if hidden and over:
        reasons.append(
            Message(
                "The first step cannot be seen, and {measures} is over its limit for treating.",
                measures=listed(over),
            )
        )
        return "drain", (*reasons, *_shell(request))
    if treat.money is not None and drain.money is not None and treat.money[0] > drain.money[1]:
        reasons.append(Message("Treating costs more than a refill with its startup."))
        return "drain", (*reasons, *_shell(request))
    if part is not None:
        reasons.append(
            Message(
                "Stabilizer asks for {wanted} of free chlorine, and {cap} is the most here.",
                wanted=Number(request.wanted_mg_l, digits=0),
                cap=Number(request.cap_mg_l, digits=0),
            )
        )
        return "part", tuple(reasons)
    if not hidden:
        reasons.append(Message("The floor or first step is seen: treating is the usual way."))
    else:
        reasons.append(
            Message("Stabilizer and calcium are under their limits: treating works, it takes its days.")
        )
    return "treat", tuple(reasons)


def _over_and_unknown(request: RescueRequest) -> tuple[list[Message], list[Message]]:
    """The measures over their limit for treating, and those that nobody tested."""
    setting, readings = request.setting, request.readings
    over = [
        text
        for text, value, limit in (
            (Message("stabilizer"), readings.cyanuric_acid, setting.drain_over_stabilizer),
            (Message("calcium"), readings.calcium_hardness, setting.drain_over_calcium),
        )
        if value is not None and value > limit
    ]
    unknown = [
        name
        for name, value in (
            (Message("stabilizer"), readings.cyanuric_acid),
            (Message("calcium"), readings.calcium_hardness),
        )
        if value is None
    ]
    return over, unknown


def _shell(request: RescueRequest) -> tuple[Message, ...]:
    if request.traits.surface is Surface.VINYL:
        return (Message("On a liner this means parts, never all of it at once."),)
    return (Message("Ask a professional about ground water before a shell is emptied."),)
