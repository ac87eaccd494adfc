"""Settling a posture: from a recipe, a body, its ranges and one set-up to every read-out.

Surfaces carry what rests on them, legs are placed by their rules, and the wanted lean is shared between pelvis and spine
with the stiffer side deciding, at the low, middle and high end of the client's ranges.
"""

from __future__ import annotations

from typing import Any

from asketa_core.kernel.bounds import (
    bound_aims,
    bound_back,
    bound_base,
    bound_leg,
    bound_rest,
    bound_shin,
    kneels,
    leg_varies,
)
from asketa_core.kernel.codes import (
    Base,
    Bound,
    Carried,
    Lean,
    Level,
    Mark,
    Met,
    Read,
    Who,
)
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.fields import number
from asketa_core.kernel.legs import placed
from asketa_core.kernel.pelvis import settle_base
from asketa_core.kernel.readings import (
    put_read,
    read_leg,
    read_range,
    show_belly,
    show_hips,
    show_leg,
    show_minutes,
    show_sliding,
    show_trunk,
    show_upper,
)
from asketa_core.kernel.records import Client, Record
from asketa_core.kernel.shared import LUMBAR_SHARE
from asketa_core.kernel.space import Vec
from asketa_core.kernel.trunk import (
    comes_down,
    hand_misses_cm,
    lean_down,
    lean_on_thighs,
    share_fold,
    trunk_chain,
)
from asketa_core.kernel.vectors import clip

HEAD_CARRIED_FROM_DEG = 60.0
"""A trunk that leans so far leaves the head to the neck, unless it rests (judgement)."""

UPRIGHT_ENOUGH_DEG = 10.0
"""Sitting on a chair, both feet down, with no more lean than this counts as upright."""

LEGS_LONG_LEAN_DEG = -15.0
LEGS_LONG_LEAN_MOST_DEG = -35.0
"""Resting with the legs long one leans back on the hands a little, and further where the hamstrings ask for it."""

LEVELS, SIDES = 3, 2
MIDDLE = Level.MIDDLE.value


@compiled
def settle_leg(client: Client, programme: Record, side: int, x: Any, lift_cm: float, legs: Any) -> None:
    """One leg at the three ends of the ranges into ``legs``. ``lift_cm`` raises the worked foot above its place: the moment
    before it is put down."""
    body, rom = client.bodies[0], client.rom
    lift = lift_cm if side == programme.worked else 0.0
    differs = leg_varies(programme, side)
    for level in range(LEVELS):
        # Ends of the ranges that cannot differ are placed once.
        if level == 0 or differs:
            pelvis = settle_base(body, rom, programme, x, level)
            leg = placed(body, rom, programme, side, pelvis, x, level, lift)
            read_leg(body, programme, side, leg, legs[level])
        else:
            legs[level] = legs[0]
        read_range(rom, client.hips[side], programme, side, level, legs[level])


@compiled
def settle(client: Client, programme: Record, x: Any, case: Record, left: Any, right: Any, posture: Record) -> None:
    """A whole posture from its placed legs, into ``posture``, which counts already as what the recipe always does."""
    pad_cm = settle_trunk(client, programme, x, case, left, right, 0, LEVELS, posture)
    settle_rest(client, programme, x, case, left, right, pad_cm, posture)


