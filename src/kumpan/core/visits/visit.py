"""A visit as one list in its order: look, test, equipment, cleaning, and chemicals last.

What is due drops in at its place, what needs no doing today is absent. A row reads like the handbook's.
Sources: care-intervals, cleaning-routine.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.journal import Entry, Outcome, PoolState, VisitBegun, VisitKind
from kumpan.core.maintenance.due import DueItem, Standing
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.messages import NOTHING, Message
from kumpan.core.quantity import Number
from kumpan.core.season.saved import ListLine

SOURCES_USED = ("care-intervals", "cleaning-routine")

GOES_ON_FOR = timedelta(hours=12)  # who has not ended it by then has left


class Group(StrEnum):
    """The parts of a visit, in their order; chemicals after cleaning, never before."""

    LOOK = "look"
    SEASON = "season"
    TEST = "test"
    EQUIPMENT = "equipment"
    CLEANING = "cleaning"
    CHEMICALS = "chemicals"


class Mark(StrEnum):
    """How a line stands in the visit that goes on."""

    OPEN = "open"
    DONE = "done"
    SKIPPED = "skipped"


HOUR, STOP, STORM, FIRST = VisitKind.HOUR, VisitKind.STOP, VisitKind.STORM, VisitKind.FIRST
SEASON = VisitKind.SEASON


@dataclass(frozen=True)
class VisitRow:
    """A line of the handbook's visit. `always`: the kinds of visit it stands in whatever is due."""

    key: str
    group: Group
    title: Message
    _: KW_ONLY
    always: tuple[VisitKind, ...] = ()
    detail: Message = NOTHING
    station: str | None = None


G = Group
# Handbook 10 (the service round) and 08 (cleaning routine). The key is the task that the line does.
_ROWS: tuple[VisitRow, ...] = (
    VisitRow("look", G.LOOK, Message("Look at the water"), always=(HOUR, STOP, STORM, FIRST, SEASON), detail=Message("Clear to the drain? Algae, animals, anything odd?"), station="slip"),
    VisitRow("level", G.LOOK, Message("Look at the water level"), always=(STORM, FIRST)),
    VisitRow("test", G.TEST, Message("Test the water"), always=(HOUR, STOP, STORM, FIRST), station="slip"),
    VisitRow("baskets", G.EQUIPMENT, Message("Empty skimmer and pump baskets"), always=(STORM, FIRST)),
    VisitRow("equipment", G.EQUIPMENT, Message("Look round the equipment"), always=(STOP, FIRST)),
    VisitRow("skim", G.CLEANING, Message("Skim the surface"), always=(STORM, FIRST), detail=Message("Twice round; leaf rake for what sank, before any vacuum.")),
    VisitRow("waterline", G.CLEANING, Message("Clean the waterline")),
    VisitRow("vacuum", G.CLEANING, Message("Vacuum"), detail=Message("Decided at the look: bare, dusty, or leaves.")),
    VisitRow("brush", G.CLEANING, Message("Brush walls, steps and floor")),
    VisitRow("rinse_metal", G.CLEANING, Message("Rinse coping, stone and metal")),
    VisitRow("chemicals", G.CHEMICALS, Message("Chemicals, last of all"), always=(HOUR, STOP, STORM, FIRST), station="sheet"),
)  # fmt: skip
ROWS: Mapping[str, VisitRow] = MappingProxyType({row.key: row for row in _ROWS})
# What brushing stirs up an owner's vacuum picks up; a technician would brush the floor's dirt into the water.
VACUUM_FIRST, BRUSH_FIRST = ("vacuum", "brush"), ("brush", "vacuum")
USUAL_ORDER: Mapping[VisitKind, tuple[str, str]] = MappingProxyType(
    {HOUR: BRUSH_FIRST, STOP: VACUUM_FIRST, STORM: VACUUM_FIRST, FIRST: VACUUM_FIRST, SEASON: VACUUM_FIRST}
)
NOT_IN_A_VISIT = ("shock", "oxidizer")  # at dusk, a sheet of its own
# What says how the gauge reads, how long water ran or what was found is never "as usual".
_ITS_OWN_STEPS = frozenset(
    key for key, row in PROCEDURES.items() if row.wastes_water or any(step.asks for step in row.steps)
)


@dataclass(frozen=True, kw_only=True)
class VisitLine:
    """One line. `usual`: it can be ticked with its group; else its procedure or station is opened.

    `why` says why it stands here today; `mark`, `at` how it stands in the visit that goes on.
    """

    key: str
    group: Group
    title: Message
    detail: Message
    usual: bool
    procedure: str | None
    station: str | None
    why: Message
    mark: Mark = Mark.OPEN
    at: datetime | None = None


@dataclass(frozen=True, kw_only=True)
class VisitRequest:
    """What a visit is made of. `doses`: how many products today's sheet pours; `order` of the cleaning;
    `season` the lines of the opening or closing that goes on, in their order.
    """

    kind: VisitKind
    due: Sequence[DueItem]
    state: PoolState
    begun: Entry[VisitBegun] | None
    doses: int
    order: str = "usual"
    season: Sequence[ListLine] = ()


