"""A therapist's whole road once, in a real browser against a real server."""

from __future__ import annotations

import datetime as dt
import re
from pathlib import Path

from playwright.sync_api import expect

from common import clock
from tests.browser.base import EMAIL, BrowserTest


class Journey(BrowserTest):
    def go(self, stop: str) -> None:
        self.page.get_by_role("navigation", name="Working order").get_by_role("link", name=re.compile(stop)).click()

    def test_a_refused_sign_in_says_so_and_keeps_the_address(self) -> None:
        self.sign_in("not-the-password")
        expect(self.page.get_by_role("alert")).to_contain_text("do not go together")
        expect(self.page.get_by_label("E-mail address")).to_have_value(EMAIL)

    def test_from_the_first_record_to_the_next_visits_step(self) -> None:
        page = self.page
        self.sign_in_to_clients()
        page.get_by_role("button", name="New client").click()
        page.get_by_role("dialog").get_by_label("Name").fill("Wilmot Sayer")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("heading", name="Wilmot Sayer")).to_be_visible()
        self.record_hip()
        self.record_knee()
        self.measure()
        self.choose_rungs()
        self.set_up_and_take_to_the_mat()
        self.log_both_sides()
        self.come_back_and_see_the_offer()
        self.assertEqual(self.errors, [])

    def record_hip(self) -> None:
        page = self.page
        page.get_by_role("button", name="Record on the right").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("Choose what is to be recorded.")).to_be_visible()
        self.choose("What is it?", "Hip replacement")
        expect(dialog.get_by_text(re.compile("Ask:.*the date of the operation")).first).to_be_visible()
        today = clock.today("Europe/London")
        self.type_date("Date of the operation", today + dt.timedelta(days=3))
        self.choose("Surgical approach", "posterior")
        self.choose("Ever dislocated?", "no")
        self.choose("Abductors or trochanter repaired?", "no")
        self.choose("Weight bearing", "full")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("This date lies in the future.").first).to_be_visible()
        # Nothing typed was lost; without a side the form asks for it.
        expect(dialog.get_by_label("Surgical approach")).to_contain_text("posterior")
        self.type_date("Date of the operation", today - dt.timedelta(days=63))
        self.choose("Which side?", "—")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("Choose the side this is about.")).to_be_visible()
        expect(dialog.get_by_label("Surgical approach")).to_contain_text("posterior")
        self.choose("Which side?", "right")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        right = page.locator("main")
        expect(right.get_by_role("heading", name="Hip replaced, posterior, week 9")).to_be_visible()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Hip bend 90°")

    def record_knee(self) -> None:
        page = self.page
        page.get_by_role("button", name="Record on the left").click()
        dialog = page.get_by_role("dialog")
        self.choose("What is it?", "Knee pain")
        self.choose("Where does it hurt?", "front")
        self.choose("Diagnosis", "kneecap pain")
        self.choose("Was it operated?", "no")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Ask how it is today.")
        page.get_by_role("button", name="How is it today?").click()
        self.choose("Pain today, 0–10", "2")
        self.choose("Once stirred up, sore until next day?", "no")
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Pain 2 of 10")

    def measure(self) -> None:
        page = self.page
        self.go("Choose")
        expect(page.get_by_text("The stature is missing")).to_be_visible()
        self.go("Measures")
        page.get_by_label("Stature").fill("17")
        page.get_by_label("Weight").fill("78")
        page.get_by_label("Turning out, hip open, left").fill("50")
        page.get_by_role("button", name="Store readings").click()
        expect(page.get_by_text("90–230 cm")).to_be_visible()
        # Moving away and back keeps everything typed.
        self.go("Limits")
        self.go("Measures")
        expect(page.get_by_label("Stature")).to_have_value("17")
        expect(page.get_by_label("Turning out, hip open, left")).to_have_value("50")
        page.get_by_label("Stature").fill("174")
        for name, left, right in (
            ("Turning out, hip open", "50", "62"),
            ("Hip flexion, knee bent", "118", "100"),
            ("Knee flexion", "138", "136"),
        ):
            page.get_by_label(f"{name}, left").fill(left)
            page.get_by_label(f"{name}, right").fill(right)
        page.get_by_role("button", name="Store readings").click()
        expect(page.get_by_text("Stored.")).to_be_visible()
        expect(page.get_by_text("50° ± 5")).to_be_visible()

    def choose_rungs(self) -> None:
        page = self.page
        self.go("Choose")
        page.get_by_role("button", name=re.compile(r"^Figure-four ?; left: \d of \d open")).click()
        lane = page.get_by_role("group", name="Figure-four, right")
        over = lane.get_by_role("button", name=re.compile("over thigh"))
        expect(over).to_have_accessible_name(re.compile("leave out"))
        over.click()
        expect(page.get_by_text(re.compile("Right: hip bend .* hip replaced, posterior, week 9"))).to_be_visible()
        lane.get_by_role("button", name=re.compile("block flat")).click()
        page.get_by_role("group", name="Figure-four, left").get_by_role("button", name=re.compile("on end")).click()
        page.get_by_role("button", name="Set up both sides").click()

    def set_up_and_take_to_the_mat(self) -> None:
        page = self.page
        right = page.get_by_role("region", name="right").first
        expect(right.get_by_role("heading")).to_contain_text("with this set-up")
        figure = right.locator("svg[role=img]")
        expect(figure).to_have_attribute("aria-label", re.compile("Right leg worked"))
        before = figure.get_attribute("aria-label")
        right.get_by_role("button", name=re.compile("Foot ahead: higher")).click()
        expect(figure).not_to_have_attribute("aria-label", before or "")
        expect(page.get_by_text("limit 90°").first).to_be_visible()
        for side in ("left", "right"):
            lane = page.get_by_role("region", name=side).first
            lane.get_by_role("button", name="Take to the mat").click()
            expect(lane.get_by_text("in today’s plan, as shown")).to_be_visible()

    def log_both_sides(self) -> None:
        page = self.page
        self.go("On the mat")
        page.get_by_role("button", name="nothing new").click()
        page.get_by_role("button", name="Begin").click()
        expect(page.get_by_role("button", name="Step back, left")).to_be_visible()
        page.get_by_role("button", name="Log left").click()
        expect(page.get_by_text("Tap the discomfort during the hold first.")).to_be_visible()
        for side, during in (("left", "1"), ("right", "0")):
            lane = page.get_by_role("region", name=side, exact=True)
            # Numbers mean "during" before anything is tapped, then "after".
            lane.get_by_role("button", name=f"during {during}, {side}").click()
            lane.get_by_role("button", name=f"after 0, {side}").click()
            lane.get_by_role("button", name=f"Log {side}").click()
            expect(lane.get_by_text("Kind, place or what was seen is not said")).to_be_visible()
            lane.get_by_role("button", name="Calm, where wanted").click()
            lane.get_by_role("button", name="stretch").click()
            lane.get_by_role("button", name=f"Log {side}").click()
        end = page.get_by_role("region", name="Figure-four")
        for during in ("1", "0"):
            expect(end).to_contain_text(f"during {during}, after 0 → not judged yet")
        page.get_by_role("link", name="Leave").click()
        page.wait_for_url(re.compile("/plan"))

    def come_back_and_see_the_offer(self) -> None:
        """A week later: the morning is asked, last time's set-up is there, and so is the next step."""
        page = self.page
        address = page.url.split("/plan")[0]
        with clock.set_for_everyone(clock.now() + dt.timedelta(days=7)):
            page.goto(address + "/mat")
            for _ in range(2):
                page.get_by_role("region", name="Did it settle by the next morning?").get_by_role(
                    "button", name="settled", exact=True
                ).first.click()
                page.wait_for_timeout(300)
            expect(page.get_by_role("region", name="Did it settle by the next morning?")).to_be_hidden()
            page.goto(address + "/choose")
            lane = page.get_by_role("group", name="Figure-four, left")
            expect(lane.get_by_role("button", name=re.compile("on end.*here"))).to_be_visible()
            expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Calm 1 of 3 times here")
            self.go("Responses")
            chart = page.get_by_role("img", name=re.compile("^left: 1 holds"))
            expect(chart).to_have_accessible_name(re.compile("during 1, after 0, calm"))
            expect(page.get_by_role("row", name=re.compile("right.*stretch, wanted.*settled.*calm"))).to_be_visible()

    def test_a_pregnancy_and_a_shape_both_legs_share(self) -> None:
        """Recorded without a side; flat rest closes; one seat is set up and planned for both sides."""
        self.sign_in()
        page = self.page
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        self.go("Limits")
        page.get_by_role("button", name="Record for the whole body").click()
        dialog = page.get_by_role("dialog")
        self.choose("What is it?", "Pregnancy")
        due = clock.today("Europe/London") + dt.timedelta(days=126)
        self.type_date("Due date", due)
        beforehand = dialog.get_by_role("group", name="Ask before working together")
        beforehand.get_by_label("bleeding").check()
        expect(dialog.get_by_text("Doctor first")).to_be_visible()
        beforehand.get_by_label(re.compile("^None of these")).check()
        expect(beforehand.get_by_label("bleeding")).not_to_be_checked()
        self.choose("Pain in the pelvic girdle?", "no")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        expect(page.get_by_role("complementary", name="To mind today")).to_contain_text("Pregnant, week 22")
        self.go("Choose")
        page.get_by_role("button", name=re.compile("^open the inner thighs")).click()
        page.get_by_role("button", name=re.compile("^Bound angle")).click()
        lane = page.get_by_role("group", name="Bound angle, both")
        expect(page.get_by_role("group", name=re.compile("Bound angle"))).to_have_count(1)
        expect(lane.get_by_role("button", name=re.compile("lying, free"))).to_have_accessible_name(
            re.compile("leave out")
        )
        lane.get_by_role("button", name=re.compile("reclined")).click()
        page.get_by_role("button", name="Open the set-up").click()
        both = page.get_by_role("region", name="both").first
        figure = both.locator("svg[role=img]")
        expect(figure).to_have_attribute("aria-label", re.compile("Lying with the back raised"))
        before = figure.get_attribute("aria-label") or ""
        both.get_by_role("button", name=re.compile("Feet from the seat: higher")).click()
        expect(figure).not_to_have_attribute("aria-label", before)
        for side in ("left", "right"):
            facing = both.get_by_role("group", name=side)
            expect(facing.get_by_role("button", name=re.compile("Under the thigh.*higher"))).to_be_visible()
        # A figure may be typed: the nearest that can be built is taken.
        feet = both.get_by_role("spinbutton", name="Feet from the seat")
        feet.fill("41")
        feet.press("Enter")
        expect(feet).to_have_attribute("aria-valuetext", "40 cm")
        # So do the arrows, and what was reached is said.
        feet.press("ArrowUp")
        expect(feet).not_to_have_attribute("aria-valuetext", "40 cm")
        feet.press("ArrowDown")
        expect(feet).to_have_attribute("aria-valuetext", "40 cm")
        both.get_by_role("button", name="Take to the mat").click()
        expect(both.get_by_text("in today’s plan, as shown")).to_be_visible()
        self.log_both_legs_at_once()
        self.assertEqual(self.errors, [])

    def log_both_legs_at_once(self) -> None:
        """One lane on the mat, one hold said once, one line in the responses."""
        page = self.page
        self.go("On the mat")
        page.get_by_role("button", name="Begin").click()
        mat = page.get_by_role("region", name="both", exact=True)
        mat.get_by_role("button", name="during 1, both").click()
        mat.get_by_role("button", name="Calm, where wanted").click()
        mat.get_by_role("button", name="Log both").click()
        expect(page.get_by_role("region", name="Bound angle")).to_contain_text("during 1")
        page.get_by_role("link", name="Leave").click()
        self.go("Responses")
        expect(page.get_by_role("img", name=re.compile("^both: 1 holds"))).to_be_visible()
        expect(page.get_by_role("row", name=re.compile("both.*reclined"))).to_be_visible()

    def test_a_knee_height_by_tape_becomes_degrees_on_the_spot(self) -> None:
        self.sign_in()
        page = self.page
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        self.go("Measures")
        page.get_by_label("foot ahead").fill("38")
        page.get_by_label("seat", exact=True).fill("8")
        page.get_by_label("left knee").fill("22")
        expect(page.get_by_text(re.compile("turns out \\d+° ±"))).to_be_visible()
        page.get_by_role("button", name="Use as today’s reading").click()
        expect(page.get_by_label("Turning out, hip open, left")).not_to_have_value("")
        page.get_by_role("button", name="Store readings").click()
        expect(page.get_by_text("Stored.")).to_be_visible()

    def test_another_practices_client_is_not_to_be_found(self) -> None:
        from django_scopes import scopes_disabled  # noqa: PLC0415

        from clients.models import Client  # noqa: PLC0415

        with scopes_disabled():
            foreign = Client.objects.get(person__occupation="ferryman")
            own = Client.objects.get(person__occupation="clock repairer")
        self.sign_in()
        self.page.get_by_role("heading", name="Today").wait_for()
        self.page.goto(f"{self.live_server_url}/practices/{own.practice_id}/clients/{foreign.pk}/limits")
        expect(self.page.get_by_text("There is nothing at this address")).to_be_visible()

    def test_a_client_file_goes_out_and_comes_in(self) -> None:
        self.sign_in()
        page = self.page
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        self.go("Responses")
        with page.expect_download() as saved:
            page.get_by_role("link", name="Save client file").click()
        content = Path(saved.value.path()).read_bytes()
        page.get_by_role("link", name="Clients").click()
        picker = page.get_by_label("From a file")
        picker.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": b"not a file"})
        expect(page.get_by_role("alert")).to_contain_text("cannot be read as JSON")
        broken = content.replace(b'"stature"', b'"stride"')
        picker.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": broken})
        expect(page.get_by_role("alert")).to_contain_text("body.0.quantity")
        picker.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": content})
        expect(page.get_by_role("heading", name="Hartley Quill")).to_be_visible()
        page.get_by_role("link", name="Clients").click()
        expect(page.get_by_role("link", name=re.compile("Hartley Quill"))).to_have_count(2)

    def test_keys_work_and_can_be_listed(self) -> None:
        self.sign_in()
        page = self.page
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        self.go("Set up")
        page.get_by_role("button", name="Take to the mat").first.wait_for()
        page.keyboard.press("l")
        page.keyboard.press("[")
        expect(page).to_have_url(re.compile("left=figure_four.block_side"))
        page.keyboard.press("?")
        expect(page.get_by_role("dialog")).to_contain_text("step back on the chosen side")
