"""From a pointer's press to the next paint, in the running demo. Start ``./asketa demo`` first.

Event Timing reports in steps of 8 ms and nothing below 16; what it leaves out counts as 16.
"""

from __future__ import annotations

import re
import statistics
import sys
from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from playwright.sync_api import Locator, Page, sync_playwright

from screenshots import ADDRESS, DESK, TABLET, sign_in

PRESSES = 20
UNREPORTED_MS = 16.0

WATCH = """() => {
  window.paints = []
  new PerformanceObserver((list) => {
    for (const each of list.getEntries()) if (each.interactionId) paints.push([each.interactionId, each.duration])
  }).observe({ type: 'event', durationThreshold: 16, buffered: false })
}"""
TAKE = "() => paints.splice(0)"

DRAWN = """(button) => {
  const figure = () => document.querySelector('main svg[role=img]')?.outerHTML
  const [before, start] = [figure(), performance.now()]
  return new Promise((done) => {
    const watch = new MutationObserver(() => {
      if (figure() === before) return
      watch.disconnect()
      requestAnimationFrame(() => done(performance.now() - start))
    })
    watch.observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true })
    setTimeout(() => { watch.disconnect(); done(null) }, 3000)
    button.click()
  })
}"""
"""From a press to the first figure that is not what it was before, ms; nothing where none changes."""


def median_ms(page: Page, presses: Iterator[Locator]) -> float:
    """Median over presses of the longest event of each, ms."""
    times = []
    page.evaluate(WATCH)
    for _, what in zip(range(PRESSES), presses, strict=False):
        # The pointer is there before: what looks for its place in the page is no part of the press.
        what.hover()
        page.wait_for_timeout(100)
        page.evaluate(TAKE)
        page.mouse.down()
        page.mouse.up()
        # Entries come after the paint they speak of.
        page.wait_for_timeout(150)
        times.append(max((duration for _, duration in page.evaluate(TAKE)), default=UNREPORTED_MS))
    return statistics.median(times)


MORE, LESS = re.compile("higher or more"), re.compile("lower or less")


def walk(page: Page, name: re.Pattern[str], places: Iterable[int] | None = None) -> dict[int, list[float]]:
    """Presses on the steppers at some places, or on each until it is at its end; from a press to the new figure, ms, by the
    stepper's place."""
    buttons = page.get_by_role("button", name=name)
    buttons.first.wait_for()
    took: dict[int, list[float]] = {}

    def press(place: int) -> None:
        drawn: float | None = page.evaluate(DRAWN, buttons.nth(place).element_handle())
        page.wait_for_timeout(150)
        took.setdefault(place, [])
        if drawn is not None:
            took[place].append(drawn)

    if places is not None:
        for place in places:
            press(place)
        return took
    left = PRESSES
    for place in range(buttons.count()):
        while left and buttons.nth(place).is_enabled():
            press(place)
            left -= 1
    return took


def drawn_ms(page: Page) -> tuple[float, float, float]:
    """Medians over presses on steppers from a press to the new figure: one that has to be drawn, the same from the server's
    cache in a page that has just been loaded, and where the page has seen it."""
    there = walk(page, MORE)
    back_again = [place for place, took in reversed(there.items()) for _ in took]
    seen = walk(page, LESS, back_again)
    page.reload()
    page.wait_for_load_state("networkidle")
    kept = walk(page, MORE)
    walk(page, LESS, back_again)
    new, cached, known = (
        statistics.median([ms for took in walked.values() for ms in took]) for walked in (there, kept, seen)
    )
    return new, cached, known


def back_and_forth(first: Locator, second: Locator) -> Iterator[Locator]:
    """One there, one back; where the first is at its end, the other way round."""
    ways = (first, second) if first.is_enabled() else (second, first)
    while True:
        yield from ways


def in_turn(several: Locator) -> Iterator[Locator]:
    several.first.wait_for()
    while True:
        yield from several.all()


def by_place(several: Locator) -> Iterator[Locator]:
    """As ``in_turn``, of things whose names change with each press."""
    several.first.wait_for()
    while True:
        yield from (several.nth(place) for place in range(several.count()))


@contextmanager
def view(page: Page, stop: str, ready: Locator) -> Iterator[None]:
    page.goto(page.url.rsplit("/", 1)[0] + f"/{stop}")
    ready.first.wait_for()
    page.wait_for_load_state("networkidle")
    yield
    page.wait_for_load_state("networkidle")


def main() -> int:
    found: list[tuple[str, float]] = []
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        page = browser.new_page(viewport=DESK, locale="en-GB")
        page.set_default_timeout(20_000)
        page.goto(ADDRESS)
        sign_in(page)
        page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        page.wait_for_url(re.compile("/clients/[^/]+/"))
        with view(page, "choose", page.get_by_role("group")):
            rungs = page.get_by_role("group", name="Figure-four, left").get_by_role(
                "button", name=re.compile("^left, ")
            )
            found.append(("Choose, a rung", median_ms(page, in_turn(rungs))))
        with view(page, "set-up", page.get_by_role("spinbutton")):
            less, more = (page.get_by_role("button", name=name).first for name in ("lower or less", "higher or more"))
            found.append(("Set up, a stepper", median_ms(page, back_and_forth(less, more))))
            new, cached, known = drawn_ms(page)
            found += [
                ("Set up, from a stepper to a new figure", new), ("Set up, the same from the server's cache", cached),
                ("Set up, the same where it was seen", known),
            ]  # fmt: skip
            for take in page.get_by_role("button", name=re.compile("Take to the mat|Plan this instead")).all():
                if take.is_enabled():
                    take.click()
        page.set_viewport_size(TABLET)
        with view(page, "mat", page.get_by_role("button", name="Begin")):
            page.get_by_role("button", name="Begin").click()
            left = page.get_by_role("region", name="left", exact=True)
            digits = left.get_by_role("button", name=re.compile(r"\d, left$"))
            found.append(("Mat, a digit", median_ms(page, by_place(digits))))
            kinds = left.get_by_role("group", name="kind", exact=True).get_by_role("button")
            found.append(("Mat, a kind", median_ms(page, in_turn(kinds))))
        browser.close()
    for name, ms in found:
        print(f"{name:44} {ms:.0f} ms, median of {PRESSES}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
