"""How urgent a finding is, what its remedy is, and the one order in which findings are listed.

What endangers people comes first, then what is for today, what is for soon, what is watched, and notes;
inside each the table decides. The next thing to do is the remedy of the first. Source: order.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from uuid import UUID

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure

SOURCE = "order"


class FindingSeverity(StrEnum):
    """How urgent, most urgent first; from TREAT_SOON upward a finding has a remedy that is a next thing."""

    DANGER = "danger"
    CLOSES_POOL = "closes_pool"
    TREAT_TODAY = "treat_today"
    TREAT_SOON = "treat_soon"
    WATCH = "watch"
    NOTE = "note"

    @property
    def asks(self) -> bool:
        """Whether something has to be done."""
        return self not in (FindingSeverity.WATCH, FindingSeverity.NOTE)


class RemedyKind(StrEnum):
    """What kind of thing is to be done."""

    TEST = "test"
    LOOK = "look"
    PLAN = "plan"
    PROCEDURE = "procedure"
    WAIT = "wait"
    SETTING = "setting"
    BUY = "buy"
    TRADE = "trade"
    NONE = "none"


@dataclass(frozen=True, kw_only=True)
class Remedy:
    """What to do about a finding: in words, and what it needs to be offered as one tap.

    `plan` is a kind of plan, `procedure` a piece of care or work by name, `until` when a wait ends or a
    retest is worth it.
    """

    kind: RemedyKind
    text: Message
    plan: str | None = None
    measures: tuple[Measure, ...] = ()
    procedure: str | None = None
    until: datetime | None = None

    @property
    def station(self) -> str:
        """The screen where it is done; `do/` and its name for a procedure that stands step by step."""
        if self.kind in (RemedyKind.TEST, RemedyKind.LOOK):
            return "slip"
        if self.kind is RemedyKind.PLAN:
            return "rescue" if self.plan == "rescue" else "sheet"
        screens = {"care": "care", "identify": "identify", "winter": "board"}
        if self.kind is RemedyKind.PROCEDURE and self.procedure and self.procedure not in screens:
            return f"do/{self.procedure}"
        return screens.get(self.procedure or "", "board")


@dataclass(frozen=True, kw_only=True)
class Problem:
    """One finding of the assessment, and what it stands on: entries of the journal, measures, a law."""

    code: str
    severity: FindingSeverity
    remedy: Remedy
    reason: Message
    measures: tuple[Measure, ...] = ()
    entries: tuple[UUID, ...] = ()
    law: str = ""


# Codes in the order in which they are listed inside one urgency. Origin: handbook 05, order; safety first.
ORDER: tuple[str, ...] = (
    # People in danger.
    "electric", "gas", "drain_cover", "thunder", "glass", "flood", "cover_on", "water_hot", "unlit",
    "barrier",
    # What is going on already.
    "incident_open", "dead_animal", "winter_closed", "rescue_open", "treatment_open", "green", "drain_hidden",
    # What makes the readings worth nothing.
    "poured_since_test", "water_changed_since_test", "fresh_fill", "power_cut", "smell", "test_missing",
    "test_old", "free_chlorine_off_scale",
    # What must be right before anything is poured.
    "leak", "level_low", "returns_weak", "iron_high",
    # The water, the sanitizer first.
    "demand_unexplained", "free_chlorine_high", "free_chlorine_low", "chlorine_bound", "combined_high",
    "ph_high", "ph_low", "ph_unreliable", "cloudy", "algae_spots", "hazy",
    "total_alkalinity_high", "total_alkalinity_low", "cyanuric_acid_high", "cyanuric_acid_low",
    "calcium_hardness_high", "calcium_hardness_low", "salt_high", "salt_low", "borate_high", "borate_low",
    "copper_high", "phosphate_high", "scale_likely", "water_aggressive",
    # Care of the rest.
    "leaves", "level_high", "foam", "stabilizer_mixing", "new_plaster", "water_cold", "water_warm",
    "look_old", "spa_untested", "volume_unknown",
)  # fmt: skip
_TIERS = {
    FindingSeverity.DANGER: 0,
    FindingSeverity.CLOSES_POOL: 1,
    FindingSeverity.TREAT_TODAY: 1,
    FindingSeverity.TREAT_SOON: 2,
    FindingSeverity.WATCH: 3,
    FindingSeverity.NOTE: 4,
}


def in_order(found: Iterable[Problem]) -> tuple[Problem, ...]:
    """The findings as they are listed."""
    return tuple(sorted(found, key=lambda problem: (_TIERS[problem.severity], ORDER.index(problem.code))))
