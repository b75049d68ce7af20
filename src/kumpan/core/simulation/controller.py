"""What the simulated chlorinator and weather station say: from the time alone, so that an hour always says
the same.
"""

from datetime import UTC, datetime
from math import pi, sin

from kumpan.core.journal import DeviceReading

BEGAN = datetime(2026, 1, 1, tzinfo=UTC)
SALT_MG_L, DRIFT_MG_L_A_DAY, FULL_AGAIN_DAYS = 3150.0, 4.0, 120
LOW_SALT_MG_L = 2750.0
FLOW_HOURS = (13, 23)  # UTC: by day in the middle of North America
CLEAN_KPA, RISE_KPA_A_DAY, WASHED_DAYS = 76.0, 1.5, 21


def reading_at(now: datetime) -> DeviceReading:
    """What the unit and the station say at a moment."""
    days = (now - BEGAN).total_seconds() / 86_400
    hour = now.hour + now.minute / 60
    salinity = SALT_MG_L - DRIFT_MG_L_A_DAY * (days % FULL_AGAIN_DAYS) + 15 * sin(7.0 * days)
    flow = FLOW_HOURS[0] <= now.hour < FLOW_HOURS[1]
    sun = max(0.0, sin(pi * (hour - 12) / 14))
    wet = int(days * 7919) % 9 == 0
    return DeviceReading(
        output_percent=55.0 if flow and salinity >= LOW_SALT_MG_L else 0.0,
        salinity_mg_l=round(salinity, -1),
        water_c=round(
            25.5 + 4.0 * sin(2 * pi * (days - 110) / 365) + 0.6 * sin(2 * pi * (hour - 15) / 24), 1
        ),
        flow=flow,
        pressure_kpa=round(CLEAN_KPA + RISE_KPA_A_DAY * (days % WASHED_DAYS), 1) if flow else 0.0,
        rain_mm=round(3.0 * hour, 1) if wet else 0.0,
        air_c=round(21 + 9 * sin(2 * pi * (days - 110) / 365) + 5 * sin(2 * pi * (hour - 15) / 24), 1),
        uv_index=round(9 * sun, 1),
        lamps=("low_salt",) if salinity < LOW_SALT_MG_L else (),
    )
