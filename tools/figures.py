"""Contact sheets of every variation as SVG and PNG: ``./asketa figures OUT [stature_cm]``."""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

from asketa_core.figure.sheets import contact_sheets
from asketa_core.screening.situation import TYPICAL_STATURE_CM, Situation


def main(arguments: list[str]) -> int:
    if not arguments:
        print("Say where to: ./asketa figures OUT", file=sys.stderr)
        return 2
    out = Path(arguments[0])
    out.mkdir(parents=True, exist_ok=True)
    stature = float(arguments[1]) if len(arguments) > 1 else TYPICAL_STATURE_CM
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        page = browser.new_page(viewport={"width": 1380, "height": 1040})
        for number, sheet in enumerate(contact_sheets(Situation.of_nobody(stature)), start=1):
            svg = out / f"figures-{number}.svg"
            svg.write_text(sheet, encoding="utf-8")
            page.goto(svg.resolve().as_uri())
            page.screenshot(path=out / f"figures-{number}.png")
            print(f"· {svg} and .png")
        browser.close()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
