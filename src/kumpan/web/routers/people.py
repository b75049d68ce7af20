"""One's own account, the people of a workspace, tokens, the audit."""

from typing import Annotated
from uuid import UUID

import pyotp
import segno
from fastapi import APIRouter, Depends, Request
from fastapi.responses import PlainTextResponse

from kumpan.formats.audit_csv import audit_csv
from kumpan.services.outgoing.choices import invitation_by_mail
from kumpan.services.people import accounts, passkeys, team
from kumpan.services.people.audit import audit_lines
from kumpan.services.people.queries import people
from kumpan.web.requests.people import (
    ConfirmedIn,
    EndIn,
    InviteIn,
    PasskeyIn,
    PasswordIn,
    RenameIn,
    RoleIn,
    SecondFactorIn,
    TokenIn,
    WorkspaceIn,
)
from kumpan.web.responses.people import (
    Account,
    Asked,
    AuditLine,
    Device,
    Member,
    NewLink,
    NewToken,
    Offered,
    Passkey,
    Token,
)
from kumpan.web.routers.auth import me, site_of
from kumpan.web.scope import PrincipalDep, ScopeDep

router = APIRouter(prefix="/api/v1", tags=["people"])


# One's own account.
@router.get("/me")
async def own(scope: ScopeDep, principal: PrincipalDep) -> Account:
    """Who I am here, and where I am signed in."""
    assert principal.person_id is not None
    account = await scope.tx.accounts.account_of(principal.person_id)
    devices = await scope.tx.accounts.devices(principal.person_id)
    return Account(
        me=me(principal, await scope.tx.shares.workspace_name(scope.workspace_id)),
        login=account.login if account else None,
        second_factor=account is not None and account.totp_secret is not None,
        passkeys=tuple(Passkey.of(one) for one in await scope.tx.passkeys.of_person(principal.person_id)),
        devices=tuple(
            Device(
                device=one.device,
                created_at=one.created_at,
                seen_at=one.seen_at,
                this=one.id == principal.session,
            )
            for one in devices
        ),
    )


@router.post("/me/password")
async def change_password(given: PasswordIn, scope: ScopeDep, principal: PrincipalDep) -> bool:
    """Another password; signed out everywhere else."""
    await accounts.change_password(scope, principal, given.old, given.new)
    return True


@router.post("/me/second-factor/offer")
async def offer_second_factor(scope: ScopeDep, principal: PrincipalDep) -> Offered:
    """A secret for an authenticator app. It is stored only once a first code proves that the app has it."""
    account = await accounts.own_account(scope, principal)
    secret = pyotp.random_base32()
    uri = pyotp.TOTP(secret).provisioning_uri(name=account.login, issuer_name="Kumpan")
    rows = segno.make(uri, error="m", micro=False).matrix
    return Offered(
        secret=secret, uri=uri, qr=tuple("".join("1" if cell else "0" for cell in row) for row in rows)
    )


@router.post("/me/second-factor")
async def turn_on(given: SecondFactorIn, scope: ScopeDep, principal: PrincipalDep) -> bool:
    """Ask for a code from now on."""
    await accounts.turn_on_second_factor(scope, principal, given.secret, given.code)
    return True


@router.post("/me/second-factor/off")
async def turn_off(given: ConfirmedIn, scope: ScopeDep, principal: PrincipalDep) -> bool:
    """Ask for no code any more."""
    await accounts.turn_off_second_factor(scope, principal, given.password)
    return True


@router.post("/me/passkeys/offer")
async def offer_new_passkey(request: Request, scope: ScopeDep, principal: PrincipalDep) -> Asked:
    """What the browser makes a passkey by."""
    options = await passkeys.offer_registration(scope, principal, site_of(request))
    return Asked(options=options)


@router.post("/me/passkeys", status_code=201)
async def add_passkey(given: PasskeyIn, request: Request, scope: ScopeDep, principal: PrincipalDep) -> bool:
    """From now on this device signs in by its own lock."""
    await passkeys.register(scope, principal, site_of(request), credential=given.credential, name=given.name)
    return True


@router.post("/me/passkeys/{passkey_id}/end")
async def end_passkey(passkey_id: str, scope: ScopeDep, principal: PrincipalDep) -> bool:
    """It opens nothing any more."""
    await passkeys.end_passkey(scope, principal, passkey_id)
    return True


