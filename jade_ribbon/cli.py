"""The command line: serve, demo, calc, recommend, backup, restore.

Heavy packages are imported inside the commands that need them, so `calc` starts fast.
"""

import json
import sys
from typing import BinaryIO, NoReturn

import click

from jade_ribbon.core.errors import InputError, refuse

EXAMPLES = """
Examples:

\b
  jade-ribbon demo
  echo '[{"feed_m_min": 2, "speed_m_s": 14.5, "pitch_mm": 12.7}]' | jade-ribbon calc bite
  jade-ribbon recommend job.json
  jade-ribbon backup shop.sqlite
"""


def _fail(error: InputError) -> NoReturn:
    faults = [{"path": f.path, "message": f.message} for f in error.faults]
    click.echo(json.dumps({"errors": faults}, ensure_ascii=False, indent=2))
    sys.exit(2)


def _say(result: object) -> None:
    click.echo(json.dumps(result, ensure_ascii=False, indent=2, allow_nan=False))


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
        _say(calculate_all(name, _strict_json(click.get_text_stream("stdin").read())))
    except InputError as error:
        _fail(error)


@main.command(epilog="Example: jade-ribbon recommend job.json")
@click.argument("file", type=click.File("rb"))
def recommend(file: BinaryIO) -> None:
    """Recommend a band and settings for job FILE ('-' for standard input)."""
    from jade_ribbon.core.recommend import recommend as run
    from jade_ribbon.formats.job import read_job

    try:
        _say(run(read_job(file.read())))
    except InputError as error:
        _fail(error)
