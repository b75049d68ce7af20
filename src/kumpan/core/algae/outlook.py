"""How a rescue goes on if the plan is followed: when what lives is dead, when the water is clear. Source: rescue-model."""

from dataclasses import dataclass, replace

import numpy as np

from kumpan.core.algae.belief import (
    SEEN_LIVING,
    DateBand,
    Surroundings,
    Swarm,
    shown_cloud,
    stepped,
)
from kumpan.core.algae.overnight import HIGHEST_COMBINED_MG_L, MOST_LOST_MG_L
from kumpan.core.forecast.sun import Array
from kumpan.core.journal import DeadWay

SOURCE = "rescue-model"

MOST_DAYS = 40
STEP_H = 2.0
NIGHT_H = 10.0
VACUUM_LEAVES = 0.5  # of a cloud that was let settle overnight and vacuumed to waste
LOW, HIGH = 0.05, 0.95
LEFT_OUT = 0.02  # of the belief need not be run to its end: it lies over the band
SEEN_CLEAR = 0.9  # a little under 1: one look in a few takes a clear pool for hazy


@dataclass(frozen=True)
class Followed:
    """The plan as it is followed: free chlorine to a level each morning and evening until it holds, then as usual.

    `morning_h`, `evening_h` UTC hours; `rounds_left` shock rounds that are done in any case; `week_over_mg_l` what
    must hold for a week once it is dead.
    """

    level_mg_l: float
    usual_mg_l: float
    rounds_left: int
    dead_way: DeadWay
    morning_h: int
    evening_h: int
    week_over_mg_l: float | None = None
    week_began_days_ago: float | None = None


@dataclass(frozen=True)
class Outlook:
    """Hours from now until nothing lives and until it is clear; chlorine still to come, mg/L, as a band."""

    dead: DateBand
    clear: DateBand
    chlorine_mg_l: tuple[float, float, float]


def outlook(swarm: Swarm, around: Surroundings, plan: Followed) -> Outlook:
    """Run every guess ahead, with the plan followed, until it is clear or forty days have gone."""
    size = len(swarm.weight)
    dead, clear = np.full(size, np.inf), np.full(size, np.inf)
    used, rounds = np.zeros(size), np.zeros(size)
    begun = swarm.at_s
    while swarm.at_s < begun + MOST_DAYS * 86_400 and swarm.share(np.isinf(clear)) > LEFT_OUT:
        hour = int(swarm.at_s // 3600) % 24
        morning = 0 <= (hour - plan.morning_h) % 24 < STEP_H
        evening = 0 <= (hour - plan.evening_h) % 24 < STEP_H
        passed = (swarm.at_s - begun) / 3600
        if morning:
            dead = np.where(
                np.isinf(dead) & _holds(swarm, around) & (rounds >= plan.rounds_left), passed, dead
            )
            swarm = _vacuumed(swarm, dead, passed, plan)
        if morning or evening:
            clear = np.where(np.isinf(clear) & _clear(swarm, dead, passed, plan), passed, clear)
        if morning or evening or passed == 0:
            level = np.where(np.isinf(dead), plan.level_mg_l, plan.usual_mg_l)
            rise = np.where(np.isinf(clear), np.maximum(0.0, level - swarm.free), 0.0)
            used += rise
            rounds += rise > 0
            swarm = replace(swarm, free=swarm.free + rise)
        swarm = stepped(swarm, around, STEP_H)
    return Outlook(_band(swarm, dead), _band(swarm, clear), _quantiles(swarm, used))


def _holds(swarm: Swarm, around: Surroundings) -> Array:
    """The night that just went would have passed the test."""
    night = (swarm.living + swarm.hidden + 0.6 * around.warmth) * NIGHT_H / 24
    return np.asarray(
        (night < MOST_LOST_MG_L) & (swarm.combined < HIGHEST_COMBINED_MG_L - 0.05), dtype=np.bool_
    )


def _clear(swarm: Swarm, dead: Array, passed_h: float, plan: Followed) -> Array:
    seen = (shown_cloud(swarm) < SEEN_CLEAR) & (swarm.living + swarm.hidden < SEEN_LIVING)
    ready = np.isfinite(dead) & seen
    if plan.week_over_mg_l is None:
        return np.asarray(ready)
    since = plan.week_began_days_ago or 0.0
    return np.asarray(ready & (passed_h + 24 * since >= 7 * 24))


def _vacuumed(swarm: Swarm, dead: Array, passed_h: float, plan: Followed) -> Swarm:
    """Each morning after it is dead, where what settles is vacuumed."""
    if plan.dead_way is not DeadWay.SETTLE:
        return swarm
    settled = np.isfinite(dead) & (passed_h - dead >= 20)
    return replace(swarm, cloud=np.where(settled, VACUUM_LEAVES * swarm.cloud, swarm.cloud))


def _band(swarm: Swarm, hours: Array) -> DateBand:
    return DateBand(*_quantiles(swarm, np.minimum(hours, MOST_DAYS * 24.0)))


def _quantiles(swarm: Swarm, values: Array) -> tuple[float, float, float]:
    return swarm.quantile(values, LOW), swarm.quantile(values, 0.5), swarm.quantile(values, HIGH)
