"""Passkeys (W3C Web Authentication): a device proves by its own lock whose it is; no password is typed.

A passkey belongs to the name of the server and works at names only, not at addresses. The device verifies
its user, so that a passkey stands for both factors.
"""

import json
from dataclasses import dataclass
from datetime import datetime, timedelta
from hashlib import sha256
from ipaddress import ip_address

import webauthn
from webauthn.helpers import base64url_to_bytes, exceptions
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from kumpan.core.errors import InvalidInput, NotFound, SignedOut
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.access import Principal
from kumpan.services.people.accounts import Device, SignedIn, begin_session
from kumpan.services.people.audit import audited
from kumpan.storage.repositories.passkeys import Passkey
from kumpan.storage.transaction import Transaction

ANSWER_WITHIN = timedelta(minutes=5)
SERVICE = "Kumpan"
NO_NAME = Message("Passkeys need a server with a name; at a bare address use your password.")
NOT_TAKEN = Message("This device's answer could not be taken; try once more.")
NOT_KNOWN = Message("No passkey of this device is known here. Sign in with your password.")


@dataclass(frozen=True)
class Site:
    """Where the browser is: `origin` as it sends it, `name` the host without a port."""

    origin: str
    name: str


def has_name(host: str) -> bool:
    """Whether passkeys work at a host: at a name they do, at an address they do not."""
    try:
        ip_address(host.strip("[]"))
    except ValueError:
        return True
    return False


async def offer_registration(scope: Scope, principal: Principal, site: Site) -> str:
    """What the browser is asked to make a passkey by, as JSON. Raises InvalidInput at an address."""
    assert principal.person_id is not None
    _require_name(site)
    known = await scope.tx.passkeys.of_person(principal.person_id)
    options = webauthn.generate_registration_options(
        rp_id=site.name,
        rp_name=SERVICE,
        user_id=principal.person_id.bytes,
        user_name=principal.name,
        user_display_name=principal.name,
        exclude_credentials=[PublicKeyCredentialDescriptor(id=one.credential_id) for one in known],
        authenticator_selection=AuthenticatorSelectionCriteria(
            resident_key=ResidentKeyRequirement.REQUIRED,
            user_verification=UserVerificationRequirement.REQUIRED,
        ),
    )
    await _issue(scope.tx, options.challenge, scope.now)
    return webauthn.options_to_json(options)


async def register(scope: Scope, principal: Principal, site: Site, *, credential: str, name: str) -> None:
    """Take a passkey that was just made. Raises InvalidInput for an answer that does not fit."""
    assert principal.person_id is not None
    challenge = await _redeem(scope.tx, credential, scope.now)
    if challenge is None:
        raise InvalidInput(NOT_TAKEN, "credential")
    try:
        made = webauthn.verify_registration_response(
            credential=credential,
            expected_challenge=challenge,
            expected_rp_id=site.name,
            expected_origin=site.origin,
            require_user_verification=True,
        )
    except (exceptions.WebAuthnException, ValueError, KeyError, TypeError) as trouble:
        raise InvalidInput(NOT_TAKEN, "credential") from trouble
    passkey = Passkey(
        id=_id(made.credential_id),
        person_id=principal.person_id,
        credential_id=made.credential_id,
        public_key=made.credential_public_key,
        signature_counter=made.sign_count,
        name=" ".join(name.split())[:80] or "a device",
        created_at=scope.now,
        used_at=None,
    )
    await scope.tx.passkeys.add(passkey)
    await audited(scope, principal.person_id, "passkey_made")


async def end_passkey(scope: Scope, principal: Principal, id_: str) -> None:
    """It opens nothing any more. Raises NotFound."""
    assert principal.person_id is not None
    if id_ not in {one.id for one in await scope.tx.passkeys.of_person(principal.person_id)}:
        raise NotFound(Message("There is no such passkey; reload the page."))
    await scope.tx.passkeys.end(principal.person_id, only=id_)
    await audited(scope, principal.person_id, "passkey_ended")


async def offer_authentication(tx: Transaction, site: Site, now: datetime) -> str:
    """What the browser is asked to sign, as JSON; which passkey answers is the device's affair."""
    _require_name(site)
    options = webauthn.generate_authentication_options(
        rp_id=site.name, user_verification=UserVerificationRequirement.REQUIRED
    )
    await _issue(tx, options.challenge, now)
    return webauthn.options_to_json(options)


async def authenticate(
    tx: Transaction, site: Site, credential: str, *, device: Device, now: datetime
) -> SignedIn:
    """Begin a session by a passkey. Raises SignedOut, the same whatever was wrong."""
    challenge = await _redeem(tx, credential, now)
    passkey = await tx.passkeys.passkey(_id(_raw_id(credential)))
    if challenge is None or passkey is None:
        raise SignedOut(NOT_KNOWN, "passkey")
    try:
        proved = webauthn.verify_authentication_response(
            credential=credential,
            expected_challenge=challenge,
            expected_rp_id=site.name,
            expected_origin=site.origin,
            credential_public_key=passkey.public_key,
            credential_current_sign_count=passkey.signature_counter,
            require_user_verification=True,
        )
    except (exceptions.WebAuthnException, ValueError, KeyError, TypeError) as trouble:
        raise SignedOut(NOT_KNOWN, "passkey") from trouble
    await tx.passkeys.used(passkey.id, proved.new_sign_count, now)
    return await begin_session(tx, passkey.person_id, device=device, now=now)


def _require_name(site: Site) -> None:
    if not has_name(site.name):
        raise InvalidInput(NO_NAME)


async def _issue(tx: Transaction, challenge: bytes, now: datetime) -> None:
    await tx.passkeys.issue_challenge(_id(challenge), now + ANSWER_WITHIN, now)


async def _redeem(tx: Transaction, credential: str, now: datetime) -> bytes | None:
    """The challenge that an answer names, if it was ours and was not answered yet."""
    try:
        said = json.loads(credential)["response"]["clientDataJSON"]
        challenge = base64url_to_bytes(json.loads(base64url_to_bytes(said))["challenge"])
    except (ValueError, KeyError, TypeError):
        return None
    return challenge if await tx.passkeys.redeem_challenge(_id(challenge), now) else None


def _raw_id(credential: str) -> bytes:
    try:
        return base64url_to_bytes(json.loads(credential)["rawId"])
    except (ValueError, KeyError, TypeError):
        return b""


def _id(raw: bytes) -> str:
    return sha256(raw).hexdigest()
