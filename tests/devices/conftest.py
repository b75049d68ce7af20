"""The same API over the real database that the web tests use."""

from tests.web.conftest import api

__all__ = ["api"]
