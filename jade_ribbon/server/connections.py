"""Connections: how long one may be silent, how many there may be of an address."""

import asyncio
from collections import Counter
from typing import Any, ClassVar

from uvicorn.protocols.http.h11_impl import H11Protocol

LOOPBACK = ("127.0.0.1", "::1")
REQUEST_S = 30.0
"""A request not wholly sent by then is given up."""
SILENT_S, HANDSHAKE_S = 10.0, 5.0
"""One that says nothing at all is given up sooner, and sooner still before it is encrypted."""
MOST_OF_AN_ADDRESS = 64
MOST_OF_THIS_MACHINE = 512
"""Connections at once: nobody on the network keeps the others out."""


class TimedRequests(H11Protocol):
    """A connection that is closed when a request on it takes too long to come in.

    Of one address there are so many at once, and no more.
    """

    _late: asyncio.TimerHandle | None = None
    _from: str | None = None
    _of: ClassVar[Counter[str]] = Counter()

    def connection_made(self, transport: Any) -> None:
        address = str((transport.get_extra_info("peername") or ("",))[0])
        most = MOST_OF_THIS_MACHINE if address in LOOPBACK else MOST_OF_AN_ADDRESS
        super().connection_made(transport)
        if self._of[address] >= most:
            transport.abort()
            return
        self._from = address
        self._of[address] += 1
        self._wait(SILENT_S)

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.more_body:
            self._came_in()
        elif self._late is not None and self._silent:
            self._wait(REQUEST_S)

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._wait(REQUEST_S)

    def connection_lost(self, exc: Exception | None) -> None:
        self._came_in()
        if self._from is not None:
            self._of[self._from] -= 1
            self._from = None
        super().connection_lost(exc)

    def _wait(self, seconds: float) -> None:
        self._came_in()
        self._silent = seconds == SILENT_S
        self._late = self.loop.call_later(seconds, self._give_up)

    def _came_in(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _give_up(self) -> None:
        if not self.transport.is_closing():
            self.transport.close()


class Loop(asyncio.SelectorEventLoop):
    """A loop on which a connection that does not begin to be encrypted is soon given up."""

    async def create_server(self, *args: Any, **kw: Any) -> Any:
        if kw.get("ssl"):
            kw["ssl_handshake_timeout"] = HANDSHAKE_S
        return await super().create_server(*args, **kw)
