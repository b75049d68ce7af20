"""Range sets that practitioners follow: low, high and aim of each measure, by school and pool.

Figures are data; `bands` only picks the rows that fit the pool. A measure without a band is not
managed: shown, never dosed. Sources: the school-* keys, swim-limit.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.quantities.readings import Measure

SOURCES_USED = (
    "school-household",
    "school-service",
    "school-small-vinyl",
    "school-residential-standard",
    "school-public-code",
    "swim-limit",
)


class ProfileKey(StrEnum):
    """The profiles of ranges to choose from."""

    HOUSEHOLD = "household"
    SERVICE = "service"
    SMALL_VINYL = "small_vinyl"
    RESIDENTIAL_STANDARD = "residential_standard"
    PUBLIC_CODE = "public_code"


@dataclass(frozen=True)
class Band:
    """`low` to `high` is in range, `aim` is where a dose goes; None means no such side.

    `dose_low`: whether a reading under `low` is dosed at all.
    """

    low: float | None
    high: float | None
    aim: float | None
    dose_low: bool = True


@dataclass(frozen=True)
class Profile:
    """One school's rows, each for the kind of pool that its name says."""

    key: ProfileKey
    name: Message
    source: str
    swim_limit_mg_l: float
    free_chlorine: Band
    free_chlorine_unstabilized: Band
    combined_high_mg_l: float
    ph: Band
    alkalinity: Band
    alkalinity_salt_cell: Band
    calcium_cement: Band
    calcium_cement_salt_cell: Band
    calcium_soft_shell: Band | None
    stabilizer: Band
    stabilizer_salt_cell: Band


_PH = Band(7.2, 7.8, 7.5)
_SOFT = Band(100, 400, None, dose_low=False)
SALT_WINDOW = Band(2700, 3400, 3200)  # without the unit's manual
INDOOR_STABILIZER = Band(None, 0, None, dose_low=False)
SATURATION_BAND = Band(-0.3, 0.3, 0.0)
# From this stabilizer on (mg/L) a fixed range of 2 to 3 binds its own chlorine: 20 to 1 cannot hold [D].
MUCH_STABILIZER_MG_L = 60.0
WITH_MUCH_STABILIZER = Band(3, 4, 3.5)
# A salt cell on cement: at 250 and pH 7.5 the index of its low alkalinity is about -0.4 [D].
CALCIUM_AIM_SALT_CELL_CEMENT, PH_AIM_SALT_CELL_CEMENT = 300.0, 7.6
# What no school has a band for. Origin: handbook 07 (copper stains over 0.3 ppm), 03 (phosphate), 09 (iron).
STAINS_AND_FEED: Mapping[Measure, Band] = {
    Measure.COPPER: Band(None, 0.3, None, dose_low=False),
    Measure.IRON: Band(None, 0.3, None, dose_low=False),
    Measure.PHOSPHATE: Band(None, 100.0, None, dose_low=False),
}

_ROWS = (
    Profile(
        ProfileKey.HOUSEHOLD, Message("Household"), "school-household", 4.0,
        Band(2, 3, 2.5), Band(1, 3, 2), 0.5, _PH,
        Band(80, 120, 100), Band(60, 80, 70),
        Band(200, 400, 260), Band(200, 400, 250), _SOFT,
        Band(30, 50, 40), Band(60, 80, 70),
    ),
    Profile(
        ProfileKey.SERVICE, Message("Service round"), "school-service", 4.0,
        Band(2, 3, 2.5), Band(2, 3, 2.5), 0.5, Band(7.4, 7.8, 7.5),
        Band(80, 120, 90), Band(60, 80, 70),
        Band(220, 350, 260), Band(220, 350, 260), _SOFT,
        Band(30, 70, 45), Band(60, 80, 70),
    ),
    Profile(
        ProfileKey.SMALL_VINYL, Message("Small vinyl or soft-sided"), "school-small-vinyl", 4.0,
        Band(1, 3, 2), Band(1, 3, 2), 0.5, _PH,
        Band(100, 150, 120), Band(100, 150, 120),
        Band(200, 400, 260), Band(200, 400, 260), None,
        Band(30, 50, 40), Band(30, 50, 40),
    ),
    Profile(
        ProfileKey.RESIDENTIAL_STANDARD, Message("Residential standard"), "school-residential-standard", 4.0,
        Band(2, 4, 3), Band(2, 4, 3), 0.2, _PH,
        Band(60, 180, 100), Band(60, 180, 80),
        Band(150, 1000, 250), Band(150, 1000, 250), Band(150, 1000, 200),
        Band(30, 50, 40), Band(30, 50, 40),
    ),
    Profile(
        ProfileKey.PUBLIC_CODE, Message("Public code"), "school-public-code", 10.0,
        Band(2, 5, 3), Band(1, 5, 2), 0.4, _PH,
        Band(60, 180, 100), Band(60, 180, 100),
        Band(150, 1000, 250), Band(150, 1000, 250), Band(150, 1000, 200),
        Band(0, 90, None, dose_low=False), Band(0, 90, None, dose_low=False),
    ),
)  # fmt: skip
PROFILES: Mapping[ProfileKey, Profile] = {row.key: row for row in _ROWS}


