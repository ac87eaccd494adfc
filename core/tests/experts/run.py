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
from pathlib import Path
from typing import Any

from asketa_core import ClientFile, Room, Side, parse
from asketa_core.datafiles import read_yaml
from asketa_core.errors import InputError
from asketa_core.screening import Situation, lane_answer

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


def rows() -> Iterator[Row]:
    for line in read_yaml(HERE / "table.yaml")["rows"].splitlines():
        if line.strip() and not line.startswith("#"):
            client, day, rung, side, expect, why = (part.strip() for part in line.split("|", 5))
            assert expect in EXPECTED, line
            yield Row(client, dt.date.fromisoformat(day), rung, Side(side), expect, why)


def client_file(name: str, described: dict[str, Any], defaults: dict[str, Any]) -> ClientFile:
    """One invented person as a client file; ``InputError`` where the file cannot hold a fact."""
    on = defaults["measured_on"]
    raw: dict[str, Any] = {
        "format": "asketa-client",
        "version": 1,
        "client": {"id": name},
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
    people = read_yaml(HERE / "clients.yaml")
    situations: dict[tuple[str, dt.date], Situation | None] = {}
    found = []
    for row in rows():
        key = (row.client, row.day)
        if key not in situations:
            try:
                file = client_file(row.client, people["clients"][row.client], people["defaults"])
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


if __name__ == "__main__":
    main()
