"""What is ahead of a pool, in words and bands: when chlorine runs low, what the next visit will find,
when a swim is due again, what drifts, and whether the pool answers as computed.

Sources: chlorine-model, salt-bump, test-interval, swim-limit.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta, tzinfo
from itertools import pairwise
from statistics import median

import numpy as np

from kumpan.core.findings import Finding
from kumpan.core.forecast.closed_loop import (
    Checked,
    StrengthHint,
    VolumeHint,
    last_check,
    responses,
    strength_hint,
    volume_hint,
)
from kumpan.core.forecast.combined import combined_course
from kumpan.core.forecast.conditions import Conditions, Place, conditions
from kumpan.core.forecast.expected import expected_ph
from kumpan.core.forecast.fit import Fit
from kumpan.core.forecast.forecast import (
    ChlorineForecast,
    daily_loss,
    first_under,
    forecast,
    overnight_loss,
    under_for_good,
)
from kumpan.core.forecast.slow import LINED, PhDrift, Surroundings, Trend, ph_drift, trend
from kumpan.core.forecast.sun import SECONDS_A_DAY
from kumpan.core.journal import PoolState, last_reading
from kumpan.core.messages import Message, Plural, Verbatim
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Ahead, DateForm, Day, Number, Percent, PoolWater, Weeks
from kumpan.core.ranges.profiles import Band
from kumpan.core.testing.rhythm import TEST_EVERY, TEST_HOLDS_DAYS

SOURCES_USED = ("chlorine-model", "salt-bump", "test-interval", "swim-limit")

DAYS_AHEAD = 14
SURE_ENOUGH_MG_L = 3.0  # a band wider than this is no forecast to act on
DILUTION_DUE_CYA = 100.0
WEEKS_WORTH_A_WORD = 26.0
DUSK_TO_DAWN_H = 10
HALF_A_DAY_S = 43_200
HARDLY_UNDER_MG_L = 0.1  # a drop of reagent: what was just read as in range is not called under it


@dataclass(frozen=True, kw_only=True)
class Setting:
    """Where and for what: the pool under its sky, its surroundings, ranges, swim limit, local time."""

    place: Place
    around: Surroundings
    bands: Mapping[Measure, Band]
    swim_limit_mg_l: float
    zone: tzinfo


@dataclass(frozen=True, kw_only=True)
class Outlook:
    """The forecast of one pool as of now. `sentences` come most pressing first."""

    chlorine: ChlorineForecast
    fitted: Fit
    loss_mg_l_day: float
    overnight_mg_l: float
    runs_low_at: datetime | None
    next_visit_at: datetime
    at_next_visit: tuple[float, float, float]
    ph: PhDrift | None
    combined: ChlorineForecast | None
    trends: Mapping[Measure, Trend]
    checks: tuple[Checked, ...]
    volume: VolumeHint | None
    strength: StrengthHint | None
    sentences: tuple[Finding, ...]


def outlook(state: PoolState, setting: Setting, now: datetime, fitted: Fit) -> Outlook:
    """What is ahead, by the pool's fitted chlorine model."""
    now_s = now.timestamp()
    until = max(now_s, fitted.last_at_s) + DAYS_AHEAD * SECONDS_A_DAY
    ahead = forecast(state, setting.place, fitted, until)
    low = setting.bands[Measure.FREE_CHLORINE].low or 0.0
    visit = next_visit(state, now)
    acting = conditions(state, setting.place, now_s, now_s + SECONDS_A_DAY)
    free_now = ahead.at(now_s)[1]
    found = Outlook(
        chlorine=ahead,
        fitted=fitted,
        loss_mg_l_day=daily_loss(acting, fitted.factors, max(free_now, low)),
        overnight_mg_l=_overnight(acting, fitted, max(free_now, low)),
        runs_low_at=first_under(ahead, low, now_s),
        next_visit_at=visit,
        at_next_visit=ahead.at(visit.timestamp()),
        ph=_ph(state),
        combined=_combined(state, setting, fitted, ahead),
        trends={m: line for m in LINED if (line := trend(state, m, setting.around, now_s)) is not None},
        checks=tuple(last_check(state)),
        volume=volume_hint(responses(state, setting.around), setting.place.volume_l),
        strength=strength_hint(state, setting.around),
        sentences=(),
    )
    return Outlook(**{**found.__dict__, "sentences": tuple(_sentences(found, setting, now))})


