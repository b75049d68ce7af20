"""What stays with those who wrote it: notes marked internal, secrets, and what nobody here can read."""

from kumpan.core.journal import FeedOpened, NotUnderstood, VisitDone, for_others


def test_a_visit_is_told_without_its_internal_note() -> None:
    visit = VisitDone("Filter cleaned.", trade="pump", internal_note="Bill extra.")
    assert for_others(visit) == VisitDone("Filter cleaned.", trade="pump")


def test_a_secret_stays() -> None:
    assert for_others(FeedOpened("s3cret")) == FeedOpened("")


def test_what_this_version_cannot_read_is_withheld_whole() -> None:
    """A row of a newer program: it may hold an internal note under any name."""
    newer = NotUnderstood("visit", '{"internal_note": "Bill extra.", "v": 9}', "newer")
    assert for_others(newer) == NotUnderstood("visit", "{}", "newer")
