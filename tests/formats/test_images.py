"""Photos made anew: upright, small, and without a trace of where they were taken; hostile ones are refused."""

import io
import random
import struct
import zlib

import pytest
from PIL import Image

from kumpan.core.errors import InvalidInput
from kumpan.formats.images import LONGEST_SIDE, THUMB_SIDE, made_anew


def picture(
    width: int = 400, height: int = 300, kind: str = "JPEG", mode: str = "RGB", **more: object
) -> bytes:
    """Red on the left, blue on the right."""
    made = Image.new("RGB", (width, height), "blue")
    made.paste("red", (0, 0, width // 2, height))
    out = io.BytesIO()
    made.convert(mode).save(out, kind, **more)
    return out.getvalue()


def opened(content: bytes) -> Image.Image:
    return Image.open(io.BytesIO(content))


@pytest.mark.parametrize(
    ("kind", "mode"),
    [("JPEG", "RGB"), ("WEBP", "RGB"), ("PNG", "RGBA"), ("PNG", "P"), ("JPEG", "L"), ("JPEG", "CMYK")],
)
def test_every_usual_form_becomes_one(kind: str, mode: str) -> None:
    photo = made_anew(picture(kind=kind, mode=mode))
    found = opened(photo.jpeg)
    assert (found.format, found.mode, found.size) == ("JPEG", "RGB", (400, 300))
    assert max(opened(photo.thumb).size) == THUMB_SIDE


def test_a_large_one_is_made_smaller_and_keeps_its_shape() -> None:
    photo = made_anew(picture(4000, 3000))
    assert (photo.width, photo.height) == (LONGEST_SIDE, LONGEST_SIDE * 3 // 4)


def with_exif() -> bytes:
    """Turned by 90 degrees, with a camera, a comment and a place."""
    exif = Image.Exif()
    exif[0x0112] = 6
    exif[0x010F] = "A camera"
    place = exif.get_ifd(0x8825)
    place[1], place[2] = "N", (41.0, 51.0, 0.0)
    return picture(exif=exif, comment=b"taken at home")


def test_it_is_turned_upright_and_says_nothing_of_where() -> None:
    sent = with_exif()
    assert b"A camera" in sent
    photo = made_anew(sent)
    found = opened(photo.jpeg)
    assert found.size == (300, 400)
    assert found.getpixel((150, 20))[0] > 200  # type: ignore[index]
    assert (dict(found.getexif()), found.info.get("comment"), found.info.get("icc_profile")) == (
        {},
        None,
        None,
    )
    for word in (b"camera", b"Exif", b"taken at home"):
        assert word not in photo.jpeg
        assert word not in photo.thumb


def test_what_shines_through_stands_on_white() -> None:
    out = io.BytesIO()
    Image.new("RGBA", (10, 10), (0, 0, 0, 0)).save(out, "PNG")
    assert opened(made_anew(out.getvalue()).jpeg).getpixel((5, 5)) == (255, 255, 255)


def png_of(width: int, height: int) -> bytes:
    """A few bytes that claim to be a picture of any size."""

    def chunk(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + chunk(b"IDAT", zlib.compress(b"\x00" * 100))
        + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "no JPEG"),
        (b"hello", "no JPEG"),
        (b"\x00\x00\x00\x18ftypheic\x00\x00", "HEIC"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no JPEG"),
        (b"GIF89a\x01\x00\x01\x00\x00\x00\x00;", "no JPEG"),
        (png_of(60_000, 60_000), "no JPEG|pixels"),
        (png_of(9_000, 9_000), "pixels"),
        (picture()[:200], "no JPEG"),
        (b"%PDF-1.7", "no JPEG"),
        (b"BM" + b"\x00" * 60, "no JPEG"),
    ],
    ids=range(10),
)  # fmt: skip
def test_what_is_no_photo_is_refused_with_the_cure(content: bytes, said: str) -> None:
    with pytest.raises(InvalidInput, match=said) as refused:
        made_anew(content)
    assert refused.value.field == "image"


def test_five_hundred_hostile_images_are_made_anew_or_refused() -> None:
    """Good ones with bytes changed, cut, doubled and claimed to be others."""
    chance = random.Random(500)
    good = [
        picture(60, 40, kind, mode) for kind, mode in (("JPEG", "RGB"), ("PNG", "RGBA"), ("WEBP", "RGB"))
    ] + [with_exif()]
    made = refused = 0
    for _ in range(500):
        content = bytearray(chance.choice(good))
        for _ in range(chance.randint(1, 30)):
            content[chance.randrange(len(content))] = chance.randrange(256)
        if chance.random() < 0.3:
            del content[chance.randrange(len(content)) :]
        if chance.random() < 0.2:
            content += bytes(chance.randrange(256) for _ in range(50))
        try:
            photo = made_anew(bytes(content))
        except InvalidInput:
            refused += 1
        else:
            made += 1
            assert opened(photo.jpeg).format == "JPEG"
    assert made + refused == 500
    assert made > 20
    assert refused > 100
