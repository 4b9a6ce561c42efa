"""Spoilt drawings, recordings, photographs: each is read, or refused in words, in little memory."""

import io
import multiprocessing
import random
import struct
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

import numpy as np
import soundfile
from ezdxf.filemanagement import new
from ezdxf.math import rational_bspline_from_arc
from openpyxl import Workbook
from PIL import Image

from attacks.memory import peak_kb
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.outline import read_outline
from jade_ribbon.formats.photo import small_jpeg
from jade_ribbon.formats.recording import note_in
from jade_ribbon.formats.sandbox import close, read_apart, read_here
from jade_ribbon.formats.workbook import sheet_text

CURVES = Path(__file__).parents[1] / "tests/data/curves"
MOST_S = 5.0
MOST_MEMORY_KB = 400 * 1024
NUMBERS = (b"0", b"-1", b"1e308", b"1e-320", b"nan", b"inf", b"9" * 40, b"1e999", b"65536", b"")
PIECES = (
    *(b"<g>", b"</g>", b'<use href="#a"/>', b'transform="scale(1e200)"', b"A1e9,1e-9 0 1 1 3,3"),
    *(b"SPLINE\n", b"0\nINSERT\n", b"AcDbCircle", b"\x00", b"\xff\xfe", b"Z", b"-", b"<!ENTITY"),
)


def seeds() -> list[tuple[str, bytes]]:
    """Sound files to spoil: drawings of every kind, recordings of every depth."""
    found = [(f.name, f.read_bytes()) for f in sorted(CURVES.iterdir())]
    document = new()
    space = document.modelspace()
    space.add_circle((0, 0), 10)
    space.add_spline([(0, 0), (5, 5), (9, 1), (12, 7)])
    arc = rational_bspline_from_arc(radius=20, start_angle=0, end_angle=180)
    space.add_rational_spline(arc.control_points, arc.weights(), degree=2)
    block = document.blocks.new("b")
    block.add_arc((0, 0), 3, 0, 90)
    space.add_blockref("b", (3, 3), dxfattribs={"xscale": 2})
    text = io.StringIO()
    document.write(text)
    found.append(("made.dxf", text.getvalue().encode()))
    t = np.arange(16_000) / 16_000.0
    pluck = np.exp(-3.0 * t) * np.sin(2 * np.pi * 74.0 * t)
    for kind, depth in (("WAV", "PCM_16"), ("WAV", "DOUBLE"), ("FLAC", "PCM_24")):
        sound = io.BytesIO()
        both = np.stack([pluck, 0.3 * pluck], axis=1)
        soundfile.write(sound, both, 16_000, format=kind, subtype=depth)
        found.append((f"pluck.{kind.lower()}", sound.getvalue()))
    book = Workbook()
    page = book.create_sheet(index=0)
    for row in (("label", "width", "tpi"), ("K-07", 19, 2), ("K-08", "3/4", "2/3")):
        page.append(row)
    sheet = io.BytesIO()
    book.save(sheet)
    found += [("bands.xlsx", sheet.getvalue())] * 3
    for kind in ("JPEG", "PNG", "WEBP"):
        picture = io.BytesIO()
        Image.effect_noise((160, 120), 60.0).save(picture, kind)
        found.append((f"billet.{kind.lower()}", picture.getvalue()))
    return found


def spoilt(data: bytes, dice: random.Random) -> bytes:
    """A file with some bytes, numbers or pieces of it changed, doubled or gone."""
    found = bytearray(data)
    for _ in range(dice.randrange(1, 6)):
        if not found:
            break
        at = dice.randrange(len(found))
        act = dice.random()
        if act < 0.3:
            found[at] = dice.randrange(256)
        elif act < 0.45:
            found[at : at + 4] = struct.pack("<I", dice.choice((0, 1, 2**31, 2**32 - 1, 65_535)))
        elif act < 0.6:
            found[at : at + dice.randrange(1, 9)] = dice.choice(NUMBERS)
        elif act < 0.75:
            found[at:at] = dice.choice(PIECES)
        elif act < 0.85:
            del found[at : at + dice.randrange(1, 400)]
        elif act < 0.95:
            part = found[at : at + dice.randrange(1, 400)]
            found[at:at] = part * dice.randrange(1, 20)
        else:
            del found[at:]
    return bytes(found)


def read(name: str, data: bytes) -> str:
    """What came of a file: read, refused, or what was raised."""
    try:
        if name.endswith((".wav", ".flac")):
            read_apart("recording", note_in, data)
        elif name.endswith(".xlsx"):
            read_apart("workbook", sheet_text, data)
        elif name.endswith((".jpeg", ".png", ".webp")):
            small_jpeg(data)
        else:
            read_here("text", read_outline, data, name)
    except InputError:
        return "refused"
    except Exception as problem:  # noqa: BLE001 - whatever else it raises is what is looked for
        return f"{type(problem).__name__}: {problem}"[:200]
    return "read"


def _share(count: int, seed: int) -> tuple[Counter[str], list[str], float, int]:
    """One process's share of the files: what came of them, the worst, the longest, the memory."""
    dice = random.Random(seed)
    known = seeds()
    told: Counter[str] = Counter()
    wrong: list[str] = []
    longest = 0.0
    for _ in range(count):
        name, data = dice.choice(known)
        start = time.process_time()
        came = read(name, spoilt(data, dice))
        spent = time.process_time() - start
        longest = max(longest, spent)
        told[came if came in ("read", "refused") else "raised"] += 1
        if came not in ("read", "refused") or spent > MOST_S:
            wrong.append(f"{name}: {came} in {spent:.1f} s")
    close()
    return told, wrong, longest, peak_kb()


def attack(folder: Path, count: int, seed: int = 1) -> dict[str, object]:
    """So many spoilt files, in two processes. How many were read, refused, raised anything else."""
    del folder
    half = count // 2
    spawn = multiprocessing.get_context("spawn")
    with ProcessPoolExecutor(2, mp_context=spawn) as pool:
        shares = list(pool.map(_share, (half, count - half), (seed, seed + 1)))
    told = sum((s[0] for s in shares), Counter[str]())
    wrong = [w for s in shares for w in s[1]]
    memory = max(s[3] for s in shares)
    return {
        "spoilt files": count,
        "read": told["read"],
        "refused in words": told["refused"],
        "gone wrong": len(wrong),
        "first gone wrong": wrong[:5],
        "longest, s of processor": round(max(s[2] for s in shares), 2),
        "memory at most, MB": memory // 1024,
        "over the limit": memory > MOST_MEMORY_KB,
    }
