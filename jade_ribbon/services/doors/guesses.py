"""Limits on guessing: a wrong guess makes its sender's next one wait longer; many, everybody's."""

import ipaddress
import threading
import time
from collections import OrderedDict, deque
from collections.abc import Callable
from dataclasses import dataclass

FREE_GUESSES = 5
"""An honest hand may slip so often before it waits."""
FIRST_WAIT_S, LONGEST_WAIT_S = 15.0, 3600.0
ALL_GUESSES, ALL_IN_S = 30, 600.0
"""Wrong guesses of all senders within a time, after which each has one and no more free."""
MOST_GUESSES = 1000
"""After so many within that time nobody's are looked at: more than a shop's network has devices."""
MOST_SENDERS = 10_000


class TooManyGuessesError(RuntimeError):
    """Nothing is looked at now; how many seconds to wait."""

    def __init__(self, wait_s: float) -> None:
        super().__init__(f"Too many wrong tries: wait {max(1, round(wait_s))} s, then try again.")
        self.wait_s = wait_s


@dataclass
class _Sender:
    wrong: int = 0
    until: float = 0.0


def sender_of(address: str) -> str:
    """Whom an address stands for: of IPv6 the network, whose addresses one sender has at will.

    >>> sender_of("192.168.1.7"), sender_of("fd00:1:2:3:4:5:6:7"), sender_of("?")
    ('192.168.1.7', 'fd00:1:2:3::/64', '?')
    """
    try:
        known = ipaddress.ip_address(address)
    except ValueError:
        return address
    if known.version == 4:
        return address
    return str(ipaddress.ip_network(f"{address}/64", strict=False))


class Guesses:
    """Counts wrong guesses; in memory only, bounded."""

    def __init__(self, elapsed: Callable[[], float] = time.monotonic) -> None:
        self._elapsed = elapsed
        self._senders: OrderedDict[str, _Sender] = OrderedDict()
        self._all: deque[float] = deque()
        self._lock = threading.Lock()

    def check(self, address: str) -> None:
        """TooManyGuessesError while a sender, or all together, have to wait."""
        with self._lock:
            at = self._elapsed()
            while self._all and at - self._all[0] > ALL_IN_S:
                self._all.popleft()
            known = self._senders.get(sender_of(address))
            wait = max(0.0, known.until - at) if known else 0.0
            # One stranger's guesses lock no newcomer out: a fresh code is looked at once.
            had = known is not None and known.wrong > 0
            if len(self._all) >= MOST_GUESSES or (len(self._all) >= ALL_GUESSES and had):
                wait = max(wait, ALL_IN_S - (at - self._all[0]))
        if wait > 0:
            raise TooManyGuessesError(wait)

    def wrong(self, address: str) -> None:
        """A guess was wrong: the next one waits longer."""
        with self._lock:
            at, name = self._elapsed(), sender_of(address)
            sender = self._senders.pop(name, _Sender())
            sender.wrong += 1
            if sender.wrong >= FREE_GUESSES:
                wait = FIRST_WAIT_S * 2.0 ** (sender.wrong - FREE_GUESSES)
                sender.until = at + min(wait, LONGEST_WAIT_S)
            self._senders[name] = sender
            self._all.append(at)
            while len(self._senders) > MOST_SENDERS:
                self._senders.popitem(last=False)

    def right(self, address: str) -> None:
        """A guess was right: its sender begins anew."""
        with self._lock:
            self._senders.pop(sender_of(address), None)
