"""Opening and closing: every item of the handbook for the pools it names, in a safe order, each with its
caution.
"""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.journal import Cover, PoolKind, Which, Winter
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.season.plans import CLOSING, OPENING, SeasonRequest, season_plan
from tests.words import told

DAY = date(2026, 10, 17)
ABOVE_SAND = SeasonRequest(
    traits=Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.SAND),
    kind=PoolKind.ABOVE_GROUND,
    cover=Cover.SOLID,
    winter=Winter.FROST,
    skimmer_plate=True,
)
PLASTER_CELL = SeasonRequest(
    traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND),
    kind=PoolKind.IN_GROUND,
    cover=Cover.SOLID,
    winter=Winter.FROST,
)
ASKED = st.builds(
    SeasonRequest,
    traits=st.builds(
        Traits, surface=st.sampled_from(list(Surface)), chlorination=st.sampled_from(list(Chlorination)), filter=st.sampled_from(list(Filter)),
        indoor=st.booleans(),
    ),
    kind=st.sampled_from(list(PoolKind)),
    cover=st.sampled_from(list(Cover)),
    winter=st.sampled_from(list(Winter)),
    skimmer_plate=st.booleans(),
    green=st.booleans(),
)  # fmt: skip


def keys(which: Which, request: SeasonRequest) -> list[str]:
    return [item.key for item in season_plan(which, request, DAY).items]


@pytest.mark.parametrize(
    ("which", "asked_for", "expected"),
    [
        # Handbook 09, common practice: closing, items 1 to 10 and the off-season duties.
        (Which.CLOSING, ABOVE_SAND, {
            "test", "shelf", "balance", "metals", "clean", "sequestrant", "shock", "algaecide", "sand_plugs", "pillow_test", "feeder", "tablets",
            "level_plate", "filter_sand", "plant", "power", "fittings", "pillow", "cover", "store",
            "duty_water", "duty_leaves", "duty_storm",
            "blanket", "skimmer_seal", "return_plug", "light", "hoses", "flanges", "clips",
        }),
        (Which.CLOSING, PLASTER_CELL, {
            "test", "shelf", "balance", "metals", "clean", "sequestrant", "shock", "algaecide", "sand_plugs", "level_low", "filter_sand", "plant",
            "lines", "power", "cell", "feeder", "fittings", "cover", "store", "duty_water", "duty_leaves", "duty_storm",
        }),
        # Handbook 09: opening, items 1 to 11.
        (Which.OPENING, ABOVE_SAND, {
            "safety", "electrics", "cover_off", "power_off", "plugs", "level", "filter_sand", "start", "test", "clean", "balance",
            "first_shock", "stabiliser", "algaecide", "routine",
        }),
        (Which.OPENING, PLASTER_CELL, {
            "safety", "electrics", "cover_off", "power_off", "plugs", "cell_out", "level", "filter_sand", "start", "test",
            "test_salt", "clean", "balance", "first_shock", "salt", "cell_on", "stabiliser", "algaecide", "routine",
        }),
    ],
)  # fmt: skip
def test_every_item_of_the_handbook_stands(
    which: Which, asked_for: SeasonRequest, expected: set[str]
) -> None:
    assert set(keys(which, asked_for)) == expected


