"""Answers of the practice pool."""

from kumpan.core.journal.pool_entries import Clarity
from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding


class PracticeProduct(Response):
    """What stands on the practice shelf; the price of one package."""

    id: Text
    label: Text
    package: Text
    price: float | None
    is_liquid: bool


class ScenarioView(Response):
    """A practice pool to choose, as one is told of it."""

    key: Text
    title: Text
    story: Text
    goals: tuple[Text, ...]
    days: int
    pool: Text
    has_cell: bool
    shelf: tuple[PracticeProduct, ...] = read_from("inventory")


class PracticeReading(Response):
    measure: Measure
    value: float


class PracticeLine(Response):
    """A move as it is told, with what it showed. `day` from 1; `clock` on the pool's clock."""

    day: int
    clock: Text
    text: Text
    readings: tuple[PracticeReading, ...]
    clarity: Clarity | None


class Tally(Response):
    """What a run took and what went wrong in it: `ran_dry` how often chlorine went to nothing between two
    tests.
    """

    cost: float
    chlorine_mg_l: float
    pours: int
    tests: int
    water_l: float
    hours_without: int
    ran_dry: int
    highest_mg_l: float
    won_on_day: float | None


class Goal(Response):
    """One goal; `met` by the truth, `text` how it stands in truth."""

    key: Text
    title: Text
    met: bool
    text: Text


class Side(Response):
    """One run in figures. `won_on_day` counts from 1; None where the goals were not reached."""

    won_on_day: int | None
    tally: Tally
    goals: tuple[Goal, ...]


class Review(Response):
    """Both runs, and the lessons in the order of the game."""

    learner: Side
    planner: Side
    lessons: tuple[Finding, ...]
    lesson: Text


class GameView(Response):
    """The game after its moves: what can be seen from the edge, never the truth until the end."""

    scenario: ScenarioView
    day: int
    clock: Text
    days_left: int
    first_clarity: Clarity
    clarity: Clarity
    odd: tuple[Text, ...]
    gauge: Text
    cost: float
    lines: tuple[PracticeLine, ...]
    over: bool
    review: Review | None
