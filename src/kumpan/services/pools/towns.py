"""Towns by name and by place: where a pool lies, without a network.

The list ships with the program: GeoNames (geonames.org), under CC BY 4.0, the United States and Canada from
5,000 people, elsewhere from 15,000; the largest first.
"""

import gzip
import unicodedata
from collections.abc import Iterator
from dataclasses import dataclass
from importlib.resources import files
from itertools import islice
from math import cos, hypot, radians

from kumpan.services.cache import remembered

MOST_FOUND = 8
NEAR_KM = 15.0
KM_PER_DEGREE = 111.2  # of a great circle


@dataclass(frozen=True, slots=True, kw_only=True)
class Town:
    """A town with its place in degrees, north and east positive. `region` is its state or province, elsewhere
    its country.
    """

    name: str
    region: str
    latitude_deg: float
    longitude_deg: float
    time_zone: str


def find_towns(text: str, near_zone: str = "") -> list[Town]:
    """Towns whose name begins as typed, accents and case aside: those of the reader's own time zone first,
    then the largest. "Portland, ME" asks for a state too.
    """
    name, _, region = (part.strip() for part in _plain(text).partition(","))
    if not name:
        return []
    fits = [
        town for plain, town in _towns() if plain.startswith(name) and _plain(town.region).startswith(region)
    ]
    fits.sort(key=lambda town: town.time_zone != near_zone)
    return fits[:MOST_FOUND]


def nearest_town(latitude_deg: float, longitude_deg: float) -> Town:
    """The largest town near by, else the next one: who lives at a city's edge knows it by the city's name.

    Measured on a flat map around the place: so near, it is the same as on the globe.
    """
    shrink = cos(radians(latitude_deg))

    def apart_km(town: Town) -> float:
        east = abs(town.longitude_deg - longitude_deg)
        return KM_PER_DEGREE * hypot(town.latitude_deg - latitude_deg, min(east, 360 - east) * shrink)

    near = (town for _, town in _towns() if apart_km(town) <= NEAR_KM)  # the largest is told first
    return next(near, None) or min((town for _, town in _towns()), key=apart_km)


def _plain(text: str) -> str:
    taken_apart = unicodedata.normalize("NFD", text.casefold())
    return "".join(letter for letter in taken_apart if not unicodedata.combining(letter)).strip()


@remembered(most=1)
def _towns() -> tuple[tuple[str, Town], ...]:
    """Each town behind its plain name."""
    return tuple(_rows())


def _rows() -> Iterator[tuple[str, Town]]:
    text = gzip.decompress((files("kumpan.services.pools") / "towns.tsv.gz").read_bytes()).decode()
    known: dict[str, str] = {}  # one string for each zone and region, not one for each town
    for line in islice(text.splitlines(), 2, None):
        name, region, country, latitude, longitude, zone = line.split("\t")
        yield (
            _plain(name),
            Town(
                name=name,
                region=known.setdefault(region or country, region or country),
                latitude_deg=float(latitude),
                longitude_deg=float(longitude),
                time_zone=known.setdefault(zone, zone),
            ),
        )
