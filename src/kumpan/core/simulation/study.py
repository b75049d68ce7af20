"""Many simulated pools, and how well a forecaster does on them: cases to score, made by seed.

The forecaster is handed in, so that this knows nothing of the model. Source: simulated-world.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from uuid import UUID, uuid5

import numpy as np

from kumpan.core.journal import BasinMeasured, CellSet, Entry, PoolState, Reading, TestTaken, fold, history
from kumpan.core.quantities.readings import Measure
from kumpan.core.simulation.carer import BLEACH, DICHLOR, POURING_HOUR, Carer, Report, Routine, moment
from kumpan.core.simulation.world import Climate, Nature, Water, World

SOURCE = "simulated-world"

SPACE = UUID("0d8a5a0e-51c5-4f35-9a8c-2f7d6a0f4c11")
WEEKS = 8
ORIGINS = 4  # the last visits of each pool that are forecast from
KINDS = ("liquid", "liquid", "tablets", "salt cell", "granules")
AHEAD_H = 71  # three days, just before the next visit
START_S = 1_780_300_800.0  # 1 June 2026


@dataclass(frozen=True, kw_only=True)
class Case:
    """One forecast to make: the journal so far, the pool as believed, when for, and the truth then.

    `planned`: what the carer means to pour until then, as (UTC seconds, mg/L in the volume believed in).
    """

    pool: int
    state: PoolState
    believed_volume_l: float
    climate: Climate
    indoor: bool
    covered: bool
    when_s: float
    truth_mg_l: float
    planned: tuple[tuple[float, float], ...] = ()

    @property
    def kind(self) -> str:
        """How this pool gets its chlorine."""
        return kind_of(self.pool)


@dataclass(frozen=True, kw_only=True)
class Score:
    """Of many forecasts: share of truths inside the band, the band's median width, and mean errors (mg/L)."""

    cases: int
    inside: float
    median_width: float
    error: float
    naive_error: float

    @property
    def gain(self) -> float:
        """How much smaller the error is than that of "same as last week"."""
        return 1 - self.error / self.naive_error


def entries(reported: list[Report], key: str) -> list[Entry]:
    """The journal as it was told; ids follow from the key and the order."""
    return [
        Entry(
            id=uuid5(SPACE, f"{key}/{n}"),
            pool_id=SPACE,
            at=moment(row.at_s),
            recorded_at=moment(row.at_s),
            person_id=None,
            body=row.body,
        )
        for n, row in enumerate(reported)
    ]


def cases(pools: int, seed: int = 1) -> Iterator[Case]:
    """Forecasts to judge from so many simulated pools, by a seed."""
    for number in range(pools):
        yield from _pool(number, seed)


def _pool(number: int, seed: int) -> Iterator[Case]:
    draw = np.random.default_rng([seed, number])
    prior = float(draw.uniform(25_000, 110_000))
    nature, preferences = _nature(draw, prior), _routine(draw, prior, number)
    water = _water(draw, indoor=nature.indoor)
    climate = Climate(latitude_deg=float(draw.uniform(26, 44)), mean_c=float(draw.uniform(22, 27)))
    world = World(nature=nature, climate=climate, water=water, start_s=START_S, seed=seed * 100_003 + number)
    truths: list[float] = []
    carer = Carer(world=world, preferences=preferences)
    daily: list[tuple[float, float]] = []
    season = [Report(START_S - 60, BasinMeasured(volume_l=prior))]
    for row in _watched(carer, world, truths):
        season.append(row)
        daily.append((row.at_s, carer.daily_mg_l))
    everything = entries(season, f"{seed}/{number}")
    tests = [entry.at.timestamp() for entry in everything if isinstance(entry.body, TestTaken)]
    for origin in [at for at in tests if at + AHEAD_H * 3600 < START_S + len(truths) * 3600][-ORIGINS:]:
        when = origin + AHEAD_H * 3600
        state = fold([entry for entry in everything if entry.at.timestamp() < origin + 3600])
        truth = float(np.interp(when, START_S + 3600 * np.arange(len(truths)), truths))
        routine = [mg_l for at_s, mg_l in daily if at_s < origin + 3600][-1]
        planned = _evenings(climate, origin + 3600, when, routine) if routine else ()
        yield Case(
            pool=number,
            state=state,
            believed_volume_l=prior,
            climate=climate,
            indoor=nature.indoor,
            covered=nature.covered,
            when_s=when,
            truth_mg_l=truth,
            planned=planned,
        )


