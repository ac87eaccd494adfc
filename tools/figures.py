"""Contact sheets of every variation as SVG and PNG: ``./asketa figures OUT [--stature CM | --client FILE] [--light …]``."""

from __future__ import annotations

import argparse
import datetime as dt
import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

from asketa_core.clientfile import ClientFile
from asketa_core.datafiles import load
from asketa_core.figure.palette import Light
from asketa_core.figure.sheets import contact_sheets
from asketa_core.props.kinds import generic_room
from asketa_core.screening.situation import TYPICAL_STATURE_CM, Situation
from asketa_core.units import Side


def main(arguments: list[str]) -> int:
    parser = argparse.ArgumentParser(prog="./asketa figures", description=__doc__)
    parser.add_argument("out", type=Path, help="folder to write into")
    whose = parser.add_mutually_exclusive_group()
    whose.add_argument("--stature", type=float, default=TYPICAL_STATURE_CM, metavar="CM", help="of a typical body")
    whose.add_argument("--client", type=Path, metavar="FILE", help="a client's file instead of a typical body")
    parser.add_argument("--date", type=dt.date.fromisoformat, help="the day the client is drawn on")
    parser.add_argument("--side", type=Side, choices=list(Side), default=Side.LEFT)
    parser.add_argument("--light", type=Light, choices=list(Light), default=Light.DAY)
    parser.add_argument("--small", action="store_true", help="as ladders show them")
    options = parser.parse_args(arguments)
    if options.client is not None and options.date is None:
        parser.error("a client is drawn on a day: add --date")
    options.out.mkdir(parents=True, exist_ok=True)
    situation = _situation(options)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        page = browser.new_page(viewport={"width": 1380, "height": 1040})
        sheets = contact_sheets(situation, options.side, options.light, options.small)
        for number, sheet in enumerate(sheets, start=1):
            svg = options.out / f"figures-{number}.svg"
            svg.write_text(sheet, encoding="utf-8")
            page.goto(svg.resolve().as_uri())
            page.screenshot(path=options.out / f"figures-{number}.png")
            print(f"· {svg} and .png")
        browser.close()
    return 0


def _situation(options: argparse.Namespace) -> Situation:
    if options.client is None:
        return Situation.of_nobody(options.stature)
    return Situation.of(load(options.client, ClientFile), options.date, generic_room())


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
