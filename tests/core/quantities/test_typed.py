"""What people type at the poolside, read by the closed table."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.quantities.typed import Dimension, read_number, read_quantity
from kumpan.core.quantities.units import celsius_from_fahrenheit, fahrenheit_from_celsius
from tests.words import told

D = Dimension


@pytest.mark.parametrize(
    ("typed", "value"),
    [
        ("7,8", 7.8),
        ("7.8", 7.8),
        ("18,400", 18400),
        ("0,5", 0.5),
        ("1 1/2", 1.5),
        ("3/4", 0.75),
        ("2½", 2.5),
        ("½", 0.5),
        ("1,234,567.5", 1234567.5),
        (" 82 ", 82),
    ],
)
def test_numbers_as_written(typed: str, value: float) -> None:
    assert read_number(typed) == pytest.approx(value)


@pytest.mark.parametrize("typed", ["", "abc", "7..8", "1,2,3", "--4", "1/0", "nan", "1e5"])
def test_what_is_no_number_says_so(typed: str) -> None:
    with pytest.raises(UnreadableQuantity):
        read_number(typed)


@pytest.mark.parametrize(
    ("typed", "dimension", "default", "value"),
    [
        ("82F", D.TEMPERATURE, "c", 27.7778),
        ("82 °F", D.TEMPERATURE, "c", 27.7778),
        ("27", D.TEMPERATURE, "c", 27),
        ("2 kg", D.MASS, "lb", 2000),
        ("3 lb 10 oz", D.MASS, "g", 1644.27),
        ("44 fl oz", D.VOLUME, "l", 1.301235),
        ("7 floz", D.VOLUME, "l", 0.207015),
        ("1 qt", D.VOLUME, "l", 0.946353),
        ("1/2 gal", D.VOLUME, "l", 1.892706),
        ("2½ gal", D.VOLUME, "l", 9.463530),
        ("18400", D.VOLUME, "gal", 69651.58),
        ("5'6\"", D.LENGTH, "m", 1.6764),
        ("10 imp gal", D.VOLUME, "l", 45.4609),
        ("32", D.LENGTH, "ft", 9.7536),
        ("3.5m", D.LENGTH, "ft", 3.5),
        ("500 ppb", D.CONCENTRATION, "ppm", 0.5),
        ("28 m3", D.VOLUME, "l", 28000),
    ],
)
def test_quantities_as_written(typed: str, dimension: Dimension, default: str, value: float) -> None:
    assert read_quantity(typed, dimension, default).value == pytest.approx(value, rel=1e-5)


def test_ounces_of_weight_and_of_volume_are_told_apart() -> None:
    with pytest.raises(UnreadableQuantity, match="fl oz"):
        read_quantity("44 oz", D.VOLUME, "l")
    assert read_quantity("44 oz", D.MASS, "g").value == pytest.approx(1247.38, rel=1e-5)


@pytest.mark.parametrize(
    ("typed", "dimension", "hint"),
    [
        ("3 galons", D.VOLUME, "gallons"),
        ("3 xyzzy", D.MASS, "use one of"),
        ("3 kg", D.VOLUME, "does not fit"),
    ],
)
def test_an_unknown_unit_is_asked_about_never_guessed(typed: str, dimension: Dimension, hint: str) -> None:
    with pytest.raises(UnreadableQuantity) as reported:
        read_quantity(typed, dimension, "g")
    assert hint in told(reported.value.message)


@pytest.mark.parametrize("dimension", list(D))
def test_what_cannot_be_read_is_told_by_an_example_that_can(dimension: Dimension) -> None:
    """The cure fits the field: a gauge is not told to write kilograms."""
    with pytest.raises(UnreadableQuantity) as reported:
        read_quantity("a lot", dimension, "g")
    example = told(reported.value.message).split('"')[-2]
    assert read_quantity(example, dimension, "g").had_unit


def test_a_second_number_needs_its_unit() -> None:
    with pytest.raises(UnreadableQuantity, match="without a unit"):
        read_quantity("3 lb 10", D.MASS, "g")


@given(st.floats(-40, 150))
def test_fahrenheit_there_and_back(temperature: float) -> None:
    assert celsius_from_fahrenheit(fahrenheit_from_celsius(temperature)) == pytest.approx(
        temperature, abs=1e-9
    )


@pytest.mark.parametrize(
    ("typed", "inner"),
    [
        ("3 liters", 3.0),
        ("3 litres", 3.0),
        ("1 litre", 1.0),
        ("500 millilitres", 0.5),
        ("500 milliliters", 0.5),
    ],
)
def test_both_spellings_of_a_unit_are_read(typed: str, inner: float) -> None:
    assert read_quantity(typed, Dimension.VOLUME, "gal").value == pytest.approx(inner)


@pytest.mark.parametrize("typed", ["2 meters", "2 metres", "2 m"])
def test_a_length_is_read_in_either_spelling(typed: str) -> None:
    assert read_quantity(typed, Dimension.LENGTH, "ft").value == pytest.approx(2.0)
