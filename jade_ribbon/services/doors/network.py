"""The shop's network: under which names this machine is reached, and by which certificate."""

import socket
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from pathlib import Path

import ifaddr

from jade_ribbon.formats.certificates import (
    Certificate,
    certificate_holds,
    is_vouched_for,
    make_authority,
    make_server_certificate,
)
from jade_ribbon.store.doors import doors_folder, read_pair, write_pair

HTTPS_PORT, HTTP_PORT = 8443, 8480


@dataclass(frozen=True)
class Network:
    """How this machine is reached from the shop's network."""

    names: tuple[str, ...]
    https_port: int
    http_port: int
    authority: Certificate
    folder: Path
    host: str = "0.0.0.0"  # noqa: S104 - asked for with --network, behind a passphrase
    """What is listened on: every address of this machine, or the one that was named."""

    @property
    def address(self) -> str:
        """The address that sheets and codes carry: the first name a phone can look up."""
        name = self.names[0]
        return f"https://{f'[{name}]' if ':' in name else name}:{self.https_port}/"

    @property
    def certificate_file(self) -> Path:
        return self.folder / "server.crt"

    @property
    def key_file(self) -> Path:
        return self.folder / "server.key"


def machine_names() -> tuple[str, ...]:
    """Private IPv4 addresses of this machine, then its name; those that a phone can use first."""
    found: list[str] = []
    for adapter in ifaddr.get_adapters():
        for ip in adapter.ips:
            if isinstance(ip.ip, str) and is_vouched_for(ip.ip) and not ip.ip.startswith("127."):
                found.append(ip.ip)
    host = socket.gethostname().split(".")[0].lower()
    return (*dict.fromkeys(found), host, f"{host}.local")


def certified(
    shop_file: Path, shop: str, names: Sequence[str], ports: tuple[int, int], host: str | None
) -> Network:
    """The network with its certificates: made the first time, renewed when names or time ask it.

    The authority stays, so that devices which trust it go on. ValueError for a name that is not one
    of a shop's own network.
    """
    folder, at = doors_folder(shop_file), datetime.now(UTC)
    kept = read_pair(folder, "authority")
    authority = Certificate(*kept) if kept else make_authority(shop, names, at)
    if kept is None:
        write_pair(folder, "authority", authority.certificate, authority.key)
    pair = read_pair(folder, "server")
    server = Certificate(*pair) if pair else None
    if server is None or not certificate_holds(server, authority, names, at):
        server = make_server_certificate(authority, names, at)
        write_pair(folder, "server", server.certificate, server.key)
    network = Network(tuple(names), *ports, authority, folder)
    return network if host is None else replace(network, host=host)
