"""The answer of the judge. Stable: other programs read it."""

from datetime import datetime
from uuid import UUID

from kumpan.core.assessment.order import FindingSeverity, RemedyKind
from kumpan.core.assessment.swim import SwimCode
from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Readings, SwimReason


class Remedy(Response):
    """What to do: `plan` a kind of plan, `procedure` a piece of work by name, `until` when a wait ends."""

    kind: RemedyKind
    text: Text
    plan: str | None
    measures: tuple[Measure, ...]
    procedure: str | None
    until: datetime | None


class AssessedFinding(Response):
    """One finding; `entries` of the journal and the `law` of advice are what it stands on."""

    code: str
    severity: FindingSeverity
    measures: tuple[Measure, ...]
    text: Text = read_from("reason")
    remedy: Remedy
    entries: tuple[UUID, ...]
    law: str


class AssessedSwim(Response):
    """May they swim, and every reason; `not_before` is a time for that code."""

    code: SwimCode
    not_before: datetime | None
    reasons: tuple[SwimReason, ...] = read_from("because")


class AssessedNext(Response):
    """The remedy of the first finding that asks for something; else `care_due`, else `nothing`."""

    code: str
    text: Text
    why: Text
    remedy: Remedy
    due: datetime | None


class NotNow(Response):
    """Chemicals that may not go in now, why, and until when where that is known."""

    chemicals: tuple[str, ...]
    text: Text = read_from("reason")
    until: datetime | None


class Assessment(Response):
    """What is said of a pool at a moment; it stands until `holds_until` if nothing is entered.

    `expected` is the water as it should be now: mg/L, ug/L phosphate, degrees C.
    """

    at: datetime
    swim: AssessedSwim
    next: AssessedNext
    findings: tuple[AssessedFinding, ...]
    expected: Readings
    closed: bool
    not_to_be_dosed: tuple[NotNow, ...]
    holds_until: datetime
