"""The ``posture`` command: one settled posture, with its joint positions and every read-out."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from pydantic import Field

from asketa_core.body.measures import Body
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity, Range, Ranges
from asketa_core.datafiles import Record
from asketa_core.errors import InputError
from asketa_core.poses.library import Variation, standard_library
from asketa_core.poses.posture import NOT_MODELLED, unit_of
from asketa_core.poses.recipe import NumberSlot, ShareOfRange, StackSlot
from asketa_core.poses.settle import Posture, settle_pose
from asketa_core.units import SIDES, Array, Side


class BodyRequest(Record):
    stature_cm: float
    weight_kg: float = 70.0
    measured: dict[str, float] = {}
    """Segments taken by tape, cm, by their name in the norms."""


class RangeRequest(Record):
    quantity: Quantity
    side: Side
    value_deg: float
    error_deg: float = Field(default=5.0, gt=0, le=30)


class PostureRequest(Record):
    """``setup`` gives each slot a number: heights under load and distances in cm, angles in degrees.
    Slots left out stay plain; stacks then count as the floor, and the seat as level for this body."""

    variation: str
    side: Side
    body: BodyRequest
    ranges: tuple[RangeRequest, ...] = ()
    setup: dict[str, float] = {}


def run_posture(request: PostureRequest) -> dict[str, Any]:
    """Settle one posture. Read-outs carry the value at the middle of the ranges, the lowest and highest
    over low, middle and high ranges, and the error."""
    rung = standard_library().variation(request.variation)
    body = Body(request.body.stature_cm, request.body.weight_kg, request.body.measured)
    ranges = _ranges(request)
    posture = settle_pose(rung, request.side, body, ranges, _setup(rung, request, body, ranges))
    return {
        "variation": rung.id,
        "side": request.side.value,
        "joints": {side.value: _joints(posture, side) for side in SIDES},
        "pelvis": {"centre": _pelvis(posture), "pitch_deg": posture.pitch_deg},
        "readouts": _readouts(posture),
        "not_modelled": list(NOT_MODELLED),
        "troubles": [
            {"code": trouble.value, "side": side.value, "amount": amount} for trouble, side, amount in posture.troubles
        ],
    }


def _ranges(request: PostureRequest) -> Ranges:
    measured = {}
    for place, given in enumerate(request.ranges):
        low, high = PLAUSIBLE_DEG[given.quantity]
        if not low <= given.value_deg <= high:
            raise InputError(
                f"ranges.{place}.value_deg",
                f"this is outside {low:g}–{high:g}°.",
                "Check the reading; it is in degrees.",
            )
        measured[(given.quantity, given.side)] = Range(given.value_deg, given.error_deg, measured=True)
    return Ranges.from_measured(measured)


def _setup(rung: Variation, request: PostureRequest, body: Body, ranges: Ranges) -> dict[str, float]:
    plain = dict(_plain_numbers(rung, request, body, ranges))
    unknown = set(request.setup) - set(plain)
    if unknown:
        raise InputError(f"setup.{min(unknown)}", "this variation has no such slot.", f"Its slots: {', '.join(plain)}.")
    return plain | request.setup


def _plain_numbers(rung: Variation, request: PostureRequest, body: Body, ranges: Ranges) -> Iterator[tuple[str, float]]:
    for name, slot in rung.setup_slots.items():
        if isinstance(slot, NumberSlot):
            yield name, _plain_number(slot, ranges, request.side)
        elif isinstance(slot, StackSlot) and slot.base == "chair":
            yield name, body.level_seat_cm
        elif isinstance(slot, StackSlot):
            low = slot.between_cm[0] if slot.between_cm is not None else 0.0
            yield name, low if isinstance(slot.plain, str) else float(slot.plain)


def _plain_number(slot: NumberSlot, ranges: Ranges, side: Side) -> float:
    if isinstance(slot.plain, ShareOfRange):
        return ranges.get(slot.plain.of, side).value_deg * slot.plain.percent / 100
    return slot.plain


def _pelvis(posture: Posture) -> list[float]:
    return [(a + b) / 2 for a, b in zip(*(_point(posture.leg(side).hip) for side in SIDES), strict=True)]


def _point(point: Array) -> list[float]:
    return [float(value) + 0.0 for value in point]


def _joints(posture: Posture, side: Side) -> dict[str, list[float]]:
    leg = posture.leg(side)
    return {"hip": _point(leg.hip), "knee": _point(leg.knee), "ankle": _point(leg.ankle)}


def _readouts(posture: Posture) -> list[dict[str, Any]]:
    found = []
    for readout, side in posture.readouts:
        low, high, error = posture.spread(readout, side)
        found.append(
            {
                "readout": readout.value,
                "side": side.value if side is not None else None,
                "unit": unit_of(readout),
                "value": posture.middle(readout, side),
                "low": low,
                "high": high,
                "error": error,
            }
        )
    return found
