"""The rules that one pool is kept by: its school's rows, the owner's answers and ranges, the way chlorine
is set.

Sources: cya-ratio, school-own, supplement-chlorine.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Protocol

from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.ranges.chlorine_targets import chlorine_minimums
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.ranges.disagreements import answer, check_choices
from kumpan.core.ranges.profiles import Band, bands, profile
from kumpan.core.ranges.targets import TARGETABLE

SOURCES_USED = ("cya-ratio", "school-own", "supplement-chlorine")

MOST_SWIM_LIMIT_MG_L = 10.0  # free chlorine; what was typed before is cut to it
CAREFUL_CALCIUM = Band(200, 300, 250)
TABLET_STABILIZER = Band(40, 100, 75)
BESIDE_A_SUPPLEMENT = Band(0.5, 3, 1)
TARGET_OVER_LEAST = {"ratio": 2.0, "active": 1.5}
ROPE_OVER_AIM = 4 / 3
STRATEGY_NAMES = {"ratio": Message("stabilizer ratio"), "active": Message("active chlorine")}


@dataclass(frozen=True)
class PoolRules:
    """Bands by measure, the name that every verdict carries, the swim limit, and what to know about them."""

    name: Message
    bands: Mapping[Measure, Band]
    swim_limit_mg_l: float
    findings: tuple[Finding, ...] = ()


class RangeSettings(Protocol):
    """What the ranges take from a pool's settings; the journal's settings have it all."""

    @property
    def profile(self) -> str:
        """The key of the profile of ranges."""
        ...

    @property
    def public(self) -> bool:
        """A public pool: its code's limits hold."""
        ...

    @property
    def swim_limit_mg_l(self) -> float | None:
        """The pool's own swim limit, mg/L."""
        ...

    @property
    def own_ranges(self) -> tuple[OwnRange, ...]:
        """The ranges that this pool sets itself."""
        ...

    @property
    def choices(self) -> tuple[Chosen, ...]:
        """What was chosen where practitioners differ."""
        ...


def rules_for(settings: RangeSettings, traits: Traits, readings: Readings) -> PoolRules:
    """The rules for one pool and its water as it reads now."""
    rows = profile(settings.profile)
    found = bands(rows, traits, readings.cyanuric_acid)
    name = rows.name
    limit = min(settings.swim_limit_mg_l or rows.swim_limit_mg_l, MOST_SWIM_LIMIT_MG_L)
    if answer(settings.choices, "calcium") == "careful" and traits.surface.is_cement:
        found[Measure.CALCIUM_HARDNESS] = CAREFUL_CALCIUM
    if answer(settings.choices, "stabiliser") == "tablets" and not traits.indoor:
        found[Measure.CYANURIC_ACID] = TABLET_STABILIZER
    if _beside_supplement(settings, traits):
        found[Measure.FREE_CHLORINE] = BESIDE_A_SUPPLEMENT
    for own in settings.own_ranges:
        found[own.measure] = Band(own.low, own.high, own.aim)
    if settings.own_ranges:
        name = Message("Own, from {name}", name=name)
    rules = PoolRules(name, found, limit)
    strategy = answer(settings.choices, "chlorine")
    return rules if strategy == "fixed" else _by_strategy(rules, strategy, readings)


def _beside_supplement(settings: RangeSettings, traits: Traits) -> bool:
    lower = answer(settings.choices, "supplement") == "lower"
    return lower and traits.chlorination is Chlorination.MINERAL and not settings.public


def _by_strategy(rules: PoolRules, strategy: str, readings: Readings) -> PoolRules:
    """Free chlorine by stabilizer or by active chlorine, never under the fixed least."""
    fixed = rules.bands[Measure.FREE_CHLORINE]
    found = chlorine_minimums(readings, fixed)
    least = found.by_ratio if strategy == "ratio" else found.by_active
    name = Message(
        "{name}, chlorine by {strategy_names}", name=rules.name, strategy_names=STRATEGY_NAMES[strategy]
    )
    if least is None:
        text = Message(
            "Chlorine by {strategy_names} needs stabilizer, pH and alkalinity tested; until then the "
            "fixed range holds.",
            strategy_names=STRATEGY_NAMES[strategy],
        )
        note = Finding("way_not_known", text, Measure.FREE_CHLORINE)
        return replace(rules, name=name, findings=(note,))
    low = round(max(least, fixed.low or 0.0), 1)
    target = max(TARGET_OVER_LEAST[strategy] * low, fixed.aim or 0.0)
    aim = round(max(low, min(target, rules.swim_limit_mg_l)), 1)
    high = max(fixed.high or 0.0, ROPE_OVER_AIM * aim)
    changed = {**rules.bands, Measure.FREE_CHLORINE: Band(low, round(high, 1), aim)}
    return replace(rules, name=name, bands=changed, findings=_limit_notes(low, target, rules, strategy))


def _limit_notes(low: float, target: float, rules: PoolRules, strategy: str) -> tuple[Finding, ...]:
    limit = rules.swim_limit_mg_l
    if low > limit:
        text = Message(
            "By {strategy_names} free chlorine must be {low} or more, and the swim limit is {limit}: "
            "both cannot hold. The pool is closed while it is kept so; replacing water is the way out.",
            strategy_names=STRATEGY_NAMES[strategy],
            low=Number(low),
            limit=Number(limit),
        )
        return (Finding("way_over_limit", text, Measure.FREE_CHLORINE, {"least": low}),)
    if target > limit:
        text = Message(
            "By {strategy_names} one would work at {target}; the swim limit of {limit} is the aim.",
            strategy_names=STRATEGY_NAMES[strategy],
            target=Number(target, digits=1),
            limit=Number(limit),
        )
        return (Finding("way_held_at_limit", text, Measure.FREE_CHLORINE, {"working": target}),)
    return ()


def check_own_ranges(ranges: Sequence[OwnRange]) -> None:
    """Raises InvalidInput for a measure that is not managed, or sides that cross."""
    for own in ranges:
        if own.measure not in TARGETABLE:
            raise InvalidInput(
                Message("{measure} has no range of its own; leave it out.", measure=NAMES[own.measure]),
                "own_ranges",
            )
        sides = [side for side in (own.low, own.aim, own.high) if side is not None]
        if sides != sorted(sides):
            raise InvalidInput(
                Message("{measure}: low, aim and high must rise in this order.", measure=NAMES[own.measure]),
                "own_ranges",
            )
        if own.aim is None and (own.low is not None or own.high is not None):
            raise InvalidInput(
                Message("{measure}: say where a dose shall go, the aim.", measure=NAMES[own.measure]),
                "own_ranges",
            )


def check_rules(settings: RangeSettings) -> None:
    """Raises InvalidInput for too high a swim limit, an unknown school or choice, or ranges that cross."""
    profile(settings.profile)
    if settings.swim_limit_mg_l is not None and settings.swim_limit_mg_l > MOST_SWIM_LIMIT_MG_L:
        raise InvalidInput(
            Message(
                "Nobody swims over {most} ppm of free chlorine: write a swim limit of {most} or less.",
                most=Number(MOST_SWIM_LIMIT_MG_L),
            ),
            "swim_limit_mg_l",
        )
    check_choices(settings.choices)
    check_own_ranges(settings.own_ranges)
    if settings.public and answer(settings.choices, "supplement") == "lower":
        raise InvalidInput(
            Message("A public pool holds its code's chlorine; a supplement does not lower it."), "choices"
        )
