"""Other programs that are told of every entry: where, with a secret that signs what they are told."""

import hmac
import ipaddress
from hashlib import sha256
from urllib.parse import urlsplit
from uuid import UUID, uuid4

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message, Verbatim
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.audit import audited
from kumpan.services.people.secret import new_secret
from kumpan.storage.repositories.outgoing import Hook

MOST_HOOKS = 10


async def add_hook(scope: Scope, url: str) -> Hook:
    """A program that is told from now on; its secret is shown this once. Raises InvalidInput."""
    checked_url(url, "url")
    if len(await scope.tx.outgoing.hooks(scope.workspace_id)) >= MOST_HOOKS:
        raise InvalidInput(
            Message("There are {most} already; end one first.", most=Verbatim(str(MOST_HOOKS))), "url"
        )
    hook = Hook(
        id=uuid4(),
        workspace_id=scope.workspace_id,
        url=url.strip()[:500],
        secret=new_secret(),
        created_at=scope.now,
    )
    await scope.tx.outgoing.add_hook(hook)
    await audited(scope, scope.person_id, "hook_made", hook=str(hook.id))
    return hook


def checked_url(url: str, field: str) -> str:
    """An address that messages go to. Raises InvalidInput."""
    parts = urlsplit(url.strip())
    if parts.scheme not in ("http", "https") or not parts.hostname or parts.username:
        raise InvalidInput(
            Message("This is no address of a program; write it like https://example.com/kumpan."), field
        )
    if parts.scheme == "http" and not _is_near(parts.hostname):
        raise InvalidInput(Message("Outside of your own network the address must begin with https."), field)
    return url.strip()


def _is_near(host: str) -> bool:
    """Whether a host is on the local network."""
    try:
        return ipaddress.ip_address(host).is_private
    except ValueError:
        return host == "localhost" or host.endswith((".local", ".lan"))


async def hooks(scope: Scope) -> list[Hook]:
    """Those that are told."""
    return await scope.tx.outgoing.hooks(scope.workspace_id)


async def end_hook(scope: Scope, hook_id: UUID) -> None:
    """It is told nothing more. Raises NotFound."""
    if hook_id not in {one.id for one in await hooks(scope)}:
        raise NotFound(Message("There is no such program here; reload the list."))
    await scope.tx.outgoing.end_hook(hook_id, scope.now)
    await audited(scope, scope.person_id, "hook_ended", hook=str(hook_id))


def signature(secret: str, at_s: int, body: str) -> str:
    """What stands in the header `kumpan-signature`: the time, and HMAC-SHA256 over "time.body" (RFC 2104)."""
    digest = hmac.new(secret.encode(), f"{at_s}.{body}".encode(), sha256).hexdigest()
    return f"t={at_s},v1={digest}"
