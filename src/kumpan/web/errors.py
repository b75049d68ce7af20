"""The only table from errors to HTTP status, and the one shape in which errors go out."""

import re
from collections.abc import Sequence
from datetime import date

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from kumpan.core.errors import (
    Collided,
    Conflict,
    InvalidInput,
    KumpanError,
    NotFound,
    NotPermitted,
    OutOfScope,
    SignedOut,
    TooMany,
    Unavailable,
    UnreadableQuantity,
)
from kumpan.core.messages import Message, Verbatim
from kumpan.web.scope import reader_of, units_of
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

STATUS: dict[type[KumpanError], int] = {
    NotFound: 404,
    NotPermitted: 403,
    SignedOut: 401,
    TooMany: 429,
    Unavailable: 503,
    Conflict: 409,
    OutOfScope: 422,
    UnreadableQuantity: 422,
    InvalidInput: 422,
    KumpanError: 400,
}
AGAIN = "x-kumpan-again"  # inside the app only: `web/again.py` does the request once more and takes it off
_HTTP_WORDS = {
    400: Message("The request could not be read; send one JSON object."),
    404: Message("There is nothing at this address."),
    405: Message("This address does not take that method."),
}
_OTHER_STATUS = Message("The request could not be answered.")
_UNEXPECTED = Message("Something went wrong here; nothing was saved. Try once more.")

# What pydantic finds wrong with a field, by its kind, with the cure.
_CURES = {
    "missing": Message("{field}: is required."),
    "extra_forbidden": Message("{field}: is not a known field; remove it."),
    "float_type": Message("{field}: must be a number."),
    "float_parsing": Message("{field}: must be a number."),
    "finite_number": Message("{field}: must be a finite number."),
    "bool_type": Message("{field}: must be true or false."),
    "json_invalid": Message("{field}: is not valid JSON."),
    "model_attributes_type": Message("{field}: must be a JSON object."),
    "model_type": Message("{field}: must be a JSON object."),
    "list_type": Message("{field}: must be a list."),
    "string_type": Message("{field}: must be text."),
    "timezone_aware": Message("{field}: a time needs its zone, like 2026-06-01T18:40:00Z."),
    "date_from_datetime_parsing": Message("{field}: is no day of the calendar; write it like 2026-06-01."),
    "datetime_from_date_parsing": Message("{field}: is no time; write it like 2026-06-01T18:40:00Z."),
    "datetime_parsing": Message("{field}: is no time; write it like 2026-06-01T18:40:00Z."),
    "date_parsing": Message("{field}: is no day of the calendar; write it like 2026-06-01."),
}
_LIMITS = {
    "gt": Message("{field}: must be greater than {limit}."),
    "ge": Message("{field}: must be at least {limit}."),
    "lt": Message("{field}: must be less than {limit}."),
    "le": Message("{field}: must be at most {limit}."),
}


def error_response(status: int, code: str, message: str, field: str | None = None) -> JSONResponse:
    """An error in the form of the API."""
    return JSONResponse({"error": {"code": code, "message": message, "field": field}}, status)


def status_of(trouble: KumpanError) -> int:
    """The HTTP status of one of our errors."""
    return next(STATUS[kind] for kind in type(trouble).__mro__ if kind in STATUS)


def install(app: FastAPI) -> None:
    """Attach the handlers to the app."""

    @app.exception_handler(KumpanError)
    async def known(request: Request, trouble: KumpanError) -> JSONResponse:
        words = render(trouble.message, reader_at(request))
        answer = error_response(status_of(trouble), trouble.code, words, trouble.field)
        if isinstance(trouble, Collided):
            answer.headers[AGAIN] = "1"
        return answer

    @app.exception_handler(RequestValidationError)
    async def invalid(request: Request, trouble: RequestValidationError) -> JSONResponse:
        field, message = sentence(trouble.errors())
        return error_response(422, "invalid", render(message, reader_at(request)), field)

    @app.exception_handler(HTTPException)
    async def http(request: Request, trouble: HTTPException) -> JSONResponse:
        message = _HTTP_WORDS.get(trouble.status_code, _OTHER_STATUS)
        answer = error_response(trouble.status_code, "http", render(message, reader_at(request)))
        answer.headers.update(trouble.headers or {})  # such as which methods an address does take
        return answer


def unexpected(request: Request, trouble: Exception) -> JSONResponse:
    """The answer to a fault of ours, which is logged here and nowhere else."""
    structlog.get_logger().error("unexpected error", exc_info=trouble)
    return error_response(500, "internal", render(_UNEXPECTED, reader_at(request)))


def reader_at(request: Request) -> Reader:
    """Who reads an error: found before the query was checked, so all but "true" means US units."""
    metric = request.query_params.get("metric", "").lower() in ("true", "1")
    return reader_of(request, units_of(metric=metric))


def sentence(errors: Sequence[dict[str, object]]) -> tuple[str, Message]:
    """The field's path and one sentence that names it and says the cure, from pydantic's errors."""
    first = next((e for e in errors if e.get("type") == "extra_forbidden"), errors[0])
    loc = first.get("loc")
    path = [part for part in (loc if isinstance(loc, tuple) else ()) if part != "body"]
    field = ".".join(str(part) for part in path).encode("ascii", "backslashreplace").decode()[:200] or "body"
    return field, _cure(first, Verbatim(field))


def _limit(limit: object) -> str:
    """A number in its shortest form; a day or a time by its day, which is all that such a limit is about."""
    if isinstance(limit, int | float):
        return f"{limit:g}"
    written = re.match(r"datetime\.date\((\d+), (\d+), (\d+)\)", str(limit))  # Pydantic's words for a day
    return date(*map(int, written.groups())).isoformat() if written else str(limit)[:10]


def _cure(error: dict[str, object], field: Verbatim) -> Message:
    kind, context = str(error.get("type")), error.get("ctx")
    details = context if isinstance(context, dict) else {}
    if kind in _CURES:
        return Message(_CURES[kind].template, field=field)
    if isinstance(details.get("message"), Message):
        return Message("{field}: {why}", field=field, why=details["message"])
    for key, message in _LIMITS.items():
        if key in details:
            return Message(message.template, field=field, limit=Verbatim(_limit(details[key])))
    if kind == "enum" and error.get("input") in ("", None):
        return Message("{field}: nothing is picked yet; pick one.", field=field)
    if kind == "enum":
        return Message(
            "{field}: must be one of {known}.", field=field, known=Verbatim(str(details["expected"]))
        )
    text = str(error.get("msg", "is not valid"))
    text = (text[0].lower() + text[1:]).rstrip(".").encode("ascii", "backslashreplace").decode()[:300]
    return Message("{field}: {why}.", field=field, why=Verbatim(text))
