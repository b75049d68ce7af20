"""Run sheets: offered, started, ticked. A started sheet is a journal entry and never changes."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from uuid import UUID

from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.journal import (
    AdditionMade,
    Entry,
    Outcome,
    PoolState,
    StepEntry,
    TreatmentStarted,
    WaterChanged,
    open_treatment,
    recorded_steps,
)
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import PoolWater
from kumpan.core.records.step import WAIT, Step
from kumpan.core.treatment.lateness import late_notes, step_times
from kumpan.core.treatment.plan import Plan
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.drawing import drawing_of
from kumpan.services.pools.expectations import model_of, modeled_state
from kumpan.services.pools.queries import Chosen, PoolParts, offered_plan, parts_of, with_amount_ranges
from kumpan.services.products.queries import amount_text
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.treatments.request import PlanKind, PlanRequest
from kumpan.services.treatments.special import special_plan
from kumpan.services.treatments.views import StepRecord, TreatmentPlan, TreatmentStep


async def current_treatment(scope: Scope, pool_id: UUID, *, units: Units) -> TreatmentPlan:
    """The open sheet when one was started, else the plan that is offered now."""
    return await offered_treatment(scope, pool_id, PlanRequest(), units=units)


async def offered_treatment(
    scope: Scope, pool_id: UUID, request: PlanRequest, *, units: Units
) -> TreatmentPlan:
    """What could be started now. For the balance an open sheet goes before."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    opened = open_treatment(state)
    if request.plan is PlanKind.BALANCE and opened is not None:
        return started_plan(scope, state, parts, opened)
    return await treatment_for(scope, state, parts, request, units=units)


async def treatment_for(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, *, units: Units
) -> TreatmentPlan:
    """A plan as a sheet that is not started, whatever sheet is open."""
    return await _as_offered(
        scope,
        state.pool_id,
        parts,
        await plan_of_kind(scope, state, parts=parts, request=request, units=units),
    )


async def plan_of_kind(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, units: Units
) -> Plan | None:
    """The plan of the kind that is asked for; None where there is nothing to plan by."""
    if request.plan is not PlanKind.BALANCE:
        await model_of(state, parts.place)  # a shock says when one may swim again
        return await special_plan(scope, state, parts, request, units=units)
    chosen = Chosen(request.strategy, request.use, tuple(sorted(request.targets.items())))
    found = await offered_plan(scope, state, parts, units=units, chosen=chosen)
    if found is None:
        return None
    if request.targets:
        return found  # an aim of one's own is followed at once; its doubt is that of the sheet before
    return await with_amount_ranges(scope, state, parts=parts, found=found, chosen=chosen, units=units)


async def _as_offered(
    scope: Scope, pool_id: UUID | None, parts: PoolParts, offered: Plan | None
) -> TreatmentPlan:
    """A plan as a sheet that is not started yet."""
    hand = await at_hand(scope, pool_id)
    steps = offered.steps if offered else ()
    first = first_mentions(steps)
    return TreatmentPlan(
        id=None,
        started_at=None,
        finished=False,
        steps=tuple(
            TreatmentStep(number=n, step=step, at=_clock(scope.now, step), first_mention=n in first)
            for n, step in enumerate(steps)
        ),
        predicted=offered.predicted if offered else Readings(),
        unmet=offered.unmet if offered else (),
        notes=offered.notes if offered else (),
        profile_name=parts.rules.name,
        standard_inventory=hand.standard,
        drawing=drawing_of(parts.basin),
    )


def started_plan(
    scope: Scope, state: PoolState, parts: PoolParts, treatment: Entry[TreatmentStarted]
) -> TreatmentPlan:
    """A started sheet with what became of its steps."""
    done = recorded_steps(state, treatment.id)
    first = first_mentions(treatment.body.steps)
    times = step_times(treatment.body, treatment.at, {n: entry.at for n, entry in done.items()}, scope.now)
    steps = tuple(
        TreatmentStep(
            number=n,
            step=step,
            at=times[n],
            done_as=_step_record(done.get(n)),
            first_mention=n in first,
        )
        for n, step in enumerate(treatment.body.steps)
    )
    return TreatmentPlan(
        id=treatment.id,
        started_at=treatment.at,
        finished=all(step.done_as is not None or step.step.kind == WAIT for step in steps),
        steps=steps,
        predicted=treatment.body.predicted,
        unmet=treatment.body.unmet,
        notes=(
            *late_notes(treatment.body, treatment.at, {n: entry.at for n, entry in done.items()}, scope.now),
            *(Finding(note.code, note.text, note.measure) for note in treatment.body.notes),
        ),
        profile_name=parts.rules.name,
        standard_inventory=False,
        drawing=drawing_of(parts.basin),
    )


def first_mentions(steps: Sequence[Step]) -> frozenset[int]:
    """The numbers of the steps whose cautions are told in full: the first with each product and hazard."""
    seen: dict[tuple[str | None, Hazard], int] = {}
    for number, step in enumerate(steps):
        seen.setdefault((step.product_id or step.chemical, step.hazard), number)
    return frozenset(seen.values())


def _clock(start_at: datetime, step: Step) -> datetime:
    return start_at + timedelta(minutes=step.offset_min)


def _step_record(entry: StepEntry | None) -> StepRecord | None:
    if entry is None:
        return None
    body = entry.body
    if isinstance(body, AdditionMade):
        product = Product("", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml)
        return StepRecord(
            entry_id=entry.id,
            at=entry.at,
            person_id=entry.person_id,
            outcome=Outcome.DONE,
            mass_g=body.mass_g,
            volume_ml=body.volume_ml,
            amount_text=amount_text(product, body.mass_g),
        )
    if isinstance(body, WaterChanged):
        text = Message("{amount}", amount=PoolWater(body.volume_l))
        return StepRecord(
            entry_id=entry.id, at=entry.at, person_id=entry.person_id, outcome=Outcome.DONE, amount_text=text
        )
    return StepRecord(entry_id=entry.id, at=entry.at, person_id=entry.person_id, outcome=body.outcome)
