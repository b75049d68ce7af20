"""Debian's Chromium as the tools and the browser tests start it, signed in as one of the demo's people."""

from playwright.sync_api import BrowserContext

IDLE_CLOSED = 2  # an idle connection may be closed in the moment it is used again; then it is asked once more
OFFICE = "Ines Varga"

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
DESK = (1280, 800)
PHONE = (390, 844)


def enter(context: BrowserContext, name: str = OFFICE) -> str:
    """Sign a context in as one of the demo's people; the person's id."""
    demo = context.request.get("/api/v1/auth/state", max_retries=IDLE_CLOSED).json()["demo"]
    person = next(str(one["id"]) for one in demo if one["name"] == name)
    reply = context.request.post("/api/v1/auth/demo", data={"person_id": person}, max_retries=IDLE_CLOSED)
    assert reply.ok, reply.text()
    return person