def next_visit(state: PoolState, now: datetime) -> datetime:
    """When the next test is to be expected: after the usual gap of the last tests."""
    times = [entry.at for entry in state.tests[-7:]]
    gaps = [(other - one).total_seconds() for one, other in pairwise(times)]
    longer = [gap for gap in gaps if gap > HALF_A_DAY_S]
    usual = timedelta(seconds=median(longer)) if longer else TEST_EVERY
    last = times[-1] if times else now
    due = last + min(usual, timedelta(days=DAYS_AHEAD))
    return due if due > now else now + timedelta(hours=1)


def _combined(
    state: PoolState, setting: Setting, fitted: Fit, ahead: ChlorineForecast
) -> ChlorineForecast | None:
    """Combined chlorine along the forecast of free; the band from the test's doubt and half or twice the
    binding.
    """
    last = last_reading(state, Measure.COMBINED_CHLORINE)
    if last is None or last.at.timestamp() != fitted.last_at_s:
        return None
    acting = conditions(state, setting.place, fitted.last_at_s, float(ahead.at_s[-1]))
    read = last.value
    low, likely, high = (
        combined_course(acting, fitted.factors, free=ahead.likely, start_mg_l=start, binds=binds)
        for start, binds in ((read.low, 0.5), (read.value, 1.0), (read.high, 2.0))
    )
    return ChlorineForecast(ahead.at_s, likely, low, high)


def _overnight(acting: Conditions, fitted: Fit, free: float) -> float:
    """Loss over a night of ten hours, from the day's share of dark loss."""
    hours = float(np.sum(acting.hours))
    return overnight_loss(acting, fitted.factors, free) * DUSK_TO_DAWN_H / hours


def _ph(state: PoolState) -> PhDrift | None:
    """pH as the last test and what went in since have it, and on from there."""
    last = last_reading(state, Measure.PH)
    expected = expected_ph(state)
    if last is None or expected is None:
        return None
    return ph_drift(state, expected, last.at.timestamp())


def _sentences(found: Outlook, setting: Setting, now: datetime) -> list[Finding]:
    said = [*_chlorine(found, setting, now), *_slow(found, setting)]
    said += [*_loop(found, setting), _what_would_narrow(found)]
    return [finding for finding in said if finding is not None]


def _chlorine(found: Outlook, setting: Setting, now: datetime) -> list[Finding | None]:
    edge = (setting.bands[Measure.FREE_CHLORINE].low or 0.0) - HARDLY_UNDER_MG_L
    low_already = found.chlorine.at(now.timestamp())[1] < edge
    return [
        _runs_low(found, setting, now),
        _shock_over(found, setting, now),
        None if low_already else _at_the_next_visit(found, setting),
        Finding(
            "loss",
            Message(
                "This pool loses about {loss_mg_l_day} ppm of chlorine a day now, {overnight} of it in a "
                "night without sun.",
                loss_mg_l_day=Number(found.loss_mg_l_day, digits=1),
                overnight=Number(found.overnight_mg_l, digits=1),
            ),
            Measure.FREE_CHLORINE,
            {"mg_l_day": found.loss_mg_l_day, "overnight_mg_l": found.overnight_mg_l},
        ),
    ]


def _runs_low(found: Outlook, setting: Setting, now: datetime) -> Finding | None:
    low = setting.bands[Measure.FREE_CHLORINE].low
    old = now.timestamp() - found.fitted.last_at_s > TEST_HOLDS_DAYS * SECONDS_A_DAY
    if low is None:
        return None
    at_now = found.chlorine.at(now.timestamp())
    if at_now[1] < low - HARDLY_UNDER_MG_L:
        fresh = now.timestamp() - found.fitted.last_at_s < HALF_A_DAY_S
        text = (
            Message("Free chlorine is under {low} and falls on until it is dosed.", low=Number(low))
            if fresh
            else Message(
                "Free chlorine is likely under {low} already (about {at_now}). Test, then dose.",
                low=Number(low),
                at_now=Number(at_now[1], digits=1),
            )
        )
        return Finding("low_now", text, Measure.FREE_CHLORINE, {"likely": at_now[1]})
    if found.runs_low_at is None:
        text = Message(
            "Free chlorine likely stays over {low} for the next {days_ahead} days.",
            low=Number(low),
            days_ahead=Number(DAYS_AHEAD),
        )
        return None if old else Finding("holds", text, Measure.FREE_CHLORINE, {})
    band = found.chlorine.at(found.runs_low_at.timestamp())
    text = Message(
        "Without another dose free chlorine runs under {low} {day_text}; then it is {band} to {band_2}.",
        low=Number(low),
        day_text=Ahead(found.runs_low_at.astimezone(setting.zone), now.astimezone(setting.zone)),
        band=Number(band[0], digits=1),
        band_2=Number(band[2], digits=1),
    )
    return Finding("runs_low", text, Measure.FREE_CHLORINE, {"low": band[0], "high": band[2]})