@compiled
def settle_trunk(
    client: Client,
    programme: Record,
    x: Any,
    case: Record,
    left: Any,
    right: Any,
    first: int,
    end: int,
    posture: Record,
) -> float:
    """The first part of a posture, which decides most: how far the trunk leans and how pelvis and spine share it, with what
    that closes the hips by. From the ``first`` end of the ranges up to one before ``end``; what the base misses is known
    when all three are there. Gives how thick the pad is that the base has, cm."""
    body, rom, hips, seen = client.bodies[0], client.rom, client.hips, client.seen
    meet_everything(posture)
    count_as(programme, x, case, posture)
    leans = programme.stands_by == Base.STAND_LEANING
    for level in range(first, end):
        if level == first or leans:
            pelvis = settle_base(body, rom, programme, x, level)
        posture.lean[level] = pelvis.lean_deg
        posture.unbalanced[level], posture.out_of_reach[level] = pelvis.unbalanced_deg, pelvis.out_of_reach_cm
    if leans and end - first == LEVELS:
        bound_base(posture, seen)
    come_down(body, programme, x, left, right, first, end, posture, seen)
    for level in range(first, end):
        show_upper(programme, x, posture.pitch[level], posture.flexion[level], posture.lean[level], level, posture)
        show_leg(body, programme, 0, left[level], x, level, posture)
        show_leg(body, programme, 1, right[level], x, level, posture)
    show_hips(rom, hips[0], 0, left, first, end, posture)
    show_hips(rom, hips[1], 1, right, first, end, posture)
    count_by_lean(programme, first, end, posture)
    if programme.rising:
        read_at_middle(posture)
    return float(pelvis.pad_cm)


@compiled
def settle_rest(
    client: Client, programme: Record, x: Any, case: Record, left: Any, right: Any, pad_cm: float, posture: Record
) -> None:
    """The rest of a posture: weight, belly and what lies under knees and head, and what this body cannot do."""
    body, rom, seen = client.bodies[0], client.rom, client.seen
    for level in range(LEVELS):
        show_rest(body, programme, x, left[level], right[level], pad_cm, level, case, posture)
    if programme.rising:
        read_at_middle(posture)
    for side in range(SIDES):
        bound_leg(posture, seen, rom, programme, side, left if side == 0 else right)
    bound_back(posture, seen, programme)
    if programme.hand_beside:
        hip_z = (left[MIDDLE].hip.z + right[MIDDLE].hip.z) / 2
        over = number(programme.side_bend, x) + number(programme.roll, x)
        misses = hand_misses_cm(body, hip_z, number(programme.support, x), over)
        bound_rest(posture, seen, Bound.HAND_MISSES.value, misses)
    if programme.head_supported:
        misses = posture.read[Read.HEAD_MISSES_CM, Who.WHOLE, MIDDLE]
        bound_rest(posture, seen, Bound.HEAD_UNSUPPORTED.value, misses)
    if programme.shin_near_level:
        bound_shin(posture, seen, programme.worked)
    bound_aims(posture, programme)


@compiled
def come_down(
    body: Record, programme: Record, x: Any, left: Any, right: Any, first: int, end: int, posture: Record, seen: Any
) -> None:
    """How far the trunk leans at each end of the ranges, and how pelvis and spine share it."""
    least_room = min(left[0].room, right[0].room)
    for level in range(1, LEVELS):
        least_room = min(least_room, left[level].room, right[level].room)
    misses_middle = 0.0
    for level in range(first, end):
        here, there = left[level], right[level]
        room, least = min(here.room, there.room), max(here.behind, there.behind)
        hip_z = (here.hip.z + there.hip.z) / 2
        lean = posture.lean[level]
        if programme.lean == Lean.ON_THIGHS:
            raised = max(here.flexion, there.flexion)
            apart = min(here.abduction, there.abduction)
            lean = lean_on_thighs(body, raised, apart, least_room, hip_z)
        elif programme.lean == Lean.BACK_ON_HANDS:
            lean = clip(least_room, LEGS_LONG_LEAN_MOST_DEG, LEGS_LONG_LEAN_DEG)
        elif programme.carried != Carried.NOTHING:
            down = comes_down(body, programme.carried, number(programme.support, x))
            found = lean_down(body, hip_z, down, lean, room, least)
            lean = found.lean_deg
            if level == MIDDLE:
                misses_middle = found.misses_cm
        share = share_fold(lean, room, least, programme.hollow)
        posture.lean[level] = lean
        posture.pitch[level], posture.flexion[level] = share.pitch_deg, share.spine_flexion_deg
    if programme.carried != Carried.NOTHING:
        bound_rest(posture, seen, Bound.SUPPORT_MISSES.value, misses_middle)


