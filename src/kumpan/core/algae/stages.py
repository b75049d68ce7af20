"""The run sheet of what is due now: each ends with a test, and after it everything is reckoned again.

Sources: rescue-plan, filter-care, clarifier.
"""

from collections.abc import Callable, Mapping
from dataclasses import replace
from datetime import timedelta
from types import MappingProxyType

from kumpan.core.algae.criteria import StageKey, ph_window, stage_now
from kumpan.core.algae.next_test import (
    MIX_MIN,
    MORNING,
    expect,
    hours_to_reserve,
    spoils_the_night,
    until_the_next_test,
    wait_and_test,
)
from kumpan.core.algae.preparing import AFTER, CLEAN_FILTER, PREPARE
from kumpan.core.algae.request import RescueRequest
from kumpan.core.dosing.solution import nothing_at_hand
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.journal import DeadAlgaeStrategy, PhStrategy, last_reading
from kumpan.core.maintenance.filter_pressure import LIMIT_KPA, clean_pressure, pressure_trend
from kumpan.core.maintenance.procedures import own_key
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number, Percent, PoolWater, Pressure
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import ADD, DO, Step
from kumpan.core.treatment.label_words import label_words
from kumpan.core.treatment.plan import Plan, plan
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.special.shock import PH_FOR_SHOCK, chlorine_part

SOURCES_USED = ("rescue-plan", "filter-care", "clarifier")

LEAST_RISE_MG_L, LEAST_RISE_SHARE = 1.0, 0.2  # of the level: less is not worth opening the jug again
LEAST_TOP_UP_MG_L = 0.3
SETTLES_AT_LEAST_H = 5.0  # hours left until the morning: so long it settles
LATE_H = 10.6  # so few are left only late in the evening, dark or not
TOPPED_UP_FOR_H = 14.0  # from evening to morning, or over a day
CLARIFIER_UNDER_MG_L = 5.0
VACUUM_SHARE = 0.025  # of the water goes to waste with what was vacuumed
FULL_TEST_HOLDS = timedelta(days=21)

PUMP_OFF, VACUUM = Message("Pump off for the night"), Message("Vacuum to waste")
REFILL = Message("Refill to the middle of the skimmer, pump on")
GAUGE = "Read the filter's gauge: at {limit} or more clean it now"
DAILY_BRUSH = "{brush}, daily"


def stage_plan(request: RescueRequest) -> Plan:
    """The sheet of the stage that is due now."""
    return _PLANS[stage_now(request)](request)


def _line(request: RescueRequest) -> Timeline:
    return Timeline(request.volume_l, request.readings, request.display, request.poured)


def _plan(request: RescueRequest, line: Timeline, *notes: Finding | None) -> Plan:
    after = request.readings
    for step in line.steps:
        for measure, value in step.expected.items():
            after = after.with_value(measure, value)
    return Plan(tuple(line.steps), after, (), tuple(note for note in notes if note is not None))


def _measures(request: RescueRequest) -> tuple[Measure, ...]:
    """Free, total and pH; and once in three weeks what the amounts and the limits depend on."""
    wanted = [Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE, Measure.PH]
    for measure in (
        Measure.TOTAL_ALKALINITY,
        Measure.CYANURIC_ACID,
        Measure.CALCIUM_HARDNESS,
        Measure.COPPER,
    ):
        last = last_reading(request.state, measure)
        if request.episode is None and (last is None or request.now - last.at > FULL_TEST_HOLDS):
            wanted.append(measure)
    return tuple(wanted)


def _test_plan(request: RescueRequest) -> Plan:
    line = _line(request)
    line.do(
        Message("Look: can you see the main drain, the floor, the first step?"),
        Message("What is seen counts with what is tested. Nobody in while the drain is hidden."),
        Hazard.OPEN_WATER,
    )
    line.test(_measures(request), Message("Each step is computed from a test of the last two hours."))
    return _plan(request, line)


def _prepare_plan(request: RescueRequest) -> Plan:
    line = _line(request)
    for row in PREPARE:
        if row.when(request):
            line.do(row.title, row.why, row.hazard, care=row.care)
    title, hazard = CLEAN_FILTER[request.traits.filter]
    first = Message("A clean filter before the first shock; note the clean pressure.")
    line.do(title, first, hazard, care=(own_key("filter", request.traits),))
    return _plan(request, line, _metal_note(request))


def _metal_note(request: RescueRequest) -> Finding | None:
    if request.readings.copper is not None:
        return None
    text = Message(
        "Copper is not tested. A green tint without haze may be copper, and a shock would set it "
        "as stain: test it if in doubt."
    )
    return Finding("copper_first", text, Measure.COPPER)


