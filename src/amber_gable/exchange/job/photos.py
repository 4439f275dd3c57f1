"""Photos taken in: checked, turned upright, made smaller, and written anew without what the camera wrote about
itself."""

import hashlib
import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps

from amber_gable.domain.errors import InputError
from amber_gable.exchange.sizes import SIZE_LIMIT

MOST_PIXELS, LONGEST_PX, QUALITY = 60_000_000, 2400, 85
_TODO = "choose a JPEG or PNG picture of at most 10 MB"


@dataclass(frozen=True)
class CleanPhoto:
    """A JPEG without metadata."""

    data: bytes
    width_px: int
    height_px: int

    @property
    def sha256(self) -> str:
        return hashlib.sha256(self.data).hexdigest()


def clean_photo(data: bytes, name: str) -> CleanPhoto:
    """The picture as a JPEG of at most 2400 px a side. Raises InputError for what is no photo or would burst memory."""
    if len(data) > SIZE_LIMIT:
        raise InputError(name, "the picture is larger than 10 MB", "make it smaller first")
    if not data.startswith((b"\xff\xd8\xff", b"\x89PNG\r\n\x1a\n")):
        kind = "a drawing that can hold script" if b"<svg" in data[:2000].lower() else "not a JPEG or PNG picture"
        raise InputError(name, f"is {kind}", _TODO)
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=("JPEG", "PNG")) as opened:
                # The header tells the size before anything is unpacked.
                width, height = opened.size
                if width * height > MOST_PIXELS:
                    words = f"unpacks to {width} × {height} pixels, more than {MOST_PIXELS // 1_000_000} million"
                    raise InputError(name, words, "make it smaller first")
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (Image.DecompressionBombError, Image.DecompressionBombWarning):
        raise InputError(name, f"unpacks to more than {MOST_PIXELS // 1_000_000} million pixels", _TODO) from None
    except (OSError, ValueError, SyntaxError) as error:
        raise InputError(name, f"is a broken picture ({str(error)[:80]})", _TODO) from None
    upright.thumbnail((LONGEST_PX, LONGEST_PX), Image.Resampling.LANCZOS)
    plain = Image.new("RGB", upright.size)
    plain.paste(upright)
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return CleanPhoto(out.getvalue(), *plain.size)
