"""What asks for care by itself, whatever the calendar says: pressure, scale, storms, new water, worn parts.

Each row of `_RULES` is one sign and what it asks for.
Sources: filter-care, cell-care, test-interval, dilution-tests, routine-shock, cell-limits.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.journal import (
    Clarity,
    DeviceDay,
    Entry,
    NotedEvent,
    PoolState,
    VisualCheck,
    last_reading,
)
from kumpan.core.maintenance.cell_life import cell_life
from kumpan.core.maintenance.filter_pressure import LIMIT_KPA, pressure_trend
from kumpan.core.maintenance.index_history import SCALING_OVER, IndexPoint, scaling_index
from kumpan.core.maintenance.tasks import SHOCK_DAYS_WARM, TASKS, WARM_C
from kumpan.core.messages import NOTHING, Message, Plural, Verbatim
from kumpan.core.pool.equipment import Chlorination, Filter, Traits
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Day, Number, Pressure, Rain

SOURCES_USED = (
    "filter-care",
    "cell-care",
    "test-interval",
    "dilution-tests",
    "routine-shock",
    "cell-limits",
)

SALT_TEST_AFTER = 0.05  # share of the water replaced since the last salt test
STABILIZER_TEST_AFTER = 0.10
WASHES_A_SEASON = 5
SEASON = timedelta(days=200)
NO_TEST_DAYS = 10
COLD_CELL_C = (65 - 32) / 1.8
LIFE_LEFT_WARN_H = 500.0
EVENT_HOLDS = timedelta(days=14)


@dataclass(frozen=True, kw_only=True)
class CareRequest:
    """What the signs are read from."""

    state: PoolState
    traits: Traits
    volume_l: float
    index: tuple[IndexPoint, ...]
    now: datetime


@dataclass(frozen=True, kw_only=True)
class Condition:
    """A sign that asks for something, since when, and why. `station` or `procedure` is where it is done."""

    key: str
    title: Message
    why: Message
    since: datetime
    late: Message
    procedure: str | None = None
    station: str | None = None
    measures: tuple[Measure, ...] = ()
    early: Message = NOTHING


def conditions_now(request: CareRequest) -> Iterator[Condition]:
    """All signs that stand now, at most one of each kind."""
    for rule in _RULES:
        found = rule(request)
        if found is not None:
            yield found


def interval_factor(
    task: str, state: PoolState, index: Sequence[IndexPoint], now: datetime
) -> tuple[float, Message]:
    """What the log makes of a task's interval: a factor, and the words for it; 1 where it says nothing."""
    if task == "cell":
        mean = scaling_index(index, now)
        if mean is not None and mean > SCALING_OVER:
            return 0.5, Message(
                ", halved while the scaling index is high ({mean} over the last weeks)",
                mean=Number(mean, digits=2, signed=True),
            )
    if task == "shock":
        last = last_reading(state, Measure.TEMPERATURE)
        days = TASKS["shock"].owner or 14.0
        if last is not None and last.value.value >= WARM_C and now - last.at < timedelta(days=21):
            return SHOCK_DAYS_WARM / days, Message(", weekly in warm water")
    return 1.0, NOTHING


FILTER_TASKS: dict[Filter, tuple[str, Message]] = {
    Filter.SAND: ("backwash", Message("Backwash: the pressure is up")),
    Filter.CARTRIDGE: ("cartridge_hose", Message("Wash the cartridge: the pressure is up")),
    Filter.DE: ("de_recharge", Message("Backwash and recharge: the pressure is up")),
}


