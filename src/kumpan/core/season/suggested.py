"""What a new opening or closing begins with: the day by the water's crossing, the rest as this pool stood
last time.

Sources: season-lists, water-climate.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from operator import attrgetter

from kumpan.core.journal import Cover, PoolKind, PoolState, SeasonListSaved, Winter
from kumpan.core.season.climate import Crossing

SOURCES_USED = ("season-lists", "water-climate")

OPENS_BEFORE = timedelta(days=7)  # open before the water gets over 65 F
CLOSING_BEGINS_BEFORE = timedelta(days=5)  # its full test
JUST_PASSED = timedelta(days=300)  # so far off, the day it turned this time lies a few weeks back: do it now
FROST_UNDER_C = 8.0  # a pool whose coldest month is under it freezes in some nights


@dataclass(frozen=True, kw_only=True)
class Suggested:
    """How the form is filled before anybody touches it."""

    opening_day: date
    closing_day: date
    kind: PoolKind
    cover: Cover
    winter: Winter
    skimmer_plate: bool


def suggested(
    state: PoolState, monthly_c: Sequence[float], opening: Crossing, closing: Crossing, today: date
) -> Suggested:
    """Never a day that has begun already; `monthly_c` the water by month, January first."""
    last = _last_saved(state)
    soonest = today + CLOSING_BEGINS_BEFORE
    opens = today if opening.on is None or opening.on - today > JUST_PASSED else opening.on - OPENS_BEFORE
    closes = soonest if closing.on is None or closing.on - today > JUST_PASSED else closing.on
    opens, closes = max(today, opens), max(soonest, closes)
    if last is None:
        winter = Winter.FROST if min(monthly_c) < FROST_UNDER_C else Winter.MILD
        return Suggested(
            opening_day=opens,
            closing_day=closes,
            kind=PoolKind.IN_GROUND,
            cover=Cover.SOLID,
            winter=winter,
            skimmer_plate=False,
        )
    return Suggested(
        opening_day=opens,
        closing_day=closes,
        kind=last.kind,
        cover=last.cover,
        winter=last.winter,
        skimmer_plate=last.skimmer_plate,
    )


def _last_saved(state: PoolState) -> SeasonListSaved | None:
    entries = sorted(state.season_lists, key=attrgetter("at"))
    return next((e.body for e in reversed(entries)), None)
