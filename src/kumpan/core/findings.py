"""What the user is told beside a result. A finding never stops the work; an error does."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from kumpan.core.messages import Message

FieldValue = str | float | int | bool | None


@dataclass(frozen=True)
class Finding:
    """Something worth knowing, with a stable `code`, the measure it is about, and one plain sentence.

    `fields` holds the figures inside the sentence, in inner units, for who computes with them.
    """

    code: str
    text: Message
    measure: str | None = None
    fields: Mapping[str, FieldValue] = field(default_factory=dict)


def not_yet(what: Message, measure: str | None = None) -> Finding:
    """Marks something that this version does not compute, so that nothing is faked."""
    return Finding("not_yet", Message("{what} is not computed by this version.", what=what), measure)
