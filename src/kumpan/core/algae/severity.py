"""How bad a pool is, and what the trade does about each: rounds, level, days, and how much lives in it.

A row reads like the handbook's. `living` and `cloud` are what is believed before the first answer of the
water: the middle, and a factor that one pool in six is beyond either way. Source: rescue-plan.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from kumpan.core.assessment.seen import ALGAE_SPOTS
from kumpan.core.journal import Clarity, Severity, VisualCheck
from kumpan.core.messages import Message

SOURCE = "rescue-plan"


@dataclass(frozen=True)
class Spread:
    """A middle, and the factor that one in six is beyond either way."""

    middle: float
    factor: float


@dataclass(frozen=True)
class SeverityRow:
    """One severity. `rounds` are asked for at least, `hours_between` them; `days` the trade's figure.

    `living`: chlorine that what lives would use up in a day, mg/L. `cloud`: 1 is where the drain is plain to
    see. `hidden`: the share that sits under a skin or in pores until it is brushed,
    `bared_a_day` of it by each day's brushing; `yields` how fast it dies, green being 1. `ratio` of stabilizer to shock to; `week_over_mg_l` free chlorine that must hold for a week at the end.
    """

    severity: Severity
    name: Message
    visual_check: Message
    rounds: int
    hours_between: float
    ratio: float
    days: Message
    living: Spread
    cloud: Spread
    hidden: float
    brush: Message
    yields: float = 1.0
    bared_a_day: float = 1.0
    week_over_mg_l: float | None = None


_ROWS: tuple[SeverityRow, ...] = (
    SeverityRow(Severity.LIGHT, Message("Light green"), Message("A green tint, the floor plain to see"), 1, 12, 0.40, Message("2 to 4 days"),
                Spread(1.8, 1.5), Spread(1.5, 1.25), 0.0, Message("Brush everything, toward the drain")),
    SeverityRow(Severity.GREEN, Message("Green"), Message("Green, the floor just seen"), 3, 12, 0.40, Message("4 to 8 days"),
                Spread(5.5, 1.5), Spread(4.6, 1.32), 0.0, Message("Brush everything, toward the drain")),
    SeverityRow(Severity.OPAQUE, Message("Swamp"), Message("The first step cannot be seen"), 4, 12, 0.40, Message("10 to 14 days"),
                Spread(12.0, 1.45), Spread(12.5, 1.35), 0.0, Message("Brush everything, toward the drain")),
    SeverityRow(Severity.MUSTARD, Message("Mustard"), Message("Yellow-brown dust that comes back at the same spot"), 3, 12, 0.60, Message("4 to 9 days"),
                Spread(2.8, 1.45), Spread(1.1, 1.3), 0.6,
                Message("Brush all shady walls and steps; toys, suits, hoses and tools into the water with it")),
    SeverityRow(Severity.BLACK, Message("Black spots"), Message("Dark spots with heads, rooted"), 3, 12, 0.40, Message("10 to 21 days"),
                Spread(2.1, 1.45), Spread(0.8, 1.35), 0.85,
                Message("Brush every spot hard: steel only on bare cement, nylon elsewhere"), yields=0.5, bared_a_day=0.35, week_over_mg_l=3.0),
)  # fmt: skip
SEVERITIES: Mapping[Severity, SeverityRow] = MappingProxyType({row.severity: row for row in _ROWS})

SPOTS = ALGAE_SPOTS
_BY_SIGHT: Mapping[Clarity, Severity] = MappingProxyType(
    {Clarity.GREEN: Severity.GREEN, Clarity.DRAIN_HIDDEN: Severity.OPAQUE, Clarity.HAZY: Severity.LIGHT}
)


def suggested(visual_check: VisualCheck | None) -> Severity:
    """What the last look points at; a person decides."""
    if visual_check is None:
        return Severity.GREEN
    return _BY_SIGHT.get(
        visual_check.clarity, Severity.LIGHT if SPOTS in visual_check.odd else Severity.GREEN
    )


def shows_clear_water(visual_check: VisualCheck) -> bool:
    """The drain plain to see, and no spots left."""
    return visual_check.clarity is Clarity.CLEAR and SPOTS not in visual_check.odd
