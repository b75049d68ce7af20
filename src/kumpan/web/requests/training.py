"""What a practice game is played with over HTTP."""

from typing import Annotated

from pydantic import Field

from kumpan.core.training.game import MOST_MOVES, MoveKind
from kumpan.services.training.training import MoveTyped
from kumpan.web.requests.base import Strict


class MoveIn(Strict):
    """One move; `amount` as typed, like "1 gal" or "2 lb"; `share` of water to replace; `percent` of the
    cell.
    """

    kind: MoveKind
    product_id: Annotated[str, Field(max_length=40)] = ""
    amount: Annotated[str, Field(max_length=40)] = ""
    share: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.0
    percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] = 0.0

    def to_core(self) -> MoveTyped:
        return MoveTyped(
            kind=self.kind,
            product_id=self.product_id,
            amount=self.amount,
            share=self.share,
            percent=self.percent,
        )


class GameIn(Strict):
    scenario: Annotated[str, Field(max_length=40)]
    seed: Annotated[int, Field(ge=1, le=1_000_000)]
    moves: Annotated[list[MoveIn], Field(max_length=MOST_MOVES)] = []
    finished: bool = False
