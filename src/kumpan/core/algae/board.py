"""The rescue at a glance: stages with their days, the clear day as a band, what it takes, what climbs.

Everything follows from the journal, so each test re-plans it. Sources: rescue-plan, rescue-model.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

from kumpan.core.algae.belief import DateBand, Particles, Seen, updated
from kumpan.core.algae.criteria import Criterion, StageKey, criteria, stage_now, week_began
from kumpan.core.algae.episode import chlorine_rises
from kumpan.core.algae.outlook import Followed, Outlook, outlook
from kumpan.core.algae.overnight import Night
from kumpan.core.algae.request import RescueRequest, story_of
from kumpan.core.dosing.mass_balance import changes, mass_for_change_g
from kumpan.core.dosing.rounding import rough_amount
from kumpan.core.findings import Finding
from kumpan.core.journal import DeadAlgaeStrategy, PhStrategy, Severity, WaterChange
from kumpan.core.messages import Cased, Message, Verbatim
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_OZ
from kumpan.core.quantity import Number, Percent

SOURCES_USED = ("rescue-plan", "rescue-model")

MORNING_HOUR, EVENING_HOUR = 7, 20
TRAIL_MOST = 6
LATER_SHARE, LATER_FROM_DAYS = 0.15, 2.0
TABLETS_AT_ONCE, TABLET_G = 8, 8 * G_PER_OZ  # 3 in tablets of 8 oz
CLOSED = Message(
    "The pool is closed: nobody in until the main drain is plain to see, combined chlorine is "
    "at 0.5 or less and free chlorine is at the swim limit or under it."
)


def ahead(request: RescueRequest, particles: Particles, rounds: int) -> Outlook:
    """The rescue run ahead from a belief, the plan followed."""
    over = request.row.week_over_mg_l
    began = week_began(request, over) if over is not None else None
    ago = None if began is None else (request.now.timestamp() - began.timestamp()) / 86_400
    shift = request.now.astimezone(request.zone).utcoffset() or timedelta()
    hours = int(shift.total_seconds() // 3600)
    found = outlook(
        particles,
        request.around,
        Followed(
            level_mg_l=request.level_mg_l,
            usual_mg_l=request.usual_mg_l,
            rounds_left=max(0, 1 - rounds),
            dead_algae_strategy=request.dead_algae_strategy,
            morning_h=(MORNING_HOUR - hours) % 24,
            evening_h=(EVENING_HOUR - hours) % 24,
            week_over_mg_l=over,
            week_began_days_ago=ago,
        ),
    )
    return replace(found, clear=_widened(request, found.clear))


def _widened(request: RescueRequest, band: DateBand) -> DateBand:
    """The later the band is told, the later it ends: guesses run dry, and what drags on is what none foresaw.

    Found on 200 simulated pools so that nine bands in ten hold; counted on 200 others in the study.
    """
    if request.episode is None:
        return band
    days = (request.now - request.episode.began_at) / timedelta(days=1)
    return replace(band, high_h=band.high_h + 24 * LATER_SHARE * max(0.0, days - LATER_FROM_DAYS))


def first_band(request: RescueRequest) -> DateBand:
    """Hours from the beginning until it is clear, as first told."""
    return ahead(request, request.first_belief, 0).clear


@dataclass(frozen=True)
class DaySpan:
    """Days of the pool's calendar: likely, and the ends of the 90 % band."""

    low: date
    likely: date
    high: date


@dataclass(frozen=True)
class TrailPoint:
    """The band as it was told at a time."""

    at: datetime
    clear: DaySpan


@dataclass(frozen=True, kw_only=True)
class StageLine:
    """One stage: `standing` is done, now or ahead; the days it takes, where they can be told."""

    key: StageKey
    title: Message
    text: Message
    standing: str
    from_on: date | None = None
    to_on: date | None = None


@dataclass(frozen=True, kw_only=True)
class Tally:
    """Chlorine so far and still to come (low, likely, high), mg/L; in the product's own amount; money where
    prices are told.
    """

    used_mg_l: float
    used_cost: float | None
    ahead_mg_l: tuple[float, float, float]
    ahead_text: Message | None
    ahead_cost: tuple[float, float, float] | None
    pump_hours: float
    pump_kwh: float | None
    pump_cost: float | None
    water_l: float


