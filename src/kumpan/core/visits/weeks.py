"""The rounds of a firm for weeks ahead: who drives where on which day, and what each day takes.

The weekly rounds are laid on the calendar; then what was moved, what falls out because somebody is away, what
is to be done once, what asks for a return, and the season's work find their day, each where it costs least.

Source: firm-planning.
"""

from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, field, replace
from datetime import date, timedelta
from enum import StrEnum
from itertools import pairwise
from uuid import UUID

from kumpan.core.journal import Entry, StopMoved, TechnicianAway, WorkOnce
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantity import Number
from kumpan.core.visits.order import Place, distance_km

SOURCE = "firm-planning"

# Roads are longer than the crow flies, a truck in town is slow, a stop is parked at. Common practice.
ROAD_FACTOR, SPEED_KM_H, PARK_MIN = 1.3, 40.0, 3.0
USUAL_STOP_MIN = 20.0  # of 10 to 25
FULL_DAY_MIN = 8 * 60.0
MOST_WEEKS = 8
# How far from its day a stop may be put when somebody is away, and how soon a return is asked for, days.
MOVED_AT_MOST, RETURN_WITHIN = 3, 4
FAR_DAYS = 60  # what lies further away bears on no day that is looked at


class Why(StrEnum):
    """Why a stop stands on a day."""

    WEEKLY = "weekly"
    MOVED = "moved"
    AWAY = "away"
    ONCE = "once"
    RETURN = "return"


@dataclass(frozen=True, kw_only=True)
class SeasonWork:
    """Work that a pool wants within a span of days, with one of its own visits."""

    pool: UUID
    first: date
    last: date
    minutes: float
    title: Message


@dataclass(frozen=True, kw_only=True)
class FirmRequest:
    """The rounds by technician and weekday, where the pools are, how long their stops take, and what differs.

    `first` and `weeks`: the days that are looked at. `returns`: pools that somebody said to come back to, and
    the first day for it.
    """

    rounds: Mapping[tuple[UUID, int], Sequence[UUID]]
    places: Mapping[UUID, Place]
    minutes: Mapping[UUID, float]
    first: date
    weeks: int
    absences: Sequence[Entry[TechnicianAway]] = ()
    once: Sequence[Entry[WorkOnce]] = ()
    moved: Sequence[Entry[StopMoved]] = ()
    returns: Mapping[UUID, date] = field(default_factory=dict)
    season: Sequence[SeasonWork] = ()

    @property
    def end(self) -> date:
        """The day after the last that is looked at."""
        return self.first + timedelta(weeks=self.weeks)

    def laid_out(self) -> tuple[date, ...]:
        """The days that are looked at and all that bear on them: where a stop comes from, who is away, the
        season's span. So a day's plan is the same from whatever day one looks.
        """
        near, far = timedelta(days=MOVED_AT_MOST), timedelta(days=FAR_DAYS)
        begin, end = self.first - near, self.end + near
        spans = [(one.first, one.last) for one in self.season]
        spans += [(one.body.from_day, one.body.to_day) for one in self.moved]
        spans += [(one.body.to_day, one.body.from_day) for one in self.moved]
        spans += [(one.body.first - near, one.body.last + near) for one in self.absences]
        bearing = [(a, b) for a, b in spans if a <= end and b >= begin]
        first = max(min([begin, *(a for a, _ in bearing)]), self.first - far)
        last = min(max([end, *(b for _, b in bearing)]), self.end + far)
        return tuple(first + timedelta(days=n) for n in range((last - first).days + 1))


@dataclass(frozen=True)
class StopAhead:
    """A stop of a day: how long it takes, why it stands there, and work beside the usual.

    `entry`: what put it there and can be taken back; `from_day` where it stood before.
    """

    pool: UUID
    minutes: float
    _: KW_ONLY
    why: Why = Why.WEEKLY
    extra: tuple[Message, ...] = ()
    entry: UUID | None = None
    from_day: date | None = None


@dataclass(frozen=True, kw_only=True)
class DayAhead:
    """One technician's day: stops in order, minutes at the pools and in the truck, km."""

    day: date
    technician: UUID
    stops: tuple[StopAhead, ...]
    stop_min: float
    drive_min: float
    km: float

    @property
    def total_min(self) -> float:
        """The whole day."""
        return self.stop_min + self.drive_min

    @property
    def too_long(self) -> bool:
        """More than a day's work."""
        return self.total_min > FULL_DAY_MIN


@dataclass(frozen=True)
class Unplaced:
    """A stop for which no day was found, and why; `entry` takes back what asked for it."""

    pool: UUID
    day: date
    reason: Message
    entry: UUID | None = None


@dataclass(frozen=True)
class WeeksAhead:
    """Every day on which somebody drives, in order, and what found no day."""

    days: tuple[DayAhead, ...]
    unplaced: tuple[Unplaced, ...]


def drive_min(km: float) -> float:
    """Minutes on the road for a way as the crow flies."""
    return km * ROAD_FACTOR / SPEED_KM_H * 60.0


