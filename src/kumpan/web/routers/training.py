"""A pool that cannot be harmed."""

from fastapi import APIRouter

from kumpan.services.training import training as practice
from kumpan.web.requests.training import GameIn
from kumpan.web.responses.training import GameView, ScenarioView
from kumpan.web.scope import ReaderDep, UnitsDep

router = APIRouter(prefix="/api/v1/practice", tags=["practice"])


@router.get("")
def scenarios(reader: ReaderDep) -> tuple[ScenarioView, ...]:
    """The practice pools to choose from."""
    return tuple(ScenarioView.of(one, reader) for one in practice.scenarios())


@router.post("/play")
def play(given: GameIn, reader: ReaderDep, units: UnitsDep) -> GameView:
    """The game after its moves, played from the first; nothing is kept. The review comes at the end."""
    moves = [move.to_core() for move in given.moves]
    return GameView.of(
        practice.played(given.scenario, given.seed, moves, finished=given.finished, units=units),
        reader,
    )
