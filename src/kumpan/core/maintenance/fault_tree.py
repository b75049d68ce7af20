"""What is wrong with a piece of equipment: an ordered interview, each question with its test, each end with an action.

Sources: cell-faults, equipment-faults.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.messages import Message, Verbatim

SOURCES_USED = ("cell-faults", "equipment-faults")


class Part(StrEnum):
    """The piece of equipment that an interview is about."""

    CELL = "cell"
    PUMP = "pump"
    FILTER = "filter"
    CLEANER = "cleaner"
    HEATER = "heater"


@dataclass(frozen=True)
class Reply:
    """An answer, and the question it leads to; or, at an end, the `outcome`'s key."""

    key: str
    label: Message
    leads_to: str


@dataclass(frozen=True)
class Ask:
    """A question, and how to find its answer out."""

    key: str
    text: Message
    test: Message
    replies: tuple[Reply, ...]
    hazard: Hazard = Hazard.NONE


@dataclass(frozen=True)
class End:
    """What it came to, and what to do now. `station` is a screen, `procedure` a piece of care."""

    key: str
    title: Message
    action: Message
    procedure: str | None = None
    station: str | None = None
    hazard: Hazard = Hazard.NONE


@dataclass(frozen=True)
class Tree:
    """One complaint with its questions in order."""

    key: str
    title: Message
    first: str
    part: Part = Part.CELL


TREES: tuple[Tree, ...] = (
    Tree("no_chlorine", Message("No or little chlorine"), "pump"),
    Tree("check_cell", Message("The unit says: look at the cell"), "lamp_salt"),
    Tree("low_salt", Message("The unit says: low salt"), "salt_hand"),
    Tree("white_flakes", Message("White flakes at the returns"), "flakes_when"),
    Tree("no_prime", Message("The pump draws no water"), "prime_level", Part.PUMP),
    Tree("pump_noise", Message("The pump is loud, or hums"), "noise_kind", Part.PUMP),
    Tree("pump_leak", Message("The pump drips"), "leak_where", Part.PUMP),
    Tree("pressure_high", Message("Pressure is high"), "gauge_high", Part.FILTER),
    Tree("pressure_low", Message("Pressure is low"), "gauge_low", Part.FILTER),
    Tree("dirt_back", Message("Dirt comes back through the returns"), "dirt_kind", Part.FILTER),
    Tree("cleaner_still", Message("The cleaner stands still or misses places"), "cleaner_kind", Part.CLEANER),
    Tree("no_heat", Message("The water does not get warm"), "heat_flow", Part.HEATER),
)


def _yes_no(yes: str, no: str) -> tuple[Reply, ...]:
    return (Reply("yes", Message("Yes"), yes), Reply("no", Message("No"), no))


def _window(inside: str) -> tuple[Reply, ...]:
    """Under the unit's window salt is dosed, over it never: only new water helps."""
    return (
        Reply("yes", Message("Inside it"), inside),
        Reply("under", Message("Under it"), "dose_salt"),
        Reply("over", Message("Over it"), "dilute_salt"),
    )


