"""What no body does: beyond these, at the middle of a client's ranges, a set-up is not this shape for this body. What only
the worst end of the ranges passes is a caution.
"""

from __future__ import annotations

from typing import Any

from asketa_core.kernel.codes import (
    Base,
    Bound,
    LegIs,
    Level,
    Mark,
    Met,
    Motion,
    Read,
    Who,
)
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.records import Record
from asketa_core.kernel.trunk import TRUNK_MEETS_THIGH_DEG

SEAT_TOO_HIGH_DEG = 25.0
"""Both thighs sloping down more than this slide off the seat (judgement)."""

SPINE_FLEXION_MOST_DEG = 40.0
LONG_FOLD_FLEXION_MOST_DEG = 50.0
"""A loaded back rounds no further than this; in long quiet folds some schools let it (judgement)."""

SPINE_EXTENSION_MOST_DEG = 20.0
"""A loaded back hollows no further than this (judgement)."""

KNEE_TWIST_MOST_DEG = 20.0
SHIN_STEEPEST_DEG = 35.0
ANKLE_SPARE_DEG = 2.0
"""So little beyond what an ankle bends refuses nobody a stand (judgement)."""

HIP_USE_MOST_PERCENT = 110.0

KNEE_RANGE_SLACK_DEG = 5.0
HIP_EXTENSION_SLACK_DEG = 5.0
HIP_RANGE_SLACK_DEG = 10.0
"""How far beyond the middle of a range a shape may ask before it is not offered; ranges are known to about this."""

REACH_TOLERANCE_CM = 0.5

RESTS_WITHIN_CM = 2.0
"""What lies on a support touches it within so much: the rest is pressed or pushed into place (judgement)."""

BASE_MISSES = 0.5

WHOLE_BODY = Who.LEFT.value
"""The side under which bounds of the whole body stand."""

AIM_TOLERANCE = 1e-6


@compiled
def bound(
    posture: Record,
    seen: Any,
    which: int,
    side: int,
    low: float,
    middle: float,
    high: float,
    spread: bool,
    beyond: float,
) -> None:
    """Hold an amount at the three ends of the ranges against a bound. ``spread``: it depends on them at all, so that its
    worst end may be told from its middle. What was seen otherwise on this body is only to be minded."""
    if middle > beyond and not seen[which, side]:
        posture.met[which, side] = Met.NO
        posture.amount[which, side] = middle
    elif spread and max(low, middle, high) > beyond and posture.met[which, side] == Met.YES:
        posture.met[which, side] = Met.PERHAPS


@compiled
def bound_read(posture: Record, seen: Any, which: int, side: int, read: int, spread: bool, most: float) -> None:
    """Hold a read-out of a side against the most there may be of it."""
    levels = posture.read[read, side]
    low, middle, high = levels[0] - most, levels[1] - most, levels[2] - most
    bound(posture, seen, which, side, low, middle, high, spread, 0.0)


@compiled
def above_range(
    posture: Record, seen: Any, rom: Any, which: int, side: int, read: int, motion: int, slack: float
) -> None:
    """Hold a read-out of a side against the client's own range, each end against its own, and a slack."""
    levels, ranges = posture.read[read, side], rom[side, motion]
    low, middle, high = levels[0] - ranges[0], levels[1] - ranges[1], levels[2] - ranges[2]
    bound(posture, seen, which, side, low, middle, high, True, slack)


@compiled
def bound_levels(posture: Record, seen: Any, which: int, levels: Any) -> None:
    """Hold what the base itself misses at the three ends of the ranges."""
    bound(posture, seen, which, WHOLE_BODY, levels[0], levels[1], levels[2], True, BASE_MISSES)


@compiled
def bound_base(posture: Record, seen: Any) -> None:
    """Balance over the feet, and hips no leg reaches from there."""
    bound_levels(posture, seen, Bound.BALANCE.value, posture.unbalanced)
    bound_levels(posture, seen, Bound.REACH.value, posture.out_of_reach)