@compiled
def show_rest(
    body: Record,
    programme: Record,
    x: Any,
    left: Record,
    right: Record,
    pad_cm: float,
    level: int,
    case: Record,
    posture: Record,
) -> None:
    """What remains to be read at one end of the ranges, once trunk and hips are."""
    lean, pitch = posture.lean[level], posture.pitch[level]
    show_minutes(programme, case.some_flat != 0, level, posture)
    show_sliding(programme, left, right, level, posture)
    if programme.has_pad:
        show_padding(programme, x, pad_cm, level, posture)
    middle_x, middle_z = (left.hip.x + right.hip.x) / 2, (left.hip.z + right.hip.z) / 2
    chain = trunk_chain(body, Vec(middle_x, 0.0, middle_z), pitch, LUMBAR_SHARE * (lean - pitch), lean)
    show_trunk(body, programme, x, left, right, chain, lean, level, posture)
    if body.pregnant:
        for side in range(SIDES):
            show_belly(body, programme, side, left if side == 0 else right, chain, pitch, lean, level, posture)


@compiled
def show_padding(programme: Record, x: Any, pad_cm: float, level: int, posture: Record) -> None:
    """What lies under kneeling knees, whether it lifts them or not. Whatever kneels without padding of its own kneels on
    the bare floor."""
    padding = max(pad_cm, number(programme.padding_a, x), number(programme.padding_b, x), 0.0)
    for side in range(2):
        if kneels(posture, side):
            put_read(posture, Read.KNEE_PADDING_CM.value, side, level, padding)


MIDDLE_ALONE = (Read.SPINE_FLEXION.value, Read.SPINE_EXTENSION.value, Read.SPINE_MOMENT_RATIO.value)


@compiled
def read_at_middle(posture: Record) -> None:
    """At the moment a seat is left the back is read at the middle of the ranges."""
    whole = Who.WHOLE.value
    for read in MIDDLE_ALONE:
        if posture.there[read, whole]:
            posture.read[read, whole, 0] = posture.read[read, whole, MIDDLE]
            posture.read[read, whole, 2] = posture.read[read, whole, MIDDLE]


@compiled
def meet_everything(posture: Record) -> None:
    """No bound is missed yet."""
    for which in range(len(posture.met)):
        for side in range(2):
            posture.met[which, side] = Met.YES
            posture.amount[which, side] = 0.0


@compiled
def count_always(programme: Record, posture: Record) -> None:
    """What every set-up counts as by its recipe."""
    for flag in range(len(posture.marks)):
        for who in range(3):
            posture.marks[flag, who] = programme.marks[flag, who]


@compiled
def count_as(programme: Record, x: Any, case: Record, posture: Record) -> None:
    """What a set-up counts as beside that."""
    whole = Who.WHOLE.value
    posture.marks[Mark.SOFT_SEAT, whole] = case.soft_seat
    posture.marks[Mark.FLOOR, whole] = case.on_floor or programme.marks[Mark.FLOOR, whole]
    if programme.takes_arms:
        posture.marks[Mark.SEAT_WITHOUT_ARMS, whole] = 1 - case.arms
    if programme.flat_when_low:
        posture.marks[Mark.SUPINE, whole] = number(programme.recline, x) < programme.flat_below
    if programme.easy_when_upright:
        upright = number(programme.lean_at, x) <= programme.easy_lean
        for side in range(2):
            easy = programme.easy[side] != 0 and (upright or programme.rising != 0)
            posture.marks[Mark.BEYOND_EASY_SEAT, side] = not easy


@compiled
def count_by_lean(programme: Record, first: int, end: int, posture: Record) -> None:
    """What a posture counts as by how far its trunk leans at the most."""
    most = posture.lean[first]
    for level in range(first + 1, end):
        most = max(most, posture.lean[level])
    whole = Who.WHOLE.value
    carried = most > HEAD_CARRIED_FROM_DEG and not programme.lying and not programme.head_rests
    posture.marks[Mark.HEAD_CARRIED, whole] = carried
    upright = most <= UPRIGHT_ENOUGH_DEG and programme.on_chair and programme.both_feet_down
    posture.marks[Mark.NOT_UPRIGHT_ON_CHAIR, whole] = not upright