# Handbook 09 item by item, common practice: what the words of a list must say, for which of the two pools.
BOTH, ABOVE, SALT = (ABOVE_SAND, PLASTER_CELL), (ABOVE_SAND,), (PLASTER_CELL,)
OPENING_SAYS = (
    (
        "1 gate",
        BOTH,
        (
            "closes and latches from wide open, half open",
            "fence firm",
            "nothing to climb",
            "rescue sign",
            "drain covers",
        ),
    ),
    ("1 electrics", BOTH, ("licensed electrician",)),
    (
        "2 cover",
        BOTH,
        ("Water pumped off", "leaves off", "cleaned, dried, stored away from mice and chemicals"),
    ),
    ("3 plugs", BOTH, ("plugs out", "baskets, ladder", "hoses, unions, drain plugs, gauge", "o-rings")),
    ("3 cell", SALT, ("no power until the water is balanced",)),
    ("4 level", BOTH, ("over the middle of the skimmer", "loses its prime")),
    ("5 start", BOTH, ("look for leaks", "note the clean pressure")),
    ("6 test", BOTH, ("After ten minutes", "calcium, stabilizer, copper")),
    ("6 salt test", SALT, ("Test salt",)),
    ("7 clean", BOTH, ("brush all of it", "vacuum to waste")),
    ("8 alkalinity, tablets", BOTH, ("Alkalinity may wait a week", "twice a week")),
    ("8 balance", BOTH, ("Alkalinity, then pH", "3 to 5 while nobody swims", "1 lb per 10,000 gal")),
    ("9 salt", SALT, ("24 h of mixing", "Power the cell")),
    ("10 stabilizer", BOTH, ("from a test", "Preventive algaecide")),
    ("11 week", BOTH, ("The week begins",)),
)
CLOSING_SAYS = (
    ("48 h before", BOTH, ("full test with copper and iron", "quart to a shop", "What stands on the shelf")),
    ("1 balanced", BOTH, ("Never close on unbalanced water", "eats the liner", "stain")),
    ("2 clean", BOTH, ("debris out, brush, vacuum", "pool-safe cleaner")),
    ("3 order", BOTH, ("sequestrant by its label, before the shock too", "Shock at dusk", "Non-foaming", "at 5 or under", "add all on one day")),
    ("4 level, plate", ABOVE, ("half up the skimmer",)),
    ("4 level, low", SALT, ("Below skimmer and returns", "cover maker", "4 to 6 in")),
    ("5 filter", BOTH, ("Backwash until the glass", "drain plugs out, valve to winter or between")),
    ("5 plant", BOTH, ("Drained; plugs kept in the pump basket; hoses off", "At the breaker, before a plug or a lid is opened", "licensed electrician")),
    ("5 lines", SALT, ("High volume, low pressure", "never compressed air through filter or heater", "plugs pointed away")),
    ("5 antifreeze", BOTH, ("propylene glycol, never automotive",)),
    ("6 cell", SALT, ("Cell and flow switch cleaned, dry, stored; spacer in",)),
    ("7 fittings", BOTH, ("Ladders, steps, fittings, toys out", "solar blanket rinsed, dried, stored with a lid")),
    ("8 pillow", ABOVE, ("three quarters with cold air the day before", "tied with string", "need not stay in the middle", "cable and winch tight")),
    ("parts: blanket", ABOVE, ("Lifted slowly over the edge, for it tears", "folded into a tub with a lid", "mice and ants")),
    ("parts: waterline", ABOVE, ("also above the level", "never a corrosive household one")),
    ("parts: winter products", ABOVE, ("round the edge", "dissolved in a bucket first", "brushed until it is gone")),
    ("parts: seal", ABOVE, ("softened in warm water", "cooled with cold water so that it shrinks")),
    ("parts: plate", ABOVE, ("only the screws that match it", "the faceplate stays on", "gasket between faceplate and plate")),
    ("parts: return", ABOVE, ("before any hose comes off", "a plastic key helps", "threaded plug or winter cap", "the pool drains itself")),
    ("parts: light", ABOVE, ("Fixture off outside, threaded plug outside; dome off inside, threaded plug inside; then the outside plug out",)),
    ("parts: electricity first", ABOVE, ("before a plug or a lid is opened", "bonding wire off by who may")),
    ("parts: three hoses", ABOVE, ("Skimmer to pump, filter to chlorinator, return", "Union apart", "off their base, indoors")),
    ("parts: sand", ABOVE, ("valve to winter or between",)),
    ("parts: ladder", ABOVE, ("flanges off too: they rub the cover", "handrail off, weights out, raised without dragging")),
    ("parts: roof", BOTH, ("under a roof, never beside the chemicals",)),
    ("parts: cover", ABOVE, ("black side down, not wrapped over the skimmer", "through every loop, not under skimmer or return", "under the deck", "through the ratchet")),
    ("parts: wind", ABOVE, ("Water bags on a deck", "clips on the top rail", "a little water on the cover")),
    ("8 cover", BOTH, ("free chlorine at 3 or under", "Water bags two thirds full, not dragged, never hung jugs, not over the skimmer")),
    ("9 feeder", BOTH, ("No floating tablet feeder over winter",)),
    ("10 store", BOTH, ("Away from equipment",)),
    ("duties", BOTH, ("Over 3 in: pumped off, a plate under the pump", "nobody on or under it", "Before the first freeze",
                      "Weights, cable, wind", "Keep its receipt")),
)  # fmt: skip


@pytest.mark.parametrize(("which", "rows"), [(Which.OPENING, OPENING_SAYS), (Which.CLOSING, CLOSING_SAYS)])
def test_the_words_of_every_item_of_the_handbook(
    which: Which, rows: tuple[tuple[str, tuple[SeasonRequest, ...], tuple[str, ...]], ...]
) -> None:
    """Opening and closing for an above-ground sand pool and an in-ground plaster pool with a salt cell."""
    missing = []
    for item, pools, phrases in rows:
        for request in pools:
            reported = " | ".join(
                f"{one.title}. {one.text}" for one in season_plan(which, request, DAY).items
            ).lower()
            missing += [
                (item, request.kind.value, phrase) for phrase in phrases if phrase.lower() not in reported
            ]
    assert missing == []


def before(which: Which, request: SeasonRequest, first: str, then: str) -> bool:
    listed = keys(which, request)
    return listed.index(first) < listed.index(then)


