"""The closed table that reads what people type at the poolside.

"82F", "2 kg", "7,8", "1 1/2 qt", "3 lb 10 oz", "5'6" are read; a unit that is not in the table is
asked about, never guessed. Weight ounces and fluid ounces are told apart always.
Source: unit-definitions (exact).
"""

import re
from dataclasses import dataclass
from difflib import get_close_matches
from enum import StrEnum

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.units import (
    G_PER_LB,
    G_PER_OZ,
    KPA_PER_PSI,
    L_PER_IMP_GAL,
    L_PER_M3,
    L_PER_US_GAL,
    M_PER_FT,
    M_PER_IN,
    ML_PER_FL_OZ,
    celsius_from_fahrenheit,
)


class Dimension(StrEnum):
    """What a typed quantity measures; the value is the inner unit's name."""

    VOLUME = "L"
    MASS = "g"
    LENGTH = "m"
    TEMPERATURE = "C"
    CONCENTRATION = "mg/L"
    PRESSURE = "kPa"
    FLOW = "L/min"


# word -> (dimension, factor to the inner unit). Temperature is handled apart: it has an offset.
_UNIT_ROWS: tuple[tuple[Dimension, float, str], ...] = (
    (Dimension.VOLUME, L_PER_US_GAL, "gal gals gallon gallons usgal"),
    (Dimension.VOLUME, L_PER_IMP_GAL, "impgal ukgal"),
    (Dimension.VOLUME, L_PER_US_GAL / 4, "qt qts quart quarts"),
    (Dimension.VOLUME, L_PER_US_GAL / 8, "pt pts pint pints"),
    (Dimension.VOLUME, L_PER_US_GAL / 16, "cup cups"),
    (Dimension.VOLUME, ML_PER_FL_OZ / 1000, "floz floz. fl.oz fl.oz."),
    (Dimension.VOLUME, ML_PER_FL_OZ / 2000, "tbsp tablespoon tablespoons"),
    (Dimension.VOLUME, ML_PER_FL_OZ / 6000, "tsp teaspoon teaspoons"),
    (Dimension.VOLUME, 1.0, "l lt liter liters litre litres"),
    (Dimension.VOLUME, 0.001, "ml milliliter milliliters millilitre millilitres cc"),
    (Dimension.VOLUME, L_PER_M3, "m3 m³ cbm"),
    (Dimension.MASS, G_PER_LB, "lb lbs pound pounds"),
    (Dimension.MASS, G_PER_OZ, "oz ounce ounces"),
    (Dimension.MASS, 1000.0, "kg kgs kilo kilos"),
    (Dimension.MASS, 1.0, "g gr gram grams"),
    (Dimension.MASS, 0.001, "mg"),
    (Dimension.LENGTH, M_PER_FT, "ft foot feet '"),
    (Dimension.LENGTH, M_PER_IN, 'in inch inches "'),
    (Dimension.LENGTH, 1.0, "m meter meters metre metres"),
    (Dimension.LENGTH, 0.01, "cm"),
    (Dimension.CONCENTRATION, 1.0, "ppm mg/l"),
    (Dimension.CONCENTRATION, 0.001, "ppb ug/l µg/l"),
    (Dimension.PRESSURE, KPA_PER_PSI, "psi"),
    (Dimension.PRESSURE, 100.0, "bar bars"),
    (Dimension.PRESSURE, 1.0, "kpa"),
    (Dimension.FLOW, L_PER_US_GAL, "gpm gal/min"),
    (Dimension.FLOW, 1.0, "l/min lpm"),
    (Dimension.FLOW, 1000 / 60, "m3/h m³/h"),
    (Dimension.TEMPERATURE, 5 / 9, "f °f degf fahrenheit"),
    (Dimension.TEMPERATURE, 1.0, "c °c degc celsius"),
)


_LIKE: dict[Dimension, str] = {
    Dimension.VOLUME: "3 qt", Dimension.MASS: "2 kg", Dimension.LENGTH: "16 ft",
    Dimension.TEMPERATURE: "82 F",
    Dimension.CONCENTRATION: "3 ppm", Dimension.PRESSURE: "18 psi", Dimension.FLOW: "60 gpm",
}  # fmt: skip


UNITS: dict[str, tuple[Dimension, float]] = {
    word: (dimension, factor) for dimension, factor, words in _UNIT_ROWS for word in words.split()
}


_FAHRENHEIT = frozenset(["f", "°f", "degf", "fahrenheit"])
_TWO_WORDS = re.compile(r"(fl|us|imp|uk)\.?\s+(oz|gal\w*)", re.IGNORECASE)
_VULGAR = {"½": ".5", "¼": ".25", "¾": ".75", "⅓": ".3333333333", "⅔": ".6666666667"}
_UNIT = r"""['"]|[^\d\s.,+'"-][^\d\s'"]*(?:(?<=m)3(?:/h)?)?"""
_PIECE = re.compile(
    rf"\s*(?P<number>[+-]?\d+\s+\d+/\d+|[+-]?\d+/\d+|[+-]?[\d.,]*\d[.,]?)\s*(?P<unit>{_UNIT})?\s*"
)


@dataclass(frozen=True)
class Quantity:
    """A read amount in the inner unit of its dimension; `had_unit` is False when none was typed."""

    value: float
    dimension: Dimension
    had_unit: bool