def _water(draw: np.random.Generator, *, indoor: bool) -> Water:
    return Water(
        free=2.5,
        dead=2.3,
        combined=0.1,
        ph=7.5,
        alkalinity=float(draw.uniform(70, 120)),
        calcium=float(draw.uniform(150, 350)),
        stabilizer=0.0 if indoor else float(draw.uniform(25, 75)),
        salt=2900.0,
    )


def _evenings(climate: Climate, from_s: float, to_s: float, mg_l: float) -> tuple[tuple[float, float], ...]:
    """The daily pours between two times."""
    offset = (POURING_HOUR - climate.longitude_deg / 15) * 3600 + 300
    first = from_s - (from_s - offset) % 86_400 + 86_400
    return tuple((at_s, mg_l) for at_s in np.arange(first, to_s, 86_400.0).tolist())


def _watched(carer: Carer, world: World, truths: list[float]) -> Iterator[Report]:
    """The season, while the truth is written down hour by hour."""
    step, dead = world.step, world.nature.dead_share

    def watched_step() -> None:
        truths.append(world.water.free * (1 - dead) + world.water.dead * dead)
        step()

    world.step = watched_step  # type: ignore[method-assign]
    yield from carer.season(WEEKS * 7 + 3)


def kind_of(number: int) -> str:
    """The kind of a simulated pool, by its number."""
    return KINDS[number % len(KINDS)]


def _nature(draw: np.random.Generator, prior: float) -> Nature:
    return Nature(
        true_volume_l=prior * float(np.clip(draw.normal(1, 0.07), 0.8, 1.2)),
        sun_per_hour=0.045 * float(np.exp(draw.normal(0, 0.35))),
        organics_mg_l_day=0.6 * float(np.exp(draw.normal(0, 0.5))),
        mood=float(draw.uniform(0.15, 0.45)),
        dead_share=float(draw.uniform(0.05, 0.3)),
        indoor=bool(draw.random() < 0.12),
        covered=bool(draw.random() < 0.2),
        guests_a_week=float(draw.uniform(0, 8)),
    )


def _routine(draw: np.random.Generator, prior: float, number: int) -> Routine:
    kind = kind_of(number)
    common = {
        "believed_volume_l": prior,
        "gaps_days": (3.0, 4.0),
        "visit_hour": float(draw.integers(8, 19)),
        "kit": "drops" if draw.random() < 0.75 else "photometer",
        "free_goal": float(draw.uniform(3, 7)),
        "counts_guests": bool(draw.random() < 0.4),
        "backwash_every": 6,
    }
    if kind == "tablets":
        return Routine(**common, tablets_a_week_g=float(draw.uniform(6, 14)) * prior / 1000 / 0.9)  # type: ignore[arg-type]
    if kind == "salt cell":
        daily_g = float(draw.uniform(1.2, 2.6)) * prior / 1000
        return Routine(**common, cell=CellSet(round(daily_g / 0.6 / 10, 1), 60.0, 10.0), salt_goal=3200.0)  # type: ignore[arg-type]
    product = DICHLOR if kind == "granules" else BLEACH
    return Routine(**common, chlorine=product, daily_mg_l=float(draw.uniform(0.8, 2.0)))  # type: ignore[arg-type]


Forecaster = Callable[[Case], tuple[float, float, float]]


def score(given: list[Case], forecaster: Forecaster) -> Score:
    """Score a forecaster that answers (low, likely, high) mg/L for each case."""
    answers = np.array([forecaster(case) for case in given])
    truth = np.array([case.truth_mg_l for case in given])
    naive = np.array([_last_week(case) for case in given])
    return Score(
        cases=len(given),
        inside=float(np.mean((truth >= answers[:, 0]) & (truth <= answers[:, 2]))),
        median_width=float(np.median(answers[:, 2] - answers[:, 0])),
        error=float(np.mean(np.abs(answers[:, 1] - truth))),
        naive_error=float(np.mean(np.abs(naive - truth))),
    )


def _last_week(case: Case) -> float:
    """The test closest to the same hour a week earlier."""
    week_ago = case.when_s - 7 * 86_400
    past: Sequence[Reading] = history(case.state, Measure.FREE_CHLORINE)
    return min(past, key=lambda reading: abs(reading.at.timestamp() - week_ago)).value.value
