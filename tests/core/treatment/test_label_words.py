"""What is dosed by its label is told with the product of the shelf and its own amount."""

from dataclasses import replace

import pytest

from kumpan.core.messages import NOTHING
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.by_label import LabelDose
from kumpan.core.products.product import Product
from kumpan.core.records.step import ADD
from kumpan.core.treatment.label_words import by_own_label, label_words
from kumpan.core.treatment.plan import AS_SOLD
from kumpan.core.treatment.special.mineral import mineral_plan
from tests.core.samples import POOL_L
from tests.core.treatment.special.test_lower_chlorine_and_others import special
from tests.words import told

OWN = Product("own", "clarifier", 100, name="Clear water", label_dose=LabelDose(first_per_l=250 / POOL_L))
MUTE = Product("mute", "clarifier", 100, name="Mute")


def test_the_amount_is_the_labels_own_and_a_silent_label_tells_nothing() -> None:
    assert (
        told(label_words([MUTE, OWN], ("clarifier",), POOL_L, AS_SOLD))
        == "8.5 fl oz of Clear water by its label"
    )
    assert label_words([MUTE], ("clarifier",), POOL_L, AS_SOLD) == NOTHING
    assert by_own_label([OWN], ("enzyme",), POOL_L) is None


def test_a_mineral_program_pours_the_starter_of_the_shelf() -> None:
    traits = Traits(surface=Surface.PLASTER, chlorination=Chlorination.MINERAL, filter=Filter.SAND)
    starter = Product(
        "s", "mineral_starter", 100, name="First bag", label_dose=LabelDose(first_per_l=2000 / POOL_L)
    )
    without = special(traits=traits)
    (pour,) = (s for s in mineral_plan(replace(without, inventory=(starter,))).steps if s.kind == ADD)
    assert told(pour.title) == "First bag"
    assert pour.mass_g == pytest.approx(2000)
    assert "over the whole surface" in told(pour.where)
    assert any("the whole package, by its label" in told(step.title) for step in mineral_plan(without).steps)
