"""Who sends a request, found before anything else of it is read: no body is looked at for a stranger."""

from dataclasses import replace
from datetime import datetime

from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Receive, Scope, Send

from kumpan.core.errors import Unavailable
from kumpan.services.people.access import Principal, Role
from kumpan.services.people.accounts import IDLE, LONGEST, SEEN_EVERY
from kumpan.services.people.links import LinkKind
from kumpan.services.people.secret import hash_of
from kumpan.storage.repositories.accounts import KnownPerson
from kumpan.storage.transaction import Database, Transaction
from kumpan.web.auth.cookies import GUEST, SESSION, value_of
from kumpan.web.auth.permissions import API, is_open
from kumpan.web.errors import error_response
from kumpan.wording.render import render

BEARER = "bearer "
SIGN_IN = "Sign in first."


class Authentication:
    """Refuses whatever needs somebody and comes from nobody; else puts the principal into the state."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass on what is open or comes from somebody."""
        if scope["type"] != "http" or not scope["path"].startswith(f"{API}/"):
            await self.app(scope, receive, send)
            return
        connection = HTTPConnection(scope)
        database: Database | None = getattr(scope["app"].state, "database", None)
        try:
            principal = None if database is None else await find(connection, database)
        except Unavailable as trouble:  # out here no handler of the app turns it into an answer
            await error_response(503, trouble.code, render(trouble.message))(scope, receive, send)
            return
        if principal is None and not is_open(scope["path"]):
            await error_response(401, "signed_out", SIGN_IN)(scope, receive, send)
            return
        scope.setdefault("state", {})["principal"] = principal
        await self.app(scope, receive, send)


async def find(connection: HTTPConnection, database: Database) -> Principal | None:
    """Who sends this: by a token, else by the session's cookie, else a guest by a link."""
    now: datetime = connection.app.state.clock()
    address = address_of(connection)
    given = connection.headers.get("authorization", "")
    if given.lower().startswith(BEARER):
        async with database.transaction() as tx:
            return await _by_token(tx, hash_of(given[len(BEARER) :].strip()), now, address)
    session, guest = value_of(connection, SESSION), value_of(connection, GUEST)
    if session is None and guest is None:
        return None
    async with database.transaction() as tx:
        found = None if session is None else await _by_session(tx, hash_of(session), now, address)
        if found is None and guest is not None:
            found = await _by_guest_link(tx, hash_of(guest), now, address)
        return found


def address_of(connection: HTTPConnection) -> str:
    """The network address; behind a proxy that is trusted, the one that it names."""
    return connection.client.host if connection.client else ""


async def _by_token(tx: Transaction, hash_: str, now: datetime, address: str) -> Principal | None:
    known = await tx.accounts.behind_token(hash_)
    if known is None:
        return None
    if known.seen_at is None or now - known.seen_at > SEEN_EVERY:
        await tx.accounts.token_used(hash_, now)
    return replace(_person(known, address), read_only=known.scope == "read", by_token=True)


async def _by_session(tx: Transaction, hash_: str, now: datetime, address: str) -> Principal | None:
    known = await tx.accounts.behind_session(hash_)
    if known is None:
        return None
    seen = known.seen_at or known.created_at
    if now - known.created_at > LONGEST or now - seen > IDLE:
        await tx.accounts.end_session(hash_)
        return None
    if now - seen > SEEN_EVERY:
        await tx.accounts.seen(hash_, now)
    return replace(_person(known, address), session=hash_)


async def _by_guest_link(tx: Transaction, hash_: str, now: datetime, address: str) -> Principal | None:
    link = await tx.accounts.open_link(hash_, LinkKind.GUEST, now)
    if link is None:
        return None
    return Principal(
        workspace_id=link.workspace_id,
        role=Role.GUEST,
        name=link.name,
        guest_of=link.pool_id,
        read_only=True,
        address=address,
    )


def _person(known: KnownPerson, address: str) -> Principal:
    return Principal(
        workspace_id=known.workspace_id,
        role=Role(known.role),
        person_id=known.person_id,
        name=known.name,
        address=address,
    )
