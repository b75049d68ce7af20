"""Small journals for tests: told in days since a start, folded into a pool. Invented."""

from datetime import UTC, datetime, timedelta
from uuid import UUID

from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.slow import Surroundings
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    Entry,
    PoolState,
    TestTaken,
    fold,
)
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.testing.methods import Method, measured

START = datetime(2026, 6, 1, 12, tzinfo=UTC)
LITRES = 60_000.0
PLACE = Place(volume_l=LITRES, latitude_deg=40.0, longitude_deg=0.0)
AROUND = Surroundings(volume_l=LITRES, mean_depth_m=1.5, covered=False, indoor=False, fill=Readings())
POOL = UUID(int=1)


def when(day: float) -> datetime:
    return START + timedelta(days=day)


def state(*rows: tuple[float, Body], volume_l: float = LITRES) -> PoolState:
    """The pool after what happened on those days."""
    reported = [(-1.0, BasinMeasured(volume_l=volume_l)), *rows]
    return fold(
        [
            Entry(
                id=UUID(int=n + 10),
                pool_id=POOL,
                at=when(day),
                recorded_at=when(day),
                person_id=None,
                body=body,
            )
            for n, (day, body) in enumerate(reported)
        ]
    )


def reads(**values: float) -> TestTaken:
    """A test by photometer: `reads(free_chlorine=2, ph=7.5)`."""
    return reads_by(Method.PHOTOMETER, **values)


def reads_by(method: Method, /, **values: float) -> TestTaken:
    taken = tuple(measured(Measure(name), value, method) for name, value in values.items())
    return TestTaken(taken, "photometer")


def bleach(mg_l: float, volume_l: float = LITRES) -> AdditionMade:
    """So much 100 g/L bleach that free chlorine rises by that in `volume_l`."""
    milliliters = mg_l * volume_l / 100.0
    return AdditionMade(
        chemical="sodium_hypochlorite",
        strength_percent=10.0,
        label="Liquid chlorine",
        mass_g=milliliters * 1.13,
        volume_ml=milliliters,
        density_g_per_ml=1.13,
    )


def solid(chemical: str, grams: float, percent: float = 100.0) -> AdditionMade:
    return AdditionMade(chemical=chemical, strength_percent=percent, label=chemical, mass_g=grams)