def test_the_safe_order() -> None:
    """Handbook 09: safety round first; level before the pump; metals before the shock, algaecide after;
    salt before power.
    """
    assert keys(Which.OPENING, PLASTER_CELL)[0] == "safety"
    assert before(Which.OPENING, PLASTER_CELL, "level", "start")
    assert before(Which.OPENING, PLASTER_CELL, "start", "test")
    assert before(Which.OPENING, PLASTER_CELL, "balance", "cell_on")
    assert before(Which.OPENING, PLASTER_CELL, "salt", "cell_on")
    assert before(Which.CLOSING, PLASTER_CELL, "balance", "shock")
    assert before(Which.CLOSING, PLASTER_CELL, "metals", "shock")
    assert before(Which.CLOSING, PLASTER_CELL, "shock", "sequestrant")
    assert before(Which.CLOSING, PLASTER_CELL, "sequestrant", "algaecide")
    for opened in ("return_plug", "light", "hoses", "sand_plugs", "plant"):
        assert before(Which.CLOSING, ABOVE_SAND, "power", opened)
    for closed in ("return_plug", "skimmer_seal"):
        assert before(Which.CLOSING, ABOVE_SAND, closed, "hoses"), (
            "with one of them open the pool drains itself"
        )
        assert before(Which.CLOSING, ABOVE_SAND, closed, "plant")
    for opened in ("sand_plugs", "plant", "lines", "cell"):
        assert before(Which.CLOSING, PLASTER_CELL, "power", opened)
    assert before(Which.OPENING, PLASTER_CELL, "power_off", "plugs")
    assert before(Which.OPENING, PLASTER_CELL, "start", "filter_sand")
    assert before(Which.CLOSING, PLASTER_CELL, "shock", "algaecide")
    assert before(Which.CLOSING, PLASTER_CELL, "algaecide", "cover")


def test_dates_run_forwards_from_opening_and_backwards_from_closing() -> None:
    closing = {item.key: item.day for item in season_plan(Which.CLOSING, PLASTER_CELL, DAY).items}
    assert closing["test"] == DAY - timedelta(days=5)
    assert closing["cover"] == DAY
    assert closing["duty_water"] > DAY
    opening = {item.key: item.day for item in season_plan(Which.OPENING, PLASTER_CELL, DAY).items}
    assert min(opening.values()) == DAY
    assert opening["cell_on"] - opening["salt"] >= timedelta(days=1)  # 24 h of mixing, test again


def test_green_at_opening_hands_over_to_treatment() -> None:
    green = SeasonRequest(
        traits=ABOVE_SAND.traits,
        kind=PoolKind.ABOVE_GROUND,
        cover=Cover.SOLID,
        winter=Winter.FROST,
        green=True,
    )
    assert "rescue" in keys(Which.OPENING, green)
    assert "first_shock" not in keys(Which.OPENING, green)


def test_mild_winters_close_nothing() -> None:
    mild = SeasonRequest(
        traits=PLASTER_CELL.traits, kind=PoolKind.IN_GROUND, cover=Cover.NONE, winter=Winter.MILD
    )
    listed = keys(Which.CLOSING, mild)
    assert {"mild", "cell_mild", "duty_look"} <= set(listed)
    assert not {"plant", "lines", "power", "cell", "level_low", "cover"} & set(listed)


def test_early_is_cheap_and_late_is_told() -> None:
    """Handbook 09, common practice: 65 F is 18 C."""
    assert "almost nothing grows" in told(season_plan(Which.OPENING, PLASTER_CELL, DAY, 12.0).notes[0])
    assert "expect algae" in told(season_plan(Which.OPENING, PLASTER_CELL, DAY, 22.0).notes[0])
    assert "Wait if you can" in told(season_plan(Which.CLOSING, PLASTER_CELL, DAY, 24.0).notes[0])


@given(st.sampled_from(list(Which)), ASKED)
def test_for_any_pool_the_list_is_dated_in_order_and_cautioned(which: Which, request: SeasonRequest) -> None:
    plan = season_plan(which, request, DAY)
    days = [item.day for item in plan.items]
    assert days == sorted(days)
    assert len({item.key for item in plan.items}) == len(plan.items)
    for item in plan.items:
        assert item.hazard in HAZARDS
        assert item.cautions or item.hazard is Hazard.NONE
    assert len(plan.materials) == len(set(plan.materials))


def test_what_works_on_power_pressure_valve_or_cell_is_cautioned() -> None:
    hazards = {row.key: row.hazard for row in (*OPENING, *CLOSING)}
    assert hazards["power"] is Hazard.ELECTRICITY
    assert hazards["lines"] is Hazard.PRESSURE
    assert hazards["cell_on"] is Hazard.CELL
    assert hazards["level_low"] is Hazard.SHELL
    assert hazards["duty_water"] is Hazard.ELECTRICITY
