"""How often somebody may try to sign in: per account and address, and per address.

Nobody is locked out of an account by others: the right password is served from any other address.
"""

from dataclasses import dataclass

from limits import RateLimitItemPerMinute
from limits.aio.storage import Storage
from limits.aio.strategies import FixedWindowRateLimiter

PER_ACCOUNT = RateLimitItemPerMinute(10, 15)
PER_ADDRESS = RateLimitItemPerMinute(60, 15)


@dataclass(frozen=True)
class Throttle:
    """The counts of one installation."""

    storage: Storage

    async def seconds_left(self, login: str, address: str) -> int:
        """How long to wait before another attempt; 0: go on. Counts nothing."""
        limiter = FixedWindowRateLimiter(self.storage)
        left = 0
        for limit, names in _limits(login, address):
            if not await limiter.test(limit, *names):
                stats = await limiter.get_window_stats(limit, *names)
                left = max(left, int(stats.reset_time))
        return left

    async def failed(self, login: str, address: str) -> None:
        """One more that failed."""
        limiter = FixedWindowRateLimiter(self.storage)
        for limit, names in _limits(login, address):
            await limiter.hit(limit, *names)

    async def succeeded(self, login: str, address: str) -> None:
        """The account's own count from here begins anew."""
        await FixedWindowRateLimiter(self.storage).clear(PER_ACCOUNT, *_account(login, address))


def _limits(login: str, address: str) -> tuple[tuple[RateLimitItemPerMinute, tuple[str, ...]], ...]:
    return (PER_ACCOUNT, _account(login, address)), (PER_ADDRESS, ("address", address))


def _account(login: str, address: str) -> tuple[str, ...]:
    return "account", login.strip().casefold()[:300], address
