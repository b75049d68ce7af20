"""What whoever runs the server sees of each request: a line in the log, counts and times at `/metrics`.

Neither holds what people wrote, nor ids of pools, nor secrets of links: an address stands there as its route.
"""

import ipaddress
import os
import time
from secrets import compare_digest, token_hex

import structlog
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector
from starlette.datastructures import MutableHeaders
from starlette.requests import Request
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.auth.authentication import BEARER
from kumpan.web.errors import unexpected
from kumpan.web.security import HEADERS

PATH, REQUEST_ID = "/metrics", "x-request-id"
SHARED = "PROMETHEUS_MULTIPROC_DIR"  # where several processes put their counts together
LABELS = ("method", "route", "status")
REQUESTS = Counter("kumpan_requests", "Requests answered", LABELS)
SECONDS = Histogram(
    "kumpan_request_seconds",
    "Time until a request was answered",
    ("method", "route"),
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10),
)
LOG = structlog.get_logger("kumpan.web")


class Watching:
    """The outermost layer: nothing answers without being seen, and a fault is logged once."""

    def __init__(self, app: ASGIApp, token: str = "") -> None:
        self.app = app
        self.token = token

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, and count it."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        if scope["path"] == PATH:
            await self._metrics(scope)(scope, receive, send)
            return
        began, status, id_ = time.perf_counter(), 0, token_hex(8)

        async def seen(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                MutableHeaders(raw=message.setdefault("headers", [])).append(REQUEST_ID, id_)
            await send(message)

        with structlog.contextvars.bound_contextvars(request=id_):
            try:
                await self.app(scope, receive, seen)
            except Exception as trouble:
                answer = unexpected(Request(scope), trouble)
                for name, value in HEADERS.items():
                    answer.headers.setdefault(name, value)
                if status == 0:
                    await answer(scope, receive, seen)
            took = time.perf_counter() - began
            route = getattr(scope.get("route"), "path_format", None) or "other"
            method = scope["method"] if scope["method"] in ("GET", "HEAD", "POST") else "other"
            REQUESTS.labels(method, route, status).inc()
            SECONDS.labels(method, route).observe(took)
            LOG.info("request", method=method, route=route, status=status, ms=round(took * 1000, 1))

    def _metrics(self, scope: Scope) -> Response:
        if not self._may_read(scope):
            return Response(
                "Metrics are read on this machine, or with the token of KUMPAN_METRICS_TOKEN.", 403
            )
        registry = None
        if SHARED in os.environ:
            registry = CollectorRegistry()
            MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
        told = generate_latest() if registry is None else generate_latest(registry)
        return Response(told, media_type=CONTENT_TYPE_LATEST)

    def _may_read(self, scope: Scope) -> bool:
        headers = {name.lower(): value for name, value in scope["headers"]}
        given = headers.get(b"authorization", b"").decode("latin-1")
        if self.token and given.lower().startswith(BEARER):
            return compare_digest(given[len(BEARER) :].strip().encode(), self.token.encode())
        try:
            near = ipaddress.ip_address(scope["client"][0]).is_loopback
        except (TypeError, ValueError):
            return False
        # Behind a proxy of this machine everybody is near: there the token is asked for.
        return near and b"x-forwarded-for" not in headers and b"forwarded" not in headers
