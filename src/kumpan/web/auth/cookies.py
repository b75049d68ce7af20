"""The cookies of a session and of a guest: unreadable for scripts, sent to this site only."""

from datetime import timedelta

from starlette.requests import HTTPConnection
from starlette.responses import Response

SESSION, GUEST = "kumpan", "kumpan-guest"


def name_of(cookie: str, *, https: bool) -> str:
    """Under TLS the name itself forbids other paths and hosts (`__Host-`); browsers refuse that on http."""
    return f"__Host-{cookie}" if https else cookie


def value_of(connection: HTTPConnection, cookie: str) -> str | None:
    """What the browser sent."""
    return connection.cookies.get(name_of(cookie, https=connection.url.scheme == "https"))


def set_cookie(
    response: Response, connection: HTTPConnection, cookie: str, *, secret: str, lasts: timedelta
) -> None:
    """Give the browser a secret."""
    https = connection.url.scheme == "https"
    response.set_cookie(
        name_of(cookie, https=https),
        secret,
        max_age=int(lasts.total_seconds()),
        path="/",
        secure=https,
        httponly=True,
        samesite="strict",
    )


def drop_cookie(response: Response, connection: HTTPConnection, cookie: str) -> None:
    """Take it away again."""
    https = connection.url.scheme == "https"
    response.delete_cookie(
        name_of(cookie, https=https), path="/", secure=https, httponly=True, samesite="strict"
    )
