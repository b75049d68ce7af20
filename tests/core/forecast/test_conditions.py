"""What the journal says that acted on chlorine."""

import numpy as np
import pytest

from kumpan.core.forecast.chlorine import Factors, course
from kumpan.core.forecast.combined import combined_course
from kumpan.core.forecast.conditions import Conditions, Place, Pulse, chlorine_of, conditions
from kumpan.core.journal import Clarity, Level, SwimmersCounted, VisualCheck
from tests.core.journals import LITRES, PLACE, START, bleach, reads, solid, state

DAY_S = 86_400.0
BEGUN = START.timestamp()
TEST = reads(free_chlorine=2, ph=7.5, cyanuric_acid=40, temperature_c=25)


def of(*rows: object, days: float = 3.0, place: Place = PLACE, planned: tuple[Pulse, ...] = ()) -> Conditions:
    return conditions(state((0, TEST), *rows), place, BEGUN, BEGUN + days * DAY_S, planned)  # type: ignore[arg-type]


def test_hours_and_every_event_are_knots() -> None:
    found = of((0.511, bleach(2)))
    assert BEGUN + 0.511 * DAY_S in found.knots_s
    assert len(found.knots_s) == 3 * 24 + 2
    assert np.all(np.diff(found.knots_s) > 0)
    assert float(found.hours.sum()) == pytest.approx(72.0)


def test_a_dose_is_a_pulse_at_its_time_and_tablets_are_not() -> None:
    found = of((1.0, bleach(2.5)), (1.5, solid("trichlor", 200, 90)))
    assert float(found.pulses.sum()) == pytest.approx(2.5, rel=1e-6)
    assert float(np.sum(found.source * found.hours)) == pytest.approx(
        chlorine_of(solid("trichlor", 200, 90), LITRES) * 1.5 / 7, rel=1e-6
    )


def test_a_reducer_is_a_negative_pulse() -> None:
    assert float(of((1.0, solid("sodium_thiosulfate", 50))).pulses.sum()) < 0


def test_what_is_planned_counts_too() -> None:
    found = of(planned=(Pulse(BEGUN + DAY_S, 1.5), Pulse(BEGUN + 99 * DAY_S, 9.0)))
    assert float(found.pulses.sum()) == pytest.approx(1.5)


def test_swimmers_eat_chlorine_the_day_after() -> None:
    """4 g a swimmer and hour (from memory): 10 swimmer-hours in 60,000 L are 0.67 mg/L."""
    found = of((0.5, SwimmersCounted(10)))
    assert float(np.sum(found.load * found.hours)) == pytest.approx(10 * 4000 / LITRES, rel=0.05)


def test_a_bloom_eats_until_the_next_look() -> None:
    green, clear = (VisualCheck(clarity, Level.NORMAL) for clarity in (Clarity.GREEN, Clarity.CLEAR))
    found = of((0.5, green), (1.5, clear))
    assert float(np.sum(found.load * found.hours)) == pytest.approx(10.0, rel=0.05)


def test_a_cover_keeps_most_of_the_sun_off() -> None:
    covered = of(place=Place(volume_l=LITRES, latitude_deg=40, longitude_deg=0, covered=True))
    assert covered.light.max() == pytest.approx(0.1 * of().light.max())


def test_before_any_test_usual_values_stand() -> None:
    found = conditions(state(), PLACE, BEGUN, BEGUN + DAY_S)
    assert found.light.max() > 0
    assert np.isfinite(found.organics).all()


def test_chlorine_never_falls_below_nothing_and_comes_back_with_a_dose() -> None:
    found = of((2.0, bleach(5)), days=4)
    values = course(found, Factors(organics=2.0), 1.0)
    assert values.min() == 0.0
    assert values[found.knots_s == BEGUN + 2 * DAY_S][0] == pytest.approx(5.0, abs=0.3)


def test_combined_chlorine_rises_with_swimmers_and_goes_with_free_chlorine() -> None:
    busy, quiet = of((0.1, SwimmersCounted(60))), of()
    free = np.full(len(quiet.knots_s), 3.0)
    gone = combined_course(quiet, Factors(), free, 0.8)
    saved = combined_course(quiet, Factors(), np.zeros_like(free), 0.8)
    much = combined_course(busy, Factors(), np.full(len(busy.knots_s), 3.0), 0.8)
    assert gone[-1] < 0.4
    assert saved[-1] >= 0.8
    assert much.max() > gone.max()
