"""How much a week: this pool's own loss in the products that people use, and what each does over a season.

The loss is that of the coming week, by the pool's own tests; while there are few of them it is a range.
Source:
weekly-regime.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import ceil, sqrt

import numpy as np

from kumpan.core.dosing.feeding import TABLET, cell_percent
from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.dosing.rounding import Rounded, round_dose
from kumpan.core.dosing.rules_of_thumb import RuleOutcome, rule_outcome, rules_for
from kumpan.core.findings import Finding
from kumpan.core.forecast.chlorine import Factors
from kumpan.core.forecast.conditions import Conditions
from kumpan.core.forecast.fit import USUAL, USUAL_SD, Fit
from kumpan.core.forecast.forecast import BAND_SD, daily_loss
from kumpan.core.forecast.sun import Array
from kumpan.core.messages import Message, Plural
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.products.catalogue import CHLORINE_CARRIERS, STABILIZED
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_OZ, L_PER_US_GAL
from kumpan.core.quantity import Count, Mass, Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions

SOURCE = "weekly-regime"

WEEK, MONTH, SEASON = 7.0, 30.4, 182.0  # days; a season is half a year
SMALL_POOL_L = 10_000 * L_PER_US_GAL  # under it 1 in tablets. Origin: handbook 12 [C]
SMALL_TABLET = Product("tablet-1in", "trichlor", 90.0, package_g=14.0)
ONE_INCH_G, THREE_INCH_G = 30.0, 150.0  # what tablets of these sizes weigh at most and at least
LARGEST_TABLET_G = 300.0  # more is a tub of them
SPOON_G = 0.5 * G_PER_OZ  # a level tablespoon of granules. Origin: handbook 12 [C]
MOST_SPOONS = 24
GRANULES = ("calcium_hypochlorite", "sodium_dichlor")
USUAL_PRODUCTS: tuple[Product, ...] = (
    Product("usual-liquid", "sodium_hypochlorite", 10.0),
    Product("usual-granules", "sodium_dichlor", 56.0),
    Product("usual-calcium", "calcium_hypochlorite", 65.0),
)
FEW_TESTS = 4  # with fewer the usual figures weigh more than the pool's own
MOVED = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS, Measure.SALT, Measure.TOTAL_ALKALINITY)


@dataclass(frozen=True)
class Loss:
    """Free chlorine that goes in a day, mg/L: the 90 percent range, and how many tests stand behind it."""

    low: float
    likely: float
    high: float
    tests: int


@dataclass(frozen=True, kw_only=True)
class Regime:
    """One product as the pool's regime.

    `each_g` goes in every `every_days`; `week_g` low, likely and high. `brings` in mg/L a week; what stands
    against it here is in `unsuited`. `chart` is the trade's rule for a week beside it.
    """

    product: Product
    at_hand: bool
    every_days: int
    each_g: float
    each: Rounded
    spoons: float | None
    count: float | None
    tablet_g: float | None
    week_g: tuple[float, float, float]
    brings: Mapping[Measure, float]
    unsuited: Message | None
    notes: tuple[Finding, ...]
    chart: RuleOutcome | None


@dataclass(frozen=True, kw_only=True)
class WeeklyRequest:
    """The pool, its loss, and what stands on the shelf."""

    loss: Loss
    volume_l: float
    traits: Traits
    readings: Readings
    bands: Mapping[Measure, Band]
    swim_limit_mg_l: float
    level_mg_l: float
    inventory: Sequence[Product]
    display: DisplayOptions


def weekly_loss(acting: Conditions, fitted: Fit | None, level_mg_l: float) -> Loss:
    """What goes in a day over the given conditions, held at a level; by the usual figures without a fit."""
    values = np.array(USUAL[:3] if fitted is None else fitted.values[:3])
    spread = USUAL_SD[:3] if fitted is None else np.sqrt(np.diag(np.array(fitted.covariance)))[:3]

    def loss(moved: Array) -> float:
        return daily_loss(acting, Factors(*(float(one) for one in moved)), level_mg_l)

    likely = loss(values)
    up, down = 0.0, 0.0
    for i in (0, 1):  # sun and organics; what brings chlorine is no loss
        step = np.zeros(3)
        step[i] = BAND_SD * float(spread[i])
        up += (loss(values + step) - likely) ** 2
        down += (likely - loss(values - step)) ** 2
    return Loss(
        max(0.0, likely - sqrt(down)), likely, likely + sqrt(up), 0 if fitted is None else fitted.tests
    )


def basis(loss: Loss, *, rescue: bool = False) -> Message:
    """What the loss is told from; while the pool needs a rescue, what it is not for."""
    if rescue:
        return Message(
            "These are for clear water. What this water loses now goes into a rescue, which is dosed and "
            "tested twice a day at first, then daily: follow its plan, and come back here once it is over."
        )
    if loss.tests < FEW_TESTS:
        return Message(
            "Told from sun, season and use, since there are few tests yet: a test every second day narrows "
            "it."
        )
    return Message("Told from this pool's last {tests} tests.", tests=Number(loss.tests, digits=0))


def regimes(request: WeeklyRequest) -> tuple[Regime, ...]:
    """Every chlorine at hand, then the usual ones that are not, those that suit the pool first."""
    own = [product for product in request.inventory if product.chemical in CHLORINE_CARRIERS]
    tablet = SMALL_TABLET if request.volume_l < SMALL_POOL_L else TABLET
    missing = [
        usual
        for usual in (*USUAL_PRODUCTS, tablet)
        if usual.chemical not in {product.chemical for product in own}
    ]
    found = [_regime(request, product, at_hand=True) for product in own]
    found += [_regime(request, product, at_hand=False) for product in missing]
    return tuple(_by_fit(found))


def _by_fit(found: Sequence[Regime]) -> list[Regime]:
    """What suits comes first; what has brought its measure over its range already comes after the others, and
    then liquid chlorine, which brings nothing, stands at the head.
    """
    over = {
        regime.product.id
        for regime in found
        if any(note.code == "change_product" and note.fields.get("weeks") == 0.0 for note in regime.notes)
    }

    def place(regime: Regime) -> tuple[bool, bool, bool, bool]:
        other = bool(over) and regime.product.chemical != "sodium_hypochlorite"
        return regime.unsuited is not None, regime.product.id in over, not regime.at_hand, other

    return sorted(found, key=place)


def _regime(request: WeeklyRequest, product: Product, *, at_hand: bool) -> Regime:
    per_g = change_per_g(product, Measure.FREE_CHLORINE, request.volume_l)
    low, likely, high = (
        WEEK * loss / per_g for loss in (request.loss.low, request.loss.likely, request.loss.high)
    )
    tablets = product.chemical == "trichlor"
    every = 7 if tablets else _every_days(request)
    each_g = likely * every / WEEK
    brings = {
        measure: likely * change
        for measure in MOVED
        if (change := change_per_g(product, measure, request.volume_l, spent=True)) != 0.0
    }
    size = tablet_g(product, request.volume_l) if tablets else None
    chart = next((rule for rule in rules_for(product.chemical) if rule.per_week), None)
    return Regime(
        product=product,
        at_hand=at_hand,
        every_days=every,
        each_g=each_g,
        each=_measured(product, each_g, request.display),
        spoons=_spoons(product, each_g),
        count=None if size is None else likely / size,
        tablet_g=size,
        week_g=(low, likely, high),
        brings=brings,
        unsuited=_unsuited(product, request.traits),
        notes=tuple(_notes(request, product, brings)),
        chart=None if chart is None else rule_outcome(chart, request.volume_l),
    )


def tablet_g(product: Product, volume_l: float) -> float:
    """What one tablet weighs: the product's package where that is one tablet, else the usual for such a
    pool.
    """
    package = product.package_g
    if package is not None and package <= LARGEST_TABLET_G:
        return package
    usual = SMALL_TABLET if volume_l < SMALL_POOL_L else TABLET
    return usual.package_g or LARGEST_TABLET_G


def once_a_week(request: WeeklyRequest) -> Finding | None:
    """Why a week's chlorine does not go in at once; None where it would stay under the swim limit."""
    peak = request.level_mg_l + WEEK * request.loss.likely
    if peak <= request.swim_limit_mg_l:
        return None
    return Finding(
        "no_weekly_pour",
        Message(
            "Not all at once: one pour a week would go to {peak} ppm, over the swim limit of {limit}, and be "
            "gone in days.",
            peak=Number(peak, digits=0),
            limit=Number(request.swim_limit_mg_l),
        ),
        Measure.FREE_CHLORINE,
    )


