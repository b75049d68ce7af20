"""Kumpan: a poolside companion. The rules live in `core`, the journal in `storage`, the web in `web`."""
