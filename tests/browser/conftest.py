"""A real Chromium against a real server on a copy of the sample boatyard."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, ConsoleMessage, Page, Playwright, expect, sync_playwright

from jade_ribbon.demo.serving import CHROMIUM
from tests.support.served import served

AXE = Path("web/node_modules/axe-core/axe.min.js")


# A slow machine is no failure: what is waited for may take its time, what is wrong still fails.
expect.set_options(timeout=20_000)

CONTEXT: dict[str, Any] = {
    "viewport": {"width": 1280, "height": 800},
    "color_scheme": "light",
    "locale": "en-GB",
    "reduced_motion": "reduce",
    # What a test answers in the server's place reaches the page; the worker has tests of its own.
    "service_workers": "block",
}


@pytest.fixture(scope="session")
def driver() -> Iterator[Playwright]:
    with sync_playwright() as driver:
        yield driver


@pytest.fixture(scope="session")
def browser(driver: Playwright) -> Iterator[Browser]:
    # There is no GPU here: Debian's flags would have one imitated for every page painted.
    browser = driver.chromium.launch(executable_path=CHROMIUM, args=["--disable-gpu"])
    yield browser
    browser.close()


@pytest.fixture(scope="module")
def address(yard_file: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """A server of its own for each file of tests."""
    copy = tmp_path_factory.mktemp("served") / "yard.sqlite"
    copy.write_bytes(yard_file.read_bytes())
    with served(copy) as url:
        yield url


@pytest.fixture
def page(browser: Browser) -> Iterator[Page]:
    """A page whose errors fail the test. Refused requests are said by the page, not thrown."""
    context = browser.new_context(**CONTEXT)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))

    def heard(message: ConsoleMessage) -> None:
        if message.type == "error" and "Failed to load resource" not in message.text:
            errors.append(message.text)

    page.on("console", heard)
    page.set_default_timeout(20_000)
    yield page
    context.close()
    assert errors == []


def serious(page: Page, *rules: str) -> list[str]:
    """What axe finds serious or critical on the page as it stands, by all rules or some."""
    if not page.evaluate("typeof window.axe === 'object'"):
        page.evaluate(AXE.read_text())
    options = {"resultTypes": ["violations"], **({"runOnly": list(rules)} if rules else {})}
    found = page.evaluate("(options) => axe.run(document, options)", options)
    return [
        f"{v['id']}: {n['target']} {n['failureSummary']}"
        for v in found["violations"]
        if v["impact"] in ("serious", "critical")
        for n in v["nodes"][:3]
    ]
