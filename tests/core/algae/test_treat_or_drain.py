"""Treat or drain: the sums of each way, the handbook's rule, and what changes the answer (07, treat or
drain).
"""

from collections.abc import Mapping
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.algae.board import board
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.treat_or_drain import OptionCost, TreatOrDrain, treat_or_drain
from kumpan.core.journal import PlantSet, RescueSet, Severity
from kumpan.core.pool.equipment import Surface
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from kumpan.core.treatment.special.drain import Hoses
from tests.core.algae.cases import ACID, ASH, LIQUID, PLASTER, VINYL, VOLUME_L, Case
from tests.words import told

STABILIZER = Product("stabiliser", "cyanuric_acid", 100.0)
SODA = Product("soda", "sodium_bicarbonate", 100.0)
CALCIUM = Product("calcium", "calcium_chloride", 77.0)
INVENTORY = (LIQUID, ACID, ASH, STABILIZER, SODA, CALCIUM)
PRICES: Mapping[str, float] = {
    "liquid": 0.0012, "acid": 0.002, "ash": 0.006, "stabiliser": 0.013, "soda": 0.0035, "calcium": 0.005,
}  # fmt: skip
HOSES = Hoses(7000.0, 1500.0, 1.6, "€")
FILL = Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120, salt=90)


def request(
    severity: Severity = Severity.OPAQUE, *, case: Case | None = None, **values: float
) -> RescueRequest:
    one = case or Case(setting=RescueSet(severity=severity), inventory=INVENTORY)
    return one.begin(**values).request(price_per_g=PRICES, hoses=HOSES, fill=FILL)


def compared(question: RescueRequest) -> TreatOrDrain:
    return treat_or_drain(question, board(question))


def strategy(found: TreatOrDrain, key: str) -> OptionCost:
    return next(one for one in found.strategies if one.key == key)


def test_a_refill_costs_its_water_and_its_startup() -> None:
    """60 m3 at 1.60 is 96; what brings fill water to the pool's aims comes on top."""
    drain = strategy(compared(request()), "drain")
    assert drain.money is not None
    low, high = drain.money
    assert low == high
    assert low > 1.6 * VOLUME_L / 1000
    assert drain.water_l == VOLUME_L


def test_a_refill_takes_the_hoses_hours_a_day_of_work_and_the_startup() -> None:
    """60 m3 out at 7 m3/h and in at 1.5 m3/h: 49 hours, so 4 days at least with the day before."""
    low, high = strategy(compared(request()), "drain").days
    assert (low, high) == (4, 7)


def test_without_a_price_no_sum_is_made_up() -> None:
    question = request()
    unpriced = replace(question, price_per_g={})
    assert strategy(compared(unpriced), "treat").money is None
    assert strategy(compared(unpriced), "drain").money is None
    dry = replace(question, hoses=Hoses(7000.0, 1500.0, None))
    assert strategy(compared(dry), "drain").money is None
    assert strategy(compared(dry), "treat").money is not None


def test_what_a_sum_leaves_out_is_named_instead_of_a_blank() -> None:
    question = request()
    whole = strategy(compared(question), "drain")
    assert whole.gaps == ()
    dry = strategy(compared(replace(question, hoses=Hoses(7000.0, 1500.0, None))), "drain")
    assert [told(gap) for gap in dry.gaps] == ["the price of water"]
    assert whole.money is not None
    assert 0 < dry.at_least == pytest.approx(whole.money[0] - 1.6 * VOLUME_L / 1000)
    unpriced = compared(replace(question, price_per_g={}))
    assert "the price of the chlorine" in {told(gap) for gap in strategy(unpriced, "treat").gaps}
    assert strategy(unpriced, "drain").at_least == pytest.approx(1.6 * VOLUME_L / 1000)


def test_the_pump_is_part_of_what_treating_costs() -> None:
    """A kilowatt around the clock at 0.30 is 7.20 a day."""
    case = Case(setting=RescueSet(severity=Severity.OPAQUE), inventory=INVENTORY).tell(
        PlantSet(pump_kw=1.0, price_per_kwh=0.30)
    )
    with_pump, without = (
        strategy(compared(request(case=case)), "treat"),
        strategy(compared(request()), "treat"),
    )
    assert with_pump.money is not None
    assert without.money is not None
    assert with_pump.money[0] - without.money[0] == pytest.approx(7.2 * with_pump.days[0], rel=0.01)
    assert with_pump.money[1] - without.money[1] == pytest.approx(7.2 * with_pump.days[1], rel=0.01)


