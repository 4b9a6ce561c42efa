"""The quick part of `make attack`: each holds, and each could fail."""

import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest

from attacks import power
from attacks.__main__ import held
from attacks.shop import missing, too_few
from attacks.strangers import requests

ROOT = Path(__file__).parents[1]


QUICK = {
    "kills": 6,
    "network": 24,
    "files": 500,
    "strangers": 600,
    "clients": 4,
    "phones": 4,
    "power": 8,
}
"""How often each is made here; the longest first."""
BROKEN = "every second mount taken back"
AT_ONCE = 2
"""Much of an attack is waiting."""
Ended = subprocess.CompletedProcess[str]


def _run(*command: str) -> Ended:
    whole = [sys.executable, "-W", "error", "-m", *command]
    return subprocess.run(whole, capture_output=True, text=True, cwd=ROOT, check=False)


@pytest.fixture(scope="module")
def attacked() -> Iterator[dict[str, Future[Ended]]]:
    """All attacks, a few at a time beside each other."""
    with ThreadPoolExecutor(AT_ONCE) as pool:
        under_way = {n: pool.submit(_run, "attacks", n, str(count)) for n, count in QUICK.items()}
        under_way[BROKEN] = pool.submit(_run, "attacks.mutations", "mount", "10")
        yield under_way


@pytest.mark.parametrize("name", QUICK)
def test_the_shop_holds(attacked: dict[str, Future[Ended]], name: str) -> None:
    run = attacked[name].result()
    assert run.returncode == 0, run.stdout + run.stderr[-3000:]
    assert f"{name}: held" in run.stdout
    assert "Traceback" not in run.stderr


def test_a_product_broken_on_purpose_is_noticed(attacked: dict[str, Future[Ended]]) -> None:
    """Every second mounting taken back after its answer."""
    run = attacked[BROKEN].result()
    assert run.returncode == 0 and "noticed: every second mount" in run.stdout, run.stderr[-2000:]


def test_a_power_cut_does_lose_what_was_not_synced(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The simulated disk forgets: with a weaker setting than ours, writes are gone."""
    monkeypatch.setattr(power, "PRAGMAS", ("journal_mode=WAL", "synchronous=NORMAL"))
    came = power.attack(tmp_path, 8)
    assert came["lost"] and not held(came)


def test_what_is_missing_is_found(tmp_path: Path) -> None:
    from attacks.shop import make_shop

    make_shop(tmp_path / "shop.sqlite")
    told: list[dict[str, Any]] = [
        {"kind": "run", "client_key": "0123", "pieces": 3},
        {"kind": "note", "band_id": 1, "detail": "abcd"},
        {"kind": "place", "band_id": 1, "place": "loft"},
        {"kind": "mount", "band_id": 1, "who": "x"},
        {"kind": "trouble", "who": "x"},
    ]
    assert missing(tmp_path / "shop.sqlite", told) == told
    assert too_few(told, 1) == [] and len(too_few(told[:2], 1)) == 3
    (tmp_path / "broken.sqlite").write_bytes(b"SQLite format 3\0" + b"x" * 5000)
    assert missing(tmp_path / "broken.sqlite", told)[0]["kind"] == "damaged"


def test_a_run_with_another_figure_is_missing(tmp_path: Path) -> None:
    import random

    from attacks.shop import close, make_shop, write_run
    from jade_ribbon.api.app import create_app

    make_shop(tmp_path / "shop.sqlite")
    client = create_app(tmp_path / "shop.sqlite").test_client()
    told = write_run(client, random.Random(1))
    close(client.application)
    assert missing(tmp_path / "shop.sqlite", [told]) == []
    other = {**told, "pieces": told["pieces"] + 1}
    assert missing(tmp_path / "shop.sqlite", [other]) == [other]


def test_hostile_requests_are_the_same_for_a_seed() -> None:
    import random

    one, other = (list(requests(50, random.Random(3))) for _ in range(2))
    assert one == other
