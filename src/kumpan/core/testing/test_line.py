"""The slip's grammar: one line of readings, typed without a mouse.

    fc 1.5 tc 2 ph 7,8 ta 11x10 ch 25d cya 40 salt 3200 82f

Names and values alternate; a value is a number, drops ("15d", by the kit's factor), drops by a
factor ("15x0.2"), a number with its unit ("82F"), or off the scale (">10", "10+"). Bare numbers alone are
read in the kit's order. What cannot be read is told with its place; the rest is still read, nothing is lost.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from difflib import get_close_matches

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_number, read_quantity
from kumpan.core.quantity import Number, Temperature
from kumpan.core.testing.kits import Kit
from kumpan.core.testing.methods import DROP_FACTORS, OFF_SCALE, Measured, Method, measured

_NAMES: dict[Measure, str] = {
    Measure.FREE_CHLORINE: "fc free freechlorine cl fac",
    Measure.TOTAL_CHLORINE: "tc total totalchlorine tac",
    Measure.COMBINED_CHLORINE: "cc combined chloramines",
    Measure.PH: "ph",
    Measure.TOTAL_ALKALINITY: "ta alk alkalinity",
    Measure.CALCIUM_HARDNESS: "ch cal calcium hard hardness",
    Measure.CYANURIC_ACID: "cya stab stabilizer stabiliser cyanuric",
    Measure.SALT: "salt na nacl",
    Measure.BORATE: "bor borate borates",
    Measure.PHOSPHATE: "po4 phos phosphate phosphates",
    Measure.COPPER: "cu copper",
    Measure.IRON: "fe iron",
    Measure.TDS: "tds solids",
    Measure.TEMPERATURE: "t temp temperature water",
}
NAME_TO_MEASURE: dict[str, Measure] = {
    word: measure for measure, words in _NAMES.items() for word in words.split()
}
_UNIT_WORD = r"(?:°\s?[fc]|ppm|ppb|mg/l|drops?|[dfc])(?![^\W_])"
_TOKEN = re.compile(
    r"\d[\d.,]*\s*[x*×]\s*\d[\d.,]*"  # drops by a factor
    rf"|[+-]?[\d.,]*\d[.,]?(?:\s?{_UNIT_WORD}|(?=\s|$))"  # a number, its unit attached or after a space
    r"|\S+",
    re.IGNORECASE,
)
_TEMPERATURE = re.compile(r"[+-]?[\d.,]+\s?°?[fFcC]")
_DROPS_BY = re.compile(r"(?P<drops>[\d.,]+)\s*[xX*×]\s*(?P<factor>[\d.,]+)")
# Darker than the last color: the value is the last one, and what is really there may be twice as much.
OFF_SCALE_TO = 2.0
_DROPS = re.compile(r"(?P<drops>[\d.,]+)\s?(?:d|drops?)", re.IGNORECASE)


@dataclass(frozen=True, kw_only=True)
class LineProblem:
    """A piece that could not be read: where it stands, the piece, one sentence with the cure."""

    position: int
    piece: str
    text: Message
    measure: Measure | None = None
    suggestion: str | None = None


@dataclass(frozen=True)
class LineReading:
    """What one line says: the values with their doubt, in the order typed, and what was not understood."""

    values: tuple[Measured, ...]
    problems: tuple[LineProblem, ...]


@dataclass(frozen=True)
class _Token:
    text: str
    position: int


def read_test_line(line: str, kit: Kit, temperature_unit: str) -> LineReading:
    """Read a whole line. `temperature_unit` is "f" or "c", for a temperature typed without unit."""
    tokens = [
        _Token(found[0], found.start()) for found in _TOKEN.finditer(line.replace(":", " ").replace("=", " "))
    ]
    if tokens and not any(token.text.lower() in NAME_TO_MEASURE for token in tokens):
        numbers = all(token.text[0].isdigit() or token.text[0] in "+-.,>" for token in tokens)
        if numbers:
            return _in_kit_order(tokens, kit, temperature_unit)
    return _named(tokens, kit, temperature_unit)


def _in_kit_order(tokens: Sequence[_Token], kit: Kit, temperature_unit: str) -> LineReading:
    values: list[Measured] = []
    problems: list[LineProblem] = []
    free = [measure for measure, _ in kit.order]
    for token in tokens:
        measure = Measure.TEMPERATURE if _TEMPERATURE.fullmatch(token.text) else next(iter(free), None)
        if measure is None:
            problems.append(
                LineProblem(
                    position=token.position,
                    piece=token.text,
                    text=Message("There are only {order} fields in this kit.", order=Number(len(kit.order))),
                )
            )
            continue
        if measure in free:
            free.remove(measure)
        _take(measure, token, kit=kit, temperature_unit=temperature_unit, values=values, problems=problems)
    return LineReading(tuple(values), tuple(problems))


def _named(tokens: Sequence[_Token], kit: Kit, temperature_unit: str) -> LineReading:
    values: list[Measured] = []
    problems: list[LineProblem] = []
    name: tuple[Measure, _Token] | None = None
    for token in tokens:
        word = token.text.lower()
        if word in NAME_TO_MEASURE:
            if name is not None:
                problems.append(_no_value(name))
            name = (NAME_TO_MEASURE[word], token)
        elif name is not None:
            _take(
                name[0], token, kit=kit, temperature_unit=temperature_unit, values=values, problems=problems
            )
            name = None
        elif _TEMPERATURE.fullmatch(token.text):
            _take(
                Measure.TEMPERATURE,
                token,
                kit=kit,
                temperature_unit=temperature_unit,
                values=values,
                problems=problems,
            )
        else:
            problems.append(_unknown(token))
    if name is not None:
        problems.append(_no_value(name))
    return LineReading(tuple(values), tuple(problems))


def _take(
    measure: Measure,
    token: _Token,
    kit: Kit,
    temperature_unit: str,
    values: list[Measured],
    problems: list[LineProblem],
) -> None:
    if any(value.measure is measure for value in values):
        problems.append(
            LineProblem(
                position=token.position,
                piece=token.text,
                text=Message("This measure stands twice; keep one."),
                measure=measure,
            )
        )
        return
    try:
        values.append(read_value(measure, token.text, kit, temperature_unit))
    except UnreadableQuantity as trouble:
        problems.append(
            LineProblem(
                position=token.position,
                piece=token.text,
                text=trouble.message,
                measure=measure,
            )
        )


def read_value(measure: Measure, text: str, kit: Kit, temperature_unit: str) -> Measured:
    """Read one field of the slip. Raises UnreadableQuantity with what to write instead."""
    method = kit.method_of(measure)
    typed = text.strip()
    if (beyond := OFF_SCALE.fullmatch(typed)) is not None:
        read = read_value(measure, beyond["over"] or beyond["plus"], kit, temperature_unit)
        return replace(read, low=read.value, high=OFF_SCALE_TO * read.value, typed=typed)
    if measure is Measure.TEMPERATURE:
        value = read_quantity(typed, Dimension.TEMPERATURE, temperature_unit).value
        return _checked(measured(measure, value, Method.THERMOMETER, typed=typed))
    if (in_drops := _drops(measure, typed, kit)) is not None:
        drops, factor = in_drops
        value = read_number(drops) * factor
        return _checked(measured(measure, value, method=Method.DROPS, drop_factor=factor, typed=typed))
    if measure is Measure.PH:
        return _checked(measured(measure, read_number(typed), method, typed=typed))
    unit = "ppb" if measure is Measure.PHOSPHATE else "ppm"
    value = read_quantity(typed, Dimension.CONCENTRATION, unit).value
    if measure is Measure.PHOSPHATE:
        value *= 1000.0
    return _checked(measured(measure, value, method, typed=typed))


def _drops(measure: Measure, typed: str, kit: Kit) -> tuple[str, float] | None:
    """The drops counted and what one is worth (by the text or by the kit); None where no drops are named."""
    by_factor = _DROPS_BY.fullmatch(typed)
    if by_factor:
        return by_factor["drops"], read_number(by_factor["factor"])
    drops = _DROPS.fullmatch(typed)
    if not drops:
        return None
    if measure not in DROP_FACTORS:
        raise UnreadableQuantity(
            Message(
                '"{typed}": this measure is not counted in drops; type the number.', typed=Verbatim(typed)
            )
        )
    return drops["drops"], DROP_FACTORS[measure][0 if kit.fine_drops else 1]


# Beyond these a value is a slip of the finger, not a water; the contract's bounds.
_POSSIBLE: dict[Measure, tuple[float, float]] = {Measure.PH: (0, 14), Measure.TEMPERATURE: (-5, 60)}


def _checked(value: Measured) -> Measured:
    low, high = _POSSIBLE.get(value.measure, (0, 200_000))
    if not low <= value.value <= high:
        typed = Verbatim(value.typed)
        raise UnreadableQuantity(
            Message(
                '"{typed}" is outside {low} to {high}; check the number.',
                typed=typed,
                low=Temperature(low),
                high=Temperature(high),
            )
            if value.measure is Measure.TEMPERATURE
            else Message(
                '"{typed}" is outside {low} to {high}; check the number.',
                typed=typed,
                low=Number(low),
                high=Number(high),
            )
        )
    return value


def _no_value(name: tuple[Measure, _Token]) -> LineProblem:
    measure, token = name
    return LineProblem(
        position=token.position,
        piece=token.text,
        text=Message('"{text}" has no number after it.', text=Verbatim(token.text)),
        measure=measure,
    )


def _unknown(token: _Token) -> LineProblem:
    near = get_close_matches(token.text.lower(), NAME_TO_MEASURE, n=1, cutoff=0.5)
    if token.text[0].isdigit():
        text = Message(
            '"{text}" has no name before it; write for example "fc {text}".', text=Verbatim(token.text)
        )
    elif near:
        text = Message(
            '"{text}" is not a measure; did you mean "{near}"?',
            text=Verbatim(token.text),
            near=Verbatim(near[0]),
        )
    else:
        text = Message(
            '"{text}" is not a measure; use fc, tc, cc, ph, ta, ch, cya, salt or temp.',
            text=Verbatim(token.text),
        )
    return LineProblem(
        position=token.position,
        piece=token.text,
        text=text,
        measure=None,
        suggestion=near[0] if near else None,
    )
