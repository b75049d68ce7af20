"""Whether a pool is, or has to be, under a rescue: what is usual elsewhere does not hold for such water.

Source: rescue-plan.
"""

from kumpan.core.journal.fold import PoolState

SOURCE = "rescue-plan"


def is_green(state: PoolState) -> bool:
    """The last look found it green, or the drain hidden."""
    visual_check = state.last_visual_check
    return visual_check is not None and visual_check.floor_hidden


def needs_rescue(state: PoolState) -> bool:
    """It goes on, or the last look asks for one."""
    return is_green(state) or state.rescue_goes_on
