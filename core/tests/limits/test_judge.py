"""Judging: inclusive boundaries, the error band, neutral boundaries, conjunctions, and monotony."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import NoGrid, Side, Situation
from asketa_core.kernel.records import POSTURE, many
from asketa_core.kernel.run import each_limit
from asketa_core.limits.encoding import encode
from asketa_core.limits.judge import WAYS, bound_quantity
from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.numbered import FLAG_OF, READ_OF, who
from asketa_core.poses.posture import LEAST_ERROR, VARIES_BEYOND, Readout, unit_of
from tests.library import variations
from tests.strategies import ROOM, TODAY, bones, client, hip, knee, pain, pregnancy


@dataclass(frozen=True)
class At:
    """A posture with given read-outs and flags of the right side."""

    records: Any
    exempt: bool = False

    @property
    def record(self) -> Any:
        return self.records[0]

    def levels(self, readout: Readout) -> list[float]:
        return [float(value) for value in self.record.read[READ_OF[readout], who(Side.RIGHT)]]

    def counts_as(self, flag: str) -> bool:
        return bool(self.record.marks[FLAG_OF[flag], who(Side.RIGHT)])

    def has(self, readout: Readout) -> bool:
        return bool(self.record.there[READ_OF[readout], who(Side.RIGHT)])


def posture(exempt: bool = False, flags: dict[str, bool] | None = None, **readouts: list[float]) -> At:
    """Read-outs of the right side: low, middle and high."""
    records = many(1, POSTURE)
    record = records[0]
    for name, levels in readouts.items():
        record.read[READ_OF[Readout(name)], who(Side.RIGHT)] = levels
        record.there[READ_OF[Readout(name)], who(Side.RIGHT)] = 1
    for flag, value in (flags or {}).items():
        record.marks[FLAG_OF[flag], who(Side.RIGHT)] = value
    return At(records, exempt)


def limit(*terms: Term, severity: Severity = Severity.STOP, exact: bool = False) -> Limit:
    return Limit("test", "entry", "hip_replacement", Side.RIGHT, severity, terms, exact=exact)


BEND_90 = Term(readout=Readout.HIP_BEND, above=90)


def verdicts(limits: list[Limit], at: At) -> Any:
    return each_limit(encode(limits).table, at.records, at.exempt)


def severity_of(of: Limit, at: At) -> Severity:
    return Severity(int(verdicts([of], at)[0].severity))


class Boundaries(TestCase):
    def bend(self, low: float, middle: float, high: float, **kwargs: bool) -> Severity:
        return severity_of(
            limit(BEND_90, exact=kwargs.get("exact", False)),
            posture(kwargs.get("exempt", False), hip_bend=[low, middle, high]),
        )

    def test_at_the_limit_keeps_it(self) -> None:
        self.assertEqual(self.bend(90, 90, 90, exact=True), Severity.NONE)
        self.assertEqual(self.bend(90.01, 90.01, 90.01, exact=True), Severity.STOP)

    def test_inside_but_nearer_than_the_error_is_a_caution(self) -> None:
        self.assertEqual(self.bend(85.01, 85.01, 85.01), Severity.CAUTION)
        self.assertEqual(self.bend(85, 85, 85), Severity.NONE)

    def test_the_worst_of_the_ranges_is_judged(self) -> None:
        self.assertEqual(self.bend(70, 80, 90.5), Severity.STOP)

    def test_what_differs_between_the_levels_has_no_band_besides(self) -> None:
        self.assertEqual(self.bend(62, 72, 82), Severity.NONE)
        self.assertEqual(self.bend(87, 87.5, 88), Severity.CAUTION)
        self.assertEqual(self.bend(87, 87.9, 88.1), Severity.NONE)

    def test_what_is_merely_comfortable_is_read_at_the_middle(self) -> None:
        comfortable = replace(limit(BEND_90, severity=Severity.CAUTION), ends="middle")
        self.assertEqual(severity_of(comfortable, posture(hip_bend=[80, 90, 100])), Severity.NONE)
        self.assertEqual(severity_of(comfortable, posture(hip_bend=[80, 91, 100])), Severity.CAUTION)

    def test_a_named_technique_has_no_band(self) -> None:
        self.assertEqual(self.bend(89, 89, 89, exempt=True), Severity.NONE)

    def test_a_neutral_boundary_bites_only_beyond_two_degrees(self) -> None:
        midline = limit(Term(readout=Readout.HIP_ABDUCTION, below=0, neutral=True))
        self.assertEqual(severity_of(midline, posture(hip_abduction=[0, 0, 0])), Severity.NONE)
        self.assertEqual(severity_of(midline, posture(hip_abduction=[-2, -2, -2])), Severity.NONE)
        self.assertEqual(severity_of(midline, posture(hip_abduction=[-2.1, 0, 3])), Severity.STOP)


class Conjunctions(TestCase):
    LOADED = limit(Term(readout=Readout.KNEE_LOAD_SHARE, above=0.15), Term(readout=Readout.KNEE_FLEXION, above=90))

    def test_all_terms_must_be_beyond(self) -> None:
        self.assertEqual(
            severity_of(self.LOADED, posture(knee_load_share=[0.1] * 3, knee_flexion=[120] * 3)), Severity.NONE
        )
        self.assertEqual(
            severity_of(self.LOADED, posture(knee_load_share=[0.5] * 3, knee_flexion=[70] * 3)), Severity.NONE
        )
        self.assertEqual(
            severity_of(self.LOADED, posture(knee_load_share=[0.5] * 3, knee_flexion=[91] * 3)), Severity.STOP
        )

    def test_terms_must_be_beyond_at_the_same_ranges(self) -> None:
        apart = posture(knee_load_share=[0.5, 0.1, 0.1], knee_flexion=[80, 100, 120])
        self.assertNotEqual(severity_of(self.LOADED, apart), Severity.STOP)

    def test_a_flag_only_bites_where_the_pose_has_it(self) -> None:
        crossed = limit(Term(flag="crossed_ankle_over_knee"))
        self.assertFalse(verdicts([crossed], posture())[0].concerns)
        self.assertEqual(severity_of(crossed, posture(flags={"crossed_ankle_over_knee": False})), Severity.NONE)
        self.assertEqual(severity_of(crossed, posture(flags={"crossed_ankle_over_knee": True})), Severity.STOP)

    def test_a_limit_without_terms_always_bites(self) -> None:
        self.assertEqual(severity_of(limit(severity=Severity.ASK), posture()), Severity.ASK)


class Sizes(TestCase):
    def test_how_large_a_caution_is(self) -> None:
        for bend, size in ((84, 0.0), (86, 0.5), (91, 1.2), (95, 2.0), (140, 6.0)):
            found = verdicts([limit(BEND_90, severity=Severity.CAUTION)], posture(hip_bend=[bend] * 3))[0]
            self.assertAlmostEqual(float(found.weight), size, places=9, msg=str(bend))
        flagged = verdicts([limit(Term(flag="kneeling"), severity=Severity.CAUTION)], posture(flags={"kneeling": True}))
        self.assertEqual(float(flagged[0].weight), 1.0)

    @given(st.floats(20, 130), st.floats(60, 120), st.floats(0, 40), st.floats(0, 15))
    def test_a_tighter_limit_never_judges_milder(
        self, bend: float, value: float, tighter: float, spread: float
    ) -> None:
        at = posture(hip_bend=[bend - spread, bend, bend + spread])
        loose = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value)), at)
        tight = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value - tighter)), at)
        self.assertGreaterEqual(tight, loose)


def reference(of: Limit, at: At) -> tuple[Severity, float] | None:
    """One limit in plain Python, straight from the rules: the slow way to the same answer."""
    varies = False
    columns = []
    for term in of.terms:
        if term.flag is not None:
            if not at.counts_as(term.flag):
                return None
            columns.append([-math.inf] * 3)
            continue
        assert term.readout is not None
        if not at.has(term.readout):
            return None
        values, unit = at.levels(term.readout), unit_of(term.readout)
        varies |= max(values) - min(values) > VARIES_BEYOND.get(unit, 1e-9)
        error = max((max(values) - min(values)) / 2, LEAST_ERROR[unit])
        columns.append([(term.value - v if term.above is not None else v - term.value) / error for v in values])
    worst = min(max(column[level] for column in columns) for level in range(3))
    if worst < -1e-9:
        return of.severity, worst
    numbers = any(term.readout is not None for term in of.terms)
    within = numbers and not of.exact and not at.exempt and not varies and worst < 1 - 1e-9
    return (Severity.CAUTION if within else Severity.NONE), worst


READ = ("hip_bend", "knee_flexion", "knee_load_share", "knee_twist")
terms = st.one_of(
    st.builds(lambda r, v: Term(readout=Readout(r), above=v), st.sampled_from(READ), st.floats(0, 140)),
    st.builds(lambda r, v: Term(readout=Readout(r), below=v), st.sampled_from(READ), st.floats(0, 140)),
    st.just(Term(flag="kneeling")),
)
rules = st.builds(
    lambda t, s, e: limit(*t, severity=s, exact=e),
    st.lists(terms, min_size=1, max_size=3),
    st.sampled_from([Severity.CAUTION, Severity.ASK, Severity.STOP]),
    st.booleans(),
)
levels = st.lists(st.floats(0, 140), min_size=3, max_size=3)
postures = st.builds(
    lambda exempt, kneeling, shown: posture(exempt, {"kneeling": kneeling}, **shown),
    st.booleans(),
    st.booleans(),
    st.dictionaries(st.sampled_from(READ), levels, min_size=2),
)


class Together(TestCase):
    @settings(max_examples=150)
    @given(postures, st.lists(rules, min_size=1, max_size=8))
    def test_every_limit_is_judged_as_the_rules_say(self, at: At, limits: list[Limit]) -> None:
        for each, found in zip(limits, verdicts(limits, at), strict=True):
            expected = reference(each, at)
            if expected is None:
                self.assertFalse(found.concerns)
                continue
            self.assertEqual(found.severity, expected[0])
            np.testing.assert_allclose(found.margin, expected[1], atol=1e-9)


class Totals(TestCase):
    def test_a_set_up_comes_to_what_its_stages_say(self) -> None:
        """Every kind counts once by its hardest, every quantity once by its largest, and the way in weighs nothing."""
        file = client([hip(), knee(), bones(), pregnancy(30)], daily=[pain(3)])
        situation = Situation.of(file, TODAY, ROOM)
        minded = 0
        for rung in list(variations())[::7]:
            found = situation.screen(rung, Side.LEFT)
            if isinstance(found, NoGrid):
                continue
            for row in sorted({0, found.grid.size // 2, found.grid.size - 1}):
                hardest: dict[object, int] = {}
                largest: dict[object, float] = {}
                for stage in found.stages_at(row):
                    for each in stage.judgements:
                        hardest[each.limit.kind] = max(hardest.get(each.limit.kind, 0), each.severity)
                        if stage.phase not in WAYS and each.weight > 0:
                            largest[each.quantity] = max(largest.get(each.quantity, 0.0), each.weight)
                    for trouble, side in () if stage.phase in WAYS else stage.posture.perhaps:
                        quantity = bound_quantity(trouble, side)
                        largest[quantity] = max(largest.get(quantity, 0.0), 1.0)
                counts = [sum(level == int(s) for level in hardest.values()) for s in (Severity.STOP, Severity.ASK)]
                self.assertEqual([found.totals.stops[row], found.totals.asks[row]], counts, rung.id)
                self.assertEqual(found.totals.cautions[row], len(largest), rung.id)
                whole = math.ceil(sum(largest.values()) * 2 - 1e-9) / 2
                self.assertEqual(found.totals.size[row], whole, rung.id)
                minded += bool(largest)
        self.assertGreater(minded, 20)
