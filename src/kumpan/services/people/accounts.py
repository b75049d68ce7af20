"""Signing in and out, passwords, the second factor, invitations and resets.

Answers never tell whether an account exists; every change of a password signs out everywhere else.
"""

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import pyotp

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope
from kumpan.services.people import passwords
from kumpan.services.people.access import Principal, Role
from kumpan.services.people.audit import audited
from kumpan.services.people.commands import add_person
from kumpan.services.people.queries import people
from kumpan.services.people.secret import hash_of, new_secret
from kumpan.storage.repositories.accounts import Account, SecretLink
from kumpan.storage.repositories.workspace import Person
from kumpan.storage.transaction import Transaction

# Twelve hours of rest or 30 days in all: NIST SP 800-63B-4 for AAL1 allows 30 days (from memory).
IDLE, LONGEST = timedelta(days=7), timedelta(days=30)
SEEN_EVERY = timedelta(minutes=1)
INVITED_FOR, RESET_WITHIN = timedelta(days=7), timedelta(hours=1)
INVITE, RESET = "invite", "reset"
TOTP_STEP_S = 30
WRONG = Message("This name and password do not go together. Check both, or ask your office for a new link.")
WRONG_CODE = Message("This code is not right now; type the next one that your app shows.")
DEAD_LINK = Message("This link was used, taken back or is too old. Ask for a new one.")


@dataclass(frozen=True, kw_only=True)
class SignedIn:
    """A session that has just begun: the secret goes into the cookie and nowhere else."""

    secret: str
    person_id: UUID


@dataclass(frozen=True)
class Device:
    """Where a request comes from: the network address, and what kind of device it says it is."""

    address: str
    name: str


def login_of(text: str) -> str:
    """A login as it is compared: without blanks around it, in lower case. Raises InvalidInput."""
    clean = text.strip().casefold()
    if not 3 <= len(clean) <= 254 or any(c.isspace() for c in clean):
        raise InvalidInput(
            Message("Sign in with an email address or a user name of 3 characters or more, without blanks."),
            "login",
        )
    return clean


# Signing in.
async def needs_code(tx: Transaction, login: str, password: str) -> bool | None:
    """Whether a second factor is due after a right password; None where it is wrong or nobody is there."""
    account = await tx.accounts.account(login.strip().casefold())
    right = await passwords.matches(password, account.password_hash if account else passwords.NOBODYS)
    if account is None or not right:
        return None
    return account.totp_secret is not None


async def session_after_password(
    tx: Transaction, login: str, *, due: bool, code: str, device: Device, now: datetime
) -> SignedIn | None:
    """Begin a session after a right password; None where a code is due and is not right. A code of the second
    factor counts once.
    """
    account = await tx.accounts.account(login.strip().casefold())
    assert account is not None
    if due:
        step = code_step(account.totp_secret or "", code, now)
        if step is None or step <= (account.totp_used_step or 0):
            return None
        await tx.accounts.save_account(replace(account, totp_used_step=step), now)
    return await begin_session(tx, account.person_id, device=device, now=now)


async def attempt_failed(tx: Transaction, login: str, *, address: str, now: datetime) -> None:
    """A line for the office of the account that was meant; nothing for a name that nobody has."""
    account = await tx.accounts.account(login.strip().casefold())
    if account is not None:
        workspace_id = await tx.accounts.workspace_of(account.person_id)
        await audited(Scope(tx, workspace_id, now, address=address), account.person_id, "sign_in_failed")


async def begin_session(tx: Transaction, person_id: UUID, *, device: Device, now: datetime) -> SignedIn:
    """A new session with a secret of its own: nothing of an earlier one lives on."""
    secret = new_secret()
    await tx.accounts.add_session(hash_of(secret), person_id, device.name, now)
    return SignedIn(secret=secret, person_id=person_id)


def code_step(secret: str, code: str, now: datetime) -> int | None:
    """The time step that a code of the second factor belongs to: now, the one before or after; else None."""
    text = code.strip().replace(" ", "")
    totp = pyotp.TOTP(secret)
    step = int(now.timestamp()) // TOTP_STEP_S
    for candidate in (step, step - 1, step + 1):
        if pyotp.utils.strings_equal(totp.at(datetime.fromtimestamp(candidate * TOTP_STEP_S, UTC)), text):
            return candidate
    return None


# The first person, invitations and resets.
async def first_person(scope: Scope, name: str, login: str, password: str) -> Person:
    """The office of an installation that has nobody yet. Raises InvalidInput, also where there is one."""
    if await scope.tx.accounts.any_account():
        raise InvalidInput(Message("Somebody can sign in here already; ask them for an invitation."))
    known = next((one for one in await people(scope) if one.name == " ".join(name.split())), None)
    person = known or await add_person(scope, None, name, "", role=Role.OFFICE)
    await scope.tx.workspace.change_person(replace(person, role=Role.OFFICE.value))
    await new_account(scope, person.id, login, password)
    await audited(scope, person.id, "first_person")
    return person


