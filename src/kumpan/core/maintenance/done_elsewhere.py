"""Care that was done in the course of something else: a rescue's backwash, an opening's cleaning.

Source: care-intervals.
"""

from collections.abc import Iterator, Mapping
from datetime import datetime

from kumpan.core.journal import Outcome, PoolState

SOURCE = "care-intervals"

# What an item of an opening or a closing list is as care.
LIST_ITEMS: Mapping[str, tuple[str, ...]] = {
    "safety": ("equipment",),
    "filter": ("cartridge_hose",),
    "filter_sand": ("backwash",),
    "filter_de": ("de_recharge", "de_clean"),
    "filter_cartridge": ("cartridge_hose", "cartridge_soak"),
    "clean": ("skim", "brush", "vacuum", "waterline", "baskets"),
    "level": ("level",),
    "cell": ("cell",),
}


def done_elsewhere(state: PoolState) -> Iterator[tuple[str, datetime]]:
    """Each task of the care that a ticked step or item of a list was, and when."""
    steps = {sheet.id: sheet.body.steps for sheet in state.treatments}
    for entry in state.steps_done:
        of_sheet = steps.get(entry.body.treatment_id, ())
        if entry.body.outcome is Outcome.DONE and entry.body.step_number < len(of_sheet):
            for task in of_sheet[entry.body.step_number].care:
                yield task, entry.at
    for item in state.list_items_done:
        if item.body.outcome is Outcome.DONE:
            for task in LIST_ITEMS.get(item.body.item, ()):
                yield task, item.at
