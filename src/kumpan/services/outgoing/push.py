"""Browsers that messages may come to, and the key by which their push services know this house.

Standards: RFC 8030 (Web Push), RFC 8291 (its encryption), RFC 8292 (VAPID, the house's key).
"""

from base64 import urlsafe_b64decode, urlsafe_b64encode
from binascii import Error as NoBase64
from uuid import UUID, uuid4

from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import (
    Encoding,
    NoEncryption,
    PrivateFormat,
    PublicFormat,
    load_pem_private_key,
)

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message, Verbatim
from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing.hooks import checked_url
from kumpan.storage.repositories.push import PushDevice
from kumpan.storage.transaction import Transaction

MOST_DEVICES = 10
POINT_BYTES, AUTH_BYTES = 65, 16  # an uncompressed point of P-256 and the shared secret, RFC 8291


async def house_key(tx: Transaction) -> str:
    """The house's secret key as PEM, made at the first use."""
    new = ec.generate_private_key(ec.SECP256R1())
    pem = new.private_bytes(Encoding.PEM, PrivateFormat.PKCS8, NoEncryption())
    return await tx.push.key(pem.decode())


async def public_key(tx: Transaction) -> str:
    """What a browser is told, base64url: the point of the house's key."""
    key = load_pem_private_key((await house_key(tx)).encode(), None)
    point = key.public_key().public_bytes(Encoding.X962, PublicFormat.UncompressedPoint)
    return urlsafe_b64encode(point).rstrip(b"=").decode()


async def devices_of(scope: Scope) -> list[PushDevice]:
    """Those of who acts."""
    return [] if scope.person_id is None else await scope.tx.push.devices(scope.person_id)


async def let_come(scope: Scope, *, name: str, endpoint: str, p256dh: str, auth: str) -> None:
    """Messages come to this browser from now on. Raises InvalidInput."""
    if scope.person_id is None:
        raise InvalidInput(Message("Sign in as a person first."), "person_id")
    known = {one.endpoint for one in await devices_of(scope)}
    if endpoint not in known and len(known) >= MOST_DEVICES:
        raise InvalidInput(
            Message("There are {most} devices already; end one first.", most=Verbatim(str(MOST_DEVICES))),
            "endpoint",
        )
    await scope.tx.push.add(
        PushDevice(
            id=uuid4(),
            person_id=scope.person_id,
            name=name.strip()[:80],
            endpoint=checked_url(endpoint, "endpoint"),
            p256dh=_checked_bytes(p256dh, POINT_BYTES, "p256dh"),
            auth=_checked_bytes(auth, AUTH_BYTES, "auth"),
            created_at=scope.now,
        )
    )


def _checked_bytes(text: str, length: int, field: str) -> str:
    """A key as a browser gives it. Raises InvalidInput."""
    try:
        raw = urlsafe_b64decode(text + "=" * (-len(text) % 4))
    except (NoBase64, ValueError):
        raw = b""
    if len(raw) != length:
        raise InvalidInput(Message("This is no key of a browser's; turn messages on again."), field)
    return text


async def end_device(scope: Scope, id_: UUID) -> None:
    """Nothing comes to it any more. Raises NotFound."""
    if id_ not in {one.id for one in await devices_of(scope)}:
        raise NotFound(Message("There is no such device here; reload the list."))
    await scope.tx.push.end(id_)
