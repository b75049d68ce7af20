"""Replacing water: how much must go so that a measure comes down, and what that takes of fill.

Drain-then-fill replaces a share f directly. Overflowing while filling mixes all the time, so the old
water falls as exp(-x) with x liters run through per liter of pool: it takes more for the same f.
Source: mass-balance.
"""

from dataclasses import dataclass
from math import exp, inf, log

SOURCE = "mass-balance"

# Above this a partial drain is a drain: the shell's own risks then decide, and a professional.
LARGEST_PARTIAL_SHARE = 0.5


@dataclass(frozen=True)
class WaterChange:
    """A share (0 to 1) of old water to replace; liters of fill when drained first, and when overflowing."""

    share: float
    drained_first_l: float
    overflowing_l: float


def share_to_replace(now: float, wanted: float, in_fill: float) -> float | None:
    """The share of water to replace so that a conserved measure goes from `now` to `wanted`.

    None when the fill cannot bring it there: it holds as much itself, or more.
    """
    if wanted >= now:
        return 0.0
    if in_fill >= wanted:
        return None
    return (now - wanted) / (now - in_fill)


def left_after_overflowing(through_per_pool: float) -> float:
    """The share of old water left once that many pool volumes of fill ran through, well mixed."""
    return exp(-through_per_pool)


def water_change(now: float, wanted: float, in_fill: float, volume_l: float) -> WaterChange | None:
    """Liters of fill by both ways; None when no water change with this fill reaches `wanted`."""
    share = share_to_replace(now, wanted, in_fill)
    if share is None:
        return None
    through = -log(1 - share) if share < 1 else inf
    return WaterChange(share, share * volume_l, through * volume_l)