def _pressure(request: CareRequest) -> Condition | None:
    trend = pressure_trend(request.state, request.now)
    if trend is None or trend.rise_kpa < LIMIT_KPA:
        return None
    procedure, title = FILTER_TASKS[request.traits.filter]
    why = Message(
        "The gauge reads {last} ({bar}), {rise} over clean; {limit} is the limit.",
        last=Pressure(trend.last_kpa),
        bar=Pressure(trend.last_kpa, other=True),
        rise=Pressure(trend.rise_kpa),
        limit=Pressure(LIMIT_KPA),
    )
    return Condition(
        key="pressure",
        title=title,
        why=why,
        since=trend.last_at,
        late=Message("Flow falls, and what is in the filter comes back."),
        procedure=procedure,
    )


def _scale(request: CareRequest) -> Condition | None:
    mean = scaling_index(request.index, request.now)
    if mean is None or mean <= SCALING_OVER:
        return None
    why = Message(
        "The scaling index has been {mean} over the last weeks. Acid on the cell takes the scale "
        "off; only the water's balance keeps it off.",
        mean=Number(mean, digits=2, signed=True),
    )
    return Condition(
        key="scale",
        title=Message("Bring the scaling index down"),
        why=why,
        since=request.index[-1].at,
        late=Message("Scale on heater, tile and cell."),
        station="sheet",
    )


def _event(request: CareRequest) -> Condition | None:
    """A storm or a crowd since the last test of chlorine."""
    last = last_reading(request.state, Measure.FREE_CHLORINE)
    words = {
        NotedEvent.STORM: Message("A storm brings dirt, rain and algae food."),
        NotedEvent.HEAVY_USE: Message("Many swimmers use chlorine up and leave combined chlorine."),
        NotedEvent.HOT_SPELL: Message("Heat uses chlorine up faster."),
        NotedEvent.LEAVES: Message("Leaves use chlorine up and stain."),
        NotedEvent.FILLED: Message("Fresh water is known by nothing that was tested before."),
        NotedEvent.FLOOD: Message("A flood brings mud, germs and unknown water."),
        NotedEvent.POWER_CUT: Message("Without power no pump ran and no cell made chlorine."),
    }
    since = [
        entry
        for entry in request.state.events
        if entry.body.kind in words
        and request.now - entry.at < EVENT_HOLDS
        and (last is None or entry.at > last.at)
    ]
    if not since:
        return None
    kind = since[-1].body.kind
    return Condition(
        key="test_event",
        title=Message("Test after what happened"),
        why=words[kind],
        since=since[-1].at,
        late=Message("Nobody knows whether chlorine still stands."),
        procedure="sampling",
        station="slip",
        measures=(Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE, Measure.PH),
    )


def replaced_since(state: PoolState, volume_l: float, at: datetime) -> float:
    """Share of the water that was replaced after a time; several changes multiply."""
    left = 1.0
    for entry in state.water_changes:
        if entry.at > at:
            left *= max(0.0, 1.0 - entry.body.volume_l / volume_l)
    return 1.0 - left


def _dilution(request: CareRequest, measure: Measure, limit: float, name: Message) -> Condition | None:
    last = last_reading(request.state, measure)
    changes = [entry for entry in request.state.water_changes if last is not None and entry.at > last.at]
    if last is None or not changes:
        return None
    share = replaced_since(request.state, request.volume_l, last.at)
    if share < limit:
        return None
    why = Message(
        "About {share} % of the water is new since the last test of it.", share=Number(100 * share, digits=0)
    )
    return Condition(
        key=f"test_{measure.value}_diluted",
        title=Message("Test {name} after new water", name=name),
        why=why,
        since=changes[-1].at,
        late=Message("The dose is computed from water that has left."),
        procedure="sampling",
        station="slip",
        measures=(measure,),
    )


def _salt_diluted(request: CareRequest) -> Condition | None:
    if request.traits.chlorination is not Chlorination.SALT_CELL:
        return None
    return _dilution(request, Measure.SALT, SALT_TEST_AFTER, Message("salt"))


def _stabilizer_diluted(request: CareRequest) -> Condition | None:
    if request.traits.indoor:
        return None
    return _dilution(request, Measure.CYANURIC_ACID, STABILIZER_TEST_AFTER, Message("stabilizer"))


