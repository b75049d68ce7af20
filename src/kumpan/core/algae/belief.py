"""What may be living in the water: many guesses at once, weighed by every test and look, and run ahead.

Each guess has its own amount that lives, its cloud, how fast chlorine kills it and how fast the filter takes
what has died. A test that fits a guess makes it count more; the clear day is a band over all of them. The
draw is seeded, so that the same journal gives the same answer. Source: rescue-model.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np
import numpy.typing as npt

from kumpan.core.algae.severity import SEVERITIES, SPOTS, Spread
from kumpan.core.forecast.sun import Array
from kumpan.core.journal import Clarity, Severity, VisualCheck
from kumpan.core.pool.equipment import Filter

SOURCE = "rescue-model"

GUESSES = 300
SEED = 20_260_612
MOST_REMEMBERED_S = 60 * 86_400.0
KILL_A_DAY = Spread(0.97, 1.38)  # at shock level, 25 C
FILTER_A_DAY = Spread(0.365, 1.28)  # pump day and night, filter cleaned when it asks for it
FILTER_FACTOR: Mapping[Filter, float] = MappingProxyType(
    {Filter.SAND: 0.85, Filter.CARTRIDGE: 1.0, Filter.DE: 1.2}
)
VOLUME = Spread(1.0, 1.08)
ORGANICS_MG_L_DAY = 0.6
CLOUD_OF_KILLED = 0.5
HALF_STRENGTH = 0.5  # of the shock level: there chlorine kills at two thirds of full
LOWEST_SHOCK_MG_L = 4.0
BOUND_SHARE = 0.12  # of what is eaten reads as combined for a while
COMBINED_A_DAY = 0.8
DARK_A_DAY = 0.05
SEEN_LIVING = 0.35  # mg/L a day of living matter that still shows as spots or haze
VISUAL_CHECK_UNCERTAINTY = 0.7  # of a look, in the logarithm of the cloud
SEEN_SPREAD, SLOWER = 0.3, 0.85  # how far a lifted cloud lies over the edge; its filter against the guess
TEST_UNCERTAINTY_SHARE, TEST_UNCERTAINTY_MG_L = 0.4, 1.2
NEVER_SURE = 0.01  # of the belief goes back to every guess alike at each test: no guess is ever ruled out
LEAST_GUESSES = 150.0  # so many must go on counting: no single wild test decides
CLOUD_EDGES: Mapping[Clarity, tuple[float, float]] = MappingProxyType({
    Clarity.CLEAR: (0.0, 1.0), Clarity.HAZY: (1.0, 2.5), Clarity.CLOUDY: (2.5, 5.5),
    Clarity.DRAIN_HIDDEN: (4.0, 1e6), Clarity.GREEN: (1.5, 1e6),
})  # fmt: skip


@dataclass(frozen=True)
class Surroundings:
    """What the guesses share: stabilizer (mg/L), water in C, the sun's loss an hour at each hour of the
    day.
    """

    stabilizer_mg_l: float
    temperature_c: float
    sun_loss: tuple[float, ...]  # 24 of them, 1/h, by UTC hour
    filter: Filter

    @property
    def warmth(self) -> float:
        """How much faster life goes on in this water than at 25 C (twice as fast each 10 C); no unit."""
        return float(2.0 ** ((self.temperature_c - 25.0) / 10.0))

    @property
    def shock_mg_l(self) -> float:
        """The shock level (mg/L) that this stabilizer asks for."""
        return max(LOWEST_SHOCK_MG_L, 0.4 * self.stabilizer_mg_l)


@dataclass(frozen=True, kw_only=True)
class Seen:
    """Something told at a time (UTC seconds): chlorine that went in, a test, or a look."""

    at_s: float
    poured_mg_l: float = 0.0
    free_mg_l: float | None = None
    combined_mg_l: float | None = None
    visual_check: VisualCheck | None = None


@dataclass(frozen=True, kw_only=True)
class Particles:
    """All guesses at a time. Rates are per day at full strength; `hidden` is out of chlorine's reach,
    and brushing bares `bared_a_day` of it.
    """

    at_s: float
    weight: Array
    free: Array
    combined: Array
    living: Array
    hidden: Array
    cloud: Array
    kill: Array
    filters: Array
    volume: Array
    bared_a_day: float = 1.0

    def share(self, mask: npt.NDArray[np.bool_]) -> float:
        """How much of the belief a mask holds, 0 to 1."""
        return float(np.sum(self.weight * mask))

    def quantile(self, values: Array, share: float) -> float:
        """The value that a share of the belief lies under."""
        order = np.argsort(values)
        reached = np.cumsum(self.weight[order])
        return float(values[order][min(len(values) - 1, int(np.searchsorted(reached, share)))])


def prior(severity: Severity, around: Surroundings, at_s: float, free_mg_l: float) -> Particles:
    """Before anything is known but how bad it looks."""
    row, draw = SEVERITIES[severity], np.random.default_rng(SEED)

    def spread(of: Spread) -> Array:
        return np.asarray(of.middle * of.factor ** draw.standard_normal(GUESSES), dtype=np.float64)

    living = spread(row.living)
    even = np.full(GUESSES, 1.0)
    return Particles(
        at_s=at_s,
        weight=even / GUESSES,
        free=even * free_mg_l,
        combined=even * 0.3,
        living=living * (1 - row.hidden),
        hidden=living * row.hidden,
        cloud=spread(row.cloud),
        kill=row.yields * spread(KILL_A_DAY),
        filters=FILTER_FACTOR[around.filter] * spread(FILTER_A_DAY),
        volume=spread(VOLUME),
        bared_a_day=row.bared_a_day,
    )


def stepped(particles: Particles, around: Surroundings, hours: float, *, brushed: bool = True) -> Particles:
    """Some hours on, nothing poured; at most a few hours at once."""
    day = hours / 24.0
    strength = particles.free / around.shock_mg_l
    strength = 1.5 * strength / (strength + HALF_STRENGTH)
    died = particles.living * -np.expm1(-particles.kill * strength * around.warmth * day)
    freed = particles.hidden * -np.expm1(-particles.bared_a_day * day) if brushed else 0.0 * particles.hidden
    grows = np.where(particles.free < 0.1, 0.35 * day, 0.0) * particles.living
    wanted = (ORGANICS_MG_L_DAY * around.warmth + particles.living + particles.hidden) * day
    lost = -np.expm1(-(around.sun_loss[int(particles.at_s // 3600) % 24] * hours + DARK_A_DAY * day))
    eaten = np.minimum(particles.free, wanted * particles.free / (particles.free + 0.3))
    free = np.maximum(0.0, particles.free * (1 - lost) - eaten)
    cloud = particles.cloud * np.exp(-particles.filters * day) + CLOUD_OF_KILLED * died
    combined = particles.combined * np.exp(-COMBINED_A_DAY * day) + BOUND_SHARE * eaten
    return replace(
        particles,
        at_s=particles.at_s + 3600 * hours,
        free=free,
        combined=combined,
        cloud=cloud,
        living=particles.living - died + freed + grows,
        hidden=particles.hidden - freed,
    )


def advanced(particles: Particles, around: Surroundings, until_s: float) -> Particles:
    """To a time, hour by hour, nothing poured."""
    while until_s - particles.at_s > 1.0:
        particles = stepped(particles, around, min(1.0, (until_s - particles.at_s) / 3600))
    return particles


def updated(particles: Particles, around: Surroundings, story: Sequence[Seen]) -> Particles:
    """Through everything that was poured, tested and seen, in order.

    Of a story of years the last sixty days are gone through: a rescue is over in a week or three, and what
    was believed before has long been replaced by the tests since.
    """
    ordered = sorted(story, key=lambda s: s.at_s)
    if ordered and ordered[-1].at_s - particles.at_s > MOST_REMEMBERED_S:
        particles = replace(particles, at_s=ordered[-1].at_s - MOST_REMEMBERED_S)
        ordered = [seen for seen in ordered if seen.at_s >= particles.at_s]
    for seen in ordered:
        particles = advanced(particles, around, seen.at_s)
        if seen.poured_mg_l:
            particles = replace(particles, free=particles.free + seen.poured_mg_l / particles.volume)
        if seen.free_mg_l is not None:
            particles = _tested(particles, seen.free_mg_l, seen.combined_mg_l)
        if seen.visual_check is not None:
            particles = _weighed(particles, _visual_check_fits(particles, seen.visual_check))
            particles = _as_seen(particles, seen.visual_check)
    return particles


def _tested(particles: Particles, free: float, combined: float | None) -> Particles:
    """The guesses that expected this much count more; all go on from what was read."""
    uncertainty = TEST_UNCERTAINTY_MG_L + TEST_UNCERTAINTY_SHARE * np.maximum(free, particles.free)
    wildness = np.minimum(3.0, np.abs(particles.free - free) / uncertainty)
    weighed = _weighed(particles, np.exp(-0.5 * wildness**2))
    even = np.ones(len(particles.free))
    return replace(
        weighed, free=even * free, combined=weighed.combined if combined is None else even * combined
    )


def shown_cloud(particles: Particles) -> Array:
    """What the eye takes for cloud: what has died, and what still lives in the water."""
    return np.asarray(particles.cloud + 0.3 * particles.living, dtype=np.float64)


def _visual_check_fits(particles: Particles, visual_check: VisualCheck) -> Array:
    from scipy.special import ndtr

    low, high = CLOUD_EDGES[visual_check.clarity]
    shown = np.log(np.maximum(1e-3, shown_cloud(particles)))
    under = ndtr((np.log(high) - shown) / VISUAL_CHECK_UNCERTAINTY)
    over = ndtr((np.log(max(low, 1e-9)) - shown) / VISUAL_CHECK_UNCERTAINTY)
    spots = particles.living + particles.hidden > SEEN_LIVING
    fits = under - over
    if visual_check.clarity in (Clarity.CLEAR, Clarity.HAZY):
        fits = fits * np.where(spots == (SPOTS in visual_check.odd), 1.0, 0.5)
    return np.asarray(np.maximum(0.02, fits), dtype=np.float64)


def _as_seen(particles: Particles, visual_check: VisualCheck) -> Particles:
    """No guess may go on that the eye has just contradicted: water that still shows a cloud has one in every
    guess, and a filter that has not taken it yet is slower than the guess had it. Without this all guesses
    end up clear while the pool is not, and the band says "today" day after day.
    """
    least = CLOUD_EDGES[visual_check.clarity][0]
    lifted = shown_cloud(particles) < least
    spread = np.exp(SEEN_SPREAD * np.random.default_rng(SEED).standard_normal(len(particles.weight)))
    living = particles.living
    if SPOTS in visual_check.odd:
        living = np.maximum(living, SEEN_LIVING * spread - particles.hidden)
    return replace(
        particles,
        living=living,
        cloud=np.where(lifted, least * spread, particles.cloud),
        filters=np.where(lifted, SLOWER * particles.filters, particles.filters),
    )


def _weighed(particles: Particles, fits: Array) -> Particles:
    """Weights times how well each fits, held back where too few would go on counting."""
    for power in (1.0, 0.7, 0.5, 0.3, 0.2, 0.1, 0.05, 0.0):
        weight = particles.weight * fits**power
        weight = (1 - NEVER_SURE) * weight / np.sum(weight) + NEVER_SURE / len(weight)
        if 1.0 / float(np.sum(weight**2)) >= LEAST_GUESSES:
            break
    return replace(particles, weight=weight)


@dataclass(frozen=True)
class DateBand:
    """Hours from the swarm's time until something holds: likely, and the ends of the 90 % band."""

    low_h: float
    likely_h: float
    high_h: float


def hours_until_low(
    particles: Particles, around: Surroundings, floor_mg_l: float, share: float, most_h: float
) -> float:
    """Until a share of the belief has free chlorine under a floor, nothing more poured; at most `most_h`."""
    hours = 0.0
    while hours < most_h and particles.share(particles.free < floor_mg_l) < share:
        particles = stepped(particles, around, 0.5)
        hours += 0.5
    return hours
