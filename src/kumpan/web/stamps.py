"""From a request's stamp to the journal's: who, when, and the client's id."""

from kumpan.services.journal.ledger import Scope, Stamp
from kumpan.web.requests.pools import StampIn


def stamp(given: StampIn, scope: Scope) -> Stamp:
    """The stamp, with `now` where no time was given."""
    return Stamp(given.id, given.at or scope.now, given.person_id, named=given.at is not None)
