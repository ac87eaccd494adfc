"""A client's limits as the engine reads them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any, cast

import numpy as np

from asketa_core.kernel.codes import Bound, Read
from asketa_core.kernel.records import LIMIT, TERM, LimitTable
from asketa_core.limits.model import ALL_PHASES, Kind, Limit, Phase
from asketa_core.poses.numbered import BOUND_OF, FLAG_OF, READ_OF, TROUBLES, who
from asketa_core.poses.posture import LEAST_ERROR, VARIES_BEYOND, Readout, Trouble, unit_of
from asketa_core.poses.recipe import Flag
from asketa_core.units import SIDES, Side

PHASE_BITS: dict[Phase, int] = {phase: 1 << at for at, phase in enumerate(ALL_PHASES)}

QUANTITIES_READ = 3 * len(Read)
"""Read-outs by whom they are about come first among the quantities cautions are about."""

BOUND_ABOUT: dict[Trouble, Readout] = {
    Trouble.KNEE_TWIST: Readout.KNEE_TWIST,
    Trouble.KNEE_RANGE: Readout.KNEE_FLEXION,
    Trouble.HIP_USE: Readout.HIP_USE_PERCENT,
    Trouble.HIP_EXTENSION: Readout.HIP_EXTENSION,
    Trouble.ANKLE_RANGE: Readout.DORSIFLEXION,
    Trouble.SHIN_STEEP: Readout.SHIN_SLOPE,
    Trouble.SEAT_TOO_HIGH: Readout.THIGH_DOWN,
    Trouble.BACK_ROUNDS: Readout.SPINE_FLEXION,
    Trouble.BACK_HOLLOWS: Readout.SPINE_EXTENSION,
}
"""What a bound is about, so that it and a caution about the same read-out count once."""

OF_THE_BACK = frozenset({Readout.SPINE_FLEXION, Readout.SPINE_EXTENSION})


@dataclass
class Numbering:
    """Numbers for kinds of limit and for what cautions are about, given as they come."""

    kinds: dict[Kind, int] = field(default_factory=dict)
    others: dict[object, int] = field(default_factory=dict)

    def kind(self, kind: Kind) -> int:
        return self.kinds.setdefault(kind, len(self.kinds))

    def other(self, quantity: object) -> int:
        """What is no read-out: flags, limits without terms, bounds."""
        return self.others.setdefault(quantity, QUANTITIES_READ + len(self.others))

    def bounds(self) -> Any:
        """What each bound is about, by ``Bound`` and side."""
        found = np.zeros((len(Bound), 2), np.int64)
        for trouble in TROUBLES:
            for side in SIDES:
                found[BOUND_OF[trouble], who(side)] = self._about(trouble, side)
        return found

    def _about(self, trouble: Trouble, side: Side) -> int:
        readout = BOUND_ABOUT.get(trouble)
        if readout is None:
            return self.other(("bound", trouble, side))
        return READ_OF[readout] * 3 + who(None if readout in OF_THE_BACK else side)

    @property
    def sizes(self) -> tuple[int, int]:
        """How many kinds and how many quantities there are."""
        return len(self.kinds), QUANTITIES_READ + len(self.others)

    def copy(self) -> Numbering:
        return Numbering(dict(self.kinds), dict(self.others))


@dataclass(frozen=True)
class Encoded:
    """Limits in a table, with the numbering their kinds and quantities follow."""

    table: LimitTable
    numbering: Numbering

    def also(self, more: Sequence[Limit]) -> Encoded:
        """The same with a few limits more."""
        if not more:
            return self
        numbering = self.numbering.copy()
        limits, terms = _limits(more, numbering)
        own = self.table
        limits["first"] += len(own.terms)
        table = LimitTable(
            np.concatenate([own.limits, limits]), np.concatenate([own.terms, terms]), own.quantities, *numbering.sizes
        )
        return Encoded(table, numbering)


def encode(limits: Sequence[Limit]) -> Encoded:
    """A client's limits as numbers."""
    numbering = Numbering()
    quantities = numbering.bounds()
    limits_and_terms = _limits(limits, numbering)
    return Encoded(LimitTable(*limits_and_terms, quantities, *numbering.sizes), numbering)


def _limits(limits: Sequence[Limit], numbering: Numbering) -> tuple[Any, Any]:
    rows: list[tuple[Any, ...]] = []
    terms: list[tuple[Any, ...]] = []
    for limit in limits:
        phases = sum(PHASE_BITS[phase] for phase in dict.fromkeys(limit.phases))
        rows.append(
            (
                int(limit.severity), numbering.kind(limit.kind), who(limit.side), phases, len(terms), len(limit.terms),
                limit.ends == "middle", limit.exact, limit.spares_gentle, numbering.other(_of_flags(limit)),
            )
        )  # fmt: skip
        for term in limit.flags_first:
            read = -1 if term.readout is None else READ_OF[term.readout]
            unit = "" if term.readout is None else unit_of(term.readout)
            flag = -1 if term.flag is None else FLAG_OF[cast(Flag, term.flag)]
            terms.append(
                (read, flag, term.above is not None, term.neutral, term.value, LEAST_ERROR.get(unit, 0.0),
                 VARIES_BEYOND.get(unit, 1e-9))
            )  # fmt: skip
    return _array(rows, LIMIT), _array(terms, TERM)


def _array(rows: Iterable[tuple[Any, ...]], dtype: Any) -> Any:
    return np.array(list(rows), dtype=dtype)


def _of_flags(limit: Limit) -> object:
    """What a caution of a limit is about where it names no read-out."""
    if not limit.terms:
        return (limit.code,)
    return (limit.side, *sorted(term.flag for term in limit.terms if term.flag is not None))
