"""Who may come in: the passphrase, codes, devices, and limits on guessing."""

import json
import stat
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.services.doors.doors import (
    CODE_DIGITS,
    CODE_MIN,
    IDLE_DAYS,
    LONGEST_DAYS,
    MOST_CODES,
    OWNER_H,
    Doors,
)
from jade_ribbon.services.doors.guesses import (
    ALL_GUESSES,
    ALL_IN_S,
    FIRST_WAIT_S,
    FREE_GUESSES,
    LONGEST_WAIT_S,
    MOST_GUESSES,
    Guesses,
    TooManyGuessesError,
)
from jade_ribbon.services.errors import ConflictError, NotAllowedError, NotFoundError
from jade_ribbon.store.files import UnusableFileError

WORDS = "copper kettle ninety"


class Hands:
    """A clock turned by hand."""

    def __init__(self) -> None:
        self.at = datetime(2026, 5, 1, tzinfo=UTC)

    def __call__(self) -> datetime:
        return self.at

    def on(self, **more: float) -> None:
        self.at += timedelta(**more)


@pytest.fixture
def clock() -> Hands:
    return Hands()


@pytest.fixture
def doors(tmp_path: Path, clock: Hands) -> Doors:
    made = Doors(tmp_path / "shop.sqlite", clock)
    made.set_passphrase(WORDS)
    return made


def test_the_passphrase_is_kept_hashed_for_its_owner_alone(doors: Doors) -> None:
    book = doors.folder / "book.json"
    assert WORDS not in book.read_text()
    assert json.loads(book.read_text())["passphrase_hash"].startswith("$argon2id$")
    assert stat.S_IMODE(book.stat().st_mode) == 0o600
    assert stat.S_IMODE(doors.folder.stat().st_mode) == 0o700


@pytest.mark.parametrize("words", ["", "short", "aaaaaaaaaaaaaaaa", "x" * 201, "          a"])
def test_a_poor_passphrase_is_refused(doors: Doors, words: str) -> None:
    with pytest.raises(InputError):
        doors.set_passphrase(words)
    assert doors.enter(WORDS, "Phone", "192.168.1.2").device.name == "Phone"


def test_without_a_passphrase_nobody_comes_in(tmp_path: Path) -> None:
    with pytest.raises(NotAllowedError):
        Doors(tmp_path / "shop.sqlite").enter("", "Phone", "192.168.1.2")


def test_the_passphrase_makes_an_owner_for_some_hours(doors: Doors, clock: Hands) -> None:
    token = doors.enter(WORDS, "Phone", "192.168.1.2").token
    device = doors.device_of(token)
    assert device is not None and doors.role_of(device) == "owner"
    clock.on(hours=OWNER_H, seconds=1)
    device = doors.device_of(token)
    assert device is not None and doors.role_of(device) == "anyone"


def test_a_device_that_joined_stays_what_it_is_when_its_owner_comes_in(
    doors: Doors, clock: Hands
) -> None:
    joined = doors.join(doors.new_code("Tablet", "authorised").digits, "192.168.1.2")
    again = doors.enter(WORDS, "other name", "192.168.1.2", joined.device)
    assert (again.device.id, again.device.name) == (joined.device.id, "Tablet")
    assert doors.device_of(joined.token) is None, "its old secret ends"
    clock.on(hours=OWNER_H + 1)
    assert doors.role_of(again.device) == "authorised"


def test_a_code_lets_one_device_in_once_within_minutes(doors: Doors, clock: Hands) -> None:
    code = doors.new_code("Odda's phone", "authorised")
    assert len(code.digits) == 8
    joined = doors.join(f"{code.digits[:4]} {code.digits[4:]}", "192.168.1.2")
    assert (joined.device.name, doors.role_of(joined.device)) == ("Odda's phone", "authorised")
    with pytest.raises(NotAllowedError):
        doors.join(code.digits, "192.168.1.2")
    late = doors.new_code("Late", "anyone")
    clock.on(minutes=CODE_MIN, seconds=1)
    with pytest.raises(NotAllowedError):
        doors.join(late.digits, "192.168.1.2")


def test_no_code_makes_an_owner(doors: Doors) -> None:
    with pytest.raises(InputError):
        doors.new_code("Mine", "owner")
    joined = doors.join(doors.new_code("Mine", "anyone").digits, "192.168.1.2")
    with pytest.raises(InputError):
        doors.change(joined.device.id, name="Mine", role="owner")


