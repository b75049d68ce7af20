"""From a request's stamp to the journal's: who, when, and the client's id."""

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope, Stamp
from kumpan.web.requests.pools import StampIn


def stamp(given: StampIn, scope: Scope) -> Stamp:
    """The stamp with `now` where no time was given. Raises InvalidInput for a time without zone."""
    at = given.at or scope.now
    if at.tzinfo is None:
        raise InvalidInput(Message("at: a time needs its zone, like 2026-06-01T18:40:00Z."), "at")
    return Stamp(given.id, at, given.person_id)
