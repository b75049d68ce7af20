"""What was taken back. As stored; see `base`."""

from kumpan.core.journal.entry import Voided
from kumpan.storage.wire.base import Wire


class VoidedV1(Wire):
    core = Voided

    reason: str = ""
