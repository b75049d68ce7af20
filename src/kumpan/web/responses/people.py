"""Who is signed in, the people of a workspace, tokens, links, the audit."""

from datetime import datetime
from uuid import UUID

from kumpan.services.people.access import Role
from kumpan.web.responses.base import Response


class Me(Response):
    """Who is signed in. A guest has no id, and one pool."""

    id: UUID | None
    name: str
    role: Role
    pool_id: UUID | None = None
    workspace: str = ""


class AuthState(Response):
    """`me` None: sign in. `first`: nobody can sign in yet. `demo`: the people to try, one tap each.
    `passkeys`: this server has a name, at which they work.
    """

    me: Me | None
    first: bool
    demo: tuple[Me, ...] = ()
    passkeys: bool = False


class Asked(Response):
    """What the browser's own dialog is asked with: the options of a credential as JSON text."""

    options: str


class Passkey(Response):
    id: str
    name: str
    created_at: datetime
    used_at: datetime | None


class SignedIn(Response):
    """`needs_code`: name and password are right, and a code of the second factor is due."""

    needs_code: bool


class LinkFound(Response):
    """What a link is for: an invitation (choose a login) or a reset (it stays)."""

    kind: str
    name: str


class Device(Response):
    """A signed-in device; `this` is the one that asks."""

    device: str
    created_at: datetime
    seen_at: datetime
    this: bool


class Account(Response):
    """One's own account; `login` None where somebody has none, as in the demo."""

    me: Me
    login: str | None
    second_factor: bool
    passkeys: tuple[Passkey, ...]
    devices: tuple[Device, ...]


class Offered(Response):
    """A secret for an authenticator app: as text, as its link, and as the modules of a QR code by rows."""

    secret: str
    uri: str
    qr: tuple[str, ...]


class Member(Response):
    """Somebody of the workspace; `login` None until an invitation was used."""

    id: UUID
    name: str
    initials: str
    role: Role
    login: str | None
    pools: tuple[UUID, ...]
    ended_at: datetime | None


class NewLink(Response):
    """A link, shown this once. `path` is what follows this server's address."""

    id: UUID | None
    path: str


class Token(Response):
    id: UUID
    name: str
    scope: str
    created_at: datetime
    used_at: datetime | None
    revoked_at: datetime | None


class NewToken(Response):
    """`secret` is shown this once."""

    token: Token
    secret: str


class AuditLine(Response):
    """Who did what from where."""

    at: datetime
    person: str
    action: str
    address: str
    detail: dict[str, object]
