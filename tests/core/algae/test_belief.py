"""What is believed of a green pool: laws of the guesses, and that tests move them the right way."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from kumpan.core.algae.belief import (
    LEAST_GUESSES,
    Particles,
    Seen,
    Surroundings,
    advanced,
    hours_until_low,
    prior,
    shown_cloud,
    stepped,
    updated,
)
from kumpan.core.algae.outlook import Followed, outlook
from kumpan.core.journal import Clarity, DeadAlgaeStrategy, Level, Severity, VisualCheck
from kumpan.core.pool.equipment import Filter

AROUND = Surroundings(40.0, 26.0, (0.0,) * 24, Filter.SAND)
AT = 1_780_322_400.0
FOLLOWED = Followed(
    level_mg_l=16.0,
    usual_mg_l=3.0,
    rounds_left=1,
    dead_algae_strategy=DeadAlgaeStrategy.STIR,
    morning_h=12,
    evening_h=1,
)


def start(severity: Severity = Severity.GREEN, free: float = 10.0) -> Particles:
    return prior(severity, AROUND, AT, free)


def likely_living(particles: Particles) -> float:
    return particles.quantile(particles.living + particles.hidden, 0.5)


def test_the_same_question_gives_the_same_guesses() -> None:
    assert np.array_equal(start().living, start().living)


@given(st.sampled_from(list(Severity)), st.floats(0, 30), st.floats(0.5, 3.0))
@settings(max_examples=40, deadline=None)
def test_chlorine_only_falls_and_nothing_goes_below_nothing(
    severity: Severity, free: float, hours: float
) -> None:
    before = start(severity, free)
    after = stepped(before, AROUND, hours)
    assert np.all(after.free <= before.free + 1e-9)
    for values in (after.free, after.combined, after.living, after.hidden, after.cloud):
        assert np.all(values >= 0)
    assert np.sum(after.weight) == pytest.approx(1.0)


def test_what_dies_becomes_cloud_and_what_is_bared_was_hidden() -> None:
    """Mass is kept: living and hidden lose what the cloud gains at its share, the filter standing still."""
    before = replace(start(Severity.MUSTARD, 20.0), filters=np.zeros(300))
    after = stepped(before, AROUND, 1.0)
    gone = (before.living + before.hidden) - (after.living + after.hidden)
    assert np.all(gone > 0)
    assert np.allclose(after.cloud - before.cloud, 0.5 * gone)


def test_without_chlorine_it_grows() -> None:
    before = start(free=0.0)
    assert np.all(advanced(before, AROUND, AT + 86_400).living > before.living)


def test_the_chlorine_of_a_guess_agrees_with_an_integrator() -> None:
    """One guess against scipy's solve_ivp: dark loss, demand with its half-saturation, and the kill, over
    six hours.
    """
    particles = start()
    guess = {name: float(getattr(particles, name)[5]) for name in ("free", "living", "kill")}
    shock = AROUND.shock_mg_l

    def slope(_: float, state: np.ndarray) -> list[float]:
        free, living = state
        strength = free / shock
        strength = 1.5 * strength / (strength + 0.5)
        eaten = (0.6 * AROUND.warmth + living) * free / (free + 0.3)
        return [-(0.05 * free + eaten), -guess["kill"] * strength * AROUND.warmth * living]

    found = solve_ivp(slope, (0, 0.25), [guess["free"], guess["living"]], rtol=1e-8)
    ours = advanced(particles, AROUND, AT + 6 * 3600)
    assert float(ours.free[5]) == pytest.approx(found.y[0][-1], rel=0.02)
    assert float(ours.living[5]) == pytest.approx(found.y[1][-1], rel=0.02)


def test_more_lost_than_expected_means_more_lives() -> None:
    particles = start()
    held = updated(particles, AROUND, [Seen(at_s=AT + 8 * 3600, free_mg_l=9.0)])
    gone = updated(particles, AROUND, [Seen(at_s=AT + 8 * 3600, free_mg_l=5.0)])
    assert likely_living(held) < likely_living(gone)


def test_a_clear_look_means_less_cloud_than_a_cloudy_one() -> None:
    particles = start(Severity.LIGHT)
    clear = updated(particles, AROUND, [Seen(at_s=AT, visual_check=VisualCheck(Clarity.CLEAR, Level.NORMAL))])
    cloudy = updated(
        particles, AROUND, [Seen(at_s=AT, visual_check=VisualCheck(Clarity.CLOUDY, Level.NORMAL))]
    )
    assert clear.quantile(clear.cloud, 0.5) < cloudy.quantile(cloudy.cloud, 0.5)


@given(st.lists(st.floats(0, 30), min_size=1, max_size=6))
@settings(max_examples=25, deadline=None)
def test_no_wild_test_decides_alone(read: list[float]) -> None:
    """However strange the tests, many guesses go on counting."""
    story = [Seen(at_s=AT + 3600 * (n + 1), free_mg_l=value) for n, value in enumerate(read)]
    particles = updated(start(), AROUND, story)
    assert 1 / np.sum(particles.weight**2) >= LEAST_GUESSES - 1
    assert np.sum(particles.weight) == pytest.approx(1.0)


def test_the_worse_the_longer_and_the_band_holds_the_likely() -> None:
    """Light before green before swamp; black takes its week and more (handbook 07)."""
    found = {severity: outlook(start(severity, 0.2), AROUND, FOLLOWED).clear for severity in Severity}
    assert found[Severity.LIGHT].likely_h < found[Severity.GREEN].likely_h < found[Severity.OPAQUE].likely_h
    for band in found.values():
        assert band.low_h <= band.likely_h <= band.high_h
    # The trade's figures: 2 to 4 days, and 10 to 14 for a swamp (common practice).
    assert 1.5 * 24 <= found[Severity.LIGHT].likely_h <= 5 * 24
    assert 6 * 24 <= found[Severity.OPAQUE].likely_h <= 14 * 24


def test_a_week_over_three_takes_at_least_a_week() -> None:
    plan = replace(FOLLOWED, usual_mg_l=5.0, week_over_mg_l=3.0, week_began_days_ago=None)
    assert outlook(start(Severity.BLACK, 0.2), AROUND, plan).clear.low_h >= 7 * 24


def test_vacuuming_what_settled_is_never_slower() -> None:
    particles = start(Severity.OPAQUE, 0.2)
    stirred = outlook(particles, AROUND, FOLLOWED).clear.likely_h
    assert (
        outlook(
            particles, AROUND, replace(FOLLOWED, dead_algae_strategy=DeadAlgaeStrategy.SETTLE)
        ).clear.likely_h
        <= stirred
    )


def test_less_chlorine_runs_low_sooner() -> None:
    hours = [hours_until_low(start(free=free), AROUND, 1.0, 0.01, 24.0) for free in (3.0, 8.0, 16.0)]
    assert hours == sorted(hours)
    assert hours[0] < hours[-1]


def test_what_is_seen_hazy_day_after_day_stays_a_cloud_in_every_guess() -> None:
    """Else all guesses run clear while the pool does not, and the band says "today" each day."""
    hazy = VisualCheck(Clarity.HAZY, Level.NORMAL)
    story = [Seen(at_s=AT + 86_400 * day, visual_check=hazy, poured_mg_l=9.0) for day in range(1, 15)]
    found = updated(start(free=10.0), AROUND, story)
    assert found.quantile(shown_cloud(found), 0.05) > 0.5
    clear = VisualCheck(Clarity.CLEAR, Level.NORMAL)
    other = updated(start(free=10.0), AROUND, [replace(seen, visual_check=clear) for seen in story])
    assert other.quantile(shown_cloud(other), 0.95) < 0.5


def test_a_rescue_that_began_decades_ago_costs_no_more_than_sixty_days(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Somebody dates its begin to 1990: the story is gone through from sixty days before its end."""
    steps = 0

    def counted(particles: Particles, around: Surroundings, hours: float) -> Particles:
        nonlocal steps
        steps += 1
        return stepped(particles, around, hours)

    monkeypatch.setattr("kumpan.core.algae.belief.stepped", counted)
    long_ago = prior(Severity.GREEN, AROUND, AT - 30 * 365 * 86_400, 10.0)
    weekly = [Seen(at_s=AT - 7 * 86_400 * n, free_mg_l=3.0) for n in range(1500)]
    found = updated(long_ago, AROUND, weekly)
    assert found.at_s == pytest.approx(AT, abs=2)
    assert steps <= 60 * 24 + len(weekly)


def test_what_lies_within_sixty_days_is_all_gone_through() -> None:
    whole = updated(start(), AROUND, [Seen(at_s=AT + 86_400 * n, free_mg_l=8.0) for n in range(1, 50)])
    apart = start()
    for n in range(1, 50):
        apart = updated(apart, AROUND, [Seen(at_s=AT + 86_400 * n, free_mg_l=8.0)])
    assert np.array_equal(whole.living, apart.living)
