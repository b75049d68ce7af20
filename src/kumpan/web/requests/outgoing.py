"""What somebody wants by mail; other programs that are told."""

from typing import Annotated

from pydantic import Field, StrictInt

from kumpan.core.quantities.units import Units
from kumpan.services.outgoing.choices import Letter
from kumpan.web.requests.base import Strict


class MailChoiceIn(Strict):
    """Which letters, where to, and from which hour of one's own day."""

    address: Annotated[str, Field(max_length=254)] = ""
    kinds: Annotated[list[Letter], Field(max_length=10)] = []
    hour: Annotated[StrictInt, Field(ge=0, le=23)] = 8
    time_zone: Annotated[str, Field(max_length=64)]
    units: Units = Units.US


class HookIn(Strict):
    """The address of a program."""

    url: Annotated[str, Field(min_length=1, max_length=500)]


class PushDeviceIn(Strict):
    """A browser, as it says where messages reach it (its push service and its two keys, base64url)."""

    name: Annotated[str, Field(max_length=80)] = ""
    endpoint: Annotated[str, Field(min_length=1, max_length=500)]
    p256dh: Annotated[str, Field(min_length=1, max_length=120)]
    auth: Annotated[str, Field(min_length=1, max_length=40)]
