"""Comparing a posture with limits, for a whole batch of set-ups at once.

The worst of the client's low, middle and high ranges is judged. Beyond a limit its severity holds;
inside but nearer than the read-out's error it is a caution. A conjunction's margin is the largest of
its terms' margins, each measured in units of its own error.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from asketa_core.limits.model import NEUTRAL_SLACK_DEG, Kind, Limit, Phase, Severity, Term
from asketa_core.poses.posture import Indices, Key, Posture, lowest
from asketa_core.units import SIDES, Array, Mask, Side

Levels = NDArray[np.int8]

TOUCHING = 1e-9
"""Limits are inclusive: a value this close beyond one still keeps it."""


@dataclass(frozen=True, slots=True)
class Judgement:
    """One limit against a posture. Over the k cases of what it reads: ``severity`` holds ``Severity`` values,
    ``margin`` the worst margin in units of error (negative beyond), ``within_error`` marks cautions that are only
    the error band. ``rows`` (n,) is the case of each set-up."""

    limit: Limit
    phase: Phase
    severity: Levels
    margin: Array
    within_error: Mask
    rows: Indices

    def severity_at(self, setup: int) -> int:
        return int(self.severity[self.rows[setup]])

    def margin_at(self, setup: int) -> float:
        return float(self.margin[self.rows[setup]])

    def within_error_at(self, setup: int) -> bool:
        return bool(self.within_error[self.rows[setup]])


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
    if not any(mask.any() for mask in present):
        return None
    level = np.where(np.any(present, axis=0), -np.inf, np.inf)[None, :]
    return _Margins(level, level, posture.own_rows)


def _term_margins(term: Term, side: Side | None, posture: Posture) -> _Margins | None:
    """``None`` where the posture has no such read-out, or counts as no such thing in any set-up."""
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


@dataclass(frozen=True, slots=True)
class _Terms:
    """Margins of terms against one posture; rules of several records often share them."""

    posture: Posture
    known: dict[tuple[Term, Side | None], _Margins | None] = field(default_factory=dict)

    def margins(self, limit: Limit) -> list[_Margins] | None:
        """Those of every term of a limit; ``None`` when one of them does not concern the posture."""
        found = []
        for term in limit.flags_first:
            key = (term, limit.side)
            if key not in self.known:
                self.known[key] = _term_margins(term, limit.side, self.posture)
            margins = self.known[key]
            if margins is None:
                return None
            found.append(margins)
        return found


def judge(limit: Limit, posture: Posture, phase: Phase) -> Judgement | None:
    """One limit against a posture; ``None`` when the limit does not concern it."""
    return next(iter(judge_all([limit], posture, phase)), None)


def _judge_together(limit: Limit, margins: Sequence[_Margins], posture: Posture, phase: Phase) -> Judgement:
    """A limit whose terms must all be exceeded at the same end of the ranges."""
    rows = margins[0].rows
    together = all(m.rows is rows for m in margins)
    judged, band = (margins[0].judged, margins[0].band) if together else _expand(margins[0])
    for more in margins[1:]:
        own_judged, own_band = (more.judged, more.band) if together else _expand(more)
        judged, band = np.maximum(judged, own_judged), np.maximum(band, own_band)
    worst = lowest(judged)
    beyond = worst < -TOUCHING
    if _has_no_band(limit, posture) or all(term.readout is None for term in limit.terms):
        within = np.zeros(len(worst), dtype=bool)
    else:
        within = (lowest(band) < 1.0 - TOUCHING) & ~beyond
    severity = np.where(beyond, int(limit.severity), np.where(within, int(Severity.CAUTION), 0)).astype(np.int8)
    return Judgement(limit, phase, severity, worst, within, rows if together else posture.own_rows)


def _always(limit: Limit, posture: Posture, phase: Phase) -> Judgement:
    """A limit without terms bites in every set-up alike."""
    one = np.zeros(posture.size, dtype=np.int32)
    always = np.array([int(limit.severity)], dtype=np.int8)
    return Judgement(limit, phase, always, np.array([-np.inf]), np.zeros(1, dtype=bool), one)


def _has_no_band(limit: Limit, posture: Posture) -> bool:
    return limit.exact or posture.exempt_from_band


def _expand(margins: _Margins) -> tuple[Array, Array]:
    judged = margins.judged[:, margins.rows]
    return judged, judged if margins.band is margins.judged else margins.band[:, margins.rows]


def judge_all(limits: Iterable[Limit], posture: Posture, phase: Phase) -> list[Judgement]:
    """Every limit against a posture; those that do not concern it are left out.

    Limits of one plain term on one read-out are judged together: there are many of them, and each alone would
    cost several passes over few numbers.
    """
    found: list[Judgement] = []
    terms = _Terms(posture)
    together: dict[tuple[Key, bool], list[Limit]] = {}
    for limit in limits:
        if phase not in limit.phases:
            continue
        if not limit.terms:
            found.append(_always(limit, posture, phase))
            continue
        term = limit.terms[0]
        if len(limit.terms) > 1 or term.readout is None or term.neutral:
            margins = terms.margins(limit)
            if margins is not None:
                found.append(_judge_together(limit, margins, posture, phase))
        elif (key := posture.key(term.readout, limit.side)) is not None:
            together.setdefault((key, term.above is not None), []).append(limit)
    for (key, above), group in together.items():
        found += _judge_group(group, key, above, posture, phase)
    return found


def _judge_group(limits: Sequence[Limit], key: Key, above: bool, posture: Posture, phase: Phase) -> Iterator[Judgement]:
    """Limits on one side of one read-out, as rows over its cases."""
    ends, rows = posture.extremes(key), posture.readouts[key].rows
    values = np.array([[limit.terms[0].value] for limit in limits])
    margin = (values - ends.high if above else ends.low - values) / ends.error
    beyond = margin < -TOUCHING
    banded = np.array([[not _has_no_band(limit, posture)] for limit in limits])
    within = (margin < 1.0 - TOUCHING) & ~beyond & banded
    hardness = np.array([[int(limit.severity)] for limit in limits], dtype=np.int8)
    severity = np.where(beyond, hardness, within.astype(np.int8) * np.int8(Severity.CAUTION))
    for at, limit in enumerate(limits):
        yield Judgement(limit, phase, severity[at], margin[at], within[at], rows)


@dataclass(frozen=True, slots=True)
class Summary:
    """What a posture's judgements come to for each of its n set-ups: the hardest severity by kind of limit (kinds
    that bite nowhere left out), and the smallest margin in units of error."""

    severity: Mapping[Kind, Levels]
    margin: Array


def summarise(judgements: Iterable[Judgement], size: int) -> Summary:
    by_kind: dict[Kind, Levels] = {}
    nearest: dict[int, tuple[Array, Indices]] = {}
    for judgement in judgements:
        rows = judgement.rows
        # Judgements that read the same cases are folded there, before they are spread over the set-ups.
        known = nearest.get(id(rows))
        margin = judgement.margin if known is None else np.minimum(known[0], judgement.margin)
        nearest[id(rows)] = (margin, rows)
        if judgement.severity.any():
            severity = judgement.severity[rows]
            worst = by_kind.get(judgement.limit.kind)
            by_kind[judgement.limit.kind] = severity if worst is None else np.maximum(worst, severity)
    margin = np.full(size, np.inf)
    for least, rows in nearest.values():
        margin = np.minimum(margin, least[rows])
    return Summary(by_kind, margin)


@dataclass(frozen=True, slots=True)
class Totals:
    """What a batch of set-ups comes to: does anything stop or ask, how many kinds of caution, and
    the smallest margin in units of error; each (n,)."""

    stops: Levels
    asks: Levels
    cautions: Levels
    margin: Array


def total(parts: Sequence[tuple[Summary, Indices | None]], size: int) -> Totals:
    """Combine several postures; limits of one kind count once, by the hardest.

    Each part comes with the case of each of the ``size`` set-ups, ``None`` where it has one for each.
    """
    by_kind: dict[Kind, Levels] = {}
    margin = np.full(size, np.inf)
    for summary, rows in parts:
        for kind, own in summary.severity.items():
            severity = own if rows is None else own[rows]
            worst = by_kind.get(kind)
            by_kind[kind] = severity if worst is None else np.maximum(worst, severity)
        margin = np.minimum(margin, summary.margin if rows is None else summary.margin[rows])
    stops, asks, cautions = (np.zeros(size, dtype=np.int8) for _ in range(3))
    for severity in by_kind.values():
        stops += severity == int(Severity.STOP)
        asks += severity == int(Severity.ASK)
        cautions += severity == int(Severity.CAUTION)
    return Totals(stops, asks, cautions, margin)
