"""What was typed is stored or refused with its words; what fails says so where one stands."""

from __future__ import annotations

import re

from django.contrib.sessions.models import Session
from playwright.sync_api import expect

from tests.browser.base import EMAIL, PASSWORD, BrowserTest, cut_off


class Typed(BrowserTest):
    def begin_hip(self, limit: str) -> None:
        self.page.get_by_role("button", name="Record on the right").click()
        self.choose("What is it?", "Hip replacement")
        self.page.get_by_role("dialog").get_by_label(re.compile("Surgeon’s own hip-bend limit")).fill(limit)

    def test_a_surgeons_limit_with_its_sign_is_stored_and_one_in_words_is_refused(self) -> None:
        self.open_client("limits")
        page = self.page
        self.begin_hip("about 70")
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("Not a number of degrees")).to_be_visible()
        field = dialog.get_by_label(re.compile("Surgeon’s own hip-bend limit"))
        expect(field).to_have_value("about 70")
        # Neither lost by leaving nor by a reload.
        page.reload()
        page.get_by_role("button", name="Record on the right").click()
        expect(field).to_have_value("about 70")
        field.fill("70°")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Hip bend 70°")

    def test_a_comma_and_a_typographic_minus_are_read(self) -> None:
        self.open_client("limits")
        page = self.page
        page.get_by_role("button", name="Record for the whole body").click()
        self.choose("What is it?", "Bones")
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Lowest T-score").fill("−2,6")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        page.get_by_role("button", name="Correct").click()
        expect(dialog.get_by_label("Lowest T-score")).to_have_value("-2.6")

    def test_taking_back_can_be_undone_and_a_failure_shows(self) -> None:
        self.open_client("limits")
        page = self.page
        self.begin_hip("80")
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        expect(page.get_by_role("dialog")).to_be_hidden()
        page.route("**/entries/*", cut_off)
        page.get_by_role("button", name="Take back").click()
        expect(page.get_by_role("alert")).to_contain_text("This was not taken back.")
        page.unroute("**/entries/*")
        page.get_by_role("button", name="Take back").click()
        expect(page.get_by_role("button", name="Take back")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("button", name="Take back")).to_be_visible()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Hip bend 80°")


class Sessions(BrowserTest):
    def test_the_address_asked_for_is_shown_after_the_sign_in(self) -> None:
        self.open_client("measures")
        self.page.context.clear_cookies()
        self.page.goto(self.address + "measures")
        self.page.get_by_label("E-mail address").fill(EMAIL)
        self.page.get_by_label("Password").fill(PASSWORD)
        self.page.get_by_role("button", name="Sign in").click()
        expect(self.page.get_by_label("Turning out, hip open, left")).to_be_visible()
        expect(self.page).to_have_url(self.address + "measures")

    def test_a_session_that_ends_is_taken_up_over_the_page_and_the_save_goes_on(self) -> None:
        self.open_client("measures")
        page = self.page
        page.get_by_label("Turning out, hip open, left").fill("47")
        Session.objects.all().delete()
        page.get_by_role("button", name="Store readings").click()
        dialog = page.get_by_role("dialog", name="Your sign-in has ended")
        dialog.get_by_label("E-mail address").fill(EMAIL)
        dialog.get_by_label("Password").fill("not-the-password")
        dialog.get_by_role("button", name="Sign in").click()
        expect(dialog.get_by_role("alert")).to_contain_text("do not go together")
        dialog.get_by_label("Password").fill(PASSWORD)
        dialog.get_by_role("button", name="Sign in").click()
        expect(dialog).to_be_hidden()
        expect(page.get_by_text("47° ± 5")).to_be_visible()
        self.assertEqual(self.errors, [])

    def test_what_was_chosen_is_still_chosen_on_coming_back(self) -> None:
        self.open_client("choose")
        page = self.page
        page.get_by_role("button", name=re.compile("^open the inner thighs")).click()
        page.get_by_role("button", name=re.compile("^Bound angle")).click()
        lane = page.get_by_role("group", name="Bound angle, both")
        rung = lane.get_by_role("button").nth(1)
        rung.click()
        page.get_by_role("link", name="Clients", exact=True).click()
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        page.get_by_role("navigation", name="Working order").get_by_role("link", name="Choose").click()
        expect(rung).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name=re.compile("^(Open the set-up|Set up both sides)")).click()
        left = page.get_by_role("region", name="both").first
        figure = left.locator("svg[role=img]")
        before = figure.get_attribute("aria-label") or ""
        left.get_by_role("button", name=re.compile(": higher or more")).first.click()
        expect(figure).not_to_have_attribute("aria-label", before)
        chosen = figure.get_attribute("aria-label") or ""
        page.reload()
        expect(figure).to_have_attribute("aria-label", chosen)

    def test_a_sign_out_that_fails_says_so(self) -> None:
        self.open_client("limits")
        self.page.route("**/sign-out", cut_off)
        self.page.get_by_role("button", name="Ottoline Marsh").click()
        self.page.get_by_role("button", name="Sign out").click()
        expect(self.page.get_by_role("alert")).to_contain_text("You are still signed in.")


