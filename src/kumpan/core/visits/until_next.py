"""What a weekly stop will find next time, and what holds the pool until then.

A pool that loses 1 to 4 ppm a day needs 7 to 28 a week: one liquid dose cannot hold it between two visits.
Sources: weekly-stop, chlorine-model, tablet-release, cell-rates, rescue-plan.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, tzinfo
from math import ceil

from kumpan.core.dosing.feeding import cell_note, tablet_note
from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.dosing.rounding import round_dose
from kumpan.core.findings import Finding
from kumpan.core.forecast.conditions import Place, Pulse
from kumpan.core.forecast.fit import Fit
from kumpan.core.forecast.forecast import first_under, forecast
from kumpan.core.journal import PoolState, needs_rescue
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Ahead, Number

SOURCES_USED = ("weekly-stop", "chlorine-model", "tablet-release", "cell-rates", "rescue-plan")

# Origin: handbook 07, opaque or swamp: twice a day at first, then at least daily.
RESCUE_DAILY = Finding(
    "rescue_daily",
    Message(
        "No weekly amount holds it: a rescue is dosed and tested twice a day at first, then daily, until it "
        "is over."
    ),
    Measure.FREE_CHLORINE,
)
SLOW = "trichlor"
SECONDS_A_DAY = 86_400


@dataclass(frozen=True, kw_only=True)
class Between:
    """What the answer depends on: the pool, the next visit, the level that today's sheet leaves, the minimum.

    `dose_mg_l` is the chlorine that today's sheet adds; `loss_mg_l_day` what the pool uses a day;
    `limit_mg_l` is the swim limit.
    """

    state: PoolState
    place: Place
    traits: Traits
    fitted: Fit
    now: datetime
    visit_at: datetime
    dose_mg_l: float
    minimum_mg_l: float
    limit_mg_l: float
    loss_mg_l_day: float
    zone: tzinfo
    products: Sequence[Product] = ()
    units: Units = Units.US


@dataclass(frozen=True, kw_only=True)
class UntilNext:
    """Free chlorine (mg/L, low to high the 90 percent band) at the next visit, and what to do about it."""

    visit_at: datetime
    low: float
    likely: float
    high: float
    under_at: datetime | None
    sentences: tuple[Finding, ...]

    @property
    def holds(self) -> bool:
        """Chlorine stays in its range until the next visit."""
        return self.under_at is None


def until_next(request: Between) -> UntilNext:
    """The forecast to the next visit with today's dose in it; where it does not hold, what would."""
    now_s = request.now.timestamp()
    planned = [Pulse(now_s, request.dose_mg_l)] if request.dose_mg_l > 0 else []
    until = max(request.visit_at.timestamp(), request.fitted.last_at_s) + SECONDS_A_DAY
    ahead = forecast(request.state, request.place, fitted=request.fitted, until_s=until, planned=planned)
    low, likely, high = ahead.at(request.visit_at.timestamp())
    under = first_under(ahead, request.minimum_mg_l, now_s + 3600)
    if under is not None and under >= request.visit_at:
        under = None
    said = (_found_then(request, low, likely, high), *(_remedies(request, under) if under else ()))
    return UntilNext(
        visit_at=request.visit_at, low=low, likely=likely, high=high, under_at=under, sentences=said
    )


def _found_then(request: Between, low: float, likely: float, high: float) -> Finding:
    when = Ahead(request.visit_at.astimezone(request.zone), request.now.astimezone(request.zone))
    text = Message(
        "Next visit {when}: free chlorine about {likely} ({low} to {high}), nothing added between.",
        when=when,
        likely=Number(likely, digits=1),
        low=Number(low, digits=1),
        high=Number(high, digits=1),
    )
    return Finding("at_next_visit", text, Measure.FREE_CHLORINE, {"low": low, "likely": likely, "high": high})


def _remedies(request: Between, under: datetime) -> tuple[Finding, ...]:
    """By how the pool is chlorinated: tablets, the cell's setting, a feeder; and the owner between the
    visits.
    """
    when = Ahead(under.astimezone(request.zone), request.now.astimezone(request.zone))
    said = Finding(
        "will_not_hold",
        Message("It will not hold: under {minimum} {when}.", minimum=Number(request.minimum_mg_l), when=when),
        Measure.FREE_CHLORINE,
        {"minimum": request.minimum_mg_l},
    )
    if needs_rescue(request.state):
        return (said, RESCUE_DAILY)
    found = [said]
    kind, volume_l = request.traits.chlorination, request.place.volume_l
    cell = request.state.cell_settings[-1].body if request.state.cell_settings else None
    if kind is Chlorination.SALT_CELL and cell is not None and cell.output_g_per_h > 0:
        found.append(
            cell_note(request.loss_mg_l_day, volume_l, cell.output_g_per_h, max(1.0, cell.hours_per_day))
        )
    elif not request.traits.indoor:
        found.append(tablet_note(request.loss_mg_l_day, volume_l))
    return (*found, *_owner_between(request, under))


def _owner_between(request: Between, under: datetime) -> tuple[Finding, ...]:
    """What the owner pours on the day it would run under: enough for the days left, never over the swim
    limit.
    """
    quick = [p for p in request.products if p.chemical in CHLORINE_CARRIERS and p.chemical != SLOW]
    if not quick:
        return ()
    days = max(0.0, (request.visit_at - under).total_seconds() / SECONDS_A_DAY)
    room = max(0.0, request.limit_mg_l - request.minimum_mg_l)
    raise_by = min(room, days * request.loss_mg_l_day)
    if raise_by <= 0:
        return ()
    times = ceil(days * request.loss_mg_l_day / raise_by - 1e-9)
    if times > days + 1:
        text = Message("No dose by hand that keeps under the swim limit holds it between the visits.")
        return (Finding("no_hand_dose", text, Measure.FREE_CHLORINE, {"times": times}),)
    product = next((p for p in quick if p.chemical == "sodium_hypochlorite"), quick[0])
    mass = mass_for_change_g(product, Measure.FREE_CHLORINE, raise_by, request.place.volume_l)
    amount = round_dose(product, mass, units=request.units).text
    often = (
        Message("once,")
        if times == 1
        else Message("{times} times, a day or more apart, first", times=Number(times))
    )
    what = Verbatim(product.row.name.lower())
    text = Message(
        "Or the owner pours {amount} of {what} {often} {day_text}.",
        amount=amount,
        what=what,
        often=often,
        day_text=Ahead(under.astimezone(request.zone), request.now.astimezone(request.zone)),
    )
    return (Finding("owner_between", text, Measure.FREE_CHLORINE, {"raise_mg_l": raise_by, "times": times}),)