@dataclass(frozen=True, kw_only=True)
class RescueBoard:
    """One rescue, begun or as it would be begun now."""

    severity: Severity
    severity_name: Message
    begun_at: datetime | None
    stage: StageKey
    closed: Message
    stages: tuple[StageLine, ...]
    criteria: tuple[Criterion, ...]
    nights: tuple[Night, ...]
    rounds: int
    level_mg_l: float
    cap_mg_l: float
    by_ratio: bool
    ph_strategy: PhStrategy
    dead_algae_strategy: DeadAlgaeStrategy
    clear: DaySpan
    trail: tuple[TrailPoint, ...]
    tally: Tally
    watch: tuple[Finding, ...]


def board(request: RescueRequest) -> RescueBoard:
    """The board as of now."""
    stage, found = stage_now(request), ahead(request, request.belief, request.rounds)
    begun = request.episode.began_at if request.episode is not None else None
    return RescueBoard(
        severity=request.setting.severity,
        severity_name=request.row.name,
        begun_at=begun,
        stage=stage,
        closed=CLOSED,
        stages=tuple(_stages(request, stage, found)),
        criteria=criteria(request),
        nights=request.nights,
        rounds=request.rounds,
        level_mg_l=request.level_mg_l,
        cap_mg_l=request.cap_mg_l,
        by_ratio=request.setting.by_ratio,
        ph_strategy=request.ph_strategy,
        dead_algae_strategy=request.dead_algae_strategy,
        clear=_days(request, request.now, found.clear),
        trail=_trail(request, found),
        tally=_tally(request, found),
        watch=tuple(_watch(request, found)),
    )


def _day(request: RescueRequest, at: datetime) -> date:
    return at.astimezone(request.zone).date()


def _days(request: RescueRequest, since: datetime, band: DateBand) -> DaySpan:
    low, likely, high = (
        _day(request, since + timedelta(hours=hours)) for hours in (band.low_h, band.likely_h, band.high_h)
    )
    return DaySpan(low, likely, high)