def _algae(request: CareRequest) -> Condition | None:
    """Algae seen since the last phosphate test."""
    seen = [entry for entry in request.state.visual_checks if _shows_algae(entry)]
    last = last_reading(request.state, Measure.PHOSPHATE)
    if not seen or request.now - seen[-1].at > timedelta(days=60) or (last and last.at > seen[-1].at):
        return None
    return Condition(
        key="test_phosphate",
        title=Message("Test phosphate"),
        why=Message("Algae were seen; phosphate over 100 ppb feeds them."),
        since=seen[-1].at,
        late=Message("Algae keep coming back."),
        procedure="sampling",
        station="slip",
        measures=(Measure.PHOSPHATE,),
    )


def _shows_algae(entry: Entry[VisualCheck]) -> bool:
    body = entry.body
    return body.clarity is Clarity.GREEN or "algae spots" in body.odd


def _no_test(request: CareRequest) -> Condition | None:
    last = request.state.last_test
    if last is None or request.now - last.at < timedelta(days=NO_TEST_DAYS):
        return None
    days = (request.now - last.at).days
    return Condition(
        key="no_test",
        title=Message("No test for {days}", days=Plural("{n} day", "{n} days", days)),
        why=Message("Everything else here is computed from tests."),
        since=last.at + timedelta(days=NO_TEST_DAYS),
        late=Message("Doses are made on a guess."),
        procedure="sampling",
        station="slip",
        measures=(Measure.FREE_CHLORINE, Measure.PH),
    )


def _washes(request: CareRequest) -> Condition | None:
    washes = [
        entry
        for entry in request.state.care
        if entry.body.task == "cell"
        and any(value.name == "acid_washes" and value.value > 0 for value in entry.body.values)
        and request.now - entry.at < SEASON
    ]
    if len(washes) <= WASHES_A_SEASON or request.traits.chlorination is not Chlorination.SALT_CELL:
        return None
    why = Message(
        "{washes} acid washes this season; each wears the coating. The water scales: mend that.",
        washes=Number(len(washes)),
    )
    return Condition(
        key="washes",
        title=Message("Wash the cell less"),
        why=why,
        since=washes[-1].at,
        late=Message("The cell wears out early."),
        station="sheet",
    )


def _cell_age(request: CareRequest) -> Condition | None:
    life = cell_life(request.state, request.now)
    if life is None or life.left_h > LIFE_LEFT_WARN_H:
        return None
    why = Message(
        "About {run_h} h at output of a rated {rated_h} h.",
        run_h=Number(life.run_h, digits=0),
        rated_h=Number(life.rated_h, digits=0),
    )
    return Condition(
        key="cell_age",
        title=Message("The cell nears its end"),
        why=why,
        since=request.now,
        late=Message("Output falls when it is needed."),
        procedure="cell",
    )


def _cold(request: CareRequest) -> Condition | None:
    last = last_reading(request.state, Measure.TEMPERATURE)
    if (
        request.traits.chlorination is not Chlorination.SALT_CELL
        or last is None
        or last.value.value > COLD_CELL_C
        or request.now - last.at > timedelta(days=30)
    ):
        return None
    why = Message(
        "Water of 65 °F (18 °C) or less: many units cut the output or stop. Chlorinate by hand, cell off."
    )
    return Condition(
        key="cold_cell",
        title=Message("Too cold for the cell"),
        why=why,
        since=last.at,
        late=Message("Chlorine runs out unseen."),
    )


DISPLAY_APART_MG_L = 400.0
DEVICE_SILENT_DAYS = 2
RAIN_ASKS_MM = 25.0


def _days_of_devices(request: CareRequest) -> list[tuple[Entry[DeviceDay], DeviceDay]]:
    return [(e, e.body) for e in request.state.device_days]


