"""Debian's Chromium as the tools and the browser tests start it."""

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
DESK = (1280, 800)
PHONE = (390, 844)
