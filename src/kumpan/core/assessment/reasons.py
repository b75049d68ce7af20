"""One reason of the swim answer, and what it stands on: the law, the measures, the entries of the journal.

Source: order.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, replace
from uuid import UUID

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import Problem
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure

SOURCE = "order"

M = Measure


@dataclass(frozen=True, kw_only=True)
class _Row:
    """The law that a reason follows, the measures it speaks of, whether it speaks of the last look."""

    law: str
    measures: tuple[Measure, ...] = ()
    of_check: bool = False


# What each reason stands on. Origin: laws of advice, B.
STANDS_ON: Mapping[str, _Row] = {
    "green": _Row(law="B.1", of_check=True),
    "drain_hidden": _Row(law="B.1", of_check=True),
    "cloudy": _Row(law="B.1", of_check=True),
    "hazy": _Row(law="B.1", of_check=True),
    "algae_spots": _Row(law="B.1", of_check=True),
    "look_old": _Row(law="B.1", of_check=True),
    "test_missing": _Row(law="B.2", measures=(M.FREE_CHLORINE, M.PH)),
    "test_old": _Row(law="B.2", measures=(M.FREE_CHLORINE, M.PH)),
    "free_chlorine_low": _Row(law="B.2", measures=(M.FREE_CHLORINE,)),
    "free_chlorine_high": _Row(law="B.3", measures=(M.FREE_CHLORINE,)),
    "free_chlorine_off_scale": _Row(law="B.3", measures=(M.FREE_CHLORINE,)),
    "ph_low": _Row(law="B.3", measures=(M.PH,)),
    "ph_high": _Row(law="B.3", measures=(M.PH,)),
    "ph_unreliable": _Row(law="B.3", measures=(M.PH, M.FREE_CHLORINE)),
    "combined_high": _Row(law="B.3", measures=(M.FREE_CHLORINE, M.TOTAL_CHLORINE, M.COMBINED_CHLORINE)),
    "chlorine_bound": _Row(law="B.3", measures=(M.CYANURIC_ACID, M.FREE_CHLORINE)),
    "poured_since_test": _Row(law="B.4", measures=(M.FREE_CHLORINE, M.PH)),
    "water_changed_since_test": _Row(law="B.4", measures=(M.FREE_CHLORINE, M.PH)),
    "power_cut": _Row(law="B.4", measures=(M.FREE_CHLORINE,)),
    "smell": _Row(law="B.4", measures=(M.FREE_CHLORINE, M.TOTAL_CHLORINE), of_check=True),
    "rescue_open": _Row(law="B.5"),
    "incident_open": _Row(law="B.5"),
    "treatment_open": _Row(law="B.5"),
    "dead_animal": _Row(law="B.5", of_check=True),
    "winter_closed": _Row(law="B.8"),
    "water_cold": _Row(law="F", measures=(M.TEMPERATURE,)),
}
ALWAYS_NO = _Row(law="B.8")


@dataclass(frozen=True)
class Reason:
    """One reason, by a code that stays: what stands against swimming, or is said beside a yes.

    `entries` of the journal, `measures` and the `law` of advice are what it stands on.
    """

    code: str
    text: Message
    _: KW_ONLY
    measures: tuple[Measure, ...] = ()
    entries: tuple[UUID, ...] = ()
    law: str = ""


def standing_on(case: Case, reasons: Sequence[Reason], found: Sequence[Problem]) -> tuple[Reason, ...]:
    """The reasons with what each stands on."""
    return tuple(_with_its_ground(case, reason, found) for reason in reasons)


def _with_its_ground(case: Case, reason: Reason, found: Sequence[Problem]) -> Reason:
    row = STANDS_ON.get(reason.code, ALWAYS_NO)
    named = {entry for problem in found if problem.code == reason.code for entry in problem.entries}
    entries = tuple(dict.fromkeys((*named, *_tests(case, row.measures), *_visual_check(case, row))))
    return replace(reason, law=row.law, measures=row.measures, entries=entries)


def _tests(case: Case, measures: Sequence[Measure]) -> Iterator[UUID]:
    """The tests whose readings count."""
    for measure in measures:
        read = case.reading(measure)
        if read is not None:
            yield from (entry.id for entry in case.state.tests if entry.at == read.at)


def _visual_check(case: Case, row: _Row) -> Iterator[UUID]:
    if row.of_check and case.state.visual_checks:
        yield case.state.visual_checks[-1].id
