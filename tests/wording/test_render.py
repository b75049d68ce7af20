"""Messages in words: values in the reader's units and language, whole templates, and no sentence glued from
parts.
"""

import ast
import re
from datetime import date, datetime
from typing import Any
from zoneinfo import ZoneInfo

import pytest

from kumpan.core.messages import NOTHING, Cased, Message, Plural, Value, Verbatim, joined, listed
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import (
    Ahead,
    Clock,
    Count,
    DateForm,
    Day,
    Duration,
    Flow,
    Liquid,
    Mass,
    Money,
    Number,
    Percent,
    PoolWater,
    Pressure,
    Rain,
    RoughLiquid,
    RoughMass,
    Temperature,
    Weeks,
)
from kumpan.wording.catalogs import accented, catalog_of
from kumpan.wording.reader import METRIC_READER, PSEUDO, US_READER, Reader
from kumpan.wording.render import render, value_text

CHICAGO = ZoneInfo("America/Chicago")
EVENING = datetime(2026, 11, 27, 19, 10, tzinfo=CHICAGO)


@pytest.mark.parametrize(
    ("value", "us", "metric"),
    [
        (Number(1.25, digits=1), "1.2", "1.2"),
        (Number(0.123456, figures=3), "0.123", "0.123"),
        (Number(0.3, digits=2, signed=True), "+0.30", "+0.30"),
        (Number(12345.6, digits=0), "12,346", "12,346"),
        (Number(-0.6, digits=1), "−0.6", "−0.6"),
        (Number(2900), "2,900", "2,900"),
        (Percent(0.314), "31 %", "31 %"),
        (PoolWater(84_792.0), "22,400 gal", "84,800 L"),  # product.md: 22,400 gal
        (Mass(1644.3), "3 lb 10 oz", "1.64 kg"),
        (Liquid(1301.2), "44 fl oz", "1.3 L"),
        (Liquid(9463.5), "2½ gal", "9.46 L"),
        (RoughMass(5443.0), "12 lb", "5.5 kg"),
        (RoughLiquid(13_249.0), "3.5 gal", "13 L"),
        (Pressure(124.1), "18 psi", "1.24 bar"),
        (Pressure(124.1, other=True), "1.24 bar", "18 psi"),
        (Flow(227.1), "60 gpm", "227 L/min"),
        (Temperature(27.8), "82 °F", "28 °C"),
        (Rain(16.0), "0.6 in", "16 mm"),
        (Money(3.5, "$", digits=2), "$3.50", "$3.50"),
        (Count(1.5), "1½", "1½"),
        (Duration(95), "1 h 35 min", "1 h 35 min"),
        (Weeks(20.0), "about 3 weeks", "about 3 weeks"),
        (Day(date(2026, 11, 27)), "November 27", "November 27"),
        (Day(date(2026, 11, 27), DateForm.WEEKDAY), "Friday", "Friday"),
        (Clock(EVENING), "7:10 PM", "19:10"),  # product.md: 7:10 PM
        (Ahead(EVENING, EVENING), "today about 7 PM", "today about 19:00"),
        (Plural("{n} dose", "{n} doses", 1), "1 dose", "1 dose"),
        (Plural("{n} dose", "{n} doses", 3), "3 doses", "3 doses"),
        (listed([Message("pH"), Message("salt"), Verbatim("x")]), "pH, salt and x", "pH, salt and x"),
        (joined([Message("a"), NOTHING, Message("b")], "; "), "a; b", "a; b"),
        (Cased(Message("Brush the floor")), "brush the floor", "brush the floor"),
        (Cased(Message("pH is low")), "pH is low", "pH is low"),
        (Cased(Message("brush it"), upper=True), "Brush it", "Brush it"),
    ],
    ids=lambda value: type(value).__name__,
)
def test_each_value_is_told_in_the_readers_units(value: Value, us: str, metric: str) -> None:
    assert value_text(value, US_READER) == us
    assert value_text(value, METRIC_READER) == metric


def test_a_day_is_told_in_the_readers_language_and_its_numbers_with_its_signs() -> None:
    german = Reader(Units.METRIC, "de_DE")
    assert value_text(Day(date(2026, 11, 27)), german) == "27. November"
    assert value_text(PoolWater(84_792.0), german) == "84.800 L"
    assert value_text(Number(7.5), german) == "7,5"


def test_a_template_that_names_what_is_not_given_is_a_fault_of_ours() -> None:
    with pytest.raises(KeyError):
        render(Message("{amount} of {product}", amount=Mass(1.0)))


def test_the_pseudo_language_leaves_the_names_of_values_alone() -> None:
    assert accented("Add {amount} at {time}.") == "⟦Àdd {amount} àţ {time}.⟧".replace("ţ", "ť")
    assert catalog_of(PSEUDO).plural("{n} dose", "{n} doses", 2) == accented("{n} doses")
    assert render(Message("{n} left", n=Number(2)), Reader(language=PSEUDO)) == "⟦2 léfť⟧"


def templates_in(value: Any) -> set[str]:
    """The templates of a message, those inside it too."""
    if isinstance(value, Message):
        return {value.template} | {t for _, inner in value.values for t in templates_in(inner)}
    if isinstance(value, Cased):
        return templates_in(value.words)
    items = getattr(value, "items", ())
    return {t for item in items for t in templates_in(item)} if isinstance(items, tuple) else set()


def test_extraction_finds_a_template_and_a_plural() -> None:
    from kumpan.tools.messages import templates

    tree = ast.parse('Message("Pour {amount}.", amount=x); Plural("{n} day", "{n} days", n); f"{a} b"')
    assert [text for text, _ in templates(tree)][:2] == ["Pour {amount}.", ("{n} day", "{n} days")]
    assert "{a} b" not in [text for text, _ in templates(tree)]


ASCII_WORD = re.compile(r"[A-Za-z]{2,}")
