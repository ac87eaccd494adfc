"""What is open today at a glance, what would open the rest, and rungs side by side."""

from __future__ import annotations

import datetime as dt
import re

from playwright.sync_api import expect

from common import clock
from tests.browser.base import BrowserTest

MOST_NODES = 3000
"""What a page may hold with every ladder opened."""


class Choosing(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        operated = clock.today("Europe/London") - dt.timedelta(weeks=9)
        hip = {"date": operated.isoformat(), "approach": "posterior", "prosthesis": "total", "dislocated": "no"}
        known = {"abductor_repair": "no", "weight_bearing": "full", "trouble_since": "no"}
        self.record("Hartley Quill", {"kind": "hip_replacement", "side": "right", "facts": {**hip, **known}})
        knee = {"site": "inner_line", "diagnosis": "inner_meniscus", "operated": "no", "swelling": "no"}
        self.record("Hartley Quill", {"kind": "knee_pain", "side": "left", "facts": knee})

    def test_find_it_ask_why_not_and_compare(self) -> None:
        self.open_client("choose")
        page = self.page
        rows = page.get_by_role("button", name=re.compile(r"; (left|both): \d of \d open"))
        expect(page.get_by_text(re.compile(r"\d+ ladders of \d+"))).to_be_visible()
        before = rows.count()
        page.get_by_role("checkbox", name="chair only").check()
        expect(rows.first).to_be_visible()
        self.assertLess(rows.count(), before)
        page.get_by_role("searchbox", name="Find a ladder").fill("butterfly")
        expect(rows).to_have_count(1)
        expect(rows.first).to_have_accessible_name(re.compile("^Bound angle"))
        page.get_by_role("searchbox", name="Find a ladder").fill("")
        page.get_by_role("checkbox", name="chair only").uncheck()

        right = page.get_by_role("group", name="Figure-four, right")
        over = right.get_by_role("button", name=re.compile("over thigh"))
        expect(over).to_contain_text("hip bend")
        over.click()
        expect(page.get_by_text("What would open it", exact=True)).to_be_visible()
        expect(page.get_by_role("listitem").filter(has_text="word on hip bend").first).to_be_visible()
        page.get_by_role("button", name="Put beside others").click()
        right.get_by_role("button", name=re.compile("block flat")).click()
        page.get_by_role("button", name="Put beside others").click()
        page.get_by_role("button", name="Compare 2").click()
        table = page.get_by_role("dialog").get_by_role("table")
        expect(table.get_by_role("row", name=re.compile("^Today"))).to_contain_text("leave out")
        expect(table.get_by_role("row", name=re.compile("^Fetch"))).to_contain_text("chair")
        self.assertEqual(self.errors, [])

    def test_every_ladder_open_at_once_stays_a_light_page(self) -> None:
        self.open_client("choose")
        page = self.page
        expect(page.get_by_text(re.compile(r"\d+ ladders of \d+"))).to_be_visible()
        page.get_by_role("checkbox", name="open today").uncheck()
        closed = page.locator("section h2 button[aria-expanded=false]")
        while closed.count():
            closed.first.click()
        page.mouse.wheel(0, 6000)
        page.wait_for_timeout(500)
        self.assertLess(page.evaluate("document.querySelectorAll('*').length"), MOST_NODES)

    def test_how_it_hurts_today_is_answered_beside_what_to_mind(self) -> None:
        self.open_client("choose")
        page = self.page
        mind = page.get_by_role("complementary", name="To mind today")
        asked = mind.get_by_role("group", name=re.compile("meniscus today"))
        asked.get_by_role("button", name=re.compile(r"pain 4$")).click()
        expect(mind).to_contain_text("Pain 4 of 10")
        expect(asked.get_by_role("button", name=re.compile(r"pain 4$"))).to_have_attribute("aria-pressed", "true")