def _every_days(request: WeeklyRequest) -> int:
    """Every second day, or daily where two days' worth would go over the swim limit."""
    return 2 if request.level_mg_l + 2 * request.loss.likely <= request.swim_limit_mg_l else 1


def _measured(product: Product, mass_g: float, display: DisplayOptions) -> Rounded:
    """In fillings of the own cup where one comes to them, else plainly: this is no single dose to the
    ounce.
    """
    ml = volume_from_mass_ml(product, mass_g) or 0.0
    boxes = [box for box in display.containers if ml and box.volume_ml and ml >= box.volume_ml]
    return round_dose(product, mass_g, units=display.units, containers=boxes)


def _spoons(product: Product, each_g: float) -> float | None:
    """Level tablespoons, by halves; None for what is not spooned."""
    spoons = round(2 * each_g / SPOON_G) / 2
    return spoons if product.chemical in GRANULES and 0 < spoons <= MOST_SPOONS else None


def _unsuited(product: Product, traits: Traits) -> Message | None:
    """Why a product is no regime for such a pool. Origin: handbook 04, 06."""
    if traits.indoor and product.chemical in STABILIZED:
        return Message("Indoors no stabilizer is wanted.")
    if traits.chlorination is Chlorination.SALT_CELL and product.chemical == "calcium_hypochlorite":
        return Message("Its calcium scales the plates of a cell.")
    return None