@pytest.mark.parametrize(
    ("severity", "stabilizer", "calcium", "expected"),
    [
        (Severity.OPAQUE, 101.0, 250.0, "drain"),
        (Severity.OPAQUE, 50.0, 601.0, "drain"),
        (Severity.OPAQUE, 50.0, 600.0, "treat"),
        (Severity.OPAQUE, 100.0, 250.0, "part"),  # at the limit it is no reason yet; 40 asked, 30 borne
        (Severity.GREEN, 101.0, 250.0, "part"),  # the first step is seen
        (Severity.GREEN, 60.0, 900.0, "treat"),
        (Severity.LIGHT, 40.0, 250.0, "treat"),
    ],
)
def test_the_handbooks_rule(severity: Severity, stabilizer: float, calcium: float, expected: str) -> None:
    """Drain when one cannot see past the first step and stabilizer is over 100 or calcium over 600."""
    found = compared(request(severity, cyanuric_acid=stabilizer, calcium_hardness=calcium))
    assert found.verdict == expected
    assert found.reasons


def test_the_users_own_limits_go_before_the_handbooks() -> None:
    question = request(cyanuric_acid=80.0)
    assert compared(question).verdict != "drain"
    stricter = replace(question, setting=replace(question.setting, drain_over_stabilizer=70.0))
    found = compared(stricter)
    assert (found.verdict, found.drain_over_stabilizer) == ("drain", 70.0)


def test_in_part_means_just_so_much_that_the_level_can_be_reached() -> None:
    """Plaster bears 30, which is 40 % of 75: from 100 to 75 a quarter is replaced."""
    part = strategy(compared(request(Severity.GREEN, cyanuric_acid=100.0)), "part")
    treat = strategy(compared(request(Severity.GREEN, cyanuric_acid=100.0)), "treat")
    assert part.water_l - treat.water_l == pytest.approx(0.25 * VOLUME_L, rel=0.02)
    assert "25 %" in told(part.text)


def test_a_liner_is_never_told_to_be_emptied_at_once() -> None:
    case = Case(traits=VINYL, setting=RescueSet(severity=Severity.OPAQUE), inventory=INVENTORY)
    found = compared(request(case=case, cyanuric_acid=120.0))
    assert found.verdict == "drain"
    assert any("parts, never all of it at once" in told(reason) for reason in found.reasons)
    assert "liner installer" in told(strategy(found, "drain").text)


@pytest.mark.parametrize("surface", [Surface.PLASTER, Surface.FIBERGLASS])
def test_a_shell_sends_to_a_professional_first(surface: Surface) -> None:
    case = Case(
        traits=replace(PLASTER, surface=surface),
        setting=RescueSet(severity=Severity.OPAQUE),
        inventory=INVENTORY,
    )
    found = compared(request(case=case, cyanuric_acid=120.0))
    assert any("professional" in told(reason) for reason in found.reasons)


def test_nothing_on_the_shelf_is_told_and_not_reckoned() -> None:
    question = replace(request(), inventory=(ACID,))
    treat = strategy(compared(question), "treat")
    assert (treat.money, told(treat.text)) == (None, "Nothing on the shelf treats it.")


def test_dear_treating_is_told_to_be_dearer() -> None:
    """Chlorine at a hundred times its price: a refill is cheaper, whatever the rule says."""
    question = replace(request(Severity.OPAQUE), price_per_g={**PRICES, "liquid": 0.12})
    found = compared(question)
    assert found.verdict == "drain"
    assert any("costs more than a refill" in told(reason) for reason in found.reasons)


@given(st.floats(0, 160), st.floats(100, 900), st.sampled_from(list(Severity)))
@settings(max_examples=20)
def test_every_answer_is_one_of_its_ways_with_honest_spans(
    stabilizer: float, calcium: float, severity: Severity
) -> None:
    found = compared(request(severity, cyanuric_acid=stabilizer, calcium_hardness=calcium))
    assert found.verdict in {one.key for one in found.strategies}
    for one in found.strategies:
        assert 0 <= one.days[0] <= one.days[1]
        assert 0 <= one.water_l <= 2 * VOLUME_L
        assert one.money is None or 0 <= one.money[0] <= one.money[1]
        assert one.text
    assert found.currency == "€"
