"""Every view and dialog as axe sees it, in both lights; nothing wider than its screen and nothing too small to touch."""

from __future__ import annotations

import re
from typing import Any

from django.conf import settings
from playwright.sync_api import Page, expect

from tests.browser.base import EMAIL, PASSWORD
from tests.browser.keyboard import KeyboardTest

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

LEAST_PX = 11
SMALL_WORDS = """(least) => [...document.querySelectorAll('svg text')]
  .filter((each) => each.checkVisibility())
  .map((each) => [parseFloat(getComputedStyle(each).fontSize) * each.getScreenCTM().a, each])
  .filter(([size]) => Math.abs(size) < least - 0.05)
  .map(([size, each]) => `${size.toFixed(1)} px: ${each.textContent}`)
"""

INK = "(each) => getComputedStyle(each).backgroundColor + getComputedStyle(each).borderLeftColor"
SWAPPED = """() => {
  const named = (side) => [...document.querySelectorAll('main *')].filter((each) => each.checkVisibility() && each.childElementCount === 0
    && each.textContent.trim().toLowerCase() === side).map((each) => each.getBoundingClientRect())
  const lefts = named('left'), rights = named('right')
  return lefts.flatMap((left) => rights.filter((right) => Math.abs(left.top - right.top) < 8 && left.left > right.left)
    .map((right) => `left at ${left.left}, right at ${right.left}`))
}"""
"""Words left and right beside each other that stand the wrong way round."""

CLIENT_VIEWS = ("doctor", "limits", "measures", "choose", "set-up", "plan", "mat", "responses")
DIALOGS = (
    ("today", "Book an appointment"),
    ("today", "Call off"),
    ("clients", "New client"),
    ("limits", "Record on the left"),
    ("limits", "Correct"),
    ("limits", "Record a clearance"),
    ("choose", "Find"),
    ("choose", "Ottoline Marsh"),
    ("plan", "Templates"),
    ("mat", "Card"),
    ("library", "Copy and adjust"),
)
SIZES = ((1280, 800), (1024, 768), (768, 1024), (640, 400), (390, 844))


