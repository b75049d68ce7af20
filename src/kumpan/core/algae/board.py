"""The rescue at a glance: stages with their days, the clear day as a band, what it takes, what climbs.

Everything follows from the journal, so each test re-plans it. Sources: rescue-plan, rescue-model.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

from kumpan.core.algae.belief import DateBand, Seen, Swarm, told
from kumpan.core.algae.criteria import Criterion, StageKey, criteria, stage_now, week_began
from kumpan.core.algae.episode import chlorine_rises
from kumpan.core.algae.outlook import Followed, Outlook, outlook
from kumpan.core.algae.overnight import Night
from kumpan.core.algae.request import RescueAsked, story_of
from kumpan.core.dosing.mass_balance import changes, mass_for_change_g
from kumpan.core.dosing.rounding import rough_amount
from kumpan.core.findings import Finding
from kumpan.core.journal import DeadWay, PhWay, Severity, WaterChange
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_OZ

SOURCES_USED = ("rescue-plan", "rescue-model")

MORNING_HOUR, EVENING_HOUR = 7, 20
TRAIL_MOST = 6
TABLETS_AT_ONCE, TABLET_G = 8, 8 * G_PER_OZ  # 3 in tablets of 8 oz
CLOSED = (
    "The pool is closed: nobody in until the main drain is plain to see, combined chlorine is at 0.5 or less and free "
    "chlorine is at the swim limit or under it."
)


def ahead(asked: RescueAsked, swarm: Swarm, rounds: int) -> Outlook:
    """The rescue run ahead from a belief, the plan followed."""
    over = asked.row.week_over_mg_l
    began = week_began(asked, over) if over is not None else None
    ago = None if began is None else (asked.now.timestamp() - began.timestamp()) / 86_400
    shift = asked.now.astimezone(asked.zone).utcoffset() or timedelta()
    hours = int(shift.total_seconds() // 3600)
    return outlook(
        swarm,
        asked.around,
        Followed(
            asked.level_mg_l, asked.usual_mg_l, max(0, 1 - rounds), asked.dead_way,
            (MORNING_HOUR - hours) % 24, (EVENING_HOUR - hours) % 24, over, ago,
        ),
    )  # fmt: skip


def first_band(asked: RescueAsked) -> DateBand:
    """Hours from the beginning until it is clear, as first told."""
    return ahead(asked, asked.first_belief, 0).clear


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


@dataclass(frozen=True)
class StageLine:
    """One stage: `standing` is done, now or ahead; the days it takes, where they can be told."""

    key: StageKey
    title: str
    text: str
    standing: str
    from_on: date | None = None
    to_on: date | None = None


@dataclass(frozen=True)
class Tally:
    """Chlorine so far and still to come (low, likely, high), mg/L; in the product's own amount; money where prices are told."""

    used_mg_l: float
    used_cost: float | None
    ahead_mg_l: tuple[float, float, float]
    ahead_text: str | None
    ahead_cost: tuple[float, float, float] | None
    pump_hours: float
    pump_kwh: float | None
    pump_cost: float | None
    water_l: float


@dataclass(frozen=True)
class RescueBoard:
    """One rescue, begun or as it would be begun now."""

    severity: Severity
    severity_name: str
    begun_at: datetime | None
    stage: StageKey
    closed: str
    stages: tuple[StageLine, ...]
    criteria: tuple[Criterion, ...]
    nights: tuple[Night, ...]
    rounds: int
    level_mg_l: float
    cap_mg_l: float
    by_ratio: bool
    ph_way: PhWay
    dead_way: DeadWay
    clear: DaySpan
    trail: tuple[TrailPoint, ...]
    tally: Tally
    watch: tuple[Finding, ...]


def board(asked: RescueAsked) -> RescueBoard:
    """The board as of now."""
    stage, found = stage_now(asked), ahead(asked, asked.belief, asked.rounds)
    begun = asked.episode.began_at if asked.episode is not None else None
    return RescueBoard(
        asked.setting.severity, asked.row.name, begun, stage, CLOSED,
        tuple(_stages(asked, stage, found)), criteria(asked), asked.nights, asked.rounds,
        asked.level_mg_l, asked.cap_mg_l, asked.setting.by_ratio, asked.ph_way, asked.dead_way,
        _days(asked, asked.now, found.clear), _trail(asked, found), _tally(asked, found), tuple(_watch(asked, found)),
    )  # fmt: skip


def _day(asked: RescueAsked, at: datetime) -> date:
    return at.astimezone(asked.zone).date()


def _days(asked: RescueAsked, since: datetime, band: DateBand) -> DaySpan:
    low, likely, high = (
        _day(asked, since + timedelta(hours=hours)) for hours in (band.low_h, band.likely_h, band.high_h)
    )
    return DaySpan(low, likely, high)


