"""Responses over time: per family and side, and as a file of comma-separated values."""

from __future__ import annotations

import csv
import io

from asketa_core import (
    SIDES,
    Family,
    Side,
    SlotValue,
    Variation,
    judge_responses,
    say,
    why_words,
)
from engine.adapter import logged_items
from engine.answers import Today
from visits.choosing import decision_out
from visits.holds import hold_fields, setup_used
from visits.models import LoggedItem
from visits.schemas import ResponseFamily, ResponseLane, ResponsePoint, RungName

CSV_COLUMNS = (
    "date", "side", "family", "variation", "setup", "seat_cm", "support_cm", "dose_s", "before", "during", "after",
    "kind", "place", "signs", "settled_next_morning", "tolerance", "note",
)  # fmt: skip


def responses(today: Today) -> list[ResponseFamily]:
    """Every family that was worked on, oldest hold first on each side."""
    points = _points(today)
    return [
        ResponseFamily(
            family=family.family,
            name=family.name.en,
            rungs=[RungName(id=rung.id, name=rung.name.en, short=rung.short) for rung in _rungs(today, family)],
            allowed=today.file.settings.discomfort_allowed,
            **{side.value: _lane(today, family, side, points.get((family.family, side), [])) for side in SIDES},
        )
        for family in today.library.families.values()
        if any((family.family, side) in points for side in SIDES)
    ]


def _lane(today: Today, family: Family, side: Side, points: list[ResponsePoint]) -> ResponseLane:
    decision = today.decision(family.family, side)
    return ResponseLane(
        side=side,
        decision=decision_out(today.library, decision),
        change=say("would_change", decision.code) if points else "",
        points=points,
    )


def _rungs(today: Today, family: Family) -> list[Variation]:
    """A ladder with its retired rungs at the end: holds of the past may have been made on one."""
    return [*family.variations, *(rung for rung in today.library.retired.values() if rung.family == family.family)]


def _points(today: Today) -> dict[tuple[str, Side], list[ResponsePoint]]:
    judged = judge_responses(today.file, today.now)
    found: dict[tuple[str, Side], list[ResponsePoint]] = {}
    for item in logged_items(today.client):
        rung = today.library.variation(item.variation)
        family = today.library.families[rung.family]
        outcome = judged[str(item.pk)]
        seat, support = _heights(item, rung.recipe.seat_slot or "")
        found.setdefault((rung.family, Side(item.side)), []).append(
            ResponsePoint(
                rung=[each.id for each in _rungs(today, family)].index(rung.id),
                seat_cm=seat,
                support_cm=support,
                why=why_words(outcome),
                **hold_fields(rung, item, outcome.tolerance.value),
            )
        )
    return found


def _heights(item: LoggedItem, seat_slot: str) -> tuple[float | None, float | None]:
    """Height of the seat, and of whatever else the body was held up by most."""
    slots = setup_used(item)
    seat = slots.pop(seat_slot, SlotValue()).number
    others = [value.number for value in slots.values() if value.stack is not None and value.number is not None]
    return seat, max(others, default=None)


def responses_csv(today: Today) -> str:
    """The same as comma-separated values, one hold a row. Free text that a spreadsheet would take for a
    formula is disarmed."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(CSV_COLUMNS)
    rows = [
        (point, side, family)
        for family in responses(today)
        for side, lane in ((Side.LEFT, family.left), (Side.RIGHT, family.right))
        for point in lane.points
    ]
    for point, side, family in sorted(rows, key=lambda row: (row[0].date, row[1].value)):
        settled = {None: "", True: "yes", False: "no"}[point.settled]
        writer.writerow(
            [
                point.date.isoformat(), side.value, family.family, point.variation, point.setup_words, point.seat_cm or "",
                point.support_cm or "", point.dose_s, point.before, point.during, point.after, point.kind, point.place,
                " ".join(point.signs), settled, point.tolerance, _disarmed(point.note),
            ]
        )  # fmt: skip
    return out.getvalue()


def _disarmed(text: str) -> str:
    return f"'{text}" if text.startswith(("=", "+", "-", "@", "\t", "\r")) else text
