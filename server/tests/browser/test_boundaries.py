"""The days and figures at which a limit changes, recorded and looked at without a pointer."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Locator, expect

from common import clock
from tests.browser.keyboard import KeyboardTest

DAYS_OF_A_PREGNANCY = 280
LEFT_OUT = ", leave out"


class Boundaries(KeyboardTest):
    def setUp(self) -> None:
        super().setUp()
        self.today = clock.today("Europe/London")
        self.open_client("limits")
        self.mind = self.page.get_by_role("complementary", name="To mind today")

    def tearDown(self) -> None:
        self.assertEqual(self.errors, [])
        super().tearDown()

    def days_ago(self, days: int) -> dt.date:
        return self.today - dt.timedelta(days=days)

    @contextmanager
    def days_on(self, days: int) -> Iterator[None]:
        """The same page as it is some days later."""
        noon = dt.datetime.combine(self.today + dt.timedelta(days=days), dt.time(12), tzinfo=dt.UTC)
        with clock.set_for_everyone(noon):
            self.page.reload()
            yield
            self.page.wait_for_load_state("networkidle")

    def begin(self, where: str, kind: str) -> None:
        self.press_on(self.page.get_by_role("button", name=where, exact=True))
        self.answer("What is it?", kind)

    def correct(self, record: str) -> None:
        card = self.page.get_by_role("article", name=re.compile(record, re.IGNORECASE))
        self.press_on(card.get_by_role("button", name="Correct", exact=True))

    def hip(self, side: str, operated: dt.date) -> None:
        self.begin(f"Record on the {side}", "Hip replacement")
        self.write_date("Date of the operation", operated)
        for question, answer in (
            ("Surgical approach", "posterior"),
            ("Kind of replacement", "total"),
            ("Weight bearing", "full"),
            ("Ever dislocated?", "no"),
            ("Abductors or trochanter repaired?", "no"),
        ):
            self.answer(question, answer)
        self.save()

    def ladder(self, family: str) -> None:
        """Goes to Choose by its link, finds a family by typing, and opens its ladder."""
        self.press_on(
            self.page.get_by_role("navigation", name="Working order").get_by_role("link", name=re.compile("Choose"))
        )
        find = self.page.get_by_role("searchbox", name="Find a ladder")
        self.tab_to(find)
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(family)
        row = self.page.get_by_role("button", name=re.compile(rf"^{family}\b.*; (left|both): \d of \d open"))
        expect(row).to_have_count(1)
        if row.get_attribute("aria-expanded") == "false":
            self.press_on(row)

    def rung(self, side: str, name: str) -> Locator:
        return self.page.get_by_role("button", name=re.compile(f"^{side}, {name}"))

    def test_a_hip_at_eleven_weeks_and_six_days_and_at_twelve(self) -> None:
        self.hip("right", self.days_ago(83))
        expect(self.page.get_by_role("heading", name="Hip replaced, posterior, week 11")).to_be_visible()
        expect(self.mind).not_to_contain_text("clearance is due")
        self.ladder("Seated fold")
        on_the_floor = self.rung("both", "high, chair in front")
        expect(on_the_floor).to_have_accessible_name(re.compile("ask before floor work"))
        with self.days_on(1):
            expect(self.mind).to_contain_text("The first 12 weeks are over: clearance is due.")
            self.ladder("Seated fold")
            expect(on_the_floor).to_be_visible()
            expect(on_the_floor).not_to_have_accessible_name(re.compile("ask before floor work"))

    def test_bones_at_one_tenth_above_the_threshold_and_on_it(self) -> None:
        self.begin("Record for the whole body", "Bones")
        self.write("Lowest T-score", "-2.4")
        self.press_on(self.page.get_by_role("dialog").get_by_role("button", name="There was none"))
        self.save()
        card = self.page.get_by_role("article", name=re.compile("^bones", re.IGNORECASE))
        expect(card).to_contain_text("low density")
        expect(card).to_contain_text("Back rounding, upright: over 20° with care, over 30° not")
        self.correct("bones")
        self.write("Lowest T-score", "-2.5")
        self.save()
        expect(card).to_contain_text("osteoporosis")
        expect(card).to_contain_text("Back rounding, upright: over 10° with care, over 20° not")

    def test_a_pregnancy_in_week_nineteen_and_twenty(self) -> None:
        self.begin("Record for the whole body", "Pregnancy")
        self.write_date("Due date", self.today + dt.timedelta(days=DAYS_OF_A_PREGNANCY - 139))
        for question, answer in (
            ("How many babies?", "one"),
            ("Pain in the pelvic girdle?", "no"),
            ("Unwell lying flat on the back?", "no"),
            ("Blood pressure 140/90 or more?", "no"),
        ):
            self.answer(question, answer)
        for group in ("Ask before working together", "Is any of these happening now?"):
            nothing = self.page.get_by_role("dialog").get_by_role("group", name=group)
            self.press_on(nothing.get_by_role("checkbox", name="none of these"), "Space")
        self.save()
        expect(self.page.get_by_role("heading", name="Pregnant, week 19")).to_be_visible()
        self.ladder("Rest")
        flat = self.rung("both", "calves on a chair")
        expect(flat).to_be_visible()
        expect(flat).not_to_have_accessible_name(re.compile(LEFT_OUT))
        with self.days_on(1):
            self.ladder("Rest")
            expect(flat).to_have_accessible_name(re.compile(f"{LEFT_OUT}.*no quiet hold flat on the back"))
            expect(self.rung("both", "on the side")).not_to_have_accessible_name(re.compile(LEFT_OUT))

    def test_a_knee_that_hurts_three_and_four_of_ten(self) -> None:
        self.begin("Record on the left", "Knee pain")
        for question, answer in (
            ("Where does it hurt?", "front"),
            ("Diagnosis", "kneecap pain"),
            ("Was it operated?", "no"),
            ("Swelling?", "no"),
            ("Locks or gives way?", "no"),
        ):
            self.answer(question, answer)
        self.save()
        today = self.mind.get_by_role("group", name=re.compile("kneecap pain today"))
        card = self.page.get_by_role("article", name=re.compile("kneecap pain"))
        self.press_on(today.get_by_role("button", name=re.compile(r"pain 3$")))
        self.press_on(
            self.mind.get_by_role("group", name=re.compile("once stirred up")).get_by_role("button", name="no")
        )
        expect(self.mind).to_contain_text("Pain 3 of 10")
        expect(card).to_contain_text("Loaded bend 90° with care")
        expect(card).not_to_contain_text("Loaded bend 60°")
        self.press_on(today.get_by_role("button", name=re.compile(r"pain 4$")))
        expect(self.mind).to_contain_text("Pain 4 of 10")
        expect(card).to_contain_text("Loaded bend 60°")

    def test_two_replaced_hips_of_different_dates(self) -> None:
        """Each side is judged by its own date: one past its first weeks and cleared, one in them."""
        self.hip("left", self.days_ago(40 * 7))
        self.press_on(self.page.get_by_role("button", name="Record a clearance"))
        self.write_date("Date", self.days_ago(25 * 7))
        self.save()
        self.hip("right", self.days_ago(9 * 7))
        expect(self.page.get_by_role("heading", name="Hip replaced, posterior, week 40")).to_be_visible()
        expect(self.page.get_by_role("heading", name="Hip replaced, posterior, week 9")).to_be_visible()
        self.ladder("Figure-four")
        expect(self.rung("right", "over thigh")).to_have_accessible_name(re.compile(LEFT_OUT))
        expect(self.rung("left", "over thigh")).not_to_have_accessible_name(re.compile(LEFT_OUT))

    def test_a_knee_and_bones_beside_a_hip_close_together(self) -> None:
        """What is closed by several records names them all."""
        self.hip("right", self.days_ago(9 * 7))
        self.begin("Record on the right", "Knee pain")
        self.answer("Diagnosis", "inner meniscus")
        self.save()
        self.begin("Record for the whole body", "Bones")
        self.write("Lowest T-score", "-2.6")
        self.save()
        self.ladder("Seated fold")
        self.press_on(self.page.get_by_role("button", name=re.compile(LEFT_OUT)).first)
        reasons = self.page.locator("main").get_by_role("listitem")
        for record in (
            "bones: density or fractures not known",
            "hip replaced, posterior, week 9",
            "knee: inner meniscus",
        ):
            expect(reasons.filter(has_text=record).first).to_be_visible()
