"""The shop's doors: what is reachable from where, devices that join, and the authority."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

import segno
from flask import Response, after_this_request, current_app, g, request
from pydantic import Field

from jade_ribbon.api.doors.guard import COOKIE, doors, from_network
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services.doors.doors import LONGEST_DAYS, Code, Joined
from jade_ribbon.services.doors.network import Network
from jade_ribbon.services.errors import NotFoundError
from jade_ribbon.store.doors import Device, Role

DAY_S = 86_400
DeviceName = Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]
GivenRole = Literal["anyone", "authorised"]


class JoinInput(Strict):
    """The code shown on the owner's screen."""

    code: Annotated[str, Field(min_length=1, max_length=20)]


class EnterInput(Strict):
    """The shop's passphrase, and what this device is called."""

    passphrase: Annotated[str, Field(min_length=1, max_length=400)]
    name: DeviceName


class CodeInput(Strict):
    """Which device is to join, and what it may."""

    name: DeviceName
    role: GivenRole


class DeviceInput(Strict):
    """A device called otherwise, or let do more or less."""

    id: Annotated[str, Field(min_length=1, max_length=24)]
    name: DeviceName
    role: GivenRole


class ShutOutInput(Strict):
    """Which device may not come in any more."""

    id: Annotated[str, Field(min_length=1, max_length=24)]


class PassphraseInput(Strict):
    """The shop's passphrase."""

    passphrase: Annotated[str, Field(max_length=400)]


@dataclass(frozen=True)
class DoorAnswer:
    """Who asks: from this machine or the network, joined or not, and what it may."""

    here: Literal["machine", "network"]
    joined: bool
    name: str
    role: Role
    owner_until: datetime | None


@dataclass(frozen=True)
class Reach:
    """One way to reach the shop, and what may be done by it."""

    where: str
    address: str
    what: str


@dataclass(frozen=True)
class DeviceLine:
    """A device that joined."""

    id: str
    name: str
    role: Role
    joined_at: datetime
    seen_at: datetime
    owner_until: datetime | None
    this_one: bool


@dataclass(frozen=True)
class DoorsAnswer:
    """What is reachable from where, and by whom."""

    on: bool
    has_passphrase: bool
    reach: list[Reach]
    devices: list[DeviceLine]
    address: str
    fingerprint: str
    how: str


@dataclass(frozen=True)
class CodeAnswer:
    """A code to join with, and the same as squares to scan: rows of 0 and 1."""

    code: str
    until: datetime
    address: str
    squares: list[str]


def network() -> Network | None:
    found: Network | None = current_app.extensions.get("network")
    return found


def _told(device: Device | None) -> DoorAnswer:
    if device is None:
        role: Role = g.role if not from_network() else "anyone"
        here: Literal["machine", "network"] = "network" if from_network() else "machine"
        return DoorAnswer(here, not from_network(), "", role, None)
    role = doors().role_of(device)
    until = device.owner_until if role == "owner" else None
    return DoorAnswer("network", True, device.name, role, until)


def _let_in(joined: Joined) -> DoorAnswer:
    """The device's browser keeps its secret; the answer tells what it may."""

    @after_this_request
    def keep(response: Response) -> Response:
        response.set_cookie(
            COOKIE,
            joined.token,
            max_age=LONGEST_DAYS * DAY_S,
            secure=True,
            httponly=True,
            samesite="Strict",
            path="/",
        )
        return response

    return _told(joined.device)


def door() -> DoorAnswer:
    """Who asks, and what they may."""
    return _told(g.device)


def join_shop(body: JoinInput) -> DoorAnswer:
    """Join the shop by a code from the owner's screen."""
    return _let_in(doors().join(body.code, request.remote_addr or ""))


def enter_shop(body: EnterInput) -> DoorAnswer:
    """Come in by the shop's passphrase, as the owner for some hours."""
    address = request.remote_addr or ""
    return _let_in(doors().enter(body.passphrase, body.name, address, g.device))


def leave_shop() -> DoorAnswer:
    """This device goes out; it has to join again."""
    if g.device is not None:
        doors().shut_out(g.device.id)

    @after_this_request
    def forget(response: Response) -> Response:
        response.delete_cookie(COOKIE, secure=True, httponly=True, samesite="Strict", path="/")
        return response

    return _told(None)


HOW_ON = (
    "A device joins once: open the address on it, let it trust this shop's authority, and type the "
    "code."
)
HOW_OFF = "Only this machine. To let phones in: jade-ribbon serve --network"
NOBODY = (
    "Nothing is opened to the internet here. A router that passes ports on would open it: leave "
    "that off."
)


def _reach(on: Network | None) -> list[Reach]:
    found = [
        Reach(
            "this machine",
            f"http://{request.host}/" if not from_network() else "",
            "everything, without a passphrase: whoever sits at it is the owner",
        )
    ]
    if on is None:
        return [*found, Reach("the shop's network", "", "nothing"), Reach("elsewhere", "", NOBODY)]
    return [
        *found,
        Reach(
            "the shop's network",
            on.address,
            "devices that joined, each by its role; before that, only the page that joins",
        ),
        Reach("the same, without HTTPS", f"port {on.http_port}", "is only sent on to HTTPS"),
        Reach("elsewhere", "", NOBODY),
    ]


def all_doors() -> DoorsAnswer:
    """What is reachable from where, and the devices that joined."""
    return _doors()


def _doors() -> DoorsAnswer:
    on, known = network(), doors()
    return DoorsAnswer(
        on=on is not None,
        has_passphrase=known.has_passphrase,
        reach=_reach(on),
        devices=[
            DeviceLine(
                id=d.id,
                name=d.name,
                role=known.role_of(d),
                joined_at=d.joined_at,
                seen_at=d.seen_at,
                owner_until=d.owner_until if known.role_of(d) == "owner" else None,
                this_one=g.device is not None and g.device.id == d.id,
            )
            for d in known.devices()
        ],
        address=on.address if on else "",
        fingerprint=on.authority.fingerprint if on else "",
        how=HOW_ON if on else HOW_OFF,
    )


def _squares(text: str) -> list[str]:
    return ["".join(str(int(cell)) for cell in row) for row in segno.make(text).matrix]


def new_code(body: CodeInput) -> CodeAnswer:
    """A code for one device to join with, good once and for minutes."""
    made: Code = doors().new_code(body.name, body.role)
    on = network()
    address = on.address if on else request.host_url
    return CodeAnswer(made.digits, made.until, address, _squares(f"{address}#/join/{made.digits}"))


def change_device(body: DeviceInput) -> DoorsAnswer:
    """Rename a device, or let it do more or less."""
    doors().change(body.id, name=body.name, role=body.role)
    return _doors()


def shut_out(body: ShutOutInput) -> DoorsAnswer:
    """A device may not come in any more, from its next request on."""
    doors().shut_out(body.id)
    return _doors()


def set_passphrase(body: PassphraseInput) -> DoorsAnswer:
    """Set the shop's passphrase; what the old one gave ends."""
    doors().set_passphrase(body.passphrase)
    return _doors()


def authority_file() -> Response:
    """The authority's certificate, for a device to trust. NotFoundError without a network."""
    on = network()
    if on is None:
        raise NotFoundError("authority", "here: the shop's network is off")
    headers = {"Content-Disposition": 'attachment; filename="jade-ribbon-authority.crt"'}
    return Response(on.authority.der, mimetype="application/x-x509-ca-cert", headers=headers)
