"""What is done at a pool by the calendar, how often by whom, and what early or late costs.

A row reads like the handbook's. Days between two times; None means not by the calendar there.
Sources: care-intervals, filter-care, cell-care, cleaning-routine, routine-shock.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits

SOURCES_USED = ("care-intervals", "filter-care", "cell-care", "cleaning-routine", "routine-shock")


class Preset(StrEnum):
    """Whose intervals a pool is kept by."""

    OWNER = "owner"
    SERVICE = "service"
    SMALL = "small"


@dataclass(frozen=True)
class CareTask:
    """One task. `filters`, `chlorinations` empty means every pool; `all_year` is due outside the season too.

    `early`, `late` say what doing it too early or too late costs.
    """

    key: str
    title: Message
    owner: float | None
    service: float | None
    small: float | None
    early: Message
    late: Message
    procedure: str | None = None
    filters: tuple[Filter, ...] = ()
    chlorinations: tuple[Chlorination, ...] = ()
    outdoor_only: bool = False
    all_year: bool = False

    def days(self, preset: Preset) -> float | None:
        """The preset's interval."""
        return {Preset.OWNER: self.owner, Preset.SERVICE: self.service, Preset.SMALL: self.small}[preset]

    def fits(self, traits: Traits) -> bool:
        """Whether a pool of these traits has it at all."""
        return (
            (not self.filters or traits.filter in self.filters)
            and (not self.chlorinations or traits.chlorination in self.chlorinations)
            and not (self.outdoor_only and traits.indoor)
        )


SAND, CARTRIDGE, DE = (Filter.SAND,), (Filter.CARTRIDGE,), (Filter.DE,)
CELL, MINERAL = (Chlorination.SALT_CELL,), (Chlorination.MINERAL,)
NOT_MINERAL = tuple(kind for kind in Chlorination if kind is not Chlorination.MINERAL)
YEAR = 365.0
_DIRT = Message("Dirt feeds algae and uses up chlorine.")
_NOTHING = Message("Nothing but the time.")

_ROWS: tuple[CareTask, ...] = (
    # Cleaning: a week's routine of about an hour.
    CareTask("skim", Message("Skim the surface"), 2, 7, 1, _NOTHING, Message("Leaves sink, stain and feed algae."), "clean", outdoor_only=True),
    CareTask("baskets", Message("Empty skimmer and pump baskets"), 7, 7, 7, _NOTHING, Message("A full basket starves the pump."), "baskets"),
    CareTask("brush", Message("Brush walls, steps and floor"), 3.5, 7, 2, _NOTHING, Message("Algae take hold where no brush comes."), "clean"),
    CareTask("vacuum", Message("Vacuum"), 7, 7, 7, Message("Needless strokes wear a liner."), _DIRT, "vacuum"),
    CareTask("waterline", Message("Clean the waterline"), 7, 7, 7, _NOTHING, Message("Grease and scale harden on the tile."), "tile"),
    CareTask("rinse_metal", Message("Rinse coping, stone and metal"), 7, 7, 7, _NOTHING, Message("Salt splash corrodes metal and soft stone."), "tile", chlorinations=CELL),
    CareTask("level", Message("Look at the water level"), 7, 7, 7, _NOTHING, Message("Too low draws air into the pump, too high stops skimming."), "level"),
    CareTask("equipment", Message("Look round the equipment"), 7, 7, 7, _NOTHING, Message("A leak or a noise gets dear."), "equipment", all_year=True),
    CareTask("shock", Message("Routine shock"), 14, 14, 14, Message("Chlorine wasted, swimming stopped for a day."), Message("Chloramines and young algae build up."), None, chlorinations=NOT_MINERAL),
    CareTask("returns", Message("Aim the returns, look for dead zones"), 182, 182, 182, _NOTHING, Message("Still corners are where algae begin."), "returns"),
    # Filter: the pressure says it first, the calendar at the latest.
    CareTask("backwash", Message("Backwash the sand filter"), 28, 182, 14, Message("Clean sand filters coarser, and the water is gone."), Message("Flow falls and the sand cakes."), "backwash", SAND),
    CareTask("cartridge_hose", Message("Hose the cartridge"), 28, 182, 7, Message("Each wash wears the cloth a little."), Message("Flow falls, fines pass."), "cartridge_hose", CARTRIDGE),
    CareTask("cartridge_soak", Message("Soak the cartridge"), 182, 182, 30, Message("Each soak wears the cloth."), Message("Grease sets in and will not come out."), "cartridge_soak", CARTRIDGE),
    CareTask("cartridge_new", Message("Replace the cartridge"), None, None, YEAR, Message("Money."), Message("A worn cloth lets dirt through."), "cartridge_new", CARTRIDGE),
    CareTask("de_recharge", Message("Backwash and recharge the DE filter"), 182, 182, 182, Message("Powder and water gone."), Message("Flow falls, grids tear."), "de_recharge", DE),
    CareTask("de_clean", Message("Take the DE grids out and clean them"), 182, 182, 182, Message("An hour."), Message("Cake that a backwash leaves behind bridges the grids."), "de_clean", DE),
    CareTask("sand_new", Message("Replace the filter sand"), 5 * YEAR, 5 * YEAR, 5 * YEAR, Message("A heavy day for sand that still works."), Message("Channels and rounded grains let dirt through."), "sand_change", SAND, all_year=True),
    # Cell.
    CareTask("cell", Message("Inspect the chlorinator cell"), 21, 7, 21, Message("Needless opening; a wash wears the coating."), Message("Scale cuts the output and shortens the cell's life."), "cell", chlorinations=CELL),
    # Mineral program: its weekly oxidizer is the shock of such a pool.
    CareTask("oxidizer", Message("The program's weekly oxidizer"), 7, 7, 7, Message("Chlorine over the swim limit for a day."), Message("The ions alone are no sanitizer."), None, chlorinations=MINERAL),
    CareTask("enzymes", Message("Enzymes by their label"), 15, 15, 15, Message("Money."), Message("Grease builds a ring."), None, chlorinations=MINERAL),
)  # fmt: skip
TASKS: Mapping[str, CareTask] = MappingProxyType({row.key: row for row in _ROWS})

# The cell's interval by who says so, days; the default goes by the kind of cell.
CELL_DAYS_PLAIN = 14.0
CELL_DAYS_SELF_CLEANING = 21.0
CELL_DAYS_HOUSEHOLD_GUIDE = 91.0
CELL_DAYS_SERVICE = 7.0
# Weekly above 80 F or in heavy use, every two weeks below.
SHOCK_DAYS_WARM = 7.0
WARM_C = (80 - 32) / 1.8


def preset_for(profile: str, traits: Traits, volume_l: float) -> Preset:
    """The preset that fits a pool unless its owner takes another."""
    if profile == "small_vinyl" or (traits.surface is Surface.VINYL and volume_l < 30_000):
        return Preset.SMALL
    return Preset.SERVICE if profile == "service" else Preset.OWNER


def tasks_for(traits: Traits) -> tuple[CareTask, ...]:
    """The tasks that a pool of these traits has."""
    return tuple(task for task in TASKS.values() if task.fits(traits))
