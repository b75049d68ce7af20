"""Whether the process lives (`/api/health`), and whether it can serve (`/api/ready`): open to all."""

from fastapi import FastAPI, Request
from fastapi.responses import JSONResponse
from starlette.types import Receive, Scope, Send

from kumpan.core.errors import Unavailable
from kumpan.storage.schema import HEAD
from kumpan.storage.transaction import Database
from kumpan.web.errors import reader_at
from kumpan.wording.render import render

ALIVE = "/api/health"


async def alive(scope: Scope, receive: Receive, send: Send) -> None:
    """The same answer for the server's own loop, whatever the app is busy with."""
    await JSONResponse({"ok": True})(scope, receive, send)


def install(app: FastAPI) -> None:
    """Attach both to the app."""

    @app.get(ALIVE, include_in_schema=False)
    def health() -> JSONResponse:
        """The process lives; nothing else is asked."""
        return JSONResponse({"ok": True})

    @app.get("/api/ready", include_in_schema=False)
    async def ready(request: Request) -> JSONResponse:
        """The database answers within a second, and it is of this program's version; else 503 and why."""
        database: Database | None = request.app.state.database
        reason = "There is no database." if database is None else ""
        if database is not None:
            try:
                revision = await database.revision()
                if revision != HEAD:
                    reason = f"The database is at version {revision or 'none'}, the program at {HEAD}."
            except Unavailable as trouble:
                reason = render(trouble.message, reader_at(request))
        return JSONResponse({"ready": not reason, "reason": reason}, 503 if reason else 200)
