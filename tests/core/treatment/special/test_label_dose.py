"""Every row of the handbook's table of products that are dosed by their label (12), and what its rules ask."""

from datetime import UTC, datetime

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.by_label import KINDS, NEVER, LabelDose, checked, kind_of_label
from kumpan.core.products.catalogue import BY_LABEL
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, ML_PER_FL_OZ
from kumpan.core.records.step import ADD, DO, WAIT
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.special.label_dose import label_plan
from kumpan.core.treatment.special.request import SpecialRequest
from tests.words import told

TEN_THOUSAND_GAL = 10_000 * L_PER_US_GAL
SAND = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
CALM = Readings(free_chlorine=3.0, ph=7.4, copper=0.0)


def request(
    readings: Readings = CALM,
    *,
    gallons: float = 10_000,
    traits: Traits = SAND,
    poured: tuple[tuple[int, str], ...] = (),
) -> SpecialRequest:
    return SpecialRequest(
        readings=readings,
        volume_l=gallons * L_PER_US_GAL,
        traits=traits,
        bands={},
        inventory=(),
        swim_limit_mg_l=4.0,
        now=datetime(2026, 7, 1, 18, tzinfo=UTC),
        zone=UTC,
        poured=poured,
    )


def product(key: str, dose: LabelDose | None = None) -> Product:
    return Product(key, key, BY_LABEL[key].usual_strength_percent, label_dose=dose)


def amount(found: Plan) -> float:
    """fl oz of a liquid, lb of a solid, of the one addition."""
    (step,) = [step for step in found.steps if step.kind == ADD]
    assert step.mass_g is not None
    return step.mass_g / G_PER_LB if step.volume_ml is None else step.volume_ml / ML_PER_FL_OZ


# Handbook 12: typical first and upkeep dose per 10 000 gal, fl oz or lb, and the days between.
ROWS = [
    ("algaecide_quat", 10, 3, 7),
    ("algaecide_polyquat", 5, 2, 7),
    ("algaecide_copper", 6, None, None),
    ("algae_booster", 2 / 1.5, None, None),
    ("clarifier", 4, 2, 7),
    ("flocculant", 16, None, None),
    ("enzyme", 16, 8, 14),
    ("phosphate_remover", 8, None, None),
    ("sequestrant", 16, 4, 7),
]


@pytest.mark.parametrize(("key", "first", "upkeep", "days"), ROWS)
def test_the_usual_dose_is_the_handbooks(
    key: str, first: float, upkeep: float | None, days: int | None
) -> None:
    kind = KINDS[key]
    usual = kind.usual()
    assert usual is not None
    unit = ML_PER_FL_OZ if kind.is_liquid else G_PER_LB
    assert usual.first_per_l * TEN_THOUSAND_GAL / unit == pytest.approx(first, rel=1e-3)
    then = None if usual.upkeep_per_l is None else usual.upkeep_per_l * TEN_THOUSAND_GAL / unit
    assert then == (None if upkeep is None else pytest.approx(upkeep))
    assert kind.repeat_days == days


@pytest.mark.parametrize("key", [key for key in KINDS if KINDS[key].first and key != "algaecide_copper"])
def test_the_dose_grows_with_the_gallons_and_names_the_label(key: str) -> None:
    one, two = label_plan(request(), product(key), upkeep=False), None
    two = label_plan(request(gallons=20_000), product(key), upkeep=False)
    assert amount(two) == pytest.approx(2 * amount(one))
    (step,) = [step for step in one.steps if step.kind == ADD]
    assert "label" in told(step.why)
    assert step.reason_code == "label"
    assert step.derivation is None, "nothing is reckoned by our engine"
    assert step.cautions


def test_the_own_label_counts_before_the_usual_one() -> None:
    own = LabelDose(first_per_l=7 * ML_PER_FL_OZ / TEN_THOUSAND_GAL, repeat_days=10, swim_wait_min=120)
    found = label_plan(request(), product("clarifier", own), upkeep=False)
    assert amount(found) == pytest.approx(7)
    assert "By your label" in told(next(step.why for step in found.steps if step.kind == ADD))
    assert any(step.kind == WAIT and step.minutes == 120 for step in found.steps)


def test_upkeep_is_the_smaller_dose() -> None:
    assert amount(label_plan(request(), product("algaecide_quat"), upkeep=True)) == pytest.approx(3)


