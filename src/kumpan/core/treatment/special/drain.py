"""Replacing water as a plan: how much, in how many goes, how long, what it costs and what the fill brings.

Sources: mass-balance, water-change, cautions.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, log

from kumpan.core.dosing.dilution import fill_with_zeros, refilled
from kumpan.core.dosing.solver import Unmet
from kumpan.core.dosing.water_change import LARGEST_PARTIAL_SHARE, share_to_replace
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.pool.equipment import Surface, Traits
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import water_text
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import DO, Step
from kumpan.core.treatment.plan import AS_SOLD, Plan
from kumpan.core.treatment.schedule import Timeline, duration_text

SOURCES_USED = ("mass-balance", "water-change", "cautions")

# What only new water brings down, the one that most often asks for it first.
LOWERED_BY_WATER = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS, Measure.SALT, Measure.BORATE)
MIX_MIN = 240
HOT_FOR_PLASTER_C = 27.0
MOST_GOES = 6


@dataclass(frozen=True)
class Hoses:
    """Litres an hour out and in, and the price of a cubic metre; None when it is not told."""

    drain_l_per_h: float
    fill_l_per_h: float
    price_per_m3: float | None
    currency: str = "$"


@dataclass(frozen=True)
class DrainRequest:
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
            request, Measure.CYANURIC_ACID, "in_range", "Nothing is high that only new water lowers."
        )
    now = request.readings.value(measure)
    if now is None:
        return nothing_to_do(
            request, measure, "not_measured", f"{NAMES[measure]} is not measured: test it first."
        )
    band = request.bands.get(measure)
    wanted = request.wanted if request.wanted is not None else (band.aim or band.high if band else None)
    if wanted is None or wanted >= now:
        return nothing_to_do(
            request, measure, "in_range", f"{NAMES[measure]} at {now:.0f} needs no new water."
        )
    fill = fill_with_zeros(request.fill)
    in_fill = fill.value(measure)
    if in_fill is None:
        return nothing_to_do(
            request,
            measure,
            "fill_not_known",
            f"Test the fill water's {name_in_sentence(measure)}: the share depends on it.",
        )
    share = share_to_replace(now, wanted, in_fill)
    if share is None:
        reason = f"The fill water holds {in_fill:.0f} itself, so {name_in_sentence(measure)} does not get to {wanted:.0f}."
        return nothing_to_do(request, measure, "fill_too_high", reason)
    return _treatment(request, measure, wanted, share, fill)


def _most_over(request: DrainRequest) -> Measure | None:
    """The measure that stands furthest over its band, of those that only water lowers."""
    over = {}
    for measure in LOWERED_BY_WATER:
        value, band = request.readings.value(measure), request.bands.get(measure)
        if value is not None and band is not None and band.high is not None and value > band.high:
            over[measure] = value / max(band.high, 1.0)
    return max(over, key=lambda m: over[m], default=None)


def nothing_to_do(request: DrainRequest, measure: Measure, code: str, reason: str) -> Plan:
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
    line.wait_until(line.now + MIX_MIN, "Pump on, until old and new water are one.")
    tested = (measure, Measure.PH, Measure.TOTAL_ALKALINITY, Measure.FREE_CHLORINE)
    then = "then the next part by a new sheet" if count > 1 else "then balance by a new sheet, chlorine first"
    line.test(tested, f"A test decides; {then}.")
    total = count * each * request.volume_l
    return Plan(tuple(line.steps), after, (), tuple(_notes(request, measure, wanted, share, total, after)))


def _one_go(line: Timeline, request: DrainRequest, liters: float, count: int) -> None:
    amount = water_text(liters, request.display.metric)
    out_min = round(60 * liters / request.hoses.drain_l_per_h)
    in_min = round(60 * liters / request.hoses.fill_l_per_h)
    part = f", the first of {count} parts" if count > 1 else ""
    line.do(
        "Pump, heater and cell off at the breaker",
        "They must not run dry while the level is down.",
        Hazard.ELECTRICITY,
    )
    line.do(
        f"Pump out {amount}{part}",
        f"About {duration_text(out_min)} at the rate set for your pump; someone stays with it. "
        "Only where local rules let it go, with the chlorine at zero.",
        Hazard.SHELL,
    )
    line.wait_until(
        line.now + out_min,
        "The water goes out; watch the shell and the level.",
        title=f"{duration_text(out_min)} draining",
    )
    line.steps.append(_refill(line, amount, in_min, liters))
    line.wait_until(
        line.now + in_min,
        "The fill runs; do not leave it unwatched overnight.",
        title=f"{duration_text(in_min)} filling",
    )
    line.do(
        "Air out of the pump, breaker on, pump running",
        "Prime it, and look for leaks before you go.",
        Hazard.ELECTRICITY,
    )


def _refill(line: Timeline, amount: str, in_min: int, liters: float) -> Step:
    why = f"About {duration_text(in_min)}, at once: an emptied shell should not stand. Through a prefilter if the water carries metals."
    step = Step(DO, line.day, line.now, f"Refill {amount}", why, Hazard.SHELL, cautions_for(Hazard.SHELL))
    return replace(step, water_l=liters)


def _notes(
    request: DrainRequest, measure: Measure, wanted: float, share: float, total_l: float, after: Readings
) -> Sequence[Finding]:
    metric, hoses = request.display.metric, request.hoses
    text = (
        f"{NAMES[measure]} from {request.readings.value(measure) or 0:.0f} to {wanted:.0f} takes {100 * share:.0f} % new water, "
        f"{water_text(total_l, metric)} in all"
    )
    if hoses.price_per_m3 is not None:
        text += f", about {hoses.currency}{total_l / 1000 * hoses.price_per_m3:.0f} of water"
    notes = [Finding("drain", f"{text}.", measure, {"share": share, "volume_l": total_l})]
    brings = [
        f"{name_in_sentence(m)} {before:.3g} to {then:.3g}"
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
        notes.append(Finding("fill_effect", f"The fill also moves {', '.join(brings)}.", None))
    notes.append(Finding("ask_first", _shell_words(request), None))
    return notes


def _shell_words(request: DrainRequest) -> str:
    """What this shell fears most; the professional comes first."""
    text = "Ground water can lift or crack a shell: ask a professional before you start."
    temperature = request.readings.temperature_c
    if request.traits.surface is Surface.VINYL:
        return f"{text} A liner shrinks when it stands dry: never below a third of the depth."
    if request.traits.surface.is_cement and temperature is not None and temperature > HOT_FOR_PLASTER_C:
        return f"{text} Hot sun harms bare plaster: choose a mild day."
    return text
