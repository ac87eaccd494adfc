"""Figures of screened set-ups: the same posture the numbers come from, drawn and described."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.client.holds import SlotValue
from asketa_core.figure.arms import beside_ankle
from asketa_core.figure.furniture import Bed, stick, strap
from asketa_core.figure.limbs import Limb
from asketa_core.figure.palette import Light
from asketa_core.figure.scene import Furniture, Rest, Scene, Support, build_scene
from asketa_core.figure.skeleton import Bearing, Skeleton, skeleton_of
from asketa_core.figure.solids import Bar
from asketa_core.figure.views import View
from asketa_core.kernel.shared import ROLL_BEHIND_KNEE_CM
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import (
    LYING,
    DroppedLeg,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    GroundLeg,
    LegRule,
    LongLeg,
    PlantedLeg,
    PropPlace,
    Recipe,
    SitBase,
    StandBase,
    StrideBase,
    side_slot,
)
from asketa_core.props.kinds import Room
from asketa_core.props.stacks import FLOOR, Stack
from asketa_core.recent import Itself, Recent
from asketa_core.setup.screened import PoseGrid, Screened
from asketa_core.texts import Phrase, Words, listed, say
from asketa_core.units import SIDES, Array, Side, unit
from asketa_core.words import numbers
from asketa_core.words.stacks import stack_words


def scene_of(screened: Screened, body: Body, room: Room, index: int, foot: str | None = None) -> Scene:
    """The scene of one set-up; ``foot`` overrides the choice of how the foot is held."""
    variation, side, pose = screened.variation, screened.side, screened.pose_at(index)
    recipe = variation.recipe
    stacks = screened.grid.stacks(index)
    setup = screened.grid.setup(index)
    held = foot if foot is not None else setup.get("foot", SlotValue()).choice
    rules = {side: recipe.worked_rule, side.other: recipe.other_rule}
    on_edge = {s for s, rule in rules.items() if isinstance(rule, DroppedLeg) and rule.rests_on is not None}
    worked = side if not variation.shared else SIDES[0]
    bearing = Bearing(
        turn_deg=worked.sign * pose.middle(Readout.SPINE_ROTATION, None),
        bend_deg=worked.sign * _over_deg(screened.pose, index, variation.position in LYING),
        on_side=side.other if variation.position == "side_lying" else None,
        shoulders_down=variation.position == "lying",
    )
    under_hands = stacks.get(recipe.hands_on or "", FLOOR)
    raised = _raised_cm(recipe, stacks)
    # A height of its own, like a counter's, or that of a stack.
    hands_at = setup.get(recipe.hands_on or "", SlotValue()).number or 0.0
    drawn_up = side if held == "drawn_up" else None
    skeleton = skeleton_of(
        pose,
        body,
        recipe.hands,
        drawn_up,
        on_edge,
        bearing,
        heels_raised=recipe.heels_raised,
        hand_support_cm=raised + hands_at,
        arms_in_line=recipe.lean == "reach",
    )

    def stack_of(slot: str, of: Side) -> Stack:
        return stacks.get(side_slot(slot, of), stacks.get(slot, FLOOR))

    supports = list(_base_supports(recipe, skeleton, stacks, side))
    under: dict[str, list[tuple[Stack, Array]]] = {}
    for of, rule in rules.items():
        for slot, at in _leg_supports(rule, skeleton.legs[of]):
            own = side_slot(slot, of)
            under.setdefault(own if own in stacks else slot, []).append((stack_of(slot, of), at))
    # What both legs share lies between them.
    supports += [Support(each[0][0], np.mean([at for _, at in each], axis=0)) for each in under.values()]
    for of, rule in rules.items():
        if isinstance(rule, FoldedLeg) and rule.behind_knee is not None:
            roll, at = stack_of(rule.behind_knee, of), _behind_knee(skeleton.legs[of])
            supports.append(Support(roll, at, stands_on_cm=max(float(at[2]) - roll.height_cm / 2, 0.0)))
    wrists = {of: skeleton.arms[of].end for of in SIDES}
    if recipe.hands.on == "by_raised_foot":
        supports.append(Support(under_hands, beside_ankle(skeleton.legs[side], side), Rest.HANDS, stands_on_cm=raised))
    elif recipe.hands.on == "side_block":
        supports.append(Support(under_hands, min(wrists.values(), key=lambda at: float(at[2])), Rest.HANDS))
    elif recipe.hands.on == "forearms" and under_hands.layers:
        at = np.mean([0.3 * skeleton.arms[of].middle + 0.7 * skeleton.arms[of].end for of in SIDES], axis=0)
        on_chair = under_hands.layers[0].kind == "chair"
        supports.append(Support(under_hands, at, Rest.HANDS if on_chair else Rest.LIMB))
    elif under_hands.layers and under_hands.layers[0].kind == "chair":
        supports.append(Support(under_hands, (wrists[Side.LEFT] + wrists[Side.RIGHT]) / 2, Rest.HANDS))
    elif under_hands.layers:
        supports += [Support(under_hands, wrists[of], Rest.HANDS) for of in SIDES]
    supports += _trunk_supports(recipe, skeleton, stacks)
    supports += _placed(recipe, skeleton, stacks, side)
    lying = variation.position == "lying" and recipe.recline_deg is not None
    furniture = Furniture(
        lying=variation.position in LYING,
        on_side=variation.position == "side_lying",
        recline_deg=pose.lean_deg + 90.0 if lying and pose.lean_deg > -89.5 else None,
        chair_in_front=recipe.hands.on == "chair_in_front",
        chair_back_in_front=recipe.hands.on == "chair_back_in_front",
        chair_tipped="tipped_chair" in recipe.flags.overall,
        chair_beside=recipe.hands.on == "chair_beside",
        chair_at_side=recipe.hands.on == "side_chair",
        wall_in_front=recipe.hands.on == "wall",
        walls=recipe.walls,
        bed=_bed(setup),
        bars=tuple(_bars(recipe, skeleton, side, body)),
    )
    return build_scene(skeleton, body, side, supports, room, furniture, both_worked=variation.shared)


def _bed(setup: Mapping[str, SlotValue]) -> Bed | None:
    """The bed somebody lies on, where the set-up says so."""
    chosen = {value.choice for value in setup.values()}
    return "bed" if "bed" in chosen else "plinth" if "plinth" in chosen else None


def _bars(recipe: Recipe, skeleton: Skeleton, worked: Side, body: Body) -> Iterator[Bar]:
    """Straps and sticks."""
    feet = {side: (skeleton.legs[side], skeleton.heels[side]) for side in SIDES}
    for where in recipe.props:
        if where == "around_feet":
            yield strap(feet, skeleton.arms)
        elif where == "around_foot":
            yield strap({worked: feet[worked]}, skeleton.arms)
        elif where == "along_spine":
            behind = STICK_BEHIND_SHARE * body.stature_cm
            head = skeleton.spine[3] + 0.65 * (skeleton.spine[4] - skeleton.spine[3])
            yield stick(skeleton.spine[1] - behind * skeleton.front[1], head - behind * skeleton.front[4])


STICK_BEHIND_SHARE = 0.074
"""How far behind the line of the spine a stick lies, as a share of stature."""


def _over_deg(pose: PoseGrid, index: int, lying: bool) -> float:
    """How far the trunk leans over to a side: its bend, and the pelvis with it."""
    bend = pose.number("side_bend", index)
    return bend if lying else bend + pose.number("roll", index)


def _raised_cm(recipe: Recipe, stacks: Mapping[str, Stack]) -> float:
    """What the hand's support stands on: beside a raised foot, what the foot is raised on."""
    rule = recipe.worked_rule
    if recipe.hands.on != "by_raised_foot" or not isinstance(rule, LongLeg):
        return 0.0
    return stacks.get(rule.rests_on, FLOOR).height_cm