@router.post("/me/devices/end")
async def end_devices(scope: ScopeDep, principal: PrincipalDep) -> bool:
    """Sign out everywhere else; messages come to no device of mine until I let them again."""
    assert principal.person_id is not None
    await scope.tx.accounts.end_sessions(principal.person_id, but=principal.session)
    await scope.tx.push.end_all(principal.person_id)
    return True


@router.get("/me/tokens")
async def tokens(scope: ScopeDep, principal: PrincipalDep) -> list[Token]:
    """My tokens, the newest first."""
    assert principal.person_id is not None
    return [Token.of(one) for one in await scope.tx.accounts.tokens(principal.person_id)]


@router.post("/me/tokens", status_code=201)
async def make_token(given: TokenIn, scope: ScopeDep) -> NewToken:
    """A token for another program; its secret is shown this once."""
    token, secret = await team.new_token(scope, given.name, given.scope)
    return NewToken(token=Token.of(token), secret=secret)


@router.post("/me/tokens/{token_id}/revoke")
async def revoke_token(token_id: UUID, scope: ScopeDep) -> bool:
    """It opens nothing any more."""
    await team.revoke_token(scope, token_id)
    return True


# The people of the workspace.
@router.get("/members")
async def members(scope: ScopeDep) -> list[Member]:
    """Everybody with role, login and pools."""
    return [
        Member(
            id=one.person.id,
            name=one.person.name,
            initials=one.person.initials,
            role=one.person.role,
            login=one.login,
            pools=one.pools,
            ended_at=one.person.ended_at,
        )
        for one in await team.members(scope)
    ]


@router.post("/members/{person_id}/role")
async def set_role(person_id: UUID, given: RoleIn, scope: ScopeDep) -> bool:
    """What somebody is here, and which pools were given."""
    await team.set_role(scope, person_id, given.role, given.pools)
    return True


@router.post("/members/{person_id}/name")
async def rename(person_id: UUID, given: RenameIn, scope: ScopeDep) -> bool:
    """Another name."""
    await team.rename(scope, person_id, given.name, given.initials)
    return True


@router.post("/members/{person_id}/end")
async def end(person_id: UUID, given: EndIn, scope: ScopeDep) -> bool:
    """Somebody leaves; what they did stays."""
    await team.end_person(scope, person_id, erase=given.erase)
    return True


@router.post("/members/{person_id}/invitation", status_code=201)
async def invite(person_id: UUID, given: InviteIn, request: Request, scope: ScopeDep) -> NewLink:
    """A link by which somebody chooses login and password, or a new password; the office passes it on."""
    secret = await accounts.invite(scope, person_id, accounts.RESET if given.reset else accounts.INVITE)
    path = f"/join/{secret}"
    if given.address:
        link = f"{str(request.base_url).rstrip('/')}{path}"
        await invitation_by_mail(scope, given.address, link, reset=given.reset)
    return NewLink(id=None, path=path)


@router.post("/workspace/name")
async def name_workspace(given: WorkspaceIn, scope: ScopeDep) -> bool:
    """What this firm or household is called."""
    await team.name_workspace(scope, given.name)
    return True


# The audit.
async def told(scope: ScopeDep) -> list[AuditLine]:
    """The last lines with the people's names."""
    names = {one.id: one.name for one in await people(scope)}
    return [
        AuditLine(
            at=line.at,
            person=names.get(line.person_id, "") if line.person_id else "",
            action=line.action,
            address=line.address,
            detail=line.detail,
        )
        for line in await audit_lines(scope)
    ]


Told = Annotated[list[AuditLine], Depends(told, scope="function")]


@router.get("/audit")
async def audit(lines: Told) -> list[AuditLine]:
    """Who did what from where, the newest first."""
    return lines


class Csv(PlainTextResponse):
    """A table as RFC 4180 has it."""

    media_type = "text/csv"


@router.get("/audit.csv", response_class=Csv)
async def audit_file(lines: Told) -> Csv:
    """The same as CSV."""
    rows = [
        (line.at.isoformat(), line.person, line.action, line.address, _flat(line.detail)) for line in lines
    ]
    return Csv(audit_csv(rows))


def _flat(detail: dict[str, object]) -> str:
    return "; ".join(f"{key}={value}" for key, value in detail.items())