@compiled
def bound_leg(posture: Record, seen: Any, rom: Any, programme: Record, side: int, legs: Any) -> None:
    """What one leg cannot meet; ``legs`` is the leg at the three ends of the ranges. A knee that slides actively and
    unloaded is meant to gain bend: it has no end."""
    rule = programme.leg[side]
    low, middle, high = legs[0], legs[1], legs[2]
    spread = leg_varies(programme, side)
    bound(
        posture, seen, Bound.REACH.value, side, low.reach_short, middle.reach_short, high.reach_short, spread,
        REACH_TOLERANCE_CM,
    )  # fmt: skip
    bound(posture, seen, Bound.FOLD.value, side, low.fold_short, middle.fold_short, high.fold_short, spread, 0.0)
    # What touches a support is pushed there at whatever level.
    bound(posture, seen, Bound.IDLE_SUPPORT.value, side, middle.idle, middle.idle, middle.idle, False, RESTS_WITHIN_CM)
    if rule.rolled:
        bound(
            posture, seen, Bound.ROLL_IN_KNEE.value, side, low.roll_in_way, middle.roll_in_way, high.roll_in_way, spread,
            KNEE_RANGE_SLACK_DEG,
        )  # fmt: skip
    if not slides_actively(programme, posture, side):
        above_range(
            posture, seen, rom, Bound.KNEE_RANGE.value, side, Read.KNEE_FLEXION.value, Motion.KNEE_FLEXION.value,
            KNEE_RANGE_SLACK_DEG,
        )  # fmt: skip
    bound(
        posture, seen, Bound.HIP_RANGE.value, side, low.beyond_range, middle.beyond_range, high.beyond_range, True,
        HIP_RANGE_SLACK_DEG,
    )  # fmt: skip
    use = Read.HIP_USE_PERCENT.value
    bound_read(posture, seen, Bound.HIP_USE.value, side, use, True, HIP_USE_MOST_PERCENT)
    above_range(
        posture, seen, rom, Bound.HIP_EXTENSION.value, side, Read.HIP_EXTENSION.value, Motion.HIP_EXTENSION.value,
        HIP_EXTENSION_SLACK_DEG,
    )  # fmt: skip
    bound_read(posture, seen, Bound.KNEE_TWIST.value, side, Read.KNEE_TWIST.value, True, KNEE_TWIST_MOST_DEG)
    if programme.check_seat_height and posture.there[Read.THIGH_DOWN, side]:
        either = spread or leg_varies(programme, 1 - side)
        bound_read(posture, seen, Bound.SEAT_TOO_HIGH.value, side, Read.THIGH_DOWN.value, either, SEAT_TOO_HIGH_DEG)
    bound(
        posture, seen, Bound.UNDETERMINED.value, side, float(low.near_singular), float(middle.near_singular),
        float(high.near_singular), spread, 0.5,
    )  # fmt: skip
    if posture.there[Read.DORSIFLEXION, side]:
        above_range(
            posture, seen, rom, Bound.ANKLE_RANGE.value, side, Read.DORSIFLEXION.value,
            Motion.PLANTED_DORSIFLEXION.value, ANKLE_SPARE_DEG,
        )  # fmt: skip


@compiled
def leg_varies(programme: Record, side: int) -> bool:
    """Whether where a leg is depends on the client's ranges."""
    rule = programme.leg[side].rule
    let_out = rule == LegIs.DROPPED or rule == LegIs.DROPPED_OVER_THIGH
    return let_out or programme.stands_by == Base.STAND_LEANING


@compiled
def slides_actively(programme: Record, posture: Record, side: int) -> bool:
    return programme.bounds_slide != 0 and not posture.marks[Mark.HELD_OR_LOADED, side]


@compiled
def bound_back(posture: Record, seen: Any, programme: Record) -> None:
    """A loaded back rounds and hollows only so far, and the trunk does not pass into a thigh."""
    low, middle, high = posture.flexion[0], posture.flexion[1], posture.flexion[2]
    most = LONG_FOLD_FLEXION_MOST_DEG if programme.long_fold else SPINE_FLEXION_MOST_DEG
    for side in range(2):
        if not programme.lying:
            bound(posture, seen, Bound.BACK_ROUNDS.value, side, low - most, middle - most, high - most, True, 0.0)
            most_hollow = SPINE_EXTENSION_MOST_DEG
            bound(
                posture, seen, Bound.BACK_HOLLOWS.value, side, -low - most_hollow, -middle - most_hollow,
                -high - most_hollow, True, 0.0,
            )  # fmt: skip
        bound_read(posture, seen, Bound.TRUNK_ON_THIGH.value, side, Read.TRUNK_THIGH.value, True, TRUNK_MEETS_THIGH_DEG)


@compiled
def bound_rest(posture: Record, seen: Any, which: int, misses_cm: float) -> None:
    """What is carried comes to lie on its support: pushed there at whatever level, so the middle alone counts."""
    bound(posture, seen, which, WHOLE_BODY, misses_cm, misses_cm, misses_cm, False, RESTS_WITHIN_CM)


@compiled
def bound_shin(posture: Record, seen: Any, worked: int) -> None:
    """A shin that the rung promises near level."""
    levels = posture.read[Read.SHIN_SLOPE, worked]
    bound(
        posture, seen, Bound.SHIN_STEEP.value, worked, abs(levels[0]) - SHIN_STEEPEST_DEG,
        abs(levels[1]) - SHIN_STEEPEST_DEG, abs(levels[2]) - SHIN_STEEPEST_DEG, True, 0.0,
    )  # fmt: skip


@compiled
def bound_aims(posture: Record, programme: Record) -> None:
    """What misses the rung's own aims is another shape."""
    for at in range(programme.aims):
        aim = programme.aim[at]
        for side in range(2):
            wanted = aim.worked if side == programme.worked else aim.other
            who = side if posture.there[aim.read, side] else Who.WHOLE.value
            if not wanted or not posture.there[aim.read, who]:
                continue
            middle = posture.read[aim.read, who, Level.MIDDLE]
            if middle < aim.at_least - AIM_TOLERANCE or middle > aim.at_most + AIM_TOLERANCE:
                posture.met[Bound.AIM, side] = Met.NO
                missing = max(aim.at_least - middle, middle - aim.at_most, 0.0)
                posture.amount[Bound.AIM, side] = posture.amount[Bound.AIM, side] + missing


@compiled
def kneels(posture: Record, side: int) -> bool:
    return posture.marks[Mark.KNEELING, side] != 0
