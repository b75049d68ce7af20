"""What a reader is told, so that tests can read messages as people do."""

from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.wording.reader import Reader
from kumpan.wording.render import render


def told(message: Message | None, units: Units = Units.US) -> str:
    """A message as an American owner reads it; nothing for none."""
    return "" if message is None else render(message, Reader(units))