class Failures(BrowserTest):
    def test_a_view_that_cannot_be_loaded_says_so_in_its_place(self) -> None:
        self.open_client("limits")
        page = self.page
        page.route(re.compile(r"MeasuresScreen-.*\.js"), cut_off)
        page.get_by_role("navigation", name="Working order").get_by_role("link", name="Measures").click()
        expect(page.get_by_role("alert")).to_contain_text("This view could not be loaded")
        expect(page.get_by_role("heading", name="Hartley Quill")).to_be_visible()
        page.unroute(re.compile(r"MeasuresScreen-.*\.js"))
        page.get_by_role("button", name="Reload the page").click()
        expect(page.get_by_label("Turning out, hip open, left")).to_be_visible()

    def test_a_view_that_breaks_says_so_in_its_place(self) -> None:
        self.open_client("limits")
        page = self.page
        # An answer of another shape than the view was written for.
        page.route("**/responses*", lambda route: route.fulfill(json=[{"family": 1}]))
        page.get_by_role("navigation", name="Working order").get_by_role("link", name="Responses").click()
        expect(page.get_by_role("alert")).to_contain_text("This view broke")
        page.unroute("**/responses*")
        page.get_by_role("navigation", name="Working order").get_by_role("link", name="Limits").click()
        expect(page.get_by_role("button", name="Record on the right")).to_be_visible()

    def test_ladders_that_fail_leave_the_others(self) -> None:
        self.open_client("limits")
        page = self.page
        failing = "**/ladders?*figure_four*"
        page.route(failing, lambda route: route.fulfill(status=500, json={"message": "It broke.", "fields": []}))
        page.get_by_role("navigation", name="Working order").get_by_role("link", name="Choose").click()
        expect(page.get_by_role("alert")).to_contain_text("It broke.")
        expect(page.get_by_role("button", name=re.compile(r"; (left|both): \d of \d open")).first).to_be_visible()
        page.unroute(failing)
        page.get_by_role("alert").get_by_role("button", name="Try again").click()
        expect(page.get_by_role("button", name=re.compile(r"^Figure-four ?; left: \d of \d open"))).to_be_visible()

    def test_without_a_stature_every_view_says_what_is_missing_and_leads_there(self) -> None:
        self.sign_in_to_clients()
        page = self.page
        page.get_by_role("button", name="New client").click()
        page.get_by_role("dialog").get_by_label("Name").fill("Ansel Pike")
        page.get_by_role("button", name="Save").click()
        page.wait_for_url(re.compile("/limits"))
        for view in ("choose", "set-up", "mat", "responses"):
            with self.subTest(view=view):
                page.goto(re.sub(r"/limits.*", f"/{view}", page.url) if view == "choose" else self.beside(view))
                expect(page.get_by_text("The stature is missing")).to_be_visible()
                page.get_by_role("link", name="To the measures").click()
                expect(page.get_by_label("Stature")).to_be_visible()

    def beside(self, view: str) -> str:
        return re.sub(r"/[^/]+$", f"/{view}", self.page.url)
