"""Towns by name and by place. Places from an atlas, from memory, to a tenth of a degree."""

from zoneinfo import available_timezones

import pytest

from kumpan.services.pools.towns import MOST_FOUND, _towns, find_towns, nearest_town


@pytest.mark.parametrize(
    ("typed", "name", "region", "latitude", "longitude", "zone"),
    [
        ("phoen", "Phoenix", "AZ", 33.4, -112.1, "America/Phoenix"),
        ("Portland, me", "Portland", "ME", 43.7, -70.3, "America/New_York"),
        ("MALMO", "Malmö", "SE", 55.6, 13.0, "Europe/Stockholm"),
        ("sydney", "Sydney", "AU", -33.9, 151.2, "Australia/Sydney"),
        ("Québec", "Québec", "QC", 46.8, -71.2, "America/Toronto"),
    ],
)
def test_found_as_typed(
    typed: str, name: str, region: str, latitude: float, longitude: float, zone: str
) -> None:
    found = find_towns(typed)[0]
    assert (found.name, found.region, found.time_zone) == (name, region, zone)
    assert (found.latitude_deg, found.longitude_deg) == pytest.approx((latitude, longitude), abs=0.1)
    near = nearest_town(found.latitude_deg + 0.01, found.longitude_deg)
    assert near.time_zone == zone


def test_the_readers_own_zone_comes_first() -> None:
    assert find_towns("portland", "America/New_York")[0].region == "ME"
    assert find_towns("portland")[0].region == "OR"


def test_nothing_typed_and_nothing_known_find_nothing() -> None:
    assert find_towns("  ") == find_towns(", ME") == find_towns("zzzzqq") == []
    assert len(find_towns("san")) == MOST_FOUND


def test_over_the_date_line_the_near_town_is_near() -> None:
    """Fiji lies on both sides of 180 degrees."""
    assert nearest_town(-17.8, -179.9).time_zone == "Pacific/Fiji"


def test_every_zone_of_the_list_is_one() -> None:
    assert {town.time_zone for _, town in _towns()} <= available_timezones()
