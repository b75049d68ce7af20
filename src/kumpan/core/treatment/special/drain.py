"""Replacing water as a plan: how much, in how many goes, how long, what it costs and what the fill brings.

Sources: mass-balance, water-change, cautions.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, log

from kumpan.core.dosing.dilution import fill_with_zeros, refilled
from kumpan.core.dosing.water_change import LARGEST_PARTIAL_SHARE, share_to_replace
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.messages import NOTHING, Message, joined
from kumpan.core.pool.equipment import Surface, Traits
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Duration, Money, Number, PoolWater
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import DO, Step
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import AS_SOLD, Plan
from kumpan.core.treatment.schedule import Timeline

SOURCES_USED = ("mass-balance", "water-change", "cautions")

# What only new water brings down, the one that most often asks for it first.
LOWERED_BY_WATER = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS, Measure.SALT, Measure.BORATE)
MIX_MIN = 240
HOT_FOR_PLASTER_C = 27.0
MOST_GOES = 6


@dataclass(frozen=True)
class Hoses:
    """Liters an hour out and in, and the price of a cubic meter; None when it is not told."""

    drain_l_per_h: float
    fill_l_per_h: float
    price_per_m3: float | None
    currency: str = "$"


@dataclass(frozen=True, kw_only=True)
class DrainRequest:
    """A partial drain that is asked for: the water, the fill, the hoses, and what to bring down."""

    readings: Readings
    volume_l: float
    traits: Traits
    bands: dict[Measure, Band]
    fill: Readings
    hoses: Hoses
    measure: Measure | None = None
    wanted: float | None = None
    display: DisplayOptions = AS_SOLD


def drain_plan(request: DrainRequest) -> Plan:
    """The sheet of a partial drain, or why there is none."""
    measure = request.measure or _most_over(request)
    if measure is None:
        return nothing_to_do(
            request, Measure.CYANURIC_ACID, "in_range", Message("Nothing is high that only new water lowers.")
        )
    now = request.readings.value(measure)
    if now is None:
        return nothing_to_do(
            request,
            measure,
            "not_tested",
            Message("{names} is not measured: test it first.", names=NAMES[measure]),
        )
    band = request.bands.get(measure)
    wanted = request.wanted if request.wanted is not None else (band.aim or band.high if band else None)
    if wanted is None or wanted >= now:
        return nothing_to_do(
            request,
            measure,
            "in_range",
            Message("{names} at {now} needs no new water.", names=NAMES[measure], now=Number(now, digits=0)),
        )
    return _by_share(request, measure, now, wanted)


def _by_share(request: DrainRequest, measure: Measure, now: float, wanted: float) -> Plan:
    fill = fill_with_zeros(request.fill)
    in_fill = fill.value(measure)
    if in_fill is None:
        return nothing_to_do(
            request,
            measure,
            "fill_not_known",
            Message(
                "Test the fill water's {measure}: the share depends on it.", measure=name_in_sentence(measure)
            ),
        )
    share = share_to_replace(now, wanted, in_fill)
    if share is None:
        reason = Message(
            "The fill water holds {in_fill} itself, so {measure} does not get to {wanted}.",
            in_fill=Number(in_fill, digits=0),
            measure=name_in_sentence(measure),
            wanted=Number(wanted, digits=0),
        )
        return nothing_to_do(request, measure, "fill_too_high", reason)
    return _treatment(request, measure, wanted=wanted, share=share, fill=fill)


def _most_over(request: DrainRequest) -> Measure | None:
    """The measure that stands furthest over its band, of those that only water lowers."""
    over = {}
    for measure in LOWERED_BY_WATER:
        value, band = request.readings.value(measure), request.bands.get(measure)
        if value is not None and band is not None and band.high is not None and value > band.high:
            over[measure] = value / max(band.high, 1.0)
    return max(over, key=lambda m: over[m], default=None)


def nothing_to_do(request: DrainRequest, measure: Measure, code: str, reason: Message) -> Plan:
    """A plan without steps, and why."""
    return Plan((), request.readings, (Unmet(measure, code, reason),), ())


def goes(share: float) -> tuple[int, float]:
    """In how many equal partial drains, and the share of each: (1 - each) ** n = 1 - share."""
    count = (
        1
        if share <= LARGEST_PARTIAL_SHARE
        else ceil(log(1 - min(share, 0.99)) / log(1 - LARGEST_PARTIAL_SHARE))
    )
    count = min(count, MOST_GOES)
    return count, float(1 - (1 - share) ** (1 / count))


def _treatment(request: DrainRequest, measure: Measure, wanted: float, share: float, fill: Readings) -> Plan:
    count, each = goes(share)
    line = Timeline(request.volume_l, request.readings, request.display)
    after = refilled(request.readings, fill, each)
    _one_go(line, request, each * request.volume_l, count)
    line.level_now(after)
    line.wait_until(line.now + MIX_MIN, Message("Pump on, until old and new water are one."))
    tested = (measure, Measure.PH, Measure.TOTAL_ALKALINITY, Measure.FREE_CHLORINE)
    then = (
        Message("then the next part by a new plan")
        if count > 1
        else Message("then balance by a new plan, chlorine first")
    )
    line.test(tested, Message("A test decides; {then}.", then=then))
    total = count * each * request.volume_l
    return Plan(
        tuple(line.steps),
        after,
        (),
        tuple(_notes(request, measure, wanted=wanted, share=share, total_l=total, after=after)),
    )


def _one_go(line: Timeline, request: DrainRequest, liters: float, count: int) -> None:
    amount = Message("{amount}", amount=PoolWater(liters))
    out_min = round(60 * liters / request.hoses.drain_l_per_h)
    in_min = round(60 * liters / request.hoses.fill_l_per_h)
    part = Message(", the first of {count} parts", count=Number(count)) if count > 1 else NOTHING
    line.do(
        Message("Pump, heater and cell off at the breaker"),
        Message("They must not run dry while the level is down."),
        Hazard.ELECTRICITY,
    )
    line.do(
        Message("Pump out {amount}{part}", amount=amount, part=part),
        Message(
            "About {out_min} at the rate set for your pump; someone stays with it. Only where local "
            "rules let it go, with the chlorine at zero.",
            out_min=Duration(out_min),
        ),
        Hazard.SHELL,
    )
    line.wait_until(
        line.now + out_min,
        Message("The water goes out; watch the shell and the level."),
        title=Message("{out_min} draining", out_min=Duration(out_min)),
    )
    line.steps.append(_refill(line, amount, in_min, liters))
    line.wait_until(
        line.now + in_min,
        Message("The fill runs; do not leave it unwatched overnight."),
        title=Message("{in_min} filling", in_min=Duration(in_min)),
    )
    line.do(
        Message("Air out of the pump, breaker on, pump running"),
        Message("Prime it, and look for leaks before you go."),
        Hazard.ELECTRICITY,
    )


def _refill(line: Timeline, amount: Message, in_min: int, liters: float) -> Step:
    why = Message(
        "About {in_min}, at once: an emptied shell should not stand. Through a prefilter if the "
        "water carries metals.",
        in_min=Duration(in_min),
    )
    step = Step(
        kind=DO,
        day=line.day,
        offset_min=line.now,
        title=Message("Refill {amount}", amount=amount),
        why=why,
        hazard=Hazard.SHELL,
        cautions=cautions_for(Hazard.SHELL),
    )
    return replace(step, water_l=liters)


def _notes(
    request: DrainRequest, measure: Measure, wanted: float, share: float, total_l: float, after: Readings
) -> Sequence[Finding]:
    text = Message(
        "{measure} from {before} to {wanted} takes {share} % new water, {total} in all{cost}.",
        measure=NAMES[measure],
        before=Number(request.readings.value(measure) or 0, digits=0),
        wanted=Number(wanted, digits=0),
        share=Number(100 * share, digits=0),
        total=PoolWater(total_l),
        cost=_cost_words(request.hoses, total_l),
    )
    notes = [Finding("drain", text, measure, {"share": share, "volume_l": total_l})]
    brings = [
        Message(
            "{measure} {before} to {then}",
            measure=name_in_sentence(m),
            before=Number(before, figures=3),
            then=Number(then, figures=3),
        )
        for m in (
            Measure.PH,
            Measure.TOTAL_ALKALINITY,
            Measure.CALCIUM_HARDNESS,
            Measure.CYANURIC_ACID,
            Measure.SALT,
        )
        if m is not measure
        and (before := request.readings.value(m)) is not None
        and (then := after.value(m)) is not None
    ]
    if brings:
        notes.append(
            Finding("fill_effect", Message("The fill also moves {moves}.", moves=joined(brings)), None)
        )
    notes.append(Finding("ask_first", _shell_words(request), None))
    return notes


def _cost_words(hoses: Hoses, total_l: float) -> Message:
    if hoses.price_per_m3 is None:
        return NOTHING
    cost = Money(total_l / 1000 * hoses.price_per_m3, hoses.currency)
    return Message(", about {cost} of water", cost=cost)


def _shell_words(request: DrainRequest) -> Message:
    """What this shell fears most; the professional comes first."""
    text = Message("Ground water can lift or crack a shell: ask a professional before you start.")
    temperature = request.readings.temperature_c
    if request.traits.surface is Surface.VINYL:
        return Message(
            "{text} A liner shrinks when it stands dry: never below a third of the depth.", text=text
        )
    if request.traits.surface.is_cement and temperature is not None and temperature > HOT_FOR_PLASTER_C:
        return Message("{text} Hot sun harms bare plaster: choose a mild day.", text=text)
    return text