def _balance_plan(request: RescueRequest) -> Plan:
    """pH alone, to where the chosen product works best; the rest waits until it is clear."""
    low, high, aim = ph_window(request)
    found = plan(
        request.readings,
        request.volume_l,
        traits=request.traits,
        aims=Aims({Measure.PH: Band(low, high, aim)}, {Measure.PH: aim}),
        inventory=request.inventory,
        display=request.display,
    )
    lowered = request.ph_strategy is PhStrategy.LOWERED
    text = (
        Message(
            "pH to {aim} first: chlorine is stronger there. Others raise it to 7.8 where "
            "the shock itself drives pH down.",
            aim=Number(aim),
        )
        if lowered
        else Message(
            "pH to {aim} first: the shock chosen drives pH down. Others lower it to 7.2 to "
            "7.4, where chlorine is stronger.",
            aim=Number(aim),
        )
    )
    notes = (Finding("ph_school", text, Measure.PH), *found.notes)
    return _with_chlorine_today(request, replace(found, notes=notes))


def _with_chlorine_today(request: RescueRequest, found: Plan) -> Plan:
    """The first day's part of pH, and the shock the same day: never a day without chlorine in a green pool.

    What is left of pH follows from the next test.
    """
    today = [step for step in found.steps if step.day == 1]
    while today and today[-1].kind != ADD:
        today.pop()
    rise = request.rise_to(request.level_mg_l)
    product = request.product_for(rise) if rise >= LEAST_RISE_MG_L else None
    if product is None:
        return found
    line = _line(request)
    line.after(today)
    free = request.readings.free_chlorine or 0.0
    why = Message(
        "Free chlorine from {free} to {free_2} the same day: a green pool never waits for pH.",
        free=Number(free, figures=3),
        free_2=Number(free + rise, figures=3),
    )
    line.add(chlorine_part(request.readings, product, rise_mg_l=rise, volume_l=request.volume_l, why=why))
    wait_and_test(request, line, rise)
    after = replace(found.predicted, free_chlorine=free + rise)
    return replace(found, steps=tuple(line.steps), predicted=after)


def _round_plan(request: RescueRequest) -> Plan:
    """Brush, filter, to the level, a test an hour later, and the next before it may run low."""
    line = _line(request)
    rise = request.rise_to(request.level_mg_l)
    if rise < max(LEAST_RISE_MG_L, LEAST_RISE_SHARE * request.level_mg_l):
        wait_and_test(request, line, 0.0)
        return _plan(request, line, *_level_notes(request))
    product = request.product_for(rise)
    if product is None:
        reason = Message(
            "Nothing on the shelf shocks this pool without harm: tablets are too slow, granules bring "
            "too much stabilizer or calcium by now. Liquid chlorine adds only salt."
        )
        left = (nothing_at_hand(Measure.FREE_CHLORINE, request.choice_refused or reason),)
        return Plan((), request.readings, left, _level_notes(request))
    line.do(
        request.row.brush,
        Message("What is loose is killed and filtered. {brush_words}", brush_words=_brush_words(request)),
        Hazard.OPEN_WATER,
    )
    _filter_step(request, line)
    free = request.readings.free_chlorine or 0.0
    why = Message(
        "Round {rounds}: free chlorine from {free} to {free_2}, {level_words}.",
        rounds=Number(request.rounds + 1),
        free=Number(free, figures=3),
        free_2=Number(free + rise, figures=3),
        level_words=_level_words(request, free + rise),
    )
    line.add(chlorine_part(request.readings, product, rise_mg_l=rise, volume_l=request.volume_l, why=why))
    line.wait_until(line.now + MIX_MIN, Message("Until it is mixed: pump on, brush again."))
    line.test(
        (Measure.FREE_CHLORINE,),
        Message("How much is left after an hour tells what lives in it, and how large the pool really is."),
    )
    expect(request, line, rise)
    wait_and_test(request, line, rise)
    return _plan(request, line, *_level_notes(request), *request.of_the_choice(product, rise))


def _brush_words(request: RescueRequest) -> Message:
    if request.traits.surface.is_cement:
        return Message("Nylon does; steel only on bare cement.")
    return Message("Nylon only: steel cuts this surface.")


