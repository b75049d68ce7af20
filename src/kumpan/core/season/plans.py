"""Opening and closing as dated lists, forwards or backwards from one day, for the pool as it is built.

A row reads like the handbook's; `when` says for which pools it stands. Source: season-lists.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum

from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.journal import Cover, PoolKind, SeasonListSaved, Which, Winter
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits

SOURCE = "season-lists"

SWIM_SEASON_C = 18.0  # 65 F: under it almost nothing grows


class When(StrEnum):
    """For which pools a row stands."""

    ALWAYS = "always"
    FROST = "frost"
    MILD = "mild"
    COVERED = "covered"
    ABOVE_GROUND = "above_ground"
    ABOVE_GROUND_FROST = "above_ground_frost"
    ABOVE_GROUND_COVERED = "above_ground_covered"
    IN_GROUND = "in_ground"
    SALT_CELL = "salt_cell"
    TABLETS = "tablets"
    SAND = "sand"
    CARTRIDGE = "cartridge"
    DE = "de"
    VINYL = "vinyl"
    PLATE = "plate"
    NO_PLATE = "no_plate"
    CLEAR = "clear"
    GREEN = "green"
    OUTDOOR = "outdoor"


class Dosed(StrEnum):
    """Which amounts an item takes from the test."""

    BALANCE = "balance"
    SHOCK = "shock"
    SALT = "salt"
    STABILIZER = "stabiliser"
    SEQUESTRANT = "sequestrant"
    ALGAECIDE = "algaecide"


@dataclass(frozen=True, kw_only=True)
class SeasonRequest:
    """The pool as the lists see it. `skimmer_plate` seals the skimmer over winter; `green` as found at opening."""

    traits: Traits
    kind: PoolKind
    cover: Cover
    winter: Winter
    skimmer_plate: bool = False
    green: bool = False


@dataclass(frozen=True)
class Row:
    """One item: `day` counts from the opening or closing day; `minutes` to circulate after it.

    `dosed` which amounts the test gives for it; `every_days` how often a duty comes round after the first time.
    """

    key: str
    day: int
    title: Message
    text: Message
    when: tuple[When, ...] = (When.ALWAYS,)
    hazard: Hazard = Hazard.NONE
    minutes: int = 0
    materials: tuple[Message, ...] = ()
    station: str | None = None
    dosed: Dosed | None = None
    every_days: int = 0


W, H, D = When, Hazard, Dosed
OPENING: tuple[Row, ...] = (
    Row("safety", 0, Message("Safety round"), Message("Gate closes and latches from wide open, half open and a few inches; fence firm, its foot not rusted; nothing to climb near it; rescue sign in view, pole in place; drain covers whole and tight."), hazard=H.SUCTION),
    Row("electrics", 0, Message("Electrics"), Message("Any doubt about wiring, bonding or the breaker: a licensed electrician before anything is switched on."), hazard=H.ELECTRICITY),
    Row("cover_off", 0, Message("Cover off"), Message("Water pumped off with a GFCI or RCD protected pump, leaves off, then the cover; cleaned, dried, stored away from mice and chemicals. Nobody on or under it."), (W.COVERED,), H.ELECTRICITY, materials=(Message("cover pump"), Message("pool-safe cleaner"))),
    Row("power_off", 0, Message("Electricity stays off"), Message("At the breaker, until plugs and fittings are in, the level is up and everything is closed."), (W.FROST,), H.ELECTRICITY),
    Row("plugs", 0, Message("Plugs out, fittings in"), Message("Winter plugs out; baskets, ladder, returns' eyeballs in; hoses, unions, drain plugs, gauge; o-rings looked at and greased."), (W.FROST,), materials=(Message("o-ring lubricant"), Message("sealing tape"))),
    Row("cell_out", 0, Message("Cell stays without power"), Message("Spacer or cell in place, but no power until the water is balanced and salt is in its window."), (W.SALT_CELL,), H.CELL),
    Row("level", 0, Message("Water level"), Message("Fill to over the middle of the skimmer mouth before the pump starts: a pump that draws air loses its prime.")),
    Row("filter", 0, Message("Filter ready"), Message("A clean cartridge, or a new one."), (W.CARTRIDGE,), materials=(Message("cartridge"),)),
    Row("filter_de", 0, Message("Filter ready"), Message("Grids clean, recharged with powder."), (W.DE,), H.SILICA, materials=(Message("DE powder"), Message("dust mask"))),
    Row("start", 0, Message("Prime and start"), Message("Valves open, air relief open, pump on; look for leaks; note the clean pressure."), hazard=H.PRESSURE, minutes=10),
    Row("filter_sand", 0, Message("Filter ready"), Message("Backwash until the glass is clear, then rinse."), (W.SAND,), H.VALVE),
    Row("test", 0, Message("Test everything"), Message("After ten minutes: chlorine, pH, alkalinity, calcium, stabilizer, copper. Over a winter stabilizer can turn to ammonia: near 0, with much combined chlorine and a huge demand, is not a wrong test."), materials=(Message("fresh reagents or strips"),), station="slip"),
    Row("test_salt", 0, Message("Test salt"), Message("Drained water took salt with it. Add nothing by the lamp."), (W.SALT_CELL,), station="slip"),
    Row("clean", 0, Message("Debris, brush, vacuum"), Message("Leaves out, brush all of it, vacuum to waste where the filter has that setting."), hazard=H.SUCTION),
    Row("balance", 1, Message("Balance"), Message("Alkalinity, then pH, by the plan, with its waits. Alkalinity may wait a week where no rain has met the winter water yet."), station="sheet", dosed=D.BALANCE),
    Row("first_shock", 1, Message("First shock"), Message("Clear water: chlorine to 3 to 5 while nobody swims, and a first shock at dusk; about 1 lb per 10,000 gal is the trade's measure, the plan computes yours. Where tablets keep the pool, they begin after it, twice a week."), (W.CLEAR,), H.OXIDIZER_GRANULES, station="shock", dosed=D.SHOCK),
    Row("rescue", 1, Message("Green: treat it first"), Message("Found green: the rescue board plans it in stages, brush and filter round the clock; the rest of this list waits until it is clear."), (W.GREEN,), H.OXIDIZER_GRANULES, station="rescue"),
    Row("salt", 2, Message("Salt to its window"), Message("By a hand test, in whole bags rounded down, cell off; 24 h of mixing, test again."), (W.SALT_CELL,), materials=(Message("pool salt"),), station="sheet", dosed=D.SALT),
    Row("cell_on", 4, Message("Power the cell"), Message("Water balanced, salt in its window, warmer than the unit's limit: cell in, flow seen, power on."), (W.SALT_CELL,), H.CELL),
    Row("stabiliser", 7, Message("Stabilizer"), Message("When it is clear, from a test."), (W.OUTDOOR,), materials=(Message("stabilizer"),), station="sheet", dosed=D.STABILIZER),
    Row("algaecide", 7, Message("Preventive algaecide"), Message("If you use one: by its label, when free chlorine is back under 5."), materials=(Message("preventive algaecide, if you use one"),), station="label", dosed=D.ALGAECIDE),
    Row("routine", 7, Message("The week begins"), Message("Tests twice a week, cleaning, care by the list; pump hours and schedule back to the season's."), station="care"),
)  # fmt: skip
CLOSING: tuple[Row, ...] = (
    Row("test", -5, Message("Test everything"), Message("Five days before: the full test with copper and iron; a quart to a shop if it does the metals."), station="slip"),
    Row("shelf", -5, Message("What stands on the shelf"), Message("Winter chemicals, plugs, antifreeze only where it is advised (propylene glycol, never automotive)."), station="shelf"),
    Row("balance", -5, Message("Balance"), Message("Never close on unbalanced water: for months nothing moves it. Low pH eats the liner, copper and iron stain."), station="sheet", dosed=D.BALANCE),
    Row("clean", -1, Message("Clean it"), Message("Leaves and debris out, brush, vacuum; waterline, also above the level, with a pool-safe cleaner, never a corrosive household one."), hazard=H.SUCTION, materials=(Message("pool-safe cleaner"),)),
    Row("metals", -5, Message("Metals first"), Message("Only where copper or iron over 0.3 was found: sequestrant by its label, before the shock too."), minutes=120, materials=(Message("sequestrant, if metals are found"),), station="label", dosed=D.SEQUESTRANT),
    Row("shock", -5, Message("Shock at dusk"), Message("With the pump running, nothing else with it, round the edge. Granules dissolved in a bucket first; what lies on the floor is brushed until it is gone."), (W.OUTDOOR,), H.OXIDIZER_GRANULES, 120, station="shock", dosed=D.SHOCK),
    Row("sequestrant", -2, Message("Sequestrant"), Message("When a test finds free chlorine at 5 or under, usually two to four days after the shock: chlorine destroys it sooner. By its label; circulate an hour or two."), minutes=120, materials=(Message("sequestrant"),), station="label", dosed=D.SEQUESTRANT),
    Row("algaecide", -1, Message("Winter algaecide"), Message("Non-foaming, the day after the sequestrant. Some begin two days before and add all on one day: faster, and chlorine then eats part of what went in."), minutes=120, materials=(Message("non-foaming winter algaecide"),), station="label", dosed=D.ALGAECIDE),
    Row("blanket", -1, Message("Solar blanket off"), Message("Lifted slowly over the edge, for it tears; rinsed, cleaned, dried, folded into a tub with a lid, away from mice and ants."), (W.ABOVE_GROUND,)),
    Row("pillow_test", -1, Message("Air pillow"), Message("Inflate three quarters with cold air the day before: a leak shows by morning."), (W.ABOVE_GROUND_COVERED,), materials=(Message("air pillow"), Message("cord"))),
    Row("feeder", 0, Message("No feeder in the pool"), Message("No floating tablet feeder over winter: it bleaches liner and plaster.")),
    Row("tablets", 0, Message("Feeder emptied"), Message("Flow off, pressure gone, face away. Wet tablets never go back into a tub nor into the bin: let them dissolve in the pool before the closing, by their label."), (W.TABLETS,), H.TABLETS),
    Row("level_plate", 0, Message("Water level"), Message("With a skimmer seal or plate: half up the skimmer."), (W.PLATE,), materials=(Message("skimmer seal or plate"),)),
    Row("level_low", 0, Message("Water level"), Message("Below skimmer and returns, by the cover maker: 4 to 6 in under the skimmer in an in-ground pool. Never empty it: ground water lifts shells."), (W.NO_PLATE, W.FROST), H.SHELL),
    Row("filter_sand", 0, Message("Last backwash"), Message("Backwash until the glass is clear; the pump off before the handle moves."), (W.SAND, W.FROST), H.VALVE),
    Row("power", 0, Message("Electricity off"), Message("At the breaker, before a plug or a lid is opened; anything hard-wired by a licensed electrician."), (W.FROST,), H.ELECTRICITY),
    Row("skimmer_seal", 0, Message("Skimmer sealed"), Message("A snap-in seal softened in warm water, pressed over the lip, cooled with cold water so that it shrinks tight. Or a plate: only the screws that match it out, the faceplate stays on, gasket between faceplate and plate, screws back."), (W.ABOVE_GROUND, W.PLATE)),
    Row("return_plug", 0, Message("Return closed, before any hose comes off"), Message("Eyelet out, a plastic key helps; threaded plug or winter cap in, its o-ring sound. With an open return, or a skimmer without seal or plate, the pool drains itself once the hoses are off."), (W.ABOVE_GROUND_FROST,), H.SHELL, materials=(Message("return plug or winter cap"),)),
    Row("light", 0, Message("Light through the wall, if there is one"), Message("Fixture off outside, threaded plug outside; dome off inside, threaded plug inside; then the outside plug out."), (W.ABOVE_GROUND_FROST,), H.ELECTRICITY),
    Row("hoses", 0, Message("The three hoses off"), Message("Skimmer to pump, filter to chlorinator, return; only when skimmer and return are closed. Union apart, pump and filter drained fully, off their base, indoors. The bonding wire off by who may."), (W.ABOVE_GROUND_FROST,), H.PRESSURE),
    Row("sand_plugs", 0, Message("Sand filter drained"), Message("Pressure gone, drain plugs out, valve to winter or between two settings."), (W.SAND, W.FROST), H.PRESSURE),
    Row("filter_cartridge", 0, Message("Filter"), Message("Cartridges washed, dried, kept indoors; tank drained."), (W.CARTRIDGE, W.FROST), H.PRESSURE),
    Row("filter_de", 0, Message("Filter"), Message("Grids washed, tank drained."), (W.DE, W.FROST), H.SILICA),
    Row("plant", 0, Message("Pump, heater, chlorinator"), Message("Drained; plugs kept in the pump basket; hoses off."), (W.FROST,), H.PRESSURE),
    Row("lines", 0, Message("Lines blown out and plugged"), Message("High volume, low pressure; never compressed air through filter or heater; plugs pointed away."), (W.FROST, W.IN_GROUND), H.PRESSURE, materials=(Message("winter plugs"), Message("blower"))),
    Row("cell", 0, Message("Cell and flow switch out"), Message("Cell and flow switch cleaned, dry, stored; spacer in. The control box may stay."), (W.SALT_CELL, W.FROST), H.CELL, materials=(Message("cell spacer"),)),
    Row("cell_mild", 0, Message("Cell off in the cold"), Message("Below the unit's limit: off, chlorinate by hand."), (W.SALT_CELL, W.MILD), H.CELL),
    Row("fittings", 0, Message("Ladders, steps, fittings, toys out"), Message("The solar blanket rinsed, dried, stored with a lid. All of it under a roof, never beside the chemicals.")),
    Row("flanges", 0, Message("Ladder out of its flanges"), Message("The flanges off too: they rub the cover. Drop-in steps: handrail off, weights out, raised without dragging on the liner."), (W.ABOVE_GROUND,)),
    Row("pillow", 0, Message("Pillow tied, cover on"), Message("Pillow tied with string, it need not stay in the middle; cover over it black side down, not wrapped over the skimmer; cable through every loop, not under skimmer or return, with a walk deck under the deck; both ends through the ratchet, cable and winch tight."), (W.ABOVE_GROUND_COVERED,)),
    Row("clips", 0, Message("Held against the wind"), Message("Water bags on a deck, two thirds full; clips on the top rail elsewhere; a little water on the cover."), (W.ABOVE_GROUND_COVERED,), materials=(Message("cover clips"),)),
    Row("cover", 0, Message("Cover on"), Message("When a test finds free chlorine at 3 or under, not by the calendar. Water bags two thirds full, not dragged, never hung jugs, not over the skimmer. Keep its receipt. Nobody on or under it."), (W.COVERED,), materials=(Message("cover"), Message("water bags"))),
    Row("store", 0, Message("Chemicals stored"), Message("Away from equipment, apart from each other, dry, locked.")),
    Row("mild", 0, Message("Through the mild winter"), Message("No closing: shorter pump hours, freeze guard on, test weekly, chlorinate by hand when the cell stops."), (W.MILD,)),
    Row("duty_water", 21, Message("Water on the cover"), Message("Over 3 in: pumped off, a plate under the pump, GFCI or RCD protected. Water on a cover drowns children: nobody on or under it."), (W.COVERED,), H.ELECTRICITY, materials=(Message("cover pump"),), every_days=21),
    Row("duty_leaves", 28, Message("Leaves off"), Message("Before the first freeze."), (W.COVERED,)),
    Row("duty_storm", 30, Message("After storms"), Message("Weights, cable, wind under the cover; the level."), every_days=30),
    Row("duty_look", 60, Message("A look at mid-winter"), Message("Level, clarity, chlorine."), (W.MILD,), every_days=45),
)  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class DatedItem:
    """An item on its day, with the cautions of its step."""

    key: str
    day: date
    title: Message
    text: Message
    hazard: Hazard
    cautions: tuple[Message, ...]
    minutes: int
    station: str | None
    dosed: Dosed | None = None
    every_days: int = 0
    materials: tuple[Message, ...] = ()
    own: bool = False


@dataclass(frozen=True)
class SeasonPlan:
    """The list in its order, and words about the day itself."""

    which: Which
    items: tuple[DatedItem, ...]
    notes: tuple[Message, ...]

    @property
    def materials(self) -> tuple[Message, ...]:
        """What to have at hand for its items, each once."""
        return tuple(dict.fromkeys(thing for item in self.items for thing in item.materials))


def season_plan(which: Which, request: SeasonRequest, day: date, water_c: float | None = None) -> SeasonPlan:
    """The dated plan. `water_c` is the water on that day, for the word on early and late."""
    rows = sorted(_fitting(OPENING if which is Which.OPENING else CLOSING, request), key=lambda row: row.day)
    items = tuple(
        DatedItem(
            key=row.key,
            day=day + timedelta(days=row.day),
            title=row.title,
            text=row.text,
            hazard=row.hazard,
            cautions=cautions_for(row.hazard),
            minutes=row.minutes,
            station=row.station,
            dosed=row.dosed,
            every_days=row.every_days,
            materials=row.materials,
        )
        for row in rows
    )
    return SeasonPlan(which, items, tuple(_notes(which, request, water_c)))


def saved_plan(
    saved: SeasonListSaved, traits: Traits, *, green: bool, water_c: float | None = None
) -> SeasonPlan:
    """A list as the user keeps it: the handbook's items less those left out, with their own in their place."""
    request = SeasonRequest(
        traits=traits,
        kind=saved.kind,
        cover=saved.cover,
        winter=saved.winter,
        skimmer_plate=saved.skimmer_plate,
        green=green,
    )
    found = season_plan(saved.which, request, saved.day, water_c)
    own = [
        DatedItem(
            key=item.key,
            day=saved.day + timedelta(days=item.day),
            title=Message("{title}", title=Verbatim(item.title)),
            text=Message("{text}", text=Verbatim(item.text)) if item.text else NOTHING,
            hazard=Hazard.NONE,
            cautions=(),
            minutes=0,
            station=None,
            own=True,
        )
        for item in saved.own
    ]
    stay = [item for item in found.items if item.key not in saved.left_out]
    return replace(found, items=tuple(sorted((*stay, *own), key=lambda item: item.day)))


