"""Photographs: kept small, turned upright, and stripped of where and with what they were taken."""

import io
import warnings

from jade_ribbon.core.quantities.errors import InputError, refuse

FORMATS = ("JPEG", "PNG", "WEBP")
MOST_SIDE_PX = 1280
MOST_PIXELS = 60_000_000
QUALITY = 80


def small_jpeg(data: bytes) -> bytes:
    """A photograph as a small JPEG without any of its data. InputError for anything else.

    The count of pixels is looked at before any is unpacked.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            picture = Image.open(io.BytesIO(data), formats=FORMATS)
            if picture.width * picture.height > MOST_PIXELS:
                raise _refused(f"holds {picture.width} x {picture.height} pixels")
            picture.draft("RGB", (MOST_SIDE_PX, MOST_SIDE_PX))
            upright = ImageOps.exif_transpose(picture).convert("RGB")
            upright.thumbnail((MOST_SIDE_PX, MOST_SIDE_PX))
            kept = io.BytesIO()
            upright.save(kept, "JPEG", quality=QUALITY)
    except InputError:
        raise
    except (Image.DecompressionBombWarning, Image.DecompressionBombError) as problem:
        raise _refused("unpacks to too much") from problem
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Warning) as problem:
        raise _refused("cannot be read") from problem
    return kept.getvalue()


def _refused(words: str) -> InputError:
    most = MOST_PIXELS // 1_000_000
    names = ", ".join(FORMATS)
    return refuse("photo", f"{words}; accepted: {names} of up to {most} million pixels")
