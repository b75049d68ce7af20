"""The benches of one pool: cell, filter, pump; the fault interview; the acid bath's mixing helper."""

from collections.abc import Sequence
from datetime import timedelta
from math import exp
from uuid import UUID

from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.expected import measured_readings
from kumpan.core.journal import (
    Entry,
    InterviewHeld,
    PartReplaced,
    PoolState,
    history,
    is_green,
    open_treatment,
)
from kumpan.core.maintenance.cell import cell_balance
from kumpan.core.maintenance.cell_acid import AcidBath, acid_bath
from kumpan.core.maintenance.cell_life import cell_life
from kumpan.core.maintenance.circulation import CirculationView, circulation
from kumpan.core.maintenance.device import LAMPS, lamps_lit, lamps_seen
from kumpan.core.maintenance.fault_tree import TREES, Interview, Part, Tree, interview
from kumpan.core.maintenance.filter_pressure import (
    LIMIT_KPA,
    clean_pressure,
    pressure_trend,
    reading_in_question,
)
from kumpan.core.maintenance.index_history import scaling_index, scaling_text
from kumpan.core.maintenance.machines import KINDS, Machine, machines, parts_of_machine
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.maintenance.devices import device_view
from kumpan.services.maintenance.queries import care_inputs
from kumpan.services.maintenance.views import (
    CellView,
    EquipmentView,
    FilterView,
    LampView,
    MachineChoice,
    MachineView,
    PartView,
)
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.outlooks import outlook_now
from kumpan.services.pools.queries import PoolParts, parts_of

MEDIA_YEARS = 5


async def equipment_view(scope: Scope, pool_id: UUID) -> EquipmentView:
    """All benches of one pool as of now."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    cell = None
    if parts.equipment.traits.chlorination is Chlorination.SALT_CELL:
        cell = await _cell(scope, pool_id, state, parts)
    device = await device_view(scope, pool_id)
    air_c = device.last.air_c if device.last is not None else None
    return EquipmentView(
        cell=cell,
        filter=_filter(scope, state),
        circulation=_circulation(state, parts, air_c),
        device=device,
        trees=tuple(tree for tree in TREES if tree.part is not Part.CELL),
        machines=tuple(_machine(machine) for machine in machines(state)),
        kinds=tuple(MachineChoice(kind, row.name) for kind, row in KINDS.items()),
        parts=_parts(parts_of_machine(state, None)),
    )


def _machine(machine: Machine) -> MachineView:
    body = machine.body
    return MachineView(
        machine_id=body.machine_id,
        kind=body.kind,
        name=KINDS[body.kind].name,
        label=body.label,
        since=body.since,
        note=body.note,
        parts=_parts(machine.parts),
    )


def _parts(replaced: Sequence[Entry[PartReplaced]]) -> tuple[PartView, ...]:
    return tuple(PartView(entry.id, entry.at, entry.body.part, entry.body.note) for entry in replaced)


def _trees(part: Part) -> tuple[Tree, ...]:
    return tuple(tree for tree in TREES if tree.part is part)


def _lamps(state: PoolState) -> tuple[LampView, ...]:
    lit = lamps_lit(state)
    return tuple(LampView(lamp.key, lamp.name, lamp.key in lit, lamp.tree) for lamp in LAMPS)


async def note_lamps(scope: Scope, pool_id: UUID, stamp: Stamp, lit: Sequence[str]) -> None:
    """What the chlorinator's lamps show, read by a person. Raises InvalidInput for one that is none."""
    state = await modeled_state(scope, pool_id)
    await record(scope, pool_id, stamp, lamps_seen(state, lit))


