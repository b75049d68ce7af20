"""Coming in and going out: sign in and out, the demo's people, the first person, invitations, guest links."""

import secrets

from fastapi import APIRouter, Request, Response

from kumpan.core.errors import InvalidInput, NotFound, SignedOut, TooMany
from kumpan.core.messages import Message
from kumpan.core.quantity import Number
from kumpan.services.journal.ledger import Scope
from kumpan.services.people import accounts
from kumpan.services.people import queries as people_queries
from kumpan.services.people.access import Principal
from kumpan.services.people.audit import audited
from kumpan.services.people.secret import hash_of
from kumpan.services.people.team import GUEST as GUEST_LINK
from kumpan.services.people.throttle import Throttle
from kumpan.storage.transaction import Database, Transaction
from kumpan.web.auth.authentication import address_of
from kumpan.web.auth.cookies import GUEST, SESSION, drop_cookie, set_cookie, value_of
from kumpan.web.auth.door import Door
from kumpan.web.requests.people import DemoIn, FirstIn, JoinIn, SecretIn, SignInIn
from kumpan.web.responses.people import AuthState, LinkFound, Me, SignedIn
from kumpan.web.scope import HouseDep, clock

router = APIRouter(prefix="/api/v1/auth", tags=["people"])


@router.get("/state")
async def state(request: Request, scope: HouseDep) -> AuthState:
    """Who is signed in here; and where nobody is, how one comes in."""
    principal: Principal | None = request.state.principal
    door: Door = request.app.state.door
    people = await people_queries.people(scope) if door.demo else []
    return AuthState(
        me=None if principal is None else me(principal),
        first=not door.demo and not await scope.tx.accounts.any_account(),
        demo=tuple(Me(id=one.id, name=one.name, role=one.role) for one in people if one.ended_at is None),
    )


def me(principal: Principal) -> Me:
    """The answer about who sends a request."""
    return Me(id=principal.person_id, name=principal.name, role=principal.role, pool_id=principal.guest_of)


@router.post("/sign-in")
async def sign_in(given: SignInIn, request: Request, response: Response) -> SignedIn:
    """Begin a session. A wrong name, password or code is answered alike, and counted."""
    throttle, address = _throttle(request), address_of(request)
    await _not_too_often(throttle, given.login, address)
    database: Database = request.app.state.database
    now, device = clock(request), _device(request)
    async with database.transaction() as tx:
        due = await accounts.needs_code(tx, given.login, given.password)
        found = None
        if due is not None:
            found = await accounts.session_after_password(
                tx, given.login, due=due, code=given.code, device=device, now=now
            )
        if found is not None:
            await _begun(request, response, found, tx)
    if found is None and due and not given.code:
        return SignedIn(needs_code=True)
    if found is None:
        await throttle.failed(given.login, address)
        raise SignedOut(accounts.WRONG_CODE if due else accounts.WRONG, "code" if due else "password")
    await throttle.succeeded(given.login, address)
    return SignedIn(needs_code=False)


@router.post("/sign-out")
async def sign_out(request: Request, response: Response) -> AuthState:
    """End this device's session, or leave as a guest."""
    principal: Principal | None = request.state.principal
    database: Database = request.app.state.database
    if principal is not None and principal.session is not None:
        async with database.transaction() as tx:
            await tx.accounts.end_session(principal.session)
    drop_cookie(response, request, SESSION)
    drop_cookie(response, request, GUEST)
    return AuthState(me=None, first=False)


@router.post("/demo")
async def demo(given: DemoIn, request: Request, response: Response, scope: HouseDep) -> SignedIn:
    """Come in as one of the demo's people. Raises NotFound where this is no demo."""
    door: Door = request.app.state.door
    person = await scope.tx.workspace.person(scope.workspace_id, given.person_id)
    if not door.demo or person is None or person.ended_at is not None:
        raise NotFound(Message("There is nobody to try here; sign in with a name and a password."))
    begun = await accounts.begin_session(scope.tx, person.id, device=_device(request), now=scope.now)
    await _begun(request, response, begun, scope.tx)
    return SignedIn(needs_code=False)


