"""Photos as they come from phones, made anew: turned upright, of one format and size, with nothing of where
or by what they were taken.
"""

import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message

LONGEST_SIDE, THUMB_SIDE = 1600, 320
MOST_PIXELS = 60_000_000
QUALITY, THUMB_QUALITY = 82, 72
FORMATS = ("JPEG", "WEBP", "PNG")
_HEIC = (b"ftypheic", b"ftypheix", b"ftypmif1", b"ftyphevc", b"ftypavif")
FIELD = "image"


@dataclass(frozen=True)
class Photo:
    """A JPEG and a small one of it."""

    jpeg: bytes
    thumb: bytes
    width: int
    height: int


def made_anew(content: bytes) -> Photo:
    """The picture alone. Raises InvalidInput for what is no JPEG, WebP or PNG of a usual size."""
    if content[4:12] in _HEIC:
        raise InvalidInput(
            Message("image: is in HEIC, which few programs read; set the phone to JPEG, or send a JPEG."),
            FIELD,
        )
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            picture = _opened(content)
    except InvalidInput:
        raise
    # Its decoders raise whatever they meet in a broken file: struct errors, index errors, too many pixels.
    except Exception as trouble:
        raise InvalidInput(
            Message("image: is no JPEG, WebP or PNG that can be read; take it again or choose another."),
            FIELD,
        ) from trouble
    picture.thumbnail((LONGEST_SIDE, LONGEST_SIDE), Image.Resampling.LANCZOS)
    small = picture.copy()
    small.thumbnail((THUMB_SIDE, THUMB_SIDE), Image.Resampling.LANCZOS)
    return Photo(_jpeg(picture, QUALITY), _jpeg(small, THUMB_QUALITY), picture.width, picture.height)


def _opened(content: bytes) -> Image.Image:
    with Image.open(io.BytesIO(content), formats=FORMATS) as found:
        if found.width * found.height > MOST_PIXELS or min(found.size) < 1:
            raise InvalidInput(Message("image: has too many pixels; send a smaller one."), FIELD)
        if found.format == "JPEG":
            found.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))  # decoded small at once, where it is much larger
        upright = ImageOps.exif_transpose(found)
        if upright.mode in ("RGBA", "LA", "P", "PA"):
            over = upright.convert("RGBA")
            white = Image.new("RGB", over.size, "white")
            white.paste(over, mask=over.getchannel("A"))
            return white
        return upright.convert("RGB")


def _jpeg(picture: Image.Image, quality: int) -> bytes:
    """Without EXIF, profile or comment: a fresh image carries none into the file."""
    plain = Image.new("RGB", picture.size)
    plain.paste(picture)
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=quality, optimize=True, progressive=True)
    return out.getvalue()