_ONES = ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"]
_NUMBER = rf"(?:\d+(?:[.,]\d+)?|{'|'.join(_ONES)}|an?)"
_PARTS = {"half": 0.5, "third": 1 / 3, "quarter": 0.25}
_AND_A_PART = re.compile(rf"\b({_NUMBER})\s+and\s+(?:a|one)\s+(half|third|quarter)\b(?:\s+of)?")
_PARTS_OF = re.compile(
    r"\b(?:(two|three|2|3)[\s-]+)?(?:an?\s+)?(half|third|quarter)s?\b(?:\s+of)?(?:\s+an?\b)?"
)
_SPELLED = re.compile(
    rf"\b(a couple of|a dozen|{'|'.join(_ONES)}|an?(?!\s+(?:few|lot|little|bit)\b))\b(?=\s+\w)", re.IGNORECASE
)


def spelled(text: str) -> str:
    """Numbers as words in digits: "half a gallon" as "0.5 gallon", "two bags" as "2 bags", "a jug" as "1
    jug".

    What holds no such words comes back as it is.
    """
    if not re.search(r"[a-z]", text, re.IGNORECASE):
        return text
    lower = text.lower()
    found = _AND_A_PART.sub(lambda one: f"{_count(one[1]) + _PARTS[one[2]]:g}", lower)
    found = _PARTS_OF.sub(lambda one: f"{_count(one[1] or 'one') * _PARTS[one[2]]:g}", found)
    found = _SPELLED.sub(lambda one: f"{_count(one[1]):g}", found)
    return text if found == lower else found


def _count(word: str) -> float:
    if word in ("a", "an"):
        return 1.0
    if word in ("a couple of", "a dozen"):
        return 2.0 if "couple" in word else 12.0
    return float(_ONES.index(word) + 1) if word in _ONES else float(word.replace(",", "."))


def _spell_fractions(text: str) -> str:
    """Like "2½" as "2.5"."""
    if not any(sign in text for sign in _VULGAR):
        return text
    for signal_number, decimal in _VULGAR.items():
        text = re.sub(rf"(\d+)\s*{signal_number}", rf"\g<1>{decimal}", text)
        text = text.replace(signal_number, f"0{decimal}")
    return text


def read_number(text: str) -> float:
    """Read one number as people write it: "7,8" is 7.8, "18,400" is 18400, "1 1/2" is 1.5.

    A single comma before exactly three digits groups thousands, unless the part before it is 0.
    Raises UnreadableQuantity.
    """
    plain = _spell_fractions(text.strip())
    fraction = re.fullmatch(r"(?:([+-]?\d+)\s+)?([+-]?\d+)/([1-9]\d*)", plain)
    if fraction:
        return float(fraction[1] or 0) + float(fraction[2]) / float(fraction[3])
    if re.fullmatch(r"[+-]?[1-9]\d{0,2}(,\d{3})+(\.\d+)?", plain):
        plain = plain.replace(",", "")
    elif plain.count(",") == 1 and "." not in plain:
        plain = plain.replace(",", ".")
    if not re.fullmatch(r"[+-]?(\d+\.?\d*|\.\d+)", plain):
        raise UnreadableQuantity(
            Message('"{text}" is not a number; write it like 7.8 or 1 1/2.', text=Verbatim(text.strip()))
        )
    return float(plain)


def read_quantity(text: str, dimension: Dimension, default_unit: str) -> Quantity:
    """Read a typed amount of a known dimension; several pieces add up ("3 lb 10 oz").

    `default_unit` is a word of the table, used when no unit was typed. Returns the inner unit.
    Raises UnreadableQuantity with what to write instead; an unknown unit is asked about.
    """
    joined = _spell_fractions(spelled(text.strip()))
    joined = _TWO_WORDS.sub(lambda found: found[1] + found[2], joined)
    if not joined:
        raise UnreadableQuantity(Message("Nothing is written here; type a number."))
    total, position, had_unit = 0.0, 0, False
    while position < len(joined):
        piece = _PIECE.match(joined, position)
        if piece is None:
            raise UnreadableQuantity(
                Message(
                    '"{text}" cannot be read; write a number and a unit, like "{example}".',
                    text=Verbatim(text.strip()),
                    example=Verbatim(_LIKE[dimension]),
                )
            )
        unit = (piece["unit"] or "").lower()
        had_unit = had_unit or bool(unit)
        if position > 0 and not unit:
            raise UnreadableQuantity(
                Message(
                    '"{text}" has a number without a unit; write a unit after each.',
                    text=Verbatim(text.strip()),
                )
            )
        total += _inner(read_number(piece["number"]), unit or default_unit, dimension, text)
        position = piece.end()
    return Quantity(total, dimension, had_unit)


def _inner(number: float, unit: str, dimension: Dimension, text: str) -> float:
    known = UNITS.get(unit)
    if known is None:
        near = get_close_matches(unit, _words(dimension), n=1)
        typed_unit, whole = Verbatim(unit), Verbatim(text.strip())
        raise UnreadableQuantity(
            Message(
                'The unit "{unit}" in "{text}" is not known; did you mean "{near}"?',
                unit=typed_unit,
                text=whole,
                near=Verbatim(near[0]),
            )
            if near
            else Message(
                'The unit "{unit}" in "{text}" is not known; use one of: {known}.',
                unit=typed_unit,
                text=whole,
                known=Verbatim(", ".join(_words(dimension)[:6])),
            )
        )
    if unit in ("oz", "ounce", "ounces") and dimension is Dimension.VOLUME:
        raise UnreadableQuantity(Message('"oz" is a weight here; write "fl oz" for a liquid.'))
    if known[0] is not dimension:
        raise UnreadableQuantity(
            Message(
                '"{unit}" does not fit here; use one of: {known}.',
                unit=Verbatim(unit),
                known=Verbatim(", ".join(_words(dimension)[:6])),
            )
        )
    if unit in _FAHRENHEIT:
        return celsius_from_fahrenheit(number)
    return number * known[1]


def _words(dimension: Dimension) -> list[str]:
    return [word for word, (kind, _) in UNITS.items() if kind is dimension]
