"""The command line: serve, passphrase, demo, calc, recommend, backup, restore.

Heavy packages are imported inside the commands that need them, so `calc` starts fast.
"""

import errno
import json
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO, NoReturn

import click

from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.core.quantities.words import metric

if TYPE_CHECKING:
    from flask import Flask

    from jade_ribbon.services.doors.network import Network

EXAMPLES = """
Examples:

\b
  jade-ribbon demo
  echo '[{"feed_m_min": 2, "speed_m_s": 14.5, "pitch_mm": 12.7}]' | jade-ribbon calc bite
  jade-ribbon recommend job.json
  jade-ribbon pluck band.wav
  jade-ribbon backup shop.sqlite
"""


def _as_json(context: click.Context, _option: click.Parameter, wanted: bool) -> None:
    context.meta[JSON] = wanted


JSON = "jade_ribbon.json"
for_a_person = click.option(
    "--json",
    is_flag=True,
    expose_value=False,
    callback=_as_json,
    help="JSON, as it comes when piped, on a terminal too.",
)
"""A command that answers in words on a terminal."""


def _say(result: object, *, whole: bool = False) -> None:
    """Print an answer: in words on a terminal, else as JSON; `whole` figures keep every digit."""
    context = click.get_current_context(silent=True)
    wanted = context.meta.get(JSON) if context else None
    if wanted is False and sys.stdout.isatty():
        from jade_ribbon.formats.readable import readable

        click.echo(readable(result))
        return
    if not whole:
        from jade_ribbon.formats.readable import rounded

        result = rounded(result)
    click.echo(json.dumps(result, ensure_ascii=False, indent=2, allow_nan=False))


def _fail(error: InputError) -> NoReturn:
    _say({"errors": [{"path": f.path, "message": metric(f.message)} for f in error.faults]})
    sys.exit(2)


def _strict_json(text: str) -> object:
    def no_constant(token: str) -> NoReturn:
        raise ValueError(f"{token} is not a number")

    try:
        return json.loads(text, parse_constant=no_constant)
    except (ValueError, RecursionError) as problem:
        raise refuse("", f"not valid JSON: {problem}") from problem


@click.group(epilog=EXAMPLES)
@click.version_option(package_name="jade-ribbon")
def main() -> None:
    """Choose, set up, run and track band saw blades."""


@main.command(epilog="Example: jade-ribbon calc bite < cases.json")
@click.argument("name")
def calc(name: str) -> None:
    """Run calculation NAME on a JSON list of inputs from standard input."""
    from jade_ribbon.core.calc import calculate_all

    try:
        _say(calculate_all(name, _strict_json(sys.stdin.read())), whole=True)
    except InputError as error:
        _fail(error)


@main.command(epilog="Example: jade-ribbon recommend job.json")
@click.argument("file", type=click.File("rb"))
@click.option(
    "--draws",
    default=256,
    show_default=True,
    type=click.IntRange(16, 65_536),
    help="Draws of what is not sure, for chances and ranges.",
)
@click.option("--seed", default=1, show_default=True, type=click.IntRange(0, 2**31))
@for_a_person
def recommend(file: BinaryIO, draws: int, seed: int) -> None:
    """Recommend a band and settings for job FILE ('-' for standard input)."""
    from jade_ribbon.formats.job import read_job
    from jade_ribbon.formats.recommendation import recommend as run

    try:
        _say(run(read_job(file.read()), draws=draws, seed=seed))
    except InputError as error:
        _fail(error)


@main.command(epilog="Example: jade-ribbon allround week.json")
@click.argument("file", type=click.File("rb"))
@for_a_person
def allround(file: BinaryIO) -> None:
    """The one band for all jobs of FILE, changing for each, and the best two ('-': input)."""
    from jade_ribbon.formats.all_round import run_all_round

    try:
        _say(run_all_round(file.read()))
    except InputError as error:
        _fail(error)


@main.command("yield", epilog="Example: jade-ribbon yield planking.json")
@click.argument("file", type=click.File("rb"))
@for_a_person
def yield_(file: BinaryIO) -> None:
    """Which pieces from which billets, for yield FILE ('-' for standard input)."""
    from jade_ribbon.formats.yield_job import plan_record, read_yield
    from jade_ribbon.services.stock.yields import best_plan

    try:
        job = read_yield(file.read())
        plan = best_plan(job).plan
    except InputError as error:
        _fail(error)
    _say(plan_record(job, plan))


