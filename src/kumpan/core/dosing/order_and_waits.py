"""The order of additions, the time between two, and the time before a retest.

Separation gates the next addition; mixing gates only the retest of that measure.
Sources: order, separation, mixing, addition-limits.
"""

from dataclasses import dataclass

from kumpan.core.messages import NOTHING, Message
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure

SOURCES_USED = ("order", "separation", "mixing", "addition-limits")

# Additions are poured in this order; what is not named comes last.
ORDER: tuple[str, ...] = (
    "sodium_bicarbonate",
    "sodium_carbonate",
    "borax",
    "boric_acid",
    "sodium_hydroxide",
    "hydrochloric_acid",
    "sodium_bisulfate",
    "calcium_chloride",
    "cyanuric_acid",
    "sodium_chloride",
    "sodium_hypochlorite",
    "calcium_hypochlorite",
    "sodium_dichlor",
    "trichlor",
    "potassium_monopersulfate",
    "sodium_thiosulfate",
)

ACIDS = ("hydrochloric_acid", "sodium_bisulfate")
STABILIZERS = ("cyanuric_acid",)
CALCIUM = ("calcium_chloride", "calcium_hypochlorite")
OXIDIZERS = ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor", "potassium_monopersulfate")
CARBONATES = ("sodium_bicarbonate", "sodium_carbonate")


@dataclass(frozen=True)
class Separation:
    """Minutes that two groups of chemicals keep apart, and why, for the step."""

    one: tuple[str, ...]
    other: tuple[str, ...]
    minutes: int
    why: Message


SEPARATIONS: tuple[Separation, ...] = (
    Separation(CALCIUM, CARBONATES, 240, Message("calcium and alkalinity together cloud the water")),
    Separation(
        ACIDS + STABILIZERS, CHLORINE_CARRIERS, 60, Message("acid or stabilizer on chlorine sets gas free")
    ),
    # Handbook 12: a quat and a shock never on one day; weeks between a phosphonate and what reads phosphate.
    Separation(
        ("algaecide_quat",),
        OXIDIZERS,
        1440,
        Message("chlorine and other oxidizers destroy it on the same day"),
    ),
    Separation(
        ("sequestrant",),
        ("phosphate_remover",),
        28 * 1440,
        Message("a sequestrant of the phosphonate kind reads as phosphate for weeks"),
    ),
    Separation(
        ("sequestrant",), OXIDIZERS, 1440, Message("oxidizers destroy it before it has caught the metal")
    ),
)
ANY_TWO_MINUTES = 30
ANY_TWO_WHY = Message("the first must mix before the next goes in")


@dataclass(frozen=True)
class Mixing:
    """Minutes with the pump on before the measure is tested again, and what is said meanwhile."""

    minutes: int
    say: Message


MIXING: dict[Measure, Mixing] = {
    Measure.TOTAL_ALKALINITY: Mixing(60, Message("pump on")),
    Measure.PH: Mixing(60, Message("pump on")),
    Measure.FREE_CHLORINE: Mixing(60, Message("pump on")),
    Measure.CALCIUM_HARDNESS: Mixing(240, Message("pump on; test again next week, it is hard to undo")),
    Measure.CYANURIC_ACID: Mixing(
        10080, Message("it dissolves in a day or two and reads after up to a week; no backwash for two days")
    ),
    Measure.SALT: Mixing(1440, Message("pump on, cell off until dissolved")),
    Measure.BORATE: Mixing(1440, Message("pump on")),
}

# The most that one addition may move its measure, mg/L.
ADDITION_LIMITS: dict[Measure, float] = {
    Measure.TOTAL_ALKALINITY: 40,
    Measure.CALCIUM_HARDNESS: 50,
    Measure.CYANURIC_ACID: 30,
    Measure.SALT: 1000,
}
# pH after every step, reckoned with its chlorine used up; and the most that one addition may move it.
PH_WINDOW = (7.0, 8.0)
LARGEST_PH_MOVE = 0.4
# Days between two additions of one measure: the retest between them must be able to see the first.
DAYS_BETWEEN_SPLITS: dict[Measure, int] = {
    Measure.TOTAL_ALKALINITY: 1,
    Measure.PH: 1,
    Measure.CALCIUM_HARDNESS: 1,
    Measure.CYANURIC_ACID: 7,
    Measure.SALT: 1,
}
# Two additions that must stay further apart than this are put on different days.
LONGEST_WAIT_IN_A_DAY_MIN = 120
# A first fill may go from nothing to the window in one day.
FIRST_FILL_SALT_MG_L = 500.0


# What a product is poured for, so that it keeps that measure's limits and mixing time.
POURED_FOR: dict[str, Measure] = {
    **dict.fromkeys(
        ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor", "trichlor"), Measure.FREE_CHLORINE
    ),
    **dict.fromkeys(("hydrochloric_acid", "sodium_bisulfate", "sodium_carbonate", "borax"), Measure.PH),
    "sodium_bicarbonate": Measure.TOTAL_ALKALINITY,
    "calcium_chloride": Measure.CALCIUM_HARDNESS,
    "cyanuric_acid": Measure.CYANURIC_ACID,
    "sodium_chloride": Measure.SALT,
    "boric_acid": Measure.BORATE,
    "sodium_thiosulfate": Measure.FREE_CHLORINE,
    "algaecide_copper": Measure.COPPER,
}


def separation(first: str, second: str) -> Separation:
    """What keeps two additions apart; two of the same chemical need no separation."""
    if first == second:
        return Separation((first,), (second,), 0, NOTHING)
    for row in SEPARATIONS:
        if (first in row.one and second in row.other) or (first in row.other and second in row.one):
            return row
    return Separation((first,), (second,), ANY_TWO_MINUTES, ANY_TWO_WHY)


def order_of(chemical: str) -> int:
    """The place of a chemical in the order of pouring; the last for what the table does not name."""
    return ORDER.index(chemical) if chemical in ORDER else len(ORDER)
