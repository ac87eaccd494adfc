"""The way in and out of a set-up as figures in a row, from the stations it was screened at."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

import numpy as np

from asketa_core.figure.figure import lane_view, scene_of
from asketa_core.figure.furniture import BED_HEIGHT_CM, Bed, bed_from_its_end
from asketa_core.figure.palette import Light
from asketa_core.figure.scene import Furniture, Rest, Scene, Support, build_scene
from asketa_core.figure.skeleton import Bearing, skeleton_of
from asketa_core.figure.solids import Box
from asketa_core.figure.views import View
from asketa_core.poses.recipe import Hands
from asketa_core.poses.settle import Posture, settle_standing_quietly
from asketa_core.poses.transfers import FloorWay, Station, Technique, transfers
from asketa_core.props.stacks import FLOOR, Stack
from asketa_core.screening.situation import Situation
from asketa_core.setup.screened import Screened, Way
from asketa_core.texts import Phrase, Words, say
from asketa_core.units import SIDES, Side

ABOVE_HEAD_CM = 10.0
AHEAD_CM = 32.0
"""How far ahead of the ankles a chair stands that is to be held on the way to the floor."""

BOLSTER_BREADTH_CM, BOLSTER_DEPTH_CM = 60.0, 30.0


@dataclass(frozen=True, slots=True)
class Moment:
    """One station of a way: how it looks, and what it is."""

    figure: str
    words: Phrase


HANGING, LEVEL = Hands(on="beside"), Bearing()


@dataclass(frozen=True, slots=True)
class _Setting:
    """How a posture on the way is shown: what it is called, what the hands do, and what stands around it."""

    code: str
    posture: Posture
    hands: Hands = HANGING
    seat: Stack = FLOOR
    seat_behind_cm: float = 0.0
    """How far behind the hips what is about to be sat on is."""
    furniture: Furniture = field(default_factory=Furniture)
    bearing: Bearing = LEVEL


def way_of(
    screened: Screened, situation: Situation, index: int, words: Words, light: Light | None = None
) -> tuple[Moment, ...]:
    """Standing, each station of the gentlest way, and the set-up itself; nothing where somebody stands anyway."""
    # Loaded with the first figure: whoever draws none does without.
    from asketa_core.figure.svg import render  # noqa: PLC0415

    if not screened.ways:
        return ()
    way = screened.way_at(index)
    side = SIDES[0] if screened.variation.shared else screened.side
    # All to one scale, so that going down is seen.
    tall_cm = situation.body.stature_cm + ABOVE_HEAD_CM
    seen = View.SIDE_LEFT if screened.side is Side.LEFT else View.SIDE_RIGHT
    found = []
    for setting in _settings(screened, situation, way, index):
        says = say("moments", setting.code)
        drawn = render(
            _scene(setting, situation, side, screened.variation.shared),
            seen,
            words(says),
            light=light,
            small=True,
            tall_cm=tall_cm,
        )
        found.append(Moment(drawn, says))
    arrived = say("moments", "arrived", rung=screened.variation.short)
    scene = scene_of(screened, situation.body, situation.room, index)
    view = lane_view(screened.variation, screened.side)
    last = render(scene, view, words(arrived), light=light, small=True, tall_cm=tall_cm)
    return (*found, Moment(last, arrived))


def _scene(setting: _Setting, situation: Situation, side: Side, shared: bool) -> Scene:
    skeleton = skeleton_of(setting.posture, situation.body, setting.hands, bearing=setting.bearing)
    under = skeleton.spine[0] - np.array([setting.seat_behind_cm, 0.0, 0.0])
    supports = [Support(setting.seat, under, Rest.SEAT)] if setting.seat.layers else []
    return build_scene(skeleton, situation.body, side, supports, situation.room, setting.furniture, both_worked=shared)


def _settings(screened: Screened, situation: Situation, way: Way, index: int) -> Iterator[_Setting]:
    """What is shown before the set-up itself."""
    stations = [stage.posture for stage in screened.stations_at(index)]
    place, _, technique = way.name.partition("_")
    chair = {each.id: each for each in transfers().chair}
    floor = {each.id: each for each in transfers().floor}
    if way.name in floor:
        yield from _to_the_floor(floor[way.name], stations, situation)
    elif place in ("bed", "plinth"):
        yield from _onto_a_bed("bed" if place == "bed" else "plinth", chair[technique], stations, screened, situation)
    else:
        seat = screened.grid.stacks(index).get(screened.variation.recipe.seat_slot or "", FLOOR)
        yield from _onto_a_chair(chair[way.name], stations[0], seat, situation)


def _standing(situation: Situation) -> Posture:
    return settle_standing_quietly(situation.body, situation.ranges)


def _ankles_cm(posture: Posture) -> float:
    """How far the ankles are ahead of the hips."""
    return float(np.mean([leg.ankle[0] - leg.hip[0] for leg in (posture.leg(side) for side in SIDES)]))


def _press(technique: Technique) -> Hands:
    """On the arms of the chair or the edge of the bed, else on the thighs."""
    return Hands(on="beside" if technique.needs_arms else "thighs")


def _onto_a_chair(technique: Technique, leaving: Posture, seat: Stack, situation: Situation) -> Iterator[_Setting]:
    standing = _standing(situation)
    # The feet stay where they are while the hips go back and down.
    behind = _ankles_cm(leaving) - _ankles_cm(standing)
    yield _Setting("before_chair", standing, seat=seat, seat_behind_cm=behind)
    yield _Setting("leaving", leaving, hands=_press(technique), seat=seat)


def _to_the_floor(way: FloorWay, stations: Sequence[Posture], situation: Situation) -> Iterator[_Setting]:
    standing = _standing(situation)
    chair = Furniture(chair_ahead_cm=_ankles_cm(standing) + AHEAD_CM) if way.chair else Furniture()
    yield _Setting("at_chair" if way.chair else "standing", standing, furniture=chair)
    for station, posture in zip(way.stations, stations, strict=True):
        hands, furniture = _held(station, way)
        yield _Setting(station.posture, posture, hands=hands, furniture=furniture)


def _held(station: Station, way: FloorWay) -> tuple[Hands, Furniture]:
    """What the hands do at a station, and what stands there."""
    if station.posture == "floor_sitting":
        return Hands(on="floor_behind"), Furniture()
    if station.posture == "low_sitting":
        half, deep = BOLSTER_BREADTH_CM / 2, BOLSTER_DEPTH_CM / 2
        low, high = np.array([-deep - 4, -half, 0.0]), np.array([deep - 4, half, station.seat_cm])
        bolster = Box(low, high, "cotton", kind="bolster")
        return Hands(on="chair_beside"), Furniture(chair_beside=True, boxes=(bolster,))
    if not way.chair:
        return Hands(on="thighs"), Furniture()
    return Hands(on="chair_in_front"), Furniture(chair_in_front=True)


def _onto_a_bed(
    bed: Bed, technique: Technique, stations: Sequence[Posture], screened: Screened, situation: Situation
) -> Iterator[_Setting]:
    height = situation.room.places.get(bed, BED_HEIGHT_CM)
    standing, (leaving, rolling) = _standing(situation), stations
    behind = _ankles_cm(leaving) - _ankles_cm(standing)
    yield _Setting("before_bed", standing, furniture=Furniture(boxes=bed_from_its_end(bed, height, -behind)))
    yield _Setting(
        "leaving", leaving, hands=_press(technique), furniture=Furniture(boxes=bed_from_its_end(bed, height, 0.0))
    )
    yield _Setting(
        "on_side", rolling, hands=Hands(on="forward"), bearing=Bearing(on_side=screened.side),
        furniture=Furniture(lying=True, on_side=True, bed=bed),
    )  # fmt: skip
