"""The journal in MariaDB. SQLAlchemy stays in here; repositories flush, the use case commits."""
