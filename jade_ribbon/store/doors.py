"""What opens a shop's doors, in a folder beside its file: never in its copies, never brought back.

A copy of the shop's file brought back from last month must not let in a device shut out since.
"""

import os
from datetime import datetime
from pathlib import Path
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from jade_ribbon.store.files import UnusableFileError

Role = Literal["anyone", "authorised", "owner"]


class Device(BaseModel):
    """A device that joined: what it is called, what it may, and what proves that it is the one."""

    model_config = ConfigDict(frozen=True)

    id: str
    name: str
    role: Role
    token_hash: str
    joined_at: datetime
    seen_at: datetime
    owner_until: datetime | None = None


class DeviceBook(BaseModel):
    """The shop's passphrase, hashed, and its devices."""

    model_config = ConfigDict(frozen=True)

    passphrase_hash: str | None = None
    devices: tuple[Device, ...] = Field(default=())


def doors_folder(shop_file: Path) -> Path:
    return shop_file.with_name(f"{shop_file.stem}.doors")


def write_private(path: Path, data: bytes) -> None:
    """A file for its owner alone, whole or not at all."""
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    partial = path.with_name(f"{path.name}.partial")
    handle = os.open(partial, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
    with os.fdopen(handle, "wb") as file:
        file.write(data)
        file.flush()
        os.fsync(file.fileno())
    os.replace(partial, path)


def read_book(folder: Path) -> DeviceBook:
    """The book; an empty one where there is none. UnusableFileError for one that is damaged."""
    path = folder / "book.json"
    if not path.exists():
        return DeviceBook()
    try:
        return DeviceBook.model_validate_json(path.read_bytes())
    except ValidationError as problem:
        raise UnusableFileError(
            f"{path} is damaged: nobody is let in by it. Delete it to begin anew; every device "
            "then joins again"
        ) from problem


def write_book(folder: Path, book: DeviceBook) -> None:
    write_private(folder / "book.json", book.model_dump_json(indent=1).encode())


def read_pair(folder: Path, name: str) -> tuple[bytes, bytes] | None:
    """A certificate and its key; None where either is missing."""
    files = [folder / f"{name}.{end}" for end in ("crt", "key")]
    if not all(f.exists() for f in files):
        return None
    return files[0].read_bytes(), files[1].read_bytes()


def write_pair(folder: Path, name: str, certificate: bytes, key: bytes) -> None:
    write_private(folder / f"{name}.key", key)
    write_private(folder / f"{name}.crt", certificate)