def _shock_over(found: Outlook, setting: Setting, now: datetime) -> Finding | None:
    limit, at_now = setting.swim_limit_mg_l, found.chlorine.at(now.timestamp())[1]
    if at_now <= limit:
        text = Message(
            "The last test was over the swim limit of {limit}; by now it is likely about {at_now}. A "
            "test decides.",
            limit=Number(limit),
            at_now=Number(at_now, digits=1),
        )
        was_over = found.fitted.last.mean > limit
        return Finding("swim_again", text, Measure.FREE_CHLORINE) if was_over else None
    likely = first_under(found.chlorine, limit, now.timestamp())
    surely = under_for_good(found.chlorine, limit, now.timestamp())
    if likely is None:
        return Finding(
            "over_limit",
            Message("Free chlorine stays over the swim limit of {limit} for days.", limit=Number(limit)),
            Measure.FREE_CHLORINE,
        )
    local = now.astimezone(setting.zone)
    first = Ahead(likely.astimezone(setting.zone), local)
    if surely is None:
        text = Message(
            "Free chlorine comes under the swim limit of {limit} {likely}; a test decides.",
            limit=Number(limit),
            likely=first,
        )
    else:
        text = Message(
            "Free chlorine comes under the swim limit of {limit} {likely}, surely {surely}; a test decides.",
            limit=Number(limit),
            likely=first,
            surely=Ahead(surely.astimezone(setting.zone), local),
        )
    return Finding("swim_again", text, Measure.FREE_CHLORINE)


def _at_the_next_visit(found: Outlook, setting: Setting) -> Finding:
    low, likely, high = found.at_next_visit
    when = found.next_visit_at.astimezone(setting.zone)
    text = Message(
        "At the next test, {when}, free chlorine will be about {likely} ({low} to {high}).",
        when=Day(when.date(), DateForm.WEEKDAY),
        likely=Number(likely, digits=1),
        low=Number(low, digits=1),
        high=Number(high, digits=1),
    )
    return Finding("next_visit", text, Measure.FREE_CHLORINE, {"low": low, "likely": likely, "high": high})


def _slow(found: Outlook, setting: Setting) -> list[Finding | None]:
    return [_stabilizer(found), _salt(found, setting)]


def _stabilizer(found: Outlook) -> Finding | None:
    line = found.trends.get(Measure.CYANURIC_ACID)
    days = line.days_until(DILUTION_DUE_CYA) if line is not None else None
    if line is None or line.slope <= 0 or days is None or days / 7 > WEEKS_WORTH_A_WORD:
        return None
    text = Message(
        "Stabilizer climbs by about {slope} ppm a week: in {days} it is at {dilution_due_cya} and "
        "water has to be replaced.",
        slope=Number(7 * line.slope, digits=1),
        days=Weeks(days),
        dilution_due_cya=Number(DILUTION_DUE_CYA, digits=0),
    )
    return Finding("stabiliser_climbs", text, Measure.CYANURIC_ACID, {"weeks": days / 7})


def _salt(found: Outlook, setting: Setting) -> Finding | None:
    line, band = found.trends.get(Measure.SALT), setting.bands.get(Measure.SALT)
    if line is None or band is None or band.low is None or line.slope >= 0:
        return None
    days = line.days_until(band.low)
    if days is None or days / 7 > WEEKS_WORTH_A_WORD:
        return None
    text = Message(
        "Salt falls by about {slope} ppm a month; the next bags are due in {days}.",
        slope=Number(-30 * line.slope, digits=0),
        days=Weeks(days),
    )
    return Finding("salt_due", text, Measure.SALT, {"weeks": days / 7})


