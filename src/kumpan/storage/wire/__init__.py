"""The stored form of the journal: a contract of its own, apart from today's classes."""