def _notes(request: WeeklyRequest, product: Product, brings: Mapping[Measure, float]) -> Iterator[Finding]:
    if product.chemical == "trichlor":
        yield Finding(
            "feeder",
            Message(
                "In a feeder or floater, never in the skimmer, never "
                "where calcium hypochlorite was. They last "
                "longer in cool water and with short pump hours: look each week what is left.",
            ),
        )
    yield from _climbs(request, brings, Measure.CYANURIC_ACID)
    yield from _climbs(request, brings, Measure.CALCIUM_HARDNESS)


def _climbs(request: WeeklyRequest, brings: Mapping[Measure, float], measure: Measure) -> Iterator[Finding]:
    """When a measure that only climbs passes its range, and what to do then."""
    weekly, now = brings.get(measure, 0.0), request.readings.value(measure)
    band = request.bands.get(measure)
    if weekly <= 0 or band is None or band.high is None:
        return
    if now is None:
        yield Finding("not_tested", Message("Test it before this goes on: it only climbs."), measure)
        return
    weeks = (band.high - now) / weekly
    if weeks <= 0:
        text = Message(
            "It stands at {now}, over its range already: change to liquid chlorine.",
            now=Number(now, digits=0),
        )
        yield Finding("change_product", text, measure, {"weeks": 0.0})
    elif weeks < SEASON / WEEK:
        text = Message(
            "From {now} it reaches {high} in about {weeks}: change to liquid chlorine then.",
            now=Number(now, digits=0),
            high=Number(band.high, digits=0),
            weeks=Plural("{n} week", "{n} weeks", ceil(weeks)),
        )
        yield Finding("change_product", text, measure, {"weeks": weeks})


@dataclass(frozen=True)
class CellWeek:
    """What a salt cell has to run: percent at so many hours a day, and the hours at 100 %."""

    percent: float
    hours_per_day: float
    hours_at_full: float


def cell_week(loss: Loss, volume_l: float, output_g_per_h: float, hours_per_day: float) -> CellWeek:
    """The cell's setting that makes good the loss."""
    percent = cell_percent(loss.likely, volume_l, output_g_per_h, hours_per_day)
    return CellWeek(percent, hours_per_day, hours_per_day * percent / 100.0)


def in_words(regime: Regime) -> Message:
    """What goes in each time, in spoons or tablets where it is counted so; the product is named beside it."""
    if regime.count is not None and regime.tablet_g is not None:
        counted = Count(max(0.5, round(2 * regime.count) / 2))
        if regime.tablet_g <= ONE_INCH_G:
            return Message("{count} tablets of 1 in a week", count=counted)
        if regime.tablet_g >= THREE_INCH_G:
            return Message("{count} tablets of 3 in a week", count=counted)
        return Message("{count} tablets of {size} a week", count=counted, size=Mass(regime.tablet_g))
    amount = regime.each.text
    if regime.spoons is not None:
        spoons = Count(regime.spoons)
        if regime.every_days == 1:
            return Message("{amount} a day, about {spoons} level tablespoons", amount=amount, spoons=spoons)
        return Message(
            "{amount} every second day, about {spoons} level tablespoons", amount=amount, spoons=spoons
        )
    if regime.every_days == 1:
        return Message("{amount} a day", amount=amount)
    return Message("{amount} every second day", amount=amount)
