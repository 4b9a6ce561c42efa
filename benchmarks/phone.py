"""How soon a phone has its first answer: cold, four times slower, over fast 3G."""

import shutil
import tempfile
import time
from pathlib import Path

from playwright.sync_api import sync_playwright

from jade_ribbon.demo.serving import CHROMIUM, serving

LATENCY_MS, DOWN_BYTES_S, UP_BYTES_S = 562.5, 1.6e6 * 0.9 / 8, 0.75e6 * 0.9 / 8
"""Fast 3G as browsers' own tools have it."""
SLOWER = 4
WITHIN_S = 4.0


def first_answer_s(address: str) -> float:
    """Seconds from typing the address to a band and its figures."""
    with sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path=CHROMIUM)
        page = browser.new_page(viewport={"width": 390, "height": 844})
        tools = page.context.new_cdp_session(page)
        tools.send("Network.enable")
        net = {"latency": LATENCY_MS, "downloadThroughput": DOWN_BYTES_S}
        tools.send(
            "Network.emulateNetworkConditions",
            {"offline": False, "uploadThroughput": UP_BYTES_S, **net},
        )
        tools.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
        start = time.perf_counter()
        page.goto(address, wait_until="commit")
        page.get_by_role("region", name="The band").wait_for()
        seconds = time.perf_counter() - start
        browser.close()
    return seconds


def bench_phone(file: Path) -> None:
    """The first answer on the sample yard, the best and the middle of five."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(shutil.copy(file, Path(folder) / "yard.sqlite"))
        with serving(copy) as address:
            took = sorted(first_answer_s(address) for _ in range(5))
    print(
        f"{'first answer on a phone, cold, fast 3G':<44} median {took[2]:6.2f} s    "
        f"most {took[-1]:6.2f} s    within {WITHIN_S:g} s"
    )
