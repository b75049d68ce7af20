"""The built front end: the page, and its scripts, styles and fonts, which are named by what is in them."""

from mimetypes import guess_type
from pathlib import Path

from fastapi import FastAPI, Request
from starlette.responses import FileResponse, Response

from kumpan.web import errors

ALWAYS_FRESH = {"Cache-Control": "no-cache"}
FOR_EVER = {"Cache-Control": "public, max-age=31536000, immutable"}
PACKED = ".gz"


class Assets:
    """Files that never change, read once and then held: the first page waits for five of them, and to read
    one from the disk costs more than all else that is done to answer it. Scripts and styles are sent as the
    build packed them: to pack half a megabyte for each visit would keep everybody else waiting.
    """

    def __init__(self, directory: Path) -> None:
        self._directory = directory
        self._held: dict[str, bytes] = {}

    def response(self, name: str, *, packed: bool) -> Response:
        """The file of that name, packed where it is there so and the browser unpacks it; 404 for no file."""
        content = self._read(name)
        if content is None:
            return errors.error_response(404, "http", "There is nothing at this address.")
        headers, media_type = dict(FOR_EVER), guess_type(name)[0]
        smaller = self._read(f"{name}{PACKED}") if packed else None
        if smaller is not None:
            content = smaller
            headers |= {"Content-Encoding": "gzip", "Vary": "Accept-Encoding"}
        return Response(content, headers=headers, media_type=media_type)

    def _read(self, name: str) -> bytes | None:
        if name not in self._held:
            file = _file_in(self._directory, name)
            # What is not there is asked for again: the front end may be built while the server runs.
            if file is None:
                return None
            self._held[name] = file.read_bytes()
        return self._held[name]


def _file_in(directory: Path, name: str) -> Path | None:
    """The file of that name in the folder or below it; None for any other, and for what can be no name."""
    try:
        file = (directory / name).resolve()
        return file if file.is_relative_to(directory.resolve()) and file.is_file() else None
    except (ValueError, OSError):  # a null byte; longer than a name may be
        return None


def install(app: FastAPI, static_dir: Path) -> None:
    """Hashed assets for ever, the page itself always fresh; unknown paths are the app's own routes."""
    assets = Assets(static_dir / "assets")
    index = static_dir / "index.html"

    @app.api_route("/assets/{name:path}", methods=["GET", "HEAD"], include_in_schema=False)
    async def asset(name: str, request: Request) -> Response:
        return assets.response(name, packed="gzip" in request.headers.get("accept-encoding", ""))

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str) -> Response:
        if path.startswith("api/"):
            return errors.error_response(404, "http", "There is nothing at this address.")
        file = _file_in(static_dir, path)
        if file is not None:
            return FileResponse(file, headers=ALWAYS_FRESH)
        return Response(index.read_bytes(), headers=ALWAYS_FRESH, media_type="text/html")
