"""Keep a test as it was typed, and put one right."""

from collections.abc import Mapping
from uuid import UUID

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Entry, TestTaken
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.services.journal.ledger import Scope, Stamp, correct, record
from kumpan.services.tests.queries import kit, read_fields


def test_body(fields: Mapping[Measure, str], kit_key: str, temperature_unit: str, note: str) -> TestTaken:
    """A test from its fields. Raises InvalidInput when one cannot be read or nothing was tested."""
    view = read_fields(fields, kit(kit_key), temperature_unit)
    if view.problems:
        first = view.problems[0]
        raise InvalidInput(first.text, str(first.measure) if first.measure else None)
    if not view.values:
        raise InvalidInput(Message("Nothing is typed yet; enter at least one reading."), "fields")
    return TestTaken(view.values, kit_key, note)


async def keep_test(
    scope: Scope,
    pool_id: UUID,
    stamp: Stamp,
    fields: Mapping[Measure, str],
    kit_key: str,
    temperature_unit: str,
    note: str,
) -> Entry:
    """Keep a test in the pool's journal. Raises InvalidInput as `test_body`."""
    return await record(scope, pool_id, stamp, test_body(fields, kit_key, temperature_unit, note))


async def correct_test(
    scope: Scope,
    entry_id: UUID,
    stamp: Stamp,
    fields: Mapping[Measure, str],
    kit_key: str,
    temperature_unit: str,
    note: str,
) -> Entry:
    """Replace a test by a corrected one; the old one stays visible. Raises InvalidInput as `test_body`."""
    return await correct(scope, entry_id, stamp, test_body(fields, kit_key, temperature_unit, note))
