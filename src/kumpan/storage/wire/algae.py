"""Rescues. As stored; see `base`."""

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.storage.wire.base import Wire, later_fields, renamed
from kumpan.storage.wire.words import DeadWayWord, PhWayWord, RescueOutcomeWord, SeverityWord


class RescueSetV1(Wire):
    core = RescueSet

    severity: SeverityWord
    by_ratio: bool = True
    dead_way: DeadWayWord | None = renamed("dead_way", "dead_algae_strategy", default=None)
    ph_way: PhWayWord | None = renamed("ph_way", "ph_strategy", default=None)
    drain_over_stabiliser: float = renamed("drain_over_stabiliser", "drain_over_stabilizer", default=100.0)
    drain_over_calcium: float = 600.0
    use: str | None = None

    _later = later_fields("use")


class RescueEndedV1(Wire):
    core = RescueEnded

    outcome: RescueOutcomeWord
    note: str = ""
