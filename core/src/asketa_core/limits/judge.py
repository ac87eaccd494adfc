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
from asketa_core.poses.posture import Posture
from asketa_core.units import Array, Mask, Side

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


def _term_margins(term: Term, side: Side | None, posture: Posture) -> tuple[Array, Array] | None:
    """Margins of one term in units of error over (levels, n): as judged, and for the error band.

    ``None`` where the posture has no such read-out.
    """
    if term.flag is not None:
        present = posture.flags.get((term.flag, side), posture.flags.get((term.flag, None)))
        if present is None:
            return None
        level = np.where(present, -np.inf, np.inf)[None, :]
        return level, level
    assert term.readout is not None
    key = (term.readout, side) if (term.readout, side) in posture.readouts else (term.readout, None)
    if key not in posture.readouts:
        return None
    values = posture.readouts[key]
    raw = term.value - values if term.above is not None else values - term.value
    _, _, error = posture.spread(*key)
    if term.neutral:
        slack = raw + NEUTRAL_SLACK_DEG
        return slack / error, np.where(slack < -TOUCHING, -np.inf, np.inf)
    return raw / error, raw / error


def judge(limit: Limit, posture: Posture, phase: Phase, size: int) -> Judgement | None:
    """One limit against a posture; ``None`` when the limit does not concern it."""
    if phase not in limit.phases:
        return None
    if not limit.terms:
        always = np.full(size, int(limit.severity), dtype=np.int8)
        return Judgement(limit, phase, always, np.full(size, -np.inf), np.zeros(size, dtype=bool))
    margins = [_term_margins(term, limit.side, posture) for term in limit.terms]
    if any(margin is None for margin in margins):
        return None
    judged = np.full((1, 1), -np.inf)
    band = np.full((1, 1), -np.inf)
    for pair in margins:
        assert pair is not None
        judged = np.maximum(judged, pair[0])
        band = np.maximum(band, pair[1])
    worst = np.broadcast_to(judged.min(axis=0), (size,))
    beyond = worst < -TOUCHING
    close = np.broadcast_to(band.min(axis=0), (size,)) < 1.0 - TOUCHING
    within = close & ~beyond
    if limit.exact or posture.exempt_from_band or all(term.readout is None for term in limit.terms):
        within = np.zeros(size, dtype=bool)
    severity = np.where(beyond, int(limit.severity), np.where(within, int(Severity.CAUTION), 0)).astype(np.int8)
    return Judgement(limit, phase, severity, worst, within)


def judge_all(limits: Iterable[Limit], posture: Posture, phase: Phase, size: int) -> list[Judgement]:
    found = (judge(limit, posture, phase, size) for limit in limits)
    return [judgement for judgement in found if judgement is not None]


@dataclass(frozen=True, slots=True)
class Totals:
    """What a batch of set-ups comes to: does anything stop or ask, how many kinds of caution, and
    the smallest margin in units of error; each (n,)."""

    stops: Levels
    asks: Levels
    cautions: Levels
    margin: Array


def total(judgements: Sequence[Judgement], size: int) -> Totals:
    """Combine judgements; limits of one kind count once, by the hardest."""
    by_kind: dict[tuple[object, ...], Levels] = {}
    margin = np.full(size, np.inf)
    for judgement in judgements:
        kind = judgement.limit.kind
        worst = by_kind.get(kind)
        by_kind[kind] = judgement.severity if worst is None else np.maximum(worst, judgement.severity)
        margin = np.minimum(margin, judgement.margin)
    counted = (Severity.STOP, Severity.ASK, Severity.CAUTION)
    counts = {level: np.zeros(size, dtype=np.int8) for level in counted}
    for severity in by_kind.values():
        for level in counted:
            counts[level] += severity == int(level)
    return Totals(counts[Severity.STOP], counts[Severity.ASK], counts[Severity.CAUTION], margin)
