"""Bodies, ranges, rules and rooms of every kind, by chance."""

from __future__ import annotations

import random
from dataclasses import replace

from asketa_core import SIDES, Quantity, Room, Side, Situation, parse
from asketa_core.body.measures import Body, Pregnancy, body_norms
from asketa_core.body.ranges import PLAUSIBLE_DEG, GroinPinch, Range, Ranges
from asketa_core.limits.model import Limit, Row, Severity, Term, TermRow
from asketa_core.poses.posture import Trouble
from asketa_core.records.catalogue import all_rows
from tests.strategies import ROOM

SEEN_SOMETIMES = (
    Trouble.KNEE_TWIST, Trouble.HIP_USE, Trouble.HIP_RANGE, Trouble.HIP_EXTENSION, Trouble.KNEE_RANGE,
    Trouble.ANKLE_RANGE, Trouble.BACK_ROUNDS, Trouble.BACK_HOLLOWS, Trouble.SHIN_STEEP,
)  # fmt: skip
BARE_ROOM = parse(
    Room, {"props": [{"id": "c", "kind": "chair", "count": 1}, {"id": "b", "kind": "blanket", "count": 3}]}
)


def any_situation(chance: random.Random) -> Situation:
    """Some body with some ranges under half of all rules there are, in some room."""
    return replace(
        Situation.of_nobody(), body=any_body(chance), ranges=any_ranges(chance), limits=any_rules(chance),
        room=chance.choice((ROOM, BARE_ROOM, Situation.of_nobody().room)), memo={},
    )  # fmt: skip


def any_body(chance: random.Random) -> Body:
    stature = chance.uniform(140, 205)
    base = Body(stature, 70)
    taped = [name for name in body_norms().segments if chance.random() < 0.2]
    measured = {name: base.length_cm(name) * chance.uniform(0.92, 1.08) for name in taped}
    week = chance.randint(4, 41)
    expecting = Pregnancy(week, chance.random() < 0.2) if chance.random() < 0.4 else None
    return Body(stature, chance.uniform(45, 120), measured, expecting)


def any_ranges(chance: random.Random) -> Ranges:
    measured = {
        (quantity, side): Range(chance.uniform(*PLAUSIBLE_DEG[quantity]), chance.choice((3.0, 5.0, 10.0)), True)
        for quantity in Quantity
        for side in SIDES
        if chance.random() < 0.5
    }
    pinching = {
        side: GroinPinch.measured(chance.uniform(60, 115), chance.choice((None, chance.uniform(60, 120))))
        for side in SIDES
        if chance.random() < 0.3
    }
    coupling = {side: chance.uniform(0.3, 0.8) for side in SIDES if chance.random() < 0.3}
    seen = frozenset((trouble.value, side) for trouble in SEEN_SOMETIMES for side in SIDES if chance.random() < 0.1)
    return Ranges.from_measured(measured, coupling, pinching, {}, seen)


def any_rules(chance: random.Random) -> tuple[Limit, ...]:
    """Every other rule there is, on some side, whatever a record would say."""
    return tuple(
        limit_of(row, side, chance) for _, row in all_rows() if chance.random() < 0.5 for side in sides_of(row, chance)
    )


def sides_of(row: Row, chance: random.Random) -> tuple[Side | None, ...]:
    if row.side == "none":
        return (None,)
    return SIDES if row.side == "both" else (chance.choice(SIDES),)


def limit_of(row: Row, side: Side | None, chance: random.Random) -> Limit:
    return Limit(
        row.code, "entry", "hip_replacement", side, Severity[row.severity.upper()],
        tuple(term_of(term, chance) for term in row.terms), row.phases, row.exact, row.ends, row.everything,
        row.spares_gentle,
    )  # fmt: skip


def term_of(term: TermRow, chance: random.Random) -> Term:
    above = chance.uniform(20, 110) if term.above is not None and not isinstance(term.above, float) else term.above
    assert above is None or isinstance(above, float)
    return Term(term.readout, term.flag, above, term.below, term.neutral)
