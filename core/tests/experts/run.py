"""The engine against what a careful therapist expects: ``python -m tests.experts.run`` from the folder ``core``.

Unsafe: expected to be left out or checked first, and offered. Too quiet: expected under the therapist's eye, and
offered without a word. Over-blocked: expected to be open, and not offered. Leave out against check first counts as
neither and is told apart.
"""

from __future__ import annotations

import datetime as dt
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from asketa_core import ClientFile, Room, Side, parse
from asketa_core.datafiles import read_yaml
from asketa_core.errors import InputError
from asketa_core.records.kind import FOLDER
from asketa_core.screening.lanes import lane_answer
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid

HERE = Path(__file__).parent
EXPECTED = ("leave_out", "check_first", "with_eye", "open")
SHUT = ("leave_out", "check_first")
ROOM = parse(
    Room,
    {
        "props": [
            {"id": "arms", "kind": "chair", "count": 2, "arms": True},
            {"id": "plain", "kind": "chair", "count": 2},
            {"id": "block", "kind": "block", "count": 6},
            {"id": "slim", "kind": "slim_block", "count": 4},
            {"id": "blanket", "kind": "blanket", "count": 8},
            {"id": "bolster", "kind": "bolster", "count": 2},
            {"id": "cushion", "kind": "cushion", "count": 3},
            {"id": "roll", "kind": "towel_roll", "count": 2},
        ]
    },
)


@dataclass(frozen=True, slots=True)
class Row:
    """One expectation. ``expect`` is one of ``EXPECTED``; ``open`` means clear or with a set-up."""

    client: str
    day: dt.date
    rung: str
    side: Side
    expect: str
    why: str


@cache
def tables() -> tuple[dict[str, Any], tuple[Row, ...]]:
    """Everybody described and every row: the common table, and what stands in the folders of kinds of record."""
    people: dict[str, Any] = dict(read_yaml(HERE / "clients.yaml")["clients"])
    found = list(_rows(read_yaml(HERE / "table.yaml")["rows"]))
    for path in sorted(FOLDER.glob("*/expected.yaml")):
        own = read_yaml(path)
        assert not own["clients"].keys() & people.keys(), f"{path}: somebody is described elsewhere already"
        people |= own["clients"]
        found += _rows(own["rows"])
    return people, tuple(found)


def _rows(text: str) -> Iterator[Row]:
    for line in text.splitlines():
        if line.strip() and not line.startswith("#"):
            client, day, rung, side, expect, why = (part.strip() for part in line.split("|", 5))
            assert expect in EXPECTED, line
            yield Row(client, dt.date.fromisoformat(day), rung, Side(side), expect, why)


def rows() -> tuple[Row, ...]:
    return tables()[1]


def client_file(name: str, described: dict[str, Any], defaults: dict[str, Any]) -> ClientFile:
    """One invented person as a client file; ``InputError`` where the file cannot hold a fact."""
    on = defaults["measured_on"]
    raw: dict[str, Any] = {
        "format": "asketa-client",
        "version": 1,
        "client": {"id": name} | ({"birth_date": described["born"]} if "born" in described else {}),
        "body": [
            {"quantity": "stature", "value": described["stature"], "date": on},
            {"quantity": "weight", "value": defaults["weight"], "date": on},
        ],
        "ranges": [
            {
                "quantity": each["quantity"],
                "side": each["side"],
                "value_deg": each["value"],
                "method": "goniometer",
                "date": described.get("ranges_on", on),
            }
            for each in described.get("ranges", ())
        ],
        "entries": described.get("entries", []),
        "daily": described.get("daily", []),
    }
    if "tests" in described:
        raw["tests"] = described["tests"]
    return parse(ClientFile, raw)


@dataclass(frozen=True, slots=True)
class Judged:
    row: Row
    got: str

    @property
    def fault(self) -> str:
        """``unsafe``, ``too_quiet``, ``over_blocked``, ``shade`` (leave out against check first) or empty."""
        if self.got == "unrecordable":
            return "unrecordable"
        if self.row.expect in SHUT:
            if self.got not in SHUT:
                return "unsafe"
            return "" if self.got == self.row.expect else "shade"
        if self.got in SHUT:
            return "over_blocked"
        return "too_quiet" if self.row.expect == "with_eye" and self.got != "with_eye" else ""


def judge_table() -> list[Judged]:
    people, defaults = tables()[0], read_yaml(HERE / "clients.yaml")["defaults"]
    situations: dict[tuple[str, dt.date], Situation | None] = {}
    found = []
    for row in rows():
        key = (row.client, row.day)
        if key not in situations:
            try:
                file = client_file(row.client, people[row.client], defaults)
                situations[key] = Situation.of(file, row.day, ROOM)
            except InputError:
                situations[key] = None
        situation = situations[key]
        if situation is None or not situation.library.knows(row.rung):
            found.append(Judged(row, "unrecordable"))
            continue
        answer = lane_answer(situation, situation.library.variation(row.rung), row.side)
        found.append(Judged(row, answer.verdict.value))
    return found


