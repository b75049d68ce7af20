"""The slip: read what was typed, question what is doubtful, keep the test."""

from collections.abc import Mapping
from uuid import UUID

from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.forecast.expected import expected_now
from kumpan.core.journal import last_reading, readings_of
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.readings import READING_MEASURES, Measure
from kumpan.core.quantities.units import fahrenheit_from_celsius
from kumpan.core.testing.kits import SOURCES, Kit, in_own_order, kit_by_key
from kumpan.core.testing.methods import Measured
from kumpan.core.testing.plausibility import questions
from kumpan.core.testing.reading_steps import RUNGS, ladder
from kumpan.core.testing.test_line import LineProblem, read_test_line, read_value
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.tests.views import LastValue, TestFormView


def kit(key: str) -> Kit:
    """Raises InvalidInput that lists the kits."""
    try:
        return kit_by_key(key)
    except KeyError:
        known = ", ".join(known.key for known in SOURCES)
        raise InvalidInput(
            Message(
                '"{key}" is not a known kit; use one of: {known}.', key=Verbatim(key), known=Verbatim(known)
            ),
            "kit",
        ) from None


def read_fields(fields: Mapping[Measure, str], kit_: Kit, temperature_unit: str) -> TestFormView:
    """Read the slip's fields one by one; an empty field is not measured."""
    values: list[Measured] = []
    problems: list[LineProblem] = []
    for measure, text in fields.items():
        if not text.strip():
            continue
        try:
            values.append(read_value(measure, text, kit_, temperature_unit))
        except UnreadableQuantity as trouble:
            problems.append(
                LineProblem(
                    position=0,
                    piece=text,
                    text=trouble.message,
                    measure=measure,
                )
            )
    return TestFormView(tuple(values), tuple(problems), ())


async def last_values_of(scope: Scope, pool_id: UUID, temperature_unit: str) -> dict[Measure, LastValue]:
    """What each measure read last, as it would be typed again."""
    state, found = await pool_state(scope, pool_id), {}
    for measure in READING_MEASURES:
        last = last_reading(state, measure)
        if last is not None:
            found[measure] = LastValue(
                _typed_again(measure, last.value.value, temperature_unit),
                last.at,
                _ladder(measure, last.value.value, temperature_unit),
            )
    return found


def _ladder(measure: Measure, value: float, temperature_unit: str) -> tuple[str, ...]:
    """The readings around the last one, as they would be typed, for a thumb that goes up and down."""
    if measure is not Measure.TEMPERATURE:
        return tuple(_typed_again(measure, one, temperature_unit) for one in ladder(measure, value))
    shown = round(fahrenheit_from_celsius(value) if temperature_unit == "f" else value)
    return tuple(f"{shown + step}" for step in range(-RUNGS, RUNGS + 1))


def _typed_again(measure: Measure, value: float, temperature_unit: str) -> str:
    if measure is not Measure.TEMPERATURE:
        return f"{round(value, 2):g}"
    return f"{fahrenheit_from_celsius(value):.0f}" if temperature_unit == "f" else f"{value:.0f}"


async def question(
    scope: Scope,
    pool_id: UUID,
    line: str | None,
    fields: Mapping[Measure, str],
    kit_key: str,
    temperature_unit: str,
) -> TestFormView:
    """Read a slip without keeping it: values, problems, and doubts against the journal."""
    state = await pool_state(scope, pool_id)
    kit_ = in_own_order(kit(kit_key), state.settings.kit_order if state.settings else ())
    if line is not None:
        read = read_test_line(line, kit_, temperature_unit)
        view = TestFormView(read.values, read.problems, ())
    else:
        view = read_fields(fields, kit_, temperature_unit)
    expected = expected_now(state) if state.last_test else None
    return TestFormView(view.values, view.problems, questions(readings_of(view.values), expected))
