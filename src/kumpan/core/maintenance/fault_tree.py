"""Why the chlorinator does not chlorinate: an ordered interview, each question with its test, each end with an action.

Source: cell-faults.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.messages import Message, Verbatim

SOURCE = "cell-faults"


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


TREES: tuple[Tree, ...] = (
    Tree("no_chlorine", Message("No or little chlorine"), "pump"),
    Tree("check_cell", Message("The unit says: look at the cell"), "lamp_salt"),
    Tree("low_salt", Message("The unit says: low salt"), "salt_hand"),
    Tree("white_flakes", Message("White flakes at the returns"), "flakes_when"),
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
    Ask("setting", Message("Do setting and hours cover what the pool loses a day?"), Message("The cell's bench compares output and demand."), _yes_no("stabiliser", "raise_setting")),
    Ask("stabiliser", Message("Is stabilizer in its range?"), Message("A turbidity test; under 30 the sun takes the chlorine within hours."), _yes_no("algae", "add_stabiliser")),
    Ask("algae", Message("Does chlorine fall by more than 1 ppm overnight?"), Message("Test at dusk and at dawn with the cell off: no sun, so what is lost is eaten."), _yes_no("shock_it", "scale_seen")),
    Ask("scale_seen", Message("Is there scale in the cell?"), Message("Power off, pump off, look through it with a bright light."), _yes_no("clean_cell", "age"), Hazard.CELL),
    Ask("age", Message("Has the cell run near its rated hours?"), Message("The cell's bench adds them up from the log; 5,000 to 10,000 h are usual."), _yes_no("replace_cell", "call_trade")),
    Ask("lamp_salt", Message("Is salt in the unit's window by a hand test?"), Message("Test by hand in two places."), _window("bubbles")),
    Ask("bubbles", Message("Are there air bubbles in the cell or the returns?"), Message("Look through the clear parts while the pump runs: air reads as no water."), _yes_no("find_air", "flow")),
    Ask("flow", Message("Is the flow strong?"), Message("Baskets, filter pressure, valves, returns."), _yes_no("power_cycle", "restore_flow")),
    Ask("power_cycle", Message("Switched off for a minute and on again: does the lamp come back within minutes?"), Message("Only with the pump running."), _yes_no("clean_cell", "watch_it"), Hazard.CELL),
    Ask("salt_hand", Message("Where does a hand test put salt in the unit's window?"), Message("In several places; differing readings mean poor mixing, not low salt."), _window("display_off")),
    Ask("display_off", Message("Is there scale in the cell, or is the water cold?"), Message("Look through it with a bright light, power off; cold water reads low."), _yes_no("clean_cell", "calibrate"), Hazard.CELL),
    Ask("flakes_when", Message("Did they come at the season's start, or after the polarity turned?"), Message("Scale shed from the cell's plates looks like egg shell."), _yes_no("balance", "balance")),
)  # fmt: skip
_ENDS: tuple[End, ...] = (
    End("fix_timer", Message("The cell has no flow in its hours"), Message("Set the timer so that the pump runs through the chlorinator's hours; tighten the trippers. Never bridge the flow switch."), "equipment", None, Hazard.CELL),
    End("very_high", Message("Chlorine is very high, not low"), Message("Cell off, cover off, nobody in; the sun lowers it. Test diluted until it can be read."), None, "sheet"),
    End("dose_salt", Message("Salt is low"), Message("Dose by the hand test, in whole bags, rounded down; cell off until it has dissolved, then test again."), "salt", "sheet"),
    End("dilute_salt", Message("Salt is too high"), Message("Never dose by the lamp: replace part of the water, then test by hand again."), None, "sheet"),
    End("too_cold", Message("Too cold for the unit"), Message("Cell off by its manual; chlorinate by hand until the water is warmer."), None, "sheet"),
    End("raise_setting", Message("It makes less than the pool loses"), Message("Raise the percentage or the hours on the bench; where 100 % around the clock is not enough, the cell is too small for this pool."), None, "care"),
    End("add_stabiliser", Message("The sun takes it"), Message("Bring stabilizer to its range, in a sock; it reads after a week."), None, "sheet"),
    End("shock_it", Message("Something in the water eats it"), Message("Shock at dusk, brush, test in the morning; test phosphate if algae were seen."), None, "sheet"),
    End("clean_cell", Message("Scale on the plates"), Message("Inspect and clean in the order of the procedure: rinse before acid, always. Then look at the scaling index."), "cell", None, Hazard.CELL_ACID),
    End("replace_cell", Message("The cell is worn"), Message("Compare its output with a new one's: a replacement, by the maker's manual."), None, None, Hazard.ELECTRICITY),
    End("call_trade", Message("Nothing simple is left"), Message("Power supply and board are work for a licensed electrician or the maker's service."), None, None, Hazard.ELECTRICITY),
    End("find_air", Message("Air in the water"), Message("Pump lid's seal, water level, suction side unions: find where it draws air."), "baskets"),
    End("restore_flow", Message("Flow is weak"), Message("Baskets, filter, valves; then look at the lamp again. Never bypass the flow switch."), "baskets", None, Hazard.CELL),
    End("watch_it", Message("It was a passing fault"), Message("Note it and look again at the next visit."), None, None),
    End("calibrate", Message("The display is off"), Message("Set the unit's salt reading to the hand test by its manual; more than 400 ppm apart is worth noting each time."), None, None),
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
