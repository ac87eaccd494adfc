"""Demands of a pose on one leg beside its limits and ranges, as the facing rulers show them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields
from typing import Any, Literal

import numpy as np

from asketa_core.body.ranges import Quantity
from asketa_core.limits.model import Limit
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Readout, unit_of
from asketa_core.poses.recipe import DroppedLeg, ForcedLeg, FreeLeg, TurnedInLeg
from asketa_core.screening.situation import Situation
from asketa_core.setup.screened import Screened
from asketa_core.texts import Phrase, has, say
from asketa_core.units import SIDES, Side
from asketa_core.words import numbers
from asketa_core.words.findings import entry_label

TURNING: tuple[tuple[Readout, Quantity | None], ...] = (
    (Readout.HIP_EXTERNAL_ROTATION, Quantity.OPEN_EXTERNAL_ROTATION),
    (Readout.HIP_ABDUCTION, Quantity.OPEN_ABDUCTION),
    (Readout.KNEE_TWIST, None),
)
"""Demands of a leg turned out, with the client's range each is compared with where no limit binds."""

FOLDING: tuple[tuple[Readout, Quantity | None], ...] = ((Readout.HAMSTRING_USED_PERCENT, None),)
"""Demands of legs that stay ahead of the body."""

ALWAYS: tuple[tuple[Readout, Quantity | None], ...] = (
    (Readout.HIP_CLOSING, Quantity.HIP_FLEXION),
    (Readout.KNEE_FLEXION, Quantity.KNEE_FLEXION),
    (Readout.SPINE_FLEXION, None),
)

WHOLE_RANGE_PERCENT = 100.0


@dataclass(frozen=True, slots=True)
class Demand:
    """What a ruler reads: one read-out on one leg, the limit that is reached first, and the client's range it is compared
    with where none binds."""

    readout: Readout
    leg: Side
    range: Quantity | None
    at_least: bool
    """Less of it is worse: room that is left."""
    limit: Limit | None
    edge: float | None

    @property
    def end(self) -> Literal["low", "middle", "high"]:
        """At which end of the client's ranges it is judged, and so shown."""
        if self.limit is not None and self.limit.ends == "middle":
            return "middle"
        return "low" if self.at_least else "high"


def rulers_of(situation: Situation, screened: Screened, side: Side) -> tuple[Demand, ...]:
    """The demands worth a ruler on one side of a screened variation. Where a limit on the hip bend binds either side, the
    bend; where a pinch is recorded, the room before it."""

    def demand(readout: Readout, leg: Side, quantity: Quantity | None = None, at_least: bool = False) -> Demand:
        tightest = _tightest(situation, screened, readout, leg, at_least)
        return Demand(readout, leg, quantity, at_least, *tightest)

    found = [
        demand(readout, leg_read(screened.variation, readout, side), quantity)
        for readout, quantity in demands_of(screened.variation)
    ]
    # The trunk over the thigh is what limits speak of; a range is a joint's own and is compared with its closing.
    bends = {each: demand(Readout.HIP_BEND, each) for each in SIDES}
    if any(bend.limit is not None for bend in bends.values()):
        found.append(bends[side])
    if screened.key(Readout.GROIN_ROOM, side) is not None:
        found.append(demand(Readout.GROIN_ROOM, side, at_least=True))
    return tuple(found)


def demands_of(variation: Variation) -> tuple[tuple[Readout, Quantity | None], ...]:
    """What a variation asks that is worth a ruler, whoever does it."""
    rules = (variation.recipe.worked_rule, variation.recipe.other_rule)
    turned = any(isinstance(rule, DroppedLeg | ForcedLeg | FreeLeg | TurnedInLeg) for rule in rules)
    works = tuple(
        (Readout(work.quantity), work.range)
        for work in variation.recipe.works
        if work.quantity not in ("effort", "hip_closing")
    )
    return tuple(dict.fromkeys((*ALWAYS, *(TURNING if turned else FOLDING), *works)))


def leg_read(variation: Variation, readout: Readout, side: Side) -> Side:
    """Which leg a side's ruler reads: the worked one, but the other where the work is done there."""
    on_other = any(work.leg == "other" and work.quantity == readout.value for work in variation.recipe.works)
    return side.other if on_other else side