@router.post("/first")
async def first(given: FirstIn, request: Request, response: Response, scope: HouseDep) -> SignedIn:
    """The first person, by the code in the terminal: whoever starts the server decides who that is."""
    door: Door = request.app.state.door
    throttle, address = _throttle(request), address_of(request)
    await _not_too_often(throttle, "first", address)
    right = door.first_code and secrets.compare_digest(door.first_code.encode(), given.code.strip().encode())
    if not right:
        await throttle.failed("first", address)
        raise InvalidInput(Message("This is not the code that stands in the terminal."), "code")
    person = await accounts.first_person(scope, given.name, given.login, given.password)
    begun = await accounts.begin_session(scope.tx, person.id, device=_device(request), now=scope.now)
    await _begun(request, response, begun, scope.tx)
    return SignedIn(needs_code=False)


@router.post("/link")
async def link(given: SecretIn, scope: HouseDep) -> LinkFound:
    """What an invitation or a reset is for, without using it up."""
    found = await accounts.link_for(scope.tx, given.secret, scope.now)
    return LinkFound(kind=found.kind, name=found.name)


@router.post("/join")
async def join(given: JoinIn, request: Request, response: Response, scope: HouseDep) -> SignedIn:
    """Use an invitation or a reset. With a second factor one signs in afterwards, with a code."""
    found = await accounts.link_for(scope.tx, given.secret, scope.now)
    inside = Scope(scope.tx, found.workspace_id, scope.now, address=scope.address)
    person_id = await accounts.use_link(inside, given.secret, given.login, given.password)
    account = await scope.tx.accounts.account_of(person_id)
    if account is not None and account.totp_secret is not None:
        return SignedIn(needs_code=True)
    begun = await accounts.begin_session(scope.tx, person_id, device=_device(request), now=scope.now)
    await _begun(request, response, begun, scope.tx)
    return SignedIn(needs_code=False)


@router.post("/guest")
async def guest(given: SecretIn, request: Request, response: Response, scope: HouseDep) -> Me:
    """Read one pool by a guest link."""
    found = await scope.tx.accounts.open_link(hash_of(given.secret), GUEST_LINK, scope.now)
    if found is None or found.expires_at is None or found.pool_id is None:
        raise NotFound(accounts.DEAD_LINK)
    set_cookie(response, request, GUEST, secret=given.secret, lasts=found.expires_at - scope.now)
    drop_cookie(response, request, SESSION)
    return Me(id=None, name=found.name, role="guest", pool_id=found.pool_id)


async def _begun(request: Request, response: Response, begun: accounts.SignedIn, tx: Transaction) -> None:
    """The cookie of a new session; the one before it ends."""
    before = value_of(request, SESSION)
    if before is not None:
        await tx.accounts.end_session(hash_of(before))
    set_cookie(response, request, SESSION, secret=begun.secret, lasts=accounts.LONGEST)
    drop_cookie(response, request, GUEST)
    inside = Scope(
        tx, await tx.accounts.workspace_of(begun.person_id), clock(request), address=address_of(request)
    )
    await audited(inside, begun.person_id, "signed_in")


def _throttle(request: Request) -> Throttle:
    throttle: Throttle = request.app.state.throttle
    return throttle


async def _not_too_often(throttle: Throttle, login: str, address: str) -> None:
    left = await throttle.seconds_left(login, address)
    if left > 0:
        raise TooMany(
            Message("Tried too often from here. Try again in {minutes} min.", minutes=Number(-(-left // 60)))
        )


def _device(request: Request) -> accounts.Device:
    """What kind of device it says it is, in a word or two."""
    agent = request.headers.get("user-agent", "").lower()
    kind = "a browser" if "mozilla" in agent else "another program"
    if "mobile" in agent:
        kind = "a phone"
    return accounts.Device(address_of(request), kind)
