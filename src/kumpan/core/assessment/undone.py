"""What went into the water, or out of it, since a test, and whether the test still speaks. Source: mixing.

Salt, calcium and stabilizer only have to be mixed; tablets in a feeder dissolve over days. Chlorine onto
enough of it, whose whole range stays under the swim limit, has to be mixed only.
"""

from datetime import datetime, timedelta
from uuid import UUID

from kumpan.core.assessment.case import Case
from kumpan.core.dosing.mass_balance import changes
from kumpan.core.forecast.expected import NEW_WATER_COUNTS
from kumpan.core.journal import AdditionMade, Entry, NotedEvent, last_reading
from kumpan.core.journal.pool_entries import WaterChange
from kumpan.core.messages import Verbatim
from kumpan.core.products.catalogue import CHLORINE_CARRIERS, chemical
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure

SOURCE = "mixing"

AFTER_ADDITION_MIN = 60
SLOW = "trichlor"
# What moves neither chlorine nor pH: it has to be mixed, and asks for no test.
PLAIN = ("sodium_chloride", "calcium_chloride", "cyanuric_acid")


def ready(poured: Entry[AdditionMade]) -> datetime:
    """When what went in is mixed as far as swimming goes."""
    return poured.at + timedelta(minutes=AFTER_ADDITION_MIN)


def poured_since(case: Case, at: datetime) -> list[Entry[AdditionMade]]:
    """What went in at once since a time."""
    return [e for e in case.state.additions if e.at > at and e.body.chemical != SLOW]


def latest_addition(case: Case) -> Entry[AdditionMade] | None:
    """The last thing that went into the water at once."""
    at_once = [e for e in case.state.additions if e.body.chemical != SLOW]
    return at_once[-1] if at_once else None


def poured_that_needs_a_test(case: Case, tested_at: datetime) -> Entry[AdditionMade] | None:
    """The latest addition since a test that undoes it; one that only has to be mixed does not."""
    since = poured_since(case, tested_at)
    needs = [e for e in since if e.body.chemical not in PLAIN and not _stays_in_between(case, since)]
    return needs[-1] if needs else None


def _stays_in_between(case: Case, since: list[Entry[AdditionMade]]) -> bool:
    """Only chlorine went in, onto enough of it, and all of it together stays under the limit."""
    free = case.reading(Measure.FREE_CHLORINE)
    if free is None or free.value.low < case.least_mg_l or not case.volume_l:
        return False
    if any(e.body.chemical not in (*CHLORINE_CARRIERS, *PLAIN) for e in since):
        return False
    rise = sum(
        changes(product(e.body), e.body.mass_g, case.volume_l).get(Measure.FREE_CHLORINE, 0.0) for e in since
    )
    return free.value.high + rise <= case.limit_mg_l


def much_new_water(case: Case, tested_at: datetime) -> bool:
    """Whether so much water was replaced since that the test speaks no more; a fill counts as all of it."""
    filled = any(e.at > tested_at and e.body.kind is NotedEvent.FILLED for e in case.state.events)
    new = sum(
        e.body.volume_l
        for e in case.state.water_changes
        if e.at > tested_at and e.body.kind is not WaterChange.BACKWASH
    )
    return filled or (bool(case.volume_l) and new >= NEW_WATER_COUNTS * case.volume_l)


def undone(case: Case, tested_at: datetime) -> bool:
    """Something went in or out that a test of then does not know of."""
    return poured_that_needs_a_test(case, tested_at) is not None or much_new_water(case, tested_at)


def called(poured: Entry[AdditionMade]) -> Verbatim:
    """What went in, by its common name."""
    return Verbatim(chemical(poured.body.chemical).name.lower())


def product(body: AdditionMade) -> Product:
    """What went in, as a product."""
    return Product("", body.chemical, body.strength_percent)


def last_event(case: Case, kind: NotedEvent) -> tuple[datetime, UUID] | None:
    """When something was last noted, and the entry."""
    found = [entry for entry in case.state.events if entry.body.kind is kind]
    return (found[-1].at, found[-1].id) if found else None


def power_was_off(case: Case) -> bool:
    """A power cut, or a cell set to nothing for a day, and chlorine not tested since."""
    cut = last_event(case, NotedEvent.POWER_CUT)
    times = [time for time in (cut[0] if cut else None, _cell_off_since(case)) if time is not None]
    read = last_reading(case.state, Measure.FREE_CHLORINE)
    return bool(times) and (read is None or read.at <= max(times))


def _cell_off_since(case: Case) -> datetime | None:
    if not case.cell or not case.state.cell_settings:
        return None
    last = case.state.cell_settings[-1]
    off = last.body.percent * last.body.hours_per_day <= 0
    return last.at if off and case.now - last.at >= timedelta(days=1) else None