@dataclass(frozen=True, slots=True)
class Ruler:
    """One demand of the pose on one leg. All numbers in ``unit``; ``boundary_kind`` says whether the
    boundary is a limit or the client's own range; ``typical`` marks a range not measured on this client; ``at_least`` a
    boundary that may not be fallen short of."""

    readout: str
    name: Phrase
    technical: Phrase
    unit: str
    value: float
    low: float
    high: float
    error: float
    shown: float
    """The value at the end of the client's ranges at which it is judged."""
    boundary: float | None
    boundary_kind: str | None
    boundary_label: Phrase | None
    margin: float | None
    own_range: float | None
    typical: bool
    opposite: Phrase | None = None
    """What a value below zero is called: hollowing for a back that does not round."""
    at_least: bool = False
    rounded_to: float = 1.0
    """To how much it is rounded when it is read."""

    def facts(self) -> dict[str, Any]:
        """What is shown, in figures and codes."""
        told = ("name", "technical", "boundary_label", "opposite")
        return {each.name: getattr(self, each.name) for each in fields(self) if each.name not in told}


def rulers_on(situation: Situation, screened: Screened, index: int) -> dict[str, list[Ruler]]:
    """The rulers of either leg, by its side."""
    return {side.value: rulers_at(situation, screened, index, side) for side in SIDES}


def rulers_at(situation: Situation, screened: Screened, index: int, side: Side) -> list[Ruler]:
    """Demands of the pose on one leg against the tightest limit, else the client's range; worst first."""
    posture = screened.pose_at(index)
    found = []
    for demand in rulers_of(situation, screened, side):
        readout, leg, quantity = demand.readout, demand.leg, demand.range
        key = posture.key(readout, leg)
        assert key is not None
        value = posture.middle(*key)
        low, high, error = posture.spread(*key)
        shown = {"low": low, "middle": value, "high": high}[demand.end]
        boundary, kind = demand.edge, None if demand.limit is None else "limit"
        own = situation.ranges.get(quantity, leg) if quantity is not None else None
        usual = next((w.of_deg for w in screened.variation.recipe.works if w.quantity == readout.value), None)
        if boundary is None and usual is not None:
            boundary, kind = usual, "range"
        if boundary is None and own is not None:
            boundary, kind = own.value_deg, "range"
        if boundary is None and readout is Readout.HAMSTRING_USED_PERCENT:
            boundary, kind = WHOLE_RANGE_PERCENT, "range"
        found.append(
            Ruler(
                readout=readout.value,
                name=say("readouts", readout.value, "name"),
                technical=say("readouts", readout.value, "technical"),
                unit=unit_of(readout),
                value=value,
                low=low,
                high=high,
                error=error,
                boundary=boundary,
                boundary_kind=kind,
                boundary_label=None if demand.limit is None else entry_label(demand.limit),
                shown=shown,
                margin=None if boundary is None else (shown - boundary if demand.at_least else boundary - shown),
                own_range=None if own is None else own.value_deg,
                typical=usual is not None or (own is not None and not own.measured),
                opposite=_opposite(readout.value),
                at_least=demand.at_least,
                rounded_to=numbers.step_of(unit_of(readout)),
            )
        )
    return sorted(found, key=lambda r: r.margin if r.margin is not None else np.inf)


def _opposite(readout: str) -> Phrase | None:
    code = ("readouts", readout, "opposite")
    return say(*code) if has(*code) else None


def _bounds_of(situation: Situation) -> Mapping[tuple[Readout, bool], list[tuple[Limit, float]]]:
    """Limits on a pose that name one read-out, with their figure, by the read-out and whether it may not be fallen short
    of. Sorted once for a client and a day."""
    if "bounds" not in situation.memo:
        found: dict[tuple[Readout, bool], list[tuple[Limit, float]]] = {}
        for limit in situation.limits:
            read = [term for term in limit.terms if term.readout is not None]
            if len(read) == 1 and "pose" in limit.phases:
                readout = read[0].readout
                assert readout is not None
                found.setdefault((readout, read[0].above is None), []).append((limit, read[0].value))
        situation.memo["bounds"] = found
    bounds: Mapping[tuple[Readout, bool], list[tuple[Limit, float]]] = situation.memo["bounds"]
    return bounds


def _tightest(
    situation: Situation, screened: Screened, readout: Readout, side: Side, at_least: bool
) -> tuple[Limit | None, float | None]:
    """The limit on one read-out that is reached first, of those that the pose's flags bring into play, and its figure."""
    candidates = [
        (-value if at_least else value, -int(limit.severity), limit, value)
        for limit, value in _bounds_of(situation).get((readout, at_least), [])
        if limit.side in (side, None) and screened.concerned_by(limit)
    ]
    if not candidates:
        return None, None
    _, _, limit, value = min(candidates, key=lambda c: c[:2])
    return limit, value
