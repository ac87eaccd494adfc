"""Comparing a posture with limits, for a whole batch of set-ups at once.

A record's limits are read at the worst of the client's low, middle and high ranges, what is merely comfortable at the
middle. Beyond a limit its severity holds; inside but nearer than the read-out's error it is a caution, where the read-out
is the same at every level. A conjunction's margin is the largest of its terms' margins, each measured in units of its own
error. A caution has a size: what it is beyond by, in errors.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from asketa_core.limits.model import NEUTRAL_SLACK_DEG, Kind, Limit, Phase, Severity, Term
from asketa_core.poses.posture import Extremes, Indices, Key, Posture, Readout, Trouble, lowest
from asketa_core.units import SIDES, Array, Mask, Side

Levels = NDArray[np.int8]

TOUCHING = 1e-9
"""Limits are inclusive: a value this close beyond one still keeps it."""

FLAG_SIZE = 1.0
WITHIN_ERROR_SIZE = 0.5
MOST_SIZE = 6.0
"""How large a caution is: by a flag, inside the error, and at most; beyond a figure it is 1 and the excess in errors."""

Weighed = tuple[object, ...]
"""What a caution is about. One quantity counts once, at its largest."""

BOUND_OF: Mapping[Trouble, Readout] = {
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
OF_THE_BACK = frozenset({Readout.SPINE_FLEXION, Readout.SPINE_EXTENSION})


def bound_quantity(trouble: Trouble, side: Side) -> Weighed:
    """What a bound is about, so that it and a caution about the same read-out count once."""
    readout = BOUND_OF.get(trouble)
    if readout is None:
        return ("bound", trouble, side)
    return (readout, None if readout in OF_THE_BACK else side)


WAYS: frozenset[Phase] = frozenset({"way", "transfer", "floor_transfer"})
"""The way in and out: its cautions are said, and weigh nothing."""


@dataclass(frozen=True, slots=True)
class Judgement:
    """One limit against a posture. Over the k cases of what it reads: ``severity`` holds ``Severity`` values,
    ``margin`` the worst margin in units of error (negative beyond), ``within_error`` marks cautions that are only
    the error band, ``weight`` the size of what is a caution (0 elsewhere). ``rows`` (n,) is the case of each set-up."""

    limit: Limit
    phase: Phase
    quantity: Weighed
    severity: Levels
    margin: Array
    within_error: Mask
    weight: Array
    rows: Indices

    def severity_at(self, setup: int) -> int:
        return int(self.severity[self.rows[setup]])

    def margin_at(self, setup: int) -> float:
        return float(self.margin[self.rows[setup]])

    def within_error_at(self, setup: int) -> bool:
        return bool(self.within_error[self.rows[setup]])

    def weight_at(self, setup: int) -> float:
        return float(self.weight[self.rows[setup]])


def weights(severity: Levels, margin: Array, within: Mask) -> Array:
    """Sizes of cautions; ``margin`` in errors, minus infinity for flags."""
    beyond = np.where(np.isfinite(margin), np.minimum(FLAG_SIZE - margin, MOST_SIZE), FLAG_SIZE)
    size = np.where(within, WITHIN_ERROR_SIZE, beyond)
    return np.where(severity == int(Severity.CAUTION), size, 0.0)


@dataclass(frozen=True, slots=True)
class _Margins:
    """Margins of one term in units of error over (levels, k), as judged and for the error band, whether the read-out
    differs between the levels, (k,), and the case of each set-up."""

    judged: Array
    band: Array
    varies: Mask
    rows: Indices

    def over_setups(self) -> _Margins:
        """The same with a case of its own for each set-up."""
        judged = self.judged[:, self.rows]
        band = judged if self.band is self.judged else self.band[:, self.rows]
        return _Margins(judged, band, self.varies[self.rows], self.rows)


def _flag_margins(flag: str, side: Side | None, posture: Posture) -> _Margins | None:
    # A rule about the body as a whole counts a flag on either side.
    of: tuple[Side | None, ...] = (None, *SIDES) if side is None else (side, None)
    present = [posture.flags[(flag, s)] for s in of if (flag, s) in posture.flags]
    if not any(mask.any() for mask in present):
        return None
    level = np.where(np.any(present, axis=0), -np.inf, np.inf)[None, :]
    return _Margins(level, level, np.zeros(posture.size, dtype=bool), posture.own_rows)


def _term_margins(term: Term, limit: Limit, posture: Posture) -> _Margins | None:
    """``None`` where the posture has no such read-out, or counts as no such thing in any set-up."""
    if term.flag is not None:
        return _flag_margins(term.flag, limit.side, posture)
    assert term.readout is not None
    key = posture.key(term.readout, limit.side)
    if key is None:
        return None
    column, ends = posture.readouts[key], posture.extremes(key)
    values = ends.middle[None, :] if limit.ends == "middle" else column.values
    raw = term.value - values if term.above is not None else values - term.value
    if term.neutral:
        slack = raw + NEUTRAL_SLACK_DEG
        return _Margins(slack / ends.error, np.where(slack < -TOUCHING, -np.inf, np.inf), ends.varies, column.rows)
    margin = raw / ends.error
    return _Margins(margin, margin, ends.varies, column.rows)


@dataclass(frozen=True, slots=True)
class _Terms:
    """Margins of terms against one posture; rules of several records often share them."""

    posture: Posture
    known: dict[tuple[Term, Side | None, str], _Margins | None] = field(default_factory=dict)

    def margins(self, limit: Limit) -> list[_Margins] | None:
        """Those of every term of a limit; ``None`` when one of them does not concern the posture."""
        found = []
        for term in limit.flags_first:
            key = (term, limit.side, limit.ends)
            if key not in self.known:
                self.known[key] = _term_margins(term, limit, self.posture)
            margins = self.known[key]
            if margins is None:
                return None
            found.append(margins)
        return found


def quantity_of(limit: Limit, posture: Posture) -> Weighed:
    """What a caution of a limit is about: the last read-out it names, where that stands; else its flags."""
    last = next((term.readout for term in reversed(limit.terms) if term.readout is not None), None)
    if last is not None:
        return posture.key(last, limit.side) or (last, limit.side)
    return (limit.side, *sorted(term.flag for term in limit.terms if term.flag is not None))


def judge(limit: Limit, posture: Posture, phase: Phase) -> Judgement | None:
    """One limit against a posture; ``None`` when the limit does not concern it."""
    return next(iter(judge_all([limit], posture, phase)), None)


def _judge_together(limit: Limit, margins: Sequence[_Margins], posture: Posture, phase: Phase) -> Judgement:
    """A limit whose terms must all be exceeded at the same end of the ranges."""
    rows = margins[0].rows
    together = all(m.rows is rows for m in margins)

    wide = margins if together else [each.over_setups() for each in margins]
    judged, band, varies = wide[0].judged, wide[0].band, wide[0].varies
    for more in wide[1:]:
        judged, band = np.maximum(judged, more.judged), np.maximum(band, more.band)
        varies = varies | more.varies
    worst = lowest(judged)
    beyond = worst < -TOUCHING
    if _has_no_band(limit, posture) or all(term.readout is None for term in limit.terms):
        within = np.zeros(len(worst), dtype=bool)
    else:
        within = (lowest(band) < 1.0 - TOUCHING) & ~beyond & ~varies
    severity = np.where(beyond, int(limit.severity), np.where(within, int(Severity.CAUTION), 0)).astype(np.int8)
    return Judgement(
        limit, phase, quantity_of(limit, posture), severity, worst, within, weights(severity, worst, within),
        rows if together else posture.own_rows,
    )  # fmt: skip


def _always(limit: Limit, posture: Posture, phase: Phase) -> Judgement:
    """A limit without terms bites in every set-up alike."""
    one = np.zeros(posture.size, dtype=np.int32)
    severity = np.array([int(limit.severity)], dtype=np.int8)
    margin, within = np.array([-np.inf]), np.zeros(1, dtype=bool)
    return Judgement(limit, phase, (limit.code,), severity, margin, within, weights(severity, margin, within), one)


def _has_no_band(limit: Limit, posture: Posture) -> bool:
    return limit.exact or limit.ends == "middle" or posture.exempt_from_band


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


def _worst_end(limits: Sequence[Limit], ends: Extremes, above: bool) -> Array:
    """What each limit reads, (limits, k)."""
    worst = ends.high if above else ends.low
    if all(limit.ends == "worst" for limit in limits):
        return worst[None, :]
    return np.stack([ends.middle if limit.ends == "middle" else worst for limit in limits])


def _judge_group(limits: Sequence[Limit], key: Key, above: bool, posture: Posture, phase: Phase) -> Iterator[Judgement]:
    """Limits on one side of one read-out, as rows over its cases."""
    ends, rows = posture.extremes(key), posture.readouts[key].rows
    values = np.array([[limit.terms[0].value] for limit in limits])
    read = _worst_end(limits, ends, above)
    margin = (values - read if above else read - values) / ends.error
    beyond = margin < -TOUCHING
    banded = np.array([[not _has_no_band(limit, posture)] for limit in limits])
    within = (margin < 1.0 - TOUCHING) & ~beyond & banded & ~ends.varies
    hardness = np.array([[int(limit.severity)] for limit in limits], dtype=np.int8)
    severity = np.where(beyond, hardness, within.astype(np.int8) * np.int8(Severity.CAUTION))
    weight = weights(severity, margin, within)
    for at, limit in enumerate(limits):
        yield Judgement(limit, phase, key, severity[at], margin[at], within[at], weight[at], rows)


@dataclass(frozen=True, slots=True)
class Summary:
    """What a posture's judgements come to for each of its n set-ups: the hardest severity by kind of limit and the size
    of cautions by quantity (those that bite nowhere left out), and the smallest margin in units of error."""

    severity: Mapping[Kind, Levels]
    weight: Mapping[Weighed, Array]
    margin: Array


def summarise(judgements: Iterable[Judgement], posture: Posture) -> Summary:
    """Bounds passed at the worst end of the ranges only weigh one each."""
    by_kind: dict[Kind, Levels] = {}
    by_quantity: dict[Weighed, Array] = {}
    nearest: dict[int, tuple[Array, Indices]] = {}
    for judgement in judgements:
        rows = judgement.rows
        # Judgements that read the same cases are folded there, before they are spread over the set-ups.
        known = nearest.get(id(rows))
        margin = judgement.margin if known is None else np.minimum(known[0], judgement.margin)
        nearest[id(rows)] = (margin, rows)
        if not judgement.severity.any():
            continue
        if (judgement.severity > int(Severity.CAUTION)).any():
            severity = judgement.severity[rows]
            worst = by_kind.get(judgement.limit.kind)
            by_kind[judgement.limit.kind] = severity if worst is None else np.maximum(worst, severity)
        if judgement.weight.any():
            weight = judgement.weight[rows]
            largest = by_quantity.get(judgement.quantity)
            by_quantity[judgement.quantity] = weight if largest is None else np.maximum(largest, weight)
    for (trouble, side), mask in posture.perhaps.items():
        quantity = bound_quantity(trouble, side)
        weight = np.where(mask, FLAG_SIZE, 0.0)
        by_quantity[quantity] = np.maximum(by_quantity[quantity], weight) if quantity in by_quantity else weight
    margin = np.full(posture.size, np.inf)
    for least, rows in nearest.values():
        margin = np.minimum(margin, least[rows])
    return Summary(by_kind, by_quantity, margin)


@dataclass(frozen=True, slots=True)
class Totals:
    """What a batch of set-ups comes to: how many kinds of limit stop or ask, how many quantities are cautioned and
    their whole size, the smallest margin in units of error, and how many are cautioned on the way in and out; each
    (n,)."""

    stops: Levels
    asks: Levels
    cautions: Levels
    size: Array
    margin: Array
    on_the_way: Levels


Part = tuple[Summary, Indices | None, bool]
"""A posture's summary, the case of each set-up (``None`` where it has one for each), and whether its cautions weigh."""


