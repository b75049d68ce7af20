"""When the water turns: what is it."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from kumpan.core.algae.identify import QUESTIONS, identify
from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Severity
from kumpan.core.messages import Message, Verbatim
from kumpan.services.algae import commands as algae_commands
from kumpan.services.algae import queries as algae_queries
from kumpan.web.requests.algae import RescueEndIn, RescueIn
from kumpan.web.responses.algae import Identified, KeyQuestion, RescueView
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1", tags=["rescue"])


@router.get("/identify/questions")
def questions(reader: ReaderDep) -> tuple[KeyQuestion, ...]:
    """The key's questions with their answers."""
    return tuple(KeyQuestion.of(one, reader) for one in QUESTIONS)


@router.get("/identify")
def identified(
    reader: ReaderDep,
    answers: Annotated[list[str], Query(max_length=8, description='like "look:haze"')] = [],  # noqa: B006
) -> Identified:
    """Weigh the answers given; nothing is kept."""
    picked = {}
    for answer in answers:
        question, colon, choice = answer.partition(":")
        if not colon:
            raise InvalidInput(
                Message(
                    '"{answer}" is not an answer; write it like look:haze.', answer=Verbatim(answer[:40])
                ),
                "answers",
            )
        picked[question] = choice
    return Identified.of(identify(picked), reader)


@router.get("/pools/{pool_id}/rescue")
async def rescue(
    pool_id: UUID,
    scope: ScopeDep,
    reader: ReaderDep,
    units: UnitsDep,
    severity: Severity | None = None,
    *,
    by_ratio: bool = True,
) -> RescueView:
    """The rescue as it stands, or as it would be if it began now at a severity."""
    return RescueView.of(
        await algae_queries.rescue_view(scope, pool_id, severity=severity, by_ratio=by_ratio, units=units),
        reader,
    )


@router.post("/pools/{pool_id}/rescue", status_code=201)
async def set_rescue(
    pool_id: UUID, given: RescueIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> RescueView:
    """Begin a rescue, or change how it is set."""
    setting = given.to_core()
    await algae_commands.set_rescue(scope, pool_id, stamp(given, scope), setting)
    return RescueView.of(
        await algae_queries.rescue_view(
            scope, pool_id, severity=setting.severity, by_ratio=setting.by_ratio, units=units
        ),
        reader,
    )


@router.post("/pools/{pool_id}/rescue/end", status_code=201)
async def end_rescue(
    pool_id: UUID, given: RescueEndIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> RescueView:
    """End it: clear, drained, or stopped."""
    await algae_commands.end_rescue(
        scope, pool_id, stamp=stamp(given, scope), outcome=given.outcome, note=given.note
    )
    return RescueView.of(
        await algae_queries.rescue_view(scope, pool_id, severity=None, by_ratio=True, units=units),
        reader,
    )