def profile(key: str) -> Profile:
    """The school with this key. Raises InvalidInput that lists the known ones."""
    try:
        return PROFILES[ProfileKey(key)]
    except ValueError:
        known = ", ".join(ProfileKey)
        raise InvalidInput(
            Message(
                '"{key}" is not a known school; use one of: {known}.',
                key=Verbatim(key),
                known=Verbatim(known),
            ),
            "school",
        ) from None


def bands(rows: Profile, traits: Traits, stabilizer_mg_l: float | None) -> dict[Measure, Band]:
    """The bands for one pool. Stabilizer not known counts as present outdoors: the higher minimum."""
    salt_cell = traits.chlorination is Chlorination.SALT_CELL
    unstabilized = stabilizer_mg_l == 0 if stabilizer_mg_l is not None else traits.indoor
    chlorine = rows.free_chlorine_unstabilized if unstabilized else rows.free_chlorine
    found = {
        Measure.FREE_CHLORINE: _with_stabilizer(chlorine, stabilizer_mg_l),
        Measure.COMBINED_CHLORINE: Band(None, rows.combined_high_mg_l, None, dose_low=False),
        Measure.PH: rows.ph,
        Measure.TOTAL_ALKALINITY: rows.alkalinity_salt_cell if salt_cell else rows.alkalinity,
        Measure.CYANURIC_ACID: _stabilizer(rows, traits, salt_cell=salt_cell),
    }
    if traits.surface.is_cement:
        found[Measure.CALCIUM_HARDNESS] = rows.calcium_cement_salt_cell if salt_cell else rows.calcium_cement
    elif rows.calcium_soft_shell is not None:
        found[Measure.CALCIUM_HARDNESS] = rows.calcium_soft_shell
    found[Measure.SATURATION_INDEX] = SATURATION_BAND
    if salt_cell:
        found[Measure.SALT] = SALT_WINDOW
    if salt_cell and traits.surface.is_cement:
        found[Measure.CALCIUM_HARDNESS] = replace(
            found[Measure.CALCIUM_HARDNESS], aim=CALCIUM_AIM_SALT_CELL_CEMENT
        )
        found[Measure.PH] = replace(found[Measure.PH], aim=PH_AIM_SALT_CELL_CEMENT)
    return found


def _with_stabilizer(chlorine: Band, stabilizer_mg_l: float | None) -> Band:
    """The fixed range where stabilizer stands high: never under the band that 20 to 1 asks for."""
    if stabilizer_mg_l is None or stabilizer_mg_l < MUCH_STABILIZER_MG_L:
        return chlorine
    least = WITH_MUCH_STABILIZER
    assert least.low is not None
    assert least.high is not None
    assert least.aim is not None
    return Band(
        max(least.low, chlorine.low or 0.0),
        max(least.high, chlorine.high or 0.0),
        max(least.aim, chlorine.aim or 0.0),
    )


def _stabilizer(rows: Profile, traits: Traits, *, salt_cell: bool) -> Band:
    if traits.indoor:
        return INDOOR_STABILIZER
    return rows.stabilizer_salt_cell if salt_cell else rows.stabilizer