_ASKS: tuple[Ask, ...] = (
    Ask("pump", Message("Does the pump run when the cell should?"), Message("Look at the returns now, then at the timer's windows: the chlorinator's hours must lie inside the pump's."), _yes_no("bleached", "fix_timer"), Hazard.ELECTRICITY),
    Ask("bleached", Message("Could the test be bleached by very high chlorine?"), Message("Dilute the sample one to one with tap water, test again, double it: does it read high now?"), _yes_no("very_high", "salt_hand_chlorine")),
    Ask("salt_hand_chlorine", Message("Is salt in the unit's window by a hand test?"), Message("Not by the unit's own display: scale, cold and age make it read low."), _window("cold")),
    Ask("cold", Message("Is the water 65 °F (18 °C) or colder?"), Message("A thermometer in the water, not the unit's."), _yes_no("too_cold", "setting")),
    Ask("setting", Message("Do setting and hours cover what the pool loses a day?"), Message("The cell's card under Equipment compares output and demand."), _yes_no("stabiliser", "raise_setting")),
    Ask("stabiliser", Message("Is stabilizer in its range?"), Message("A turbidity test; under 30 the sun takes the chlorine within hours."), _yes_no("algae", "add_stabiliser")),
    Ask("algae", Message("Does chlorine fall by more than 1 ppm overnight?"), Message("Test at dusk and at dawn with the cell off: no sun, so what is lost is eaten."), _yes_no("shock_it", "scale_seen")),
    Ask("scale_seen", Message("Is there scale in the cell?"), Message("Power off, pump off, look through it with a bright light."), _yes_no("clean_cell", "age"), Hazard.CELL),
    Ask("age", Message("Has the cell run near its rated hours?"), Message("The cell's card under Equipment adds them up from the log; 5,000 to 10,000 h are usual."), _yes_no("replace_cell", "call_trade")),
    Ask("lamp_salt", Message("Is salt in the unit's window by a hand test?"), Message("Test by hand in two places."), _window("bubbles")),
    Ask("bubbles", Message("Are there air bubbles in the cell or the returns?"), Message("Look through the clear parts while the pump runs: air reads as no water."), _yes_no("find_air", "flow")),
    Ask("flow", Message("Is the flow strong?"), Message("Baskets, filter pressure, valves, returns."), _yes_no("power_cycle", "restore_flow")),
    Ask("power_cycle", Message("Switched off for a minute and on again: does the lamp come back within minutes?"), Message("Only with the pump running."), _yes_no("clean_cell", "watch_it"), Hazard.CELL),
    Ask("salt_hand", Message("Where does a hand test put salt in the unit's window?"), Message("In several places; differing readings mean poor mixing, not low salt."), _window("display_off")),
    Ask("display_off", Message("Is there scale in the cell, or is the water cold?"), Message("Look through it with a bright light, power off; cold water reads low."), _yes_no("clean_cell", "calibrate"), Hazard.CELL),
    # The pump. Handbook 08 (baskets, o-ring, pot filled, start at once); the rest is common practice.
    Ask("prime_level", Message("Is the water at least half way up the skimmer's mouth?"), Message("Look at the skimmer, not at the tile."), _yes_no("prime_baskets", "fill_first")),
    Ask("prime_baskets", Message("Are the skimmer's and the pump's baskets clean and the flaps free?"), Message("Pump off at the breaker before the pot is opened."), _yes_no("prime_pot", "clean_baskets"), Hazard.SUCTION),
    Ask("prime_pot", Message("Does it draw once the pot was filled to the brim?"), Message("Off; lid off, o-ring clean, greased and seated; pot full of water; lid tight; start at once and look for two minutes."), _yes_no("primed", "prime_valves"), Hazard.ELECTRICITY),
    Ask("prime_valves", Message("Is every valve on the suction side open?"), Message("Off first. Skimmer, main drain, cleaner line: one that is shut, or a winter plug left in, starves it."), _yes_no("prime_air", "open_suction"), Hazard.VALVE),
    Ask("prime_air", Message("Does air stream through the pot, or bubble at the returns?"), Message("With the lid's clear part in the light. Shaving foam on unions and lid is drawn in where it leaks."), _yes_no("suction_air", "impeller")),
    Ask("noise_kind", Message("What does it sound like?"), Message("From a step away, hands off."), (
        Reply("gravel", Message("Gravel, rattling"), "noise_starved"),
        Reply("screech", Message("A screech or whine"), "bearings"),
        Reply("hum", Message("A hum, and it does not turn"), "motor_hums"),
        Reply("shakes", Message("It shakes"), "motor_loose"),
    )),
    Ask("noise_starved", Message("Are baskets clean, the level up and the suction valves open?"), Message("A pump that is starved of water rattles as if full of gravel."), _yes_no("suction_starved", "clean_baskets"), Hazard.SUCTION),
    Ask("leak_where", Message("Where does it drip?"), Message("Dry it with a cloth, then watch it run."), (
        Reply("lid", Message("At the lid"), "lid_seal"),
        Reply("middle", Message("Between motor and pump"), "shaft_seal"),
        Reply("union", Message("At a union or a pipe"), "union_drips"),
        Reply("plug", Message("At a drain plug"), "plug_drips"),
    )),
    # The filter. Handbook 08: gauge at zero when off, cleaned at 8 to 10 psi over clean; the rest is common practice.
    Ask("gauge_high", Message("Does the gauge read zero with the pump off?"), Message("Off, and wait until the returns are still."), _yes_no("cleaned_yet", "gauge_new"), Hazard.PRESSURE),
    Ask("cleaned_yet", Message("Did cleaning bring it back to its clean pressure?"), Message("By the filter's own procedure; the reading is noted right after."), (
        Reply("not_yet", Message("Not cleaned yet"), "clean_filter"),
        Reply("yes", Message("Yes"), "was_dirty"),
        Reply("no", Message("No, still high"), "returns_open"),
    ), Hazard.PRESSURE),
    Ask("returns_open", Message("Are all valves after the filter open and the return fittings free?"), Message("Pump off before a valve is turned."), _yes_no("media_old", "open_returns"), Hazard.VALVE),
    Ask("media_old", Message("Is the medium past its years, or was green or cloudy water filtered lately?"), Message("Sand four to seven years; a cartridge one or two; grids are taken out and looked at."), _yes_no("media_spent", "hydraulics")),
    Ask("gauge_low", Message("Does the gauge read zero with the pump off, and move when it starts?"), Message("A needle that sticks reads anything."), _yes_no("low_baskets", "gauge_new"), Hazard.PRESSURE),
    Ask("low_baskets", Message("Are baskets clean, the level up and the suction valves open?"), Message("Low pressure is too little water coming in, more often than not."), _yes_no("low_air", "clean_baskets"), Hazard.SUCTION),
    Ask("low_air", Message("Does air stream through the pot, or bubble at the returns?"), Message("Look with the pump running."), _yes_no("suction_air", "low_speed")),
    Ask("low_speed", Message("Does a variable pump run slower than usual?"), Message("Its display or its app; pressure falls with the speed, and that is no fault."), _yes_no("slow_by_choice", "impeller")),
    Ask("dirt_kind", Message("What comes back?"), Message("Hold a white cloth before a return for a minute."), (
        Reply("sand", Message("Sand"), "sand_back"),
        Reply("powder", Message("White powder (DE)"), "de_back"),
        Reply("start", Message("A cloud at the start only"), "rinse_first"),
        Reply("dust", Message("Fine dust after vacuuming"), "fine_dust"),
    )),
    # Cleaners. Handbook 08: booster only with the filter pump, robot out before chemicals; the rest is common practice.
    Ask("cleaner_kind", Message("Which kind is it?"), Message("A hose to the skimmer: suction. A hose to the wall and a pump of its own: pressure. A cable: robot."), (
        Reply("suction", Message("Suction"), "cleaner_flow"),
        Reply("pressure", Message("Pressure, booster pump"), "booster_runs"),
        Reply("robot", Message("Robot"), "robot_clean"),
    )),
    Ask("cleaner_flow", Message("Is the hose full of water, without air, and the filter clean?"), Message("Lift the head to the surface: it should pull hard. A dirty filter or an open main drain takes its flow."), _yes_no("cleaner_free", "cleaner_starved")),
    Ask("booster_runs", Message("Does the booster run while the filter pump runs?"), Message("It is never started alone: without flow it runs dry."), _yes_no("cleaner_free", "booster_order"), Hazard.ELECTRICITY),
    Ask("cleaner_free", Message("Is its throat free, its bag empty, do wheels and hose turn?"), Message("Pump off, take it out, turn each wheel by hand; the hose laid out straight in the sun loses its coils."), _yes_no("cleaner_parts", "cleaner_washed"), Hazard.ELECTRICITY),
    Ask("robot_clean", Message("Is its filter washed, its brushes free and its cable without twists?"), Message("Power off at the supply, unplugged, then lifted out by its handle."), _yes_no("robot_service", "robot_washed"), Hazard.ELECTRICITY),
    # Heaters: what an owner may look at; all inside the casing is a licensed trade's. Common practice.
    Ask("heat_flow", Message("Does the pump run with a clean filter and the heater's valves open?"), Message("A heater's own switch keeps it off without flow: that switch is never bridged."), _yes_no("heat_set", "heat_needs_flow"), Hazard.VALVE),
    Ask("heat_set", Message("Is it on, on pool and not spa, and set above the water?"), Message("Its display against a thermometer in the water."), _yes_no("heat_kind", "set_heater")),
    Ask("heat_kind", Message("What kind is it?"), Message("By its plate."), (
        Reply("gas", Message("Gas"), "gas_trade"),
        Reply("heat_pump", Message("Heat pump"), "heat_pump_cold"),
        Reply("solar", Message("Solar"), "solar_sun"),
    )),
    Ask("heat_pump_cold", Message("Is the air cold, or is there ice on it?"), Message("Most stop below about 50 °F (10 °C); its plate says where."), _yes_no("too_cold_outside", "heater_trade")),
    Ask("solar_sun", Message("Are the panels in the sun and the valve turned to them?"), Message("Warm pipe to the roof and warmer back: it works, and works slowly."), _yes_no("solar_air", "solar_valve")),
    Ask("flakes_when", Message("Did they come at the season's start, or after the polarity turned?"), Message("Scale shed from the cell's plates looks like egg shell."), _yes_no("balance", "balance")),
)  # fmt: skip
_ENDS: tuple[End, ...] = (
    End("fix_timer", Message("The cell has no flow in its hours"), Message("Set the timer so that the pump runs through the chlorinator's hours; tighten the trippers. Never bridge the flow switch."), "equipment", None, Hazard.CELL),
    End("very_high", Message("Chlorine is very high, not low"), Message("Cell off, cover off, nobody in; the sun lowers it. Test diluted until it can be read."), None, "sheet"),
    End("dose_salt", Message("Salt is low"), Message("Dose by the hand test, in whole bags, rounded down; cell off until it has dissolved, then test again."), "salt", "sheet"),
    End("dilute_salt", Message("Salt is too high"), Message("Never dose by the lamp: replace part of the water, then test by hand again."), None, "sheet"),
    End("too_cold", Message("Too cold for the unit"), Message("Cell off by its manual; chlorinate by hand until the water is warmer."), None, "sheet"),
    End("raise_setting", Message("It makes less than the pool loses"), Message("Raise the percentage or the hours under Equipment; where 100 % around the clock is not enough, the cell is too small for this pool."), None, "care"),
    End("add_stabiliser", Message("The sun takes it"), Message("Bring stabilizer to its range, in a sock; it reads after a week."), None, "sheet"),
    End("shock_it", Message("Something in the water eats it"), Message("Shock at dusk, brush, test in the morning; test phosphate if algae were seen."), None, "sheet"),
    End("clean_cell", Message("Scale on the plates"), Message("Inspect and clean in the order of the procedure: rinse before acid, always. Then look at the scaling index."), "cell", None, Hazard.CELL_ACID),
    End("replace_cell", Message("The cell is worn"), Message("Compare its output with a new one's: a replacement, by the maker's manual."), None, None, Hazard.ELECTRICITY),
    End("call_trade", Message("Nothing simple is left"), Message("Power supply and board are work for a licensed electrician or the maker's service."), None, None, Hazard.ELECTRICITY),
    End("find_air", Message("Air in the water"), Message("Pump lid's seal, water level, suction side unions: find where it draws air."), "baskets"),
    End("restore_flow", Message("Flow is weak"), Message("Baskets, filter, valves; then look at the lamp again. Never bypass the flow switch."), "baskets", None, Hazard.CELL),
    End("watch_it", Message("It was a passing fault"), Message("Note it and look again at the next visit."), None, None),
    End("calibrate", Message("The display is off"), Message("Set the unit's salt reading to the hand test by its manual; more than 400 ppm apart is worth noting each time."), None, None),
    End("fill_first", Message("The water is too low"), Message("Pump off until it is half to two thirds up the skimmer's mouth, then prime it."), "level", None, Hazard.SUCTION),
    End("clean_baskets", Message("The way in is clogged"), Message("Empty both baskets, seat the o-ring, fill the pot, lid tight, start at once; the pressure back to normal proves it."), "baskets", None, Hazard.SUCTION),
    End("primed", Message("It was air in the pot"), Message("Watch the pot for a day: if it empties again overnight, air is drawn somewhere; ask again then."), None, None),
    End("open_suction", Message("The suction side was shut"), Message("Open it with the pump off, fill the pot, start. Never run it against a closed valve."), None, None, Hazard.VALVE),
    End("suction_air", Message("It draws air"), Message("Lid's o-ring first, then unions, drain plugs and valve stems before the pump; a leak in the ground is work for a licensed trade."), "baskets", None, Hazard.ELECTRICITY),
    End("impeller", Message("The wheel may be clogged or worn"), Message("Breaker off; what can be reached through the pot by its manual comes out by hand. More than that is the maker's service."), None, None, Hazard.ELECTRICITY),
    End("suction_starved", Message("It is starved of water"), Message("Something lies in the line or the pump is too large for it: off, and a licensed trade looks; it wears out within weeks."), None, None, Hazard.SUCTION),
    End("bearings", Message("Its bearings go"), Message("It runs on for a while and then does not: have the bearings or the motor replaced before the season needs it."), None, None, Hazard.ELECTRICITY),
    End("motor_hums", Message("It cannot start"), Message("Off at once, it burns out: the starting part or a stuck wheel is work for a licensed electrician or the maker's service."), None, None, Hazard.ELECTRICITY),
    End("motor_loose", Message("It stands loose"), Message("Off; tighten its feet, put a pad under it, support the pipes so that they do not pull at it."), None, None, Hazard.ELECTRICITY),
    End("lid_seal", Message("The lid's o-ring"), Message("Off; o-ring cleaned, greased, without a crack, or a new one; hand-tight."), "baskets", None, Hazard.ELECTRICITY),
    End("shaft_seal", Message("The shaft's seal"), Message("Off: water runs into the motor. A seal is replaced with the motor off its base, by the maker's service where you have not done it."), None, None, Hazard.ELECTRICITY),
    End("union_drips", Message("A union or a glued joint"), Message("Off; union hand-tight on a clean o-ring. A glued joint is cut out and made new; never tighten under pressure."), None, None, Hazard.PRESSURE),
    End("plug_drips", Message("A drain plug"), Message("Off; out, new seal or tape by its manual, hand-tight."), None, None, Hazard.ELECTRICITY),
    End("gauge_new", Message("The gauge lies"), Message("Replace it, pump off and pressure released; until then go by the returns' flow."), None, None, Hazard.PRESSURE),
    End("clean_filter", Message("Clean the filter first"), Message("By its own procedure; note the pressure right after: that is the clean one."), "filter", None, Hazard.PRESSURE),
    End("was_dirty", Message("It was dirty, that was all"), Message("The clean pressure is noted; the next cleaning follows from how fast it rises."), None, None),
    End("open_returns", Message("The way out was shut"), Message("Open it with the pump off, clear the fittings, start with the air relief open."), None, None, Hazard.VALVE),
    End("media_spent", Message("The medium is full or spent"), Message("Sand: cleaner by its label, else new sand. Cartridge: soak it, else a new one. DE: grids out, washed, looked at for tears."), "filter_deep", None, Hazard.PRESSURE),
    End("hydraulics", Message("Not the filter"), Message("Pump and pipes do not fit, or something lies in the line: a licensed trade measures it. Never run it near the tank's limit."), None, None, Hazard.PRESSURE),
    End("slow_by_choice", Message("The speed explains it"), Message("Note pressures at one speed only, the one that the clean pressure was noted at."), None, None),
    End("sand_back", Message("A lateral or the standpipe is broken"), Message("Sand comes out of the tank: pump off until the tank has been opened and the part replaced."), "filter_deep", None, Hazard.PRESSURE),
    End("de_back", Message("A grid is torn, or the manifold leaks"), Message("Take the grids out, look at each against the light, replace what is torn; then recharge."), "filter_deep", None, Hazard.SILICA),
    End("rinse_first", Message("It was not rinsed"), Message("Sand: after each backwash rinse until the glass is clear. If it comes at every start, the valve's gasket leaks: replace it, pump off."), "filter", None, Hazard.VALVE),
    End("fine_dust", Message("Dust too fine for the filter"), Message("Vacuum it to waste where the valve has it, or run longer; a sock in the skimmer; a clarifier by its label, chlorine under 5."), "vacuum_fine", None, Hazard.VALVE),
    End("cleaner_starved", Message("It gets too little flow"), Message("Filter cleaned, air out of the hose hand over hand, more of the flow to its line; nobody in the water while the main drain is turned down."), "filter", None, Hazard.SUCTION),
    End("booster_order", Message("The booster stands, or ran alone"), Message("Timer: only inside the filter pump's hours. If it does not start, its breaker, then the trade."), "booster_cleaner", None, Hazard.ELECTRICITY),
    End("cleaner_washed", Message("It was blocked"), Message("Throat, bag, wheels and hose cleared; try it on the floor and watch one round."), None, None),
    End("cleaner_parts", Message("A part is worn"), Message("Skirt, wheels, diaphragm or hose weights by its manual; its hose length against the pool's longest way."), None, None),
    End("robot_washed", Message("It was full, or twisted"), Message("Filter washed after each run, cable laid straight, plug in last; out of the water before chemicals."), "robot", None, Hazard.ELECTRICITY),
    End("robot_service", Message("Its drive or its supply"), Message("Its error light by the manual; motors and supply are the maker's service. Never open it."), None, None, Hazard.ELECTRICITY),
    End("heat_needs_flow", Message("It gets too little flow"), Message("Clean the filter, open its valves, raise the pump's speed; a bypass set wrong starves it. Never bridge its flow switch."), "filter", None, Hazard.VALVE),
    End("set_heater", Message("It was not asked to"), Message("Set it a little over the water and give it a day; a cover at night saves more than it makes."), None, None),
    End("gas_trade", Message("A gas heater is a licensed trade's"), Message("You smell gas: touch no switch, everybody away, shut the gas outside, call from there. Else: its code, and call. High chlorine or low pH eats its exchanger: look at the balance."), None, "sheet"),
    End("too_cold_outside", Message("Too cold for it"), Message("It thaws itself and starts again when the air is warmer; never chip at the ice."), None, None, Hazard.ELECTRICITY),
    End("heater_trade", Message("Nothing simple is left"), Message("Refrigerant and power are work for a licensed trade; note its code for them."), None, None, Hazard.ELECTRICITY),
    End("solar_valve", Message("The sun does not reach it"), Message("Valve by its own sensor or by hand; by day only, at night it cools."), None, None, Hazard.VALVE),
    End("solar_air", Message("It works slowly, or holds air"), Message("Longer hours by day, the vacuum relief looked at, a cover at night. Panels leak at their joints: off first."), None, None),
    End("balance", Message("Scale is shed"), Message("pH and scaling index are too high: bring them down; the flakes dissolve or are vacuumed."), None, "sheet"),
)  # fmt: skip
ASKS: Mapping[str, Ask] = MappingProxyType({ask.key: ask for ask in _ASKS})
ENDS: Mapping[str, End] = MappingProxyType({end.key: end for end in _ENDS})


@dataclass(frozen=True)
class Interview:
    """Where an interview stands: the next question, or what it came to; with the cautions of that place."""

    ask: Ask | None
    end: End | None
    cautions: tuple[Message, ...]


def interview(tree: str, answers: Sequence[str]) -> Interview:
    """Follow the answers given. Raises InvalidInput for an unknown tree or an answer that does not fit."""
    found = next((row for row in TREES if row.key == tree), None)
    if found is None:
        known = ", ".join(row.key for row in TREES)
        raise InvalidInput(
            Message(
                '"{tree}" is not a fault known here; use one of: {known}.',
                tree=Verbatim(tree),
                known=Verbatim(known),
            ),
            "tree",
        )
    at = found.first
    for answer in answers:
        ask = ASKS.get(at)
        reply = next((row for row in ask.replies if row.key == answer), None) if ask is not None else None
        if reply is None:
            raise InvalidInput(
                Message(
                    '"{answer}" does not answer what is asked here; go one step back.',
                    answer=Verbatim(answer),
                ),
                "answers",
            )
        at = reply.leads_to
    if at in ASKS:
        return Interview(ASKS[at], None, cautions_for(ASKS[at].hazard))
    return Interview(None, ENDS[at], cautions_for(ENDS[at].hazard))
