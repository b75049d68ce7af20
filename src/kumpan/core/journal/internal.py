"""What stays with those who wrote it: notes marked internal, and secrets. Everybody else reads the rest."""

from dataclasses import replace
from typing import TypeVar

from kumpan.core.journal.entry import Body, NotUnderstood
from kumpan.core.journal.maintenance_entries import FeedOpened
from kumpan.core.journal.workspace_entries import VisitDone

B = TypeVar("B", bound=Body)


def for_others(body: B) -> B:
    """The body as a customer, a guest or another workspace reads it."""
    if isinstance(body, VisitDone):
        return replace(body, internal_note="")
    if isinstance(body, FeedOpened):
        return replace(body, secret="")
    if isinstance(body, NotUnderstood):
        return replace(body, stored="{}")  # nobody can say what of it is internal
    return body
