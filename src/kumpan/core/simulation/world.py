"""A pool that is not the model: the truth that practice pools and studies are made from.

Its laws are its own on purpose. Nothing here may be imported by the chlorine model, nor the other way
round: chlorine is lost with a power law, stabilizer protects by its own formula, water mixes in two
parts, days have their own cloud and guests, and the pool is not as large as its owner thinks.
All invented; seeded. Source: simulated-world.
"""

from dataclasses import dataclass, field
from math import cos, exp, pi, sin

import numpy as np

SOURCE = "simulated-world"

HOURS_A_DAY = 24
SMALL_STEPS = 12
TABLET_HOURS = 264.0


@dataclass(frozen=True, kw_only=True)
class Climate:
    """Latitude in degrees; water's mean and yearly swing in C; rain a day (mm) and its chance."""

    latitude_deg: float = 29.0
    longitude_deg: float = -95.0
    mean_c: float = 25.0
    swing_c: float = 5.0
    rain_chance: float = 0.15
    rain_mm: float = 14.0


@dataclass(frozen=True, kw_only=True)
class Nature:
    """What nobody is told about a pool."""

    true_volume_l: float
    mean_depth_m: float = 1.5
    sun_per_hour: float = 0.062
    organics_mg_l_day: float = 0.6
    mood: float = 0.35
    dead_share: float = 0.18
    indoor: bool = False
    covered: bool = False
    ph_pull_per_day: float = 0.045
    guests_a_week: float = 4.0
    fill_calcium: float = 120.0
    fill_alkalinity: float = 90.0
    fill_salt: float = 90.0


@dataclass(kw_only=True)
class Water:
    """The water now; free chlorine in the main part and in the dead corner."""

    free: float
    dead: float
    combined: float
    ph: float
    alkalinity: float
    calcium: float
    stabilizer: float
    salt: float
    temperature_c: float = 25.0
    bloom: float = 0.0
    tablets_g: list[tuple[float, float]] = field(default_factory=list)
    cell_g_h: float = 0.0
    cell_hours: float = 0.0