def _base_supports(recipe: Recipe, skeleton: Skeleton, stacks: Mapping[str, Stack], worked: Side) -> Iterator[Support]:
    """What the pelvis, the front thigh, the knees or the heels rest on."""
    base, pelvis = recipe.stands_on, skeleton.spine[0]

    def stack(slot: str | None) -> Stack:
        return stacks.get(slot or "", FLOOR)

    if isinstance(base, SitBase):
        yield Support(stack(base.rests_on), pelvis, Rest.SEAT)
        if isinstance(base.raised_cm, str):
            yield Support(stack(base.raised_cm), pelvis)
    elif isinstance(base, StandBase):
        yield Support(stack(base.seat_slot), pelvis, Rest.SEAT)
        for side in SIDES if base.heels_on is not None else ():
            yield Support(stack(base.heels_on), skeleton.heels[side])
    elif isinstance(base, StrideBase):
        front, behind = skeleton.legs[worked], skeleton.legs[worked.other]
        yield Support(stack(base.thigh_on), front.root + 0.4 * (front.middle - front.root))
        yield Support(stack(base.pad), behind.middle)
    else:
        for side in SIDES:
            yield Support(stack(base.pad), skeleton.legs[side].middle)


CHEST_AHEAD_CM = 8.0
"""A bolster under the chest reaches this far beyond the breastbone, so that the head finds it too."""


