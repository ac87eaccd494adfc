"""Nothing that is said stands outside the catalogues: in the pseudo-language no screen shows a plain letter."""

from __future__ import annotations

import re

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import expect

from asketa_core import PSEUDO, disguised
from tests.browser.base import EMAIL, PASSWORD, BrowserTest

WHO = "Hartley Quill"
SCREENS = settings.ROOT / "web" / "src" / "common" / "screens.ts"

FOUND_OUTSIDE = """() => {
  const skip = '[translate=no], [lang=sa-Latn], kbd, script, style, noscript'
  const found = new Set()
  const look = (text) => { if (/[A-Za-z]/.test(text)) found.add(text.trim()) }
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (texts.nextNode()) {
    const parent = texts.currentNode.parentElement
    if (parent !== null && parent.closest(skip) === null) look(texts.currentNode.data)
  }
  for (const each of document.querySelectorAll('[aria-label], [title], [placeholder], [alt], [aria-description]')) {
    if (each.closest(skip) !== null) continue
    for (const name of ['aria-label', 'title', 'placeholder', 'alt', 'aria-description']) look(each.getAttribute(name) ?? '')
  }
  return [...found]
}"""
"""Every text a reader sees or hears that has a plain letter, but what somebody typed, Sanskrit and the names of keys."""


@override_settings(PSEUDO_LANGUAGE=True)
class Pseudo(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.add_init_script(f"localStorage.setItem('asketa:language', '{PSEUDO}')")
        self.seen: set[str] = set()
        self.outside: dict[str, list[str]] = {}
        facts = {"site": "front", "diagnosis": "kneecap", "operated": "no"}
        self.record(WHO, {"kind": "knee_pain", "side": "left", "facts": facts})

    def look(self, place: str) -> None:
        self.page.wait_for_load_state("networkidle")
        self.page.wait_for_timeout(200)
        if found := self.page.evaluate(FOUND_OUTSIDE):
            self.outside[place] = found

    def visit(self, screen: str, address: str) -> None:
        """Open one of the screens the router names, and look at it."""
        self.seen.add(screen)
        self.page.goto(address)
        self.look(screen)

    def sign_in(self, password: str = PASSWORD) -> None:
        self.visit("/sign-in", self.live_server_url)
        self.page.get_by_label(disguised("E-mail address")).fill(EMAIL)
        self.page.get_by_label(disguised("Password")).fill(password)
        self.page.get_by_role("button", name=disguised("Sign in")).click()
        self.page.get_by_role("link", name=re.compile(WHO)).wait_for()

    def test_every_screen(self) -> None:
        page = self.page
        self.sign_in()
        practice = page.url.removesuffix("/today")
        clients = f"{practice}/clients"
        self.visit("clients", clients)
        page.get_by_role("button", name=disguised("New client")).click()
        page.get_by_role("dialog").wait_for()
        self.look("the new client")
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
        page.get_by_role("link", name=re.compile(WHO)).click()
        page.wait_for_url(re.compile("/clients/[^/]+/"))
        client = re.sub(r"(/clients/[^/]+)/.*", r"\1", page.url)
        for view in ("limits", "measures", "choose", "set-up", "responses"):
            self.visit(f"clients/:clientId/{view}", f"{client}/{view}")
        self.plan()
        self.visit("clients/:clientId/plan", f"{client}/plan")
        self.visit("clients/:clientId/mat", f"{client}/mat")
        page.get_by_role("button", name=disguised("Begin")).click()
        page.get_by_role("timer").wait_for()
        self.look("the mat, working")
        page.get_by_role("button", name=disguised("End the visit")).click()
        self.look("the mat, its end")
        self.visit("settings", f"{practice}/settings")
        self.visit("words", f"{practice}/words")
        self.visit("ahead", f"{practice}/ahead")
        self.record(WHO, {"kind": "warning_signs", "facts": {"signs": ["night_pain"]}})
        self.visit("clients/:clientId/doctor", f"{client}/doctor")
        self.visit("today", f"{practice}/today")
        page.get_by_role("button", name=disguised("Book an appointment")).click()
        page.get_by_role("dialog").wait_for()
        self.look("the appointment")
        page.keyboard.press("Escape")
        self.visit("library/:familyId?", f"{practice}/library/figure_four")
        self.visit("library/card/:variationId", f"{practice}/library/card/figure_four.block_flat")
        self.visit("*", f"{self.live_server_url}/nowhere")
        named = set(re.findall(r"path: '([^']+)'", SCREENS.read_text(encoding="utf-8")))
        self.assertEqual(named | {"/sign-in", "*"}, self.seen)
        self.assertEqual(self.outside, {})
        self.assertEqual(self.errors, [])

    def plan(self) -> None:
        """Something for the mat to show."""
        self.page.goto(self.page.url.replace("/responses", "/set-up"))
        self.page.get_by_role("button", name=disguised("Take to the mat")).first.click()
        self.page.wait_for_load_state("networkidle")

    def test_every_kind_of_record(self) -> None:
        limits = self.open_limits()
        kinds: set[str] = set()
        for button in ("Record on the left", "Record for the whole body"):
            self.page.goto(limits)
            self.page.get_by_role("button", name=disguised(button)).click()
            kinds |= self.look_at_kinds()
        self.assertGreater(len(kinds), 19)
        self.assertEqual(self.outside, {})

    def open_limits(self) -> str:
        self.sign_in()
        self.page.get_by_role("link", name=re.compile(WHO)).click()
        self.page.wait_for_url(re.compile("/clients/[^/]+/"))
        return re.sub(r"(/clients/[^/]+)/.*", r"\1/limits", self.page.url)

    def look_at_kinds(self) -> set[str]:
        """Every kind the open dialog offers, chosen one after the other."""
        kind = self.page.get_by_role("dialog").get_by_label(disguised("What is it?"))
        kind.click()
        names = [name for name in self.page.get_by_role("option").all_inner_texts() if name.strip("—")]
        self.page.keyboard.press("Escape")
        for name in names:
            kind.click()
            self.page.get_by_role("option", name=name, exact=True).click()
            expect(kind).to_contain_text(name)
            self.look(name)
        return set(names)

    def test_dialogs(self) -> None:
        limits = self.open_limits()
        self.page.goto(limits)
        for button in ("Correct", "Record a clearance", "How is it today?", "Find"):
            self.page.get_by_role("button", name=disguised(button)).first.click()
            self.page.get_by_role("dialog").wait_for()
            self.look(button)
            self.page.keyboard.press("Escape")
            self.page.get_by_role("dialog").wait_for(state="detached")
        self.page.get_by_role("button", name=re.compile("Ottoline")).click()
        self.look("the person")
        self.page.get_by_role("button", name=disguised("Keys")).click()
        self.look("the keys")
        self.page.goto(re.sub(r"/clients/.*", "/library/figure_four?rung=figure_four.block_flat", limits))
        self.page.get_by_role("button", name=disguised("Copy and adjust")).click()
        self.page.get_by_role("dialog").wait_for()
        self.look("adjusting")
        self.assertEqual(self.outside, {})
