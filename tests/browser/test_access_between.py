"""Every page in the widths between a small phone and a desk; a file of its own, to run beside.

What a reader or a keyboard meets there is what it meets at either end, where the rules are held.
"""

import pytest
from playwright.sync_api import Browser

from tests.browser.looking import looked_through


@pytest.mark.parametrize("width", [390, 834])
def test_nothing_is_cut_off_or_too_small(browser: Browser, address: str, width: int) -> None:
    assert looked_through(browser, address, width, by_rules=False) == {}
