"""How a rescue goes on if the plan is followed: when what lives is dead, when the water is clear.

Source: rescue-model.
"""

from dataclasses import dataclass, replace

import numpy as np

from kumpan.core.algae.belief import (
    SEEN_LIVING,
    DateBand,
    Particles,
    Surroundings,
    shown_cloud,
    stepped,
)
from kumpan.core.algae.overnight import HIGHEST_COMBINED_MG_L, MOST_LOST_MG_L
from kumpan.core.forecast.sun import Array
from kumpan.core.journal import DeadAlgaeStrategy

SOURCE = "rescue-model"

MOST_DAYS = 40
STEP_H = 2.0
NIGHT_H = 10.0
VACUUM_LEAVES = 0.5  # of a cloud that was let settle overnight and vacuumed to waste
LOW, HIGH = 0.05, 0.95
LEFT_OUT = 0.02  # of the belief need not be run to its end: it lies over the band
SEEN_CLEAR = 0.9  # a little under 1: one look in a few takes a clear pool for hazy


@dataclass(frozen=True, kw_only=True)
class Followed:
    """The plan as it is followed: free chlorine to a level each morning and evening until it holds, then as
    usual.

    `morning_h`, `evening_h` UTC hours; `rounds_left` shock rounds that are done in any case;
    `week_over_mg_l` what must hold for a week once it is dead.
    """

    level_mg_l: float
    usual_mg_l: float
    rounds_left: int
    dead_algae_strategy: DeadAlgaeStrategy
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


def outlook(particles: Particles, around: Surroundings, plan: Followed) -> Outlook:
    """Run every guess ahead, with the plan followed, until it is clear or forty days have gone."""
    size = len(particles.weight)
    dead, clear = np.full(size, np.inf), np.full(size, np.inf)
    used, rounds = np.zeros(size), np.zeros(size)
    begun = particles.at_s
    while particles.at_s < begun + MOST_DAYS * 86_400 and particles.share(np.isinf(clear)) > LEFT_OUT:
        hour = int(particles.at_s // 3600) % 24
        morning = 0 <= (hour - plan.morning_h) % 24 < STEP_H
        evening = 0 <= (hour - plan.evening_h) % 24 < STEP_H
        passed = (particles.at_s - begun) / 3600
        if morning:
            dead = np.where(
                np.isinf(dead) & _holds(particles, around) & (rounds >= plan.rounds_left), passed, dead
            )
            particles = _vacuumed(particles, dead, passed, plan)
        if morning or evening:
            clear = np.where(np.isinf(clear) & _clear(particles, dead, passed, plan), passed, clear)
        if morning or evening or passed == 0:
            level = np.where(np.isinf(dead), plan.level_mg_l, plan.usual_mg_l)
            rise = np.where(np.isinf(clear), np.maximum(0.0, level - particles.free), 0.0)
            used += rise
            rounds += rise > 0
            particles = replace(particles, free=particles.free + rise)
        particles = stepped(particles, around, STEP_H)
    return Outlook(_band(particles, dead), _band(particles, clear), _quantiles(particles, used))


def _holds(particles: Particles, around: Surroundings) -> Array:
    """The night that just went would have passed the test."""
    night = (particles.living + particles.hidden + 0.6 * around.warmth) * NIGHT_H / 24
    return np.asarray(
        (night < MOST_LOST_MG_L) & (particles.combined < HIGHEST_COMBINED_MG_L - 0.05), dtype=np.bool_
    )


def _clear(particles: Particles, dead: Array, passed_h: float, plan: Followed) -> Array:
    seen = (shown_cloud(particles) < SEEN_CLEAR) & (particles.living + particles.hidden < SEEN_LIVING)
    ready = np.isfinite(dead) & seen
    if plan.week_over_mg_l is None:
        return np.asarray(ready)
    since = plan.week_began_days_ago or 0.0
    return np.asarray(ready & (passed_h + 24 * since >= 7 * 24))


def _vacuumed(particles: Particles, dead: Array, passed_h: float, plan: Followed) -> Particles:
    """Each morning after it is dead, where what settles is vacuumed."""
    if plan.dead_algae_strategy is not DeadAlgaeStrategy.SETTLE:
        return particles
    settled = np.isfinite(dead) & (passed_h - dead >= 20)
    return replace(particles, cloud=np.where(settled, VACUUM_LEAVES * particles.cloud, particles.cloud))


def _band(particles: Particles, hours: Array) -> DateBand:
    return DateBand(*_quantiles(particles, np.minimum(hours, MOST_DAYS * 24.0)))


def _quantiles(particles: Particles, values: Array) -> tuple[float, float, float]:
    return particles.quantile(values, LOW), particles.quantile(values, 0.5), particles.quantile(values, HIGH)
