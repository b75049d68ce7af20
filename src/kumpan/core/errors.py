"""Trouble that stops a request: wrong use, not found, conflict. Each says its cure in one sentence."""

from kumpan.core.messages import Message


class KumpanError(Exception):
    """Base of all errors that a caller can act on. `code` is stable; `field` names the input at fault."""

    code = "error"

    def __init__(self, message: Message, field: str | None = None) -> None:
        super().__init__(message.template)
        self.message = message
        self.field = field

    def __reduce__(self) -> tuple[type["KumpanError"], tuple[Message, str | None]]:
        """Whole from one process to another: the base class would pass on the template alone."""
        return type(self), (self.message, self.field)


class InvalidInput(KumpanError):
    """A value that cannot be used. The message names the field and says what would work."""

    code = "invalid"


class UnreadableQuantity(InvalidInput):
    """A typed amount that the closed table of units cannot read."""

    code = "unreadable"


class OutOfScope(InvalidInput):
    """A pool that this program must not advise on (bromine, biguanide, spas), with the reason."""

    code = "out_of_scope"


class NotFound(KumpanError):
    """What was asked for is not there."""

    code = "not_found"


class Conflict(KumpanError):
    """The same thing was changed by someone else, or an id is used for two different contents."""

    code = "conflict"


class NotPermitted(KumpanError):
    """Somebody who is known here, but whose role does not do this."""

    code = "not_permitted"


class SignedOut(KumpanError):
    """Nobody who is known here."""

    code = "signed_out"


class Unavailable(KumpanError):
    """What this stands on does not answer now; nothing was saved, and the same may be sent again."""

    code = "unavailable"


class Collided(Unavailable):
    """Somebody else wrote the same in this moment: nothing was saved, and doing it once more helps."""


class TooMany(KumpanError):
    """Tried too often; the message says when it may be tried again."""

    code = "too_many"
