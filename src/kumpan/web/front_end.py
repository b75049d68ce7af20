"""The built front end: the page, and its scripts, styles and fonts, which are named by what is in them."""

import os
import re
from mimetypes import guess_type
from pathlib import Path

from fastapi import FastAPI
from starlette.datastructures import Headers
from starlette.responses import FileResponse, Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from kumpan.web import errors

ALWAYS_FRESH = {"Cache-Control": "no-cache"}
FOR_EVER = "public, max-age=31536000, immutable"
PACKED = ".gz"

# What Today asks whatever the reader's units are. The browser begins with it while the page's first script is
# on its way; the screens ask the same and find it answered. A pool's page is the one that opens the most.
TODAY = re.compile(r"pools/[0-9a-f-]{36}")
TODAY_ASKS = ("", "/board", "/today", "/assessment")


class Assets(StaticFiles):
    """Static files that never change, taken as they were packed at the build where the browser unpacks them:
    to pack half a megabyte anew for each visit would keep everybody else waiting.
    """

    def file_response(
        self,
        full_path: os.PathLike[str] | str,
        stat_result: os.stat_result,
        scope: Scope,
        status_code: int = 200,
    ) -> Response:
        """The file, or what the build packed of it; kept by the browser for a year."""
        packed = Path(f"{os.fspath(full_path)}{PACKED}")
        response: Response
        if "gzip" in Headers(scope=scope).get("accept-encoding", "") and packed.is_file():
            kind, _ = guess_type(full_path)
            headers = {"Content-Encoding": "gzip", "Vary": "Accept-Encoding"}
            response = FileResponse(packed, status_code=status_code, headers=headers, media_type=kind)
        else:
            response = super().file_response(full_path, stat_result, scope, status_code)
        response.headers["Cache-Control"] = FOR_EVER
        return response


def install(app: FastAPI, static_dir: Path) -> None:
    """Hashed assets for ever, the page itself always fresh; unknown paths are the app's own routes."""
    app.mount("/assets", Assets(directory=static_dir / "assets"), name="assets")
    index = static_dir / "index.html"

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            return errors.error_response(404, "http", "There is nothing at this address.")
        file = (static_dir / path).resolve()
        inside = file.is_relative_to(static_dir.resolve())
        if path and inside and file.is_file():
            return FileResponse(file, headers=ALWAYS_FRESH)
        return FileResponse(index, headers=ALWAYS_FRESH | _asked_at_once(path))


def _asked_at_once(path: str) -> dict[str, str]:
    if not TODAY.fullmatch(path):
        return {}
    asked = ["/api/v1/auth/state", *(f"/api/v1/{path}{end}" for end in TODAY_ASKS)]
    return {"Link": ", ".join(f"<{address}>; rel=preload; as=fetch; crossorigin" for address in asked)}
