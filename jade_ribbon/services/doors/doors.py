"""The shop's doors: a passphrase, devices that joined by a code, and what each of them may."""

import hashlib
import hmac
import secrets
import threading
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.services.clock import now
from jade_ribbon.services.doors.guesses import Guesses
from jade_ribbon.services.errors import ConflictError, NotAllowedError, NotFoundError
from jade_ribbon.store.doors import Device, DeviceBook, Role, doors_folder, read_book, write_book

LEAST_PASSPHRASE, MOST_PASSPHRASE = 12, 200
DIFFERENT_SIGNS = 5
CODE_DIGITS, CODE_MIN = 8, 10
MOST_CODES, MOST_DEVICES = 10, 100
IDLE_DAYS, LONGEST_DAYS = 30, 180
OWNER_H = 12
"""The passphrase makes a device the owner's for so long; then it is what it joined as."""
SEEN_EVERY = timedelta(minutes=10)
RANKS: dict[Role, int] = {"anyone": 0, "authorised": 1, "owner": 2}
WRONG = "That is not it."


@dataclass(frozen=True)
class Code:
    """A code that lets one device join, once, within minutes."""

    digits: str
    name: str
    role: Role
    until: datetime


@dataclass(frozen=True)
class Joined:
    """A device that came in, and the secret that its browser keeps."""

    device: Device
    token: str


