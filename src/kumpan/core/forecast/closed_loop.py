"""Predicted against measured: what a dose should have done, what the next test showed, and what follows.

One test proves little. Only several doses that agree, or one large one, move the belief in the volume;
and then it is offered, never done. Sources: mass-balance, salt-bump.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise

from kumpan.core.dosing.mass_balance import change_per_g, changes
from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.conditions import additions, chlorine_of, product_of
from kumpan.core.forecast.slow import LINED, UNCERTAINTY_IN_SD, Surroundings, usual_slope
from kumpan.core.journal import AdditionMade, PoolState, Reading, TreatmentStarted, history
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure

SOURCES_USED = ("mass-balance", "salt-bump")

LONGEST_DAYS = 10.0
CHLORINE_HOURS = 6.0
LOST_IN_BETWEEN = 0.05  # of a dose, in those hours
STRENGTH_LEAST_SHARE = 0.08
NEEDED_DOSES = 3
SURE_BY_ITSELF = 0.06  # one dose tells when its own error is smaller, as a share
LEAST_SHARE = 0.04  # smaller corrections are noise
CHECKED: tuple[Measure, ...] = (Measure.PH, *LINED)
CHECK_WITHIN_DAYS = 4.0


@dataclass(frozen=True, kw_only=True)
class Response:
    """A dose between two tests: the change by computation and by test, mg/L, and the sd of the latter."""

    measure: Measure
    at: datetime
    computed: float
    measured: float
    sd: float

    @property
    def share(self) -> float:
        """Measured over computed; its standard deviation is `sd / computed`."""
        return self.measured / self.computed


@dataclass(frozen=True)
class VolumeHint:
    """The doses speak for another volume: liters with one standard deviation, and how many doses say so."""

    volume_l: float
    sd_l: float
    share: float
    doses: int


@dataclass(frozen=True, kw_only=True)
class Checked:
    """A sheet's prediction against the first test after it."""

    measure: Measure
    at: datetime
    predicted: float
    measured: float
    uncertainty: float

    @property
    def differs(self) -> bool:
        """The test lies outside what the model expected with its uncertainty."""
        return abs(self.measured - self.predicted) > self.uncertainty


def responses(state: PoolState, around: Surroundings) -> list[Response]:
    """Every dose with a test of its measure before and after it."""
    return [found for measure in LINED for found in _of_measure(state, measure, around)]


def _of_measure(state: PoolState, measure: Measure, around: Surroundings) -> Iterator[Response]:
    past = history(state, measure)
    drift = usual_slope(measure, around)
    for one, other in pairwise(past):
        days = (other.at - one.at).total_seconds() / 86_400
        computed = sum(
            changes(product_of(body), body.mass_g, around.volume_l).get(measure, 0.0)
            for entry, body in additions(state)
            if one.at <= entry.at < other.at
        )
        changed = any(one.at <= entry.at < other.at for entry in state.water_changes)
        sd = (_sd(one) ** 2 + _sd(other) ** 2) ** 0.5
        if days <= LONGEST_DAYS and not changed and abs(computed) > sd:
            yield Response(
                measure=measure,
                at=other.at,
                computed=computed,
                measured=_middle(other) - _middle(one) - drift * days,
                sd=sd,
            )


def _middle(reading: Reading) -> float:
    return (reading.value.low + reading.value.high) / 2


def _sd(reading: Reading) -> float:
    return max((reading.value.high - reading.value.low) / 2 / UNCERTAINTY_IN_SD, 0.02 * reading.value.value)


def volume_hint(found: list[Response], volume_l: float) -> VolumeHint | None:
    """Another volume that the doses agree on; None while they are few, or agree with the one in use."""
    if not found:
        return None
    share, sd = _mean_share(found)
    enough = len(found) >= NEEDED_DOSES or sd < SURE_BY_ITSELF
    if not enough or share <= 0.2 or abs(share - 1) < max(2 * sd, LEAST_SHARE):
        return None
    return VolumeHint(volume_l / share, volume_l / share**2 * sd, share, len(found))