def _fitting(rows: Sequence[Row], request: SeasonRequest) -> Iterator[Row]:
    traits = request.traits
    covered = request.cover is not Cover.NONE
    above = request.kind is PoolKind.ABOVE_GROUND
    stands = {
        When.ALWAYS: True,
        When.FROST: request.winter is Winter.FROST,
        When.MILD: request.winter is Winter.MILD,
        When.COVERED: covered,
        When.ABOVE_GROUND: above,
        When.ABOVE_GROUND_FROST: above and request.winter is Winter.FROST,
        When.ABOVE_GROUND_COVERED: above and covered,
        When.IN_GROUND: not above,
        When.SALT_CELL: traits.chlorination is Chlorination.SALT_CELL,
        When.TABLETS: traits.chlorination is Chlorination.TABLETS,
        When.SAND: traits.filter is Filter.SAND,
        When.CARTRIDGE: traits.filter is Filter.CARTRIDGE,
        When.DE: traits.filter is Filter.DE,
        When.VINYL: traits.surface is Surface.VINYL,
        When.PLATE: request.skimmer_plate,
        When.NO_PLATE: not request.skimmer_plate,
        When.CLEAR: not request.green,
        When.GREEN: request.green,
        When.OUTDOOR: not traits.indoor,
    }
    return (row for row in rows if all(stands[when] for when in row.when))


def _notes(which: Which, request: SeasonRequest, water_c: float | None) -> Iterator[Message]:
    if which is Which.OPENING:
        if water_c is not None and water_c > SWIM_SEASON_C:
            yield Message(
                "By that day the water is over 65 °F (18 °C): expect algae; the shock may need its repeats."
            )
        else:
            yield Message("Early is cheap: under 65 °F (18 °C) almost nothing grows.")
    elif water_c is not None and water_c > SWIM_SEASON_C:
        yield Message(
            "On that day the water is still over 65 °F (18 °C): closed then, it stands warm and still. Wait if you can."
        )
    if which is Which.CLOSING and request.winter is Winter.MILD:
        yield Message("Mild winters need no closing: this is the list of what still changes.")
    yield Message("Household guidance: cover maker, equipment manuals and licensed trades come first.")
