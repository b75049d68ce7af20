"""Eight people with what stands on their shelf: from setting up the pool to the log, in the browser."""

import re
from dataclasses import dataclass
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import OpenPage, reported
from tests.web.conftest import Json

pytestmark = pytest.mark.browser


@dataclass(frozen=True, kw_only=True)
class Shelf:
    """Whose it is: the kind of pool, a product as it is added by hand, the rest of the kit by chemical, strength
    and package, what is read, and what is poured of the first.
    """

    who: str
    kind: str
    product: str
    package: str
    read: str
    poured: str
    noted: str
    kit: tuple[tuple[str, float, str], ...]


SHELVES = (
    Shelf(who="Strips and tablets", kind="In-ground vinyl, tablets then liquid", product="Trichlor tablets",
          package="25 lb", read="fc 2 ph 7.4 ta 100 cya 30 82f", poured="2 lb", noted="2 lb",
          kit=(("sodium_hypochlorite", 10, "1 gal"), ("sodium_bisulfate", 93.2, "10 lb"), ("sodium_bicarbonate", 100, "12 lb"))),
    Shelf(who="Soft-sided", kind="Small soft-sided pool", product="Dichlor granules", package="2 lb",
          read="fc 1 ph 7.4 ta 90 cya 20 82f", poured="half a bag", noted="1 lb",
          kit=(("sodium_bisulfate", 93.2, "5 lb"), ("sodium_carbonate", 100, "5 lb"), ("clarifier", 100, "1 qt"))),
    Shelf(who="Salt at 4000", kind="In-ground plaster, salt cell", product="Pool salt", package="40 lb",
          read="fc 3 ph 7.6 ta 80 ch 300 cya 70 salt 3200 82f", poured="2 bags", noted="80 lb",
          kit=(("hydrochloric_acid", 31.45, "1 gal"), ("cyanuric_acid", 100, "4 lb"), ("sodium_hypochlorite", 10, "2.5 gal"))),
    Shelf(who="Ion unit", kind="Mineral or ion unit", product="Algaecide, copper (by its label)", package="1 qt",
          read="fc 1 ph 7.4 ta 90 ch 250 cya 30 82f", poured="2 fl oz", noted="2 fl oz",
          kit=(("mineral_starter", 100, "2 lb"), ("sodium_dichlor", 56, "5 lb"), ("enzyme", 100, "1 qt"), ("phosphate_remover", 100, "1 qt"))),
    Shelf(who="Service truck", kind="In-ground, liquid chlorine by hand", product="Liquid chlorine",
          package="2.5 gal", read="fc 1 ph 7.8 ta 110 ch 250 cya 40 82f", poured="1 jug", noted="2½ gal",
          kit=(("hydrochloric_acid", 31.45, "1 gal"), ("trichlor", 90, "50 lb"), ("calcium_chloride", 77, "25 lb"), ("sodium_bicarbonate", 100, "50 lb"), ("cyanuric_acid", 100, "8 lb"))),
    Shelf(who="Closing kit", kind="Above-ground, hard sides", product="Algaecide, polyquat (by its label)",
          package="1 qt", read="fc 2 ph 7.4 ta 100 cya 30 60f", poured="8 fl oz", noted="8 fl oz",
          kit=(("calcium_hypochlorite", 65, "1 lb"), ("sequestrant", 100, "1 qt"), ("sodium_bicarbonate", 100, "5 lb"))),
    Shelf(who="Algae kit", kind="Opened late, or green", product="Clarifier (by its label)", package="1 qt",
          read="fc 4 ph 7.4 ta 100 ch 250 cya 40 82f", poured="4 fl oz", noted="4 fl oz",
          kit=(("sodium_hypochlorite", 10, "2.5 gal"), ("hydrochloric_acid", 31.45, "1 gal"), ("algaecide_polyquat", 60, "1 qt"), ("flocculant", 100, "1 gal"))),
    Shelf(who="Indoor", kind="Indoor pool", product="Dry acid", package="10 lb",
          read="fc 2 ph 7.9 ta 100 ch 250 84f", poured="8 oz", noted="8 oz",
          kit=(("sodium_hypochlorite", 10, "1 gal"), ("sodium_bicarbonate", 100, "12 lb"), ("potassium_monopersulfate", 42, "5 lb"))),
)  # fmt: skip


@pytest.mark.parametrize("shelf", SHELVES, ids=lambda shelf: shelf.who)
def test_from_setting_up_to_the_log(open_page: OpenPage, shelf: Shelf) -> None:
    page = open_page("/pools/new/all")
    page.get_by_text(shelf.kind, exact=True).click()
    page.get_by_label("Name", exact=True).fill(shelf.who)
    for label, feet in (
        ("Length, ft", "32"),
        ("Width, ft", "16"),
        ("Shallow end, ft", "3"),
        ("Deep end, ft", "5"),
    ):
        page.get_by_label(label).fill(feet)
    page.get_by_role("button", name="Set up this pool").click()
    expect(page.get_by_role("region", name="Look", exact=True)).to_be_visible()
    path = re.sub(r"/test.*", "", page.url)

    page.goto("/shelf")
    page.get_by_label("What it is").select_option(label=shelf.product)
    page.get_by_label("Name on the label, if you like").fill(f"Of {shelf.who}")
    page.get_by_label(re.compile("One package")).fill(shelf.package)
    page.get_by_role("button", name="Put it on the shelf").click()
    expect(page.get_by_text(f"Of {shelf.who}").first).to_be_visible()

    for chemical, strength, package in shelf.kit:
        body: dict[str, Json] = {
            "id": str(uuid4()),
            "name": f"Kit {chemical[:4]} of {shelf.who}",
            "chemical": chemical,
        }
        body |= {"strength_percent": strength, "package": package}
        reported(page, "/shelf", body)

    page.goto(f"{path}/test")
    line = page.get_by_label("Quick line, then Enter")
    line.fill(shelf.read)
    line.press("Enter")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    page.goto(f"{path}/plan")
    expect(page.get_by_label("Plan")).to_be_visible()
    expect(page.get_by_role("region", name="Second opinion")).to_be_visible()
    expect(page.get_by_text("Computed with a standard shelf", exact=False)).to_have_count(0)

    page.goto(f"{path}/log")
    page.get_by_role("button", name="Add to the log").click()
    page.get_by_label("Product").select_option(label=f"Of {shelf.who}")
    page.get_by_label("How much").fill(shelf.poured)
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text(f"Added Of {shelf.who}")).to_be_visible()
    expect(page.get_by_text(shelf.noted).first).to_be_visible()
