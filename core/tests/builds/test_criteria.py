"""What makes a set-up nonsense, looked for in what is recommended: every rung, both sides, many bodies, several rooms."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from unittest import TestCase
from unittest.mock import patch

import numpy as np

from asketa_core import SIDES, Side
from asketa_core.figure.arms import HAND_REST_CM, arm
from asketa_core.figure.figure import figure
from asketa_core.figure.svg import View
from asketa_core.kernel.bounds import (
    AIM_TOLERANCE,
    LONG_FOLD_FLEXION_MOST_DEG,
    RESTS_WITHIN_CM,
    SPINE_FLEXION_MOST_DEG,
)
from asketa_core.poses.named_props import CHAIR_UNDER_HANDS, prop_words, spoken_of
from asketa_core.poses.posture import Readout, Trouble
from asketa_core.poses.recipe import DroppedLeg, LongLeg, StackSlot, side_slot
from asketa_core.props.kinds import kinds
from asketa_core.props.stacks import MOST_PILED, MOST_THINGS, SITTING_WIDTH_CM, Stack, Use
from asketa_core.setup.screened import Screened
from tests.builds.page import Offer, described, offer, situation
from tests.speech import english

EVERY = 16
"""Of the lanes of each person in each room every so many-th is looked at, each pair beginning elsewhere."""

PALM_CM = 4.0
NOT_DRAWN_AS_STACKS = frozenset({"behind_back"})
WITHOUT_HEIGHT = frozenset({"strap", "stick"})


def allowed_offers() -> Iterator[tuple[Offer, Screened, int, str]]:
    """What is recommended and allowed, with where it was found."""
    pair = 0
    for person in described()["people"]:
        for room in described()["rooms"]:
            at = situation(person, room)
            pair += 1
            lanes = [(r, s) for r in at.library.variations() for s in ((Side.LEFT,) if r.shared else SIDES)]
            for rung, side in lanes[pair % EVERY :: EVERY]:
                each = offer(at, person, rung, side)
                if each.found is not None and each.detail is not None and each.detail.allowed:
                    yield (
                        each,
                        each.found,
                        each.detail.index,
                        f"{person} in {room}: {rung.id} {side}: {english(each.detail.line)}",
                    )


def stacks_with_slots(found: Screened, row: int) -> Iterator[tuple[str, StackSlot, Stack]]:
    for axis in found.grid.axes:
        if isinstance(axis.slot, StackSlot):
            yield axis.name, axis.slot, found.grid.stacks(row)[axis.name]


class Nonsense(TestCase):
    """One walk, every criterion: what is found wrong is collected and shown together."""

    def test_nothing_recommended_is_nonsense(self) -> None:
        wrong: dict[str, list[str]] = {}
        looked_at = 0
        for each, found, row, where in allowed_offers():
            looked_at += 1
            for criterion in CRITERIA:
                for what in criterion(each, found, row):
                    wrong.setdefault(criterion.__name__, []).append(f"{where}: {what}")
        self.assertGreater(looked_at, 400)
        told = "\n".join(f"{name}: {len(cases)}\n  " + "\n  ".join(cases[:8]) for name, cases in wrong.items())
        self.assertFalse(wrong, told)


def a_prop_named_but_absent(each: Offer, found: Screened, row: int) -> Iterator[str]:
    there = {kind for stack in found.grid.supports(row) for kind in stack.kinds}
    recipe = found.variation.recipe
    if recipe.helping_chair or recipe.hands.on in CHAIR_UNDER_HANDS:
        there.add("chair")
    for word in spoken_of(english(found.variation.name)):
        serves = prop_words()[word]
        if serves.kinds and not there & set(serves.kinds):
            yield word


def a_part_in_the_air(each: Offer, found: Screened, row: int) -> Iterator[str]:
    pose = found.pose_at(row)
    if (Readout.HEAD_MISSES_CM, None) in pose.readouts:
        if pose.middle(Readout.HEAD_MISSES_CM, None) > RESTS_WITHIN_CM:
            yield "the head"
    elif found.variation.recipe.head_rests and found.variation.position not in ("lying", "side_lying"):
        yield "the head, with nothing under it"
    for trouble in (Trouble.SUPPORT_MISSES, Trouble.HAND_MISSES):
        if any(name is trouble for name, _, _ in found.troubles_at(row)):
            yield trouble.value


def a_seat_that_tips_or_sinks(each: Offer, found: Screened, row: int) -> Iterator[str]:
    for name, slot, stack in stacks_with_slots(found, row):
        laid = [layer for layer in stack.layers if layer.kind != "chair"]
        for below, above in zip(stack.layers, stack.layers[1:], strict=False):
            if kinds()[above.kind].rigid and not kinds()[below.kind].rigid:
                yield f"{name}: hard on soft"
        if slot.use not in ("sitting", "straddle"):
            continue
        if any(layer.upright for layer in laid):
            yield f"{name}: on end"
        hard = sum(layer.pieces for layer in laid if kinds()[layer.kind].rigid)
        if hard > 2 or sum(layer.pieces for layer in laid if layer.piled) > MOST_PILED[Use.SITTING]:
            yield f"{name}: a tower"
        if slot.use == "sitting" and len(laid) < len(stack.layers) and sum(layer.pieces for layer in laid) > 2:
            yield f"{name}: more than two pieces on a chair"
        narrow = [layer for layer in laid if not layer.piled and layer.pieces == 1]
        if slot.use == "sitting" and any(min(layer.footprint_cm) < SITTING_WIDTH_CM for layer in narrow):
            yield f"{name}: too narrow"


def an_aim_missed(each: Offer, found: Screened, row: int) -> Iterator[str]:
    """Knees above the hips where the rung says below is one of them."""
    for aim in found.variation.recipe.aims:
        legs = {"worked": (found.side,), "other": (found.side.other,), "both": SIDES}[aim.legs]
        for side in legs:
            key = found.key(aim.quantity, side)
            if key is None:
                continue
            value = found.pose_at(row).middle(*key)
            low = -np.inf if aim.at_least is None else aim.at_least
            high = np.inf if aim.at_most is None else aim.at_most
            if not low - AIM_TOLERANCE <= value <= high + AIM_TOLERANCE:
                yield f"{aim.quantity} {value:.1f}"


def rounding_beyond_its_bound(each: Offer, found: Screened, row: int) -> Iterator[str]:
    if found.variation.position in ("lying", "side_lying"):
        return
    most = LONG_FOLD_FLEXION_MOST_DEG if found.variation.long_quiet_fold else SPINE_FLEXION_MOST_DEG
    value = found.pose_at(row).middle(Readout.SPINE_FLEXION, None)
    if value > most + 1e-6 and (Trouble.BACK_ROUNDS.value, Side.LEFT) not in found.rules.ranges.seen:
        yield f"{value:.0f}°"


def too_many_things_under_one_place(each: Offer, found: Screened, row: int) -> Iterator[str]:
    for name, _, stack in stacks_with_slots(found, row):
        if sum(layer.things for layer in stack.layers if layer.kind != "chair") > MOST_THINGS:
            yield f"{name}: {stack.key}"


def a_prop_the_room_lacks(each: Offer, found: Screened, row: int) -> Iterator[str]:
    need: Counter[str] = Counter()
    for stack in found.grid.supports(row):
        need.update(stack.kinds)
    need["chair"] += found.variation.recipe.helping_chair
    stock: Counter[str] = Counter()
    for prop in each.at.room.stock:
        stock[prop.kind] += prop.count
    for kind, count in need.items():
        if count > stock[kind]:
            yield f"{count} × {kind}"


def a_support_that_touches_nothing(each: Offer, found: Screened, row: int) -> Iterator[str]:
    body, recipe = each.at.body, found.variation.recipe
    stacks = found.grid.stacks(row)
    for side in SIDES:
        rule = recipe.worked_rule if side is found.side else recipe.other_rule
        if not isinstance(rule, LongLeg | DroppedLeg) or rule.knee_rests_on is None:
            continue
        stack = stacks.get(side_slot(rule.knee_rests_on, side), stacks.get(rule.knee_rests_on))
        if stack is None or not stack.layers:
            continue
        leg = found.pose_at(row).leg(side)
        hip, knee = leg.hip, leg.knee
        along = rule.rests_at if isinstance(rule, DroppedLeg) else 1.0
        point = float(hip[2] + along * (knee[2] - hip[2]))
        rests = body.length_cm("knee_above_rest")
        if along < 1.0:
            rests = body.length_cm("thigh_radius_hip") * (1 - along) + body.length_cm("thigh_radius_knee") * along
        if point - rests - stack.height_cm > RESTS_WITHIN_CM + 1.0:
            yield f"{side}: {stack.key} is {point - rests - stack.height_cm:.0f} cm below"


def a_hand_that_reaches_nothing(each: Offer, found: Screened, row: int) -> Iterator[str]:
    with patch("asketa_core.figure.skeleton.arm", wraps=arm) as drawn:
        figure(found, each.at.body, each.at.room, row, View.SIDE_LEFT, english)
    for call in drawn.call_args_list:
        wanted = np.maximum(call.args[3], [-np.inf, -np.inf, HAND_REST_CM])
        gap = float(np.linalg.norm(arm(*call.args).end - wanted))
        if gap > PALM_CM:
            yield f"{gap:.0f} cm"


def words_that_differ_from_the_picture(each: Offer, found: Screened, row: int) -> Iterator[str]:
    assert each.detail is not None
    recipe = found.variation.recipe
    drawn = figure(found, each.at.body, each.at.room, row, View.SIDE_LEFT, english)
    elsewhere = {slot for place, slot in recipe.props.items() if place in NOT_DRAWN_AS_STACKS}
    said = english(each.detail.whole_line)
    for name, _, stack in stacks_with_slots(found, row):
        if not stack.layers:
            continue
        if (words := english(each.detail.words[name])) not in said:
            yield f"{name}: {words} is not in '{said}'"
        if (
            name not in elsewhere
            and stack.layers[0].kind not in WITHOUT_HEIGHT
            and f">{stack.height_cm:.0f}<" not in drawn
        ):
            yield f"{name}: {stack.height_cm:.0f} is not drawn"


CRITERIA = (
    a_prop_named_but_absent,
    a_part_in_the_air,
    a_seat_that_tips_or_sinks,
    an_aim_missed,
    rounding_beyond_its_bound,
    too_many_things_under_one_place,
    a_prop_the_room_lacks,
    a_support_that_touches_nothing,
    a_hand_that_reaches_nothing,
    words_that_differ_from_the_picture,
)
