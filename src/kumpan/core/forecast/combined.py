"""Combined chlorine over time: what swimmers and organics bind, and what free chlorine breaks down.

d(CC)/dt = share of the demand - rate CC, the rate only while there is free chlorine. Source: combined.
"""

import numpy as np

from kumpan.core.forecast.chlorine import Factors
from kumpan.core.forecast.conditions import Conditions
from kumpan.core.forecast.sun import Array

SOURCE = "combined"

BINDS_OF_LOAD = 0.15
BINDS_OF_ORGANICS = 0.05
BROKEN_DOWN_PER_DAY = 0.5
WHOLE_ABOVE_MG_L = 1.0  # under this much free chlorine the breakdown slows in proportion


def combined_course(
    acting: Conditions, factors: Factors, free: Array, start_mg_l: float, binds: float = 1.0
) -> Array:
    """Combined chlorine (mg/L) at every knot, along a course of free chlorine at the same knots.

    `binds`: a factor on what swimmers and organics bind, for the ends of a band.
    """
    organics = BINDS_OF_ORGANICS * np.exp(factors.organics) * acting.organics
    bound = binds * (BINDS_OF_LOAD * acting.load + organics)
    found = np.empty(len(free))
    found[0] = start_mg_l
    for i, hours in enumerate(acting.hours):
        strength = min(1.0, float(free[i]) / WHOLE_ABOVE_MG_L)
        keep = np.exp(-BROKEN_DOWN_PER_DAY / 24 * strength * hours)
        found[i + 1] = found[i] * keep + bound[i] * hours
    return found
