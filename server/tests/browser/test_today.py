"""The day of a therapist: who comes, what is known of them, and what is booked."""

from __future__ import annotations

import datetime as dt
import re

from playwright.sync_api import Locator, expect

from common import clock
from tests.browser.base import BrowserTest


class Today(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.sign_in()
        self.page.get_by_role("link", name="Today", exact=True).click()

    def session(self, time: str = "") -> Locator:
        return self.page.get_by_role("listitem", name=re.compile(f"{time}.*Hartley Quill"))

    def test_the_days_list_says_what_changed_and_leads_on(self) -> None:
        since = self.session("10:15").get_by_role("heading", name=re.compile("^Since"))
        expect(since).to_be_visible()
        expect(self.session()).to_contain_text("Nothing changed.")
        facts = {
            "date": (clock.today("Europe/London") - dt.timedelta(days=40)).isoformat(), "approach": "posterior", "prosthesis": "total",
            "dislocated": "no", "abductor_repair": "no", "weight_bearing": "full", "trouble_since": "no",
        }  # fmt: skip
        self.record("Hartley Quill", {"kind": "hip_replacement", "side": "left", "facts": facts})
        self.page.reload()
        expect(self.session()).to_contain_text("New: Hip replaced")
        expect(self.session()).to_contain_text(re.compile("Figure-four.*, left: was .*, now leave out"))
        self.session().get_by_role("link", name="Plan").click()
        expect(self.page.get_by_role("heading", level=1)).to_contain_text("Plan")

    def test_an_appointment_is_booked_moved_cancelled_and_brought_back(self) -> None:
        page = self.page
        page.get_by_role("button", name="Book an appointment").click()
        form = page.get_by_role("dialog")
        form.get_by_role("combobox", name="Client").fill("Hart")
        page.get_by_role("option", name="Hartley Quill").click()
        form.get_by_role("spinbutton", name="Hours").click()
        page.keyboard.type("1630")
        form.get_by_role("button", name="Save").click()
        expect(self.session("16:30")).to_be_visible()
        self.session("16:30").get_by_role("button", name="Change").click()
        form.get_by_role("textbox", name="Place").fill("upstairs")
        form.get_by_role("button", name="Save").click()
        expect(self.session("16:30")).to_contain_text("upstairs")
        # The one of a series, with those that follow.
        self.session("10:15").get_by_role("button", name="Call off").click()
        form.get_by_role("button", name="This and those that follow").click()
        expect(self.session("10:15")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(self.session("10:15")).to_be_visible()
        for _ in range(7):
            page.get_by_role("button", name="The day after").click()
        expect(self.session("10:15")).to_be_visible()
        expect(self.session("16:30")).to_have_count(0)
        self.assertEqual(self.errors, [])
