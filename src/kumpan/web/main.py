"""The app: routes, errors, the built front end. `create_app` is what uvicorn starts."""

import asyncio
import gc
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from copy import deepcopy
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any

import structlog
from fastapi import APIRouter, Depends, FastAPI
from fastapi.responses import JSONResponse
from starlette.middleware.gzip import GZipMiddleware
from starlette.routing import BaseRoute

from kumpan.services.people.throttle import Throttle
from kumpan.services.workers import WORKERS
from kumpan.settings import Settings
from kumpan.storage.transaction import Database
from kumpan.web import errors, front_end, health
from kumpan.web.again import Again
from kumpan.web.auth.authentication import Authentication
from kumpan.web.auth.door import AT_HOME, Door
from kumpan.web.body_limit import BodyLimit
from kumpan.web.etag import ETag
from kumpan.web.examples import with_examples
from kumpan.web.making import keep_making
from kumpan.web.own_loop import OwnLoop
from kumpan.web.pace import Pace
from kumpan.web.renewal import keep_renewing
from kumpan.web.responses.base import Refusal
from kumpan.web.routers import (
    algae,
    auth,
    calculations,
    exports,
    feeds,
    imports,
    journal,
    maintenance,
    outgoing,
    papers,
    people,
    photos,
    pools,
    season,
    sharing,
    training,
    treatments,
    visits,
    workspace,
)
from kumpan.web.scope import principal_of, utc_now
from kumpan.web.security import Security
from kumpan.web.turns import Turns
from kumpan.web.watching import Watching

GATED = (
    pools,
    journal,
    treatments,
    maintenance,
    algae,
    season,
    visits,
    workspace,
    training,
    people,
    sharing,
    imports,
    exports,
    photos,
    papers,
    outgoing,
)


# What any route may answer instead, in one shape.
_WORDS = {
    400: "The request could not be read",
    401: "Nobody is signed in, or it was no right password, code or passkey",
    403: "Not for this role, this token, or from another site",
    404: "Not here, or not for who asks",
    405: "This address does not take that method",
    408: "The body did not arrive",
    409: "Changed or saved by somebody else meanwhile, or an id that stands for something else",
    413: "The body is over 1 MB",
    414: "The address is too long",
    421: "Kumpan is not at this name",
    422: "A value that cannot be used; the message names it and says what would work",
    429: "Too often",
    503: "The database does not answer, or its disk is full",
}
REFUSALS: dict[int | str, dict[str, Any]] = {
    status: {"model": Refusal, "description": words} for status, words in _WORDS.items()
}


def build_app(
    database: Database | None,
    static_dir: Path | None = None,
    clock: Callable[[], datetime] = utc_now,
    at_end: Callable[[], None] | None = None,
    door: Door = AT_HOME,
    *,
    renewing: bool = False,
    metrics_token: str = "",
) -> FastAPI:
    """The app around a database. Without one only the stateless routes answer (bench, OpenAPI).

    `at_end` is called once the last request has been answered; `door` says who may come in and how;
    `renewing`: what waits is worked off in the background; `metrics_token` reads `/metrics` from elsewhere.
    """

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        _collect_seldom()
        app.state.database = database
        app.state.clock = clock
        app.state.door = door
        app.state.throttle = None if database is None else Throttle(database.attempts(clock))
        working = _at_work(database, clock) if database and renewing else []
        yield
        for work in working:
            work.cancel()
        await asyncio.gather(*working, return_exceptions=True)
        if database is not None:
            await database.close()
        if at_end is not None:
            at_end()

    app = FastAPI(
        title="Kumpan",
        version="1",
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url=None,
        routes=list(_routes()),
    )
    _serve_document(app)
    health.install(app)
    errors.install(app)
    app.add_middleware(Again)
    app.add_middleware(Turns)
    app.add_middleware(BodyLimit)
    app.add_middleware(ETag)
    app.add_middleware(GZipMiddleware, minimum_size=1000)
    app.add_middleware(Pace)
    app.add_middleware(Authentication)
    app.add_middleware(Security, hosts=door.hosts, strict_transport=door.strict_transport)
    app.add_middleware(Watching, token=metrics_token)
    if static_dir is not None:
        front_end.install(app, static_dir)
    return app


@cache
def _routes() -> tuple[BaseRoute, ...]:
    """All of the API. They know no app, so every app of a process has the same ones: to work out what they
    take and answer is most of a second.
    """
    # A generated client calls what the route's function is called.
    api = APIRouter(generate_unique_id_function=lambda route: route.name)
    for router in (calculations.router, auth.router, feeds.router, outgoing.open_router):
        api.include_router(router, responses=REFUSALS)
    for module in GATED:
        api.include_router(module.router, responses=REFUSALS, dependencies=[Depends(principal_of)])
    return tuple(api.routes)


def _serve_document(app: FastAPI) -> None:
    @app.get("/api/openapi.json", include_in_schema=False)
    def document() -> JSONResponse:
        return JSONResponse(with_examples(deepcopy(app.openapi())))


def _at_work(database: Database, clock: Callable[[], datetime]) -> list[asyncio.Task[None]]:
    """What is done in the background for as long as the app runs."""
    return [asyncio.create_task(work(database, clock)) for work in (keep_renewing, keep_making)]


def _collect_seldom() -> None:
    """What is loaded now stays for good: a full collection would walk through all of it, 150 ms each time."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def create_app() -> OwnLoop:
    """Entry point: settings from the environment. Whether it lives is answered whatever it is busy with."""
    settings = Settings()
    structlog.configure(
        wrapper_class=structlog.make_filtering_bound_logger(settings.log_level.upper()),
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper("iso"),
            structlog.processors.format_exc_info,
            structlog.processors.JSONRenderer(),
        ],
    )
    door = Door(
        hosts=frozenset(host.strip().lower() for host in settings.hosts.split(",")),
        demo=settings.demo,
        first_code=settings.first_code,
        strict_transport=settings.strict_transport,
    )
    app = build_app(
        Database(settings.database_url),
        settings.static_dir,
        at_end=WORKERS.stop,
        door=door,
        renewing=True,
        metrics_token=settings.metrics_token,
    )
    at_once = Security(health.alive, hosts=door.hosts, strict_transport=door.strict_transport)
    return OwnLoop(app, at_once, frozenset({health.ALIVE}))
