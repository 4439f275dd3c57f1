"""Pictures taken in: made smaller, turned upright, rid of metadata; and what is no picture refused."""

import io
import struct
import zlib

import pytest
from PIL import Image

from amber_gable.domain.errors import InputError
from amber_gable.exchange.job.photos import clean_photo


def picture(kind: str = "JPEG", size: tuple[int, int] = (300, 200), **more: object) -> bytes:
    out = io.BytesIO()
    image = Image.new("RGB", size, "#888888")
    image.paste("#cc2222", (0, 0, size[0] // 2, size[1] // 2))
    image.save(out, kind, **more)
    return out.getvalue()


def _png_that_unpacks_to(width: int, height: int) -> bytes:
    """A small file whose header promises a huge picture."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    header = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    body = zlib.compress(b"\0" * 1_000_000, 9)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + chunk(b"IDAT", body) + chunk(b"IEND", b"")


def test_a_photo_is_turned_upright_and_loses_where_it_was_taken() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # held on its side
    exif[0x010F] = "Maker"
    exif.get_ifd(0x8825)[1] = "N"
    clean = clean_photo(picture(size=(300, 200), exif=exif), "p.jpg")
    opened = Image.open(io.BytesIO(clean.data))
    assert (opened.format, opened.size, (clean.width_px, clean.height_px)) == ("JPEG", (200, 300), (200, 300))
    assert not opened.getexif()
    assert b"Maker" not in clean.data
    red, _, _ = opened.getpixel((150, 50))  # type: ignore[misc]
    assert red > 180, "what was at the upper left is at the upper right now"


def test_a_large_picture_is_made_smaller() -> None:
    clean = clean_photo(picture("PNG", (4000, 1000)), "p.png")
    assert (clean.width_px, clean.height_px) == (2400, 600)


REFUSED = [
    (b"", "not a JPEG or PNG"),
    (b"just text", "not a JPEG or PNG"),
    (
        b'<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>',
        "can hold script",
    ),
    (b"<svg onload=alert(1)>", "can hold script"),
    (b"GIF89a" + b"\0" * 50, "not a JPEG or PNG"),
    (picture()[:400], "broken picture"),
    (b"\xff\xd8\xff" + b"\0" * 500, "broken picture"),
    (b"\x89PNG\r\n\x1a\n" + b"\0" * 100, "broken picture"),
    (_png_that_unpacks_to(60_000, 60_000), "million pixels|more than 60 million"),
    (_png_that_unpacks_to(9000, 8000), "9000 × 8000"),
    (b"\xff\xd8\xff" + b"\0" * (10 * 1024 * 1024), "larger than 10 MB"),
]


@pytest.mark.parametrize(("data", "words"), REFUSED, ids=range(len(REFUSED)))
def test_what_is_no_photo_is_refused(data: bytes, words: str) -> None:
    with pytest.raises(InputError, match=words):
        clean_photo(data, "upload")
