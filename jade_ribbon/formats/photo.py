"""Photographs: kept small, turned upright, and stripped of where and with what they were taken."""

import io
import warnings
from typing import TYPE_CHECKING

from jade_ribbon.core.quantities.errors import InputError, refuse

if TYPE_CHECKING:
    from PIL.Image import Image

FORMATS = ("JPEG", "PNG", "WEBP")
MOST_SIDE_PX = 1280
MOST_PIXELS = 60_000_000
STRIP_PX = 512
QUALITIES = (80, 65, 50, 35, 20)
MOST_BYTES = 8_000_000
KEPT_BYTES = 400_000
"""A photograph is kept as well as this many bytes let it be."""


def small_jpeg(data: bytes) -> bytes:
    """A photograph as a small JPEG without any of its data. InputError for anything else.

    The count of pixels is looked at before any is unpacked.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    if len(data) > MOST_BYTES:
        raise _refused(f"has {len(data) / 1e6:.1f} MB; up to {MOST_BYTES / 1e6:.0f} MB")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            picture = Image.open(io.BytesIO(data), formats=FORMATS)
            if picture.width * picture.height > MOST_PIXELS:
                raise _refused(f"holds {picture.width} x {picture.height} pixels")
            picture.draft("RGB", (MOST_SIDE_PX, MOST_SIDE_PX))
            small = _shrunk(picture)
            small.info = {"exif": picture.getexif().tobytes()}
            upright = ImageOps.exif_transpose(small)
            upright.info = {}
            upright.thumbnail((MOST_SIDE_PX, MOST_SIDE_PX))
            kept = _within(upright)
    except InputError:
        raise
    except (Image.DecompressionBombWarning, Image.DecompressionBombError) as problem:
        raise _refused("unpacks to too much") from problem
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Warning) as problem:
        raise _refused("cannot be read") from problem
    return kept


def _shrunk(picture: "Image") -> "Image":
    """A picture in colour of eight bits, some times smaller, strip by strip: the largest are
    turned and converted in little memory.
    """
    from PIL import Image

    picture.load()
    times = max(1, max(picture.size) // (2 * MOST_SIDE_PX))
    width, height = (side // times for side in picture.size)
    small = Image.new("RGB", (max(1, width), max(1, height)))
    step = STRIP_PX // times * times
    for top in range(0, height * times, step):
        strip = picture.crop((0, top, width * times, min(top + step, height * times)))
        if strip.mode.startswith("I"):
            strip = strip.convert("I").point(lambda level: level / 256).convert("L")
        small.paste(strip.convert("RGB").reduce(times), (0, top // times))
    return small


def _within(picture: "Image") -> bytes:
    """A picture as JPEG, so well as the bytes kept of one allow."""
    for quality in QUALITIES:
        kept = io.BytesIO()
        picture.save(kept, "JPEG", quality=quality)
        if kept.tell() <= KEPT_BYTES:
            break
    return kept.getvalue()


def _refused(words: str) -> InputError:
    most = MOST_PIXELS // 1_000_000
    names = ", ".join(FORMATS)
    return refuse("photo", f"{words}; accepted: {names} of up to {most} million pixels")