def _loop(found: Outlook, setting: Setting) -> list[Finding | None]:
    said: list[Finding | None] = [_checked_text(check) for check in found.checks if check.differs]
    if found.volume is not None:
        said.append(_volume_words(found.volume, setting.place.volume_l))
    if found.strength is not None and found.volume is None:
        said.append(_strength_words(found.strength))
    return said


_SMALLER = (
    "{doses} moved the water {other} more than computed: the pool may be {by} smaller, about {volume} "
    "give or "
    "take {sd}. Change it under Pool if you agree."
)
_LARGER = (
    "{doses} moved the water {other} less than computed: the pool may be {by} larger, about {volume} give or "
    "take {sd}. Change it under Pool if you agree."
)


def _volume_words(hint: VolumeHint, volume_l: float) -> Finding:
    other = hint.share - 1
    text = Message(
        _SMALLER if other > 0 else _LARGER,
        doses=Plural("{n} dose", "{n} doses", hint.doses),
        other=Percent(abs(other)),
        by=Percent(abs(hint.volume_l / volume_l - 1)),
        volume=PoolWater(hint.volume_l),
        sd=PoolWater(hint.sd_l),
    )
    return Finding("volume_hint", text, None, {"volume_l": hint.volume_l})


_WEAKER = (
    "{doses} of {label} brought {share} less free chlorine than its label says: it may be at about "
    "{percent} %, "
    "give or take {sd}. Change it on the Shelf if you agree."
)
_STRONGER = (
    "{doses} of {label} brought {share} more free chlorine than its label says: it may be at about "
    "{percent} %, "
    "give or take {sd}. Change it on the Shelf if you agree."
)


def _strength_words(hint: StrengthHint) -> Finding:
    text = Message(
        _WEAKER if hint.share < 1 else _STRONGER,
        doses=Plural("{n} dose", "{n} doses", hint.doses),
        label=Verbatim(hint.label),
        share=Percent(abs(1 - hint.share)),
        percent=Number(hint.strength_percent, digits=1),
        sd=Number(hint.sd_percent, digits=1),
    )
    return Finding("strength_hint", text, Measure.FREE_CHLORINE, {"percent": hint.strength_percent})


_OVER = "{measure} came out {amount} over what the last plan computed ({predicted}): {behind}."
_UNDER = "{measure} came out {amount} under what the last plan computed ({predicted}): {behind}."
_BEHIND: Mapping[Measure, Message] = {
    Measure.PH: Message("an acid or soda of another strength, the volume, or aeration since"),
    Measure.CYANURIC_ACID: Message("stabilizer takes a week to read, or the volume"),
}
_BEHIND_OTHERS = Message("the volume, the product's strength, or one reading")


def _checked_text(check: Checked) -> Finding:
    """A sheet's outcome, with what usually lies behind a difference."""
    off = check.measured - check.predicted
    text = Message(
        _OVER if off > 0 else _UNDER,
        measure=NAMES[check.measure],
        amount=Number(abs(off), digits=1 if check.measure is Measure.PH else 0),
        predicted=Number(check.predicted, figures=4),
        behind=_BEHIND.get(check.measure, _BEHIND_OTHERS),
    )
    return Finding("off_prediction", text, check.measure, {"predicted": check.predicted})


def _what_would_narrow(found: Outlook) -> Finding | None:
    """The test that would help the forecast most."""
    low, _, high = found.at_next_visit
    narrowed = found.fitted.narrowed
    if found.fitted.tests < 5:
        text = Message(
            "The forecast rests on {tests} and on usual pools; each further test of free chlorine "
            "narrows it.",
            tests=Plural("{n} test", "{n} tests", found.fitted.tests),
        )
    elif high - low < SURE_ENOUGH_MG_L / 2:
        return None
    elif narrowed["sun"] < 0.4:
        text = Message(
            "A test at dusk and one the next morning would tell the sun's share from the rest and "
            "narrow this."
        )
    elif found.fitted.last.variance > 0.1:
        text = Message(
            "A finer test of {free_chlorine} (drops) would narrow this most.",
            free_chlorine=name_in_sentence(Measure.FREE_CHLORINE),
        )
    else:
        text = Message("Days differ here; a test the day before narrows this most.")
    return Finding("narrow", text, Measure.FREE_CHLORINE)
