"""Test kits: which measures, in which order on the slip, and by which method each.

A user's kit starts from one of these; the order is that of the usual box.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Method

M = Measure


@dataclass(frozen=True)
class Kit:
    """A kit: its key, its name, and (measure, method) in the order in which they are read."""

    key: str
    name: str
    order: tuple[tuple[Measure, Method], ...]
    fine_drops: bool = True

    def method_of(self, measure: Measure) -> Method:
        """How this kit measures it."""
        for known, method in self.order:
            if known is measure:
                return method
        return _OUTSIDE_THE_KIT.get(measure, Method.PHOTOMETER)


_OUTSIDE_THE_KIT: dict[Measure, Method] = {
    M.SALT: Method.METER,
    M.TEMPERATURE: Method.THERMOMETER,
    M.TOTAL_CHLORINE: Method.COMPARATOR,
    M.COMBINED_CHLORINE: Method.DROPS,
}

_TAIL: tuple[tuple[Measure, Method], ...] = ((M.SALT, Method.METER), (M.TEMPERATURE, Method.THERMOMETER))

KITS: tuple[Kit, ...] = (
    Kit(
        "drops",
        "Drop kit",
        (
            (M.FREE_CHLORINE, Method.DROPS),
            (M.TOTAL_CHLORINE, Method.DROPS),
            (M.PH, Method.COMPARATOR),
            (M.TOTAL_ALKALINITY, Method.DROPS),
            (M.CALCIUM_HARDNESS, Method.DROPS),
            (M.CYANURIC_ACID, Method.TURBIDITY_TUBE),
            *_TAIL,
        ),
    ),
    Kit(
        "strips",
        "Test strips",
        (
            (M.FREE_CHLORINE, Method.STRIP),
            (M.TOTAL_CHLORINE, Method.STRIP),
            (M.PH, Method.STRIP),
            (M.TOTAL_ALKALINITY, Method.STRIP),
            (M.CALCIUM_HARDNESS, Method.STRIP),
            (M.CYANURIC_ACID, Method.STRIP),
            *_TAIL,
        ),
        fine_drops=False,
    ),
    Kit(
        "photometer",
        "Photometer",
        (
            (M.FREE_CHLORINE, Method.PHOTOMETER),
            (M.TOTAL_CHLORINE, Method.PHOTOMETER),
            (M.PH, Method.PHOTOMETER),
            (M.TOTAL_ALKALINITY, Method.PHOTOMETER),
            (M.CALCIUM_HARDNESS, Method.PHOTOMETER),
            (M.CYANURIC_ACID, Method.PHOTOMETER),
            *_TAIL,
        ),
    ),
    Kit(
        "shop",
        "Shop analysis",
        (
            (M.FREE_CHLORINE, Method.SHOP),
            (M.TOTAL_CHLORINE, Method.SHOP),
            (M.PH, Method.SHOP),
            (M.TOTAL_ALKALINITY, Method.SHOP),
            (M.CALCIUM_HARDNESS, Method.SHOP),
            (M.CYANURIC_ACID, Method.SHOP),
            (M.SALT, Method.SHOP),
            (M.TEMPERATURE, Method.THERMOMETER),
        ),
    ),
)

# No kit in a box: what the chlorinator itself shows. A hand test goes before it (handbook 02, 06).
UNIT = Kit(
    "unit",
    "The chlorinator's own display",
    ((M.SALT, Method.DISPLAY), (M.TEMPERATURE, Method.THERMOMETER)),
    fine_drops=False,
)
SOURCES: tuple[Kit, ...] = (*KITS, UNIT)


def kit_by_key(key: str) -> Kit:
    """The kit, or other source of readings, with this key. Raises KeyError when there is none."""
    return {kit.key: kit for kit in SOURCES}[key]


def in_own_order(kit: Kit, order: Sequence[Measure]) -> Kit:
    """The kit read in the user's own order; a measure outside the box keeps its usual method."""
    if not order:
        return kit
    return replace(kit, order=tuple((measure, kit.method_of(measure)) for measure in order))