def _display_apart(request: CareRequest) -> Condition | None:
    """The unit's salt against the hand test of about the same time: the hand test holds."""
    last = last_reading(request.state, Measure.SALT)
    said = [(e, day) for e, day in _days_of_devices(request) if day.salinity_mg_l is not None]
    if last is None or not said or request.now - last.at > timedelta(days=45):
        return None
    entry, day = min(said, key=lambda pair: abs(pair[0].at - last.at))
    near = abs(entry.at - last.at) <= timedelta(days=3)
    apart = (day.salinity_mg_l or 0.0) - last.value.value
    if not near or abs(apart) <= DISPLAY_APART_MG_L:
        return None
    why = Message(
        "The unit says {salinity}, the hand test {value}: over {display_apart} apart. The hand "
        "test holds; scale, cold and age make a unit read low.",
        salinity=Number(day.salinity_mg_l or 0.0, digits=0),
        value=Number(last.value.value, digits=0),
        display_apart=Number(DISPLAY_APART_MG_L, digits=0),
    )
    return Condition(
        key="display_apart",
        title=Message("Calibrate the unit's salt reading, or clean the cell"),
        why=why,
        since=entry.at,
        late=Message("The unit stops, or alarms, for nothing."),
        procedure="cell",
    )


def _device_silent(request: CareRequest) -> Condition | None:
    linked = request.state.devices[-1] if request.state.devices else None
    if linked is None or linked.body.address == "":
        return None
    heard = [entry.at for entry in (*request.state.device_days, *request.state.device_changes)]
    since = max([linked.at, *heard])
    if request.now - since < timedelta(days=DEVICE_SILENT_DAYS):
        return None
    why = Message(
        "Nothing since {day}. Power, network, address? Until then test by hand.",
        day=Day(since.date()),
    )
    return Condition(
        key="device_silent",
        title=Message("The {device} is silent", device=Verbatim(linked.body.device)),
        why=why,
        since=since,
        late=Message("Its alarms reach nobody."),
    )


def _rain(request: CareRequest) -> Condition | None:
    """Heavy rain by the station's gauge since the last test of chlorine."""
    last = last_reading(request.state, Measure.FREE_CHLORINE)
    wet = [
        (e, day)
        for e, day in _days_of_devices(request)
        if (day.rain_mm or 0.0) >= RAIN_ASKS_MM
        and request.now - e.at < EVENT_HOLDS
        and (last is None or e.at > last.at)
    ]
    if not wet or request.traits.indoor:
        return None
    entry, day = wet[-1]
    why = Message(
        "{rain} of rain by the station: it dilutes, and brings dirt.",
        rain=Rain(day.rain_mm or 0.0),
    )
    return Condition(
        key="test_rain",
        title=Message("Test after the rain"),
        why=why,
        since=entry.at,
        late=Message("Nobody knows whether chlorine still stands."),
        procedure="sampling",
        station="slip",
        measures=(Measure.FREE_CHLORINE, Measure.PH),
    )


def _lamp(request: CareRequest) -> Condition | None:
    lamps = [e for e in request.state.device_changes if e.body.what == "lamps"]
    body = lamps[-1].body if lamps else None
    if body is None or body.after == "none":
        return None
    why = Message(
        "Lit since {day}: {after}. Verify by a hand test before adding salt.",
        day=Day(lamps[-1].at.date()),
        after=Verbatim(body.after),
    )
    return Condition(
        key="device_lamp",
        title=Message(
            "The {device} shows: {after}", device=Verbatim(body.device), after=Verbatim(body.after)
        ),
        why=why,
        since=lamps[-1].at,
        late=Message("The cell may have stopped."),
        station="benches",
    )


_RULES: tuple[Callable[[CareRequest], Condition | None], ...] = (
    _pressure, _event, _no_test, _scale, _salt_diluted, _stabilizer_diluted, _algae, _washes, _cell_age,
    _cold,
    _display_apart, _device_silent, _rain, _lamp,
)  # fmt: skip
