"""Run sheets: offered, started, ticked. A started sheet is a journal entry and never changes."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from uuid import UUID, uuid5

from kumpan.core.dosing.typed_amount import AmountRead
from kumpan.core.errors import Conflict, InvalidInput, NotFound, UnreadableQuantity
from kumpan.core.journal import (
    AdditionMade,
    Entry,
    Outcome,
    PoolState,
    StepDone,
    StepEntry,
    TreatmentStarted,
    WaterChange,
    WaterChanged,
    open_treatment,
    recorded_steps,
    steps_to_do,
)
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import PoolWater
from kumpan.core.records.step import ADD, WAIT, Step
from kumpan.core.treatment.lateness import late_notes, step_times
from kumpan.core.treatment.plan import Plan
from kumpan.services.algae.rescues import plan_name
from kumpan.services.journal.additions import read_typed
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.pools.drawing import drawing_of
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.pools import Chosen, PoolParts, offered_plan, parts_of
from kumpan.services.products.inventory import amount_text
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.treatments.request import PlanKind, PlanRequest
from kumpan.services.treatments.special import special_plan
from kumpan.services.treatments.uncertainty import with_uncertainty
from kumpan.services.views import StepRecord, TreatmentPlan, TreatmentStep
from kumpan.wording.render import render


async def current_treatment(scope: Scope, pool_id: UUID, *, units: Units) -> TreatmentPlan:
    """The open sheet when one was started, else the plan that is offered now."""
    return await offered_treatment(scope, pool_id, PlanRequest(), units=units)


PUT_AWAY = "put away with the rest of the sheet"


async def offered_treatment(
    scope: Scope, pool_id: UUID, request: PlanRequest, *, units: Units
) -> TreatmentPlan:
    """What could be started now. For the balance an open sheet goes before."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    opened = open_treatment(state)
    if request.plan is PlanKind.BALANCE and opened is not None:
        return _started(scope, state, parts, opened)
    return await treatment_for(scope, state, parts, request, units=units)


async def treatment_for(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, *, units: Units
) -> TreatmentPlan:
    """A plan as a sheet that is not started, whatever sheet is open."""
    return await _as_offered(
        scope, parts, await _plan(scope, state, parts=parts, request=request, units=units)
    )


async def _plan(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, units: Units
) -> Plan | None:
    if request.plan is not PlanKind.BALANCE:
        return await special_plan(scope, state, parts, request, units=units)
    chosen = Chosen(request.strategy, request.use, tuple(sorted(request.targets.items())))
    found = await offered_plan(scope, state, parts, units=units, chosen=chosen)
    if found is None:
        return None
    if request.targets:
        return found  # an aim of one's own is followed at once; its doubt is that of the sheet before
    steps = await with_uncertainty(scope, state, parts=parts, steps=found.steps, chosen=chosen, units=units)
    return replace(found, steps=steps)


async def start(
    scope: Scope, pool_id: UUID, stamp: Stamp, request: PlanRequest, *, units: Units
) -> TreatmentPlan:
    """Start the offered plan: the whole of it becomes a journal entry. The same id again answers it.

    Raises InvalidInput when there is nothing to add, Conflict while another sheet is open.
    """
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    known = next((treatment for treatment in state.treatments if treatment.id == stamp.id), None)
    if known is not None:
        return _started(scope, state, parts, known)
    if open_treatment(state) is not None:
        raise Conflict(Message("A sheet is already open for this pool; finish it or skip its steps first."))
    offered = await _plan(scope, state, parts=parts, request=request, units=units)
    if offered is None or not offered.steps:
        raise InvalidInput(Message("There is nothing to add now; test the water first."))
    before = water_now(state, parts.place, scope.now)
    name = await plan_name(scope, state, parts, request.plan)
    body = TreatmentStarted(
        steps=offered.steps,
        profile=parts.settings.profile,
        before=before,
        predicted=offered.predicted,
        plan=name,
    )
    entry = await record(scope, pool_id, stamp, body)
    return _started(scope, await modeled_state(scope, pool_id), parts, entry)


@dataclass(frozen=True, kw_only=True)
class StepReport:
    """A tick: done or skipped; `amount` is what was really poured as typed, empty when as planned."""

    treatment_id: UUID
    step_number: int
    outcome: Outcome
    amount: str = ""
    note: str = ""


