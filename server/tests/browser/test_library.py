"""The Library in a real browser: finding, reading, making one's own, out and in as a file, and on Choose."""

from __future__ import annotations

import json
import re
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import expect

from tests.browser.base import BrowserTest


class LibraryJourney(BrowserTest):
    def test_find_adjust_save_print_and_choose(self) -> None:
        self.sign_in()
        self.page.get_by_role("link", name="Library", exact=True).click()
        self.find_a_rung()
        self.copy_and_adjust()
        self.change_it_again()
        self.out_and_in()
        self.look_at_the_card()
        self.meet_it_on_choose()
        self.assertEqual(self.errors, [])

    def find_a_rung(self) -> None:
        page = self.page
        page.get_by_role("searchbox").fill("figure chair block flat")
        page.get_by_role("navigation").get_by_role("link", name=re.compile("block lying flat")).first.click()
        article = page.get_by_role("article")
        expect(article.get_by_role("heading", name=re.compile("block lying flat"))).to_be_visible()
        expect(article.get_by_text("hip replaced 4 weeks ago, from behind").first).to_be_visible()
        page.get_by_role("button", name="seen from above").click()
        expect(article.get_by_text("seen from above: left is left")).to_be_visible()

    def copy_and_adjust(self) -> None:
        page = self.page
        page.get_by_role("button", name="Copy and adjust").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Name", exact=True).fill("Quiet figure-four")
        dialog.get_by_label("Short name").fill("quiet")
        knee = dialog.get_by_role("group", name="Knee let out to")
        knee.get_by_label("from").fill("95")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("Exchange them.")).to_be_visible()
        # What was typed is still there, also after leaving it as a draft.
        dialog.get_by_role("button", name="Keep as draft").click()
        page.get_by_role("button", name="Copy and adjust").click()
        expect(dialog.get_by_label("Short name")).to_have_value("quiet")
        expect(knee.get_by_label("from")).to_have_value("95")
        knee.get_by_label("from").fill("not far")
        page.reload()
        page.get_by_role("button", name="Copy and adjust").click()
        expect(knee.get_by_label("from")).to_have_value("not far")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("Not a number").first).to_be_visible()
        knee.get_by_label("from").fill("20°")
        knee.get_by_label("to", exact=False).nth(0).fill("40")
        dialog.get_by_label("In your own words").fill("Let the block carry the foot.")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_be_hidden()
        article = page.get_by_role("article")
        expect(article.get_by_role("heading", name="Quiet figure-four")).to_be_visible()
        expect(article.get_by_text("20–40° in steps of 5")).to_be_visible()
        expect(article.get_by_text("Let the block carry the foot.")).to_be_visible()

    def change_it_again(self) -> None:
        page = self.page
        page.get_by_role("button", name="Change", exact=True).click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Short name").fill("quieter")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("version 2")).to_be_visible()
        page.get_by_role("button", name="Versions").click()
        expect(dialog.get_by_role("button", name="Bring back")).to_have_count(1)
        dialog.get_by_role("button", name="Close").click()

    def out_and_in(self) -> None:
        page = self.page
        with page.expect_download() as download:
            page.get_by_role("link", name="Save as file").click()
        file = json.loads(Path(download.value.path()).read_text(encoding="utf-8"))
        file["variation"]["name"] = "Brought in"
        broken = {**file, "after": "figure_four.nowhere"}
        with TemporaryDirectory() as folder:
            for name, content in (("broken.json", broken), ("good.json", file)):
                (Path(folder) / name).write_text(json.dumps(content), encoding="utf-8")
            picker = page.get_by_label("Variation from a file")
            picker.set_input_files(Path(folder) / "broken.json")
            expect(page.get_by_role("alert")).to_contain_text("after: This family has no such rung")
            picker.set_input_files(Path(folder) / "good.json")
            expect(page.get_by_role("heading", name="Brought in")).to_be_visible()
        page.get_by_role("button", name="Put away").click()
        page.get_by_role("dialog").get_by_role("button", name="Put away").click()
        page.get_by_role("searchbox").fill("")
        expect(page.get_by_role("navigation").get_by_role("link", name="Brought in")).to_be_visible()

    def look_at_the_card(self) -> None:
        page = self.page
        page.get_by_role("group", name=re.compile("Rungs of")).get_by_role("button", name="Quiet figure-four").click()
        expect(page.get_by_role("article").get_by_role("heading", name="Quiet figure-four")).to_be_visible()
        page.get_by_role("link", name="Card").click()
        card = page.get_by_role("main")
        expect(card.get_by_text("What you need")).to_be_visible()
        expect(card.get_by_text("Let the block carry the foot.")).to_be_visible()
        page.get_by_role("link", name="Back to the Library").click()

    def meet_it_on_choose(self) -> None:
        page = self.page
        page.get_by_role("link", name="Clients", exact=True).click()
        # By name: the view left behind stands, with links of its own, until the next has come.
        page.get_by_role("link", name="Hartley Quill").click()
        page.get_by_role("navigation", name="Working order").get_by_role("link", name=re.compile("Choose")).click()
        left = page.get_by_role("group", name="Figure-four, left")
        left.scroll_into_view_if_needed()
        left.get_by_role("button", name=re.compile("quieter")).click()
        page.get_by_role("button", name="Open the set-up").click()
        expect(page.get_by_text("Let the block carry the foot.")).to_be_visible()
