"""Figures of screened set-ups: the same posture the numbers come from, drawn and described."""

from __future__ import annotations

from asketa_core.body.measures import Body
from asketa_core.clientfile import SlotValue
from asketa_core.figure.scene import Scene, Support, build_scene
from asketa_core.figure.skeleton import skeleton_of
from asketa_core.figure.svg import View, render
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import LYING, DroppedLeg, PlantedLeg, side_slot
from asketa_core.props.kinds import Room
from asketa_core.props.stacks import FLOOR, Stack
from asketa_core.setup.search import Screened
from asketa_core.units import SIDES, Side
from asketa_core.words import numbers
from asketa_core.words.stacks import stack_words


def scene_of(screened: Screened, body: Body, room: Room, index: int, foot: str | None = None) -> Scene:
    """The scene of one set-up; ``foot`` overrides the choice of how the foot is held."""
    variation, side = screened.variation, screened.side
    recipe = variation.recipe
    stacks = screened.grid.stacks(index)
    setup = screened.grid.setup(index)
    held = foot if foot is not None else setup.get("foot", SlotValue()).choice
    rules = {side: recipe.worked_rule, side.other: recipe.other_rule}
    if variation.shared:
        rules = dict.fromkeys(SIDES, recipe.worked_rule)
    on_edge = {s for s, rule in rules.items() if isinstance(rule, DroppedLeg) and rule.rests_on is not None}
    skeleton = skeleton_of(screened.pose, body, index, recipe.hands, side if held == "drawn_up" else None, on_edge)

    def stack_of(slot: str, of: Side) -> Stack:
        return stacks.get(side_slot(slot, of), stacks.get(slot, FLOOR))

    supports = []
    for of, rule in rules.items():
        leg = skeleton.legs[of]
        if rule.rests_on is not None:
            supports.append(Support(stack_of(rule.rests_on, of), leg.end))
        if not isinstance(rule, PlantedLeg) and rule.knee_rests_on is not None:
            at = rule.rests_at if isinstance(rule, DroppedLeg) else 1.0
            supports.append(Support(stack_of(rule.knee_rests_on, of), leg.root + at * (leg.middle - leg.root)))
    recline = None
    if recipe.recline_deg is not None:
        recline = float(screened.pose.lean_deg[index]) + 90.0
    return build_scene(
        skeleton, body, side, stacks.get(recipe.seat), supports, room, recline,
        chair_in_front=recipe.hands.on == "chair_in_front",
    )  # fmt: skip


def describe(screened: Screened, index: int) -> str:
    """The figure in words, from its numbers."""
    side, pose, variation = screened.side, screened.pose, screened.variation
    seat = screened.grid.stacks(index).get(variation.recipe.seat)

    def angle(readout: Readout, of: Side | None) -> str:
        return numbers.plain(pose.middle(readout, of, index), "deg")

    def leg(of: Side) -> str:
        knee_cm = pose.middle(Readout.HIP_ABOVE_KNEE_CM, of, index)
        level = f"{abs(knee_cm):.0f} cm {'below' if knee_cm >= 0 else 'above'} the hip"
        return (
            f"hip bend {angle(Readout.HIP_BEND, of)}, turned out {angle(Readout.HIP_EXTERNAL_ROTATION, of)}, "
            f"knee bend {angle(Readout.KNEE_FLEXION, of)}, knee {level}"
        )

    lean = float(pose.lean_deg[index])
    if variation.position in LYING:
        place = "Lying on the back" if lean <= -89 else f"Lying with the back raised {lean + 90:.0f}°"
    else:
        place = f"Sitting on {'the floor' if seat is None or not seat.layers else stack_words(seat)}, "
        place += "upright" if abs(lean) < 1 else f"leaning {lean:.0f}° forward"
    if variation.shared:
        return f"{place}. Left leg: {leg(Side.LEFT)}. Right leg: {leg(Side.RIGHT)}."
    return (
        f"{place}. {side.value.capitalize()} leg worked: {leg(side)}. "
        f"{side.other.value.capitalize()} leg: hip bend {angle(Readout.HIP_BEND, side.other)}."
    )


def figure(
    screened: Screened, body: Body, room: Room, index: int, view: View, labels: bool = True, foot: str | None = None
) -> str:
    """SVG of one set-up seen from one side."""
    return render(scene_of(screened, body, room, index, foot), view, describe(screened, index), labels)


def outward_view(side: Side) -> View:
    """The side view of a lane: left seen from the left, right from the right, both facing outward."""
    return View.SIDE_LEFT if side is Side.LEFT else View.SIDE_RIGHT