async def record_step(
    scope: Scope, pool_id: UUID, stamp: Stamp, given: StepReport, *, units: Units
) -> TreatmentPlan:
    """Tick one step. The same id again changes nothing; another id for a ticked step is a Conflict."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    treatment = next((entry for entry in state.treatments if entry.id == given.treatment_id), None)
    if treatment is None:
        raise NotFound(Message("This sheet is no longer here; reload the page."))
    if given.step_number not in steps_to_do(treatment.body):
        raise InvalidInput(
            Message("This step cannot be ticked; choose an addition, a test or a task."), "step_number"
        )
    done = recorded_steps(state, treatment.id).get(given.step_number)
    if done is not None and done.id != stamp.id:
        raise Conflict(
            Message("This step was already ticked; undo that tick first if it was wrong."), "step_number"
        )
    step = treatment.body.steps[given.step_number]
    await record(scope, pool_id, stamp, await _step_body(scope, given, step, units))
    return _started(scope, await modeled_state(scope, pool_id), parts, treatment)


async def put_away(
    scope: Scope, pool_id: UUID, treatment_id: UUID, stamp: Stamp, *, units: Units
) -> TreatmentPlan:
    """Leave out what is still open on a sheet, and reckon the rest again: what was poured counts.

    Each left step is an entry of its own, its id made from the stamp's, so that a resend changes nothing.
    """
    state = await modeled_state(scope, pool_id)
    treatment = next((entry for entry in state.treatments if entry.id == treatment_id), None)
    if treatment is None:
        raise NotFound(Message("This sheet is no longer here; reload the page."))
    done = recorded_steps(state, treatment.id)
    for number in steps_to_do(treatment.body):
        if number not in done:
            body = StepDone(treatment_id, number, Outcome.SKIPPED, PUT_AWAY)
            await record(scope, pool_id, replace(stamp, id=uuid5(stamp.id, str(number))), body)
    return await current_treatment(scope, pool_id, units=units)


async def _step_body(
    scope: Scope, given: StepReport, step: Step, units: Units
) -> AdditionMade | StepDone | WaterChanged:
    if step.water_l is not None and given.outcome is Outcome.DONE:
        return _water_body(given, step.water_l, units)
    if step.kind != ADD or given.outcome is Outcome.SKIPPED:
        return StepDone(given.treatment_id, given.step_number, given.outcome, given.note)
    product = _product(step)
    planned = AmountRead(step.rounded_g or 0.0, step.rounded_ml)
    typed = given.amount.strip()
    read = await read_typed(scope, product, typed, units=units) if typed else planned
    return AdditionMade(
        chemical=product.chemical,
        strength_percent=product.strength_percent,
        label=render(step.title),
        mass_g=read.mass_g,
        volume_ml=read.volume_ml,
        density_g_per_ml=product.density_g_per_ml,
        product_id=step.product_id,
        treatment_id=given.treatment_id,
        step_number=given.step_number,
    )


def _water_body(given: StepReport, planned_l: float, units: Units) -> WaterChanged:
    liters = planned_l
    if given.amount.strip():
        try:
            liters = read_quantity(
                given.amount, Dimension.VOLUME, "l" if units is Units.METRIC else "gal"
            ).value
        except UnreadableQuantity as trouble:
            raise UnreadableQuantity(trouble.message, "amount") from trouble
    return WaterChanged(
        kind=WaterChange.DRAIN,
        volume_l=liters,
        note=given.note,
        treatment_id=given.treatment_id,
        step_number=given.step_number,
    )


def _product(step: Step) -> Product:
    assert step.chemical is not None
    assert step.strength_percent is not None
    return Product(
        step.product_id or "", step.chemical, step.strength_percent, density_g_per_ml=step.density_g_per_ml
    )


async def _as_offered(scope: Scope, parts: PoolParts, offered: Plan | None) -> TreatmentPlan:
    """A plan as a sheet that is not started yet."""
    hand = await at_hand(scope)
    steps = offered.steps if offered else ()
    return TreatmentPlan(
        id=None,
        started_at=None,
        finished=False,
        steps=tuple(TreatmentStep(n, step, _clock(scope.now, step)) for n, step in enumerate(steps)),
        predicted=offered.predicted if offered else Readings(),
        unmet=offered.unmet if offered else (),
        notes=offered.notes if offered else (),
        profile_name=parts.rules.name,
        standard_inventory=hand.standard,
        drawing=drawing_of(parts.basin),
    )


def _started(
    scope: Scope, state: PoolState, parts: PoolParts, treatment: Entry[TreatmentStarted]
) -> TreatmentPlan:
    done = recorded_steps(state, treatment.id)
    times = step_times(treatment.body, treatment.at, {n: entry.at for n, entry in done.items()}, scope.now)
    steps = tuple(
        TreatmentStep(n, step, times[n], _step_record(done.get(n)))
        for n, step in enumerate(treatment.body.steps)
    )
    return TreatmentPlan(
        id=treatment.id,
        started_at=treatment.at,
        finished=all(step.done_as is not None or step.step.kind == WAIT for step in steps),
        steps=steps,
        predicted=treatment.body.predicted,
        unmet=(),
        notes=late_notes(treatment.body, treatment.at, {n: entry.at for n, entry in done.items()}, scope.now),
        profile_name=parts.rules.name,
        standard_inventory=False,
        drawing=drawing_of(parts.basin),
    )


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