@pytest.mark.parametrize(
    "key", ["algaecide_quat", "algaecide_polyquat", "clarifier", "enzyme", "sequestrant"]
)
def test_chlorine_over_five_is_waited_for(key: str) -> None:
    """Handbook 12, only-if: free chlorine under 5."""
    found = label_plan(request(Readings(free_chlorine=6.0)), product(key), upkeep=False)
    assert not found.steps
    assert [one.code for one in found.unmet] == ["wait"]
    unknown = label_plan(request(Readings()), product(key), upkeep=False)
    assert [one.code for one in unknown.unmet] == ["not_tested"]


@pytest.mark.parametrize("kind", [Filter.CARTRIDGE, Filter.DE])
def test_flocculant_is_for_sand_alone(kind: Filter) -> None:
    traits = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=kind)
    found = label_plan(request(traits=traits), product("flocculant"), upkeep=False)
    assert not found.steps
    assert [one.code for one in found.unmet] == ["unsuited"]


def test_six_ounces_of_seven_percent_copper_go_over_the_limit_and_the_most_is_said() -> None:
    """Handbook 12: 6 fl oz of a 7 % product in 10 000 gal give 0.38 ppm (by a density of 1.15); at most 4.8."""
    dense = Product("c", "algaecide_copper", 7.0, density_g_per_ml=1.15)
    found = label_plan(request(), dense, upkeep=False)
    assert not found.steps
    (left,) = found.unmet
    assert left.code == "over_cap"
    text = told(left.reason)
    assert "0.38" in text
    assert "At most 4.77 fl oz" in text


def test_copper_within_its_limit_is_planned_and_expected() -> None:
    weak = Product("c", "algaecide_copper", 3.0)
    found = label_plan(request(), weak, upkeep=False)
    brought = 6 * ML_PER_FL_OZ * 0.03 / TEN_THOUSAND_GAL * 1000
    assert found.predicted.copper == pytest.approx(brought, rel=5e-3)
    untested = label_plan(request(Readings(free_chlorine=3.0)), weak, upkeep=False)
    assert [(one.measure, one.code) for one in untested.unmet] == [(Measure.COPPER, "not_tested")]


def test_a_booster_asks_for_all_the_chlorine_first() -> None:
    """2 lb of ammonium sulfate in 15 000 gal want about 25 ppm to breakpoint. [D]"""
    found = label_plan(request(gallons=15_000), product("algae_booster"), upkeep=False)
    assert amount(found) == pytest.approx(2.0, rel=1e-3)
    before = [told(step.why) for step in found.steps if step.kind == DO]
    assert any("26" in text or "25" in text for text in before), before


def test_a_quat_keeps_a_day_from_a_shock_and_phosphate_four_weeks_from_a_sequestrant() -> None:
    after_shock = label_plan(
        request(poured=((60, "calcium_hypochlorite"),)), product("algaecide_quat"), upkeep=False
    )
    first = next(step for step in after_shock.steps if step.kind == ADD)
    assert first.offset_min >= 1440 - 60
    later = label_plan(request(poured=((0, "sequestrant"),)), product("phosphate_remover"), upkeep=False)
    assert next(step for step in later.steps if step.kind == ADD).offset_min >= 28 * 1440


def test_what_does_not_belong_in_the_pool_is_never_poured() -> None:
    for key in ("surface_cleaner", "filter_aid", "supply"):
        found = label_plan(request(), product(key), upkeep=False)
        assert not found.steps
        assert "not_into_the_pool" in {one.code for one in found.unmet}


def test_bromide_is_refused_with_the_reason_and_a_chemical_is_no_label() -> None:
    with pytest.raises(InvalidInput, match="bromine"):
        kind_of_label("bromide")
    assert "bromide" in NEVER
    with pytest.raises(InvalidInput, match="computed"):
        label_plan(request(), Product("s", "sodium_chloride", 100.0), upkeep=False)


def test_a_label_says_no_more_than_its_own_most() -> None:
    with pytest.raises(InvalidInput, match="maximum") as refused:
        checked(LabelDose(first_per_l=3.0, most_per_l=2.0))
    assert refused.value.field == "first"
    with pytest.raises(InvalidInput):
        checked(LabelDose(first_per_l=0.0))
