"""What a plan leaves where it is."""

from dataclasses import dataclass

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure


@dataclass(frozen=True)
class Unmet:
    """A measure that this plan leaves where it is, with a stable code and the reason."""

    measure: Measure
    code: str
    reason: Message
