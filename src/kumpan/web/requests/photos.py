"""A photo as it is sent."""

from base64 import b64decode
from typing import Annotated

from pydantic import Field

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import PhotoOf, PhotoTaken
from kumpan.core.messages import Message
from kumpan.web.requests.base import Strict
from kumpan.web.requests.pools import StampIn


class PhotoIn(StampIn):
    """A photo as base64, JPEG, WebP or PNG; `about` names the entry, task or machine that it belongs to."""

    image: Annotated[str, Field(max_length=20_000_000)]
    shows: PhotoOf = PhotoOf.LOOK
    about: Annotated[str, Field(max_length=80)] = ""
    note: Annotated[str, Field(max_length=200)] = ""

    def content(self) -> bytes:
        """The file. Raises InvalidInput for what is no base64."""
        return _bytes_of(self.image)

    def to_core(self) -> PhotoTaken:
        return PhotoTaken(sha256="", shows=self.shows, about=self.about, note=self.note.strip())


class MarkIn(Strict):
    """A picture as base64, or None for none."""

    image: Annotated[str, Field(max_length=900_000)] | None

    def content(self) -> bytes | None:
        """The file. Raises InvalidInput for what is no base64."""
        return None if self.image is None else _bytes_of(self.image)


def _bytes_of(image: str) -> bytes:
    plain = image.partition(",")[2] if image.startswith("data:") else image
    try:
        return b64decode(plain, validate=True)
    except ValueError as trouble:
        raise InvalidInput(Message("image: is no base64; send the file's bytes so."), "image") from trouble
