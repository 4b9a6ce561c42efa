"""A phone over the shop's network: HTTPS that it trusts, joining, roles, and no network at all.

The machine's address is one of its own loopback range; the browser trusts the made authority and
nothing else is told to it.
"""

import re
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

import pytest
from playwright.sync_api import BrowserContext, Page, Playwright, ViewportSize, expect

from jade_ribbon.demo.serving import CHROMIUM, free_port
from tests.support.served import served

ADDRESS = "127.0.0.7"
WORDS = "copper kettle ninety"
PHONE: ViewportSize = {"width": 390, "height": 844}


@dataclass(frozen=True)
class Shop:
    """A shop's machine: where it is reached from itself and from its network."""

    file: Path
    port: int
    https_port: int
    http_port: int

    @property
    def here(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def there(self) -> str:
        return f"https://{ADDRESS}:{self.https_port}"

    @contextmanager
    def served(self) -> Iterator["Shop"]:
        ports = ("--https-port", str(self.https_port), "--http-port", str(self.http_port))
        more = ("--network", "--address", ADDRESS, *ports)
        with served(self.file, self.port, more, JADE_RIBBON_PASSPHRASE=WORDS):
            yield self


@pytest.fixture(scope="module")
def shop(yard_file: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Shop]:
    file = Path(shutil.copy(yard_file, tmp_path_factory.mktemp("network") / "yard.sqlite"))
    with Shop(file, free_port(), free_port(), free_port()).served() as shop:
        yield shop


def trusting(folder: Path, authority: Path) -> Path:
    """A home folder whose browser trusts an authority, as a person would have told it to."""
    store = folder / ".pki" / "nssdb"
    store.mkdir(parents=True)
    database = f"sql:{store}"
    subprocess.run(["certutil", "-N", "-d", database, "--empty-password"], check=True)
    add = ["certutil", "-A", "-d", database, "-t", "C,,", "-n", "shop", "-i", str(authority)]
    subprocess.run(add, check=True)
    return folder


@contextmanager
def a_phone(driver: Playwright, home: Path) -> Iterator[BrowserContext]:
    context = driver.chromium.launch_persistent_context(
        home / "profile",
        executable_path=CHROMIUM,
        env={"HOME": str(home)},
        args=["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"],
        viewport=PHONE,
        has_touch=True,
        locale="en-GB",
        permissions=["microphone"],
    )
    yield context
    context.close()


@pytest.fixture
def phone(driver: Playwright, shop: Shop, tmp_path: Path) -> Iterator[BrowserContext]:
    authority = shop.file.with_name(f"{shop.file.stem}.doors") / "authority.crt"
    with a_phone(driver, trusting(tmp_path, authority)) as context:
        yield context


def join(page: Page, owner: Page, shop: Shop, role: str = "anyone") -> None:
    """The owner shows a code; the phone types it."""
    owner.goto(f"{shop.here}/#/shop/network")
    owner.get_by_label("Whose").select_option("Odda")
    owner.get_by_role("radio", name=re.compile(f"^{role}")).check()
    owner.get_by_role("button", name="Show a code").click()
    code = owner.locator(".digits").inner_text()
    page.goto(f"{shop.there}/")
    page.get_by_label("The code shown there").fill(code)
    page.get_by_role("button", name="Join").click()
    expect(page.get_by_text("Odda’s phone")).to_be_visible()


def test_a_browser_that_was_not_told_warns(driver: Playwright, shop: Shop, tmp_path: Path) -> None:
    with a_phone(driver, tmp_path) as context:
        page = context.new_page()
        with pytest.raises(Exception, match="ERR_CERT_AUTHORITY_INVALID"):
            page.goto(f"{shop.there}/")


def test_a_phone_joins_is_secure_and_is_shut_out(
    phone: BrowserContext, page: Page, shop: Shop
) -> None:
    device = phone.new_page()
    device.goto(f"http://{ADDRESS}:{shop.http_port}/")
    assert device.url.startswith(shop.there), "plain HTTP is sent on"
    expect(device.get_by_role("heading", name="Join this shop")).to_be_visible()
    expect(device.get_by_role("navigation")).to_have_count(0)
    join(device, page, shop)
    device.goto(f"{shop.there}/#/rack")
    expect(device.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    assert device.evaluate("isSecureContext")
    heard = "navigator.mediaDevices.getUserMedia({audio: true}).then((s) => s.active)"
    assert device.evaluate(heard) is True
    device.goto(f"{shop.there}/#/shop/about")
    device.get_by_label("Name", exact=True).fill("Mine now")
    device.get_by_label("Currency").focus()
    expect(device.get_by_text("This is for the owner's device only.")).to_be_visible()
    page.goto(f"{shop.here}/#/shop/network")
    page.get_by_role("button", name="Shut out").last.click()
    device.goto(f"{shop.there}/#/rack/radius")
    expect(device.get_by_role("heading", name="Join this shop")).to_be_visible()


def test_a_code_scanned_joins_by_one_tap(phone: BrowserContext, page: Page, shop: Shop) -> None:
    body = {"name": "Tablet", "role": "authorised"}
    code = page.request.post(f"{shop.here}/api/doors/code", data=body).json()["code"]
    device = phone.new_page()
    device.goto(f"{shop.there}/#/join/{code}")
    device.get_by_role("button", name="Join").click()
    expect(device.get_by_text("Tablet")).to_be_visible()
    assert code not in device.url
    told = device.evaluate("fetch('/api/door').then((r) => r.json())")
    assert told["role"] == "authorised"


def test_without_a_network_it_opens_and_keeps_what_is_done(
    phone: BrowserContext, page: Page, shop: Shop
) -> None:
    """The open card, the plan and the rack; a step, a run and an event go once it is back."""
    jobs = page.request.get(f"{shop.here}/api/jobs").json()
    job = next(j for j in jobs if j["name"] == "Strakes for the tender")
    choice = page.request.post(f"{shop.here}/api/setups", data={"job_id": job["id"], "band_id": 7})
    setup = choice.json()["id"]
    device = phone.new_page()
    join(device, page, shop)
    device.goto(f"{shop.there}/#/plan/{job['id']}")
    expect(device.get_by_role("region", name="The band")).to_be_visible()
    device.evaluate("navigator.serviceWorker.ready.then(() => null)")
    device.reload()
    with device.expect_response(re.compile(r"/api/jobs/\d+/run$")):
        expect(device.get_by_role("region", name="The band")).to_be_visible()
    band = device.get_by_role("region", name="The band").inner_text()
    device.goto(f"{shop.there}/#/rack")
    expect(device.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    phone.set_offline(True)
    device.reload()
    expect(device.get_by_text("The shop’s machine does not answer.")).to_be_visible()
    expect(device.get_by_text(re.compile(r"^\d+ of \d+ bands$"))).to_be_visible()
    device.goto(f"{shop.there}/#/plan/{job['id']}")
    expect(device.get_by_role("region", name="The band")).to_be_visible()
    assert device.get_by_role("region", name="The band").inner_text() == band
    device.goto(f"{shop.there}/#/setup/{setup}")
    device.get_by_role("button", name="Done", exact=True).click()
    expect(device.get_by_role("link", name="1 not sent")).to_be_visible()
    device.get_by_role("link", name="Run", exact=True).click()
    device.get_by_role("button", name=re.compile("^Log ")).click()
    device.get_by_role("button", name=re.compile("^As planned")).click()
    expect(device.get_by_role("link", name="2 not sent")).to_be_visible()
    device.goto(f"{shop.there}/#/waiting")
    expect(device.get_by_text(f"card of job {job['id']}")).to_be_visible()
    phone.set_offline(False)
    expect(device.get_by_role("link", name=re.compile("not sent"))).to_be_hidden()
    card = page.request.get(f"{shop.here}/api/setups/{setup}").json()
    assert card["steps"]["isolate"]["done"] is True
    band = page.request.get(f"{shop.here}/api/bands/7").json()
    assert band["runs"][-1]["job_id"] == job["id"]
    device.goto(f"{shop.there}/#/rack")
    expect(device.get_by_text("The shop’s machine does not answer.")).to_be_hidden()
