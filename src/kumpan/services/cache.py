"""The only cache of answers: what a pure function of the journal has found, kept by its whole question.

A question is the arguments as they are, every field of them. Nothing may be left out of it, so that no
answer outlives the setting that it was made with. Where a time may be rounded, the caller rounds it
before asking, and the answer is then one for the rounded time. Rows of the journal never change once
written, and are known by what names them.
"""

import asyncio
from collections import OrderedDict
from collections.abc import Awaitable, Callable, Hashable, Mapping
from dataclasses import fields, is_dataclass
from datetime import UTC, datetime
from typing import Any, Generic, ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")


class Remembered(Generic[P, R]):
    """A pure function whose latest answers are kept, the least used forgotten first.

    `most` answers are kept. `key` names a question otherwise than by its whole content; it is for stored
    rows, which never change.
    """

    def __init__(self, function: Callable[P, R], most: int, key: Callable[..., Hashable] | None) -> None:
        self.function, self.most = function, most
        self.__doc__, self.__name__ = function.__doc__, function.__name__
        self._key = key
        self._answers: OrderedDict[Hashable, R] = OrderedDict()
        self._going: dict[Hashable, asyncio.Future[R]] = {}

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> R:
        """The answer, kept or found now."""
        question = self.question(*args, **kwargs)
        if question not in self._answers:
            self._keep(question, self.function(*args, **kwargs))
        self._answers.move_to_end(question)
        return self._answers[question]

    async def awaited(self, work: Callable[[], Awaitable[R]], /, *args: P.args, **kwargs: P.kwargs) -> R:
        """The same answer, found by `work` elsewhere where it is not known yet (see workers.py)."""
        question = self.question(*args, **kwargs)
        if question not in self._answers:
            self._keep(question, await self._once(question, work))
        self._answers.move_to_end(question)
        return self._answers[question]

    async def _once(self, question: Hashable, work: Callable[[], Awaitable[R]]) -> R:
        """One page asks the same several times at once: all wait for the same work."""
        going = self._going.get(question)
        if going is None or going.get_loop() is not asyncio.get_running_loop():
            going = asyncio.ensure_future(work())
            self._going[question] = going
            going.add_done_callback(lambda _: self._going.pop(question, None))
        return await asyncio.shield(going)  # who goes away does not stop it for the others

    def question(self, *args: P.args, **kwargs: P.kwargs) -> Hashable:
        """What an answer is kept by. Raises TypeError for what has no fixed content."""
        if self._key is not None:
            return self._key(*args, **kwargs)
        return frozen((args, tuple(sorted(kwargs.items()))))

    def clear(self) -> None:
        """Forget all answers."""
        self._answers.clear()

    def _keep(self, question: Hashable, answer: R) -> None:
        self._answers[question] = answer
        while len(self._answers) > self.most:
            self._answers.popitem(last=False)


CACHES: list[Remembered[..., Any]] = []


class remembered:  # noqa: N801 - read as a decorator
    """Decorates a pure function: at most so many of its answers are kept."""

    def __init__(self, *, most: int, key: Callable[..., Hashable] | None = None) -> None:
        self.most, self.key = most, key

    def __call__(self, function: Callable[P, R]) -> Remembered[P, R]:
        """The function with its memory."""
        made = Remembered(function, self.most, self.key)
        CACHES.append(made)
        return made


def frozen(value: object) -> Hashable:
    """A value by its whole content. Raises TypeError for what can neither be hashed nor taken apart."""
    if isinstance(value, Mapping):
        return (Mapping, frozenset((name, frozen(each)) for name, each in value.items()))
    if isinstance(value, tuple | list):
        return tuple(frozen(each) for each in value)
    try:
        hash(value)
    except TypeError:
        if is_dataclass(value) and not isinstance(value, type):
            return (type(value), *(frozen(getattr(value, each.name)) for each in fields(value)))
        raise
    assert isinstance(value, Hashable)
    return value


def mark_of(now: datetime, *, every_s: int, entered: datetime | None = None) -> datetime:
    """The last full `every_s` seconds of the clock (UTC), or the last entry where that is later.

    Questions that move slowly are asked as of this moment: within it, all get the same answer.
    """
    mark = datetime.fromtimestamp(now.timestamp() // every_s * every_s, UTC)
    return mark if entered is None or entered <= mark else min(entered, now)
