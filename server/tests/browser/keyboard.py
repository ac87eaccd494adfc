"""What tests without a pointer share: going on with the tabulator, and answering by keys."""

from __future__ import annotations

import datetime as dt

from playwright.sync_api import Locator

from tests.browser.base import BrowserTest

MOST_STOPS = 260
"""How often the tabulator is pressed before something counts as out of reach."""


class KeyboardTest(BrowserTest):
    def tab_to(self, what: Locator) -> None:
        """Goes on with the tabulator until something has the focus, as somebody without a pointer does."""
        what.wait_for()
        for _ in range(MOST_STOPS):
            if what.evaluate("(each) => each === document.activeElement"):
                return
            self.page.keyboard.press("Tab")
        self.fail(f"not to be reached by the keyboard: {what}")

    def press_on(self, what: Locator, key: str = "Enter") -> None:
        self.tab_to(what)
        self.page.keyboard.press(key)

    def answer(self, question: str, answer: str) -> None:
        """Opens a list of the dialog by keys and takes the option that begins so."""
        self.press_on(self.page.get_by_role("dialog").get_by_role("combobox", name=question))
        self.page.get_by_role("option", name=answer).first.wait_for()
        # A blank would take what is marked already.
        self.page.keyboard.type(answer.split(maxsplit=1)[0])
        self.page.keyboard.press("Enter")

    def write(self, field: str, text: str) -> None:
        """Writes over what stands in a field of the dialog."""
        self.tab_to(self.page.get_by_role("dialog").get_by_role("textbox", name=field))
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)

    def write_date(self, field: str, day: dt.date) -> None:
        """Types a date part by part as its order is."""
        parts = self.page.get_by_role("dialog").get_by_role("group", name=field).get_by_role("spinbutton")
        self.tab_to(parts.first)
        self.page.keyboard.type(day.strftime("%d%m%Y"))

    def save(self) -> None:
        dialog = self.page.get_by_role("dialog")
        self.press_on(dialog.get_by_role("button", name="Save", exact=True))
        dialog.wait_for(state="hidden")