def _trail(asked: RescueAsked, now: Outlook) -> tuple[TrailPoint, ...]:
    """What was said at the beginning, after some tests on the way, and now: it should narrow."""
    episode = asked.episode
    if episode is None:
        return (TrailPoint(asked.now, _days(asked, asked.now, now.clear)),)
    story = story_of(episode, asked.volume_l)
    moments = [test.at for test in episode.tests]
    step = max(1, -(-len(moments) // (TRAIL_MOST - 2)))
    found = [TrailPoint(episode.began_at, _days(asked, episode.began_at, first_band(asked)))]
    swarm, told_until_s = asked.first_belief, 0.0
    for at in moments[step - 1 : -1 : step]:
        until_s = at.timestamp()
        since = [seen for seen in story if told_until_s < seen.at_s <= until_s]
        swarm, told_until_s = told(swarm, asked.around, [*since, Seen(until_s)]), until_s
        found.append(TrailPoint(at, _days(asked, at, ahead(replace(asked, now=at), swarm, 1).clear)))
    return (*found, TrailPoint(asked.now, _days(asked, asked.now, now.clear)))


_TITLES: Mapping[StageKey, str] = {
    StageKey.PREPARE: "Prepare",
    StageKey.BALANCE: "Balance pH",
    StageKey.ROUND: "Brush and shock, round after round",
    StageKey.CLEAR: "Clear away what died",
    StageKey.WEEK: "Hold a full week",
    StageKey.AFTER: "Finish: filter, timer, cause",
}
_ORDER = tuple(_TITLES)


def _stages(asked: RescueAsked, stage: StageKey, found: Outlook) -> Iterator[StageLine]:
    now = _standing_stage(asked, stage)
    today = _day(asked, asked.now)
    begun = _day(asked, asked.episode.began_at) if asked.episode is not None else today
    dead = _day(asked, asked.now + timedelta(hours=found.dead.likely_h))
    clear = _day(asked, asked.now + timedelta(hours=found.clear.likely_h))
    days: Mapping[StageKey, tuple[date, date]] = {
        StageKey.PREPARE: (begun, begun), StageKey.BALANCE: (begun, begun), StageKey.ROUND: (begun, max(dead, today)),
        StageKey.CLEAR: (dead, clear), StageKey.WEEK: (dead, clear), StageKey.AFTER: (clear, clear),
    }  # fmt: skip
    for key in _ORDER:
        if key is StageKey.WEEK and asked.row.week_over_mg_l is None:
            continue
        standing = "now" if key is now else "done" if _ORDER.index(key) < _ORDER.index(now) else "ahead"
        from_on, to_on = days[key]
        yield StageLine(key, _TITLES[key], _stage_text(asked, key), standing, from_on, to_on)


def _standing_stage(asked: RescueAsked, stage: StageKey) -> StageKey:
    """A test belongs to the stage that it lets go on."""
    if stage is not StageKey.TEST:
        return stage
    if asked.episode is None or not (asked.episode.prepared or asked.rounds):
        return StageKey.PREPARE
    return StageKey.ROUND if asked.rounds else StageKey.BALANCE


def _stage_text(asked: RescueAsked, key: StageKey) -> str:
    row = asked.row
    if key is StageKey.PREPARE:
        return "Close the pool, debris out, level, clean filter, pump day and night."
    if key is StageKey.BALANCE:
        lowered = asked.ph_way is PhWay.LOWERED
        return (
            "To 7.2 to 7.4, where chlorine is stronger."
            if lowered
            else "To 7.8, since the shock drives it down."
        )
    if key is StageKey.ROUND:
        how = f"{row.ratio:.0%} of stabiliser" if asked.setting.by_ratio else "the fixed way"
        return (
            f"{row.brush}. Free chlorine to {asked.level_mg_l:.0f} ({how}), tested morning and evening, never to zero; the filter "
            f"cleaned when its gauge asks for it. The trade's figure: {row.days}."
        )
    if key is StageKey.CLEAR:
        if asked.dead_way is DeadWay.STIR:
            return "Stirred up for the filter, and the filter washed every few hours."
        return "Settled overnight with the pump off, vacuumed to waste in the morning."
    if key is StageKey.WEEK:
        return f"Free chlorine over {row.week_over_mg_l:g}, spots brushed daily."
    return "Filter cleaned, timer back, the cause mended, stabiliser last."


def _tally(asked: RescueAsked, found: Outlook) -> Tally:
    episode = asked.episode
    used = sum(rise for _, rise in chlorine_rises(episode, asked.volume_l)) if episode is not None else 0.0
    hours = (asked.now - episode.began_at).total_seconds() / 3600 if episode is not None else 0.0
    plant = asked.state.plant
    kwh = plant.pump_kw * hours if plant.pump_kw is not None else None
    product = asked.product_for(max(1.0, asked.rise_to(asked.level_mg_l)))
    low, likely, high = found.chlorine_mg_l
    return Tally(
        used, _used_cost(asked), (low, likely, high), _amount_words(asked, product, low, high),
        _cost_ahead(asked, product, found.chlorine_mg_l), hours, kwh,
        kwh * plant.price_per_kwh if kwh is not None and plant.price_per_kwh is not None else None, _water(asked),
    )  # fmt: skip


def _used_cost(asked: RescueAsked) -> float | None:
    """What was poured since it began, in money; None where a price is not told."""
    total = 0.0
    for entry in asked.episode.additions if asked.episode is not None else ():
        body = entry.body
        price = asked.price_per_g.get(body.product_id or "")
        if price is None:
            return None
        total += price * body.mass_g
    return total


def _grams(asked: RescueAsked, product: Product, mg_l: float) -> float:
    return mass_for_change_g(product, Measure.FREE_CHLORINE, mg_l, asked.volume_l)


def _amount_words(asked: RescueAsked, product: Product | None, low: float, high: float) -> str | None:
    """A rough span in large units; the sheet says each pour exactly."""
    if product is None:
        return None
    first, last = (
        rough_amount(product, _grams(asked, product, mg_l), asked.telling.metric) for mg_l in (low, high)
    )
    if first == last:
        return f"about {last} of {product.label}"
    number, _, unit = first.partition(" ")
    shown = number if last.endswith(f" {unit}") else first
    return f"{shown} to {last} of {product.label}"


def _cost_ahead(
    asked: RescueAsked, product: Product | None, mg_l: tuple[float, float, float]
) -> tuple[float, float, float] | None:
    price = asked.price_per_g.get(product.id) if product is not None else None
    if product is None or price is None:
        return None
    low, likely, high = (price * _grams(asked, product, amount) for amount in mg_l)
    return low, likely, high


def _water(asked: RescueAsked) -> float:
    """Water that left since it began, litres."""
    if asked.episode is None:
        return 0.0
    return sum(
        entry.body.volume_l
        for entry in asked.state.water_changes
        if entry.at >= asked.episode.began_at and entry.body.kind in (WaterChange.BACKWASH, WaterChange.DRAIN)
    )


def _watch(asked: RescueAsked, found: Outlook) -> Iterator[Finding]:
    """What each chlorine of the shelf would leave behind over the whole course, and which is changed for it."""
    chosen = asked.product_for(max(1.0, asked.rise_to(asked.level_mg_l)))
    likely = found.chlorine_mg_l[1]
    seen: set[str] = set()
    for product in asked.shelf:
        if product.chemical not in _BRINGS or product.chemical in seen:
            continue
        seen.add(product.chemical)
        measure = _BRINGS[product.chemical]
        band, before = asked.bands.get(measure), asked.readings.value(measure)
        rise = changes(product, _grams(asked, product, likely), asked.volume_l).get(measure, 0.0)
        if before is None or band is None or band.high is None or rise < 1:
            continue
        name = NAMES[measure]
        over = before + rise > band.high
        ends = f"over {band.high:.0f}, so it gives way before that" if over else f"within {band.high:.0f}"
        text = f"{product.label} alone would take {name.lower()} from {before:.0f} to {before + rise:.0f}: {ends}."
        yield Finding(f"climbs_{product.chemical}", text, measure, {"after": before + rise})
    yield from _tablets(asked)
    if chosen is None:
        yield Finding(
            "no_product",
            "Nothing on the shelf may go on: liquid chlorine adds only salt.",
            Measure.FREE_CHLORINE,
        )


def _tablets(asked: RescueAsked) -> Iterator[Finding]:
    """The rule beside the sum: many tablets every third day, and what each time leaves."""
    tablets = next((product for product in asked.shelf if product.chemical == "trichlor"), None)
    if tablets is None:
        return
    moved = changes(tablets, TABLETS_AT_ONCE * TABLET_G, asked.volume_l)
    chlorine, stabiliser = moved[Measure.FREE_CHLORINE], moved[Measure.CYANURIC_ACID]
    text = (
        f"Some feed six to eight tablets every third day: here eight bring {chlorine:.0f} of chlorine over days, too slow to "
        f"shock, and leave {stabiliser:.0f} of stabiliser each time."
    )
    yield Finding("rule_tablets", text, Measure.CYANURIC_ACID, {"stabiliser": stabiliser})


_BRINGS: Mapping[str, Measure] = {
    "calcium_hypochlorite": Measure.CALCIUM_HARDNESS,
    "sodium_dichlor": Measure.CYANURIC_ACID,
    "trichlor": Measure.CYANURIC_ACID,
}