DEMO_ROOM = parse(
    Room,
    {
        "props": [
            {"id": "mill", "kind": "chair", "count": 2, "seat_height_cm": 45, "arms": True},
            {"id": "stool", "kind": "chair", "count": 1, "seat_height_cm": 50},
            {"id": "block", "kind": "block", "count": 6},
            {"id": "slim", "kind": "slim_block", "count": 2},
            {"id": "blanket", "kind": "blanket", "count": 8},
            {"id": "bolster", "kind": "bolster", "count": 2},
            {"id": "cushion", "kind": "cushion", "count": 3},
            {"id": "plinth", "kind": "plinth", "count": 1, "seat_height_cm": 50},
        ]
    },
)
"""The room of the demo data."""

DAY = dt.date(2026, 6, 10)
SHARES: dict[str, dict[str, Any]] = {
    "healthy typical": {},
    "very stiff": {
        "ranges": [
            {"quantity": quantity, "side": side, "value": value}
            for side in ("left", "right")
            for quantity, value in (
                ("hip_flexion", 95), ("hip_extension", 8), ("hip_adduction", 15), ("hip_internal_rotation", 20),
                ("open_external_rotation", 38), ("open_abduction", 32), ("knee_flexion", 125),
                ("straight_leg_raise", 45), ("planted_dorsiflexion", 24),
            )
        ]
    },
    "hip without facts": {"entries": [{"id": "e", "kind": "hip_replacement", "side": "right", "facts": {}}]},
    "knee without facts": {"entries": [{"id": "e", "kind": "knee_pain", "side": "right", "facts": {}}]},
    "pregnancy without facts": {"entries": [{"id": "e", "kind": "pregnancy", "facts": {}}]},
    "bones without facts": {"entries": [{"id": "e", "kind": "bones", "facts": {}}]},
    "groin pinch without facts": {"entries": [{"id": "e", "kind": "groin_pinch", "side": "right", "facts": {}}]},
    "hamstrings without facts": {"entries": [{"id": "e", "kind": "hamstrings", "side": "right", "facts": {}}]},
    "low back without facts": {"entries": [{"id": "e", "kind": "low_back", "facts": {}}]},
    "wrist without facts": {"entries": [{"id": "e", "kind": "wrist", "side": "right", "facts": {}}]},
    "unreadable record": {"entries": [{"id": "e", "kind": "unreadable"}]},
    "hip week 3, posterior": {"person": "lock_keeper"},
    "hip week 4, anterior": {"person": "net_mender"},
    "2 weeks after birth": {"person": "miller"},
    "groin pinch 85 both sides": {"person": "dyer"},
    "pregnant, week 36, lapsed": {"person": "apothecary"},
}  # fmt: skip
"""Whose share of the library is counted."""


@dataclass(frozen=True, slots=True)
class Share:
    """What one person may do of all lanes: ``reached`` by their ranges, of those ``open`` and ``with_eye``, and which
    gentle rungs are shut."""

    who: str
    lanes: int
    reached: int
    open: int
    with_eye: int
    gentle_shut: tuple[str, ...]

    @property
    def open_percent(self) -> float:
        return 100 * self.open / self.lanes

    @property
    def open_of_reached_percent(self) -> float:
        return 100 * self.open / max(self.reached, 1)

    @property
    def eye_percent(self) -> float:
        return 100 * self.with_eye / max(self.reached, 1)


def share_of(who: str, every: int = 1) -> Share:
    """How much of the library is open to one person. ``every`` above 1 counts a sample: that part of the rungs, and all
    gentle ones."""
    people = read_yaml(HERE / "clients.yaml")
    described = dict(SHARES[who])
    if (person := described.pop("person", None)) is not None:
        described = people["clients"][person]
    file = client_file("share", {"stature": 170, **described}, people["defaults"])
    situation = Situation.of(file, DAY, DEMO_ROOM)
    lanes = reached = opened = eye = 0
    shut = []
    for place, rung in enumerate(situation.library.variations()):
        if place % every and not rung.gentle:
            continue
        for side in (Side.LEFT,) if rung.shared else (Side.LEFT, Side.RIGHT):
            lanes += 1
            found = situation.screen(rung, side)
            if isinstance(found, NoGrid):
                continue
            reached += bool(found.possible.any())
            verdict = found.verdict.value
            opened += verdict not in SHUT
            eye += verdict == "with_eye"
            if rung.gentle and verdict in SHUT:
                shut.append(rung.id)
    return Share(who, lanes, reached, opened, eye, tuple(dict.fromkeys(shut)))


def print_shares() -> None:
    for who in SHARES:
        share = share_of(who)
        print(
            f"{who:28} open {share.open_percent:3.0f} % of {share.lanes}, {share.open_of_reached_percent:3.0f} % of what "
            f"the ranges reach ({share.reached}), {share.eye_percent:3.0f} % with your eye"
            + (f"; gentle but shut: {', '.join(share.gentle_shut)}" if share.gentle_shut else "")
        )


def main() -> None:
    judged = judge_table()
    faults = Counter(each.fault for each in judged)
    for each in judged:
        if each.fault:
            row = each.row
            print(
                f"{each.fault:12} {row.client} {row.day} {row.rung} {row.side}: {each.got}, not {row.expect}: {row.why}"
            )
    print(f"{len(judged)} rows: {dict(faults)}")
    print_shares()


if __name__ == "__main__":
    main()
