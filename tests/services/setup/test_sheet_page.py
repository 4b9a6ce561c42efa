"""The printed sheet."""

from flask.testing import FlaskClient

from tests.support.set_up import begin, tick


def test_the_sheet_is_one_page_with_its_record_s_address(shop: FlaskClient) -> None:
    url = begin(shop)
    tick(shop, url, "isolate", who="Odda")
    sheet = shop.get("/setups/1.pdf")
    assert sheet.mimetype == "application/pdf" and sheet.data.startswith(b"%PDF")
    assert sheet.data.count(b"/Type /Page\n") == 1
    assert shop.get("/setups/77.pdf").status_code == 404
    assert shop.get(f"/setups/{2**60}.pdf").status_code == 404
