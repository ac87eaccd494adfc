"""A body and its ranges as the engine reads them."""

from __future__ import annotations

from typing import Any

import numpy as np

from asketa_core.body.belly import half_axes_cm
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.ranges import PINCH_EARLIER_MOST_DEG, PINCH_FULL_CROSSING_DEG, Ranges
from asketa_core.body.spine import HAMSTRING_COUPLING
from asketa_core.kernel.codes import Bound, Level, Motion, Who
from asketa_core.kernel.records import BODY, HIP, Client, Record, many
from asketa_core.kernel.shared import GRAVITY
from asketa_core.recent import Itself, Recent
from asketa_core.units import SIDES, Side


def client_of(body: Body, ranges: Ranges) -> Client:
    return Client(body_of(body), rom_of(ranges), hips_of(ranges), seen_of(ranges))


def _side(side: Side) -> int:
    return Who[side.name].value


def body_record(body: Body) -> Record:
    """One body as the engine reads it; the last few are kept, for figures are drawn of the same."""
    return _records.get(Itself(body), lambda: body_of(body)[0])


_records: Recent[Record] = Recent(32)


def body_of(body: Body) -> Any:
    """A body as the engine reads it, (1,)."""
    bodies = many(1, BODY)
    found = bodies[0]
    norms = body_norms()
    for segment in norms.segments:
        found[segment] = body.length_cm(segment)
    for part, mass in norms.masses.items():
        found[f"{part}_mass"], found[f"{part}_centre"] = mass.fraction, mass.centre
    found.stature, found.weight = body.stature_cm, body.weight_kg
    found.trunk = body.length_cm("hip_to_l5s1") + body.length_cm("lumbar") + body.length_cm("thorax")
    found.arms_mass = 2 * sum(norms.masses[name].fraction for name in ("upper_arm", "forearm", "hand"))
    found.upper_mass, found.upper_lever = _upper_mass_lever(body)
    found.reference_moment = reference_moment_nm(body)
    found.pregnant = body.pregnancy is not None
    found.belly_forward, found.belly_aside, found.belly_along = half_axes_cm(body)
    return bodies


def _upper_mass_lever(body: Body) -> tuple[float, float]:
    """Mass fraction of everything above the hips, and its sum of mass fraction × distance (cm) along a straight trunk; arms
    hang at the shoulders."""
    masses = body_norms().masses
    l5s1, lumbar = body.length_cm("hip_to_l5s1"), body.length_cm("lumbar")
    thorax, head = body.length_cm("thorax"), body.length_cm("neck_and_head")
    arms = 2 * sum(masses[name].fraction for name in ("upper_arm", "forearm", "hand"))
    parts = (
        (masses["pelvis"].fraction, 0.5 * l5s1),
        (masses["lumbar"].fraction, l5s1 + 0.5 * lumbar),
        (masses["thorax"].fraction, l5s1 + lumbar + 0.5 * thorax),
        (masses["head_and_neck"].fraction, l5s1 + lumbar + thorax + masses["head_and_neck"].centre * head),
        (arms, l5s1 + lumbar + thorax - body.length_cm("shoulder_below_c7")),
    )
    return sum(mass for mass, _ in parts), sum(mass * distance for mass, distance in parts)


def reference_moment_nm(body: Body) -> float:
    """Bending moment at T12/L1 standing upright with the arms held forward: about 20 N·m at 170 cm and 70 kg."""
    masses = body_norms().masses
    upper, fore, hand = (body.length_cm(name) for name in ("upper_arm", "forearm", "hand"))
    levers = (
        (masses["upper_arm"], upper * masses["upper_arm"].centre),
        (masses["forearm"], upper + fore * masses["forearm"].centre),
        (masses["hand"], upper + fore + hand * masses["hand"].centre),
    )
    total = sum(2 * mass.fraction * lever for mass, lever in levers)
    return body.weight_kg * GRAVITY * total / 100


def rom_of(ranges: Ranges) -> Any:
    """Ranges of motion by side, ``Motion`` and ``Level``, in degrees."""
    found = np.zeros((2, len(Motion), len(Level)))
    for (quantity, side), own in ranges.by_side.items():
        found[_side(side), Motion[quantity.name]] = own.at_levels()
    return found


def hips_of(ranges: Ranges) -> Any:
    found = many(2, HIP)
    for side in SIDES:
        hip = found[_side(side)]
        hip.coupling = ranges.coupling.get(side, HAMSTRING_COUPLING)
        pinch = ranges.groin_pinch.get(side)
        if pinch is None:
            continue
        # Where only the figure straight ahead is known it stays there outward, and comes as early as it can at full
        # crossing (judgement).
        later = 0.0 if pinch.turned_out_deg is None else pinch.turned_out_deg - pinch.straight_deg
        slope = PINCH_EARLIER_MOST_DEG / PINCH_FULL_CROSSING_DEG
        if pinch.turned_out_deg is not None:
            slope = later / pinch.out_at_deg
        hip.pinches, hip.pinch_straight, hip.pinch_later, hip.pinch_slope = 1, pinch.straight_deg, later, slope
        hip.pinch_out_at, hip.pinch_earlier_most = pinch.out_at_deg, PINCH_EARLIER_MOST_DEG
    return found


def seen_of(ranges: Ranges) -> Any:
    found = np.zeros((len(Bound), 2), np.int8)
    for trouble, side in ranges.seen:
        found[Bound[trouble.upper()], _side(side)] = 1
    return found
