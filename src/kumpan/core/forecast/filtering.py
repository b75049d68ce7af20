"""What the tests say of free chlorine under given factors: a Kalman filter along the journal.

Between two tests the model is affine in free chlorine, so the filter is exact but for the floor at
nothing. Wild readings count less (Huber). Source: chlorine-model.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log

import numpy as np

from kumpan.core.forecast.chlorine import Factors, steps
from kumpan.core.forecast.conditions import Conditions
from kumpan.core.forecast.sun import SECONDS_A_DAY, Array

SOURCE = "chlorine-model"

POUR_SHARE = 0.08  # a dose as poured and as it mixes, of itself
STILL_SD_PER_ROOT_DAY = 0.08  # what moves even when nothing is lost, mg/L
NOTHING_MG_L = 0.3
MEMORY_DAYS = 2.5  # how long weather and guests stay as they are
WILD = 2.5  # standard deviations after which a reading counts less


@dataclass(frozen=True)
class Observation:
    """A tested free chlorine at a knot: mg/L and its standard deviation."""

    knot: int
    value: float
    sd: float


@dataclass(frozen=True, kw_only=True)
class Belief:
    """What is known at a moment: free chlorine, how much more than usual is being lost, and how surely.

    `mean` in mg/L; `extra` is the present loss over the usual one, as a share (0.2: a fifth more);
    variances of both and their covariance; `misfit` is how badly the tests fit so far.
    """

    mean: float
    variance: float
    extra: float = 0.0
    shared: float = 0.0
    extra_variance: float = 0.0
    misfit: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Segment:
    """The way from one knot to a later one: FC -> keep FC + gain, what was brought, the pours' variance."""

    keep: float
    gain: float
    brought: float
    pour_variance: float
    days: float


def segments(acting: Conditions, factors: Factors, knots: Sequence[int]) -> list[Segment]:
    """The segments between consecutive knots of a strictly rising list."""
    if len(knots) < 2:
        return []
    chain = steps(acting, factors)
    first, last = knots[0], knots[-1]
    keep_log = np.log(chain.keep[first:last])
    reached = np.concatenate([[0.0], np.cumsum(keep_log)])
    starts = np.asarray(knots[:-1]) - first
    ends = np.repeat(np.asarray(knots[1:]) - first, np.diff(knots))
    after_step = np.exp(reached[ends] - reached[1:])
    after_pulse = np.exp(reached[ends] - reached[:-1])
    pulses, gains = acting.pulses[first:last], chain.gain[first:last]
    positive = np.maximum(gains, 0.0)

    def summed(values: Array) -> Array:
        return np.asarray(np.add.reduceat(values, starts), dtype=np.float64)

    gain = summed(gains * after_step + pulses * after_pulse)
    variance = summed((POUR_SHARE * pulses * after_pulse) ** 2)
    brought = summed(positive + pulses)
    keep = np.exp(np.diff(reached[np.asarray(knots) - first]))
    days = np.diff(acting.knots_s[list(knots)]) / SECONDS_A_DAY
    return _segments(keep=keep, gain=gain, brought=brought, variance=variance, days=days)


def hourly(acting: Conditions, factors: Factors) -> list[Segment]:
    """Every interval as a segment of its own, without the pulses at its ends."""
    chain = steps(acting, factors)
    days = acting.hours / 24
    brought = np.maximum(chain.gain, 0.0)
    return _segments(
        keep=chain.keep, gain=chain.gain, brought=brought, variance=np.zeros_like(days), days=days
    )


def _segments(*, keep: Array, gain: Array, brought: Array, variance: Array, days: Array) -> list[Segment]:
    return [
        Segment(keep=k, gain=g, brought=b, pour_variance=v, days=d)
        for k, g, b, v, d in np.column_stack((keep, gain, brought, variance, days)).tolist()
    ]


