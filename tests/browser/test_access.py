"""Every page, width and theme: nothing serious, nothing cut off, nothing too small."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.browser.looking import looked_through, opened, paths


def test_nothing_is_serious_cut_off_or_too_small(browser: Browser, address: str) -> None:
    assert looked_through(browser, address) == {}


def test_text_twice_as_large_is_not_cut_off(page: Page, address: str) -> None:
    """The browser's own setting of its reader, not ours."""
    large = {"fontSizes": {"standard": 32, "fixed": 26}}
    page.context.new_cdp_session(page).send("Page.setFontSizes", large)
    page.goto(address)
    assert page.evaluate("getComputedStyle(document.documentElement).fontSize") == "32px"
    cut = {}
    for path in paths(page, address):
        opened(page, f"{address}/#/{path}")
        over = page.evaluate("document.documentElement.scrollWidth - innerWidth")
        if over > 0:
            cut[path] = over
    assert cut == {}


def test_every_page_has_a_title_and_says_that_it_came(page: Page, address: str) -> None:
    """A reader hears where it is; whoever goes by keys begins at the heading."""
    page.goto(f"{address}/#/plan")
    expect(page).to_have_title(re.compile("^Plan · "))
    page.get_by_role("link", name="Rack", exact=True).press("Enter")
    expect(page).to_have_title(re.compile("^Rack · "))
    expect(page.locator("p.unseen[aria-live=polite]")).to_have_text("Rack")
    page.keyboard.press("Escape")
    page.goto(f"{address}/#/no/such/page")
    expect(page.get_by_role("heading", name="There is no page at this address")).to_be_visible()


def test_keys_of_one_letter_can_be_turned_off(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.keyboard.press("?")
    page.get_by_label("One key alone does this").uncheck()
    page.get_by_role("button", name="Close").first.click()
    page.keyboard.press("1")
    expect(page.get_by_role("heading", name="Rack", exact=True)).to_be_visible()
    page.reload()
    page.get_by_role("button", name="Keys").click()
    page.get_by_label("One key alone does this").check()
    page.keyboard.press("Escape")
    expect(page.get_by_label("One key alone does this")).to_be_hidden()
    page.keyboard.press("1")
    expect(page).to_have_title(re.compile("^Plan · "))


def test_a_panel_closes_from_outside(page: Page, address: str) -> None:
    page.goto(f"{address}/#/rack")
    page.keyboard.press("/")
    expect(page.get_by_role("dialog", name="Find anything")).to_be_visible()
    page.mouse.click(5, 500)
    expect(page.get_by_role("dialog", name="Find anything")).to_be_hidden()
