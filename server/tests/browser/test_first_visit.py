"""A new client from signing in to what was logged, counted in clicks: what is asked of a therapist between two people."""

from __future__ import annotations

import datetime as dt
import re

from playwright.sync_api import Locator, expect

from common import clock
from tests.browser.base import EMAIL, PASSWORD, BrowserTest

MOST_CLICKS = 43
POSES = ("Figure-four", "Side bend", "Standing balance", "Straight-leg press")


class FirstVisit(BrowserTest):
    clicks = 0

    def click(self, what: Locator) -> None:
        what.click()
        self.clicks += 1

    def button(self, name: str, within: Locator | None = None) -> Locator:
        return (within or self.page).get_by_role("button", name=name, exact=True)

    def test_two_records_twelve_readings_and_four_poses_logged(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_label("E-mail address").fill(EMAIL)
        page.get_by_label("Password").fill(PASSWORD)
        page.keyboard.press("Enter")
        self.click(page.get_by_role("link", name="New client"))
        page.get_by_role("dialog").get_by_label("Name").fill("Wilmot Sayer")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Wilmot Sayer")).to_be_visible()
        self.records()
        self.measures()
        self.plan()
        self.mat()
        for pose in POSES:
            expect(page.get_by_role("region", name=pose)).not_to_contain_text("not done")
        self.assertLessEqual(self.clicks, MOST_CLICKS)
        self.assertEqual(self.errors, [])

    def records(self) -> None:
        page = self.page
        operated = clock.today("Europe/London") - dt.timedelta(weeks=30)
        self.click(self.button("Record on the right"))
        self.type_kind("Hip replacement")
        expect(page.get_by_role("dialog").get_by_role("group", name="Date of the operation")).to_be_visible()
        page.keyboard.press("Tab")
        self.until_in("Date of the operation")
        page.keyboard.type(operated.strftime("%d%m%Y"))
        self.pick("Surgical approach", "posterior")
        self.save()
        self.click(self.button("Record on the left"))
        self.type_kind("Knee pain")
        self.pick("Where does it hurt?", "front")
        self.pick("Diagnosis", "kneecap pain")
        self.save()

    def type_kind(self, kind: str) -> None:
        """The list one comes to first, by typing what it is."""
        field = self.page.get_by_role("dialog").get_by_label("What is it?")
        expect(field).to_be_focused()
        self.page.keyboard.press("Enter")
        self.page.get_by_role("option", name=kind, exact=True).wait_for()
        self.page.keyboard.type(kind.split(maxsplit=1)[0])
        expect(self.page.get_by_role("option", name=kind, exact=True)).to_be_focused()
        self.page.keyboard.press("Enter")
        expect(field).to_have_text(kind)

    def until_in(self, label: str) -> None:
        """Tab on until the first part of a field."""
        field = self.page.get_by_role("dialog").get_by_role("group", name=label).get_by_role("spinbutton").first
        for _ in range(6):
            if field.evaluate("field => field === document.activeElement"):
                return
            self.page.keyboard.press("Tab")
        self.fail(f"{label} is not reached")

    def pick(self, label: str, option: str) -> None:
        """Two clicks: the list, and what is chosen from it."""
        self.choose(label, option)
        self.clicks += 2

    def save(self) -> None:
        dialog = self.page.get_by_role("dialog")
        self.click(self.button("Save", dialog))
        expect(dialog).to_be_hidden()

    def measures(self) -> None:
        """Typed one after the other, stored by Enter."""
        page = self.page
        self.click(page.get_by_role("link", name="Measures").first)
        page.get_by_label("Stature").fill("174")
        page.get_by_label("Weight").fill("78")
        for name, left, right in (
            ("Turning out, hip open", 50, 52),
            ("Hip flexion, knee bent", 118, 100),
            ("Knee flexion", 138, 136),
            ("Opening to the side, hip bent", 50, 48),
            ("Straight-leg raise", 70, 68),
        ):
            page.get_by_label(f"{name}, left").fill(str(left))
            page.get_by_label(f"{name}, right").fill(str(right))
        page.keyboard.press("Enter")
        expect(page.get_by_text("Stored.")).to_be_visible()

    def plan(self) -> None:
        page = self.page
        self.click(page.get_by_role("link", name="Plan"))
        for pose in POSES:
            field = page.get_by_role("combobox", name="Add a pose")
            expect(field).to_be_enabled()
            if not field.evaluate("field => field === document.activeElement"):
                self.click(field)
            page.keyboard.type(pose)
            page.get_by_role("option", name=pose, exact=True).wait_for()
            page.keyboard.press("Enter")
            expect(page.get_by_role("listitem", name=pose, exact=True)).to_be_visible()
        self.click(page.get_by_role("link", name="To the mat"))

    def mat(self) -> None:
        page = self.page
        self.click(self.button("Begin"))
        done = page.get_by_role("heading", name="The visit")
        for _ in range(2 * len(POSES)):
            log = page.get_by_role("button", name=re.compile("^Log (left|right|both)"))
            expect(log.or_(done)).to_be_visible()
            if done.is_visible():
                break
            side = re.sub("^Log ", "", log.inner_text())
            self.click(self.button(f"during 1, {side}"))
            self.click(self.button("Calm, where wanted"))
            with page.expect_response(lambda answer: answer.url.endswith("/items")):
                self.click(log)
        expect(done).to_be_visible()