@dataclass(kw_only=True)
class World:
    """One pool under its weather. `hour` counts from the start; `start_s` is its UTC second."""

    nature: Nature
    climate: Climate
    water: Water
    start_s: float
    seed: int
    hour: int = 0
    draw: np.random.Generator = field(init=False)
    sky: float = field(init=False, default=0.8)
    mood: float = field(init=False, default=0.0)
    guests: float = field(init=False, default=0.0)
    rained_mm: float = field(init=False, default=0.0)

    def __post_init__(self) -> None:
        self.draw = np.random.default_rng(self.seed)
        self._new_day()

    @property
    def now_s(self) -> float:
        """The world's clock, s since 1970 UTC."""
        return self.start_s + self.hour * 3600.0

    def step(self) -> None:
        """One hour."""
        w, n = self.water, self.nature
        sun = self._sun()
        w.temperature_c = self._temperature()
        warm = 1.9 ** ((w.temperature_c - 26.0) / 10.0)
        eaten = n.organics_mg_l_day / 24 * warm * exp(self.mood) + w.bloom / 24
        if 15 <= self._solar_hour() < 18:
            eaten += self.guests * 1500.0 / n.true_volume_l
        shield = 0.9 / (1.0 + w.stabilizer / 2.2) * 14 + 1.0
        rate = 0.0 if n.indoor else n.sun_per_hour * sun * self.sky * shield * (0.12 if n.covered else 1.0)
        lost = self._lose(rate, eaten)
        self._feed()
        self._mix()
        self._drift(lost, sun)
        self.hour += 1
        if self.hour % HOURS_A_DAY == 0:
            self._new_day()

    def add(
        self,
        *,
        chlorine: float = 0.0,
        alkalinity: float = 0.0,
        stabilizer: float = 0.0,
        calcium: float = 0.0,
        salt: float = 0.0,
        carbon: float = 0.0,
    ) -> None:
        """Grams per true liter are the caller's: here mg/L (alkalinity as CaCO3, carbon in meq/L)."""
        w = self.water
        w.free += chlorine / (1.0 - self.nature.dead_share)
        for _ in range(SMALL_STEPS):  # the buffer grows as pH falls
            w.ph += (alkalinity / 50.0 - carbon) / SMALL_STEPS / self._buffer()
        w.ph -= 0.011 * stabilizer
        w.alkalinity = max(5.0, w.alkalinity + alkalinity)
        w.stabilizer += stabilizer
        w.calcium += calcium
        w.salt += salt
        w.ph = min(9.2, max(5.5, w.ph))

    def replace_water(self, liters: float, *, rain: bool = False) -> None:
        """Water that left and was made up by fill, or was pushed out by rain."""
        w, n = self.water, self.nature
        share = min(1.0, liters / n.true_volume_l)
        calcium, alkalinity, salt = (
            (0.0, 0.0, 0.0) if rain else (n.fill_calcium, n.fill_alkalinity, n.fill_salt)
        )
        w.free *= 1 - share
        w.dead *= 1 - share
        w.stabilizer *= 1 - share
        w.calcium += (calcium - w.calcium) * share
        w.alkalinity += (alkalinity - w.alkalinity) * share
        w.salt += (salt - w.salt) * share

    def _lose(self, rate: float, eaten: float) -> float:
        w, dead = self.water, self.nature.dead_share
        before = w.free * (1 - dead) + w.dead * dead
        bound = 0.12 * eaten * w.free / (w.free + 0.25)
        for name, shade in (("free", 1.0), ("dead", 0.7)):
            value = getattr(w, name)
            gone = rate * shade * value**0.92 + eaten * value / (value + 0.25)
            setattr(w, name, max(0.0, value - min(value, gone)))
        w.combined = max(0.0, w.combined + bound - 0.035 * w.combined * min(1.0, w.free))
        self._grow()
        return before - (w.free * (1 - dead) + w.dead * dead)

    def _grow(self) -> None:
        """A bloom doubles in about a day and a half where chlorine is next to nothing, and dies with it."""
        w = self.water
        shield = 1.0 + w.stabilizer / 25.0
        if w.free < 0.08 * shield and w.temperature_c > 14:
            w.bloom = min(14.0, max(0.15, w.bloom) * 1.02)
        elif w.free > 0.4 * shield:
            w.bloom = max(0.0, w.bloom * 0.975 - 0.005)

    def _feed(self) -> None:
        """Tablets and cell."""
        w, n = self.water, self.nature
        liters = n.true_volume_l
        grams = self._dissolved()
        if grams > 0:
            self.add(chlorine=grams * 900.0 / liters, stabilizer=grams * 550.0 / liters)
            w.alkalinity = max(5.0, w.alkalinity - grams * 900.0 * 0.7 / liters)
            w.ph -= grams * 900.0 * 0.0141 / liters / self._buffer()
        if self._solar_hour() % 24 >= 8 and self._solar_hour() < 8 + w.cell_hours and w.temperature_c > 15.5:
            self.add(chlorine=w.cell_g_h * 1000.0 / liters)
            w.ph += 0.0025

    def _dissolved(self) -> float:
        """Grams of tablets that dissolve in this hour: each batch by its surface, wholly in eleven days."""
        total, left = 0.0, []
        for whole, now in self.water.tablets_g:
            after = whole * max(0.0, (now / whole) ** (1 / 3) - 1 / TABLET_HOURS) ** 3
            total += now - after
            if after > 0.01:
                left.append((whole, after))
        self.water.tablets_g = left
        return total

    def _mix(self) -> None:
        w, dead = self.water, self.nature.dead_share
        share = 0.35 if 8 <= self._solar_hour() < 18 else 0.06
        middle = w.free * (1 - dead) + w.dead * dead
        w.free += (middle - w.free) * share
        w.dead += (middle - w.dead) * share

    def _drift(self, lost: float, sun: float) -> None:
        """Carbon dioxide leaves; evaporation is topped up."""
        w, n = self.water, self.nature
        w.ph += n.ph_pull_per_day / 24 * max(0.0, 8.25 - w.ph) / 0.75 * (w.alkalinity / 100.0)
        w.ph = min(9.2, max(5.5, w.ph - 0.0004 * lost))
        open_mm = 0.0 if n.indoor else 0.08 + 0.5 * sun
        mm = open_mm * (0.1 if n.covered else 1.0) * 1.06 ** (w.temperature_c - 25.0)
        share = mm / 1000.0 / n.mean_depth_m
        w.calcium += n.fill_calcium * share
        w.alkalinity += n.fill_alkalinity * share * 0.8
        w.salt += n.fill_salt * share

    def _buffer(self) -> float:
        """meq/L that move pH by one, of carbonate and stabilizer; a textbook's formula."""
        w = self.water
        carbon = max(0.2, (w.alkalinity - 0.3 * w.stabilizer) / 50.0)
        bicarbonate = 1.0 / (1.0 + 10 ** (6.33 - w.ph) + 10 ** (w.ph - 10.1))
        bound = 1.0 / (1.0 + 10 ** (6.75 - w.ph))
        ring = w.stabilizer / 129.0
        return 2.303 * (
            carbon / bicarbonate * bicarbonate * (1 - bicarbonate) + ring * bound * (1 - bound) + 0.01
        )

    def _new_day(self) -> None:
        day = self.draw
        self.sky = min(
            1.05, max(0.2, 0.45 * self.sky + 0.55 * float(day.beta(4, 1.6)) + float(day.normal(0, 0.06)))
        )
        self.mood = 0.6 * self.mood + float(day.normal(0, 0.8 * self.nature.mood))
        weekend = int(self.now_s // 86400) % 7 in (2, 3)
        self.guests = float(day.poisson(self.nature.guests_a_week * (0.3 if weekend else 0.08)))
        self.rained_mm = 0.0
        if not self.nature.indoor and day.random() < self.climate.rain_chance:
            self.rained_mm = float(day.exponential(self.climate.rain_mm))
            over = max(0.0, self.rained_mm - 6.0) / 1000.0 / self.nature.mean_depth_m
            self.replace_water(over * self.nature.true_volume_l, rain=True)

    def _solar_hour(self) -> float:
        return (self.now_s / 3600.0 + self.climate.longitude_deg / 15.0) % 24.0

    def _year_angle(self) -> float:
        return 2 * pi * ((self.now_s / 86400.0) % 365.25 - 172.0) / 365.25

    def _sun(self) -> float:
        """Sine of the sun's height by the textbook, to a power of its own."""
        tilt = 0.4091 * cos(self._year_angle())
        phi = self.climate.latitude_deg * pi / 180
        height = sin(phi) * sin(tilt) + cos(phi) * cos(tilt) * cos(pi / 12 * (self._solar_hour() - 12))
        return float(max(0.0, height) ** 1.15)

    def _temperature(self) -> float:
        """Behind the sun by a month; an indoor pool is heated."""
        if self.nature.indoor:
            return 28.5
        season = self.climate.swing_c * cos(self._year_angle() - 0.55)
        return self.climate.mean_c + season + 0.8 * cos(pi / 12 * (self._solar_hour() - 17))
