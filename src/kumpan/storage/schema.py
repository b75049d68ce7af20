"""Which version of the database this program needs: that of the last migration."""

HEAD = "0017"