def _trunk_supports(recipe: Recipe, skeleton: Skeleton, stacks: Mapping[str, Stack]) -> Iterator[Support]:
    """What chest, forearms and forehead rest on."""
    t12, c7, top = skeleton.spine[2:5]
    if recipe.chest_on is not None and recipe.chest_on != "thighs":
        chest = t12 + 0.45 * (c7 - t12) + np.array([CHEST_AHEAD_CM, 0.0, 0.0])
        yield Support(stacks.get(recipe.chest_on, FLOOR), chest, Rest.TRUNK)
    if recipe.head_on is not None and recipe.head_on not in (recipe.chest_on, recipe.hands_on):
        yield Support(stacks.get(recipe.head_on, FLOOR), c7 + 0.7 * (top - c7))


def _placed(recipe: Recipe, skeleton: Skeleton, stacks: Mapping[str, Stack], worked: Side) -> Iterator[Support]:
    """What lies at the body besides."""
    legs = skeleton.legs
    for where, slot in recipe.props.items():
        stack = stacks.get(slot, FLOOR)
        for at, floats in _places(where, skeleton, legs, worked):
            yield Support(stack, at, stands_on_cm=max(float(at[2]) - stack.height_cm / 2, 0.0) if floats else 0.0)


def _places(
    where: PropPlace, skeleton: Skeleton, legs: Mapping[Side, Limb], worked: Side
) -> Iterator[tuple[Array, bool]]:
    """The points one kind of place means, and whether the prop is held there rather than standing on the ground."""
    left, right, front = legs[Side.LEFT], legs[Side.RIGHT], legs[worked]
    match where:
        case "under_head":
            yield skeleton.spine[3] + 0.65 * (skeleton.spine[4] - skeleton.spine[3]), False
        case "between_knees":
            yield (left.middle + right.middle) / 2, True
        case "between_feet":
            yield (left.tip + right.tip) / 2, True
        case "outside_shin":
            out = np.array([0.0, worked.sign * OUTSIDE_CM, 0.0])
            yield (front.middle + front.end) / 2 + out, True
        case "under_belly":
            yield skeleton.spine[1], False
        case "under_back_knee":
            yield legs[worked.other].middle, False
        case "under_shins":
            for leg in legs.values():
                yield (leg.middle + leg.end) / 2, False
        case "around_feet" | "around_foot" | "along_spine" | "behind_back":
            # Drawn as straps, as a stick, and as the slope the back lies on.
            return


OUTSIDE_CM = 10.0


def _behind_knee(leg: Limb) -> Array:
    """The hollow of a folded knee: between thigh and shin."""
    thigh, shin = unit(leg.root - leg.middle), unit(leg.end - leg.middle)
    return np.asarray(leg.middle + ROLL_BEHIND_KNEE_CM * unit(thigh + shin))


def _leg_supports(rule: LegRule, leg: Limb) -> Iterator[tuple[str, Array]]:
    """The slots one leg rests on, and where."""
    match rule:
        case PlantedLeg() | GroundLeg():
            yield rule.rests_on, leg.end
        case LongLeg():
            yield rule.rests_on, leg.end
            if rule.knee_rests_on is not None:
                yield rule.knee_rests_on, leg.middle
        case DroppedLeg():
            if rule.rests_on is not None:
                yield rule.rests_on, leg.end
            if rule.knee_rests_on is not None:
                yield rule.knee_rests_on, leg.root + rule.rests_at * (leg.middle - leg.root)
        case FreeLeg():
            if rule.rests_on is not None:
                yield rule.rests_on, leg.end + 0.25 * (leg.middle - leg.end)
        case ForcedLeg():
            if rule.knee_rests_on is not None:
                yield rule.knee_rests_on, leg.middle
            if rule.ankle_rests_on is not None:
                yield rule.ankle_rests_on, leg.end


