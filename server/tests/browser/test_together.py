"""Two people at once in the Library, and somebody who only looks."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from practices.models import Membership
from tests.browser.base import BrowserTest


class TwoAtOnce(BrowserTest):
    def open_rung(self) -> None:
        self.sign_in()
        self.page.get_by_role("link", name="Library", exact=True).click()
        self.page.get_by_role("searchbox").fill("figure chair block flat")
        self.page.get_by_role("navigation").get_by_role("link", name=re.compile("block lying flat")).first.click()
        self.page.get_by_role("article").wait_for()

    def test_a_second_save_is_told_of_the_first_and_goes_on_top(self) -> None:
        page = self.page
        self.open_rung()
        page.get_by_role("button", name="Copy and adjust").click()
        page.get_by_role("dialog").get_by_label("Name", exact=True).fill("Shared figure-four")
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        page.get_by_role("heading", name="Shared figure-four").wait_for()
        other = self.another_device()
        other.goto(page.url)
        for each, name in ((other, "Theirs"), (page, "Mine")):
            each.get_by_role("button", name="Change", exact=True).click()
            each.get_by_role("dialog").get_by_label("Name", exact=True).fill(name)
        other.get_by_role("dialog").get_by_role("button", name="Save").click()
        other.get_by_role("heading", name="Theirs").wait_for()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_contain_text("Version 2, “Theirs”, was saved in the meantime")
        expect(dialog.get_by_label("Name", exact=True)).to_have_value("Mine")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_role("heading", name="Mine")).to_be_visible()
        expect(page.get_by_text("version 3")).to_be_visible()
        self.assertEqual(self.errors, [])

    def test_a_reader_is_offered_nothing_that_writes(self) -> None:
        Membership.objects.filter(user__email="ottoline@weir-room.example").update(role="reader")
        self.open_rung()
        expect(self.page.get_by_role("link", name="Card")).to_be_visible()
        for name in ("Copy and adjust", "Change", "Put away", "Variation from a file"):
            expect(self.page.get_by_role("button", name=name)).to_have_count(0)