@main.command(epilog="Example: jade-ribbon curve bracket.svg")
@click.argument("file", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@click.option("--unit", help="Unit of a DXF drawing that does not say: mm, cm, m, in, ft, pt.")
@for_a_person
def curve(file: Path, unit: str | None) -> None:
    """Tightest radius, length and sharp corners of outline FILE (SVG or DXF), in mm."""
    from jade_ribbon.formats.outline import read_outline
    from jade_ribbon.formats.sandbox import read_here

    try:
        found = read_here("file", read_outline, file.read_bytes(), file.name, unit)
    except InputError as error:
        _fail(error)
    _say(
        {
            "min_radius_mm": found.min_radius_mm,
            "at_mm": found.at_mm,
            "length_mm": found.length_mm,
            "corners": found.corners,
        }
    )


@main.command(epilog="Example: jade-ribbon pluck band.wav")
@click.argument("file", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@for_a_person
def pluck(file: Path) -> None:
    """The note of a plucked band in recording FILE (WAV or FLAC), in Hz."""
    from jade_ribbon.core.setup.tension.listening import listen
    from jade_ribbon.formats.recording import read_recording_file
    from jade_ribbon.formats.sandbox import read_here

    try:
        recording = read_here("recording", read_recording_file, file)
        heard = read_here("recording", listen, recording.samples, recording.rate_Hz)
    except InputError as error:
        _fail(error)
    _say({"frequency_Hz": heard.frequency_Hz, "confidence": heard.confidence})


@main.command(epilog="Example: jade-ribbon diagnose trouble.json")
@click.argument("file", type=click.File("rb"))
@for_a_person
def diagnose(file: BinaryIO) -> None:
    """Causes of the trouble in faults FILE, and the checks that tell most ('-': input)."""
    from jade_ribbon.formats.faults_file import diagnose_file

    try:
        _say(diagnose_file(file.read()))
    except InputError as error:
        _fail(error)


recording_file = click.Path(path_type=Path, exists=True, dir_okay=False)


@main.command(
    epilog="Example: jade-ribbon sound today.wav --speed 14.5 --length 3700 --pitch 8.5 "
    "--wheels 400,400 --against good.wav"
)
@click.argument("file", type=recording_file)
@click.option("--speed", required=True, type=float, help="Band speed, m/s.")
@click.option("--length", required=True, type=float, help="Band length, mm.")
@click.option("--pitch", required=True, type=float, help="Tooth pitch, mm.")
@click.option("--wheels", required=True, help="Wheel diameters, mm, parted by commas.")
@click.option("--motor", type=float, help="Motor, turns a minute.")
@click.option("--against", type=recording_file, help="The last good run, at the same speed.")
@for_a_person
def sound(
    file: Path,
    speed: float,
    length: float,
    pitch: float,
    wheels: str,
    motor: float | None,
    against: Path | None,
) -> None:
    """What turns in recording FILE of a running saw, and what grew louder."""
    from jade_ribbon.core.faults.orders import hear, louder_than_good
    from jade_ribbon.formats.recording import read_recording_file
    from jade_ribbon.formats.sandbox import read_here
    from jade_ribbon.formats.sound_report import sound_record, turning_of

    try:
        turning = turning_of(
            speed_m_s=speed,
            band_length_mm=length,
            pitch_mm=pitch,
            wheels=wheels,
            motor_rpm=motor,
        )
        heard = []
        for one in (file, *([against] if against else [])):
            recording = read_here("recording", read_recording_file, one)
            heard.append(hear(recording.samples, recording.rate_Hz, turning))
    except InputError as error:
        _fail(error)
    _say(sound_record(heard[0], louder_than_good(*heard) if against else None))


DEFAULT_FILE = Path("data/shop.sqlite")
DEMO_FILE = Path("data/demo.sqlite")
DEFAULT_PORT = 8433


def _plainly(problem: Exception, address: str) -> str:
    """What keeps the application from being served, in a line."""
    if isinstance(problem, OSError) and problem.errno == errno.EADDRINUSE:
        return f"{address} is in use already: stop what listens there, or give another --port."
    if isinstance(problem, OSError) and problem.filename is not None:
        return f"{problem.filename} cannot be used: {problem.strerror}."
    if isinstance(problem, OSError) and problem.errno in (errno.EACCES, errno.EADDRNOTAVAIL):
        return f"{address} cannot be listened on: {problem.strerror}."
    # What SQLite says, without the statement it said it of.
    said = str(getattr(problem, "orig", problem))
    return f"The shop's file cannot be used: {said}." if hasattr(problem, "orig") else said


THIS_MACHINE = ("127.0.0.1", "localhost", "::1")


def _serve(
    file: Path, host: str, port: int, network: "Callable[[Flask], Network] | None" = None
) -> None:
    from jade_ribbon.server import serve as run

    if host not in THIS_MACHINE and not host.startswith("127."):
        raise click.ClickException(
            f"{host} would open the shop to whoever is on the network: use --network, which asks "
            "for a passphrase and lets joined devices in only."
        )

    def listening() -> None:
        click.echo(f"Jade Ribbon is at http://{host}:{port}/  (stop with Ctrl-C)")

    from sqlalchemy.exc import SQLAlchemyError

    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        run(file, host, port, listening, network)
    except (OSError, ValueError, SQLAlchemyError) as problem:
        raise click.ClickException(_plainly(problem, f"{host}:{port}")) from problem


host_option = click.option("--host", default="127.0.0.1", show_default=True)
port_option = click.option(
    "--port", default=DEFAULT_PORT, show_default=True, type=click.IntRange(1, 65535)
)
file_option = click.option(
    "--file",
    default=DEFAULT_FILE,
    show_default=True,
    type=click.Path(path_type=Path, dir_okay=False),
    envvar="JADE_RIBBON_FILE",
    help="The shop's file.",
)


PASSPHRASE = "JADE_RIBBON_PASSPHRASE"


def _asked_passphrase() -> str:
    """A passphrase from the environment, or typed twice at a terminal."""
    given = os.environ.get(PASSPHRASE)
    if given is not None:
        return given
    if not sys.stdin.isatty():
        raise click.ClickException(
            f"The shop has no passphrase yet. Set one: jade-ribbon passphrase, or {PASSPHRASE}."
        )
    click.echo("Devices of the network come in by the shop's passphrase, or by a code it gives.")
    return str(click.prompt("Passphrase", hide_input=True, confirmation_prompt=True))


def _set_passphrase(file: Path) -> None:
    from jade_ribbon.services.doors.doors import Doors

    try:
        Doors(file).set_passphrase(_asked_passphrase())
    except InputError as error:
        raise click.ClickException(
            "; ".join(f"{f.path} {metric(f.message)}" for f in error.faults)
        ) from error


def _networked(
    file: Path, names: tuple[str, ...], https_port: int, http_port: int
) -> "Callable[[Flask], Network]":
    """How the shop's network is opened: never without a passphrase."""
    from jade_ribbon.services.doors.doors import Doors
    from jade_ribbon.services.doors.network import certified, machine_names
    from jade_ribbon.services.shop.settings import read_shop

    def open_network(app: "Flask") -> "Network":
        if not Doors(file).has_passphrase:
            _set_passphrase(file)
        with app.extensions["store"].read() as session:
            shop = read_shop(session).name
        told = names or machine_names()
        on = certified(file, shop, told, (https_port, http_port), names[0] if names else None)
        click.echo(f"Devices of the shop's network: {on.address}")
        click.echo("They join by a code from Shop, Network, on this machine.")
        return on

    return open_network


@main.command(epilog="Example: jade-ribbon serve --file shop.sqlite --network")
@file_option
@host_option
@port_option
@click.option("--network", is_flag=True, help="Let joined devices of the shop's network in too.")
@click.option(
    "--address",
    "addresses",
    multiple=True,
    help="With --network: listen on this address only; more give further names.",
)
@click.option("--https-port", default=8443, show_default=True, type=click.IntRange(1, 65535))
@click.option(
    "--http-port",
    default=8480,
    show_default=True,
    type=click.IntRange(1, 65535),
    help="Only sends on to HTTPS.",
)
def serve(
    file: Path,
    host: str,
    port: int,
    network: bool,
    addresses: tuple[str, ...],
    https_port: int,
    http_port: int,
) -> None:
    """Serve the application on a shop's own file."""
    on = _networked(file, addresses, https_port, http_port) if network else None
    _serve(file, host, port, on)


@main.command(epilog="Example: jade-ribbon passphrase --file shop.sqlite")
@file_option
def passphrase(file: Path) -> None:
    """Set the shop's passphrase; devices that came in by the old one stay, as what they joined."""
    _set_passphrase(file)
    click.echo("The passphrase is set.")


@main.command(epilog="Example: jade-ribbon demo --fresh")
@click.option(
    "--file",
    default=DEMO_FILE,
    show_default=True,
    type=click.Path(path_type=Path, dir_okay=False),
    help="Where the demo's data is kept.",
)
@click.option("--fresh", is_flag=True, help="Make the demo's data anew.")
@host_option
@port_option
def demo(file: Path, fresh: bool, host: str, port: int) -> None:
    """Serve the sample boatyard, two years into its records."""
    from jade_ribbon.demo.world import make_world, up_to_today
    from jade_ribbon.store.files import BESIDE, held, is_new

    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        with held(file):
            if fresh:
                for name in (file.name, *(f"{file.name}{more}" for more in BESIDE)):
                    file.with_name(name).unlink(missing_ok=True)
            if is_new(file):  # held, it is there already, and empty
                click.echo("Making the sample boatyard's two years of records …")
                make_world(file, later=up_to_today())
    except (OSError, ValueError) as problem:
        raise click.ClickException(str(problem)) from problem
    _serve(file, host, port)


@main.command("sample-yard", hidden=True)
@click.argument("file", type=click.Path(path_type=Path, dir_okay=False))
def sample_yard(file: Path) -> None:
    """Make the sample boatyard in new FILE, whole: nothing beside it."""
    from jade_ribbon.demo.world import make_world, up_to_today
    from jade_ribbon.store.database import Store

    try:
        make_world(file, later=up_to_today())
        store = Store(file)
        store.checkpoint()
        store.close()
    except (OSError, ValueError) as problem:
        raise click.ClickException(str(problem)) from problem


@main.command(epilog="Example: jade-ribbon backup shop-monday.sqlite")
@click.argument("target", metavar="FILE", type=click.Path(path_type=Path))
@click.option("--from", "source", default=DEFAULT_FILE, type=click.Path(path_type=Path))
def backup(target: Path, source: Path) -> None:
    """Copy the shop's file, live as it is, to new FILE."""
    from jade_ribbon.store.files import backup as run

    try:
        run(source, target)
    except (OSError, ValueError) as problem:
        raise click.ClickException(str(problem)) from problem
    click.echo(f"{source} is backed up in {target}")


@main.command(epilog="Example: jade-ribbon restore shop-monday.sqlite --to restored.sqlite")
@click.argument("source", metavar="FILE", type=click.Path(path_type=Path))
@click.option("--to", "target", required=True, type=click.Path(path_type=Path))
@click.option("--over", is_flag=True, help="Replace a file that exists. Stop the server first.")
def restore(source: Path, target: Path, over: bool) -> None:
    """Bring backup FILE back to a new file; never over a live one unasked."""
    from jade_ribbon.store.files import restore as run

    try:
        run(source, target, over=over)
    except (OSError, ValueError) as problem:
        raise click.ClickException(str(problem)) from problem
    click.echo(f"{source} is restored in {target}")


@main.command(hidden=True)
def reference() -> None:
    """Print the reference tables as the interface reads them, for its tests."""
    import tempfile

    from jade_ribbon.api.app import create_app

    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "empty.sqlite").test_client()
        _say(client.get("/api/reference", headers={"Quantities": "open"}).json, whole=True)


@main.command(hidden=True)
def openapi() -> None:
    """Print the OpenAPI document."""
    from jade_ribbon.api.document import document
    from jade_ribbon.api.routes import OPERATIONS

    _say(document(OPERATIONS), whole=True)
