"""What acted on a pool's chlorine, hour by hour, as its journal tells it. Source: chlorine-model."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.forecast import rates
from kumpan.core.forecast.sun import SECONDS_A_DAY, SECONDS_AN_HOUR, Array, sun_strength
from kumpan.core.journal import (
    AdditionMade,
    Clarity,
    Entry,
    PoolState,
    history,
)
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure

SOURCE = "chlorine-model"

# Where nothing is measured yet.
USUAL = {Measure.TEMPERATURE: 25.0, Measure.CYANURIC_ACID: 30.0, Measure.PH: 7.6, Measure.FREE_CHLORINE: 2.0}
CELL_STARTS_AT_HOUR = 8.0
VISUAL_CHECK_HOLDS_DAYS = 4.0


@dataclass(frozen=True, kw_only=True)
class Place:
    """The pool under its sky: liters, degrees (north and east positive), roof and cover."""

    volume_l: float
    latitude_deg: float
    longitude_deg: float
    indoor: bool = False
    covered: bool = False


@dataclass(frozen=True)
class Pulse:
    """Free chlorine that goes in at once: when (UTC seconds) and how much (mg/L)."""

    at_s: float
    mg_l: float


@dataclass(frozen=True, kw_only=True)
class Conditions:
    """n intervals between n+1 knots (UTC seconds). Rates in 1/h and mg/L/h; `pulses` at each knot, mg/L.

    `light`: first-order loss by sun, before the pool's own factor. `dark`: first-order loss without it.
    `organics`: zero-order demand before the pool's own factor; `load`: swimmers and bloom.
    `source`: cell and dissolving tablets.
    """

    knots_s: Array
    light: Array
    dark: Array
    organics: Array
    load: Array
    source: Array
    pulses: Array

    @cached_property
    def hours(self) -> Array:
        """The length of each interval between knots, h."""
        return np.asarray(np.diff(self.knots_s) / SECONDS_AN_HOUR, dtype=np.float64)


def conditions(
    state: PoolState, place: Place, start_s: float, end_s: float, planned: Sequence[Pulse] = ()
) -> Conditions:
    """The conditions between two times; after the last entry things go on as they are, plus what is
    planned.
    """
    pulses = [*_pulses(state, place.volume_l), *planned]
    tests = [entry.at.timestamp() for entry in state.tests]
    knots = _knots(start_s, end_s, [*(pulse.at_s for pulse in pulses), *tests])
    middle = (knots[1:] + knots[:-1]) / 2
    temperature = _series(state, Measure.TEMPERATURE, middle)
    warm = rates.warmth(temperature)
    organics = rates.ORGANICS_MG_L_DAY * (rates.INDOOR_SHARE_OF_ORGANICS if place.indoor else 1.0)
    return Conditions(
        knots_s=knots,
        light=_light(state, place, middle),
        dark=rates.DARK_PER_DAY / 24 * warm,
        organics=organics / 24 * warm,
        load=_bathers(state, place.volume_l, middle) + _bloom(state, middle),
        source=_cell(state, place, middle, temperature) + _tablets(state, place.volume_l, knots),
        pulses=_at_knots(knots, pulses),
    )


def _knots(start_s: float, end_s: float, marks: Sequence[float]) -> Array:
    hourly = np.arange(start_s, end_s, SECONDS_AN_HOUR)
    inside = [mark for mark in marks if start_s < mark < end_s]
    return np.unique(np.concatenate([hourly, inside, [end_s]]))


def _at_knots(knots: Array, pulses: Sequence[Pulse]) -> Array:
    found = np.zeros(len(knots))
    for pulse in pulses:
        if knots[0] <= pulse.at_s <= knots[-1]:
            found[int(np.searchsorted(knots, pulse.at_s))] += pulse.mg_l
    return found


def _series(state: PoolState, measure: Measure, times: Array) -> Array:
    """A measure over time: between tests a line, before the first and after the last held."""
    past = history(state, measure)
    if not past:
        return np.full(len(times), USUAL[measure])
    at = [reading.at.timestamp() for reading in past]
    return np.interp(times, at, [reading.value.value for reading in past])


def _light(state: PoolState, place: Place, middle: Array) -> Array:
    if place.indoor:
        return np.zeros(len(middle))
    sun = sun_strength(middle, place.latitude_deg, place.longitude_deg)
    stabilizer = np.round(_series(state, Measure.CYANURIC_ACID, middle) / 5) * 5
    ph = np.round(np.clip(_series(state, Measure.PH, middle), 6.8, 8.4), 1)
    free = _usual_free_chlorine(state)
    loss = np.zeros(len(middle))
    for pair in {(float(c), float(p)) for c, p in zip(stabilizer, ph, strict=True)}:
        loss[(stabilizer == pair[0]) & (ph == pair[1])] = rates.sun_loss_per_hour(free, *pair)
    return np.asarray(sun * loss * (rates.COVER_LETS_THROUGH if place.covered else 1.0), dtype=np.float64)


def _usual_free_chlorine(state: PoolState) -> float:
    past = [reading.value.value for reading in history(state, Measure.FREE_CHLORINE)[-8:]]
    middle = float(np.median(past)) if past else USUAL[Measure.FREE_CHLORINE]
    return max(0.5, round(2 * middle) / 2)


def product_of(body: AdditionMade) -> Product:
    """The product that an entry says was poured."""
    return Product(
        body.product_id or "", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml
    )


def chlorine_of(body: AdditionMade, volume_l: float) -> float:
    """Free chlorine (mg/L) that a poured product brings; negative for a reducer."""
    return changes(product_of(body), body.mass_g, volume_l).get(Measure.FREE_CHLORINE, 0.0)


def _pulses(state: PoolState, volume_l: float) -> list[Pulse]:
    found = []
    for entry, body in additions(state):
        mg_l = chlorine_of(body, volume_l)
        if body.chemical != "trichlor" and mg_l:
            found.append(Pulse(entry.at.timestamp(), mg_l))
    return found


def additions(state: PoolState) -> list[tuple[Entry, AdditionMade]]:
    """The additions of the journal with their entries."""
    return [(entry, entry.body) for entry in state.additions]


def _tablets(state: PoolState, volume_l: float, knots: Array) -> Array:
    """Tablets give their chlorine evenly over a week; an interval gets the share that falls into it."""
    found = np.zeros(len(knots) - 1)
    hours = np.diff(knots) / SECONDS_AN_HOUR
    for entry, body in additions(state):
        if body.chemical == "trichlor":
            begun = entry.at.timestamp()
            ended = begun + rates.TABLET_DAYS * SECONDS_A_DAY
            overlap = np.minimum(knots[1:], ended) - np.maximum(knots[:-1], begun)
            inside = np.maximum(overlap, 0) / SECONDS_AN_HOUR
            found += chlorine_of(body, volume_l) / (rates.TABLET_DAYS * 24) * inside / hours
    return found


def _cell(state: PoolState, place: Place, middle: Array, temperature: Array) -> Array:
    """mg/L/h of the cell by its settings, while it runs and the water is warm enough."""
    found = np.zeros(len(middle))
    solar_hour = (middle / SECONDS_AN_HOUR + place.longitude_deg / 15.0) % 24.0
    for entry in state.cell_settings:
        since = middle >= entry.at.timestamp()
        rate = entry.body.output_g_per_h * entry.body.percent / 100 * 1000 / place.volume_l
        runs = (solar_hour - CELL_STARTS_AT_HOUR) % 24.0 < entry.body.hours_per_day
        found = np.where(since, rate * runs, found)
    return np.asarray(np.where(temperature < rates.CELL_OFF_BELOW_C, 0.0, found), dtype=np.float64)


def _bathers(state: PoolState, volume_l: float, middle: Array) -> Array:
    """Swimmers' load over the day (24 h) after they were counted."""
    found = np.zeros(len(middle))
    for entry in state.swims:
        age = middle - entry.at.timestamp()
        total = entry.body.bather_hours * rates.BATHER_G_PER_HOUR * 1000 / volume_l
        found += np.where((age >= 0) & (age < SECONDS_A_DAY), total / 24, 0.0)
    return found


def _bloom(state: PoolState, middle: Array) -> Array:
    """A bloom's demand, from the look until the next one, at most some days."""
    found = np.zeros(len(middle))
    for entry in state.visual_checks:
        clarity: Clarity = entry.body.clarity
        age = middle - entry.at.timestamp()
        rate = rates.BLOOM_MG_L_DAY[clarity] / 24
        found = np.where((age >= 0) & (age < VISUAL_CHECK_HOLDS_DAYS * SECONDS_A_DAY), rate, found)
    return found
