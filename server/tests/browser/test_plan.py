"""A session is planned: the same as last time, put in order by keyboard, kept as a template."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, expect

from tests.browser.base import BrowserTest


class Plan(BrowserTest):
    def poses(self) -> Locator:
        return self.page.get_by_role("list", name="Poses in their order").get_by_role("listitem")

    def names(self) -> list[str]:
        return [each or "" for each in self.poses().evaluate_all("rows => rows.map(row => row.ariaLabel)")]

    def add(self, name: str) -> None:
        page = self.page
        expect(self.poses().first).to_be_visible()
        page.get_by_role("combobox", name="Add a pose").fill(name)
        page.get_by_role("listbox").get_by_role("option", name=name, exact=True).click()
        expect(page.get_by_role("listitem", name=name, exact=True)).to_be_visible()

    def stored(self) -> None:
        """What was changed has reached the server."""
        expect(self.page.locator("[aria-busy=true]")).to_have_count(0)

    def test_from_todays_list_in_one_touch_and_on_by_keyboard(self) -> None:
        page = self.page
        self.sign_in()
        session = page.get_by_role("listitem", name=re.compile("Hartley Quill"))
        session.get_by_role("button", name="Same as last time").click()
        expect(page).to_have_url(re.compile("/plan"))
        expect(self.poses().first).to_contain_text("Figure-four")
        for name in ("Rest", "Hip hinge", "Breath and pelvic floor"):
            self.add(name)
        before = self.names()
        page.get_by_role("button", name=re.compile("^Move 4,")).focus()
        page.keyboard.press("Space")
        # Lifted, it is told where it would be; only then do arrows move it.
        expect(page.get_by_text(re.compile("(lifted from|would be at) place 4"))).to_have_count(1)
        page.wait_for_timeout(300)
        for place in (3, 2, 1):
            page.keyboard.press("ArrowUp")
            expect(page.get_by_text(f"would be at place {place}.")).to_have_count(1)
        page.keyboard.press("Space")
        expect(self.poses().first).to_have_attribute("aria-label", before[3])
        self.stored()
        page.reload()
        expect(self.poses()).to_have_count(4)
        self.assertEqual(self.names(), [before[3], *before[:3]])
        self.assertEqual(self.errors, [])

    def test_an_order_is_suggested_and_what_is_fixed_stays(self) -> None:
        page = self.page
        self.open_client("plan")
        page.get_by_role("button", name=re.compile("^Same as")).click()
        for name in ("Rest", "Breath and pelvic floor"):
            self.add(name)
        first = self.poses().first
        first.get_by_role("button", name="fix").click()
        self.stored()
        page.get_by_role("button", name="Suggest an order").click()
        expect(page.get_by_text("Put in order; what is fixed stayed.")).to_be_visible()
        self.stored()
        self.assertEqual(self.names(), ["Figure-four", "Breath and pelvic floor", "Rest"])
        beside = page.get_by_role("complementary", name="Beside the plan")
        expect(beside).to_contain_text("Rest last.")
        expect(beside).to_contain_text("Stays where you put it.")
        first.get_by_role("button", name="leave out").click()
        expect(self.poses()).to_have_count(2)
        self.stored()
        beside.get_by_role("button", name="Put back Figure-four").click()
        expect(self.poses()).to_have_count(3)

    def test_a_plan_is_kept_as_a_template_and_used_again(self) -> None:
        page = self.page
        self.open_client("plan")
        page.get_by_role("button", name=re.compile("^Same as")).click()
        self.add("Rest")
        page.get_by_role("button", name="Templates").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Keep this plan as").fill("Hips and rest")
        dialog.get_by_role("button", name="Keep").click()
        expect(dialog.get_by_role("group", name="Hips and rest")).to_be_visible()
        dialog.get_by_role("button", name="Close").click()
        for name in ("Figure-four", "Rest"):
            page.get_by_role("listitem", name=name).get_by_role("button", name="leave out").click()
        expect(page.get_by_text("Nothing planned yet")).to_be_visible()
        page.get_by_role("button", name="Templates").click()
        dialog.get_by_role("group", name="Hips and rest").get_by_role("button", name="Use").click()
        expect(self.poses()).to_have_count(2)
