"""Comparing a posture with limits, for a whole batch of set-ups at once.

The worst of the client's low, middle and high ranges is judged. Beyond a limit its severity holds;
inside but nearer than the read-out's error it is a caution. A conjunction's margin is the largest of
its terms' margins, each measured in units of its own error.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from asketa_core.limits.model import NEUTRAL_SLACK_DEG, Limit, Phase, Severity, Term
from asketa_core.poses.posture import Indices, Posture
from asketa_core.units import SIDES, Array, Mask, Side

Levels = NDArray[np.int8]

TOUCHING = 1e-9
"""Limits are inclusive: a value this close beyond one still keeps it."""


@dataclass(frozen=True, slots=True)
class Judgement:
    """One limit against one posture of the batch. ``severity`` (n,) holds ``Severity`` values,
    ``margin`` (n,) the worst margin in units of error (negative beyond), ``within_error`` (n,) marks
    cautions that are only the error band."""

    limit: Limit
    phase: Phase
    severity: Levels
    margin: Array
    within_error: Mask

    def at(self, rows: NDArray[np.int32]) -> Judgement:
        """The same judgement spread over a larger grid: ``rows`` picks from this batch."""
        return Judgement(self.limit, self.phase, self.severity[rows], self.margin[rows], self.within_error[rows])

    @property
    def main_term(self) -> Term | None:
        """The read-out the sentence speaks of: the first that is not a flag."""
        return next((term for term in self.limit.terms if term.readout is not None), None)


@dataclass(frozen=True, slots=True)
class _Margins:
    """Margins of one term in units of error over (levels, k), as judged and for the error band, and the
    case of each set-up."""

    judged: Array
    band: Array
    rows: Indices


def _flag_margins(flag: str, side: Side | None, posture: Posture) -> _Margins | None:
    # A rule about the body as a whole counts a flag on either side.
    of: tuple[Side | None, ...] = (None, *SIDES) if side is None else (side, None)
    present = [posture.flags[(flag, s)] for s in of if (flag, s) in posture.flags]
    if not present:
        return None
    level = np.where(np.any(present, axis=0), -np.inf, np.inf)[None, :]
    return _Margins(level, level, np.arange(posture.size, dtype=np.int32))


def _term_margins(term: Term, side: Side | None, posture: Posture) -> _Margins | None:
    """``None`` where the posture has no such read-out or flag."""
    if term.flag is not None:
        return _flag_margins(term.flag, side, posture)
    assert term.readout is not None
    key = posture.key(term.readout, side)
    if key is None:
        return None
    column, error = posture.readouts[key], posture.extremes(key).error
    raw = term.value - column.values if term.above is not None else column.values - term.value
    if term.neutral:
        slack = raw + NEUTRAL_SLACK_DEG
        return _Margins(slack / error, np.where(slack < -TOUCHING, -np.inf, np.inf), column.rows)
    margin = raw / error
    return _Margins(margin, margin, column.rows)


def judge(limit: Limit, posture: Posture, phase: Phase) -> Judgement | None:
    """One limit against a posture; ``None`` when the limit does not concern it."""
    if phase not in limit.phases:
        return None
    n = posture.size
    if not limit.terms:
        always = np.full(n, int(limit.severity), dtype=np.int8)
        return Judgement(limit, phase, always, np.full(n, -np.inf), np.zeros(n, dtype=bool))
    margins = []
    for term in limit.terms:
        found = _term_margins(term, limit.side, posture)
        if found is None or bool((found.judged == np.inf).all()):
            return None
        margins.append(found)
    rows = margins[0].rows
    together = all(m.rows is rows for m in margins)
    judged, band = (margins[0].judged, margins[0].band) if together else _expand(margins[0])
    for more in margins[1:]:
        own_judged, own_band = (more.judged, more.band) if together else _expand(more)
        judged, band = np.maximum(judged, own_judged), np.maximum(band, own_band)
    worst = judged.min(axis=0)
    beyond = worst < -TOUCHING
    if limit.exact or posture.exempt_from_band or all(term.readout is None for term in limit.terms):
        within = np.zeros(len(worst), dtype=bool)
    else:
        within = (band.min(axis=0) < 1.0 - TOUCHING) & ~beyond
    severity = np.where(beyond, int(limit.severity), np.where(within, int(Severity.CAUTION), 0)).astype(np.int8)
    found_all = Judgement(limit, phase, severity, worst, within)
    return found_all.at(rows) if together else found_all


def _expand(margins: _Margins) -> tuple[Array, Array]:
    judged = margins.judged[:, margins.rows]
    return judged, judged if margins.band is margins.judged else margins.band[:, margins.rows]


def judge_all(limits: Iterable[Limit], posture: Posture, phase: Phase) -> list[Judgement]:
    found = (judge(limit, posture, phase) for limit in limits)
    return [judgement for judgement in found if judgement is not None]


@dataclass(frozen=True, slots=True)
class Totals:
    """What a batch of set-ups comes to: does anything stop or ask, how many kinds of caution, and
    the smallest margin in units of error; each (n,)."""

    stops: Levels
    asks: Levels
    cautions: Levels
    margin: Array


def total(parts: Sequence[tuple[Sequence[Judgement], Indices]], size: int) -> Totals:
    """Combine judgements of several postures; limits of one kind count once, by the hardest.

    Each part is judgements over a posture's own cases and the case of each of the ``size`` set-ups.
    """
    by_kind: dict[tuple[object, ...], Levels] = {}
    margin = np.full(size, np.inf)
    for judgements, rows in parts:
        plain = len(rows) == size and bool((rows == np.arange(size)).all())
        nearest: Array | None = None
        for judgement in judgements:
            nearest = judgement.margin if nearest is None else np.minimum(nearest, judgement.margin)
            if not judgement.severity.any():
                continue
            severity = judgement.severity if plain else judgement.severity[rows]
            kind = judgement.limit.kind
            worst = by_kind.get(kind)
            by_kind[kind] = severity if worst is None else np.maximum(worst, severity)
        if nearest is not None:
            margin = np.minimum(margin, nearest if plain else nearest[rows])
    counted = (Severity.STOP, Severity.ASK, Severity.CAUTION)
    counts = {level: np.zeros(size, dtype=np.int8) for level in counted}
    for severity in by_kind.values():
        for level in counted:
            counts[level] += severity == int(level)
    return Totals(counts[Severity.STOP], counts[Severity.ASK], counts[Severity.CAUTION], margin)
