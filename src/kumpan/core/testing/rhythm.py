"""How often water is tested, and how long a test speaks for the water.

Source: test-interval.
"""

from datetime import timedelta

TEST_EVERY = timedelta(days=3, hours=12)
TEST_HOLDS_DAYS = 4  # twice a week: after that nobody knows
SERVICE_HOLDS_DAYS = 8  # a weekly round, a day late
