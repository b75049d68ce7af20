"""What the log says of machines, their parts, and tasks of one's own."""

from kumpan.core.journal import MachineSet, OwnTask, PartReplaced, PhotoTaken
from kumpan.core.maintenance.machines import KINDS
from kumpan.core.messages import NOTHING, Message, Verbatim

Told = tuple[Message, Message]


def own_task(body: OwnTask) -> Told:
    """A task that a person added."""
    return Message("Own task"), Message("{title}", title=Verbatim(body.title))


def machine(body: MachineSet) -> Told:
    """A machine, as it is from now on."""
    label = Message("{label}", label=Verbatim(body.label)) if body.label else KINDS[body.kind].name
    return Message("Machine taken away") if body.gone else Message("Machine"), label


def part(body: PartReplaced) -> Told:
    """A part that was replaced."""
    if body.note:
        words = Message("{part}. {note}", part=Verbatim(body.part), note=Verbatim(body.note))
    else:
        words = Message("{part}", part=Verbatim(body.part))
    return Message("Part replaced"), words


def photo(body: PhotoTaken) -> Told:
    """A photo that was taken."""
    return Message("Photo"), Message("{note}", note=Verbatim(body.note)) if body.note else NOTHING
