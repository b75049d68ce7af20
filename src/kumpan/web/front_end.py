"""The built front end: the page, and its scripts, styles and fonts, which are named by what is in them."""

import os
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
        return FileResponse(index, headers=ALWAYS_FRESH)
