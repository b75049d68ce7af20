"""How each piece of care is done, step by step, with its cautions, its timers and what is read on the way.

A row reads like the handbook's. Steps carry the condition under which they apply; `procedure_for` picks.
Sources: filter-care, cell-care, cleaning-routine, sampling, circulation-care.
"""

from collections.abc import Iterator, Mapping
from dataclasses import KW_ONLY, dataclass
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Traits

SOURCES_USED = ("filter-care", "cell-care", "cleaning-routine", "sampling", "circulation-care")


class Asks(StrEnum):
    """What a step takes in; the inner unit is in the name, or none."""

    PRESSURE_BEFORE_KPA = "pressure_before_kpa"
    PRESSURE_AFTER_KPA = "pressure_after_kpa"
    GAUGE_OFF_KPA = "gauge_off_kpa"
    WASH_S = "wash_s"
    RINSE_S = "rinse_s"
    FLOW_L_MIN = "flow_l_min"
    SCALE = "scale"
    ACID_WASHES = "acid_washes"
    LEVEL = "level"


class When(StrEnum):
    """When a step applies."""

    ALWAYS = "always"
    SMALL_POOL = "small_pool"
    NOT_SMALL = "not_small"
    CEMENT = "cement"
    NOT_CEMENT = "not_cement"
    SALT_CELL = "salt_cell"
    TABLETS = "tablets"


@dataclass(frozen=True)
class CareStep:
    """One step. `timer_s` from and to; `asks` what is read here."""

    text: Message
    hazard: Hazard = Hazard.NONE
    _: KW_ONLY
    timer_s: tuple[int, int] | None = None
    asks: tuple[Asks, ...] = ()
    when: When = When.ALWAYS


@dataclass(frozen=True)
class Procedure:
    """A piece of care: what is needed at hand, the steps, and the tasks whose dates it moves when finished."""

    key: str
    title: Message
    materials: tuple[Message, ...]
    steps: tuple[CareStep, ...]
    tasks: tuple[str, ...]
    wastes_water: bool = False


S, A = CareStep, Asks
_OFF = S(Message("Pump off at the breaker; the chlorinator off before it."), Hazard.ELECTRICITY)
_BEFORE = S(Message("Read the gauge while the pump runs."), asks=(A.PRESSURE_BEFORE_KPA,))
_AFTER = S(Message("Pump on. Read the gauge: this is the new clean pressure."), asks=(A.PRESSURE_AFTER_KPA,))
_OPEN = S(
    Message("Air relief open; the gauge must read zero before anything is opened."),
    Hazard.PRESSURE,
    asks=(A.GAUGE_OFF_KPA,),
)
_CLOSE = S(
    Message(
        "Clamp tight by hand, air relief open, stand clear, pump on; close the relief at a steady stream."
    ),
    Hazard.PRESSURE,
)
_LEAKS = S(Message("Look for leaks at lid, valves and unions."))

