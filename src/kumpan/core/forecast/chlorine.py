"""Free chlorine over time: sources and pulses against loss by sun, by dark and by demand.

d(FC)/dt = source - demand - loss FC, with constant rates within an interval, so each interval is an
affine step and so is any chain of them. Free chlorine never falls below nothing.
Checked against scipy's integrator. Source: chlorine-model.
"""

from dataclasses import dataclass

import numpy as np

from kumpan.core.forecast.conditions import Conditions
from kumpan.core.forecast.sun import Array

SOURCE = "chlorine-model"


@dataclass(frozen=True)
class Factors:
    """A pool's own factors on the usual figures, as natural logarithms; 0 means as usual."""

    sun: float = 0.0
    organics: float = 0.0
    source: float = 0.0


@dataclass(frozen=True)
class Steps:
    """Each interval as FC -> keep FC + gain; `lost` is the zero-order part of the gain, mg/L."""

    keep: Array
    gain: Array


def steps(acting: Conditions, factors: Factors) -> Steps:
    """The affine step of every interval."""
    rate = np.exp(factors.sun) * acting.light + acting.dark
    net = np.exp(factors.source) * acting.source - np.exp(factors.organics) * acting.organics - acting.load
    exponent = rate * acting.hours
    keep = np.exp(-exponent)
    # (1 - e^-x) / x, 1 in the limit: the share of a constant source that is left at the interval's end.
    share = np.where(exponent > 1e-9, -np.expm1(-exponent) / np.maximum(exponent, 1e-9), 1.0)
    return Steps(keep, net * share * acting.hours)


def course(acting: Conditions, factors: Factors, start_mg_l: float) -> Array:
    """Free chlorine (mg/L) at every knot, from its value just before the first knot's pulse."""
    chain = steps(acting, factors)
    found = np.empty(len(acting.knots_s))
    value = found[0] = max(0.0, start_mg_l + acting.pulses[0])
    for i, (keep, gain) in enumerate(zip(chain.keep, chain.gain, strict=True)):
        value = max(0.0, keep * value + gain)
        value = found[i + 1] = max(0.0, value + acting.pulses[i + 1])
    return found
