"""What is said to share, archive or delete a pool."""

from typing import Annotated

from pydantic import Field, StrictBool

from kumpan.services.people.links import LinkKind
from kumpan.web.requests.base import Strict
from kumpan.web.requests.people import Login, Name, Password, SecretIn


class LinkIn(Strict):
    """`guest`: anybody reads the pool for 90 days; `feed`: a calendar program follows what is due."""

    kind: LinkKind
    name: Annotated[str, Field(max_length=80)] = ""


class HouseholdIn(SecretIn):
    """A workspace of one's own for somebody who was offered a pool and has no account yet."""

    household: Name
    name: Name
    login: Login
    password: Password


class ArchiveIn(Strict):
    """`back`: out of the archive."""

    back: StrictBool = False


class DeleteIn(Strict):
    """The SHA-256 of the journal's entries, as the download told it."""

    sha256: Annotated[str, Field(max_length=64)]