async def new_account(scope: Scope, person_id: UUID, login: str, password: str) -> None:
    """How somebody new signs in. Raises InvalidInput, and Conflict where the login is taken."""
    clean = login_of(login)
    _check_password(password, clean)
    await _save(scope, person_id, clean, password)


async def invite(scope: Scope, person_id: UUID, kind: str = INVITE) -> str:
    """The secret of a link by which somebody chooses login and password; older ones end. Raises NotFound."""
    person = await scope.tx.workspace.person(scope.workspace_id, person_id)
    if person is None or person.ended_at is not None:
        raise NotFound(Message("There is no such person here; reload the list of people."))
    await scope.tx.accounts.end_links_for(person_id, scope.now)
    secret = new_secret()
    lasts = INVITED_FOR if kind == INVITE else RESET_WITHIN
    link = SecretLink(
        id=uuid4(),
        workspace_id=scope.workspace_id,
        kind=kind,
        name=person.name,
        person_id=person_id,
        pool_id=None,
        created_at=scope.now,
        expires_at=scope.now + lasts,
        ended_at=None,
    )
    await scope.tx.accounts.add_link(link, hash_of(secret))
    await audited(scope, scope.person_id, f"{kind}_made", person=str(person_id))
    return secret


async def link_for(tx: Transaction, secret: str, now: datetime) -> SecretLink:
    """An invitation or reset that is still open. Raises NotFound, the same for any that is not."""
    link = await tx.accounts.link(hash_of(secret))
    dead = link is None or link.kind not in (INVITE, RESET) or link.ended_at is not None
    if link is None or dead or (link.expires_at is not None and link.expires_at <= now):
        raise NotFound(DEAD_LINK)
    return link


async def use_link(scope: Scope, secret: str, login: str, password: str) -> UUID:
    """Choose login and password by an invitation, or a new password by a reset; the person.

    The link is used up, and whoever was signed in as this person is signed out. The second factor stays.
    """
    link = await link_for(scope.tx, secret, scope.now)
    assert link.person_id is not None
    known = await scope.tx.accounts.account_of(link.person_id)
    clean = known.login if known is not None and link.kind == RESET else login_of(login)
    _check_password(password, clean)
    await _save(scope, link.person_id, clean, password)
    await scope.tx.accounts.end_link(link.id, scope.now)
    await scope.tx.accounts.end_sessions(link.person_id)
    await audited(scope, link.person_id, f"{link.kind}_used")
    return link.person_id


# One's own account.
async def change_password(scope: Scope, principal: Principal, old: str, new: str) -> None:
    """Another password, if the old one is right; signed out everywhere else. Raises InvalidInput."""
    account = await own_account(scope, principal)
    if not await passwords.matches(old, account.password_hash):
        raise InvalidInput(Message("This is not your password of now; type it again."), "old")
    _check_password(new, account.login, "new")
    stored = replace(account, password_hash=await passwords.hashed(new))
    await scope.tx.accounts.save_account(stored, scope.now)
    await scope.tx.accounts.end_sessions(account.person_id, but=principal.session)
    await audited(scope, account.person_id, "password_changed")


async def own_account(scope: Scope, principal: Principal) -> Account:
    """The account of who acts. Raises NotFound for somebody without one, as in the demo."""
    assert principal.person_id is not None
    account = await scope.tx.accounts.account_of(principal.person_id)
    if account is None:
        raise NotFound(Message("You have no name and password here; ask your office for an invitation."))
    return account


async def turn_on_second_factor(scope: Scope, principal: Principal, secret: str, code: str) -> None:
    """From now on a code is asked for; the first proves that the app has the secret. Raises InvalidInput."""
    account = await own_account(scope, principal)
    step = code_step(secret, code, scope.now)
    if step is None:
        raise InvalidInput(WRONG_CODE, "code")
    stored = replace(account, totp_secret=secret, totp_used_step=step)
    await scope.tx.accounts.save_account(stored, scope.now)
    await scope.tx.accounts.end_sessions(account.person_id, but=principal.session)
    await audited(scope, account.person_id, "second_factor_on")


async def turn_off_second_factor(scope: Scope, principal: Principal, password: str) -> None:
    """No code any more. Raises InvalidInput for a wrong password."""
    account = await own_account(scope, principal)
    if not await passwords.matches(password, account.password_hash):
        raise InvalidInput(Message("This is not your password; type it again."), "password")
    await scope.tx.accounts.save_account(replace(account, totp_secret=None, totp_used_step=None), scope.now)
    await audited(scope, account.person_id, "second_factor_off")


def _check_password(password: str, login: str, field: str = "password") -> None:
    wrong = passwords.problem_with(password, login)
    if wrong is not None:
        raise InvalidInput(wrong, field)


async def _save(scope: Scope, person_id: UUID, login: str, password: str) -> None:
    known = await scope.tx.accounts.account_of(person_id)
    stored = await passwords.hashed(password)
    account = Account(
        id=known.id if known else uuid4(),
        person_id=person_id,
        login=login,
        password_hash=stored,
        totp_secret=known.totp_secret if known else None,
        totp_used_step=known.totp_used_step if known else None,
    )
    await scope.tx.accounts.save_account(account, scope.now)
