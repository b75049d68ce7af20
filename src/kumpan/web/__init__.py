"""The web: routes, their schemas, and the one table from errors to status codes."""
