"""What the use-up of free chlorine does to the rest: each mole leaves one of acid and one of chloride.

HOCl -> H+ + Cl- + (what it oxidized), by sun or by organics alike. So hypochlorite, which brings one
of alkalinity, is neutral over its life, and stabilized chlorine is acid. Source: mass-balance.
"""

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message

SOURCE = "mass-balance"


def used_up(totals: Totals, free_chlorine_mg_l: float) -> Totals:
    """The water once so much of its free chlorine (mg/L as Cl2, at most all of it) is spent.

    Raises InvalidInput for a negative amount.
    """
    if free_chlorine_mg_l < 0:
        raise InvalidInput(
            Message("Chlorine used up cannot be negative; give 0 or more."), "free_chlorine_mg_l"
        )
    moles = min(free_chlorine_mg_l / (molar.CHLORINE * 1000.0), totals.chlorine)
    return totals._replace(
        chlorine=totals.chlorine - moles,
        alkalinity=totals.alkalinity - moles,
        chloride=totals.chloride + moles,
    )
