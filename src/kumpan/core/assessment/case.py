"""All that the judge of a pool looks at: journal, rules, the water as it should be by now, the plan."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from kumpan.core.forecast.expected import settled_reading
from kumpan.core.journal import PoolState, Reading
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.pool_rules import MOST_SWIM_LIMIT_MG_L
from kumpan.core.ranges.profiles import Band
from kumpan.core.testing.rhythm import SERVICE_HOLDS_DAYS, TEST_HOLDS_DAYS
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.too_old import CARRIES_FOR

UTC = ZoneInfo("UTC")
ANY_AGE = timedelta(days=365)
LOCAL_MEASURES = (Measure.FREE_CHLORINE, Measure.PH)  # they change within days
NO_BAND = Band(None, None, None)


@dataclass(frozen=True, kw_only=True)
class Case:
    """One pool at one moment.

    `volume_l` is 0 where nobody knows it; amounts are then for each `amounts_for_l`.
    `expected` is the water as it should be now; `expected_mg_l` free chlorine by the forecast's middle, None
    where the reading still stands; `bleached` a zero of chlorine that may
    be a bleached test. `under_limit_at` is when it
    should be down at the swim limit. `care_due` is what the schedule has for today. `lost_overnight` is the
    last night's loss of chlorine (mg/L) where it is not explained, and that of clean water. `crossings` are
    the moments at which the forecast passes an edge, `model_turns` those at which the water of now begins
    or ceases to follow from it. `dark` the sun is down, until `light_changes_at`.
    """

    state: PoolState
    now: datetime
    zone: ZoneInfo = UTC
    volume_l: float = 0.0
    amounts_for_l: float | None = None
    bands: Mapping[Measure, Band] = field(default_factory=dict)
    swim_limit_mg_l: float = 4.0
    least_mg_l: float = 1.0
    indoor: bool = False
    public: bool = False
    service: bool = False
    cell: bool = False
    cement: bool = False
    spa_apart: bool = False
    expected: Readings = field(default_factory=Readings)
    expected_mg_l: float | None = None
    bleached: bool = False
    under_limit_at: datetime | None = None
    crossings: tuple[datetime, ...] = ()
    model_turns: tuple[datetime, ...] = ()
    offered: Plan | None = None
    care_due: tuple[Message, ...] = ()
    lost_overnight: tuple[float, float] | None = None
    winter_closed: bool = False
    dark: bool = False
    light_changes_at: datetime | None = None
    fill: Readings = field(default_factory=Readings)

    @property
    def limit_mg_l(self) -> float:
        """The swim limit, never wider than the hard one."""
        return min(self.swim_limit_mg_l, MOST_SWIM_LIMIT_MG_L)

    @property
    def chlorine(self) -> Band:
        """The band of free chlorine."""
        return self.bands.get(Measure.FREE_CHLORINE, NO_BAND)

    @property
    def combined_high_mg_l(self) -> float:
        """Combined chlorine over which it is treated."""
        return self.bands.get(Measure.COMBINED_CHLORINE, NO_BAND).high or 0.0

    def reading(self, measure: Measure) -> Reading | None:
        """The latest reading that counts: taken when everything before it was mixed."""
        return settled_reading(self.state, measure)

    def current(self, measure: Measure) -> Reading | None:
        """A reading that is not too old to speak for its measure."""
        found = self.reading(measure)
        return found if found is not None and self.now - found.at <= self.holds_for(measure) else None

    def holds_for(self, measure: Measure) -> timedelta:
        """How long a reading of a measure speaks for the water."""
        if measure in (*LOCAL_MEASURES, Measure.COMBINED_CHLORINE, Measure.TOTAL_CHLORINE):
            return timedelta(days=SERVICE_HOLDS_DAYS if self.service else TEST_HOLDS_DAYS)
        return CARRIES_FOR.get(measure, ANY_AGE)

    def speaks_still(self, at: datetime) -> bool:
        """Whether a test or look of then opens the pool: four days, at a public pool the day itself."""
        if self.public:
            return at.astimezone(self.zone).date() == self.now.astimezone(self.zone).date()
        return self.now - at <= timedelta(days=TEST_HOLDS_DAYS)
