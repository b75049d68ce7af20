"""A pool that has turned, in truth: what lives, what has died, a filter that clogs.

Its own law, not the planner's.

All invented; seeded. Source: simulated-world.
"""

from dataclasses import dataclass, field
from math import exp

from kumpan.core.simulation.world import World

SOURCE = "simulated-world"

EDGES = (1.0, 2.4, 5.0, 8.0)  # of the cloud as it is seen: clear, hazy, cloudy, drain hidden
STILL_GREEN = 2.2
SPOTS_SEEN = 0.45


@dataclass(kw_only=True)
class Green:
    """What nobody is told. `cloud` 1 is where the drain is plain to see; rates per hour.

    `skin`: the share of what lives that chlorine does not reach until it is brushed. `clog`: how fast the
    filter fills by what it takes.
    """

    cloud: float = 4.0
    kill: float = 0.06
    skin: float = 0.0
    filters: float = 0.02
    clog: float = 0.12
    load: float = 0.0
    brushed: float = 0.0
    pump_on: bool = True
    clean_kpa: float = 75.0


@dataclass
class GreenWorld(World):
    """A world whose bloom is killed, clouds, and is filtered away."""

    green: Green = field(default_factory=Green)

    def step(self) -> None:
        """One hour goes by."""
        super().step()
        g = self.green
        if g.pump_on:
            taken = g.cloud * (1 - exp(-g.filters / (1.0 + g.load**1.5)))
            g.cloud -= taken
            g.load += g.clog * taken
        g.brushed *= 0.96

    def _grow(self) -> None:
        """Killed by what stabilizer leaves, saturating; grows where there is none."""
        w, g = self.water, self.green
        active = w.free / (1.0 + w.stabilizer / 9.0)
        strength = active**0.9 / (active**0.9 + 1.3)
        warm = 1.7 ** ((w.temperature_c - 25.0) / 10.0)
        reach = 1.0 - g.skin * (1.0 - 0.85 * g.brushed)
        killed = w.bloom * (1 - exp(-g.kill * strength * warm * reach))
        w.bloom -= killed
        g.cloud += 0.5 * killed
        if active < 0.03 and w.temperature_c > 14:
            w.bloom = min(24.0, w.bloom * 1.015)

    def brush(self) -> None:
        """The walls are brushed."""
        self.green.brushed = min(1.0, self.green.brushed + 0.8)

    def clean_filter(self) -> None:
        """Nearly as good as new; a backwash takes some water."""
        self.green.load *= 0.12
        self.replace_water(0.01 * self.nature.true_volume_l)

    def vacuum(self) -> None:
        """After a still night most of the cloud lies on the floor."""
        self.green.cloud *= 0.5 if not self.green.pump_on else 0.85
        self.replace_water(0.025 * self.nature.true_volume_l)

    @property
    def gauge_kpa(self) -> float:
        """The filter's gauge, kPa."""
        return self.green.clean_kpa * (1.0 + 0.75 * min(2.0, self.green.load))

    @property
    def shown(self) -> float:
        """What the eye takes for cloud."""
        return self.green.cloud + 0.35 * self.water.bloom * (1 - self.green.skin)

    @property
    def mean_free(self) -> float:
        """Free chlorine (mg/L) over the whole pool, still corners included."""
        dead = self.nature.dead_share
        return self.water.free * (1 - dead) + self.water.dead * dead
