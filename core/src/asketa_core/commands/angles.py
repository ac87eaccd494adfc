"""The ``angles`` command: joint angles of one leg, or where its knee goes."""

from __future__ import annotations

import math
from typing import Any

from pydantic import Field, model_validator

from asketa_core.datafiles import Record
from asketa_core.errors import InputError
from asketa_core.kernel.angles import femur_axes, hip_angles, hip_closing, knee_flexion
from asketa_core.kernel.closing import knee_at, knee_circle, up_or_ahead
from asketa_core.kernel.codes import StoppedBy
from asketa_core.kernel.drop import drop_knee
from asketa_core.kernel.shared import STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, Vec
from asketa_core.kernel.vectors import rotated
from asketa_core.units import Side

Point = tuple[float, float, float]
SAME_LENGTH_CM = 0.01


class Pelvis(Record):
    yaw_deg: float = Field(default=0.0, ge=-180, le=180)
    pitch_deg: float = Field(default=0.0, ge=-180, le=180)
    roll_deg: float = Field(default=0.0, ge=-89, le=89)


class DropRequest(Record):
    """What may stop the falling knee; ``support_z_cm`` is the height of the knee centre on its support."""

    external_rotation_deg: float
    abduction_deg: float
    support_z_cm: float


class AnglesRequest(Record):
    """Positions in cm in the world frame; exactly one of ``knee``, ``swivel_deg`` and ``drop``."""

    side: Side
    hip: Point
    ankle: Point
    thigh_cm: float | None = Field(default=None, gt=0)
    lower_leg_cm: float | None = Field(default=None, gt=0)
    pelvis: Pelvis = Pelvis()
    knee: Point | None = None
    swivel_deg: float | None = None
    drop: DropRequest | None = None
    toe_direction: Point | None = None
    planted: bool = False
    knee_flexion_limit_deg: float | None = Field(default=None, gt=0, le=180)

    @model_validator(mode="after")
    def one_way_to_the_knee(self) -> AnglesRequest:
        given = [name for name in ("knee", "swivel_deg", "drop") if getattr(self, name) is not None]
        if len(given) != 1:
            raise ValueError("give exactly one of knee, swivel_deg and drop")
        if self.knee is None and (self.thigh_cm is None or self.lower_leg_cm is None):
            raise ValueError("thigh_cm and lower_leg_cm are needed unless the knee is given")
        return self


def _number(value: float) -> float:
    """A number for JSON, never minus zero."""
    return value + 0.0


def run_angles(request: AnglesRequest) -> dict[str, Any]:
    """Answer one request; numbers in cm and degrees, ``None`` where a quantity is not determined."""
    hip, ankle = Vec(*request.hip), Vec(*request.ankle)
    toes = Vec(*request.toe_direction) if request.toe_direction is not None else FORWARD
    if math.hypot(*toes) < 1e-9:
        raise InputError("toe_direction", "this has no length.", "Give a direction such as [1, 0, 0].")
    m = request.side.sign
    pelvis = rotated(request.pelvis.pitch_deg, request.pelvis.roll_deg, request.pelvis.yaw_deg)
    stopped_by: str | None = None
    shortfall = fold = 0.0
    if request.knee is not None:
        knee = Vec(*request.knee)
        _check_given_knee(request, hip, knee, ankle)
        bend = _number(knee_flexion(hip, knee, ankle))
    else:
        assert request.thigh_cm is not None and request.lower_leg_cm is not None
        if math.dist(ankle, hip) < 1e-9:
            raise InputError("ankle", "hip and ankle are the same point.", "Move one of them.")
        toward = toes if request.planted else up_or_ahead(hip, ankle)
        circle = knee_circle(hip, ankle, request.thigh_cm, request.lower_leg_cm, m, toward)
        swivel = request.swivel_deg if request.swivel_deg is not None else 0.0
        if request.drop is not None:
            wanted = request.drop
            drop = drop_knee(
                circle, pelvis.left, m, wanted.external_rotation_deg, wanted.abduction_deg, wanted.support_z_cm
            )
            swivel, stopped_by = drop.swivel_deg, StoppedBy(drop.stopped_by).code
        knee = knee_at(circle, swivel)
        bend = _number(circle.knee_flexion_deg)
        shortfall, fold = _number(circle.reach_shortfall_cm), _number(circle.fold_shortfall_cm)
    limit = request.knee_flexion_limit_deg
    angles = hip_angles(pelvis, femur_axes(hip, knee, ankle, toes, STRAIGHT_KNEE_DEG), m)
    flexion, abduction = _number(angles.flexion_deg), _number(angles.abduction_deg)
    singular = angles.near_singular
    answer: dict[str, Any] = {
        "flexion_deg": None if singular else flexion,
        "abduction_deg": abduction,
        "external_rotation_deg": None if singular else _number(angles.external_rotation_deg),
        "hip_closing_deg": _number(hip_closing(flexion, abduction)),
        "knee_flexion_deg": bend,
        "knee": [_number(value) for value in knee],
        "stopped_by": stopped_by,
        "reach_shortfall_cm": shortfall,
        "knee_flexion_shortfall_deg": max(0.0, bend - limit) if limit is not None else 0.0,
        "near_singular": singular,
    }
    if singular:
        # Near |abduction| = 90 only the combination stays determined: F + E, or F - E adducted.
        turned = angles.external_rotation_deg if abduction >= 0 else -angles.external_rotation_deg
        answer["flexion_plus_rotation_deg"] = _number(flexion + turned)
    if fold > 0:
        answer["fold_shortfall_cm"] = fold
    if bend < STRAIGHT_KNEE_DEG and request.toe_direction is None:
        answer["toe_direction_assumed"] = True
    return answer


def _check_given_knee(request: AnglesRequest, hip: Vec, knee: Vec, ankle: Vec) -> None:
    for name, start, end, stated in (
        ("thigh_cm", hip, knee, request.thigh_cm),
        ("lower_leg_cm", knee, ankle, request.lower_leg_cm),
    ):
        length = math.dist(start, end)
        if length < 1e-9:
            raise InputError("knee", "the knee coincides with another joint.", "Check the three positions.")
        if stated is not None and abs(length - stated) > SAME_LENGTH_CM:
            raise InputError(
                name, f"this contradicts the positions, which are {length:.2f} cm apart.", "Leave it out or correct it."
            )
