"""Which of the readings count."""

from kumpan.core.journal.readings import history, last_reading
from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Method
from tests.core.journals import reads_by, state


def test_a_hand_test_of_salt_goes_before_the_units_own_display() -> None:
    """Handbook 06: the display may be typed in like a reading; a hand test always goes before it."""
    pool = state(
        (0, reads_by(Method.DISPLAY, salt=2700)),
        (1, reads_by(Method.METER, salt=3100)),
        (8, reads_by(Method.DISPLAY, salt=2600)),
    )
    last = last_reading(pool, Measure.SALT)
    assert last is not None
    assert last.value.value == 3100
    assert [one.value.value for one in history(pool, Measure.SALT)] == [2700, 3100]


def test_without_a_hand_test_of_the_last_month_the_display_counts() -> None:
    pool = state((0, reads_by(Method.METER, salt=3100)), (31, reads_by(Method.DISPLAY, salt=2600)))
    last = last_reading(pool, Measure.SALT)
    assert last is not None
    assert last.value.value == 2600
