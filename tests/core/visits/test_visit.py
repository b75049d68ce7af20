"""The visit: its order by kind, what stands in it and what is absent, and how the journal marks its lines."""

from datetime import timedelta
from uuid import UUID

import pytest

from kumpan.core.journal import (
    Body,
    CareDone,
    CarePutOff,
    Clarity,
    Entry,
    Level,
    ListItemDone,
    Outcome,
    SeasonListSaved,
    VisitBegun,
    VisitDone,
    VisitKind,
    VisualCheck,
    Which,
)
from kumpan.core.maintenance.due import DueItem, Standing
from kumpan.core.messages import Message
from kumpan.core.season.saved import list_lines
from kumpan.core.visits.visit import Group, Mark, VisitLine, VisitRequest, going, visit_lines
from tests.core.journals import reads, state, when
from tests.core.samples import PLASTER

LOOKED = VisualCheck(Clarity.CLEAR, Level.NORMAL)


def item(task: str, standing: Standing = Standing.DUE, procedure: str | None = None) -> DueItem:
    return DueItem(
        task=task,
        title=Message(task),
        due_on=when(0).date(),
        standing=standing,
        late_days=0,
        why=Message("weekly"),
        procedure=procedure,
    )


WEEKLY = [
    item(task) for task in ("skim", "brush", "vacuum", "waterline", "baskets", "level", "equipment")
] + [item("cell", procedure="cell"), item("sand_new", Standing.LATER)]


def lines(
    kind: VisitKind, *rows: tuple[float, Body], day: float = 1.0, doses: int = 0, order: str = "usual"
) -> tuple[VisitLine, ...]:
    pool = state(*rows)
    return visit_lines(
        VisitRequest(
            kind=kind, due=WEEKLY, state=pool, begun=going(pool, when(day)), doses=doses, order=order
        )
    )


def keys(found: tuple[VisitLine, ...]) -> list[str]:
    return [line.key for line in found]


def test_chemicals_stand_last_and_cleaning_after_the_equipment() -> None:
    """Handbook 10: look, test, equipment, cleaning, chemicals last."""
    found = lines(VisitKind.STOP)
    groups = [list(Group).index(line.group) for line in found]
    assert groups == sorted(groups)
    assert found[0].key == "look"
    assert found[-1].key == "chemicals"


@pytest.mark.parametrize(
    ("kind", "order", "first"),
    [
        # Handbook 08: the order is disputed, and both are presets.
        (VisitKind.HOUR, "usual", "brush"),
        (VisitKind.STOP, "usual", "vacuum"),
        (VisitKind.HOUR, "vacuum_first", "vacuum"),
        (VisitKind.STOP, "brush_first", "brush"),
    ],
)
def test_vacuum_and_brush_stand_as_the_person_has_them(kind: VisitKind, order: str, first: str) -> None:
    found = keys(lines(kind, order=order))
    other = {"brush": "vacuum", "vacuum": "brush"}[first]
    assert found.index(first) < found.index(other)
    assert found.index("skim") < found.index(first)
    assert found.index("waterline") < found.index(first)


def test_what_is_not_due_is_absent_and_a_storm_asks_for_its_own() -> None:
    assert "sand_new" not in keys(lines(VisitKind.STOP))
    pool = state()
    storm = visit_lines(VisitRequest(kind=VisitKind.STORM, due=[], state=pool, begun=None, doses=0))
    assert keys(storm) == ["look", "level", "test", "baskets", "skim", "chemicals"]


def test_what_asks_for_more_than_a_tick_is_opened() -> None:
    by_key = {line.key: line for line in lines(VisitKind.STOP)}
    assert by_key["skim"].usual
    assert by_key["look"].usual
    assert not by_key["test"].usual
    assert not by_key["chemicals"].usual
    assert not by_key["cell"].usual, "what the plates look like is noted"
    assert by_key["cell"].procedure == "cell"


def test_the_journal_marks_the_lines_whoever_wrote_them() -> None:
    begun = (1.0, VisitBegun(VisitKind.STOP))
    before = (0.9, CareDone("skim"))
    found = lines(
        VisitKind.STOP,
        before,
        begun,
        (1.01, LOOKED),
        (1.02, CareDone("brush")),
        (1.03, CarePutOff("vacuum", None, "bare floor")),
        day=1.1,
    )
    marks = {line.key: line.mark for line in found}
    assert marks["look"] is Mark.DONE
    assert marks["brush"] is Mark.DONE
    assert marks["vacuum"] is Mark.SKIPPED
    assert marks["skim"] is Mark.OPEN, "that was before the visit"


def test_what_was_done_in_the_visit_stays_on_its_list() -> None:
    begun = (1.0, VisitBegun(VisitKind.STOP))
    pool = state(begun, (1.01, CareDone("waterline")))
    due = [item("waterline", Standing.LATER), item("sand_new", Standing.LATER)]
    found = visit_lines(
        VisitRequest(kind=VisitKind.STOP, due=due, state=pool, begun=going(pool, when(1.1)), doses=0)
    )
    assert {line.key: line.mark for line in found}["waterline"] is Mark.DONE
    assert "sand_new" not in keys(found)


def test_chemicals_are_done_when_a_test_of_the_visit_leaves_nothing_to_pour() -> None:
    rows = ((1.0, VisitBegun(VisitKind.STOP)), (1.01, reads(free_chlorine=3, ph=7.5)))
    assert lines(VisitKind.STOP, *rows, day=1.1, doses=1)[-1].mark is Mark.OPEN
    assert lines(VisitKind.STOP, *rows, day=1.1)[-1].mark is Mark.DONE
    assert lines(VisitKind.STOP, rows[0], day=1.1)[-1].mark is Mark.OPEN, "not tested yet"


def test_a_visit_goes_on_until_it_is_ended_or_left() -> None:
    begun = (1.0, VisitBegun(VisitKind.HOUR))
    found: Entry[VisitBegun] | None = going(state(begun), when(1.1))
    assert found is not None
    assert going(state(begun, (1.05, VisitDone())), when(1.1)) is None
    assert going(state(begun), when(1.0) + timedelta(hours=13)) is None
    assert going(state(), when(1.0)) is None


def test_an_opening_day_is_the_kept_list_in_its_order_with_its_marks() -> None:
    """Handbook 09: the list's own order, not the service round's; its cautions stand where each item is opened."""
    day, kept = when(10).date(), UUID(int=50)
    saved = SeasonListSaved(list_id=kept, which=Which.OPENING, day=day)
    pool = state(
        (0.0, saved),
        (9.9, VisitBegun(VisitKind.SEASON)),
        (10.0, ListItemDone(kept, "safety", Outcome.DONE)),
        (10.0, ListItemDone(kept, "electrics", Outcome.SKIPPED)),
    )
    season = list_lines(pool, PLASTER, day)
    found = visit_lines(
        VisitRequest(kind=VisitKind.SEASON, due=WEEKLY, state=pool, begun=None, doses=2, season=season)
    )
    keys_of_list = [line.key.rpartition("/")[2] for line in found]
    assert keys_of_list[:3] == ["look", "safety", "electrics"]
    assert keys_of_list.index("level") < keys_of_list.index("start") < keys_of_list.index("test")
    assert [line.mark for line in found[1:4]] == [Mark.DONE, Mark.SKIPPED, Mark.OPEN]
    assert not {"skim", "brush", "chemicals"} & set(keys_of_list)
    assert not any(line.usual for line in found[1:])
    assert all(line.item.day <= day for line in season)
    assert list_lines(pool, PLASTER, day - timedelta(days=40)) == ()
