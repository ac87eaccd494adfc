"""The set-ups offered to invented people, to be read as a senior therapist would: ``python -m tests.builds.page`` from
the folder ``core`` prints them as text, with ``--html`` as one page with pictures.

The text is kept in ``approved.txt`` and compared by a test, so that a change of set-ups is seen where it is reviewed.
``--approve`` writes it anew.
"""

from __future__ import annotations

import datetime as dt
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from html import escape
from pathlib import Path
from typing import Any

from asketa_core import Room, Side, parse
from asketa_core.datafiles import read_yaml
from asketa_core.figure.figure import figure, lane_view
from asketa_core.figure.palette import Light
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Readout
from asketa_core.screening.detail import SetupDetail, detail_at, no_stack_words
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Screened
from tests.experts.run import client_file
from tests.speech import english

HERE = Path(__file__).parent
APPROVED = HERE / "approved.txt"
READINGS = (
    (Readout.SPINE_FLEXION, "rounding", "°"),
    (Readout.HIP_ABOVE_KNEE_CM, "hips above knees", " cm"),
    (Readout.KNEE_FLEXION, "knee", "°"),
    (Readout.KNEE_TWIST, "knee twist", "°"),
)


@cache
def described() -> dict[str, Any]:
    found: dict[str, Any] = read_yaml(HERE / "people.yaml")
    return found


def room(name: str) -> Room:
    return parse(Room, {"props": described()["rooms"][name]})


def situation(person: str, where: str = "stocked") -> Situation:
    """One invented person in one of the rooms, on the day the page is made for."""
    file = client_file(person, described()["people"][person], described()["defaults"])
    return Situation.of(file, dt.date.fromisoformat(str(described()["day"])), room(where))


@dataclass(frozen=True, slots=True)
class Offer:
    """What is recommended to one person for one rung and side; ``found`` and ``detail`` are ``None`` where the room has
    nothing for it."""

    person: str
    rung: Variation
    side: Side
    at: Situation
    found: Screened | None
    detail: SetupDetail | None
    why: str = ""

    @property
    def text(self) -> str:
        """The offer in two lines: what is built, and what it asks."""
        head = f"{self.person} · {self.rung.id}" + ("" if self.rung.shared else f" · {self.side}")
        if self.detail is None or self.found is None:
            return f"{head}: {self.why}"
        detail = self.detail
        if not detail.allowed:
            return f"{head}: {detail.verdict}: {'; '.join(map(english, detail.closing))}"
        kept = detail.purpose_percent
        numbers = [f"{label} {word}" for label, word in _numbers(self.found, detail)]
        built = detail.whole_line if self.rung.shared else detail.line
        lines = [f"{head}: {detail.verdict}: {english(built) or 'nothing'}"]
        lines.append("    fetch " + (", ".join(map(english, detail.fetch)) or "nothing"))
        asks = [*numbers, *readings(self.found, detail.index, self.side)]
        lines.append(f"    {'; '.join(asks)}; purpose {kept:.0f} %" if kept is not None else f"    {'; '.join(asks)}")
        lines += [f"    mind: {english(reason)}" for reason in detail.reasons]
        return "\n".join(lines)


def _numbers(found: Screened, detail: SetupDetail) -> Iterator[tuple[str, str]]:
    for name, value in detail.setup.items():
        if value.stack is None:
            yield english(found.variation.label_of(name)).lower(), english(detail.words[name])


def readings(found: Screened, row: int, side: Side) -> Iterator[str]:
    """A few read-outs of the pose in words."""
    for readout, name, unit in READINGS:
        key = found.key(readout, side)
        if key is not None:
            yield f"{name} {found.pose_at(row).middle(*key):.0f}{unit}"


def offers() -> Iterator[Offer]:
    for person in described()["page"]["people"]:
        at = situation(person)
        for rung_id in described()["page"]["rungs"]:
            rung = at.library.variation(rung_id)
            for side in (Side.LEFT,) if rung.shared else (Side.LEFT, Side.RIGHT):
                yield offer(at, person, rung, side)


def offer(at: Situation, person: str, rung: Variation, side: Side) -> Offer:
    found = at.screen(rung, side)
    if isinstance(found, NoGrid):
        return Offer(person, rung, side, at, None, None, english(no_stack_words(found)))
    return Offer(person, rung, side, at, found, detail_at(at, found, found.recommended))


def as_text() -> str:
    return "\n".join(each.text for each in offers()) + "\n"


def as_html() -> str:
    people = described()["people"]
    parts = ["<!doctype html><meta charset=utf-8><title>Set-ups</title><style>", STYLE, "</style>"]
    shown = None
    for each in offers():
        if each.person != shown:
            shown = each.person
            parts.append(f"<h2>{escape(shown)}: {escape(people[shown]['about'])}</h2>")
        picture = ""
        if each.found is not None and each.detail is not None:
            view = lane_view(each.rung, each.side)
            picture = figure(
                each.found, each.at.body, each.at.room, each.detail.index, view, english, True, None, Light.PRINT
            )
        parts.append(f"<figure><div>{picture}</div><pre>{escape(each.text)}</pre></figure>")
    return "".join(parts)


STYLE = (
    "body{font:13px sans-serif} figure{display:inline-block;width:380px;vertical-align:top;margin:6px;border:1px solid #ccc}"
    " svg{width:360px;height:230px} pre{white-space:pre-wrap;font:12px sans-serif;margin:6px}"
)


def main() -> None:
    if "--html" in sys.argv:
        print(as_html())
    elif "--approve" in sys.argv:
        APPROVED.write_text(as_text(), encoding="utf-8")
    else:
        print(as_text(), end="")


if __name__ == "__main__":
    main()
