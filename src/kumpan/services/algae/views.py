"""What is seen of a rescue."""

from dataclasses import dataclass

from kumpan.core.algae.board import RescueBoard
from kumpan.core.algae.boosters import Booster
from kumpan.core.algae.treat_or_drain import TreatOrDrain
from kumpan.core.findings import Finding
from kumpan.core.journal import RescueOutcome, RescueSet, Severity
from kumpan.core.messages import Message


@dataclass(frozen=True)
class SeverityChoice:
    """A severity to choose: what it looks like, and the trade's figure of days."""

    severity: Severity
    name: Message
    visual_check: Message
    days: Message


@dataclass(frozen=True, kw_only=True)
class RescueView:
    """The board with what stands beside it.

    `open` while a rescue goes on; `setting` as set or as it would be begun.
    """

    open: bool
    setting: RescueSet
    suggested: Severity
    severities: tuple[SeverityChoice, ...]
    board: RescueBoard
    compared: TreatOrDrain
    causes: tuple[Finding, ...]
    prevention: tuple[Message, ...]
    boosters: tuple[Booster, ...]
    booster_rule: Message
    finished: bool
    last_outcome: RescueOutcome | None