_ROWS: tuple[Procedure, ...] = (
    Procedure("sampling", Message("Take a sample"), (Message("A clean bottle, never one that held drink or chemicals"),), (
        S(Message("Pump on for at least 10 minutes."), timer_s=(600, 600)),
        S(Message("Deep end or mid pool, away from returns and skimmer, elbow-deep: 12 to 18 in (30 to 45 cm).")),
        S(Message("Rinse the bottle in pool water. Mouth down, lower, turn, raise.")),
        S(Message("Test at once. Strips: dip 1 s, hold level 15 s, do not shake."), timer_s=(15, 15)),
    ), ()),
    Procedure("backwash", Message("Backwash the sand filter"), (Message("Somewhere for the water that local rules allow"),), (
        _BEFORE,
        S(Message("Heater and chlorinator off, waste hose laid out, nobody in the water.")),
        S(Message("Pump off. Handle to BACKWASH."), Hazard.VALVE),
        S(Message("Pump on until the sight glass runs clear: 90 s to 2 min."), timer_s=(90, 120), asks=(A.WASH_S,), when=When.NOT_SMALL),
        S(Message("Pump on for 1 min."), timer_s=(60, 60), asks=(A.WASH_S,), when=When.SMALL_POOL),
        S(Message("Pump off. Handle to RINSE."), Hazard.VALVE),
        S(Message("Pump on for 20 to 60 s, to waste."), timer_s=(20, 60), asks=(A.RINSE_S,), when=When.NOT_SMALL),
        S(Message("Pump on for 1 min, to waste. Wash and rinse three rounds in all; note the whole time."), timer_s=(60, 60), asks=(A.RINSE_S,), when=When.SMALL_POOL),
        S(Message("Pump off. Handle to FILTER."), Hazard.VALVE),
        _AFTER,
        S(Message("Water level: refill to half or two thirds of the skimmer mouth."), asks=(A.LEVEL,)),
    ), ("backwash",), wastes_water=True),
    Procedure("cartridge_hose", Message("Hose the cartridge"), (Message("Garden hose with a fan nozzle"), Message("The second set, if there is one")), (
        _BEFORE, _OFF, _OPEN,
        S(Message("Take the cartridge out; look for tears, flat pleats and a soft core.")),
        S(Message("Hose between the pleats from top to bottom, about 5 min. No pressure washer."), timer_s=(300, 300)),
        S(Message("Wipe the lid's seal, look at it, set the cartridge straight.")),
        _CLOSE, _LEAKS, _AFTER,
    ), ("cartridge_hose",)),
    Procedure("cartridge_soak", Message("Soak the cartridge"), (Message("Cartridge cleaner or degreaser"), Message("A bucket that never held chlorine"), Message("Gloves, goggles")), (
        _BEFORE, _OFF, _OPEN,
        S(Message("Hose it off first."), timer_s=(300, 300)),
        S(Message("Soak in cleaner or degreaser by its label, overnight if it allows. Grease must go before any acid."), Hazard.ALKALI),
        S(Message("Rinse until the water runs clear and no foam is left.")),
        S(Message("Only if scale is left: acid about 1 to 20 in water, outdoors, never with chlorine near; rinse."), Hazard.ACID),
        S(Message("Let it dry; swap in the second set meanwhile.")),
        _CLOSE, _LEAKS, _AFTER,
    ), ("cartridge_soak", "cartridge_hose")),
    Procedure("cartridge_new", Message("Replace the cartridge"), (Message("A cartridge of the same size and flow"),), (
        _BEFORE, _OFF, _OPEN,
        S(Message("Old cartridge out; rinse the tank; wipe the lid's seal and look at it.")),
        S(Message("New one in, straight on its seat.")),
        _CLOSE, _LEAKS, _AFTER,
    ), ("cartridge_new", "cartridge_hose", "cartridge_soak")),
    Procedure("de_recharge", Message("Backwash and recharge the DE filter"), (Message("DE powder, about 1 lb per 10 ft² of filter area"), Message("Dust mask")), (
        _BEFORE,
        S(Message("Pump off. Handle to BACKWASH."), Hazard.VALVE),
        S(Message("Pump on until the sight glass runs clear: 90 s to 2 min."), timer_s=(90, 120), asks=(A.WASH_S,)),
        S(Message("Pump off. Handle to RINSE."), Hazard.VALVE),
        S(Message("Pump on for 20 to 60 s."), timer_s=(20, 60), asks=(A.RINSE_S,)),
        S(Message("Pump off. Handle to FILTER."), Hazard.VALVE),
        S(Message("Pump on. Mix the powder into a bucket of pool water and pour it slowly into the skimmer: the one thing that goes there."), Hazard.SILICA),
        _AFTER,
        S(Message("Powder in the pool? A torn grid: take them out."), asks=(A.LEVEL,)),
    ), ("de_recharge",), wastes_water=True),
    Procedure("de_clean", Message("Clean the DE grids"), (Message("DE powder, about 1 lb per 10 ft² of filter area"), Message("Dust mask"), Message("Hose")), (
        _BEFORE, _OFF, _OPEN,
        S(Message("Open the tank, lift the grids out, hose the old cake off. Keep it wet; bag it by local rules."), Hazard.SILICA),
        S(Message("Look for tears and bent frames; soak greasy grids in cleaner first, never acid before.")),
        S(Message("Back in, seal wiped, clamp by hand.")),
        _CLOSE,
        S(Message("Recharge with powder mixed in a bucket, slowly into the skimmer."), Hazard.SILICA),
        _LEAKS, _AFTER,
    ), ("de_clean", "de_recharge")),
    Procedure("sand_change", Message("Replace the filter sand"), (Message("Filter sand of the grade on the tank"), Message("Dust mask, gloves")), (
        _OFF, _OPEN,
        S(Message("Drain the tank, take the valve off, cover the standpipe's mouth.")),
        S(Message("Scoop the old sand out by hand near the laterals: they break."), Hazard.SILICA),
        S(Message("Half fill with water, so that falling sand does not break the laterals; pour the sand in around the pipe.")),
        S(Message("Uncover the pipe, valve on, new seal if it is flat.")),
        _CLOSE,
        S(Message("Backwash 2 min, rinse 1 min, each with the pump off while the handle moves."), Hazard.VALVE, timer_s=(120, 120)),
        _LEAKS, _AFTER,
    ), ("sand_new", "backwash"), wastes_water=True),
    Procedure("baskets", Message("Empty skimmer and pump baskets"), (Message("Lubricant for the o-ring, made for it"),), (
        S(Message("Pump off before a hand goes into the skimmer: a stuck basket comes free then."), Hazard.SUCTION),
        S(Message("Lift the skimmer's lid with a hook; look for snakes, spiders and insects first.")),
        S(Message("Basket out by a turn or a pull, the leaves kept inside it; emptied, rinsed with the hose, back. A torn one is replaced: twigs and nuts reach the pump.")),
        S(Message("A sock over the basket is held down by a clean stone.")),
        _OFF, _OPEN,
        S(Message("Pump lid off, basket out, rinsed. Look at the basket for cracks.")),
        S(Message("Wipe the lid's o-ring, look for nicks, a little lubricant; fill the pot with water.")),
        _CLOSE,
        S(Message("Prime comes within a minute? Else off: the pump must never run dry."), timer_s=(60, 60)),
        S(Message("Gauge back at its usual: that proves lid and flow."), asks=(A.PRESSURE_BEFORE_KPA,)),
        S(Message("After wind, storm or many leaves: again the same day and the next.")),
    ), ("baskets",)),
    Procedure("clean", Message("Weekly cleaning"), (Message("Net, brush, pole"), Message("Nylon brush on vinyl, steel only on bare cement")), (
        S(Message("Skim the surface, twice round."), Hazard.OPEN_WATER),
        S(Message("Leaf rake for what sank, before any vacuum: twigs and nuts clog the main drain and hurt the pump.")),
        S(Message("Pump and filter on; suction valve turned so that most comes from the main drain, nobody in the water."), Hazard.SUCTION),
        S(Message("Brush walls, steps and floor from shallow to deep, just under the waterline, slowly."), Hazard.OPEN_WATER),
        S(Message("Nylon only: steel tears vinyl, scratches fiberglass and wears paint."), when=When.NOT_CEMENT),
        S(Message("Corners, behind ladders, steps: brush there twice; above the waterline by hand.")),
        S(Message("Everything pushed toward the drain; then the valve back to about 80 % skimmer, 20 % drain."), Hazard.SUCTION),
    ), ("skim", "brush")),
    Procedure("clean_brush_first", Message("Brush, then vacuum"), (Message("Net, brush, pole, vacuum"),), (
        S(Message("Skim the surface."), Hazard.OPEN_WATER),
        S(Message("Brush from shallow to deep; let the dirt settle."), Hazard.OPEN_WATER),
        S(Message("Vacuum slowly in overlapping strokes."), Hazard.SUCTION),
        S(Message("Chemicals go in last.")),
    ), ("skim", "brush", "vacuum")),
    Procedure("clean_vacuum_first", Message("Vacuum, then brush"), (Message("Net, vacuum, brush, pole"),), (
        S(Message("Skim the surface."), Hazard.OPEN_WATER),
        S(Message("Vacuum while the floor lies still: brushing first stirs it up."), Hazard.SUCTION),
        S(Message("Brush from shallow to deep."), Hazard.OPEN_WATER),
        S(Message("Skim again. Chemicals go in last.")),
    ), ("skim", "brush", "vacuum")),
    Procedure("vacuum", Message("Vacuum to the filter"), (Message("Vacuum head, hose, pole"),), (
        S(Message("Leaf rake first. Head on the pole, hose on the head; lower it."), Hazard.OPEN_WATER),
        S(Message("Feed the hose straight down, hand over hand, until no bubble comes: the pump must not draw air.")),
        S(Message("Palm over the end, then onto the suction port in the skimmer; a canister before it keeps the pump basket free."), Hazard.SUCTION),
        S(Message("Slow, smooth, overlapping strokes; head, hose and pole off when done. Fine dead algae go to waste, where the valve has it.")),
        S(Message("Gauge up by 8 psi? Clean the filter."), asks=(A.PRESSURE_BEFORE_KPA,)),
    ), ("vacuum",)),
    Procedure("vacuum_waste", Message("Vacuum to waste"), (Message("Vacuum head, hose, pole"), Message("Somewhere for the water that local rules allow")), (
        S(Message("Water level up first: this takes water out fast.")),
        S(Message("Pump off. Handle to WASTE."), Hazard.VALVE),
        S(Message("Pump on; vacuum at once, slowly; watch the level. Note how long."), Hazard.SUCTION, asks=(A.WASH_S,)),
        S(Message("Pump off. Handle to FILTER."), Hazard.VALVE),
        S(Message("Refill to half or two thirds of the skimmer mouth."), asks=(A.LEVEL,)),
    ), ("vacuum",), wastes_water=True),
    Procedure("robot", Message("Robot cleaner"), (Message("A dry place for its power supply, away from the water"),), (
        S(Message("Not while chlorine or acid are high: any cleaner stays out then.")),
        S(Message("Power supply off. Robot into the middle, cable half way out, no loops."), Hazard.ELECTRICITY),
        S(Message("Plug in the mains last, nobody in the water; start it."), Hazard.ELECTRICITY),
        S(Message("Done: mains out first, then lift it at the handle, let it drain.")),
        S(Message("Wash its own filter or bag, look at wheels and brush, dry it. Out before chemicals go in.")),
    ), ("vacuum",)),
    Procedure("booster_cleaner", Message("Pressure cleaner with a booster pump"), (), (
        S(Message("The booster runs only while the filter pump runs: filter pump on first.")),
        S(Message("Into the water, hose without kinks; booster on by its timer or switch."), Hazard.ELECTRICITY),
        S(Message("Done: booster off first, then the filter pump if it is to stop.")),
        S(Message("Empty its bag, look at wheels and hose. Out of the water while levels are high and before chemicals.")),
    ), ("vacuum",)),
    Procedure("tile", Message("Waterline, deck and metal"), (Message("Pool-safe cleaner, soft pad, hose"),), (
        S(Message("Wipe the waterline with a pool-safe cleaner in gentle circles, never a household one.")),
        S(Message("Vinyl: a mild pool cleaner or white vinegar in water, a soft cloth; never pumice."), when=When.NOT_CEMENT),
        S(Message("A ring that feels rough is scale, not scum: pumice or an acid tile cleaner, on tile only, by its label."), Hazard.ACID, when=When.CEMENT),
        S(Message("A regular enzyme keeps the ring away.")),
        S(Message("Rinse coping, soft stone, cover tracks and metal with fresh water."), when=When.SALT_CELL),
        S(Message("Sweep the deck away from the pool.")),
    ), ("waterline", "rinse_metal")),
    Procedure("level", Message("Look at the water level"), (), (
        S(Message("Half to two thirds up the skimmer mouth. Higher does not skim, lower draws air."), asks=(A.LEVEL,)),
        S(Message("Too high: lowered by a backwash and rinse if that is due, else by the waste setting.")),
        S(Message("Too low: pump off until it is up; hard water or water with metals goes through a hose filter.")),
        S(Message("An automatic leveler that sticks hides a leak: look that it stops.")),
        S(Message("Falling faster than evaporation? Mark the level; a leak is work for a trade.")),
    ), ("level",)),
    Procedure("equipment", Message("Look round the equipment"), (Message("A torch"),), (
        S(Message("Timer: time right, also after a power cut; trippers tight, both windows as they should be."), Hazard.ELECTRICITY),
        S(Message("Listen to the motor; look for drips at pump, filter, heater, unions.")),
        S(Message("Gauge with the pump on."), asks=(A.PRESSURE_BEFORE_KPA,)),
        S(Message("Returns: is the flow as strong as ever?")),
        S(Message("Feeder: tablets left? Opened only with flow off and pressure gone, face away."), Hazard.TABLETS, when=When.TABLETS),
        S(Message("Chlorinator: lamps, setting, no scale flakes at the returns."), Hazard.CELL, when=When.SALT_CELL),
        S(Message("Drain covers whole and tight? A missing or cracked one closes the pool at once."), Hazard.SUCTION),
        S(Message("Gate closes and latches by itself; rescue pole and sign in place.")),
    ), ("equipment",)),
    Procedure("returns", Message("Aim the returns"), (), (
        S(Message("Pump off, nobody in the water."), Hazard.SUCTION),
        S(Message("Eyeballs about 45 degrees down, all turning the water one way round.")),
        S(Message("Pump on. Drop in a leaf: where it stands still is a dead zone; turn a return that way, or brush it weekly.")),
        S(Message("Suction: skimmers about 80 %, main drain 20 % in normal use."), Hazard.SUCTION),
    ), ("returns",)),
    Procedure("salt", Message("Add salt"), (Message("Refined pool-grade salt in whole bags"), Message("Brush")), (
        S(Message("Verify with a hand test before adding because of a lamp: scale, cold water, air and age all read as low salt.")),
        S(Message("Pump on, cell off."), Hazard.CELL),
        S(Message("Pour along the deep end (or the shallow end, if the maker says so) and brush until dissolved; never into the skimmer, never heaped on vinyl or on the drain.")),
        S(Message("Pump on 24 h (filter 4 to 6 h at least before it may rest).")),
        S(Message("Test by hand; then the cell on; then decide on the last bag.")),
    ), ()),
    Procedure("cell", Message("Inspect and clean the cell"), (
        Message("Bright light"), Message("Wood or plastic tool, never metal"), Message("Muriatic acid, bucket, goggles, gloves: only if scale is left"),
    ), (
        S(Message("Chlorinator off, then pump, both at the breaker; gauge at zero, air relief open, valves closed."), Hazard.CELL),
        S(Message("Unplug the cell."), Hazard.ELECTRICITY),
        S(Message("Take the cell or electrode out."), Hazard.PRESSURE),
        S(Message("Look with a bright light: how much scale? None: put it back and note it."), asks=(A.SCALE,)),
        S(Message("Rinse with fresh water until no chlorine smell is left: always, before anything else. Hose or air may loosen scale then."), Hazard.CELL_ACID),
        S(Message("Loosen what is left with a wood or plastic tool.")),
        S(Message("Only now acid, and only if scale is still there: water first, then the acid, by the mixing helper; or a ready cell cleaner."), Hazard.CELL_ACID),
        S(Message("Soak a few minutes, 10 at most, upright, terminals and cable dry; out as soon as the fizz stops."), Hazard.CELL_ACID, timer_s=(180, 600), asks=(A.ACID_WASHES,)),
        S(Message("Rinse, look again; at most once more.")),
        S(Message("Spent acid: baking soda until the fizz stops; by local rules, not onto soil or into a drain."), Hazard.ACID),
        S(Message("Refit, valves open, pump on, flow seen, then power; output and timer as they were."), Hazard.CELL),
    ), ("cell",)),
    # Asked for by a finding, with no date of their own. Origin: handbook 02, 03, 06, 07, 11, 12.
    Procedure("chlorine_not_holding", Message("Chlorine that will not hold"), (Message("Test for free and total chlorine, stabilizer; once for ammonia and phosphate"),), (
        S(Message("Not the same small dose a third time: this is a demand, not a dose.")),
        S(Message("Test free and total chlorine. Zero may be a bleached test: thin the sample with as much tap water and test again.")),
        S(Message("Test stabilizer. Near nothing: the sun takes it in hours. Over its range: it binds what you pour.")),
        S(Message("At dusk test free chlorine, and again before the sun is on the water: more than 1 ppm gone overnight is algae or what bathers left.")),
        S(Message("Combined over 0.5, or gone overnight: plan a shock.")),
        S(Message("Stabilizer fell over the winter and combined is high: test ammonia, then compare shocking with new water.")),
        S(Message("Phosphate over 100 ppb only feeds the next algae: after the water holds, not before.")),
    ), ()),
    Procedure("chlorine_too_high", Message("Chlorine that is too high"), (), (
        S(Message("Nobody in until a test reads under the swim limit."), Hazard.OPEN_WATER),
        S(Message("Cell to 0 or off, feeder closed, floater out."), Hazard.CELL, when=When.SALT_CELL),
        S(Message("Feeder closed or floater out; flow off before the lid is opened."), Hazard.TABLETS, when=When.TABLETS),
        S(Message("Cover off: the sun takes it, pump on.")),
        S(Message("No acid and no stabilizer by this test: at such a chlorine pH and stabilizer read wrong.")),
        S(Message("Test again in the evening. It must be today: plan a reducer, in halves.")),
    ), ()),
    Procedure("find_copper", Message("Find where copper comes from"), (Message("A copper test"),), (
        S(Message("Test copper in the pool and in the fill water.")),
        S(Message("An ion or mineral unit: off, and its setting written down.")),
        S(Message("An algaecide with copper in use? No more of it.")),
        S(Message("A gas heater or a heat pump with copper inside: low pH eats it. Hold pH at 7.2 or over and have a licensed trade look.")),
        S(Message("Over 0.3 ppm: a sequestrant by its label with free chlorine under 5, or part of the water new. No shock before that: it drives the stain.")),
    ), ()),
    Procedure("ammonia", Message("Test for ammonia"), (Message("An ammonia test of an aquarium kit; it reads at no chlorine only"),), (
        S(Message("At no free chlorine only: take the sample before a dose.")),
        S(Message("Each ppm of ammonia wants about 8 to 10 ppm of chlorine: count the rounds before the first bag.")),
        S(Message("Compare with new water: over a few ppm draining is often the cheaper.")),
        S(Message("Shocked: all rounds one after the other at dusk, a test between, until free chlorine stands an hour."), Hazard.OPEN_WATER),
    ), ()),
    Procedure("leak", Message("Find whether it leaks"), (Message("A bucket, a weight, a marker"),), (
        S(Message("Auto-fill off: one that sticks open hides a leak.")),
        S(Message("Bucket on a step, filled to the pool's level, both levels marked.")),
        S(Message("A day with the pump on: pool fallen more than the bucket means a leak; as much means evaporation.")),
        S(Message("The same with the pump off: falls faster with the pump on means the pressure side, at the lid or valve to waste; with it off, the shell.")),
        S(Message("Look: waste line, pump and filter, returns, light, skimmer throat, liner seams.")),
        S(Message("Never below the skimmer with the pump on; ground that is wet by wiring is a licensed electrician's."), Hazard.ELECTRICITY),
    ), ()),
    Procedure("glass", Message("Glass in the pool"), (Message("Shoes and gloves"),), (
        S(Message("Everybody out; nobody in, barefoot or in a suit, until it is cleared."), Hazard.OPEN_WATER),
        S(Message("Pump off, so that none gets to the filter."), Hazard.ELECTRICITY),
        S(Message("Large pieces by hand with gloves; then vacuum slowly, to waste where that is possible, twice over.")),
        S(Message("What cannot be seen stays dangerous: clear glass in a pool is drained and swept. The health code decides at a public pool.")),
    ), ()),
    Procedure("new_plaster", Message("The first month of new plaster"), (Message("Soft brush, acid, test kit"),), (
        S(Message("Filled at once and without a stop; a stop leaves a ring.")),
        S(Message("No salt for 30 days, no cell, no heater, no robot and no wheels until its maker allows.")),
        S(Message("Brush the whole shell twice a day for two weeks.")),
        S(Message("Test pH and alkalinity daily: pH climbs; acid in small parts, never to a fixed rule."), Hazard.ACID),
        S(Message("Calcium and stabilizer only when the dust is gone. The plasterer's own sheet comes first.")),
    ), ()),
)  # fmt: skip
PROCEDURES: Mapping[str, Procedure] = MappingProxyType({row.key: row for row in _ROWS})


