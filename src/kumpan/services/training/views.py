"""What is seen of the practice pool."""

from dataclasses import dataclass

from kumpan.core.journal import Clarity
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.training.review import Review


@dataclass(frozen=True, kw_only=True)
class PracticeProduct:
    """What stands on the practice shelf; the price of one package."""

    id: str
    label: str
    package: Message
    price: float | None
    is_liquid: bool


@dataclass(frozen=True, kw_only=True)
class ScenarioView:
    """A practice pool to choose, as one is told of it."""

    key: str
    title: Message
    story: Message
    goals: tuple[Message, ...]
    days: int
    pool: Message
    has_cell: bool
    inventory: tuple[PracticeProduct, ...]


@dataclass(frozen=True)
class PracticeReading:
    """One value of a practice test."""

    measure: Measure
    value: float


@dataclass(frozen=True, kw_only=True)
class PracticeLine:
    """A move as it is told, with what it showed. `day` from 1; `clock` on the pool's clock."""

    day: int
    clock: Message
    text: Message
    readings: tuple[PracticeReading, ...]
    clarity: Clarity | None


@dataclass(frozen=True, kw_only=True)
class GameView:
    """The game after its moves: what can be seen from the edge, never the truth until the end."""

    scenario: ScenarioView
    day: int
    clock: Message
    days_left: int
    first_clarity: Clarity
    clarity: Clarity
    odd: tuple[str, ...]
    gauge: Message
    cost: float
    lines: tuple[PracticeLine, ...]
    over: bool
    review: Review | None
