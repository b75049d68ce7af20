"""Doses as a person can measure them (rules of handbook 04, common practice)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.rounding import LARGEST_SHIFT, ROUND_DOWN, round_dose
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product, mass_from_volume_g
from kumpan.core.quantities.units import G_PER_LB, G_PER_OZ, ML_PER_FL_OZ, Units
from kumpan.core.quantity import Liquid, Mass
from kumpan.core.records.containers import Container, ContainerKind
from tests.words import told

SALT = Product("salt", "sodium_chloride", 100, package_g=40 * G_PER_LB)


@given(st.sampled_from(sorted(CATALOGUE)), st.floats(1, 5e5), st.booleans())
def test_no_rounding_moves_a_dose_by_more_than_a_tenth(chemical: str, mass_g: float, metric: bool) -> None:
    product = Product("p", chemical, CATALOGUE[chemical].usual_strength_percent, package_g=None)
    rounded = round_dose(product, mass_g, Units.METRIC if metric else Units.US)
    assert abs(rounded.mass_g - mass_g) <= LARGEST_SHIFT * mass_g * (1 + 1e-9)
    assert rounded.text


@given(st.sampled_from(ROUND_DOWN), st.floats(1, 5e5))
def test_acid_calcium_stabilizer_and_salt_round_down(chemical: str, mass_g: float) -> None:
    product = Product("p", chemical, CATALOGUE[chemical].usual_strength_percent, package_g=5000)
    assert round_dose(product, mass_g).mass_g <= mass_g * (1 + 1e-9)


def test_salt_goes_in_whole_bags_down() -> None:
    """Worked example of the trade: 13.35 bags are 13 now, then a retest."""
    assert told(round_dose(SALT, 534 * G_PER_LB).text) == "13 bags of 40 lb"


def test_a_bag_that_would_move_the_dose_too_far_gives_way_to_the_scale() -> None:
    rounded = round_dose(SALT, 68 * G_PER_LB)
    assert "bag" not in told(rounded.text)
    assert rounded.mass_g == pytest.approx(68 * G_PER_LB, rel=0.05)


def test_jugs_by_quarters_and_bags_by_halves() -> None:
    jug = Product("c", "sodium_hypochlorite", 10, package_ml=128 * ML_PER_FL_OZ)
    assert told(round_dose(jug, 1.13 * 97 * ML_PER_FL_OZ).text) == "¾ jug of 1 gal"
    bag = Product("b", "sodium_bicarbonate", 100, package_g=10 * G_PER_LB)
    assert told(round_dose(bag, 14.6 * G_PER_LB).text) == "1½ bags of 10 lb"


@pytest.mark.parametrize(
    ("grams", "us", "metric"),
    [
        (3 * G_PER_LB + 10 * G_PER_OZ, "3 lb 10 oz", "1.64 kg"),
        (13.5 * G_PER_OZ, "13.5 oz", "383 g"),
        (40 * G_PER_LB, "40 lb", "18.1 kg"),
    ],
)
def test_mass_in_words(grams: float, us: str, metric: str) -> None:
    assert told(Message("{amount}", amount=Mass(grams))) == us
    assert told(Message("{amount}", amount=Mass(grams)), Units.METRIC) == metric


def test_volume_in_words() -> None:
    assert told(Message("{amount}", amount=Liquid(44 * ML_PER_FL_OZ))) == "44 fl oz"
    assert told(Message("{amount}", amount=Liquid(160 * ML_PER_FL_OZ))) == "1¼ gal"
    assert told(Message("{amount}", amount=Liquid(170 * ML_PER_FL_OZ))) == "1 gal 42 fl oz"
    assert told(Message("{amount}", amount=Liquid(256 * ML_PER_FL_OZ))) == "2 gal"
    assert told(Message("{amount}", amount=Liquid(1300)), Units.METRIC) == "1.3 L"


BLUE_CUP = Container(kind=ContainerKind.CUP, name="blue cup", volume_ml=8 * ML_PER_FL_OZ, parts=4)
TIN = Container(kind=ContainerKind.SCOOP, name="tin", mass_g=250.0, product_id="soda", parts=2)
SCALE = Container(kind=ContainerKind.SCALE, name="kitchen scale", mass_g=5.0)
SODA = Product("soda", "sodium_bicarbonate", 100)
ACID = Product("acid", "hydrochloric_acid", 31.45)


def test_liquids_are_told_in_the_users_cup() -> None:
    rounded = round_dose(ACID, mass_from_volume_g(ACID, 20.9 * ML_PER_FL_OZ), containers=(BLUE_CUP, SCALE))
    assert told(rounded.text) == "2½ × blue cup (20 fl oz)", "acid rounds down to the quarter cup"


def test_a_scoop_serves_only_what_it_was_weighed_with() -> None:
    assert (
        told(round_dose(SODA, 760.0, Units.METRIC, containers=(TIN,)).text, Units.METRIC) == "3 × tin (750 g)"
    )
    ash = Product("ash", "sodium_carbonate", 100)
    assert round_dose(ash, 760.0, Units.METRIC, containers=(TIN,)) == round_dose(ash, 760.0, Units.METRIC)


def test_where_the_measures_are_too_coarse_a_finer_one_is_named() -> None:
    rounded = round_dose(ACID, mass_from_volume_g(ACID, 1.3 * ML_PER_FL_OZ), containers=(BLUE_CUP,))
    assert "finer" in told(rounded.text)
    assert told(round_dose(SODA, 40.0, Units.METRIC, containers=(TIN, SCALE)).text, Units.METRIC) == "40 g", (
        "the scale takes over"
    )


@given(st.floats(30, 5e4), st.booleans())
def test_containers_keep_the_tenth_too(mass_g: float, metric: bool) -> None:
    for product in (SODA, ACID):
        rounded = round_dose(
            product, mass_g, Units.METRIC if metric else Units.US, containers=(BLUE_CUP, TIN, SCALE)
        )
        assert abs(rounded.mass_g - mass_g) <= LARGEST_SHIFT * mass_g * (1 + 1e-9)


def test_a_bag_still_goes_before_a_cup() -> None:
    assert told(round_dose(SALT, 13.35 * 40 * G_PER_LB, containers=(SCALE,)).text).startswith("13 bags")


def test_nobody_counts_to_thirty_with_a_cup() -> None:
    """Over a dozen fillings the plain amount is told; up to that the cup serves."""
    cup = (Container(kind=ContainerKind.CUP, name="blue cup", volume_ml=8 * ML_PER_FL_OZ, parts=4),)
    liquid = Product("p", "sodium_hypochlorite", 10.0)
    few = round_dose(liquid, mass_from_volume_g(liquid, 10 * 8 * ML_PER_FL_OZ), Units.US, 0.0, cup)
    many = round_dose(liquid, mass_from_volume_g(liquid, 26 * 8 * ML_PER_FL_OZ), Units.US, 0.0, cup)
    assert "blue cup" in told(few.text)
    assert "blue cup" not in told(many.text)
    assert told(many.text).startswith("1 gal")


@pytest.mark.parametrize(
    ("parts", "volume_ml", "text"),
    [
        (10, 400.0, "0.4 × jug (400 mL)"),
        (10, 500.0, "½ × jug (500 mL)"),
        (3, 2000 / 3, "⅔ × jug (667 mL)"),
        (4, 1250.0, "1¼ × jug (1.25 L)"),
        (5, 2400.0, "2.4 × jug (2.4 L)"),
    ],
)
def test_a_measure_is_told_by_its_own_parts(parts: int, volume_ml: float, text: str) -> None:
    """A jug read in tenths is filled to 0.4: told as a half it would take a quarter too much."""
    jug = Container(kind=ContainerKind.JUG, name="jug", volume_ml=1000.0, parts=parts)
    liquid = Product("p", "sodium_hypochlorite", 10.0)
    assert (
        told(
            round_dose(liquid, mass_from_volume_g(liquid, volume_ml), Units.METRIC, 0.0, (jug,)).text,
            Units.METRIC,
        )
        == text
    )