def carried(belief: Belief, course: Segment, unrest: float) -> Belief:
    """The belief at the segment's end. `unrest`: by what share a day's loss differs from the usual one.

    The extra loss fades towards none in MEMORY_DAYS (an Ornstein-Uhlenbeck process), as weather and
    guests do; what of it arises on the way adds to the variance.
    """
    plain = course.keep * belief.mean + course.gain
    lost_a_day = max(0.0, belief.mean + course.brought - max(plain, 0.0)) / course.days
    fade = -log(max(course.keep, 1e-12)) / course.days
    lasting = exp(-course.days / MEMORY_DAYS)
    weight = -lost_a_day * _faded(fade + 1 / MEMORY_DAYS, course.days)
    lasting_share = _faded(fade, course.days) / course.days
    arisen = 2 * course.days / MEMORY_DAYS - 3 + 4 * lasting - lasting**2
    per_loss = unrest * MEMORY_DAYS * lost_a_day * lasting_share
    new_variance = (
        per_loss**2 * max(0.0, arisen) + course.pour_variance + STILL_SD_PER_ROOT_DAY**2 * course.days
    )
    new_shared = -(unrest**2) * MEMORY_DAYS * lost_a_day * lasting_share * (1 - lasting) ** 2
    extra_variance = belief.extra_variance
    return Belief(
        mean=max(0.0, plain + weight * belief.extra),
        variance=course.keep**2 * belief.variance
        + 2 * course.keep * weight * belief.shared
        + weight**2 * extra_variance
        + new_variance,
        extra=lasting * belief.extra,
        shared=lasting * (course.keep * belief.shared + weight * extra_variance) + new_shared,
        extra_variance=lasting**2 * extra_variance + unrest**2 * (1 - lasting**2),
        misfit=belief.misfit,
    )


def _faded(rate: float, days: float) -> float:
    """Days that count, of a span over which things fade at a rate."""
    return (1 - exp(-rate * days)) / rate if rate * days > 1e-9 else days


def updated(belief: Belief, value: float, sd: float) -> Belief:
    """The belief once a test has been read."""
    spread = belief.variance + sd**2
    wildness = abs(value - belief.mean) / spread**0.5
    noise = sd**2 * max(1.0, wildness / WILD)
    off, total = value - belief.mean, belief.variance + noise
    gain, extra_gain = belief.variance / total, belief.shared / total
    return Belief(
        mean=max(0.0, belief.mean + gain * off),
        variance=belief.variance * (1 - gain),
        extra=belief.extra + extra_gain * off,
        shared=belief.shared * (1 - gain),
        extra_variance=belief.extra_variance - extra_gain * belief.shared,
        misfit=belief.misfit + _misfit(belief, value, spread),
    )


def _misfit(belief: Belief, value: float, spread: float) -> float:
    """How badly a test fits what was expected. Nothing found tells only that little was left."""
    if value < NOTHING_MG_L:
        wildness, sharpness = float(max(0.0, belief.mean - NOTHING_MG_L) / spread**0.5), 0.0
    else:
        wildness, sharpness = float(abs(value - belief.mean) / spread**0.5), 0.5 * log(spread)
    if wildness <= WILD:
        return 0.5 * wildness**2 + sharpness
    return WILD * wildness - 0.5 * WILD**2 + sharpness


def filtered(
    acting: Conditions, factors: Factors, unrest: float, observed: Sequence[Observation]
) -> list[Belief]:
    """The belief after each test, in order; the first test is believed as read."""
    courses = segments(acting, factors, [seen.knot for seen in observed])
    return along(courses, unrest, observed)


def along(courses: Sequence[Segment], unrest: float, observed: Sequence[Observation]) -> list[Belief]:
    """The same where the segments between the tests are known."""
    first = observed[0]
    belief = Belief(mean=first.value, variance=first.sd**2, extra_variance=unrest**2)
    found = [belief]
    for course, seen in zip(courses, observed[1:], strict=True):
        belief = updated(carried(belief, course, unrest), seen.value, seen.sd)
        found.append(belief)
    return found
