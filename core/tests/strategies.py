"""Generators shared by the core's tests: people, rooms and clients as a therapist may meet them."""

from __future__ import annotations

import datetime as dt
from typing import Any

from hypothesis import strategies as st

from asketa_core import ClientFile, Room, parse

TODAY = dt.date(2026, 6, 10)

ROOM = parse(
    Room,
    {
        "props": [
            {"id": "chair45", "kind": "chair", "count": 2, "arms": True},
            {"id": "chair50", "kind": "chair", "count": 1, "seat_height_cm": 50},
            {"id": "block", "kind": "block", "count": 4},
            {"id": "slim", "kind": "slim_block", "count": 2},
            {"id": "blanket", "kind": "blanket", "count": 6},
            {"id": "bolster", "kind": "bolster", "count": 2},
            {"id": "cushion", "kind": "cushion", "count": 1},
            {"id": "roll", "kind": "towel_roll", "count": 2},
        ]
    },
)

statures = st.floats(150, 200)
sides = st.sampled_from(["left", "right"])
turning_out = st.floats(25, 95)


def client(
    entries: list[dict[str, Any]] | None = None,
    stature: float = 172,
    ranges: dict[tuple[str, str], float] | None = None,
    **more: Any,
) -> ClientFile:
    """A client file with the given records, ranges by (quantity, side), and nothing else."""
    return parse(
        ClientFile,
        {
            "format": "asketa-client",
            "version": 1,
            "client": {"id": "c"},
            "body": [{"quantity": "stature", "value": stature, "date": TODAY}],
            "ranges": [
                {"quantity": quantity, "side": side, "value_deg": value, "method": "goniometer", "date": TODAY}
                for (quantity, side), value in (ranges or {}).items()
            ],
            "entries": entries or [],
            **more,
        },
    )


def hip(side: str = "right", days_ago: int = 63, entry_id: str = "hip", **facts: Any) -> dict[str, Any]:
    """A hip replacement with every fact known unless changed."""
    known = {
        "date": TODAY - dt.timedelta(days=days_ago),
        "approach": "posterior",
        "prosthesis": "total",
        "dislocated": "no",
        "abductor_repair": "no",
        "weight_bearing": "full",
        "trouble_since": "no",
    }
    clearances = facts.pop("clearances", [])
    return {
        "id": entry_id,
        "kind": "hip_replacement",
        "side": side,
        "facts": {**known, **facts},
        "clearances": clearances,
    }


def knee(side: str = "left", diagnosis: str = "kneecap", entry_id: str = "knee", **facts: Any) -> dict[str, Any]:
    known = {"site": "front", "diagnosis": diagnosis, "operated": "no", "swelling": "no", "locks_or_gives_way": "no"}
    return {"id": entry_id, "kind": "knee_pain", "side": side, "facts": {**known, **facts}}


def pregnancy(week: int = 22, entry_id: str = "pregnancy", **facts: Any) -> dict[str, Any]:
    """A pregnancy at a completed week with a clean tick list and every fact known unless changed."""
    known = {
        "due_date": TODAY + dt.timedelta(days=280 - 7 * week),
        "babies": "one",
        "ticks": ["none"],
        "girdle_pain": "no",
        "unwell_lying_flat": "no",
        "blood_pressure_high": "no",
    }
    clearances = facts.pop("clearances", [])
    return {"id": entry_id, "kind": "pregnancy", "facts": {**known, **facts}, "clearances": clearances}


def bones(t_score: float | None = -2.7, entry_id: str = "bones", **facts: Any) -> dict[str, Any]:
    """Thin bones with every fact known unless changed."""
    known: dict[str, Any] = {
        "t_score": t_score,
        "fractures": [],
        "steroids": "no",
        "fell_last_year": "no",
        "one_leg_stand_s": 20,
    }
    clearances = facts.pop("clearances", [])
    return {"id": entry_id, "kind": "bones", "facts": {**known, **facts}, "clearances": clearances}


def groin(side: str = "right", entry_id: str = "groin", **facts: Any) -> dict[str, Any]:
    """A groin that pinches, both angles known unless changed."""
    known = {"straight_deg": 95, "turned_out_deg": 110}
    return {"id": entry_id, "kind": "groin_pinch", "side": side, "facts": {**known, **facts}}


def hamstrings(side: str = "left", entry_id: str = "hamstrings", **facts: Any) -> dict[str, Any]:
    known = {"low_back": "fine", "leg_tingling": "no"}
    return {"id": entry_id, "kind": "hamstrings", "side": side, "facts": {**known, **facts}}


def pain(score: int, entry_id: str = "knee", irritable: str = "no", days_ago: int = 0) -> dict[str, Any]:
    return {
        "entry_id": entry_id,
        "date": TODAY - dt.timedelta(days=days_ago),
        "pain_today": score,
        "irritable": irritable,
    }


def numbers(**values: float) -> dict[str, float]:
    """One set-up with these numbers; supports that are not named are the bare floor."""
    return {name: float(value) for name, value in values.items()}
