"""Figures are the main thing where they stand, say in words what they show, and show how one gets there."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, expect

from tests.browser.base import BrowserTest


class Figures(BrowserTest):
    SET_UP = "set-up?left=figure_four.block_end&right=figure_four.block_end"

    def height(self, of: Locator) -> float:
        box = of.bounding_box()
        assert box is not None
        return box["height"]

    def test_on_set_up_the_figure_has_the_most_of_its_lane_and_its_words_beside_it(self) -> None:
        self.open_client(self.SET_UP)
        for size in ((1280, 800), (1024, 768)):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            lane = self.page.get_by_role("region", name="left", exact=True)
            drawn = lane.get_by_role("img").first
            expect(drawn).to_be_visible()
            self.assertGreater(self.height(drawn), 0.45 * self.height(lane), size)
            words = drawn.get_attribute("aria-label") or ""
            self.assertRegex(words, r"hip bend \d+°")
            expect(lane).to_contain_text(words)

    def test_the_way_in_and_out_follows_the_seat(self) -> None:
        self.open_client(self.SET_UP)
        way = self.page.get_by_role("region", name="left: what it takes").get_by_role("list").first
        moments = way.get_by_role("listitem")
        expect(moments).to_have_count(3)
        expect(moments.first).to_contain_text("standing before the chair")
        expect(moments.last.get_by_role("img")).to_be_visible()
        halfway = moments.nth(1).get_by_role("img")
        before = halfway.inner_html()
        self.page.get_by_role("button", name=re.compile("^Seat: higher or more")).first.click()
        expect(halfway).not_to_have_js_property("innerHTML", before)

    def test_on_the_mat_the_figure_takes_nearly_half_of_the_height(self) -> None:
        self.page.set_viewport_size({"width": 1024, "height": 768})
        self.open_client(self.SET_UP)
        self.page.get_by_role("region", name="left").first.get_by_role("button", name="Take to the mat").click()
        self.page.goto(self.address + "mat")
        self.page.get_by_role("button", name="Begin").click()
        drawn = self.page.get_by_role("region", name="left", exact=True).get_by_role("img").first
        expect(drawn).to_be_visible()
        self.assertGreaterEqual(self.height(drawn), 0.45 * 768)
        # Scoring and logging stay in reach without scrolling.
        expect(self.page.get_by_role("button", name="Calm, where wanted").first).to_be_in_viewport()
        expect(self.page.get_by_role("button", name="Log left")).to_be_in_viewport()
