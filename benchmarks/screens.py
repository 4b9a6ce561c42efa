"""`make screens`: the README's pictures, taken from the sample boatyard."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from jade_ribbon.demo.serving import CHROMIUM, free_port, running, serving
from jade_ribbon.demo.world import make_world

TARGET = Path("docs/screenshots")
OUTLINE = Path("tests/data/curves/s-bend.svg")
CURVE = {
    "name": "Knee from a drawing",
    "operation": "curve",
    "material": "white_oak_dry",
    "height_mm": 40,
    "length_mm": 600,
    "count": 4,
    "min_radius_mm": 120,
    "finish": "plane",
    "saw_id": 2,
}


def job_named(page: Page, address: str, name: str) -> dict[str, int]:
    jobs = page.request.get(f"{address}/api/jobs").json()
    found: dict[str, int] = next(j for j in jobs if j["name"] == name)
    return found


def band_named(page: Page, address: str, label: str) -> int:
    bands = page.request.get(f"{address}/api/bands").json()
    return int(next(b["id"] for b in bands if b["label"] == label))


def open_trouble(page: Page, address: str) -> int:
    """The trouble being asked about, by what stands first of it."""
    told = {"saw_id": 2, "symptoms": {"barrel": "clear", "hard_push": "clear"}, "who": "Senn"}
    trouble = page.request.post(f"{address}/api/faults", data=told).json()
    crept = {"check": "when_began", "outcome": "crept", "who": "Senn"}
    page.request.post(f"{address}/api/faults/{trouble['id']}/answer", data=crept)
    return int(trouble["id"])


def settle(page: Page, url: str) -> None:
    page.goto(url)
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as driver:
        file = Path(folder) / "yard.sqlite"
        make_world(file)
        browser = driver.chromium.launch(executable_path=CHROMIUM)
        context = browser.new_context(
            viewport={"width": 1280, "height": 800}, color_scheme="light", service_workers="block"
        )
        page = context.new_page()
        with serving(file) as address:
            shoot(page, address)
        page.set_viewport_size({"width": 1280, "height": 800})
        with serving(Path(folder) / "new.sqlite") as address:
            settle(page, f"{address}/#/shop/saws/new")
            page.get_by_role("button", name="Resaw").click()
            page.screenshot(path=TARGET / "start.png")
        network(page, Path(folder) / "new.sqlite")
        browser.close()


def network(page: Page, file: Path) -> None:
    """What is reachable from where, and a code for a phone."""
    port, secure, plain = free_port(), free_port(), free_port()
    ports = ("--https-port", str(secure), "--http-port", str(plain))
    more = ("--network", "--address", "127.0.0.7", *ports)
    with running(file, port, *more, JADE_RIBBON_PASSPHRASE="copper kettle ninety"):
        settle(page, f"http://127.0.0.1:{port}/#/shop/network")
        page.get_by_role("button", name="Show a code").click()
        page.get_by_text("Good once").wait_for()
        page.evaluate("scrollTo(0, 260)")
        page.screenshot(path=TARGET / "network.png")


def shoot(page: Page, address: str) -> None:
    settle(page, f"{address}/#/jobs")
    strakes = job_named(page, address, "Strakes for the tender")
    ferry = job_named(page, address, "Garboards for the ferry")
    views = {
        "plan": f"/plan/{strakes['id']}",
        "set-up": f"/setup/{ferry['setup_id']}",
        "rack": "/rack",
        "band": f"/rack/{band_named(page, address, 'K-07')}",
        "learned": "/rack/learned",
        "money": "/money",
        "upkeep": "/shop/saws/1/upkeep",
        "faults": f"/faults/{open_trouble(page, address)}",
        "shop": "/shop",
        "log": "/log",
    }
    for name, path in views.items():
        settle(page, f"{address}/#{path}")
        if name == "plan":
            page.get_by_role("region", name="The band").wait_for()
        if name == "set-up":
            page.get_by_role("list", name="Steps").wait_for()
        page.screenshot(path=TARGET / f"{name}.png")
    curve = page.request.post(f"{address}/api/jobs", data=CURVE).json()
    settle(page, f"{address}/#/plan/{curve['id']}")
    page.get_by_label("Outline file").set_input_files(OUTLINE)
    page.get_by_text("Tightest smooth radius").wait_for()
    page.wait_for_timeout(600)
    page.screenshot(path=TARGET / "curve.png")
    compare(page, address, strakes["id"])
    stock(page, address, strakes["id"])
    setting_up(page, address)
    finish_card(page, address, ferry)
    settle(page, f"{address}/#/run/{ferry['id']}")
    log_one(page)
    page.evaluate("scrollTo(0, 0)")
    page.screenshot(path=TARGET / "run.png")
    inspect(page, address, ferry["id"])
    settle(page, f"{address}/#/plan/{strakes['id']}")
    page.keyboard.press("d")
    page.wait_for_timeout(300)
    page.screenshot(path=TARGET / "plan-dark.png")
    page.keyboard.press("d")


def inspect(page: Page, address: str, job: int) -> None:
    """A barrelled board read, and the next one better."""
    settle(page, f"{address}/#/inspect/{job}")
    for piece, middle in (("board 1", 23.35), ("board 2", 22.75)):
        page.get_by_label("Thickness at").wait_for()
        for reading in (22.21, middle, 22.15, 22.24, middle + 0.1, 22.2, 22.3, middle, 22.22):
            page.get_by_label("Thickness at").fill(str(reading))
            page.keyboard.press("Enter")
        page.get_by_label("Which piece").fill(piece)
        page.get_by_role("button", name="Keep the face").click()
        page.get_by_role("button", name="Close").click()
    page.wait_for_timeout(400)
    page.evaluate("scrollTo(0, 0)")
    page.screenshot(path=TARGET / "inspect.png")


def stock(page: Page, address: str, job_id: int) -> None:
    """A billet with a cut dragged off its place."""
    settle(page, f"{address}/#/plan/{job_id}")
    settle(page, f"{address}/#/stock")
    page.get_by_role("link", name="L-34").click()
    page.get_by_role("slider", name="Cut 1").wait_for()
    if page.get_by_role("button", name="Close").count():
        page.get_by_role("button", name="Close").click()
    page.wait_for_timeout(500)
    page.screenshot(path=TARGET / "stock.png")


def compare(page: Page, address: str, job_id: int) -> None:
    """Two more bands beside the chosen one."""
    settle(page, f"{address}/#/plan/{job_id}")
    page.get_by_role("button", name="Use another").click()
    for place in range(2):
        page.get_by_label("compare").nth(place).check()
    section = page.get_by_role("region", name="Compared")
    section.wait_for()
    page.wait_for_timeout(500)
    section.scroll_into_view_if_needed()
    page.screenshot(path=TARGET / "compare.png")
    section.get_by_role("button", name="Close").click()


def setting_up(page: Page, address: str) -> None:
    """The saw that a card is for, as it stands."""
    settle(page, f"{address}/#/shop/saws/1/stand")
    page.screenshot(path=TARGET / "stand.png")


def finish_card(page: Page, address: str, job: dict[str, int]) -> None:
    """Tick the rest of the open card, so that Run has something to show."""
    url = f"{address}/api/setups/{job['setup_id']}"
    for step in page.request.get(url).json()["card"]["steps"]:
        body = {"key": step["key"], "done": True, "who": "Odda"}
        page.request.post(f"{url}/steps", data=body)
    page.request.post(f"{url}/finish")


def log_one(page: Page) -> None:
    for name in ("Push stick", "Extraction", "In- and outfeed", "Isolator"):
        page.get_by_role("button", name=name).click()
    for _ in range(5):
        page.get_by_role("button", name="One piece more").click()
    page.get_by_role("button", name="hard push").click()
    page.get_by_role("button", name="Log 6 pieces").click()
    page.get_by_role("button", name=re.compile("^As planned")).click()
    page.get_by_text("Edge used:").first.wait_for()
    page.get_by_role("button", name="Close").click()
    page.wait_for_timeout(1000)


if __name__ == "__main__":
    main()