async def _cell(scope: Scope, pool_id: UUID, state: PoolState, parts: PoolParts) -> CellView:
    setting = state.cell_settings[-1].body if state.cell_settings else None
    index = (await care_inputs(scope, state, parts)).index
    mean = scaling_index(index, scope.now)
    index_text = scaling_text(mean) if mean is not None else None
    if setting is None or parts.basin.volume_is_unknown:  # nobody knows what its grams make of this water
        return CellView(
            setting=None,
            balance=None,
            life=None,
            index=index,
            index_text=index_text,
            washes=_washes(scope, state),
            trees=_trees(Part.CELL),
            lamps=_lamps(state),
        )
    ahead, readings = await outlook_now(scope, pool_id), measured_readings(state)
    found = cell_balance(
        setting,
        parts.basin.volume_l,
        ahead.loss_mg_l_day if ahead is not None else None,
        stabilizer_mg_l=readings.cyanuric_acid,
        stabilizer_band=parts.bands.get(Measure.CYANURIC_ACID),
        water_c=readings.temperature_c,
        overnight_mg_l=ahead.overnight_mg_l if ahead is not None else None,
        warmed_c=_warmed(state),
        strength=exp(ahead.fitted.factors.source) if ahead is not None else 1.0,
    )
    return CellView(
        setting=setting,
        balance=found,
        life=cell_life(state, scope.now),
        index=index,
        index_text=index_text,
        washes=_washes(scope, state),
        trees=_trees(Part.CELL),
        lamps=_lamps(state),
    )


def _warmed(state: PoolState) -> float | None:
    """How much warmer the water reads than about a month before, degrees C."""
    past = history(state, Measure.TEMPERATURE)
    before = [one for one in past if past[-1].at - one.at >= timedelta(days=25)] if past else []
    return past[-1].value.value - before[-1].value.value if before else None


def _washes(scope: Scope, state: PoolState) -> int:
    """Acid baths of the last 200 days."""
    return sum(
        1
        for entry in state.care
        if scope.now - entry.at < timedelta(days=200)
        and any(value.name == "acid_washes" and value.value > 0 for value in entry.body.values)
    )


def _filter(scope: Scope, state: PoolState) -> FilterView:
    trend = pressure_trend(state, scope.now)
    clean, known = clean_pressure(state)
    off = [
        value.value for entry in state.care for value in entry.body.values if value.name == "gauge_off_kpa"
    ]
    since = state.plant.media_since
    age = (scope.now - since).days if since is not None else None
    return FilterView(
        trend=trend,
        clean_kpa=clean,
        clean_known=known,
        limit_kpa=LIMIT_KPA,
        uncertainty=reading_in_question(off[-1] if off else None, trend.last_kpa if trend else None, clean),
        media_age_days=age,
        media_due=age is not None and age > MEDIA_YEARS * 365,
    )


def _circulation(state: PoolState, parts: PoolParts, air_c: float | None) -> CirculationView:
    setting = state.cell_settings[-1].body if state.cell_settings else None
    return circulation(
        state.plant,
        parts.equipment.traits,
        parts.basin.volume_l,
        water_c=measured_readings(state).temperature_c,
        air_c=air_c,
        treating=_treating(state),
        cell_hours=setting.hours_per_day if setting is not None else None,
    )


def _treating(state: PoolState) -> bool:
    """While the water is green, or a shock's sheet is open."""
    treatment = open_treatment(state)
    shocking = treatment is not None and treatment.body.plan == "shock"
    return is_green(state) or shocking


def ask(tree: str, answers: Sequence[str]) -> Interview:
    """Where the interview stands after these answers."""
    return interview(tree, answers)


async def keep_interview(
    scope: Scope, pool_id: UUID, stamp: Stamp, tree: str, answers: Sequence[str]
) -> Interview:
    """Keep a finished interview in the journal. Raises InvalidInput for one that is not at its end."""
    await modeled_state(scope, pool_id)
    found = interview(tree, answers)
    if found.end is None:
        raise InvalidInput(Message("The interview is not at its end yet; answer what is asked."), "answers")
    await record(scope, pool_id, stamp, InterviewHeld(tree, tuple(answers), found.end.key))
    return found


def mix_acid(container: str, acid_percent: float, ratio: int, *, units: Units) -> AcidBath:
    """Water and acid for a container as typed: "2 qt". Raises UnreadableQuantity, InvalidInput."""
    milliliters = (
        read_quantity(container, Dimension.VOLUME, "l" if units is Units.METRIC else "qt").value * 1000.0
    )
    return acid_bath(milliliters, acid_percent, ratio)