def _mean_share(found: list[Response]) -> tuple[float, float]:
    """The doses' measured share of what was computed, weighted by how well each tells; and its error."""
    weights = [(one.computed / one.sd) ** 2 for one in found]
    total = sum(weights)
    rows = list(zip(weights, found, strict=True))
    share = sum(weight * one.share for weight, one in rows) / total
    spread = sum(weight * (one.share - share) ** 2 for weight, one in rows) / max(len(found) - 1, 1)
    return share, float(total**-0.5 * max(1.0, spread) ** 0.5)


@dataclass(frozen=True, kw_only=True)
class StrengthHint:
    """The doses of one chlorine product speak for another strength than its label's."""

    label: str
    strength_percent: float
    sd_percent: float
    share: float
    doses: int


def strength_hint(state: PoolState, around: Surroundings) -> StrengthHint | None:
    """Another strength of the chlorine poured last; None while few doses were tested soon before and after.

    Only doses with a test of free chlorine at most some hours before and after count: in so short a
    time little is lost. A wrong volume would show in the other measures first.
    """
    poured = [body for _, body in additions(state) if body.chemical in CHLORINE_CARRIERS]
    if not poured:
        return None
    last = poured[-1]
    found = list(_chlorine_responses(state, around, last))
    if len(found) < NEEDED_DOSES:
        return None
    share, sd = _mean_share(found)
    if share <= 0.2 or abs(share - 1) < max(2 * sd, STRENGTH_LEAST_SHARE):
        return None
    percent = last.strength_percent
    return StrengthHint(
        label=last.label,
        strength_percent=percent * share,
        sd_percent=percent * sd,
        share=share,
        doses=len(found),
    )


def _chlorine_responses(state: PoolState, around: Surroundings, product: AdditionMade) -> Iterator[Response]:
    """Doses of this product by itself between two tests of free chlorine close together."""
    for one, other in pairwise(history(state, Measure.FREE_CHLORINE)):
        between = [body for entry, body in additions(state) if one.at <= entry.at < other.at]
        alike = all(
            (body.chemical, body.strength_percent) == (product.chemical, product.strength_percent)
            for body in between
        )
        hours = (other.at - one.at).total_seconds() / 3600
        if not between or not alike or hours > CHLORINE_HOURS:
            continue
        computed = sum(chlorine_of(body, around.volume_l) for body in between)
        sd = (_sd(one) ** 2 + _sd(other) ** 2 + (LOST_IN_BETWEEN * computed) ** 2) ** 0.5
        yield Response(
            measure=Measure.FREE_CHLORINE,
            at=other.at,
            computed=computed,
            measured=_middle(other) - _middle(one),
            sd=sd,
        )


def volume_from_salt(
    product: Product, mass_g: float, before_mg_l: float, after_mg_l: float, sd_mg_l: float
) -> tuple[float, float]:
    """The volume (L) and its standard deviation from a weighed addition of salt and a meter's two readings.

    Raises InvalidInput when the reading did not rise.
    """
    rise = after_mg_l - before_mg_l
    if rise <= 0:
        raise InvalidInput(Message("Salt did not rise; wait a day with the pump on and test again."), "after")
    volume_l = change_per_g(product, Measure.SALT, 1.0) * mass_g / rise
    return volume_l, volume_l * 2**0.5 * sd_mg_l / rise


def last_check(state: PoolState) -> list[Checked]:
    """The last sheet with a test after it: each measure it moved, predicted and measured."""
    for treatment in reversed(state.treatments):
        found = [c for m in CHECKED if (c := _checked(state, treatment.body, treatment.at, m)) is not None]
        if found:
            return found
    return []


def _checked(state: PoolState, treatment: TreatmentStarted, at: datetime, measure: Measure) -> Checked | None:
    before, predicted = treatment.before.value(measure), treatment.predicted.value(measure)
    later = next((r for r in history(state, measure) if r.at > at), None)
    poured = [entry.at for entry, body in additions(state) if entry.at >= at]
    if before is None or predicted is None or later is None or not poured or later.at < poured[0]:
        return None
    days = (later.at - at).total_seconds() / 86_400
    uncertainty = (later.value.high - later.value.low) / 2
    if days > CHECK_WITHIN_DAYS or abs(predicted - before) <= uncertainty:
        return None
    return Checked(
        measure=measure, at=later.at, predicted=predicted, measured=later.value.value, uncertainty=uncertainty
    )
