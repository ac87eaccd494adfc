"""How pelvis and spine share a wanted lean of the trunk."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.body.angles import flexion_allowed_at
from asketa_core.units import Array

LUMBAR_SHARE = 0.6
"""Part of the spine's flexion taken by the low back; the rest is the upper back's (judgement)."""

HAMSTRING_COUPLING = 0.65
"""Degrees of hip flexion given back per degree of knee bend (judgement; 0.3–0.8 when measured)."""


@dataclass(frozen=True, slots=True)
class TrunkShare:
    """Pelvic pitch and spine flexion in degrees; negative spine flexion is hollowing."""

    pitch_deg: Array
    spine_flexion_deg: Array

    @property
    def lumbar_flexion_deg(self) -> Array:
        return LUMBAR_SHARE * self.spine_flexion_deg

    @property
    def thoracic_flexion_deg(self) -> Array:
        return (1 - LUMBAR_SHARE) * self.spine_flexion_deg


def hip_room(
    bent_knee_flexion_deg: Array | float,
    straight_leg_raise_deg: Array | float,
    knee_flexion_deg: Array | float,
    abduction_deg: Array | float,
    coupling: Array | float = HAMSTRING_COUPLING,
    groin_pinch_flexion_deg: Array | float = np.inf,
) -> Array:
    """Largest hip flexion one side allows, in degrees.

    The bent-knee range bounds hip closing, the straight-leg raise plus the coupling times the knee
    bend bounds flexion, and so does the flexion at which the groin pinches. A client's *limits* are
    never part of this: the body must not be made to cheat round a limit by rounding the back.
    """
    by_joint = flexion_allowed_at(bent_knee_flexion_deg, abduction_deg)
    by_hamstrings = np.asarray(straight_leg_raise_deg, float) + np.asarray(coupling) * np.asarray(knee_flexion_deg)
    return np.asarray(np.minimum(np.minimum(by_joint, by_hamstrings), groin_pinch_flexion_deg))


def coupling_from_ninety_ninety(straight_leg_raise_deg: float, knee_extension_lack_deg: float) -> float:
    """A client's own hamstring coupling from the 90/90 test, clipped to 0.3–0.8.

    The default is kept where the test says nothing: a straight-leg raise of 85° or more, or a lack
    of knee extension under 10°.
    """
    if straight_leg_raise_deg >= 85 or knee_extension_lack_deg < 10:
        return HAMSTRING_COUPLING
    return float(np.clip((90 - straight_leg_raise_deg) / knee_extension_lack_deg, 0.3, 0.8))


def share_fold(
    wanted_lean_deg: Array | float,
    room_deg: Array | float,
    flexion_upright_deg: Array | float,
    least_pitch_deg: Array | float = -np.inf,
    hollow_deg: float = 0.0,
) -> TrunkShare:
    """Split a trunk lean between pelvis and spine.

    ``room_deg`` and ``flexion_upright_deg`` (hip flexion with the pelvis upright) are those of the
    side that decides; with two legs pass the smaller difference. The pelvis tips as far as the hips
    allow and never beyond the wanted lean; the spine makes up the rest. Stiff hips in upright sitting
    therefore roll the pelvis back and round the back. ``least_pitch_deg`` is where a leg behind the body
    holds the pelvis forward: past its extension the low back hollows instead. ``hollow_deg`` is what the back hollows by its own strength:
    so much further the pelvis lies forward.
    """
    lean = np.asarray(wanted_lean_deg, float)
    pitch = np.minimum(lean + hollow_deg, np.asarray(room_deg, float) - np.asarray(flexion_upright_deg, float))
    pitch = np.maximum(pitch, least_pitch_deg)
    return TrunkShare(np.asarray(pitch), np.asarray(lean - pitch))
