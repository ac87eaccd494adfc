"""What is logged beside the mat is what happened: rungs, rounds, corrections, and one clock."""

from __future__ import annotations

import re

from django_scopes import scopes_disabled
from playwright.sync_api import Locator, Route, expect

from common import clock
from tests.browser.base import BrowserTest
from visits.models import LoggedItem


class OnTheMat(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.set_viewport_size({"width": 1024, "height": 768})
        page = self.page
        # Both lanes start one above the rung a step back leads to.
        self.open_client("set-up?left=figure_four.block_end&right=figure_four.block_end")
        for side in ("left", "right"):
            lane = page.get_by_role("region", name=side).first
            lane.get_by_role("button", name="Take to the mat").click()
            expect(lane.get_by_text("in today’s plan, as shown")).to_be_visible()
        page.goto(self.address + "mat")
        page.get_by_role("button", name="Begin").click()

    def lane(self, side: str) -> Locator:
        return self.page.get_by_role("region", name=side, exact=True)

    def work_on(self, side: str) -> Locator:
        """The lane of a side, large."""
        swap = self.page.get_by_role("button", name=f"To the {side} side")
        if swap.count():
            swap.click()
        lane = self.lane(side)
        expect(lane.get_by_role("timer")).to_be_visible()
        return lane

    def log(self, side: str) -> None:
        """Log a side, and wait until the other one is worked on."""
        other = {"left": "right", "right": "left"}[side]
        self.lane(side).get_by_role("button", name=f"Log {side}").click()
        expect(self.lane(other).get_by_role("timer")).to_be_visible()

    def describe(self, lane: Locator, during: int) -> None:
        side = lane.get_attribute("aria-label") or ""
        lane.get_by_role("button", name=f"during {during}, {side}").click()
        lane.get_by_role("button", name="Calm, where wanted").click()

    def stored(self) -> list[LoggedItem]:
        """Today's holds as they stand, the worst first."""
        with scopes_disabled():
            items = LoggedItem.objects.standing().filter(visit__date=clock.today("Europe/London"))
            return sorted(items, key=lambda item: item.during, reverse=True)

    def test_a_step_back_outlives_a_reload_and_a_correction_keeps_its_rung(self) -> None:
        page, left = self.page, self.work_on("left")
        self.describe(left, 6)
        self.log("left")
        left = self.work_on("left")
        left.get_by_role("button", name="Step back, left").click()
        expect(left.get_by_role("button", name="Back to the plan, left")).to_be_visible()
        page.reload()
        left = self.lane("left")
        expect(left.get_by_role("button", name="Back to the plan, left")).to_be_visible()
        self.describe(left, 1)
        self.log("left")
        left = self.work_on("left")
        holds = left.get_by_role("list", name="Logged today, left").get_by_role("listitem")
        expect(holds).to_have_count(2)
        # The flare is corrected while one still stands a step back.
        holds.first.get_by_role("button", name="Correct").click()
        left.get_by_role("button", name="during 7, left").click()
        left.get_by_role("button", name="Save the correction").click()
        expect(holds.first).to_contain_text("during 7")
        before, after = self.stored()
        self.assertEqual((before.variation, before.during), ("figure_four.block_end", 7))
        self.assertEqual((after.during, after.variation != before.variation), (1, True))
        self.assertEqual(self.errors, [])

    def test_each_side_has_its_clock_and_focused_buttons_keep_their_key(self) -> None:
        page, left = self.page, self.work_on("left")
        page.keyboard.press(" ")
        expect(left.get_by_role("button", name="Pause")).to_be_visible()
        page.wait_for_timeout(1200)
        right = self.work_on("right")
        expect(right.get_by_role("button", name="Start", exact=True)).to_be_visible()
        # Space presses the button that has the focus, and nothing else.
        right.get_by_role("button", name="during 2, right").focus()
        page.keyboard.press(" ")
        expect(right.get_by_role("button", name="during 2", exact=True)).to_be_visible()
        expect(right.get_by_role("button", name="Start", exact=True)).to_be_visible()
        left = self.work_on("left")
        expect(left.get_by_role("button", name="Pause")).to_be_visible()
        self.describe(left, 1)
        self.log("left")
        left = self.work_on("left")
        expect(left.get_by_role("list", name="Logged today, left")).to_contain_text(re.compile(r"held [1-9]\d* s"))

    def test_a_log_that_fails_says_so_beside_the_button_and_keeps_everything(self) -> None:
        page, right = self.page, self.work_on("right")
        self.describe(right, 4)
        page.context.set_offline(True)
        right.get_by_role("button", name="Log right").click()
        alert = right.get_by_role("alert")
        expect(alert).to_contain_text("cannot be reached")
        expect(alert).to_be_in_viewport(ratio=1)
        page.context.set_offline(False)
        page.reload()
        right = self.lane("right")
        expect(right.get_by_role("button", name="during 4", exact=True)).to_be_visible()
        right.get_by_role("button", name="Log right").click()
        expect(self.lane("right").get_by_role("list", name="Logged today, right")).to_contain_text("during 4")

    def log_and_lose_the_answer(self, lane: Locator) -> None:
        def stored_and_lost(route: Route) -> None:
            route.fetch()
            route.abort()

        self.describe(lane, 1)
        self.page.get_by_role("timer").get_by_role("button", name="Start", exact=True).click()
        self.page.route("**/items", stored_and_lost)
        lane.get_by_role("button", name="Log left").click()
        expect(lane.get_by_role("alert")).to_contain_text("cannot be reached")
        self.page.unroute("**/items")

    def test_a_lost_answer_sent_again_is_the_same_hold(self) -> None:
        left = self.work_on("left")
        self.log_and_lose_the_answer(left)
        # The clock runs on; the hold was over when it was first logged.
        self.page.wait_for_timeout(1200)
        left.get_by_role("button", name="Log left").click()
        expect(self.lane("left").get_by_role("list", name="Logged today, left")).to_contain_text("during 1")
        self.assertEqual([item.during for item in self.stored()], [1])

    def test_a_lost_answer_and_a_changed_score_are_asked_about(self) -> None:
        left = self.work_on("left")
        self.log_and_lose_the_answer(left)
        left.get_by_role("button", name=re.compile(r"^during \S+$")).click()
        left.get_by_role("button", name="during 5, left").click()
        left.get_by_role("button", name="Log left").click()
        expect(left.get_by_role("alert")).to_contain_text("stored already, with during 1")
        left.get_by_role("button", name="Correct it to mine").click()
        expect(self.lane("left").get_by_role("list", name="Logged today, left")).to_contain_text("during 5")
        self.assertEqual([item.during for item in self.stored()], [5])

    def test_a_whole_visit_from_the_arrival_to_its_end(self) -> None:
        """Arrival, a flare with its step back, the other side calm, and the summary that leads to the responses."""
        page = self.page
        left = self.work_on("left")
        for name in ("during 7, left", "sharp"):
            left.get_by_role("button", name=name).click()
        left.get_by_role("button", name=re.compile("^place")).click()
        for name in ("knee", "nothing, breath steady"):
            left.get_by_role("button", name=name, exact=True).click()
        left.get_by_role("button", name="Log left").click()
        right = self.lane("right")
        self.describe(right, 1)
        right.get_by_role("button", name="Log right").click()
        summary = page.get_by_role("region", name="Figure-four")
        expect(summary).to_contain_text("during 7 → flare")
        expect(summary).to_contain_text(re.compile("Next time: Flare last time .sharp.*step back", re.I))
        page.get_by_role("button", name="Card").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("textbox", name="What went wrong").fill("The knee spoke at the inner line.")
        dialog.get_by_role("button", name="Keep").click()
        dialog.get_by_role("button", name="Close").click()
        expect(page.get_by_role("region", name="What went wrong")).to_contain_text("inner line")
        page.get_by_role("link", name="To the responses").click()
        expect(page).to_have_url(re.compile("/responses"))
        self.assertEqual([(item.during, item.kind) for item in self.stored()], [(7, "sharp"), (1, "calm")])
        self.assertEqual(self.errors, [])

    def test_two_tabs_log_the_same_side_at_once_and_both_holds_are_kept(self) -> None:
        other = self.another_device()
        other.goto(self.address + "mat")
        other.get_by_role("button", name="Begin").click()
        lanes = [page.get_by_role("region", name="left", exact=True) for page in (self.page, other)]
        for lane, during in zip(lanes, (1, 2), strict=True):
            self.describe(lane, during)
        for lane in lanes:
            lane.get_by_role("button", name="Log left").click()
        expect(other.get_by_role("list", name="Logged today, left").get_by_role("listitem")).to_have_count(2)
        self.assertEqual([item.during for item in self.stored()], [2, 1])

    def test_both_ways_are_tried_and_the_calmer_is_kept_for_its_side(self) -> None:
        page, left = self.page, self.work_on("left")
        expect(left.get_by_text("Foot: not tried on this side yet.")).to_be_visible()
        left.get_by_role("button", name="Try both ways").click()
        dialog = page.get_by_role("dialog", name=re.compile("Both ways, left"))
        for way in ("A: Foot, at rest", "B: Foot, drawn up"):
            held = dialog.get_by_role("region", name=way)
            held.get_by_role("button", name="Start").click()
            expect(held.get_by_text(re.compile("^[1-9] of 18 s"))).to_be_visible()
            held.get_by_role("button", name="Pause").click()
        dialog.get_by_role("button", name="A felt 3", exact=True).click()
        # What was felt so far outlives a look elsewhere.
        dialog.get_by_role("button", name="Close").click()
        left.get_by_role("button", name="Try both ways").click()
        expect(dialog.get_by_role("button", name="A felt 3", exact=True)).to_have_attribute("aria-pressed", "true")
        dialog.get_by_role("button", name="B felt 1", exact=True).click()
        dialog.get_by_role("button", name="Keep drawn up").click()
        expect(dialog).to_be_hidden()
        expect(left.get_by_text("foot drawn up").first).to_be_visible()
        expect(left.get_by_text(re.compile("Foot: drawn up, kept on"))).to_be_visible()
        expect(self.work_on("right").get_by_text("Foot: not tried on this side yet.")).to_be_visible()
        self.describe(self.work_on("left"), 1)
        self.log("left")
        (item,) = self.stored()
        self.assertEqual(item.setup_used["foot"]["choice"], "drawn_up")
        page.goto(self.address + "responses")
        tried = page.get_by_role("list", name="Tried both ways")
        expect(tried).to_contain_text(re.compile(r"Foot drawn up \(1 of 10\) kept, at rest \(3\) not"))
        self.assertEqual(self.errors, [])
