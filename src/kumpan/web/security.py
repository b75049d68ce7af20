"""What browsers are told to refuse, and what the server refuses of other sites.

A page of another site can neither read nor write: its name is no host of ours (rebinding), its origin is not
ours (forged requests), and no frame of it shows us.
"""

from collections.abc import Mapping, MutableMapping
from typing import Any

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.auth.permissions import SAFE
from kumpan.web.errors import error_response

LONGEST_PATH = 2000
# The hash of the empty text: the styles of the pages are put into an empty element by script.
NOTHING_INLINE = "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='"
POLICY = "; ".join((
    "default-src 'self'",
    f"style-src 'self' {NOTHING_INLINE}",
    "img-src 'self' data: blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
))  # fmt: skip
HEADERS: Mapping[str, str] = {
    "content-security-policy": POLICY,
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "no-referrer",
    "permissions-policy": "camera=(self), geolocation=(self), microphone=(), payment=(), usb=()",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}
STRICT_TRANSPORT = "max-age=31536000"
NOT_OURS = "This request comes from a page of another site; open Kumpan itself."
NO_SUCH_HOST = "Kumpan is not at this name. Use the address that it printed when it started."
TOO_LONG = "This address is too long."
METHODS = ("GET", "HEAD", "POST")  # no route takes any other
NO_SUCH_METHOD = "Nothing here takes that method."


class Security:
    """Checks host, origin and length of the address; sends the headers with every answer."""

    def __init__(self, app: ASGIApp, hosts: frozenset[str], *, strict_transport: bool = False) -> None:
        self.app = app
        self.hosts = hosts
        self.headers = dict(HEADERS)
        if strict_transport:
            self.headers["strict-transport-security"] = STRICT_TRANSPORT

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass on what comes to one of our names from one of our pages."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(raw=message.setdefault("headers", []))
                for name, value in self.headers.items():
                    headers.setdefault(name, value)
            await send(message)

        refused = self._refused(scope)
        if refused is not None:
            status, words = refused
            answer = error_response(status, "refused", words)
            if status == 405:
                answer.headers["allow"] = ", ".join(METHODS)
            await answer(scope, receive, with_headers)
            return
        await self.app(scope, receive, with_headers)

    def _refused(self, scope: MutableMapping[str, Any]) -> tuple[int, str] | None:
        headers = Headers(scope=scope)
        host = headers.get("host", "")
        if name_of_host(host) not in self.hosts:
            return 421, NO_SUCH_HOST
        if scope["method"] not in METHODS:
            return 405, NO_SUCH_METHOD
        if len(scope.get("raw_path") or b"") > LONGEST_PATH or "\x00" in scope["path"]:
            return 414, TOO_LONG
        if scope["method"] not in SAFE and not _same_site(headers, scope["scheme"], host):
            return 403, NOT_OURS
        return None


def name_of_host(host: str) -> str:
    """The name or address without the port, in lower case."""
    if host.startswith("["):
        return host.partition("]")[0].removeprefix("[").lower()
    return host.partition(":")[0].lower()


def _same_site(headers: Headers, scheme: str, host: str) -> bool:
    """Browsers name the origin of every request that writes; other programs name none."""
    origin = headers.get("origin")
    if origin is not None:
        return origin == f"{scheme}://{host}"
    return headers.get("sec-fetch-site", "same-origin") in ("same-origin", "none")
