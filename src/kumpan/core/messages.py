"""What the core says: a whole US-English sentence as a template, and the typed values that stand in it.

A message is never glued from parts of sentences: a choice of words is a choice of templates. A value may be
a name that is itself translated (another message), or words of a person or a label, which never are.
`wording` renders messages for one reader: language, units, zone, number and date format.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Union

from kumpan.core.quantity import Quantity


@dataclass(frozen=True, init=False)
class Message:
    """A template with `{names}` and the values they stand for. `Message("")` says nothing and is false."""

    template: str
    values: tuple[tuple[str, "Value"], ...]

    def __init__(self, template: str, /, **values: "Value") -> None:
        object.__setattr__(self, "template", template)
        object.__setattr__(self, "values", tuple(values.items()))

    def __bool__(self) -> bool:
        return bool(self.template)


@dataclass(frozen=True)
class Verbatim:
    """Words that are nobody's to translate: a pool's or a product's own name, a note as it was typed."""

    text: str


@dataclass(frozen=True)
class Listed:
    """Several things in a row: "pH", "pH and salt", "pH, salt and copper"; `joined_by` "," where no word
    joins them.
    """

    items: tuple["Value", ...]
    joined_by: str = "and"


@dataclass(frozen=True)
class Cased:
    """A name or title as it stands inside a sentence (small first letter), or at its beginning (capital)."""

    words: "Message"
    upper: bool = False


@dataclass(frozen=True)
class Plural:
    """Words that depend on a whole number, which stands in them as `{n}`."""

    one: str
    many: str
    n: int


Value = Union[Quantity, Message, Verbatim, Listed, Cased, Plural]  # noqa: UP007, named before it is defined
NOTHING = Message("")


def listed(items: Iterable["Value"]) -> Listed:
    """Like "a, b and c"."""
    return Listed(tuple(items))


def joined(items: Iterable["Value"], by: str = ", ") -> Listed:
    """Parts of a label one after the other, as a log line has them; empty ones are left out."""
    return Listed(tuple(item for item in items if item != NOTHING), by)