class _Roads:
    """Distances between pools, each reckoned once."""

    def __init__(self, places: Mapping[UUID, Place]) -> None:
        self._places, self._known = places, dict[tuple[UUID, UUID], float]()

    def km(self, one: UUID, other: UUID) -> float:
        if one not in self._places or other not in self._places:
            return 0.0
        key = (one, other)
        if key not in self._known:
            self._known[key] = distance_km(self._places[one], self._places[other])
        return self._known[key]

    def road_km(self, stops: Sequence[UUID]) -> float:
        return sum(self.km(a, b) for a, b in pairwise(stops))

    def cheapest(self, stops: Sequence[UUID], pool: UUID) -> tuple[float, int]:
        """The km that one more stop adds at its best place, and that place."""
        best = (float("inf"), len(stops))
        for at in range(len(stops) + 1):
            before = stops[at - 1] if at > 0 else None
            after = stops[at] if at < len(stops) else None
            added = (self.km(before, pool) if before else 0.0) + (self.km(pool, after) if after else 0.0)
            added -= self.km(before, after) if before and after else 0.0
            best = min(best, (added, at))
        return best if stops else (0.0, 0)


Key = tuple[date, UUID]


class _Book:
    """The calendar as it fills."""

    def __init__(self, request: FirmRequest) -> None:
        self.request, self.roads = request, _Roads(request.places)
        self.days: dict[Key, list[StopAhead]] = {}
        self.unplaced: list[Unplaced] = []
        self.all_days = frozenset(request.laid_out())
        for day in sorted(self.all_days):
            for (technician, weekday), stops in request.rounds.items():
                if weekday == day.weekday() and stops:
                    self.days[day, technician] = [self._stop(pool) for pool in stops]

    def _stop(self, pool: UUID) -> StopAhead:
        return StopAhead(pool, self.request.minutes.get(pool, USUAL_STOP_MIN))

    def away(self, key: Key) -> bool:
        day, technician = key
        return any(absence.body.covers(technician, day) for absence in self.request.absences)

    def known_since(self, key: Key) -> date:
        """The day on which it was said that somebody is away then: no stop is put on a day before it."""
        day, technician = key
        return min(
            one.recorded_at.date() for one in self.request.absences if one.body.covers(technician, day)
        )

    def total_min(self, key: Key) -> float:
        stops = self.days[key]
        km = self.roads.road_km([stop.pool for stop in stops])
        return sum(stop.minutes + PARK_MIN for stop in stops) + drive_min(km)

    def insert(self, key: Key, stop: StopAhead) -> None:
        stops = self.days.setdefault(key, [])
        _, at = self.roads.cheapest([one.pool for one in stops], stop.pool)
        stops.insert(at, stop)

    def take(self, pool: UUID, day: date) -> StopAhead | None:
        """Off whoever has it that day."""
        for (on, _), stops in self.days.items():
            if on == day:
                for stop in stops:
                    if stop.pool == pool:
                        stops.remove(stop)
                        return stop
        return None

    def stands_between(self, pool: UUID, first: date, last: date) -> bool:
        return any(
            first <= day <= last and any(stop.pool == pool for stop in stops)
            for (day, _), stops in self.days.items()
        )

    def best(self, pool: UUID, minutes: float, keys: Iterable[tuple[Key, int]]) -> Key | None:
        """The day that takes one more stop most cheaply: one that is not too long by it before one that is,
        then fewer days away, then fewer minutes on the road.
        """
        found: list[tuple[bool, int, float, date, str, Key]] = []
        for key, apart in keys:
            stops = [stop.pool for stop in self.days.get(key, [])]
            if pool in stops:
                continue
            km, _ = self.roads.cheapest(stops, pool)
            added = drive_min(km) + minutes + PARK_MIN
            too_long = key in self.days and self.total_min(key) + added > FULL_DAY_MIN
            found.append((too_long, apart, added, key[0], str(key[1]), key))
        return min(found)[-1] if found else None

    def drives(self, technician: UUID | None, days: Collection[date]) -> Iterator[Key]:
        """The days in the plan on which somebody, or this one, drives and is not away."""
        for key in list(self.days):
            if key[0] in days and technician in (None, key[1]) and not self.away(key):
                yield key


def weeks_ahead(request: FirmRequest) -> WeeksAhead:
    """The plan: the same for the same request, whatever the order of its parts."""
    book = _Book(request)
    for moved in sorted(request.moved, key=lambda one: (one.recorded_at, str(one.id))):
        _move(book, moved)
    _cover_absences(book)
    for once in sorted(request.once, key=lambda one: (one.body.day, str(one.id))):
        _place_once(book, once)
    for pool, day in sorted(request.returns.items(), key=lambda row: (row[1], str(row[0]))):
        _place_return(book, pool, day)
    _spread_season(book)
    first, end = request.first, request.end
    return WeeksAhead(
        tuple(day for day in _days(book) if first <= day.day < end),
        tuple(one for one in book.unplaced if first <= one.day < end),
    )