class Accessible(KeyboardTest):
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
            "today": f"{practice}/today",
            "clients": f"{practice}/clients",
            "library": f"{practice}/library/figure_four?rung=figure_four.block_flat",
            "card": f"{practice}/library/card/figure_four.block_flat",
            "ahead": f"{practice}/ahead",
            "settings": f"{practice}/settings",
            "words": f"{practice}/words",
        }

    def plan(self) -> None:
        """Both sides in today's plan, where they are not yet."""
        self.page.goto(self.address + "set-up?left=figure_four.block_end&right=figure_four.block_flat")
        for side in ("left", "right"):
            lane = self.page.get_by_role("region", name=side, exact=True)
            planned = lane.get_by_text("in today’s plan, as shown")
            lane.get_by_role("button", name="Take to the mat").wait_for()
            self.settled()
            if not planned.is_visible():
                lane.get_by_role("button", name="Take to the mat").click()
            expect(planned).to_be_visible()
        self.begin()

    def begin(self) -> None:
        """The mat with its arrival looked at and behind one."""
        self.page.goto(self.address + "mat")
        self.page.get_by_role("button", name="Begin").wait_for()
        self.look("arrival")
        self.page.get_by_role("button", name="Begin").click()
        self.page.get_by_role("timer").wait_for()

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
            self.plan()
            page.get_by_role("button", name="Try both ways").click()
            page.get_by_role("dialog").get_by_role("region", name="A: Foot, at rest").wait_for()
            self.look(f"{light} both ways")
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

    def test_words_and_numbers_of_drawings_can_be_read(self) -> None:
        page = self.signed_in("day")
        self.plan()
        for width, height in SIZES[:3]:
            page.set_viewport_size({"width": width, "height": height})
            for name, address in self.views().items():
                page.goto(address)
                self.settled()
                if found := page.evaluate(SMALL_WORDS, LEAST_PX):
                    self.wrong[f"{name} at {width}"] = found
        self.assertEqual(self.wrong, {})

    def test_a_language_read_from_right_to_left_leaves_left_on_the_left(self) -> None:
        page = self.signed_in("day")
        self.plan()
        for view in ("choose", "set-up", "mat", "limits", "measures", "responses"):
            page.goto(self.address + view)
            self.settled()
            page.evaluate("document.documentElement.dir = 'rtl'")
            self.assertEqual(page.evaluate("getComputedStyle(document.body).direction"), "rtl")
            if swapped := page.evaluate(SWAPPED):
                self.wrong[view] = swapped
        self.assertEqual(self.wrong, {})

    def test_rulers_and_hatching_are_seen_in_forced_colours(self) -> None:
        page = self.signed_in("day")
        page.emulate_media(forced_colors="active")
        page.goto(self.address + "set-up?left=figure_four.block_end&right=figure_four.block_flat")
        self.settled()
        rulers = page.get_by_role("table", name="What the set-up asks for")
        for part in (".value", ".mark"):
            seen = rulers.locator(part).filter(visible=True).first
            expect(seen).to_be_visible()
            self.assertNotEqual(seen.evaluate(INK), rulers.locator(".track").first.evaluate(INK), part)

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

    def test_a_hold_by_keyboard_alone(self) -> None:
        """From the ladders to a hold that is logged, without a pointer."""
        page = self.signed_in("day")
        press = page.keyboard.press
        page.goto(self.address + "choose")
        page.get_by_role("group", name="Figure-four, left").wait_for()
        self.press_on(page.get_by_role("button", name=re.compile("^left, on end")))
        self.press_on(page.get_by_role("button", name="Open the set-up"))
        lane = page.get_by_role("region", name="left", exact=True)
        seat = lane.get_by_role("spinbutton", name="Seat")
        self.tab_to(seat)
        before = seat.get_attribute("aria-valuetext") or ""
        press("ArrowUp")
        expect(seat).not_to_have_attribute("aria-valuetext", before)
        take = lane.get_by_role("button", name="Take to the mat")
        expect(take).to_be_enabled()
        self.press_on(take)
        expect(lane.get_by_text("in today’s plan, as shown")).to_be_visible()
        press("/")
        expect(page.get_by_role("combobox", name=re.compile("^Find a client"))).to_be_focused()
        page.keyboard.type("on the mat")
        press("Enter")
        self.press_on(page.get_by_role("button", name="Begin"))
        page.get_by_role("button", name="Log left").wait_for()
        for key in ("l", "2", " "):
            press(key)
        expect(page.get_by_role("button", name="during 2", exact=True)).to_be_visible()
        expect(page.get_by_role("button", name="Pause")).to_be_visible()
        self.press_on(page.get_by_role("button", name="Calm, where wanted").first)
        self.press_on(page.get_by_role("button", name="Log left"))
        # Only the left was planned: the visit is over.
        expect(page.get_by_role("region", name="Figure-four")).to_contain_text("during 2")

    def test_a_client_is_added_recorded_and_measured_by_keyboard_alone(self) -> None:
        page = self.page
        type_, press = page.keyboard.type, page.keyboard.press
        page.goto(self.live_server_url)
        for field, text in (("E-mail address", EMAIL), ("Password", PASSWORD)):
            self.tab_to(page.get_by_label(field))
            type_(text)
        press("Enter")
        self.press_on(page.get_by_role("link", name="Clients", exact=True))
        self.press_on(page.get_by_role("button", name="New client"))
        dialog = page.get_by_role("dialog")
        for field, text in (("Name", "Tess Alder"), ("Occupation", "cooper")):
            self.tab_to(dialog.get_by_role("textbox", name=field))
            type_(text)
        press("Enter")
        expect(page.get_by_role("dialog")).to_have_count(0)
        self.press_on(page.get_by_role("button", name="Record on the left"))
        self.answer("What is it", "Groin pinch")
        self.press_on(page.get_by_role("dialog").get_by_role("button", name="Save"))
        expect(page.get_by_role("article", name=re.compile("Groin pinch"))).to_be_visible()
        band = page.get_by_role("navigation", name="Working order")
        self.press_on(band.get_by_role("link", name=re.compile("Measures")))
        self.tab_to(page.get_by_role("textbox", name=re.compile("Turning out.*left", re.IGNORECASE)).first)
        type_("40")
        press("Enter")
        expect(page.get_by_text("Stored.")).to_be_visible()
