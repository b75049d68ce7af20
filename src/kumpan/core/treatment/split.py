"""Split doses and put them on days: no addition over a limit, no pH out of its window, far ones on days
apart.

Every part is tried on the water as it will be then, its own chlorine used up. Sources: addition-limits,
separation, order.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import ceil

from kumpan.core.chemistry.equilibrium import State, solve_totals
from kumpan.core.chemistry.speciation import Totals
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.order_and_waits import (
    ADDITION_LIMITS,
    DAYS_BETWEEN_SPLITS,
    FIRST_FILL_SALT_MG_L,
    LARGEST_PH_MOVE,
    LONGEST_WAIT_IN_A_DAY_MIN,
    PH_WINDOW,
    order_of,
    separation,
)
from kumpan.core.dosing.solution import Dose
from kumpan.core.quantities.readings import Measure, Readings

SOURCES_USED = ("addition-limits", "separation", "order")

MOST_DAYS = 120
PART_COUNTS = (1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 30, 40)
URGENT_MAY_MOVE_PH = 0.15  # chlorine under the minimum does not wait for pH that it hardly moves
BARE_ALKALINITY_MG_L = 30.0
BICARBONATE_ENDS_AT_PH = 8.4  # by itself it goes no further than about 8.3
BEFORE_THEM_ALKALINITY = ("hydrochloric_acid", "sodium_bisulfate", "trichlor")
# What is not meant for pH is free of the window where all of it together moves pH less than this; judged by
# its parts, many small ones would creep out.
PH_STILL = 0.01
HARDLY_MOVES_PH = (Measure.SALT, Measure.CALCIUM_HARDNESS, Measure.FREE_CHLORINE, Measure.BORATE)


@dataclass(frozen=True, kw_only=True)
class Part:
    """One addition of a dose that may be split, on its day; `before`, `after` the water where known."""

    dose: Dose
    mass_g: float
    day: int
    before: State | None = None
    after: State | None = None


@dataclass(frozen=True)
class Spread:
    """The parts in order, and the doses that the limits kept from going in whole."""

    parts: tuple[Part, ...]
    held_back: tuple[Dose, ...]


def spread(doses: Sequence[Dose], readings: Readings, volume_l: float, start: State | None) -> Spread:
    """Put every dose on days, in the order of the trade; urgent chlorine keeps the first day."""
    return _Spreader(doses, readings, volume_l, start).run()


class _Spreader:
    def __init__(
        self, doses: Sequence[Dose], readings: Readings, volume_l: float, start: State | None
    ) -> None:
        self._doses = sorted(doses, key=lambda dose: order_of(dose.product.chemical))
        self._left = {dose: dose.mass_g for dose in self._doses}
        self._ready = dict.fromkeys(self._doses, 1)
        self._readings = readings
        self._volume_l = volume_l
        self._state = start
        self._parts: list[Part] = []
        self._stuck_at: dict[Dose, State | None] = {}

    def run(self) -> Spread:
        day = 1
        while self._left and day <= MOST_DAYS:
            placed = [self._place(dose, day) for dose in list(self._left)]
            # What waited for another of the same day goes in after it: never acid today and soda tomorrow.
            placed += [self._place(dose, day) for dose in list(self._left)]
            waiting = [self._ready[dose] for dose in self._left if self._ready[dose] > day]
            if not any(placed) and not waiting and not self._blocked_today(day):
                break
            day += 1
        return Spread(tuple(self._parts), tuple(self._left))

    def _place(self, dose: Dose, day: int) -> bool:
        if self._ready[dose] > day or self._too_close(dose, day):
            return False
        if self._can_wait(dose) or (self._state is not None and self._stuck_at.get(dose) is self._state):
            return False
        count = self._parts_needed(dose)
        if count is None:
            self._stuck_at[dose] = self._state
            return False
        mass = self._left[dose] / count
        before, after = self._state, self._after(dose, mass)
        self._parts.append(Part(dose=dose, mass_g=mass, day=day, before=before, after=after))
        self._state = after
        self._ready[dose] = day + _days_to_next(dose, mass)
        if count == 1:
            del self._left[dose]
        else:
            self._left[dose] -= mass
        return True

    def _can_wait(self, dose: Dose) -> bool:
        """Whether it would push pH further from the middle while another dose is still to pull it back."""
        if self._state is None or dose.urgent or len(self._left) == 1:
            return False
        others = [d for d in self._left if d is not dose]
        if dose.product.chemical in BEFORE_THEM_ALKALINITY and self._bare:
            return any(d.product.chemical == "sodium_bicarbonate" for d in others)
        direction = dose.product.row.effect.spent_alkalinity
        if direction <= 0 or self._bare or not any(map(_lowers_ph, others)):
            return False
        high = float(self._state.species.ph) > sum(PH_WINDOW) / 2
        return high and not self._within_window(dose, self._left[dose] / self._least_parts(dose))

    @property
    def _bare(self) -> bool:
        """So little alkalinity that acid would crash pH: bicarbonate goes in before it."""
        return self._state is not None and float(self._state.total_alkalinity_mg_l) < BARE_ALKALINITY_MG_L

    def _blocked_today(self, day: int) -> bool:
        return any(self._too_close(dose, day) for dose in self._left)

    def _too_close(self, dose: Dose, day: int) -> bool:
        """Whether it must stay hours from what goes in that day; urgent chlorine claims the first day."""
        today = [part.dose for part in self._parts if part.day == day]
        if day == 1:
            today += [other for other in self._left if other.urgent and other is not dose]
        chemical = dose.product.chemical
        return any(
            separation(chemical, d.product.chemical).minutes > LONGEST_WAIT_IN_A_DAY_MIN for d in today
        )

    def _parts_needed(self, dose: Dose) -> int | None:
        """In how many equal parts what is left may go in; None when not even a small part may now."""
        least = self._least_parts(dose)
        for count in (least, *(more for more in PART_COUNTS if more > least)):
            if self._within_window(dose, self._left[dose] / count):
                return count
        return None

    def _least_parts(self, dose: Dose) -> int:
        limit = ADDITION_LIMITS.get(dose.measure) if dose.change > 0 else None
        first_fill = dose.measure is Measure.SALT and (self._readings.salt or 0.0) < FIRST_FILL_SALT_MG_L
        if limit is None or first_fill:
            return 1
        return max(1, ceil(dose.change * self._left[dose] / dose.mass_g / limit - 1e-9))

    def _after(self, dose: Dose, mass_g: float) -> State | None:
        if self._state is None:
            return None
        totals: Totals = added(self._state.totals, dose.product, mass_g, self._volume_l, spent=True)
        return solve_totals(totals, float(self._state.species.ph))

    def _within_window(self, dose: Dose, mass_g: float) -> bool:
        if self._state is None:
            return True
        after = self._after(dose, mass_g)
        assert after is not None
        if self._bare and dose.product.chemical == "sodium_bicarbonate":
            return float(after.species.ph) <= BICARBONATE_ENDS_AT_PH
        before = float(self._state.species.ph)
        if dose.urgent and abs(float(after.species.ph) - before) <= URGENT_MAY_MOVE_PH:
            return True
        allowed = ph_step_allowed(before, float(after.species.ph))
        return allowed or (dose.measure in HARDLY_MOVES_PH and self._stays_still(dose))

    def _stays_still(self, dose: Dose) -> bool:
        """Whether all that is left of a dose hardly moves pH."""
        assert self._state is not None
        whole = self._after(dose, self._left[dose])
        assert whole is not None
        return abs(float(whole.species.ph) - float(self._state.species.ph)) <= PH_STILL


def _lowers_ph(dose: Dose) -> bool:
    return dose.product.row.effect.spent_alkalinity < 0 or dose.measure is Measure.CYANURIC_ACID


def _days_to_next(dose: Dose, mass_g: float) -> int:
    """Days until more of the same may go in: the full limit waits the full time, a small part less."""
    days, limit = DAYS_BETWEEN_SPLITS.get(dose.measure, 1), ADDITION_LIMITS.get(dose.measure)
    if limit is None:
        return days
    return max(1, ceil(days * abs(dose.change) * mass_g / dose.mass_g / limit - 1e-9))


def ph_step_allowed(before: float, after: float) -> bool:
    """A step may move pH by at most 0.4, and must leave it within 7.0 to 8.0 or nearer to that."""
    low, high = PH_WINDOW
    if abs(after - before) > LARGEST_PH_MOVE + 1e-9:
        return False
    outside = max(low - after, after - high, 0.0)
    outside_before = max(low - before, before - high, 0.0)
    return outside <= 1e-9 or outside < outside_before


def masses(parts: Sequence[Part]) -> Mapping[Dose, float]:
    """What of each dose goes in, in all."""
    total: dict[Dose, float] = {}
    for part in parts:
        total[part.dose] = total.get(part.dose, 0.0) + part.mass_g
    return total