def _level_words(request: RescueRequest, reached: float) -> Message:
    if reached < request.level_mg_l - 0.5:
        return Message(
            "toward {level} in two pours, since the volume is not known exactly",
            level=Number(request.level_mg_l, digits=0),
        )
    if request.wanted_mg_l > request.cap_mg_l:
        return Message(
            "as high as this pool bears, where {wanted} would be asked",
            wanted=Number(request.wanted_mg_l, digits=0),
        )
    if not request.setting.by_ratio:
        return Message("the fixed way")
    return Message("{ratio} of stabilizer, 10 at least", ratio=Percent(request.row.ratio))


def _level_notes(request: RescueRequest) -> tuple[Finding, ...]:
    found = []
    if request.wanted_mg_l > request.cap_mg_l:
        text = Message(
            "{wanted} would be needed and {cap} is as high as this pool should go: it takes longer, or "
            "replace water first. Compare below.",
            wanted=Number(request.wanted_mg_l, digits=0),
            cap=Number(request.cap_mg_l, digits=0),
        )
        found.append(Finding("dilute_first", text, Measure.CYANURIC_ACID, {"cap": request.cap_mg_l}))
    if request.readings.cyanuric_acid is None:
        text = Message(
            "Stabilizer is not known: the level stays at 10. Test it; with much of it 10 is no shock."
        )
        found.append(Finding("stabiliser_unknown", text, Measure.CYANURIC_ACID))
    elif not request.setting.by_ratio and 0.4 * request.readings.cyanuric_acid > request.level_mg_l:
        text = Message(
            "10 is not a shock here: stabilizer {cyanuric_acid} binds it, and the ratio asks for "
            "{cyanuric_acid_2}.",
            cyanuric_acid=Number(request.readings.cyanuric_acid, digits=0),
            cyanuric_acid_2=Number(0.4 * request.readings.cyanuric_acid, digits=0),
        )
        found.append(Finding("weak_shock", text, Measure.FREE_CHLORINE))
    ph, (low, high) = request.readings.ph, PH_FOR_SHOCK
    if request.rounds and ph is not None and not low <= ph <= high:
        text = Message(
            "pH last read {ph}. Over 10 of free chlorine the test bleaches and reads wrong: judge pH "
            "again under it.",
            ph=Number(ph, digits=1),
        )
        found.append(Finding("ph_reads_wrong", text, Measure.PH))
    return tuple(found)


def _filter_step(request: RescueRequest, line: Timeline) -> None:
    """Driven by the gauge: clean where it is up, else read it."""
    trend = pressure_trend(request.state, request.now)
    clean, _ = clean_pressure(request.state)
    limit = Message("{amount}", amount=Pressure(clean + LIMIT_KPA))
    title, hazard = CLEAN_FILTER[request.traits.filter]
    if trend is not None and trend.rise_kpa >= LIMIT_KPA:
        line.do(
            title,
            Message(
                "The gauge is at {last}, {limit} is the limit. Note the clean pressure after.",
                last=Pressure(trend.last_kpa),
                limit=limit,
            ),
            hazard,
            care=(own_key("filter", request.traits),),
        )
        return
    line.do(
        Message(GAUGE, limit=limit),
        Message("Dead algae clog it, several times a day in a bad case. Note the reading."),
        Hazard.PRESSURE,
    )


def _clear_plan(request: RescueRequest) -> Plan:
    """Nothing lives; what died must leave: stirred into the filter, or settled and vacuumed away."""
    line = _line(request)
    if request.dead_algae_strategy is DeadAlgaeStrategy.STIR:
        _stir(request, line)
    elif _is_night(request):
        return _settle_tonight(request, line)
    else:
        rise = _top_up(request, line)
        _filter_step(request, line)
        until_the_next_test(request, line, rise)
    return _plan(request, line, _clarifier(request))


def _stir(request: RescueRequest, line: Timeline) -> None:
    rise = _top_up(request, line)
    line.do(
        Message("Brush and hose the floor: stir up what settled"),
        Message(
            "The filter takes only what floats. Fine foam or a sock in the skimmer helps; watch the flow."
        ),
        Hazard.OPEN_WATER,
    )
    _filter_step(request, line)
    until_the_next_test(request, line, rise)


def _is_night(request: RescueRequest) -> bool:
    """Past dusk, or late where it hardly gets dark; and early enough that it can settle until the morning."""
    hours = (request.morning - request.now) / timedelta(hours=1)
    dark = request.evening.at > request.morning
    return hours >= SETTLES_AT_LEAST_H and (dark or hours <= LATE_H)