def _hashed(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def checked_passphrase(words: str) -> str:
    """A passphrase that can be set. InputError for one that is too short or plain."""
    plain = " ".join(words.split())
    if not LEAST_PASSPHRASE <= len(plain) <= MOST_PASSPHRASE:
        raise refuse(
            "passphrase",
            f"has {len(plain)} letters; accepted: {LEAST_PASSPHRASE} to {MOST_PASSPHRASE}, "
            "best some words that do not belong together",
        )
    if len(set(plain.lower())) < DIFFERENT_SIGNS:
        raise refuse("passphrase", f"has fewer than {DIFFERENT_SIGNS} different letters")
    return plain


def _check_given(role: Role) -> None:
    """InputError for a role that is not given: the owner's devices come in by the passphrase."""
    if role == "owner":
        raise refuse(
            "role",
            "'owner' is not accepted; accepted: anyone, authorised. The owner's devices come in by "
            "the passphrase",
        )


class Doors:
    """Who may come in from the network. Kept in a book beside the shop's file."""

    def __init__(self, shop_file: Path, clock: Callable[[], datetime] = now) -> None:
        self.folder = doors_folder(shop_file)
        self.guesses = Guesses()
        self._now = clock
        self._hasher = PasswordHasher()
        self._codes: dict[str, Code] = {}
        self._lock = threading.RLock()

    @property
    def book(self) -> DeviceBook:
        return read_book(self.folder)

    @property
    def has_passphrase(self) -> bool:
        return self.book.passphrase_hash is not None

    def set_passphrase(self, words: str) -> None:
        """Set the shop's passphrase; rights that the old one gave end."""
        hashed = self._hasher.hash(checked_passphrase(words))
        with self._lock:
            book = self.book
            devices = tuple(d.model_copy(update={"owner_until": None}) for d in book.devices)
            write_book(self.folder, DeviceBook(passphrase_hash=hashed, devices=devices))

    def _is_passphrase(self, words: str) -> bool:
        kept = self.book.passphrase_hash
        if kept is None or len(words) > MOST_PASSPHRASE:
            return False
        try:
            return self._hasher.verify(kept, " ".join(words.split()))
        except (VerificationError, InvalidHashError):
            return False

    def enter(self, words: str, name: str, address: str, device: Device | None = None) -> Joined:
        """Come in by the passphrase, as the owner for a while.

        A device that joined before stays what it is called. TooManyGuessesError, NotAllowedError.
        """
        self.guesses.check(address)
        if not self._is_passphrase(words):
            self.guesses.wrong(address)
            raise NotAllowedError(WRONG)
        self.guesses.right(address)
        until = self._now() + timedelta(hours=OWNER_H)
        return self._let_in(name if device is None else device.name, "anyone", until, device)

    def new_code(self, name: str, role: Role) -> Code:
        """A code for one device to join with. ConflictError when too many are open."""
        _check_given(role)
        with self._lock:
            self._drop_old_codes()
            if len(self._codes) >= MOST_CODES:
                raise ConflictError(f"{MOST_CODES} codes are open already: wait until one ends.")
            digits = f"{secrets.randbelow(10**CODE_DIGITS):0{CODE_DIGITS}d}"
            code = Code(digits, name, role, self._now() + timedelta(minutes=CODE_MIN))
            self._codes[digits] = code
            return code

    def _drop_old_codes(self) -> None:
        at = self._now()
        self._codes = {k: c for k, c in self._codes.items() if c.until > at}

    def join(self, digits: str, address: str) -> Joined:
        """Join by a code, once. TooManyGuessesError, NotAllowedError."""
        self.guesses.check(address)
        plain = "".join(digits.split())
        with self._lock:
            self._drop_old_codes()
            found = None
            for known in self._codes.values():
                if hmac.compare_digest(known.digits.encode(), plain.encode()):
                    found = known
            if found is None:
                self.guesses.wrong(address)
                raise NotAllowedError(f"{WRONG} A code is good once, and for {CODE_MIN} minutes.")
            del self._codes[found.digits]
        self.guesses.right(address)
        return self._let_in(found.name, found.role, None, None)

    def _let_in(
        self, name: str, role: Role, owner_until: datetime | None, known: Device | None
    ) -> Joined:
        at, token = self._now(), secrets.token_urlsafe(32)
        kept, until = _hashed(token), owner_until
        if known is not None:
            fresh = {"token_hash": kept, "seen_at": at, "owner_until": until}
            device = known.model_copy(update=fresh)
        else:
            device = Device(
                id=secrets.token_hex(6),
                name=name,
                role=role,
                token_hash=kept,
                joined_at=at,
                seen_at=at,
                owner_until=until,
            )
        with self._lock:
            book = self.book
            others = tuple(d for d in self._lasting(book) if d.id != device.id)
            if len(others) >= MOST_DEVICES:
                raise ConflictError(f"{MOST_DEVICES} devices have joined: shut some out first.")
            write_book(self.folder, book.model_copy(update={"devices": (*others, device)}))
        return Joined(device, token)

    def _lasts(self, device: Device) -> bool:
        at = self._now()
        idle = at - device.seen_at > timedelta(days=IDLE_DAYS)
        return not idle and at - device.joined_at <= timedelta(days=LONGEST_DAYS)

    def _lasting(self, book: DeviceBook) -> tuple[Device, ...]:
        return tuple(d for d in book.devices if self._lasts(d))

    def devices(self) -> tuple[Device, ...]:
        """Devices that may come in, as they joined."""
        return self._lasting(self.book)

    def device_of(self, token: str | None) -> Device | None:
        """The device with this secret; None for one shut out, ended, or never let in."""
        if not token:
            return None
        hashed = _hashed(token)
        with self._lock:
            for device in self.devices():
                if hmac.compare_digest(device.token_hash, hashed):
                    return self._seen(device)
        return None

    def _seen(self, device: Device) -> Device:
        """Told now and then that it was here, so that one in use does not end."""
        at = self._now()
        if at - device.seen_at < SEEN_EVERY:
            return device
        seen = device.model_copy(update={"seen_at": at})
        self._replace(seen)
        return seen

    def _replace(self, device: Device) -> None:
        book = self.book
        devices = tuple(device if d.id == device.id else d for d in book.devices)
        write_book(self.folder, book.model_copy(update={"devices": devices}))

    def role_of(self, device: Device) -> Role:
        """What a device may now: the owner's while its passphrase lasts, else what it joined as."""
        if device.owner_until is not None and device.owner_until > self._now():
            return "owner"
        return device.role

    def change(self, device_id: str, *, name: str, role: Role) -> Device:
        """Rename a device, or let it do more or less. NotFoundError."""
        _check_given(role)
        with self._lock:
            found = next((d for d in self.devices() if d.id == device_id), None)
            if found is None:
                raise NotFoundError("device", device_id)
            changed = found.model_copy(update={"name": name, "role": role})
            self._replace(changed)
            return changed

    def shut_out(self, device_id: str) -> None:
        """A device may not come in any more, from its next request on. NotFoundError."""
        with self._lock:
            book = self.book
            left = tuple(d for d in book.devices if d.id != device_id)
            if len(left) == len(book.devices):
                raise NotFoundError("device", device_id)
            write_book(self.folder, book.model_copy(update={"devices": left}))
