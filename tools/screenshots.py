"""Pictures of every main view from the running demo, for the README. Start ``./asketa demo`` first."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Page, ViewportSize, sync_playwright

OUT = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
PORT_FILE = Path(__file__).resolve().parents[1] / ".local" / "server-port"
ADDRESS = f"http://127.0.0.1:{PORT_FILE.read_text(encoding='utf-8') if PORT_FILE.exists() else 8000}/"
DESK, TABLET = ViewportSize(width=1280, height=800), ViewportSize(width=1024, height=768)


def shoot(page: Page, name: str) -> None:
    page.wait_for_load_state("networkidle")
    if (met := page.get_by_role("button", name="Understood")).count():
        met.click()
    page.wait_for_timeout(400)
    page.screenshot(path=OUT / f"{name}.png")


def go(page: Page, stop: str) -> None:
    page.get_by_role("navigation", name="Working order").get_by_role("link", name=re.compile(stop)).click()


def sign_in(page: Page) -> None:
    page.get_by_label("E-mail address").fill("ottoline@weir-room.example")
    page.get_by_label("Password").fill("weir-room-demo")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Today").wait_for()


def shared_shape(page: Page) -> None:
    """A client whose record has no side, and a shape both legs share."""
    page.get_by_role("link", name="Clients").click()
    page.get_by_role("link", name=re.compile("Bryony Fell")).click()
    page.get_by_role("group", name="Bound angle, both").wait_for()
    go(page, "Limits")
    page.get_by_role("heading", name=re.compile("Pregnant")).wait_for()
    shoot(page, "limits-whole-body")
    go(page, "Choose")
    page.get_by_role("group", name="Bound angle, both").get_by_role("button", name=re.compile("high")).click()
    page.get_by_role("status").filter(has_text=re.compile(r"ladders? of")).wait_for()
    shoot(page, "choose-shared")
    page.get_by_role("button", name="Open the set-up").click()
    page.get_by_role("button", name="Take to the mat").first.wait_for()
    shoot(page, "set-up-shared")


def library(page: Page) -> None:
    """A family of the library with one of the practice's own rungs, and its card."""
    page.get_by_role("link", name="Library").click()
    page.get_by_role("navigation").get_by_role("link", name="Figure-four").first.click()
    page.get_by_role("group", name=re.compile("Rungs of")).get_by_role("button", name=re.compile("own$")).click()
    page.get_by_text("hip replaced 4 weeks ago, from behind").first.wait_for()
    shoot(page, "library")
    page.get_by_role("link", name="Card").click()
    page.get_by_text("What you need").wait_for()
    shoot(page, "library-card")
    page.get_by_role("link", name="Today", exact=True).click()
    page.get_by_role("heading", name=re.compile("^Since")).first.wait_for()
    shoot(page, "today")
    page.get_by_role("link", name="Settings").click()
    page.get_by_role("combobox", name="Time zone").wait_for()
    shoot(page, "settings")


def session(page: Page) -> None:
    """A planned session, and the mat it is taken to."""
    go(page, "Plan")
    for name in ("Breath and pelvic floor", "Hip hinge", "Warrior two", "Rest"):
        page.get_by_role("combobox", name="Add a pose").fill(name)
        page.get_by_role("listbox").get_by_role("option", name=name, exact=True).click()
        page.get_by_role("listitem", name=name).wait_for()
    page.get_by_role("button", name="Suggest an order").click()
    page.get_by_text("Put in order").wait_for()
    page.wait_for_timeout(1500)
    shoot(page, "plan")
    page.set_viewport_size(TABLET)
    page.get_by_role("link", name="To the mat").click()
    page.get_by_role("button", name=re.compile("poses$")).wait_for()
    shoot(page, "arrival")
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="Skip").click()
    page.get_by_role("button", name="Step back, left").wait_for()
    for name in ("during 1, left", "after 0, left"):
        page.get_by_role("button", name=name).click()
    shoot(page, "on-the-mat")


def doctor(page: Page) -> None:
    """A sign that belongs to a doctor first, and the note that is taken along."""
    page.set_viewport_size(DESK)
    page.get_by_role("button", name="Leave").or_(page.get_by_role("link", name="Leave")).click()
    go(page, "Limits")
    page.get_by_role("button", name="Correct").first.click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("checkbox", name="sudden groin or thigh pain").check()
    dialog.get_by_role("button", name="Save").click()
    page.get_by_role("link", name="What to do, and a note to take along").click()
    page.get_by_role("button", name="Print the note").wait_for()
    shoot(page, "doctor")


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        page = browser.new_page(viewport=DESK, locale="en-GB")
        page.goto(ADDRESS)
        page.get_by_label("E-mail address").wait_for()
        shoot(page, "sign-in")
        sign_in(page)
        page.get_by_role("link", name="Clients").click()
        page.get_by_role("button", name="New client").wait_for()
        page.get_by_role("link", name=re.compile("Hartley Quill")).wait_for()
        shoot(page, "clients")
        page.get_by_role("link", name="Six weeks ahead").click()
        page.get_by_role("heading", name="Waiting for a word").wait_for()
        shoot(page, "ahead")
        page.get_by_role("link", name="Clients").click()
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        page.get_by_role("group", name="Figure-four, right").wait_for()
        for side in ("left", "right"):
            page.get_by_role("group", name=f"Figure-four, {side}").locator("svg[role=img]").first.wait_for()
        page.get_by_role("button", name=re.compile("^left, on end")).click()
        page.get_by_role("button", name=re.compile("^right, over thigh")).click()
        page.get_by_text("What would open it").wait_for()
        shoot(page, "choose")
        go(page, "Limits")
        page.get_by_role("heading", name=re.compile("Hip replaced")).wait_for()
        shoot(page, "limits")
        go(page, "Measures")
        page.get_by_role("button", name="Store readings").wait_for()
        shoot(page, "measures")
        go(page, "Set up")
        page.get_by_role("button", name="Take to the mat").first.wait_for()
        shoot(page, "set-up")
        for button in page.get_by_role("button", name="Take to the mat").all():
            button.click()
        page.get_by_text("in today’s plan, as shown").nth(1).wait_for()
        go(page, "Responses")
        page.get_by_role("grid").first.wait_for()
        shoot(page, "responses")
        shared_shape(page)
        library(page)
        page.get_by_role("link", name="Clients").click()
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        session(page)
        doctor(page)
        browser.close()


if __name__ == "__main__":
    main()