def _settle_tonight(request: RescueRequest, line: Timeline) -> Plan:
    rise = _top_up(request, line)
    if spoils_the_night(request, rise):
        until_the_next_test(request, line, rise)
        return _plan(request, line, _clarifier(request))
    line.do(PUMP_OFF, Message("Still water lets it settle. On again after the vacuum."), Hazard.ELECTRICITY)
    line.wait_until(
        int((request.morning - request.now).total_seconds() // 60),
        Message("Let it settle."),
        title=Message("Overnight, pump off"),
    )
    liters = VACUUM_SHARE * request.volume_l
    why = Message(
        "Slowly, the valve at waste; about {liters} go with it. Mind the level.", liters=PoolWater(liters)
    )
    line.steps.append(
        replace(
            Step(
                kind=DO,
                day=line.day,
                offset_min=line.now,
                title=VACUUM,
                why=why,
                hazard=Hazard.VALVE,
                cautions=cautions_for(Hazard.VALVE),
            ),
            water_l=liters,
        )
    )
    line.do(REFILL, Message("At once, so that the pump draws no air."), Hazard.OPEN_WATER)
    line.test((Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE), MORNING)
    expect(request, line, rise)
    return _plan(request, line, _clarifier(request))


def _top_up(request: RescueRequest, line: Timeline) -> float:
    """Free chlorine back to what the pool keeps, before it runs low; the rise in mg/L."""
    free, band = request.readings.free_chlorine or 0.0, request.bands.get(Measure.FREE_CHLORINE)
    low = max(band.low or 1.0 if band is not None else 1.0, request.row.week_over_mg_l or 0.0)
    rise = request.rise_to(request.usual_mg_l)
    ends = hours_to_reserve(request, 0.0, TOPPED_UP_FOR_H) < TOPPED_UP_FOR_H
    product = request.product_for(rise)
    if rise < LEAST_TOP_UP_MG_L or (free > low + 0.5 and not ends) or product is None:
        return 0.0
    why = Message(
        "Free chlorine from {free} to {free_2}: never to zero while it clears.",
        free=Number(free, figures=3),
        free_2=Number(free + rise, figures=3),
    )
    line.add(chlorine_part(request.readings, product, rise_mg_l=rise, volume_l=request.volume_l, why=why))
    return rise


def _clarifier(request: RescueRequest) -> Finding:
    free = request.readings.free_chlorine or 0.0
    if free >= CLARIFIER_UNDER_MG_L:
        text = Message(
            "Clarifier only with free chlorine under 5; it is at {free}. Until then filter, brush and wait.",
            free=Number(free, figures=3),
        )
    else:
        text = Message(
            "A clarifier, or floc where you vacuum to waste, may be used now: {amount}, nothing "
            "else with it.",
            amount=label_words(request.inventory, ("clarifier",), request.volume_l, request.display)
            or Message("by its label"),
        )
    return Finding("clarifier", text, Measure.FREE_CHLORINE)


def _week_plan(request: RescueRequest) -> Plan:
    """Black spots: a full week over the level, brushed daily, closed meanwhile where that is over the swim
    limit.
    """
    line = _line(request)
    rise = _top_up(request, line)
    line.do(
        Message(DAILY_BRUSH, brush=request.row.brush),
        Message("Roots regrow from what was left."),
        Hazard.OPEN_WATER,
    )
    until_the_next_test(request, line, rise)
    over = request.row.week_over_mg_l or 0.0
    if over >= request.swim_limit_mg_l:
        text = Message(
            "Free chlorine stays over {over} for a full week. Closed for the week: {over} is the swim "
            "limit here.",
            over=Number(over),
        )
    else:
        text = Message("Free chlorine stays over {over} for a full week.", over=Number(over))
    note = Finding("week", text, Measure.FREE_CHLORINE)
    return _plan(request, line, note)


def _after_plan(request: RescueRequest) -> Plan:
    line = _line(request)
    for title, why, hazard in AFTER:
        line.do(title, why, hazard)
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH, Measure.TOTAL_ALKALINITY, Measure.CYANURIC_ACID),
        Message(
            "Swim at {swim_limit} or less of free chlorine, the drain plain to see.",
            swim_limit=Number(request.swim_limit_mg_l),
        ),
    )
    return _plan(request, line)


_PLANS: Mapping[StageKey, Callable[[RescueRequest], Plan]] = MappingProxyType({
    StageKey.TEST: _test_plan,
    StageKey.PREPARE: _prepare_plan,
    StageKey.BALANCE: _balance_plan,
    StageKey.ROUND: _round_plan,
    StageKey.CLEAR: _clear_plan,
    StageKey.WEEK: _week_plan,
    StageKey.AFTER: _after_plan,
})  # fmt: skip