def _trail(request: RescueRequest, now: Outlook) -> tuple[TrailPoint, ...]:
    """What was said at the beginning, after some tests on the way, and now: it should narrow."""
    episode = request.episode
    if episode is None:
        return (TrailPoint(request.now, _days(request, request.now, now.clear)),)
    story = story_of(episode, request.volume_l)
    moments = [test.at for test in episode.tests]
    step = max(1, -(-len(moments) // (TRAIL_MOST - 2)))
    found = [TrailPoint(episode.began_at, _days(request, episode.began_at, first_band(request)))]
    particles, updated_until_s = request.first_belief, 0.0
    for at in moments[step - 1 : -1 : step]:
        until_s = at.timestamp()
        since = [seen for seen in story if updated_until_s < seen.at_s <= until_s]
        particles, updated_until_s = updated(particles, request.around, [*since, Seen(at_s=until_s)]), until_s
        found.append(TrailPoint(at, _days(request, at, ahead(replace(request, now=at), particles, 1).clear)))
    return (*found, TrailPoint(request.now, _days(request, request.now, now.clear)))


_TITLES: Mapping[StageKey, Message] = {
    StageKey.PREPARE: Message("Prepare"),
    StageKey.BALANCE: Message("Balance pH"),
    StageKey.ROUND: Message("Brush and shock, round after round"),
    StageKey.CLEAR: Message("Clear away what died"),
    StageKey.WEEK: Message("Hold a full week"),
    StageKey.AFTER: Message("Finish: filter, timer, cause"),
}
_ORDER = tuple(_TITLES)


def _stages(request: RescueRequest, stage: StageKey, found: Outlook) -> Iterator[StageLine]:
    now = _standing_stage(request, stage)
    today = _day(request, request.now)
    begun = _day(request, request.episode.began_at) if request.episode is not None else today
    dead = _day(request, request.now + timedelta(hours=found.dead.likely_h))
    clear = _day(request, request.now + timedelta(hours=found.clear.likely_h))
    days: Mapping[StageKey, tuple[date, date]] = {
        StageKey.PREPARE: (begun, begun),
        StageKey.BALANCE: (begun, begun),
        StageKey.ROUND: (begun, max(dead, today)),
        StageKey.CLEAR: (dead, clear),
        StageKey.WEEK: (dead, clear),
        StageKey.AFTER: (clear, clear),
    }
    for key in _ORDER:
        if key is StageKey.WEEK and request.row.week_over_mg_l is None:
            continue
        standing = "now" if key is now else "done" if _ORDER.index(key) < _ORDER.index(now) else "ahead"
        from_on, to_on = days[key]
        yield StageLine(
            key=key,
            title=_TITLES[key],
            text=_stage_text(request, key),
            standing=standing,
            from_on=from_on,
            to_on=to_on,
        )


def _standing_stage(request: RescueRequest, stage: StageKey) -> StageKey:
    """A test belongs to the stage that it lets go on."""
    if stage is not StageKey.TEST:
        return stage
    if request.episode is None or not (request.episode.prepared or request.rounds):
        return StageKey.PREPARE
    return StageKey.ROUND if request.rounds else StageKey.BALANCE


def _stage_text(request: RescueRequest, key: StageKey) -> Message:
    row = request.row
    if key is StageKey.PREPARE:
        return Message("Close the pool, debris out, level, clean filter, pump day and night.")
    if key is StageKey.BALANCE:
        lowered = request.ph_strategy is PhStrategy.LOWERED
        return (
            Message("To 7.2 to 7.4, where chlorine is stronger.")
            if lowered
            else Message("To 7.8, since the shock drives it down.")
        )
    if key is StageKey.ROUND:
        how = (
            Message("{ratio} of stabilizer", ratio=Percent(row.ratio))
            if request.setting.by_ratio
            else Message("the fixed way")
        )
        return Message(
            "{brush}. Free chlorine to {level} ({how}), tested morning and evening, never to zero; the "
            "filter cleaned when its gauge asks for it. The trade's figure: {days}.",
            brush=row.brush,
            level=Number(request.level_mg_l, digits=0),
            how=how,
            days=row.days,
        )
    if key is StageKey.CLEAR:
        if request.dead_algae_strategy is DeadAlgaeStrategy.STIR:
            return Message("Stirred up for the filter, and the filter washed every few hours.")
        return Message("Settled overnight with the pump off, vacuumed to waste in the morning.")
    if key is StageKey.WEEK:
        return Message(
            "Free chlorine over {week_over}, spots brushed daily.",
            week_over=Number(row.week_over_mg_l or 0.0),
        )
    return Message("Filter cleaned, timer back, the cause mended, stabilizer last.")


def _tally(request: RescueRequest, found: Outlook) -> Tally:
    episode = request.episode
    used = sum(rise for _, rise in chlorine_rises(episode, request.volume_l)) if episode is not None else 0.0
    hours = (request.now - episode.began_at).total_seconds() / 3600 if episode is not None else 0.0
    plant = request.state.plant
    kwh = plant.pump_kw * hours if plant.pump_kw is not None else None
    product = request.product_for(max(1.0, request.rise_to(request.level_mg_l)))
    low, likely, high = found.chlorine_mg_l
    return Tally(
        used_mg_l=used,
        used_cost=_used_cost(request),
        ahead_mg_l=(low, likely, high),
        ahead_text=_amount_words(request, product, low, high),
        ahead_cost=_cost_ahead(request, product, found.chlorine_mg_l),
        pump_hours=hours,
        pump_kwh=kwh,
        pump_cost=kwh * plant.price_per_kwh if kwh is not None and plant.price_per_kwh is not None else None,
        water_l=_water(request),
    )


def _used_cost(request: RescueRequest) -> float | None:
    """What was poured since it began, in money; None where a price is not told."""
    total = 0.0
    for entry in request.episode.additions if request.episode is not None else ():
        body = entry.body
        price = request.price_per_g.get(body.product_id or "")
        if price is None:
            return None
        total += price * body.mass_g
    return total


def _grams(request: RescueRequest, product: Product, mg_l: float) -> float:
    return mass_for_change_g(product, Measure.FREE_CHLORINE, mg_l, request.volume_l)


def _amount_words(request: RescueRequest, product: Product | None, low: float, high: float) -> Message | None:
    """A rough span in large units; the sheet says each pour exactly."""
    if product is None:
        return None
    first, last = (rough_amount(product, _grams(request, product, mg_l)) for mg_l in (low, high))
    label = Verbatim(product.label)
    return Message("{low} to {high} of {product}", low=first, high=last, product=label)


def _cost_ahead(
    request: RescueRequest, product: Product | None, mg_l: tuple[float, float, float]
) -> tuple[float, float, float] | None:
    price = request.price_per_g.get(product.id) if product is not None else None
    if product is None or price is None:
        return None
    low, likely, high = (price * _grams(request, product, amount) for amount in mg_l)
    return low, likely, high


def _water(request: RescueRequest) -> float:
    """Water that left since it began, liters."""
    if request.episode is None:
        return 0.0
    return sum(
        entry.body.volume_l
        for entry in request.state.water_changes
        if entry.at >= request.episode.began_at
        and entry.body.kind in (WaterChange.BACKWASH, WaterChange.DRAIN)
    )


def _watch(request: RescueRequest, found: Outlook) -> Iterator[Finding]:
    """What each chlorine of the shelf would leave behind over the whole course, and which is changed for
    it.
    """
    chosen = request.product_for(max(1.0, request.rise_to(request.level_mg_l)))
    likely = found.chlorine_mg_l[1]
    seen: set[str] = set()
    for product in request.inventory:
        if product.chemical not in _BRINGS or product.chemical in seen:
            continue
        seen.add(product.chemical)
        measure = _BRINGS[product.chemical]
        band, before = request.bands.get(measure), request.readings.value(measure)
        rise = changes(product, _grams(request, product, likely), request.volume_l).get(measure, 0.0)
        if before is None or band is None or band.high is None or rise < 1:
            continue
        name = NAMES[measure]
        over = before + rise > band.high
        ends = (
            Message("over {high}, so it gives way before that", high=Number(band.high, digits=0))
            if over
            else Message("within {high}", high=Number(band.high, digits=0))
        )
        text = Message(
            "{label} alone would take {measure} from {before} to {before_2}: {ends}.",
            label=Verbatim(product.label),
            measure=Cased(name),
            before=Number(before, digits=0),
            before_2=Number(before + rise, digits=0),
            ends=ends,
        )
        yield Finding(f"climbs_{product.chemical}", text, measure, {"after": before + rise})
    yield from _tablets(request)
    if chosen is None:
        yield Finding(
            "nothing_suitable_at_hand",
            Message("Nothing on the shelf may go on: liquid chlorine adds only salt."),
            Measure.FREE_CHLORINE,
        )


def _tablets(request: RescueRequest) -> Iterator[Finding]:
    """The rule beside the sum: many tablets every third day, and what each time leaves."""
    tablets = next((product for product in request.inventory if product.chemical == "trichlor"), None)
    if tablets is None:
        return
    moved = changes(tablets, TABLETS_AT_ONCE * TABLET_G, request.volume_l)
    chlorine, stabilizer = moved[Measure.FREE_CHLORINE], moved[Measure.CYANURIC_ACID]
    text = Message(
        "Some feed six to eight tablets every third day: here eight bring {chlorine} of chlorine "
        "over days, too slow to shock, and leave {stabilizer} of stabilizer each time.",
        chlorine=Number(chlorine, digits=0),
        stabilizer=Number(stabilizer, digits=0),
    )
    yield Finding("rule_tablets", text, Measure.CYANURIC_ACID, {"stabiliser": stabilizer})


_BRINGS: Mapping[str, Measure] = {
    "calcium_hypochlorite": Measure.CALCIUM_HARDNESS,
    "sodium_dichlor": Measure.CYANURIC_ACID,
    "trichlor": Measure.CYANURIC_ACID,
}
