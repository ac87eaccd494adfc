"""Responses over time: per family and side, and as a file of comma-separated values."""

from __future__ import annotations

import csv
import io
from typing import Any

from asketa_core import (
    SIDES,
    Family,
    Side,
    SlotValue,
    Variation,
    furthest_words,
    say,
    slope_words,
    support_of,
    trend_of,
    why_words,
)
from engine.adapter import logged_items
from engine.answers import Today
from visits.choosing import decision_out
from visits.holds import hold_fields, setup_used
from visits.models import LoggedItem
from visits.schemas import ResponseFamily, ResponseLane, ResponsePoint, RungName, TrendOut
from visits.trials import trials_of

CSV_COLUMNS = (
    "date", "side", "family", "variation", "setup", "seat_cm", "support_cm", "dose_s", "held_s", "before", "during", "after",
    "kind", "place", "signs", "settled_next_morning", "tolerance", "note",
)  # fmt: skip


FORMULA_SIGNS = ("=", "+", "-", "@", "\uff1d", "\uff0b", "\uff0d", "\uff20")
"""What a spreadsheet takes for the start of a formula, full-width forms included."""


def responses(today: Today, most: int | None = None) -> list[ResponseFamily]:
    """Every family that was worked on, oldest hold first on each side; of each side the ``most`` latest holds."""
    points, earlier = _points(today, most)
    tried = {trial.family for trial in today.file.trials}
    return [
        ResponseFamily(
            family=family.family,
            name=family.name,
            shared=family.shared,
            rungs=[RungName(id=rung.id, name=rung.name, short=rung.short) for rung in _rungs(today, family)],
            allowed=today.file.settings.discomfort_allowed,
            **{
                side.value: _lane(today, family, side, points.get((family.family, side), []), earlier) for side in SIDES
            },
        )
        for family in today.library.families.values()
        if any((family.family, side) in points for side in SIDES) or family.family in tried
    ]


def _lane(
    today: Today, family: Family, side: Side, points: list[ResponsePoint], earlier: set[tuple[str, Side]]
) -> ResponseLane:
    decision = today.decision(family.family, side)
    return ResponseLane(
        side=side,
        decision=decision_out(today.library, decision),
        change=say("would_change", decision.code) if points else "",
        points=points,
        earlier=(family.family, side) in earlier,
        trials=trials_of(today, family.family, side),
        trend=_trend(today, family, side),
    )


def _trend(today: Today, family: Family, side: Side) -> TrendOut:
    trend = trend_of(today.judged_on(family.family, side), today.library, today.file.trials)
    return TrendOut(
        sessions=trend.sessions,
        calm_in_a_row=trend.calm_in_a_row,
        flares=trend.flares,
        furthest=furthest_words(trend, today.library),
        slope=slope_words(trend),
    )


def _rungs(today: Today, family: Family) -> list[Variation]:
    """A ladder with its retired rungs at the end: holds of the past may have been made on one."""
    return [*family.variations, *(rung for rung in today.library.retired.values() if rung.family == family.family)]


Lane = tuple[str, Side]


def _points(today: Today, most: int | None) -> tuple[dict[Lane, list[ResponsePoint]], set[Lane]]:
    """The holds of every ladder and side, and the lanes that have more than are shown."""
    judged = today.judged
    by_lane: dict[Lane, list[LoggedItem]] = {}
    for item in logged_items(today.client):
        if str(item.pk) in judged:
            by_lane.setdefault((today.library.variation(item.variation).family, Side(item.side)), []).append(item)
    found: dict[Lane, list[ResponsePoint]] = {}
    for (name, side), items in by_lane.items():
        places = {rung.id: place for place, rung in enumerate(_rungs(today, today.library.families[name]))}
        for item in items if most is None else items[-most:]:
            rung = today.library.variation(item.variation)
            outcome = judged[str(item.pk)]
            found.setdefault((name, side), []).append(
                ResponsePoint(
                    rung=places[rung.id],
                    **_heights(item, rung),
                    why=why_words(outcome),
                    **hold_fields(rung, item, outcome.tolerance.value),
                )
            )
    return found, {lane for lane, items in by_lane.items() if most is not None and len(items) > most}


def _heights(item: LoggedItem, rung: Variation) -> dict[str, Any]:
    """The fields of ``schemas.ResponsePoint`` that say how high the body was held up and by what."""
    setup = setup_used(item)
    support = support_of(rung, setup)
    return {
        "seat_cm": setup.get(rung.recipe.seat_slot or "", SlotValue()).number,
        "support_cm": support.height_cm if support is not None else None,
        "support": support.label if support is not None else "",
        "less_support": support.less if support is not None else None,
    }


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
        open_morning = "not answered" if point.asked else ""
        settled = {None: open_morning, True: "yes", False: "no"}[point.settled]
        writer.writerow(
            [
                point.date.isoformat(), side.value, family.family, point.variation, point.setup_words, point.seat_cm or "",
                point.support_cm or "", point.dose_s, _blank(point.held_s), _blank(point.before), point.during,
                _blank(point.after), point.kind or "", point.place or "",
                "" if point.signs is None else " ".join(point.signs) or "none seen", settled, point.tolerance, _disarmed(point.note),
            ]
        )  # fmt: skip
    return out.getvalue()


def _blank(value: int | None) -> int | str:
    """What nobody said stays an empty cell."""
    return "" if value is None else value


def _disarmed(text: str) -> str:
    return f"'{text}" if text.lstrip().startswith(FORMULA_SIGNS) or text.startswith(("\t", "\r", "\n")) else text