def going(state: PoolState, now: datetime) -> Entry[VisitBegun] | None:
    """The visit that goes on: begun, not ended, and not left long ago."""
    begun = state.visits_begun[-1] if state.visits_begun else None
    if begun is None or now - begun.at > GOES_ON_FOR:
        return None
    ended = state.visits and state.visits[-1].at >= begun.at
    return None if ended else begun


def visit_lines(request: VisitRequest) -> tuple[VisitLine, ...]:
    """The lines in their order; each as it stands."""
    if request.kind is SEASON:
        look = [_marked(line, request) for line in _lines(request) if line.key == "look"]
        return (*look, *(_of_the_list(line) for line in request.season))
    lines = [_marked(line, request) for line in _lines(request)]
    order = {key: n for n, key in enumerate(_order(request))}
    groups = list(Group)
    return tuple(sorted(lines, key=lambda line: (groups.index(line.group), order.get(line.key, len(order)))))


def _of_the_list(line: ListLine) -> VisitLine:
    """Opened on its own page, where its cautions stand; marked by whoever ticked it there."""
    marks = {None: Mark.OPEN, Outcome.DONE: Mark.DONE, Outcome.SKIPPED: Mark.SKIPPED}
    return VisitLine(
        key=line.task,
        group=Group.SEASON,
        title=line.item.title,
        detail=NOTHING,
        usual=False,
        procedure=None,
        station="season",
        why=line.item.text,
        mark=marks[line.outcome],
        at=line.at,
    )


def _order(request: VisitRequest) -> list[str]:
    """The rows' order with vacuum and brush as the person has them."""
    pair = USUAL_ORDER[request.kind]
    pair = {"vacuum_first": VACUUM_FIRST, "brush_first": BRUSH_FIRST}.get(request.order, pair)
    keys = [key for key in ROWS if key not in pair]
    at = list(ROWS).index("vacuum")
    return [*keys[:at], *pair, *keys[at:]]


def _lines(request: VisitRequest) -> Iterator[VisitLine]:
    touched = _touched(request)
    now_due = {
        item.task: item
        for item in request.due
        if item.standing in (Standing.DUE, Standing.OVERDUE) or item.task in touched
    }
    for row in ROWS.values():
        item = now_due.pop(row.key, None)
        if item is None and request.kind not in row.always:
            continue
        yield VisitLine(
            key=row.key,
            group=row.group,
            title=row.title,
            detail=row.detail,
            usual=row.station is None or row.key == "look",
            procedure=item.procedure if item is not None else _procedure(row.key),
            station=row.station,
            why=_why(row, item, request),
        )
    for item in now_due.values():
        if item.station == "slip" or item.task in NOT_IN_A_VISIT:
            continue
        own_steps = item.procedure in _ITS_OWN_STEPS or item.station is not None
        yield VisitLine(
            key=item.task,
            group=Group.CHEMICALS if item.station == "week" else Group.EQUIPMENT,
            title=item.title,
            detail=NOTHING,
            usual=not own_steps,
            procedure=item.procedure,
            station=item.station,
            why=item.why,
        )


def _touched(request: VisitRequest) -> frozenset[str]:
    """What was done or left out in this visit: it is due no more, and stays on the list of the visit."""
    begun, state = request.begun, request.state
    if begun is None:
        return frozenset()
    done = {entry.body.task for entry in state.care if entry.at >= begun.at}
    return frozenset(done | {entry.body.task for entry in state.put_off if entry.at >= begun.at})


def _procedure(key: str) -> str | None:
    return {"skim": "clean", "brush": "clean"}.get(key, key if key in PROCEDURES else None)


def _why(row: VisitRow, item: DueItem | None, request: VisitRequest) -> Message:
    if item is not None:
        return item.why
    if row.key == "chemicals" and request.doses:
        return Message("{count} to pour by today's plan", count=Number(request.doses))
    return NOTHING


def _marked(line: VisitLine, request: VisitRequest) -> VisitLine:
    at, mark = _found(line.key, request)
    if mark is Mark.OPEN:
        return line
    return VisitLine(**{**vars(line), "mark": mark, "at": at})


def _found(key: str, request: VisitRequest) -> tuple[datetime | None, Mark]:
    """Done or left out since the visit began, as the journal has it: whoever wrote it, on whatever device."""
    begun, state = request.begun, request.state
    if begun is None:
        return None, Mark.OPEN
    times: list[datetime] = []
    if key == "look":
        times = [entry.at for entry in state.visual_checks]
    elif key == "test":
        times = [entry.at for entry in state.tests]
    elif key == "chemicals":
        # Nothing is left to pour by a test of this visit.
        times = [] if request.doses else [entry.at for entry in state.tests]
    else:
        times = [entry.at for entry in state.care if entry.body.task == key]
    since = [at for at in times if at >= begun.at]
    if since:
        return since[-1], Mark.DONE
    left = [e.at for e in state.put_off if e.body.task == key and e.body.until is None and e.at >= begun.at]
    return (left[-1], Mark.SKIPPED) if left else (None, Mark.OPEN)
