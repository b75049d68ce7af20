"""Coming in and going out: sign in and out, the demo's people, the first person, invitations, guest links."""

import secrets

from fastapi import APIRouter, Request, Response

from kumpan.core.errors import InvalidInput, NotFound, SignedOut, TooMany
from kumpan.core.messages import Message
from kumpan.core.quantity import Number
from kumpan.services.journal.ledger import Scope
from kumpan.services.people import accounts, passkeys
from kumpan.services.people.access import Principal
from kumpan.services.people.audit import audited
from kumpan.services.people.links import LinkKind
from kumpan.services.people.secret import hash_of
from kumpan.services.people.throttle import Throttle
from kumpan.services.sharing import shares
from kumpan.storage.transaction import Database, Transaction
from kumpan.web.auth.authentication import address_of
from kumpan.web.auth.cookies import GUEST, SESSION, drop_cookie, set_cookie, value_of
from kumpan.web.auth.door import Door
from kumpan.web.requests.people import DemoIn, FirstIn, JoinIn, PasskeyIn, SecretIn, SignInIn
from kumpan.web.requests.sharing import HouseholdIn
from kumpan.web.responses.people import Asked, AuthState, LinkFound, Me, SignedIn
from kumpan.web.scope import HouseDep, clock
from kumpan.web.security import name_of_host

router = APIRouter(prefix="/api/v1/auth", tags=["people"])


@router.get("/state")
async def state(request: Request, scope: HouseDep) -> AuthState:
    """Who is signed in here; and where nobody is, how one comes in."""
    principal: Principal | None = request.state.principal
    door: Door = request.app.state.door
    people = await _demo_people(scope) if door.demo else []
    place = "" if principal is None else await scope.tx.shares.workspace_name(principal.workspace_id)
    return AuthState(
        me=None if principal is None else me(principal, place),
        first=not door.demo and not await scope.tx.accounts.any_account(),
        demo=tuple(people),
        passkeys=passkeys.has_name(site_of(request).name),
    )


async def _demo_people(scope: Scope) -> list[Me]:
    """The demo's people, of each of its workspaces."""
    found = []
    for workspace_id in await scope.tx.workspace.workspace_ids():
        place = await scope.tx.shares.workspace_name(workspace_id)
        found += [
            Me(id=one.id, name=one.name, role=one.role, workspace=place)
            for one in await scope.tx.workspace.people(workspace_id)
            if one.ended_at is None
        ]
    return found


def me(principal: Principal, workspace: str) -> Me:
    """The answer about who sends a request."""
    return Me(
        id=principal.person_id,
        name=principal.name,
        role=principal.role,
        pool_id=principal.guest_of,
        workspace=workspace,
    )


@router.post("/sign-in")
async def sign_in(given: SignInIn, request: Request, response: Response) -> SignedIn:
    """Begin a session. A wrong name, password or code is answered alike, and counted."""
    throttle, address, database = _throttle(request), address_of(request), _database(request)
    await _not_too_often(throttle, given.login, address)
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
        await _failed(request, given.login, given.login)
        raise SignedOut(accounts.WRONG_CODE if due else accounts.WRONG, "code" if due else "password")
    await throttle.succeeded(given.login, address)
    return SignedIn(needs_code=False)


@router.post("/sign-out")
async def sign_out(request: Request, response: Response) -> AuthState:
    """End this device's session, or leave as a guest."""
    principal: Principal | None = request.state.principal
    database = _database(request)
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
    person = await scope.tx.workspace.anybody(given.person_id)
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


@router.post("/passkey/offer")
async def offer_passkey(request: Request, scope: HouseDep) -> Asked:
    """What a passkey is asked to sign."""
    return Asked(options=await passkeys.offer_authentication(scope.tx, site_of(request), scope.now))


@router.post("/passkey")
async def sign_in_by_passkey(given: PasskeyIn, request: Request, response: Response) -> SignedIn:
    """Begin a session by a passkey, which stands for both factors. A wrong one is counted."""
    throttle, address, database = _throttle(request), address_of(request), _database(request)
    await _not_too_often(throttle, "passkey", address)
    try:
        async with database.transaction() as tx:
            begun = await passkeys.authenticate(
                tx, site_of(request), given.credential, device=_device(request), now=clock(request)
            )
            await _begun(request, response, begun, tx)
    except SignedOut:
        await _failed(request, "passkey", None)
        raise
    return SignedIn(needs_code=False)


@router.post("/share")
async def offered(given: SecretIn, scope: HouseDep) -> LinkFound:
    """Who offers a pool by a link, without using it up."""
    found = await shares.offer_behind(scope.tx, given.secret, scope)
    return LinkFound(kind=found.kind, name=found.name)


@router.post("/household")
async def household(given: HouseholdIn, request: Request, response: Response, scope: HouseDep) -> SignedIn:
    """Accept a pool that is offered with a workspace of one's own, made now."""
    new = shares.NewHousehold(
        name=given.household, person=given.name, login=given.login, password=given.password
    )
    person_id = await shares.household_by_offer(scope, given.secret, new)
    begun = await accounts.begin_session(scope.tx, person_id, device=_device(request), now=scope.now)
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
    found = await scope.tx.accounts.open_link(hash_of(given.secret), LinkKind.GUEST, scope.now)
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


async def _failed(request: Request, name: str, login: str | None) -> None:
    """Count an attempt that failed, and say so to the office of the account that was meant."""
    address = address_of(request)
    await _throttle(request).failed(name, address)
    if login is not None:
        async with _database(request).transaction() as tx:
            await accounts.attempt_failed(tx, login, address=address, now=clock(request))


def site_of(request: Request) -> passkeys.Site:
    """Where the browser is, by the host that was checked at the door."""
    host = request.headers.get("host", "")
    return passkeys.Site(f"{request.url.scheme}://{host}", name_of_host(host))


def _database(request: Request) -> Database:
    database: Database = request.app.state.database
    return database


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
