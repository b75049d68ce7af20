"""An amount as it is typed: what a sheet says is read back, and what means nothing is told."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.rounding import round_dose
from kumpan.core.dosing.typed_amount import read_amount
from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import G_PER_LB, ML_PER_FL_OZ, Units
from kumpan.core.quantity import Liquid, Mass
from kumpan.core.records.containers import Container, ContainerKind
from tests.words import told

GALLON_ML = 128 * ML_PER_FL_OZ
LIQUID = Product("liquid", "sodium_hypochlorite", 10.0, package_ml=2.5 * GALLON_ML, density_g_per_ml=1.15)
SODA = Product("soda", "sodium_bicarbonate", 100.0, package_g=10 * G_PER_LB)
SALT = Product("salt", "sodium_chloride", 99.5, package_g=40 * G_PER_LB)
TABLETS = Product("tablets", "trichlor", 90.0, package_g=226.8)
LOOSE = Product("loose", "calcium_chloride", 77.0)
BLUE = Container(kind=ContainerKind.CUP, name="blue cup", volume_ml=8 * ML_PER_FL_OZ, parts=4)
BOX = Container(kind=ContainerKind.JUG, name="measuring box", volume_ml=1000.0, parts=10)
SCOOP = Container(kind=ContainerKind.SCOOP, name="Scoop", mass_g=150.0, product_id="soda", parts=2)
SCALE = Container(kind=ContainerKind.SCALE, name="kitchen scale", mass_g=5.0)
BOXES = (BLUE, BOX, SCOOP, SCALE)


def units_of(metric: bool) -> Units:
    return Units.METRIC if metric else Units.US


def grams(product: Product, text: str, *, metric: bool = False) -> float:
    return read_amount(product, text, units=units_of(metric), boxes=BOXES).mass_g


@pytest.mark.parametrize(
    ("product", "text", "expected"),
    [
        (SALT, "8 bags", 8 * 40 * G_PER_LB),
        (SALT, "8 bags of 40 lb", 8 * 40 * G_PER_LB),
        (SALT, "1 bag", 40 * G_PER_LB),
        (SODA, "½ bag of 10 lb", 5 * G_PER_LB),
        (SODA, "1 1/2 boxes", 15 * G_PER_LB),
        (SODA, "2.5 packages", 25 * G_PER_LB),
        (TABLETS, "6 tablets", 6 * 226.8),
        (LIQUID, "2 jugs of 2.5 gal", 5 * GALLON_ML * 1.15),
        (LIQUID, "1¼ jugs", 1.25 * 2.5 * GALLON_ML * 1.15),
        (LIQUID, "3 × blue cup", 24 * ML_PER_FL_OZ * 1.15),
        (LIQUID, "1½ × blue cup (12 fl oz)", 12 * ML_PER_FL_OZ * 1.15),
        (LIQUID, "2 blue cups", 16 * ML_PER_FL_OZ * 1.15),
        (LIQUID, "2 Measuring Boxes", 2000 * 1.15),
        (SODA, "3 scoops", 450.0),
        (SODA, "3 × Scoop (15.9 oz)", 450.0),
        (SODA, "2 lb 4 oz", 2.25 * G_PER_LB),
        (LIQUID, "3 qt", 0.75 * GALLON_ML * 1.15),
        (LIQUID, "1 cup", 8 * ML_PER_FL_OZ * 1.15),  # a US cup: none of the own measures is called just that
    ],
)
def test_packages_and_own_measures_are_read(product: Product, text: str, expected: float) -> None:
    assert grams(product, text) == pytest.approx(expected, rel=1e-6)


def test_a_measure_holds_only_what_it_was_weighed_with() -> None:
    """A scoop of soda says nothing about a scoop of salt; a scale has no fillings."""
    for text in ("2 scoops", "2 kitchen scales"):
        with pytest.raises(UnreadableQuantity, match="is not known"):
            grams(SALT, text)


def test_an_own_cup_called_cup_counts_when_it_is_told_as_on_the_sheet() -> None:
    own = Container(kind=ContainerKind.CUP, name="cup", volume_ml=300.0, parts=4)
    reported = read_amount(LIQUID, "2 × cup (20.3 fl oz)", units=Units.US, boxes=(own,))
    plain = read_amount(LIQUID, "2 cups", units=Units.US, boxes=(own,))
    assert reported.volume_ml == pytest.approx(600.0)
    assert plain.volume_ml == pytest.approx(16 * ML_PER_FL_OZ)


@pytest.mark.parametrize(
    ("product", "text", "said"),
    [
        (LOOSE, "2 bags", "How large a package of"),
        (SALT, "a few bags", "cannot be read"),
        (SALT, "2 heaps", 'The unit "heaps"'),
        (LIQUID, "3 lb", "does not fit here"),
        (SALT, "", "Nothing is written"),
        (SALT, "bags", "cannot be read"),
    ],
)
def test_what_means_nothing_is_told(product: Product, text: str, said: str) -> None:
    with pytest.raises(UnreadableQuantity) as reported:
        grams(product, text)
    assert said in told(reported.value.message)
    assert reported.value.field == "amount"


@pytest.mark.parametrize("text", ["0 bags", "0 lb", "-2 lb", "900000 bags"])
def test_nothing_and_far_too_much_are_refused(text: str) -> None:
    with pytest.raises(InvalidInput, match="over 0"):
        grams(SALT, text)


@given(
    st.sampled_from([LIQUID, SODA, SALT, LOOSE]),
    st.floats(50.0, 60_000.0),
    st.booleans(),
    st.sampled_from([(), BOXES, (BLUE,), (SCALE,)]),
)
def test_what_the_sheet_says_is_read_back(
    product: Product, mass_g: float, metric: bool, boxes: tuple[Container, ...]
) -> None:
    """Whatever words a dose is told in, typing them again notes that dose, to the last figure shown."""
    reported = round_dose(product, mass_g, units_of(metric), 0.1, boxes)
    read = read_amount(product, told(reported.text, units_of(metric)), units=units_of(metric), boxes=boxes)
    assert read.mass_g == pytest.approx(reported.mass_g, rel=0.03, abs=2.0)
    assert (read.volume_ml is None) == (reported.volume_ml is None)


@given(st.floats(1.0, 50_000.0), st.booleans())
def test_plain_words_of_mass_and_volume_are_read_back(amount: float, metric: bool) -> None:
    assert grams(
        SODA, told(Message("{amount}", amount=Mass(amount)), units_of(metric)), metric=metric
    ) == pytest.approx(amount, rel=0.02, abs=8.0)
    read = read_amount(
        LIQUID, told(Message("{amount}", amount=Liquid(amount)), units_of(metric)), units=units_of(metric)
    )
    assert read.volume_ml == pytest.approx(amount, rel=0.06, abs=8.0)
