"""What is due at a pool on a day, why, how late, and what early or late would cost; and what comes in a year.

Pure: journal, pool and day in, list out. Sources: care-intervals, test-interval.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta, tzinfo
from enum import StrEnum

from kumpan.core.journal import (
    CareDone,
    CareInterval,
    CarePutOff,
    CellKind,
    Entry,
    PoolState,
    last_reading,
    needs_rescue,
)
from kumpan.core.maintenance.conditions import CareRequest, Condition, conditions_now, interval_factor
from kumpan.core.maintenance.done_elsewhere import done_elsewhere
from kumpan.core.maintenance.index_history import IndexPoint
from kumpan.core.maintenance.machines import machine_tasks
from kumpan.core.maintenance.own_tasks import own_due
from kumpan.core.maintenance.recurrence import dates_ahead, first_in_season, local_day, next_due
from kumpan.core.maintenance.shocks import shocks
from kumpan.core.maintenance.tasks import (
    CELL_DAYS_PLAIN,
    CELL_DAYS_SELF_CLEANING,
    CELL_DAYS_SERVICE,
    CareTask,
    Preset,
    tasks_for,
)
from kumpan.core.maintenance.test_intervals import TEST_INTERVALS, Rhythm, interval_days, uses_strips
from kumpan.core.messages import NOTHING, Message, Verbatim, joined
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.by_label import KINDS, LabelDose, repeat_days
from kumpan.core.products.catalogue import CATALOGUE, CHLORINE_CARRIERS
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Day, Number

SOURCES_USED = ("care-intervals", "test-interval")

SOON_DAYS = 3
ALL_YEAR = frozenset(range(1, 13))
EVERY_SEASON = (Measure.FREE_CHLORINE, Measure.PH)  # an open pool loses chlorine in winter too
TEST_EARLY, TEST_LATE = Message("Nothing but a few drops."), Message("Doses are made on a guess.")


class Standing(StrEnum):
    """How a task stands today."""

    OVERDUE = "overdue"
    DUE = "due"
    SOON = "soon"
    LATER = "later"


@dataclass(frozen=True, kw_only=True)
class CareInputs:
    """One pool as the schedule sees it.

    `season` the months in season; `index` the saturation index over the log; `labels` by product id,
    what the own label of each product at hand says.
    """

    state: PoolState
    traits: Traits
    volume_l: float
    preset: Preset
    zone: tzinfo
    season: frozenset[int]
    index: tuple[IndexPoint, ...] = ()
    winter_closed: bool = False
    labels: Mapping[str, LabelDose] = field(default_factory=dict)

    @property
    def rhythm(self) -> Rhythm:
        """How often this kind of keeper tests."""
        return Rhythm.SERVICE if self.preset is Preset.SERVICE else Rhythm.OWNER


@dataclass(frozen=True, kw_only=True)
class DueItem:
    """One thing on the list.

    `task` is what is done, snoozed or left out by; `days` its interval where it has one.

    `late_days` counts from the day it was due; a put-off does not move that day, only the reminder.
    """

    task: str
    title: Message
    due_on: date
    standing: Standing
    late_days: int
    why: Message
    early: Message = NOTHING
    late: Message = NOTHING
    procedure: str | None = None
    station: str | None = None
    days: float | None = None
    last_on: date | None = None
    put_off_until: date | None = None
    measures: tuple[Measure, ...] = ()
    ahead: tuple[date, ...] = field(default=())


# What a shock does, whatever the pool's program calls it; and where each is planned.
SHOCKS: Mapping[str, str | None] = {"shock": None, "oxidizer": "mineral"}
LABEL_ASKS_FOR = timedelta(days=60)


@dataclass(frozen=True, kw_only=True)
class _Rule:
    """A task or a test with the interval that holds here and what was last done."""

    key: str
    title: Message
    days: float
    last: date | None
    reason: Message
    early: Message
    late: Message
    season: frozenset[int]
    procedure: str | None = None
    measure: Measure | None = None
    station: str | None = None


def due_list(inputs: CareInputs, now: datetime, *, ahead_days: int = 0) -> tuple[DueItem, ...]:
    """Everything that has a date, most pressing first. With `ahead_days` each carries its dates until then.

    A condition (pressure, scale, a storm) stands beside the calendar's items and never hides one.
    """
    today = local_day(now, inputs.zone)
    put_off, last = _put_off(inputs.state), _last_days(inputs)
    rules = [
        *_task_rules(inputs, last, now),
        *_test_rules(inputs),
        *_label_rules(inputs, now),
        *_regime_rules(inputs),
        *_own_rules(inputs, last, today),
        *_machine_rules(inputs, last),
    ]
    items = [_item(rule, today, put_off.get(rule.key), ahead_days) for rule in rules]
    items += [
        _condition_item(found, today, put_off.get(found.key), inputs)
        for found in conditions_now(
            CareRequest(
                state=inputs.state,
                traits=inputs.traits,
                volume_l=inputs.volume_l,
                index=inputs.index,
                now=now,
            )
        )
    ]
    return tuple(sorted(items, key=pressing))


def pressing(item: DueItem) -> tuple[int, date, str]:
    """The order of a due list."""
    return list(Standing).index(item.standing), item.due_on, item.task


def _begun(inputs: CareInputs) -> date | None:
    """The day the pool was set up here; nothing is overdue from before that."""
    starts = [entry.at for entry in (*inputs.state.tests, *inputs.state.care, *inputs.state.visual_checks)]
    return local_day(min(starts), inputs.zone) if starts else None


def _put_off(state: PoolState) -> Mapping[str, Entry[CarePutOff]]:
    """The last put-off of each task that nothing has followed."""
    done_at = {e.body.task: e.at for e in state.care}
    found: dict[str, Entry[CarePutOff]] = {}
    for entry in state.put_off:
        body = entry.body
        if not (body.task in done_at and done_at[body.task] > entry.at):
            found[body.task] = entry
    return found


def _own_intervals(state: PoolState) -> dict[str, CareInterval]:
    return {e.body.task: e.body for e in state.intervals}


def _last_days(inputs: CareInputs) -> dict[str, date]:
    """The day on which each task was last done, or left out with a reason."""
    found: dict[str, date] = {}
    left_out = [entry for entry in inputs.state.put_off if entry.body.until is None]
    finished: list[Entry[CareDone] | Entry[CarePutOff]] = [*inputs.state.care, *left_out]
    for entry in finished:
        day = local_day(entry.at, inputs.zone)
        found[entry.body.task] = max(day, found.get(entry.body.task, day))
    for task, at in done_elsewhere(inputs.state):
        day = local_day(at, inputs.zone)
        found[task] = max(day, found.get(task, day))
    for shock in shocks(inputs.state):
        day = local_day(shock.at, inputs.zone)
        for task in SHOCKS:
            found[task] = max(day, found.get(task, day))
    return found


def _interval(mine: CareInterval | None, usual: float | None) -> float | None:
    """The person's own where one was set, else the usual; None where it is off the list or has none."""
    if mine is None:
        return usual
    return None if mine.off else mine.days if mine.days is not None else usual


