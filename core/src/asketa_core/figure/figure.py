"""Figures of screened set-ups: the same posture the numbers come from, drawn and described."""

from __future__ import annotations

from asketa_core.body.measures import Body
from asketa_core.clientfile import SlotValue
from asketa_core.figure.scene import Scene, build_scene
from asketa_core.figure.skeleton import skeleton_of
from asketa_core.figure.svg import View, render
from asketa_core.poses.library import DroppedLeg
from asketa_core.poses.posture import Readout
from asketa_core.props.kinds import Room
from asketa_core.props.stacks import FLOOR
from asketa_core.setup.search import Screened
from asketa_core.units import Side
from asketa_core.words import numbers
from asketa_core.words.stacks import stack_words


def scene_of(screened: Screened, body: Body, room: Room, index: int, foot: str | None = None) -> Scene:
    """The scene of one set-up; ``foot`` overrides the choice of how the foot is held."""
    variation, side = screened.variation, screened.side
    stacks = screened.grid.stacks(index)
    setup = screened.grid.setup(index)
    held = foot if foot is not None else setup.get("foot", SlotValue()).choice
    worked = variation.recipe.worked_leg
    on_edge = isinstance(worked, DroppedLeg) and worked.rests_on is not None
    skeleton = skeleton_of(
        screened.pose,
        body,
        index,
        drawn_up=side if held == "drawn_up" else None,
        resting_on_edge=side if on_edge else None,
    )
    under_worked = stacks.get(worked.rests_on or "", FLOOR) if isinstance(worked, DroppedLeg) else FLOOR
    under_other = stacks.get(variation.recipe.other_leg.rests_on or "", FLOOR)
    return build_scene(
        skeleton, body, side, stacks[variation.recipe.seat], {side: under_worked, side.other: under_other}, room
    )


def describe(screened: Screened, index: int) -> str:
    """The figure in words, from its numbers."""
    side, pose = screened.side, screened.pose
    seat = screened.grid.stacks(index)[screened.variation.recipe.seat]

    def angle(readout: Readout, of: Side) -> str:
        return numbers.plain(pose.middle(readout, of, index), "deg")

    knee_cm = pose.middle(Readout.HIP_ABOVE_KNEE_CM, side, index)
    level = f"{abs(knee_cm):.0f} cm {'below' if knee_cm >= 0 else 'above'} the hip"
    lean = pose.lean_deg[index]
    return (
        f"Sitting on {stack_words(seat)}, {'upright' if lean == 0 else f'leaning {lean:.0f}° forward'}. "
        f"{side.value.capitalize()} leg worked: hip bend {angle(Readout.HIP_BEND, side)}, "
        f"turned out {angle(Readout.HIP_EXTERNAL_ROTATION, side)}, knee bend {angle(Readout.KNEE_FLEXION, side)}, "
        f"knee {level}. {side.other.value.capitalize()} foot down, hip bend {angle(Readout.HIP_BEND, side.other)}."
    )


def figure(
    screened: Screened, body: Body, room: Room, index: int, view: View, labels: bool = True, foot: str | None = None
) -> str:
    """SVG of one set-up seen from one side."""
    return render(scene_of(screened, body, room, index, foot), view, describe(screened, index), labels)


def outward_view(side: Side) -> View:
    """The side view of a lane: left seen from the left, right from the right, both facing outward."""
    return View.SIDE_LEFT if side is Side.LEFT else View.SIDE_RIGHT
