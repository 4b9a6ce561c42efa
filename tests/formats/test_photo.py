"""Photographs: small, upright, stripped; what is no picture is refused in words."""

import io

import pytest
from PIL import Image

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.photo import MOST_SIDE_PX, small_jpeg
from jade_ribbon.formats.sandbox import read_apart


def picture(width: int, height: int, kind: str, exif: Image.Exif | None = None) -> bytes:
    kept = io.BytesIO()
    given = {} if exif is None else {"exif": exif}
    Image.new("RGB", (width, height), (120, 80, 40)).save(kept, kind, **given)
    return kept.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_photograph_is_made_small(kind: str) -> None:
    found = Image.open(io.BytesIO(small_jpeg(picture(3000, 2000, kind))))
    assert (found.format, found.size) == ("JPEG", (MOST_SIDE_PX, round(MOST_SIDE_PX * 2 / 3)))


def test_it_is_turned_upright_and_says_nothing_of_where_it_was_taken() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # a quarter turn
    exif[0x010F] = "a maker"
    exif.get_ifd(0x8825)[1] = "N"
    found = Image.open(io.BytesIO(small_jpeg(picture(400, 200, "JPEG", exif))))
    assert found.size == (200, 400)
    assert not dict(found.getexif()) and not found.info.get("comment")


@pytest.mark.parametrize(
    "data", [b"", b"no picture", picture(20, 20, "GIF"), picture(50, 50, "JPEG")[:200]]
)
def test_what_is_no_picture_is_refused(data: bytes) -> None:
    with pytest.raises(InputError, match="accepted: JPEG, PNG, WEBP"):
        small_jpeg(data)


def test_a_bomb_is_seen_by_its_size_before_it_is_unpacked() -> None:
    def bomb(width: int, height: int) -> bytes:
        kept = io.BytesIO()
        Image.new("1", (width, height)).save(kept, "PNG")
        return kept.getvalue()

    with pytest.raises(InputError, match="9000 x 8000 pixels"):
        small_jpeg(bomb(9_000, 8_000))
    with pytest.raises(InputError, match="unpacks to too much"):
        small_jpeg(bomb(12_000, 9_000))


def test_a_comment_does_not_survive() -> None:
    kept = io.BytesIO()
    Image.new("RGB", (40, 30)).save(kept, "JPEG", comment=b"taken at the slip")
    assert b"taken at" not in small_jpeg(kept.getvalue())


@pytest.mark.parametrize(("mode", "side"), [("RGBA", 7745), ("RGB", 6800), ("I;16", 7000)])
def test_as_many_pixels_as_are_allowed_are_read_apart(mode: str, side: int) -> None:
    kept = io.BytesIO()
    Image.new(mode, (side, side)).save(kept, "PNG")
    found = Image.open(io.BytesIO(read_apart("photo", small_jpeg, kept.getvalue())))
    assert max(found.size) == MOST_SIDE_PX
