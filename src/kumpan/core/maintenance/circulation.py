"""The pump's day: turnovers, hours, windows on a day's strip, what it costs, and what asks for more.

Source: circulation-care.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kumpan.core.findings import Finding
from kumpan.core.journal import PlantSet, PumpWindow
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.quantity import Number

SOURCE = "circulation-care"

DAY_MIN = 1440
LEAST_HOURS = 8.0
LONG_HOURS = 12.0  # with solar heating, phosphate treatment or heat
HOT_C = 30.0
FREEZE_C = 2.0
NEARLY_ALL_DAY_H = 22.0  # two blocks would run into each other
BLOCKS = ((5 * 60, 9 * 60), (18 * 60, 22 * 60))  # two of four hours, out of direct sun


@dataclass(frozen=True, kw_only=True)
class CirculationView:
    """Hours a day, turnovers a day and one turnover's hours where the flow is known, kWh and money a day."""

    hours: float
    turnovers: float | None
    turnover_h: float | None
    kwh_day: float | None
    cost_day: float | None
    windows: tuple[PumpWindow, ...]
    suggested: tuple[PumpWindow, ...]
    wanted_hours: float
    findings: tuple[Finding, ...]


def window_min(window: PumpWindow) -> int:
    """How long a window runs; over midnight where it ends before it starts."""
    return (window.end_min - window.start_min) % DAY_MIN or DAY_MIN


def hours_a_day(windows: Sequence[PumpWindow]) -> float:
    """Hours in which the pump runs; overlapping windows count once."""
    running = {
        minute % DAY_MIN
        for window in windows
        for minute in range(window.start_min, window.start_min + window_min(window))
    }
    return len(running) / 60.0


def circulation(
    plant: PlantSet,
    traits: Traits,
    volume_l: float,
    *,
    water_c: float | None,
    air_c: float | None,
    treating: bool,
    cell_hours: float | None,
) -> CirculationView:
    """The bench for one pool.

    `treating` while algae or a shock is on; `cell_hours` what the cell needs a day.
    """
    hours = hours_a_day(plant.windows) if plant.windows else LEAST_HOURS
    flow_l_h = plant.pump_flow_l_min * 60 if plant.pump_flow_l_min else None
    turnover_h = volume_l / flow_l_h if flow_l_h else None
    wanted = _wanted(
        plant, turnover_h, water_c=water_c, air_c=air_c, treating=treating, cell_hours=cell_hours
    )
    turnovers = hours / turnover_h if turnover_h else None
    kwh = plant.pump_kw * hours if plant.pump_kw is not None else None
    cost = kwh * plant.price_per_kwh if kwh is not None and plant.price_per_kwh is not None else None
    findings = tuple(
        _findings(plant, hours, turnovers=turnovers, wanted=wanted, air_c=air_c, treating=treating)
    )
    return CirculationView(
        hours=hours,
        turnovers=turnovers,
        turnover_h=turnover_h,
        kwh_day=kwh,
        cost_day=cost,
        windows=plant.windows,
        suggested=_suggested(wanted, traits),
        wanted_hours=wanted,
        findings=findings,
    )


def _wanted(
    plant: PlantSet,
    turnover_h: float | None,
    *,
    water_c: float | None,
    air_c: float | None,
    treating: bool,
    cell_hours: float | None,
) -> float:
    if treating or (air_c is not None and air_c <= FREEZE_C):
        return 24.0
    long = plant.solar or (water_c is not None and water_c >= HOT_C)
    request = [LONG_HOURS if long else LEAST_HOURS, turnover_h or 0.0, cell_hours or 0.0]
    return min(24.0, max(request))


def _suggested(hours: float, traits: Traits) -> tuple[PumpWindow, ...]:
    """Two blocks out of the sun; one by day where a cell must chlorinate; round the clock where that is
    asked.
    """
    if hours >= NEARLY_ALL_DAY_H:
        return (PumpWindow(0, DAY_MIN),)
    if traits.chlorination is Chlorination.SALT_CELL:
        start = int(max(0, 13 * 60 - hours * 30))
        return (PumpWindow(start, int(start + hours * 60) % DAY_MIN),)
    half = int(hours * 30)
    return tuple(
        PumpWindow((start + end - half) // 2 % DAY_MIN, (start + end + half) // 2 % DAY_MIN)
        for start, end in BLOCKS
    )


def _findings(
    plant: PlantSet,
    hours: float,
    *,
    turnovers: float | None,
    wanted: float,
    air_c: float | None,
    treating: bool,
) -> Iterator[Finding]:
    if turnovers is not None and turnovers < 1:
        yield Finding(
            "under_one_turnover",
            Message(
                "Only {turnovers} turnovers a day: part of the water never sees the filter. Run at least "
                "{hours} h.",
                turnovers=Number(turnovers, digits=1),
                hours=Number(hours / turnovers, digits=0),
            ),
            None,
            {"turnovers": turnovers},
        )
    if plant.pump_flow_l_min is None:
        yield Finding("flow_not_known", Message("Enter the pump's flow, and turnovers follow."))
    if treating:
        yield Finding("treating", Message("Run it round the clock while the water is treated."))
    elif air_c is not None and air_c <= FREEZE_C:
        yield Finding("freeze", Message("Freezing air: run it through, moving water freezes last."))
    elif hours < wanted - 0.25:
        yield Finding(
            "too_short",
            Message(
                "{hours} h a day now; {wanted} h would fit this pool.",
                hours=Number(hours),
                wanted=Number(wanted, digits=0),
            ),
            None,
            {"wanted": wanted},
        )
