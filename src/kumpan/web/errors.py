"""The only table from errors to HTTP status, and the one shape in which errors go out."""

from collections.abc import Sequence

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from kumpan.core.errors import Conflict, InvalidInput, KumpanError, NotFound, OutOfScope, UnreadableQuantity

STATUS: dict[type[KumpanError], int] = {
    NotFound: 404,
    Conflict: 409,
    OutOfScope: 422,
    UnreadableQuantity: 422,
    InvalidInput: 422,
    KumpanError: 400,
}
_HTTP_WORDS = {
    400: "The request could not be read; send one JSON object.",
    404: "There is nothing at this address.",
    405: "This address does not take that method.",
}


def error_response(status: int, code: str, message: str, field: str | None = None) -> JSONResponse:
    return JSONResponse({"error": {"code": code, "message": message, "field": field}}, status)


def status_of(trouble: KumpanError) -> int:
    return next(STATUS[kind] for kind in type(trouble).__mro__ if kind in STATUS)


def install(app: FastAPI) -> None:
    """Attach the handlers to the app."""

    @app.exception_handler(KumpanError)
    async def known(_request: Request, trouble: KumpanError) -> JSONResponse:
        return error_response(status_of(trouble), trouble.code, trouble.message, trouble.field)

    @app.exception_handler(RequestValidationError)
    async def invalid(_request: Request, trouble: RequestValidationError) -> JSONResponse:
        field, message = sentence(trouble.errors())
        return error_response(422, "invalid", message, field)

    @app.exception_handler(HTTPException)
    async def http(_request: Request, trouble: HTTPException) -> JSONResponse:
        message = _HTTP_WORDS.get(trouble.status_code, "The request could not be answered.")
        return error_response(trouble.status_code, "http", message)

    @app.exception_handler(Exception)
    async def unknown(_request: Request, trouble: Exception) -> JSONResponse:
        structlog.get_logger().error("unexpected error", exc_info=trouble)
        return error_response(500, "internal", "Something went wrong here; nothing was saved. Try once more.")


def sentence(errors: Sequence[dict[str, object]]) -> tuple[str, str]:
    """The field's path and one sentence that names it and says the cure, from pydantic's errors."""
    first = next((e for e in errors if e.get("type") == "extra_forbidden"), errors[0])
    loc = first.get("loc")
    path = [part for part in (loc if isinstance(loc, tuple) else ()) if part != "body"]
    field = ".".join(str(part) for part in path).encode("ascii", "backslashreplace").decode()[:200] or "body"
    return field, f"{field}: {_cure(first)}."


def _cure(error: dict[str, object]) -> str:
    kind, context = str(error.get("type")), error.get("ctx")
    limits = context if isinstance(context, dict) else {}
    fixed = {
        "missing": "is required",
        "extra_forbidden": "is not a known field; remove it",
        "float_type": "must be a number",
        "float_parsing": "must be a number",
        "finite_number": "must be a finite number",
        "bool_type": "must be true or false",
        "json_invalid": "is not valid JSON",
        "model_attributes_type": "must be a JSON object",
        "model_type": "must be a JSON object",
        "list_type": "must be a list",
        "string_type": "must be text",
    }
    if kind in fixed:
        return fixed[kind]
    if kind in ("greater_than", "greater_than_equal", "less_than", "less_than_equal"):
        word = {"gt": "greater than", "ge": "at least", "lt": "less than", "le": "at most"}
        key, limit = next((k, v) for k, v in limits.items() if k in word)
        return f"must be {word[key]} {limit:g}"
    if kind == "enum":
        return f"must be one of {limits.get('expected')}"
    text = str(error.get("msg", "is not valid"))
    return (text[0].lower() + text[1:]).rstrip(".").encode("ascii", "backslashreplace").decode()[:300]
