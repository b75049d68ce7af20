"""When the water turns: what is it."""

from typing import Annotated

from fastapi import APIRouter, Query

from kumpan.core.errors import InvalidInput
from kumpan.core.rescue.identify import QUESTIONS, Identified, KeyQuestion, identify

router = APIRouter(prefix="/api/v1", tags=["rescue"])


@router.get("/identify/questions")
def questions() -> tuple[KeyQuestion, ...]:
    """The key's questions with their answers."""
    return QUESTIONS


@router.get("/identify")
def identified(
    answers: Annotated[list[str], Query(max_length=8, description='like "look:haze"')] = [],  # noqa: B006
) -> Identified:
    """Weigh the answers given; nothing is kept."""
    picked = {}
    for answer in answers:
        question, colon, choice = answer.partition(":")
        if not colon:
            raise InvalidInput(f'"{answer[:40]}" is not an answer; write it like look:haze.', "answers")
        picked[question] = choice
    return identify(picked)
