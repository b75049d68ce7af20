"""Where a time zone's chief city lies. Coordinates from an atlas, from memory, to a degree."""

import pytest

from kumpan.core.journal import SettingsMade
from kumpan.services.pools.places import place_of


@pytest.mark.parametrize(
    ("zone", "latitude", "longitude"),
    [
        ("America/Chicago", 41.9, -87.6),
        ("Europe/Stockholm", 59.3, 18.1),
        ("Australia/Sydney", -33.9, 151.2),
        ("America/Sao_Paulo", -23.5, -46.6),
    ],
)
def test_the_chief_city(zone: str, latitude: float, longitude: float) -> None:
    assert place_of(SettingsMade(name="p", place="", time_zone=zone, profile="household")) == pytest.approx(
        (latitude, longitude), abs=0.5
    )


def test_a_zone_without_a_city_and_a_pool_with_a_place() -> None:
    assert place_of(SettingsMade(name="p", place="", time_zone="UTC", profile="household")) == (40.0, 0.0)
    own = SettingsMade(
        name="p", place="", time_zone="UTC", profile="household", latitude_deg=29.0, longitude_deg=-95.5
    )
    assert place_of(own) == (29.0, -95.5)