def steps_for(procedure: Procedure, traits: Traits, *, small: bool) -> Iterator[CareStep]:
    """The steps that apply to a pool of these traits."""
    applies = {
        When.ALWAYS: True,
        When.SMALL_POOL: small,
        When.NOT_SMALL: not small,
        When.CEMENT: traits.surface.is_cement,
        When.NOT_CEMENT: not traits.surface.is_cement,
        When.SALT_CELL: traits.chlorination is Chlorination.SALT_CELL,
        When.TABLETS: traits.chlorination is Chlorination.TABLETS,
    }
    return (step for step in procedure.steps if applies[step.when])


_ONLY: Mapping[str, tuple[Filter, ...]] = {
    "backwash": (Filter.SAND,),
    "sand_change": (Filter.SAND,),
    "cartridge_hose": (Filter.CARTRIDGE,),
    "cartridge_soak": (Filter.CARTRIDGE,),
    "cartridge_new": (Filter.CARTRIDGE,),
    "de_recharge": (Filter.DE,),
    "de_clean": (Filter.DE,),
    "vacuum_waste": (Filter.SAND, Filter.DE),
}


# Where only "the filter" is spoken of: its usual cleaning, its deep one, and vacuuming what it lets through.
OF_FILTER: Mapping[str, Mapping[Filter, str]] = MappingProxyType({
    "filter": {Filter.SAND: "backwash", Filter.CARTRIDGE: "cartridge_hose", Filter.DE: "de_recharge"},
    "filter_deep": {Filter.SAND: "sand_change", Filter.CARTRIDGE: "cartridge_soak", Filter.DE: "de_clean"},
    "vacuum_fine": {Filter.SAND: "vacuum_waste", Filter.CARTRIDGE: "vacuum", Filter.DE: "vacuum_waste"},
})  # fmt: skip


def own_key(key: str, traits: Traits) -> str:
    """The procedure that is meant at a pool of these traits."""
    return OF_FILTER[key][traits.filter] if key in OF_FILTER else key


def procedures_for(traits: Traits) -> tuple[Procedure, ...]:
    """The procedures that make sense at a pool of these traits."""
    salted = traits.chlorination is Chlorination.SALT_CELL
    return tuple(
        row
        for row in PROCEDURES.values()
        if traits.filter in _ONLY.get(row.key, tuple(Filter)) and (salted or row.key not in ("cell", "salt"))
    )
