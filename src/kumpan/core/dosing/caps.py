"""The highest free chlorine that any plan goes to, whoever asks for it; a label may say less.

Source: shock.
"""

from kumpan.core.pool.equipment import Surface, Traits

SOURCE = "shock"

HIGHEST_MG_L = 30.0
HIGHEST_GENTLE_MG_L = 15.0  # vinyl and indoor pools


def highest_planned_mg_l(traits: Traits) -> float:
    """The most free chlorine that any plan goes to in this pool; a label may say less."""
    gentle = traits.surface is Surface.VINYL or traits.indoor
    return HIGHEST_GENTLE_MG_L if gentle else HIGHEST_MG_L
