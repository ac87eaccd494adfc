"""Postures against limits: what everything of a client is judged by, and what a judgement says.

How one limit is held against one posture is the kernel's (``kernel/judging.py``).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, cast

import numpy as np
from numpy.typing import NDArray

from asketa_core.body.encoding import client_of
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.kernel.records import Client, Said
from asketa_core.kernel.run import Run, each_limit, said_in
from asketa_core.limits.encoding import BOUND_ABOUT, OF_THE_BACK, PHASE_BITS, Encoded, encode
from asketa_core.limits.model import Limit, Phase
from asketa_core.poses.moments import Programme
from asketa_core.poses.numbered import FLAG_OF, READ_OF, who
from asketa_core.poses.posture import Key, Trouble
from asketa_core.poses.recipe import Flag
from asketa_core.poses.settle import Posture, settled
from asketa_core.units import SIDES, Array, Side

Levels = NDArray[np.int8]

Weighed = tuple[object, ...]
"""What a caution is about. One quantity counts once, at its largest."""

WAYS: frozenset[Phase] = frozenset({"way", "transfer", "floor_transfer"})
"""The way in and out: its cautions are said, and weigh nothing."""


def bound_quantity(trouble: Trouble, side: Side) -> Weighed:
    """What a bound is about, so that it and a caution about the same read-out count once."""
    readout = BOUND_ABOUT.get(trouble)
    if readout is None:
        return ("bound", trouble, side)
    return (readout, None if readout in OF_THE_BACK else side)


@dataclass(frozen=True, slots=True)
class Judgement:
    """One limit that bites in one posture: how hard, its worst margin in units of error (negative beyond, minus infinity for
    flags), whether it is only the error band, and the size of what is a caution (0 elsewhere)."""

    limit: Limit
    phase: Phase
    quantity: Weighed
    severity: int
    margin: float
    within_error: bool
    weight: float


@dataclass(frozen=True, slots=True)
class Stage:
    """One thing the body does at one set-up: a posture of the pose or of its way, with the limits that bite in it."""

    phase: Phase
    name: str
    posture: Posture
    judgements: tuple[Judgement, ...]


@dataclass(frozen=True)
class Cases:
    """One thing the body does, over the k cases of what it depends on: ``severity`` (k, kinds) holds the hardest
    ``Severity`` by kind of limit, ``weight`` (k, quantities) the size of cautions, ``outcome`` (k,) what else it comes to.
    """

    phase: Phase
    name: str
    programme: Programme
    xs: Array
    details: Any
    severity: Levels
    weight: Array
    outcome: Any

    @property
    def size(self) -> int:
        return len(self.outcome)

    @cached_property
    def said(self) -> Said:
        """The same as far as anything is said."""
        return said_in(self.severity, self.weight, self.outcome)


@dataclass(frozen=True, slots=True)
class Rules:
    """What everything of a client is judged by on one day. ``spares_gentle``: what leaves gentle work open says nothing."""

    client: Client
    ranges: Ranges
    limits: tuple[Limit, ...]
    encoded: Encoded
    spares_gentle: bool = False

    @staticmethod
    def of(body: Body, ranges: Ranges, limits: Sequence[Limit]) -> Rules:
        return Rules(client_of(body, ranges), ranges, tuple(limits), encode(limits))

    def sparing_gentle(self) -> Rules:
        return replace(self, spares_gentle=True)

    def also(self, own: Sequence[Limit]) -> Rules:
        """The same with what a variation itself asks."""
        return replace(self, limits=(*self.limits, *own), encoded=self.encoded.also(own)) if own else self

    def judge(self, phase: Phase, name: str, programme: Programme, xs: Array, details: Any) -> Cases:
        """Every case of one thing the body does, judged."""
        done = Run(
            self.client, programme.records, xs, details, self.encoded.table, self.spares_gentle, PHASE_BITS[phase],
            keep_tables=True,
        )()  # fmt: skip
        return Cases(phase, name, programme, xs, details, done.severity, done.weight, done.stages)

    def stage(self, phase: Phase, name: str, programme: Programme, x: Array, case: Any, lift_cm: float = 0.0) -> Stage:
        """One set-up in full, with the limits that bite in it: those of one plain figure after all others, read-out by
        read-out."""
        posture = settled(programme, self.client, self.ranges, x, case, lift_cm)
        # As plain numbers: through the record each look takes ten times as long.
        verdicts = each_limit(self.encoded.table, posture.records, programme.record.exempt_from_band != 0).tolist()
        alone: list[Judgement] = []
        together: dict[tuple[Key | None, bool], list[Judgement]] = {}
        for limit, (concerned, severity, within_error, margin, weight) in zip(self.limits, verdicts, strict=True):
            if phase not in limit.phases or (self.spares_gentle and limit.spares_gentle) or not concerned:
                continue
            plain = len(limit.terms) == 1 and limit.terms[0].readout is not None and not limit.terms[0].neutral
            group = alone
            if plain:
                term = limit.terms[0]
                assert term.readout is not None
                group = together.setdefault((posture.key(term.readout, limit.side), term.above is not None), [])
            if severity:
                about = quantity_of(limit, posture)
                group.append(Judgement(limit, phase, about, severity, margin, bool(within_error), weight))
        judged = (*alone, *(each for group in together.values() for each in group))
        return Stage(phase, name, posture, judged)

    def stage_of(self, cases: Cases, row: int) -> Stage:
        """One case in full."""
        return self.stage(cases.phase, cases.name, cases.programme, cases.xs[row], cases.details[row : row + 1])


def quantity_of(limit: Limit, posture: Posture) -> Weighed:
    """What a caution of a limit is about: the last read-out it names, where that stands; else its flags."""
    if not limit.terms:
        return (limit.code,)
    last = next((term.readout for term in reversed(limit.terms) if term.readout is not None), None)
    if last is not None:
        return posture.key(last, limit.side) or (last, limit.side)
    return (limit.side, *sorted(term.flag for term in limit.terms if term.flag is not None))


def concerns(limit: Limit, there: Any, marks: Any) -> bool:
    """Whether a limit speaks of a pose: ``there`` says which read-outs it has, ``marks`` what some set-up of it counts
    as."""
    own: list[int] = [who(limit.side), who(None)]
    for term in limit.terms:
        if term.readout is not None:
            if not there[READ_OF[term.readout]][own].any():
                return False
        elif term.flag is not None:
            # A rule about the body as a whole counts a flag on either side.
            sides = own if limit.side is not None else [who(None), *(who(side) for side in SIDES)]
            if not marks[FLAG_OF[cast(Flag, term.flag)]][sides].any():
                return False
    return True


@dataclass(frozen=True, slots=True)
class Totals:
    """What the set-ups of a grid come to: how many kinds of limit stop or ask, how many quantities are cautioned and
    their whole size, the smallest margin in units of error, and how many are cautioned on the way in and out; each
    (n,)."""

    stops: Levels
    asks: Levels
    cautions: Levels
    size: Array
    margin: Array
    on_the_way: Levels
