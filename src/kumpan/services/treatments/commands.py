"""Start a sheet, tick its steps, put its rest away."""

from dataclasses import dataclass, replace
from uuid import UUID, uuid5

from kumpan.core.dosing.typed_amount import AmountRead
from kumpan.core.errors import Conflict, InvalidInput, NotFound, UnreadableQuantity
from kumpan.core.journal import (
    AdditionMade,
    Outcome,
    StepDone,
    TreatmentStarted,
    WaterChange,
    WaterChanged,
    open_treatment,
    recorded_steps,
    steps_to_do,
)
from kumpan.core.journal.treatment_entries import Note
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.core.records.step import ADD, Step
from kumpan.services.algae.queries import plan_name
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.journal.queries import read_typed
from kumpan.services.maintenance.commands import lose_water_by
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.queries import parts_of
from kumpan.services.treatments.queries import current_treatment, plan_of_kind, started_plan
from kumpan.services.treatments.request import PlanRequest
from kumpan.services.treatments.views import TreatmentPlan
from kumpan.wording.render import render

PUT_AWAY = "put away with the rest of the sheet"


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
        return started_plan(scope, state, parts, known)
    if open_treatment(state) is not None:
        raise Conflict(Message("A plan is already open for this pool; finish it or skip its steps first."))
    parts.known_volume_l()
    offered = await plan_of_kind(scope, state, parts=parts, request=request, units=units)
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
        unmet=offered.unmet,
        notes=tuple(
            Note(note.code, note.text, Measure(note.measure) if note.measure else None)
            for note in offered.notes
        ),
    )
    entry = await record(scope, pool_id, stamp, body)
    return started_plan(scope, await modeled_state(scope, pool_id), parts, entry)


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
        raise NotFound(Message("This plan is no longer here; reload the page."))
    if given.step_number not in steps_to_do(treatment.body):
        raise InvalidInput(
            Message("This step cannot be marked done; choose an addition, a test or a task."), "step_number"
        )
    done = recorded_steps(state, treatment.id).get(given.step_number)
    if done is not None and done.id != stamp.id:
        raise Conflict(
            Message("This step was already marked done; undo that first if it was wrong."), "step_number"
        )
    step = treatment.body.steps[given.step_number]
    await record(scope, pool_id, stamp, await _step_body(scope, pool_id, given=given, step=step, units=units))
    if given.outcome is Outcome.DONE:
        await lose_water_by(scope, stamp, state, step.care)
    return started_plan(scope, await modeled_state(scope, pool_id), parts, treatment)


async def put_away(
    scope: Scope, pool_id: UUID, treatment_id: UUID, stamp: Stamp, *, units: Units
) -> TreatmentPlan:
    """Leave out what is still open on a sheet, and reckon the rest again: what was poured counts.

    Each left step is an entry of its own, its id made from the stamp's, so that a resend changes nothing.
    """
    state = await modeled_state(scope, pool_id)
    treatment = next((entry for entry in state.treatments if entry.id == treatment_id), None)
    if treatment is None:
        raise NotFound(Message("This plan is no longer here; reload the page."))
    done = recorded_steps(state, treatment.id)
    for number in steps_to_do(treatment.body):
        if number not in done:
            body = StepDone(treatment_id, number, Outcome.SKIPPED, PUT_AWAY)
            await record(scope, pool_id, replace(stamp, id=uuid5(stamp.id, str(number))), body)
    return await current_treatment(scope, pool_id, units=units)


async def _step_body(
    scope: Scope, pool_id: UUID, *, given: StepReport, step: Step, units: Units
) -> AdditionMade | StepDone | WaterChanged:
    if step.water_l is not None and given.outcome is Outcome.DONE:
        return _water_body(given, step.water_l, units)
    if step.kind != ADD or given.outcome is Outcome.SKIPPED:
        return StepDone(given.treatment_id, given.step_number, given.outcome, given.note)
    product = _product(step)
    planned = AmountRead(step.rounded_g or 0.0, step.rounded_ml)
    typed = given.amount.strip()
    read = await read_typed(scope, product, typed, units=units, pool_id=pool_id) if typed else planned
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