def test_codes_are_few(doors: Doors, clock: Hands) -> None:
    for n in range(10):
        doors.new_code(f"{n}", "anyone")
    with pytest.raises(ConflictError):
        doors.new_code("one more", "anyone")
    clock.on(minutes=CODE_MIN + 1)
    doors.new_code("one more", "anyone")


def test_a_device_shut_out_is_out_at_once_and_for_good(doors: Doors, tmp_path: Path) -> None:
    joined = doors.join(doors.new_code("Lost", "anyone").digits, "192.168.1.2")
    doors.shut_out(joined.device.id)
    assert doors.device_of(joined.token) is None
    assert Doors(tmp_path / "shop.sqlite").device_of(joined.token) is None
    with pytest.raises(NotFoundError):
        doors.shut_out(joined.device.id)


def test_a_device_not_used_ends_and_one_in_use_goes_on(doors: Doors, clock: Hands) -> None:
    used = doors.join(doors.new_code("Used", "anyone").digits, "192.168.1.2")
    idle = doors.join(doors.new_code("Idle", "anyone").digits, "192.168.1.2")
    for _ in range(4):
        clock.on(days=IDLE_DAYS / 2)
        assert doors.device_of(used.token) is not None
    assert doors.device_of(idle.token) is None
    for _ in range(int(2 * LONGEST_DAYS / IDLE_DAYS)):
        clock.on(days=IDLE_DAYS / 2)
        doors.device_of(used.token)
    assert doors.device_of(used.token) is None, "no device lasts for ever"


def test_a_new_passphrase_ends_what_the_old_one_gave(doors: Doors) -> None:
    joined = doors.enter(WORDS, "Phone", "192.168.1.2")
    doors.set_passphrase("another kettle of fish")
    device = doors.device_of(joined.token)
    assert device is not None and doors.role_of(device) == "anyone"


def test_a_damaged_book_lets_nobody_in(doors: Doors) -> None:
    (doors.folder / "book.json").write_text("{")
    with pytest.raises(UnusableFileError, match="nobody is let in"):
        doors.device_of("x")


@pytest.mark.parametrize("token", [None, "", "x", "é" * 50, "a" * 5000])
def test_a_secret_made_up_is_nobody_s(doors: Doors, token: str | None) -> None:
    doors.join(doors.new_code("Phone", "anyone").digits, "192.168.1.2")
    assert doors.device_of(token) is None


class Seconds:
    def __init__(self) -> None:
        self.at = 1000.0

    def __call__(self) -> float:
        return self.at


def test_guesses_wait_ever_longer_and_a_right_one_begins_anew() -> None:
    at = Seconds()
    guesses = Guesses(at)
    for _ in range(FREE_GUESSES):
        guesses.check("192.168.1.2")
        guesses.wrong("192.168.1.2")
    waits = []
    for _ in range(4):
        with pytest.raises(TooManyGuessesError) as told:
            guesses.check("192.168.1.2")
        waits.append(told.value.wait_s)
        at.at += told.value.wait_s + 0.1
        guesses.check("192.168.1.2")
        guesses.wrong("192.168.1.2")
    assert waits == pytest.approx([FIRST_WAIT_S * 2**n for n in range(4)])
    at.at += LONGEST_WAIT_S
    guesses.right("192.168.1.2")
    guesses.check("192.168.1.2")


def test_many_senders_together_wait_too() -> None:
    at = Seconds()
    guesses = Guesses(at)
    for n in range(ALL_GUESSES):
        guesses.check(f"192.168.1.{n}")
        guesses.wrong(f"192.168.1.{n}")
    with pytest.raises(TooManyGuessesError):
        guesses.check("192.168.1.7")
    at.at += ALL_IN_S + 1
    guesses.check("192.168.1.7")


def test_a_stranger_s_guesses_lock_no_newcomer_out() -> None:
    at = Seconds()
    guesses = Guesses(at)
    for n in range(MOST_GUESSES - 1):
        guesses.wrong(f"10.0.{n // 200}.{n % 200}")
    guesses.check("192.168.7.7")
    guesses.wrong("192.168.7.7")
    with pytest.raises(TooManyGuessesError):
        guesses.check("192.168.8.8")


def test_what_a_patient_guesser_gets_of_the_codes_is_nothing() -> None:
    """All guesses that the limits leave in ten minutes, against ten open codes of 8 digits."""
    assert MOST_GUESSES * MOST_CODES / 10**CODE_DIGITS <= 1e-4
