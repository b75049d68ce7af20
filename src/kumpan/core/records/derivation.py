"""The working behind a number: the equation in words, what went in, and where it comes from."""

from dataclasses import dataclass

from kumpan.core.messages import Message
from kumpan.core.sources import source


@dataclass(frozen=True)
class Input:
    """One figure that went into a number, with its unit in the text."""

    name: Message
    value: Message


@dataclass(frozen=True)
class Origin:
    """A source as a reader sees it: the reference, its kind, and its reservations."""

    kind: str
    reference: str
    note: str


@dataclass(frozen=True)
class Derivation:
    """How a number came about: one or a few plain sentences, the inputs, the sources."""

    equation: Message
    inputs: tuple[Input, ...]
    origins: tuple[Origin, ...]


def derivation(
    equation: Message, inputs: tuple[tuple[Message, Message], ...], sources: tuple[str, ...]
) -> Derivation:
    """A working from plain pairs and source keys."""
    origins = (source(key) for key in dict.fromkeys(sources))
    return Derivation(
        equation,
        tuple(Input(name, value) for name, value in inputs),
        tuple(Origin(str(o.kind), o.reference, o.note) for o in origins),
    )