def _task_rules(inputs: CareInputs, last: Mapping[str, date], now: datetime) -> Iterator[_Rule]:
    own = _own_intervals(inputs.state)
    begun = _begun(inputs)
    for task in tasks_for(inputs.traits):
        mine = own.get(task.key)
        days = _interval(mine, _usual_days(task, inputs))
        if days is None or (task.key in SHOCKS and needs_rescue(inputs.state)):
            continue  # a rescue is the shock: beside it there is none to be done
        factor, because = interval_factor(task.key, inputs.state, inputs.index, now)
        days = days * (factor if mine is None or mine.days is None else 1.0)
        whose = (
            Message("your own interval")
            if mine is not None and mine.days is not None
            else Message("usual here")
        )
        reason = Message(
            "Every {days_text}, {whose}{because}.", days_text=_days_text(days), whose=whose, because=because
        )
        yield _Rule(
            key=task.key,
            title=task.title,
            days=days,
            last=last.get(task.key, begun),
            reason=reason,
            early=task.early,
            late=task.late,
            season=frozenset(range(1, 13)) if task.all_year else inputs.season,
            procedure=task.procedure,
            station=SHOCKS.get(task.key),
        )


def _usual_days(task: CareTask, inputs: CareInputs) -> float | None:
    """The preset's interval; for a cell by its kind, unless a technician looks at every visit."""
    if task.key != "cell":
        return task.days(inputs.preset)
    if inputs.preset is Preset.SERVICE:
        return CELL_DAYS_SERVICE
    plain = inputs.state.plant.cell_kind is CellKind.PLAIN
    return CELL_DAYS_PLAIN if plain else CELL_DAYS_SELF_CLEANING


