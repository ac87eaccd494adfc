"""What a variation itself asks: of its shape, as a caution, and the tests that come before it."""

from __future__ import annotations

from collections.abc import Iterator

from asketa_core.body.ranges import Ranges
from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import Gate
from asketa_core.units import SIDES, Side


def own_limits(variation: Variation, side: Side, ranges: Ranges) -> list[Limit]:
    """What the variation itself asks: of its shape, as a caution, and the tests that come before it."""
    found = [
        _of_shape(f"gate.{code}", leg, severity)
        for gate in variation.gates
        for leg in (SIDES if gate.legs == "both" else (side,))
        for code, severity in _gate(gate, leg, ranges)
    ]
    steepest = variation.recipe.shin_near_level_deg
    if steepest is not None:
        term = Term(readout=Readout.SHIN_SLOPE, above=steepest)
        found.append(_of_shape("shape.shin_level", side, Severity.CAUTION, term))
    return found


def _gate(gate: Gate, leg: Side, ranges: Ranges) -> Iterator[tuple[str, Severity]]:
    """What is left open by one test on one leg: never tried asks, not passed closes."""
    if gate.range is None:
        result = ranges.tests.get((gate.code, leg), "not_tried")
        passed = None if result == "not_tried" else result == "passed"
    else:
        own = ranges.get(gate.range, leg)
        passed = own.value_deg >= (gate.at_least or 0.0) if own.measured else None
    if passed is None:
        yield f"{gate.code}_unmeasured", Severity.ASK
    elif not passed:
        yield gate.code, Severity.STOP


def _of_shape(code: str, side: Side, severity: Severity, *terms: Term) -> Limit:
    return Limit(code, None, "shape", side, severity, terms, phases=("pose",), exact=True, ends="middle")