def _move(book: _Book, moved: Entry[StopMoved]) -> None:
    body = moved.body
    stop = book.take(body.pool_id, body.from_day)
    if stop is None:
        return  # it stands there no longer: the round was set anew since
    book.insert(
        (body.to_day, body.technician_id),
        replace(stop, why=Why.MOVED, entry=moved.id, from_day=stop.from_day or body.from_day),
    )


def _cover_absences(book: _Book) -> None:
    """Stops of who is away go to another's truck that day, or to a day near it."""
    for key in sorted((key for key in book.days if book.away(key)), key=lambda one: (one[0], str(one[1]))):
        day, _ = key
        near = {day + timedelta(days=n): abs(n) for n in range(-MOVED_AT_MOST, MOVED_AT_MOST + 1)}
        known_since = min(book.known_since(key), day)
        possible = {on: apart for on, apart in near.items() if on >= known_since}
        for stop in book.days.pop(key):
            found = book.best(
                stop.pool, stop.minutes, ((one, possible[one[0]]) for one in book.drives(None, possible))
            )
            if found is None:
                reason = Message("Nobody drives within {days} days of it.", days=Number(MOVED_AT_MOST))
                book.unplaced.append(Unplaced(stop.pool, day, reason))
            else:
                book.insert(found, replace(stop, why=Why.AWAY, from_day=day))


def _place_once(book: _Book, entry: Entry[WorkOnce]) -> None:
    once = entry.body
    if once.day not in book.all_days:
        return
    here = [(key, 0) for key in book.drives(once.technician_id, {once.day})]
    for key, _ in here:
        if _beside(book, key, entry):
            return  # the pool is on that day's round already: its stop takes the work along
    stop = StopAhead(once.pool_id, once.minutes, why=Why.ONCE, extra=_words(once), entry=entry.id)
    found = book.best(once.pool_id, once.minutes, here)
    if found is not None:
        book.insert(found, stop)
    elif once.technician_id is not None and not book.away((once.day, once.technician_id)):
        book.insert((once.day, once.technician_id), stop)
    else:
        reason = Message("Nobody drives that day: name a technician, or another day.")
        book.unplaced.append(Unplaced(once.pool_id, once.day, reason, entry.id))


def _words(once: WorkOnce) -> tuple[Message, ...]:
    return (Message("{what}", what=Verbatim(once.what)),) if once.what else ()


def _beside(book: _Book, key: Key, entry: Entry[WorkOnce]) -> bool:
    stops = book.days[key]
    for at, known in enumerate(stops):
        if known.pool == entry.body.pool_id:
            minutes, extra = known.minutes + entry.body.minutes, (*known.extra, *_words(entry.body))
            stops[at] = replace(known, minutes=minutes, extra=extra, entry=entry.id)
            return True
    return False


def _place_return(book: _Book, pool: UUID, day: date) -> None:
    near = {day + timedelta(days=n): n for n in range(RETURN_WITHIN + 1)}
    if not set(near) & book.all_days or book.stands_between(pool, day, max(near)):
        return  # it is driven to anyway
    minutes = book.request.minutes.get(pool, USUAL_STOP_MIN)
    found = book.best(pool, minutes, ((key, near[key[0]]) for key in book.drives(None, near)))
    if found is None:
        reason = Message("Nobody drives within {days} days of it.", days=Number(RETURN_WITHIN))
        book.unplaced.append(Unplaced(pool, day, reason))
    else:
        book.insert(found, StopAhead(pool, minutes, why=Why.RETURN))


def _spread_season(book: _Book) -> None:
    """Each with one of its pool's own visits, on the day that has least to do; the least free go first."""
    visits: dict[UUID, list[Key]] = {}
    for key, stops in book.days.items():
        for stop in stops:
            visits.setdefault(stop.pool, []).append(key)

    def days_of(work: SeasonWork) -> list[Key]:
        return [key for key in visits.get(work.pool, []) if work.first <= key[0] <= work.last]

    load = {key: book.total_min(key) for key in book.days}
    for work in sorted(book.request.season, key=lambda one: (len(days_of(one)), one.last, str(one.pool))):
        keys = days_of(work)
        if not keys:
            continue  # none of its visits falls into the weeks that are planned
        key = min(keys, key=lambda one: (load[one], one[0], str(one[1])))
        load[key] += work.minutes
        stops = book.days[key]
        at = next(n for n, stop in enumerate(stops) if stop.pool == work.pool)
        known = stops[at]
        stops[at] = replace(known, minutes=known.minutes + work.minutes, extra=(*known.extra, work.title))


def _days(book: _Book) -> Iterator[DayAhead]:
    for (day, technician), stops in sorted(book.days.items(), key=lambda row: (row[0][0], str(row[0][1]))):
        if stops:
            km = book.roads.road_km([stop.pool for stop in stops])
            yield DayAhead(
                day=day,
                technician=technician,
                stops=tuple(stops),
                stop_min=sum(stop.minutes + PARK_MIN for stop in stops),
                drive_min=drive_min(km),
                km=km * ROAD_FACTOR,
            )
