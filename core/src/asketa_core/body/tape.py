"""Turning tape measures into joint angles."""

from __future__ import annotations

from dataclasses import dataclass

from asketa_core.body.measures import Body
from asketa_core.errors import InputError
from asketa_core.kernel.shared import STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, UPRIGHT, Vec
from asketa_core.units import Side, acosd, asind


def dorsiflexion_from_wall(body: Body, toe_to_wall_cm: float) -> float:
    """Planted dorsiflexion in degrees from the knee-to-wall test, heel down."""
    foot, shin = body.length_cm("foot"), body.length_cm("lower_leg")
    knee_half_depth = body.length_cm("thigh_radius_knee")
    return float(asind((toe_to_wall_cm + 0.75 * foot - knee_half_depth) / shin))


def knee_flexion_from_heel_gap(body: Body, heel_to_seat_cm: float) -> float:
    """Knee flexion in degrees from the gap left between heel and sit bone, lying prone or kneeling.

    The ankle sits a quarter foot ahead of the heel and the hip its seat offset above the buttock, so
    the distance between joint centres is gap + both offsets.
    """
    distance = heel_to_seat_cm + 0.25 * body.length_cm("foot") + body.length_cm("hip_above_seat")
    thigh, shin = body.length_cm("thigh"), body.length_cm("lower_leg")
    return float(180.0 - acosd((thigh**2 + shin**2 - distance**2) / (2 * thigh * shin)))


def external_rotation_from_knee_height(
    body: Body, side: Side, knee_height_cm: float, foot_distance_cm: float, seat_height_cm: float
) -> float:
    """Open turning out in degrees from the height of the knee in soles-together or cross-legged sitting.

    The dropped-knee rule backwards: ``knee_height_cm`` is the knee centre above the floor,
    ``foot_distance_cm`` how far the ankle is ahead of the hips, ``seat_height_cm`` what was sat on.
    """
    # The engine is loaded with the first reading.
    from asketa_core.kernel.angles import femur_axes, hip_angles  # noqa: PLC0415
    from asketa_core.kernel.closing import knee_at, knee_circle, up_or_ahead  # noqa: PLC0415

    m = side.sign
    hip = Vec(0.0, m * body.length_cm("between_hips") / 2, float(seat_height_cm) + body.length_cm("hip_above_seat"))
    foot_on_side = body.length_cm("ankle_above_rest_on_side")
    ankle = Vec(float(foot_distance_cm), m * body.length_cm("ankle_above_sole"), foot_on_side)
    toward = up_or_ahead(hip, ankle)
    circle = knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), m, toward)
    rise = circle.radius_cm * circle.start.z
    lowest, highest = circle.centre.z - rise, circle.centre.z + rise
    if circle.reach_shortfall_cm > 0 or not lowest <= knee_height_cm <= highest:
        raise InputError(
            "knee_height_cm",
            f"this body's knee cannot be there: it would lie between {lowest:.0f} and {highest:.0f} cm.",
            "Measure again, with the distance of the foot and the height of the seat.",
        )
    knee = knee_at(circle, float(acosd((knee_height_cm - circle.centre.z) / rise)))
    femur = femur_axes(hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG)
    return hip_angles(UPRIGHT, femur, m).external_rotation_deg


TAPE_ERROR_CM = 1.0


@dataclass(frozen=True, slots=True)
class TurnedOut:
    """A tape reading as an angle: degrees and their error."""

    value_deg: float
    error_deg: float


def turning_out_from_tape(
    body: Body, side: Side, knee_height_cm: float, foot_distance_cm: float, seat_height_cm: float
) -> TurnedOut:
    """Open turning out with what a centimetre of the tape is worth here (about 2.3°)."""
    value = external_rotation_from_knee_height(body, side, knee_height_cm, foot_distance_cm, seat_height_cm)
    beside = []
    for error in (-TAPE_ERROR_CM, TAPE_ERROR_CM):
        try:
            beside.append(
                external_rotation_from_knee_height(body, side, knee_height_cm + error, foot_distance_cm, seat_height_cm)
            )
        except InputError:
            continue
    return TurnedOut(value, max((abs(other - value) for other in beside), default=TAPE_ERROR_CM))