def total(parts: Sequence[Part], size: int) -> Totals:
    """Combine several postures; limits of one kind count once, by the hardest, and cautions of one quantity by the
    largest. Their whole size is rounded up to halves."""
    by_kind: dict[Kind, Levels] = {}
    by_quantity: dict[Weighed, Array] = {}
    margin = np.full(size, np.inf)
    on_the_way = np.zeros(size, dtype=np.int8)
    for summary, rows, weighs in parts:
        for kind, own in summary.severity.items():
            severity = own if rows is None else own[rows]
            worst = by_kind.get(kind)
            by_kind[kind] = severity if worst is None else np.maximum(worst, severity)
        for quantity, own_weight in summary.weight.items():
            weight = own_weight if rows is None else own_weight[rows]
            if not weighs:
                on_the_way += weight > 0
                continue
            largest = by_quantity.get(quantity)
            by_quantity[quantity] = weight if largest is None else np.maximum(largest, weight)
        margin = np.minimum(margin, summary.margin if rows is None else summary.margin[rows])
    stops, asks, cautions = (np.zeros(size, dtype=np.int8) for _ in range(3))
    for severity in by_kind.values():
        stops += severity == int(Severity.STOP)
        asks += severity == int(Severity.ASK)
    whole = np.zeros(size)
    for weight in by_quantity.values():
        cautions += weight > 0
        whole += weight
    return Totals(stops, asks, cautions, np.maximum(np.ceil(whole * 2 - TOUCHING) / 2, 0.0) + 0.0, margin, on_the_way)