def _test_rules(inputs: CareInputs) -> Iterator[_Rule]:
    own, strips = _own_intervals(inputs.state), uses_strips(inputs.state)
    for row in TEST_INTERVALS:
        key = f"test_{row.measure.value}"
        usual = interval_days(row.measure, inputs.rhythm, inputs.traits, strips=strips)
        days = _interval(own.get(key), usual)
        if days is None:
            continue
        last = last_reading(inputs.state, row.measure)
        name = name_in_sentence(row.measure)
        yield _Rule(
            key=key,
            title=Message("Test {name}", name=name),
            days=days,
            last=None if last is None else local_day(last.at, inputs.zone),
            reason=Message("Every {days_text} in season.", days_text=_days_text(days)),
            early=TEST_EARLY,
            late=TEST_LATE,
            season=ALL_YEAR if row.measure in EVERY_SEASON and not inputs.winter_closed else inputs.season,
            procedure="sampling",
            measure=row.measure,
        )


def _label_rules(inputs: CareInputs, now: datetime) -> Iterator[_Rule]:
    """What was dosed by its label lately and is to be dosed again; what was stopped long ago asks no more."""
    own, last = _own_intervals(inputs.state), {}
    for entry in inputs.state.additions:
        if entry.body.chemical in KINDS and now - entry.at < LABEL_ASKS_FOR:
            last[entry.body.chemical] = entry
    for chemical, entry in last.items():
        kind, key = KINDS[chemical], f"label_{chemical}"
        label = inputs.labels.get(entry.body.product_id or "")
        days = _interval(own.get(key), repeat_days(chemical, label))
        if days is None:
            continue
        yield _Rule(
            key=key,
            title=Message("{name} by its label", name=Verbatim(kind.name)),
            days=days,
            last=local_day(entry.at, inputs.zone),
            reason=Message("Every {days_text} by its label.", days_text=_days_text(days))
            if label is not None
            else Message("Every {days_text} by a usual label; yours counts.", days_text=_days_text(days)),
            early=kind.use,
            late=kind.use,
            season=inputs.season,
        )


REGIME = "pour_"


def regime_task(chemical: str) -> str:
    """The task of pouring a chlorine regularly; its interval is set from the weekly page."""
    return REGIME + chemical


def chemical_of_regime(task: str) -> str | None:
    """The chlorine that such a task is about; None for every other task."""
    chemical = task.removeprefix(REGIME)
    return chemical if task.startswith(REGIME) and chemical in CHLORINE_CARRIERS else None


def _regime_rules(inputs: CareInputs) -> Iterator[_Rule]:
    """Chlorine that the person has put on the schedule. How much stands on the weekly page, as it is by
    then. None beside a rescue, which doses it.
    """
    if needs_rescue(inputs.state):
        return
    for task, mine in _own_intervals(inputs.state).items():
        chemical = chemical_of_regime(task)
        if chemical is None or mine.off or mine.days is None:
            continue
        poured = [e.at for e in inputs.state.additions if e.body.chemical == chemical]
        yield _Rule(
            key=task,
            title=Message("{name}, the week's share", name=Verbatim(CATALOGUE[chemical].name)),
            days=mine.days,
            last=local_day(poured[-1], inputs.zone) if poured else None,
            reason=Message("Every {days_text}, your own regime.", days_text=_days_text(mine.days)),
            early=Message("By a test that reads under the range."),
            late=Message("Free chlorine runs low."),
            season=inputs.season,
            station="week",
        )


def _own_rules(inputs: CareInputs, last: Mapping[str, date], today: date) -> Iterator[_Rule]:
    for own in own_due(inputs.state, last, inputs.zone, today):
        yield _Rule(
            key=own.task.task,
            title=Message("{title}", title=Verbatim(own.task.title)),
            days=own.days,
            last=own.last,
            reason=own.why,
            early=NOTHING,
            late=Message("{note}", note=Verbatim(own.task.note)) if own.task.note else NOTHING,
            season=own.season,
        )