PLACES = ("standing", "kneeling", "side_lying")
"""Positions that say by themselves where the body is."""


def describe(screened: Screened, index: int) -> Phrase:
    """The figure in words, from its numbers."""
    side, pose, variation = screened.side, screened.pose_at(index), screened.variation
    seat = screened.grid.stacks(index).get(variation.recipe.seat_slot or "")

    def angle(readout: Readout, of: Side | None) -> Phrase:
        return numbers.plain(pose.middle(readout, of), "deg")

    def leg(of: Side) -> Phrase:
        knee_cm = pose.middle(Readout.HIP_ABOVE_KNEE_CM, of)
        height = say("units", "cm", n=round(abs(knee_cm)))
        level = say("figure", "knee_below" if knee_cm >= 0 else "knee_above", height=height)
        bend, out = angle(Readout.HIP_BEND, of), angle(Readout.HIP_EXTERNAL_ROTATION, of)
        return say("figure", "leg", bend=bend, out=out, knee=angle(Readout.KNEE_FLEXION, of), level=level)

    lean = pose.lean_deg
    upright = abs(lean) < 1
    leaning = say("figure", "leaning", lean=say("units", "deg", n=round(lean)))
    place: list[Phrase]
    if variation.position in PLACES:
        place = [say("figure", variation.position)]
        place += [] if upright or variation.position in LYING else [leaning]
    elif lean > 60 and variation.position in LYING:
        place = [say("figure", "prone")]
    elif variation.position in LYING:
        raised = say("units", "deg", n=round(lean + 90))
        place = [say("figure", "supine") if lean <= -89 else say("figure", "back_raised", lean=raised)]
    else:
        on = say("figure", "floor") if seat is None or not seat.layers else stack_words(seat)
        place = [say("figure", "sitting", seat=on), say("figure", "upright") if upright else leaning]
    where = screened.grid.setup(index).get(variation.recipe.seat_slot or "")
    if where is not None and where.choice is not None:
        place.append(say("choices", where.choice))
    if variation.shared:
        return say("figure", "both", place=listed(place), left=leg(Side.LEFT), right=leg(Side.RIGHT))
    return say(
        "figure",
        "one",
        place=listed(place),
        side=say("sides", side.value),
        worked=leg(side),
        other=say("sides", side.other.value),
        rest=say("figure", "hip_bend", bend=angle(Readout.HIP_BEND, side.other)),
    )


def figure(
    screened: Screened,
    body: Body,
    room: Room,
    index: int,
    view: View,
    words: Words,
    labels: bool = True,
    foot: str | None = None,
    light: Light | None = None,
    small: bool = False,
) -> str:
    """SVG of one set-up seen from one side, described in words for those who do not see it; ``small`` to be told apart
    at 110 pixels."""
    # Loaded with the first figure: whoever draws none does without.
    from asketa_core.figure.svg import render  # noqa: PLC0415

    pose, setup = screened.pose_at(index), screened.grid.setup(index)
    shown = (
        Itself(screened.variation), screened.side, pose.records.tobytes(), *(leg.tobytes() for leg in pose.legs), _of_body(body), room,
        *setup.values(), foot, view, words.language, words.manner, labels, light, small,
    )  # fmt: skip

    def draw() -> str:
        scene = scene_of(screened, body, room, index, foot)
        return render(scene, view, words(describe(screened, index)), labels, light, small, size=words.size)

    return recent_figures.get(shown, draw)


LETTERS_KEPT = 4_000_000
"""Some five hundred drawings."""

recent_figures: Recent[str] = Recent(LETTERS_KEPT, len)
"""The last figures by the posture they show, the props under it and how they are drawn."""


def _of_body(body: Body) -> tuple[object, ...]:
    """All there is to know of a body."""
    return (body.stature_cm, body.weight_kg, *sorted(body.measured.items()), body.pregnancy, body.rounded_cm)


def side_view(variation: Variation, side: Side) -> View:
    """The side view of a lane: left seen from the left, right from the right, both facing outward. Somebody lying on their
    side is seen from where their face is."""
    seen = side.other if variation.position == "side_lying" else side
    return View.SIDE_LEFT if seen is Side.LEFT else View.SIDE_RIGHT


def lane_view(variation: Variation, side: Side) -> View:
    """Where a lane shows a variation from: its side, unless another view shows more of it."""
    return side_view(variation, side) if variation.seen_from == "side" else View(variation.seen_from)
