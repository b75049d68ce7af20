"""What a pool's owner chose: ranges of their own, and answers where practitioners differ."""

from dataclasses import dataclass

from kumpan.core.quantities.readings import Measure


@dataclass(frozen=True)
class OwnRange:
    """A range of one's own, in the measure's inner unit; a dose goes to `aim`. None means no such side."""

    measure: Measure
    low: float | None
    high: float | None
    aim: float | None


@dataclass(frozen=True)
class Chosen:
    """The option taken for one question on which practitioners differ, by their keys."""

    question: str
    option: str
