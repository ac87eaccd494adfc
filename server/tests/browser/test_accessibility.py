"""Every view and dialog as axe sees it, in both lights; nothing wider than its screen and nothing too small to touch."""

from __future__ import annotations

import re
from typing import Any

from django.conf import settings
from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest

AXE = (settings.ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
RUN = """async (tags) => {
  const { violations } = await axe.run(document, { runOnly: { type: 'tag', values: tags } })
  return violations.map(({ id, nodes }) => `${id}: ${nodes[0].html.slice(0, 160)}`)
}"""
WIDER = "document.documentElement.scrollWidth - document.documentElement.clientWidth"
SMALL = """(least) => [...document.querySelector('main').querySelectorAll('button, a[href], input, summary, [role=button], [role=radio]')]
  .filter((each) => each.checkVisibility({ opacityProperty: true, visibilityProperty: true }))
  .map((each) => ({ each, box: (each.closest('label') ?? each).getBoundingClientRect() }))
  .filter(({ each, box }) => box.width > 1 && box.bottom > 0 && (box.height < least || box.width < Math.min(least, 24))
    && each.type !== 'file' && each.role !== 'spinbutton' && !each.closest('p, li, details, nav, [role=table]'))
  .map(({ each, box }) => `${Math.round(box.width)} × ${Math.round(box.height)}: ${each.outerHTML.slice(0, 120)}`)
"""
"""What is touched and smaller than it may be; what stands within text, lists and tables has its line's height, and a
spinbutton has buttons of its own."""

CLIENT_VIEWS = ("limits", "measures", "choose", "set-up", "mat", "responses")
DIALOGS = (
    ("clients", "New client"),
    ("limits", "Record on the left"),
    ("limits", "Correct"),
    ("limits", "Record a clearance"),
    ("choose", "Find"),
    ("choose", "Ottoline Marsh"),
    ("library", "Copy and adjust"),
)
SIZES = ((1280, 800), (1024, 768), (768, 1024), (640, 400), (390, 844))


class Accessible(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.wrong: dict[str, Any] = {}
        facts = {
            "date": "2026-09-25", "approach": "posterior", "prosthesis": "total", "dislocated": "no",
            "abductor_repair": "no", "weight_bearing": "full", "trouble_since": "no", "symptoms_now": ["none"],
        }  # fmt: skip
        self.record("Hartley Quill", {"kind": "hip_replacement", "side": "right", "facts": facts})

    def signed_in(self, light: str) -> Page:
        """A page of its own that is looked at in a light."""
        context = self.browser.new_context(
            viewport={"width": 1280, "height": 800}, color_scheme="dark" if light == "dim" else "light",
            reduced_motion="reduce", bypass_csp=True, locale="en-GB",
        )  # fmt: skip
        self.addCleanup(context.close)
        self.page = context.new_page()
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))
        self.open_client("limits")
        return self.page

    def settled(self) -> None:
        self.page.wait_for_load_state("networkidle")
        expect(self.page.get_by_text("Working it out …")).to_have_count(0)

    def look(self, place: str) -> None:
        self.settled()
        self.page.evaluate(AXE)
        if found := self.page.evaluate(RUN, RULES):
            self.wrong[place] = found

    def views(self) -> dict[str, str]:
        practice = re.sub(r"/clients/.*", "", self.address)
        own = {view: self.address + view for view in CLIENT_VIEWS}
        return own | {
            "clients": f"{practice}/clients",
            "library": f"{practice}/library/figure_four?rung=figure_four.block_flat",
            "card": f"{practice}/library/card/figure_four.block_flat",
            "settings": f"{practice}/settings",
        }

    def plan(self) -> None:
        self.page.goto(self.address + "set-up?left=figure_four.block_end&right=figure_four.block_flat")
        for side in ("left", "right"):
            lane = self.page.get_by_role("region", name=side, exact=True)
            lane.get_by_role("button", name="Take to the mat").click()
            expect(lane.get_by_text("On today’s plan")).to_be_visible()

    def test_every_view_in_both_lights(self) -> None:
        for light in ("day", "dim"):
            page = self.signed_in(light)
            self.plan()
            for name, address in self.views().items():
                page.goto(address)
                self.look(f"{light} {name}")
        self.page.context.clear_cookies()
        self.page.goto(self.live_server_url)
        self.look("sign-in")
        self.assertEqual(self.wrong, {})
        self.assertEqual(self.errors, [])

    def test_every_dialog_in_both_lights(self) -> None:
        for light in ("day", "dim"):
            page = self.signed_in(light)
            views = self.views()
            for view, opens in DIALOGS:
                page.goto(views[view])
                page.get_by_role("button", name=opens).first.click()
                page.get_by_role("dialog").wait_for()
                self.look(f"{light} {opens}")
            page.goto(views["set-up"])
            self.settled()
            page.keyboard.press("?")
            page.get_by_role("dialog").wait_for()
            self.look(f"{light} keys")
        self.assertEqual(self.wrong, {})

    def test_no_view_is_wider_than_its_screen(self) -> None:
        page = self.signed_in("day")
        self.plan()
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            for name, address in self.views().items():
                page.goto(address)
                self.settled()
                if (by := page.evaluate(WIDER)) > 0:
                    self.wrong[f"{name} at {width}"] = by
        self.assertEqual(self.wrong, {})

    def test_what_is_touched_is_large_enough(self) -> None:
        page = self.signed_in("day")
        self.plan()
        page.set_viewport_size({"width": 1024, "height": 768})
        for name, address in self.views().items():
            page.goto(address)
            self.settled()
            main = 44 if name in ("set-up", "mat") else 24
            if found := page.evaluate(SMALL, main):
                self.wrong[name] = found
        self.assertEqual(self.wrong, {})

    def test_what_to_mind_stays_in_sight_where_there_is_no_column(self) -> None:
        page = self.signed_in("day")
        page.set_viewport_size({"width": 1024, "height": 768})
        mind = page.get_by_role("complementary", name="To mind today")
        expect(mind).to_contain_text(re.compile("right: .*[Hh]ip"))
        mind.get_by_role("button", name=re.compile("more to mind")).click()
        expect(page.get_by_role("dialog")).to_contain_text("Next change")
        page.keyboard.press("Escape")
        page.mouse.wheel(0, 1500)
        expect(mind).to_be_in_viewport()

    def test_the_first_stop_of_the_keyboard_skips_to_the_content(self) -> None:
        page = self.signed_in("day")
        page.goto(self.address + "choose")
        self.settled()
        page.keyboard.press("Tab")
        skip = page.get_by_role("link", name="To the content")
        expect(skip).to_be_focused()
        expect(skip).to_be_in_viewport()
        page.keyboard.press("Enter")
        expect(page.locator("main")).to_be_focused()

    def test_a_journey_by_keyboard_alone(self) -> None:
        """From the clients to a hold that is logged, without a pointer."""
        page = self.signed_in("day")
        press = page.keyboard.press
        page.goto(self.address + "choose")
        page.get_by_role("group", name="Figure-four, left").wait_for()
        page.get_by_role("button", name=re.compile("^left, on end")).focus()
        press("Enter")
        page.get_by_role("button", name="Open the set-up").focus()
        press("Enter")
        lane = page.get_by_role("region", name="left", exact=True)
        seat = lane.get_by_role("spinbutton", name="Seat")
        seat.focus()
        before = seat.get_attribute("aria-valuetext") or ""
        press("ArrowUp")
        expect(seat).not_to_have_attribute("aria-valuetext", before)
        take = lane.get_by_role("button", name="Take to the mat")
        expect(take).to_be_enabled()
        take.focus()
        press("Enter")
        expect(lane.get_by_text("On today’s plan")).to_be_visible()
        press("/")
        expect(page.get_by_role("combobox", name=re.compile("^Find a client"))).to_be_focused()
        page.keyboard.type("on the mat")
        press("Enter")
        page.get_by_role("button", name="Log left").wait_for()
        for key in ("l", "2", " "):
            press(key)
        expect(page.get_by_role("button", name="during 2", exact=True)).to_be_visible()
        expect(page.get_by_text("timing the left")).to_be_visible()
        page.get_by_role("button", name="Calm, where wanted").first.focus()
        press("Enter")
        page.get_by_role("button", name="Log left").focus()
        press("Enter")
        expect(page.get_by_role("list", name="Logged today, left")).to_contain_text("during 2")