def _machine_rules(inputs: CareInputs, last: Mapping[str, date]) -> Iterator[_Rule]:
    own = _own_intervals(inputs.state)
    for machine, care, key in machine_tasks(inputs.state):
        days = _interval(own.get(key), care.days)
        if days is None:
            continue
        label = machine.body.label
        title = Message("{title} ({label})", title=care.title, label=Verbatim(label)) if label else care.title
        yield _Rule(
            key=key,
            title=title,
            days=days,
            last=last.get(key, local_day(machine.entry.at, inputs.zone)),
            reason=Message("Every {days_text}, usual for such a machine.", days_text=_days_text(days)),
            early=NOTHING,
            late=care.late,
            season=ALL_YEAR if care.all_year else inputs.season,
            procedure=care.procedure,
        )


def _item(rule: _Rule, today: date, put_off: Entry[CarePutOff] | None, ahead_days: int) -> DueItem:
    first = today if rule.last is None else next_due(rule.last, rule.days, rule.season)
    due_on = first_in_season(first, rule.season)
    until = today + timedelta(days=ahead_days)
    ahead = tuple(dates_ahead(max(due_on, today), rule.days, rule.season, until)) if ahead_days else ()
    shown, put_off_to = _after_put_off(due_on, put_off)
    return DueItem(
        task=rule.key,
        title=rule.title,
        due_on=due_on,
        standing=_standing(shown, today, rule.days),
        late_days=max(0, (today - due_on).days),
        why=_reason(rule, put_off_to),
        early=rule.early,
        late=rule.late,
        procedure=rule.procedure,
        station="slip" if rule.measure is not None else rule.station,
        days=rule.days,
        last_on=rule.last,
        put_off_until=shown if shown != due_on else None,
        measures=(rule.measure,) if rule.measure else (),
        ahead=ahead,
    )


def _condition_item(
    found: Condition, today: date, put_off: Entry[CarePutOff] | None, inputs: CareInputs
) -> DueItem:
    due_on = local_day(found.since, inputs.zone)
    shown, put_off_to = _after_put_off(due_on, put_off)
    return DueItem(
        task=found.key,
        title=found.title,
        due_on=due_on,
        standing=_standing(shown, today, None),
        late_days=max(0, (today - due_on).days),
        why=joined_words(found.why, put_off_to),
        early=found.early,
        late=found.late,
        procedure=found.procedure,
        station=found.station,
        days=None,
        last_on=None,
        put_off_until=shown if shown != due_on else None,
        measures=found.measures,
    )


def _reason(rule: _Rule, put_off_to: Message) -> Message:
    last = NOTHING if rule.last is None else Message("Last on {day}.", day=Day(rule.last))
    return joined_words(rule.reason, last, put_off_to)


def joined_words(*sentences: Message) -> Message:
    """Whole sentences one after the other."""
    return Message("{sentences}", sentences=joined(sentences, " "))


def _after_put_off(due_on: date, put_off: Entry[CarePutOff] | None) -> tuple[date, Message]:
    """The day on which it shows again, and the reason given; the due day itself never moves."""
    body = put_off.body if put_off is not None else None
    if body is None or body.until is None or body.until <= due_on:
        return due_on, NOTHING
    if body.reason:
        return body.until, Message(
            "Put off to {day} ({reason}).", day=Day(body.until), reason=Verbatim(body.reason)
        )
    return body.until, Message("Put off to {day}.", day=Day(body.until))


def _standing(shown: date, today: date, days: float | None) -> Standing:
    left = (shown - today).days
    if left < 0:
        return Standing.OVERDUE
    if left == 0:
        return Standing.DUE
    return Standing.SOON if left <= min(SOON_DAYS, max(1.0, (days or SOON_DAYS) / 3)) else Standing.LATER


def _days_text(days: float) -> Message:
    if days >= 360:
        years = days / 365
        return Message("year") if years < 1.5 else Message("{years} years", years=Number(years, digits=0))
    if days >= 60:
        return Message("{days} months", days=Number(days / 30.4, digits=0))
    if days == 1:
        return Message("day")
    return Message("{days} days", days=Number(days))
