"""What a list needs at hand: ticked off as it is bought or found. Source: season-lists."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.journal import Outcome
from kumpan.core.messages import Message
from kumpan.core.season.saved import RecordedItem

SOURCE = "season-lists"

PREFIX = "have/"


@dataclass(frozen=True)
class Material:
    """One thing to have at hand; `ticked` once it is there."""

    name: Message
    key: str
    done_as: RecordedItem | None

    @property
    def at_hand(self) -> bool:
        """Ticked as being there."""
        return self.done_as is not None and self.done_as.body.outcome is Outcome.DONE


def material_key(name: Message) -> str:
    """As it is ticked in the journal: by its US-English name."""
    return PREFIX + name.template


def materials_of(names: Sequence[Message], steps_done: Mapping[str, RecordedItem]) -> tuple[Material, ...]:
    """In the list's order, each with its tick."""
    return tuple(Material(name, material_key(name), steps_done.get(material_key(name))) for name in names)
