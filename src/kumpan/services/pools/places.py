"""Where a pool lies: its own latitude and longitude, else those of its time zone's chief city."""

import re
from importlib.resources import files

from kumpan.core.forecast.conditions import Place
from kumpan.core.journal import BasinMeasured, SettingsMade
from kumpan.core.pool.equipment import Traits
from kumpan.services.cache import remembered

# ISO 6709 as in the zone table: +DDMM or +DDMMSS, then longitude +DDDMM or +DDDMMSS.
_COORDINATES = re.compile(r"([+-])(\d{2})(\d{2})(\d{2})?([+-])(\d{3})(\d{2})(\d{2})?$")
ELSEWHERE = (40.0, 0.0)


def place_of(settings: SettingsMade) -> tuple[float, float]:
    """Latitude and longitude in degrees, north and east positive."""
    latitude, longitude = _zones().get(settings.time_zone, ELSEWHERE)
    return (
        latitude if settings.latitude_deg is None else settings.latitude_deg,
        longitude if settings.longitude_deg is None else settings.longitude_deg,
    )


def under_the_sky(settings: SettingsMade, basin: BasinMeasured, traits: Traits) -> Place:
    """The pool as the chlorine model wants it."""
    latitude_deg, longitude_deg = place_of(settings)
    return Place(
        volume_l=basin.volume_l,
        latitude_deg=latitude_deg,
        longitude_deg=longitude_deg,
        indoor=traits.indoor,
        covered=traits.covered,
    )


@remembered(most=1)
def _zones() -> dict[str, tuple[float, float]]:
    """The table that ships with the time zone data."""
    found = {}
    for line in (files("tzdata") / "zoneinfo" / "zone.tab").read_text().splitlines():
        if not line.startswith("#"):
            _, coordinates, name, *_ = line.split("\t")
            found[name] = _degrees(coordinates)
    return found


def _degrees(text: str) -> tuple[float, float]:
    match = _COORDINATES.match(text)
    assert match is not None
    signal_number, d, m, s, sign2, d2, m2, s2 = match.groups()
    latitude = int(d) + int(m) / 60 + int(s or 0) / 3600
    longitude = int(d2) + int(m2) / 60 + int(s2 or 0) / 3600
    return (latitude if signal_number == "+" else -latitude, longitude if sign2 == "+" else -longitude)
