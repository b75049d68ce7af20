"""What is seen of a test while it is typed."""

from dataclasses import dataclass
from datetime import datetime

from kumpan.core.findings import Finding
from kumpan.core.testing.methods import Measured
from kumpan.core.testing.test_line import LineProblem


@dataclass(frozen=True)
class TestFormView:
    """A read slip: values by measure, what could not be read, and what to question."""

    values: tuple[Measured, ...]
    problems: tuple[LineProblem, ...]
    questions: tuple[Finding, ...]


@dataclass(frozen=True)
class LastValue:
    """What a measure read last, as it would be typed again, and when; `ladder` is what lies around it."""

    text: str
    at: datetime
    ladder: tuple[str, ...]
