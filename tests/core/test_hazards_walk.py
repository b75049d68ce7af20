"""The walk through everything that is told to do something: each step names its class and carries all of
its cautions.

Every kind of plan, every stage of a rescue, the draining day, all procedures, opening and closing.
"""

from collections.abc import Iterator
from dataclasses import replace

import pytest

from kumpan.core.algae.criteria import StageKey, stage_now
from kumpan.core.algae.drain_day import drain_day_plan
from kumpan.core.algae.stages import stage_plan
from kumpan.core.hazards import HAZARDS, Hazard, cautions_for
from kumpan.core.journal import Clarity, RescueSet, Severity
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Readings
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import ADD, WAIT, Step
from kumpan.core.season.plans import CLOSING, OPENING, Row
from kumpan.core.treatment.plan import plan
from kumpan.core.treatment.special.borate import borate_plan
from kumpan.core.treatment.special.drain import DrainRequest, Hoses, drain_plan
from kumpan.core.treatment.special.incident import Incident, incident_plan
from kumpan.core.treatment.special.lower_chlorine import lower_chlorine_plan
from kumpan.core.treatment.special.mineral import mineral_plan
from kumpan.core.treatment.special.shock import ShockReason, ShockRequest, ShockStrategy, shock_plan
from tests.core.algae.cases import ACID, ASH, DICHLOR, HYPO, LIQUID, TABLETS, Case, nearly_over
from tests.core.samples import GOOD, PLASTER
from tests.core.treatment.special.test_lower_chlorine_and_others import MINERAL, special
from tests.words import told

TRAITS = (
    PLASTER,
    Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.CARTRIDGE),
    Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.DE),
    Traits(surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True),
)
INVENTORY = (LIQUID, HYPO, DICHLOR, TABLETS, ACID, ASH)
FILL = Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120)
OFF = replace(
    GOOD,
    free_chlorine=0.5,
    total_chlorine=1.9,
    ph=8.1,
    total_alkalinity=50.0,
    calcium_hardness=90.0,
    cyanuric_acid=10.0,
)
HIGH = replace(GOOD, free_chlorine=9.0, total_chlorine=9.2, cyanuric_acid=120.0)


def usual_and_special(traits: Traits) -> Iterator[Step]:
    for readings in (OFF, HIGH):
        request = replace(special(readings, traits), inventory=INVENTORY)
        own = bands(profile("household"), traits, readings.cyanuric_acid)
        yield from plan(readings, request.volume_l, traits, Aims(own, {}), INVENTORY).steps
        for today in (True, False):
            yield from lower_chlorine_plan(request, today=today).steps
        for chemical in ("boric_acid", "borax"):
            yield from borate_plan(request, chemical).steps
        hoses = Hoses(7000, 1500, None)
        drained = DrainRequest(
            readings=readings, volume_l=request.volume_l, traits=traits, bands=own, fill=FILL, hoses=hoses
        )
        yield from drain_plan(drained).steps
        yield from drain_day_plan(drained).steps
    yield from mineral_plan(special(GOOD, MINERAL)).steps


def shocks_and_accidents(traits: Traits) -> Iterator[Step]:
    evening = Case().request().evening
    base = ShockRequest(
        readings=OFF,
        volume_l=60_000.0,
        traits=traits,
        inventory=INVENTORY,
        bands=bands(profile("household"), traits, 10.0),
        swim_limit_mg_l=4.0,
        strategy=ShockStrategy.RATIO,
        now=Case().now,
        evening=evening,
        zone=Case().request().zone,
    )
    for strategy in ShockStrategy:
        for reason in ShockReason:
            yield from shock_plan(replace(base, strategy=strategy, reason=reason)).steps
    for incident in Incident:
        yield from incident_plan(incident, base).steps


def rescues(traits: Traits) -> Iterator[tuple[StageKey, Step]]:
    """Every stage of every severity."""
    for severity in Severity:
        setting = RescueSet(severity=severity)

        def case(setting: RescueSet = setting) -> Case:
            return Case(traits=traits, setting=setting, inventory=INVENTORY)

        over = {"traits": traits, "setting": setting, "inventory": INVENTORY}
        cases = (
            case(),
            case().begin(copper=0.5),
            case().begin(ph=8.1).prepared(),
            case().begin(ph=6.8).prepared(),
            case().begin().prepared(),
            case().begin().prepared().gauge(140.0),
            nearly_over(**over).visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6),
            nearly_over(**over)
            .visual_check(Clarity.CLOUDY)
            .test(free_chlorine=11.2, total_chlorine=11.6)
            .later(hours=14.5)
            .visual_check(Clarity.CLOUDY)
            .test(free_chlorine=9.8, total_chlorine=10.2),
            nearly_over(**over).visual_check(Clarity.CLEAR).test(free_chlorine=11.2, total_chlorine=11.6),
        )
        for one in cases:
            stage = stage_now(one.request())
            for step in stage_plan(one.request()).steps:
                yield stage, step


def wrong(step: Step) -> bool:
    """Not in the table, without its class's cautions, or a pour told as harmless."""
    if step.kind == WAIT:
        return False
    reported = step.hazard in HAZARDS and tuple(step.cautions) == cautions_for(step.hazard)
    return not reported or (step.hazard is Hazard.NONE and (step.kind == ADD or step.pour_path))


@pytest.mark.parametrize("traits", TRAITS, ids=lambda t: f"{t.surface}-{t.chlorination}")
def test_every_step_of_every_plan_carries_its_cautions(traits: Traits) -> None:
    steps = [*usual_and_special(traits), *shocks_and_accidents(traits)]
    assert len(steps) > 100
    assert [step.title for step in steps if wrong(step)] == []


@pytest.mark.parametrize("traits", TRAITS, ids=lambda t: f"{t.surface}-{t.chlorination}")
def test_every_step_of_every_rescue_carries_its_cautions(traits: Traits) -> None:
    found = list(rescues(traits))
    assert {stage for stage, _ in found} == set(StageKey)
    assert [step.title for _, step in found if wrong(step)] == []


@pytest.mark.parametrize("key", sorted(PROCEDURES))
def test_every_step_of_every_procedure_names_its_class(key: str) -> None:
    for step in PROCEDURES[key].steps:
        assert step.hazard in HAZARDS, step.text


# Words that tell of a danger, and the classes that caution against it.
DANGEROUS = {
    "electrician": {Hazard.ELECTRICITY},
    "backwash": {Hazard.VALVE},
    "compressed air": {Hazard.PRESSURE},
    "grids": {Hazard.SILICA},
    "ground water": {Hazard.SHELL},
    "pumped off": {Hazard.ELECTRICITY},
}  # fmt: skip


@pytest.mark.parametrize("row", [*OPENING, *CLOSING], ids=lambda row: row.key)
def test_every_item_of_the_season_names_its_class(row: Row) -> None:
    assert row.hazard in HAZARDS
    for word, allowed in DANGEROUS.items():
        assert word not in told(row.text).lower() or row.hazard in allowed
