"""Judging: inclusive boundaries, the error band, neutral boundaries, conjunctions, and monotony."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import Side
from asketa_core.limits.judge import judge, judge_all, summarise, total
from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.posture import LEAST_ERROR, VARIES_BEYOND, Column, Posture, Readout, unit_of


def posture(exempt: bool = False, flags: dict[str, bool] | None = None, **readouts: list[float]) -> Posture:
    """A posture with given read-outs of the right side: low, middle and high."""
    none = np.zeros((3, 1))
    one = np.zeros(1, dtype=np.int32)
    return Posture(
        size=1,
        legs={},
        leg_rows={},
        pitch_deg=none,
        spine_flexion_deg=none,
        lean_deg=np.zeros(1),
        readouts={(Readout(k), Side.RIGHT): Column(np.array(v, float)[:, None], one) for k, v in readouts.items()},
        flags={(name, Side.RIGHT): np.array([value]) for name, value in (flags or {}).items()},
        troubles={},
        trouble_amounts={},
        stopped_by={},
        exempt_from_band=exempt,
    )


def limit(*terms: Term, severity: Severity = Severity.STOP, exact: bool = False) -> Limit:
    return Limit("test", "entry", "hip_replacement", Side.RIGHT, severity, terms, exact=exact)


BEND_90 = Term(readout=Readout.HIP_BEND, above=90)


def severity_of(of: Limit, at: Posture) -> Severity:
    judged = judge(of, at, "pose")
    return Severity.NONE if judged is None else Severity(int(judged.severity[0]))


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
        self.assertIsNone(judge(crossed, posture(), "pose"))
        self.assertEqual(severity_of(crossed, posture(flags={"crossed_ankle_over_knee": False})), Severity.NONE)
        self.assertEqual(severity_of(crossed, posture(flags={"crossed_ankle_over_knee": True})), Severity.STOP)

    def test_a_limit_without_terms_always_bites(self) -> None:
        self.assertEqual(severity_of(limit(severity=Severity.ASK), posture()), Severity.ASK)


class Totals(TestCase):
    def test_limits_of_one_kind_count_once(self) -> None:
        at = posture(hip_bend=[100] * 3)
        judged = [
            judge(limit(Term(readout=Readout.HIP_BEND, above=value), severity=Severity.CAUTION), at, "pose")
            for value in (80, 90)
        ]
        sums = total([(summarise([j for j in judged if j is not None], at), None, True)], 1)
        self.assertEqual(int(sums.cautions[0]), 1)
        self.assertEqual(sums.size[0], 5.0)  # 1 and four errors beyond 80, the larger of the two

    def test_how_large_a_caution_is(self) -> None:
        for bend, size in ((84, 0.0), (86, 0.5), (91, 1.5), (95, 2.0), (140, 6.0)):
            at = posture(hip_bend=[bend] * 3)
            judged = judge(limit(BEND_90, severity=Severity.CAUTION), at, "pose")
            assert judged is not None
            self.assertEqual(total([(summarise([judged], at), None, True)], 1).size[0], size, bend)
            self.assertEqual(total([(summarise([judged], at), None, False)], 1).size[0], 0.0)
        flagged = posture(flags={"kneeling": True})
        judged = judge(limit(Term(flag="kneeling"), severity=Severity.CAUTION), flagged, "pose")
        assert judged is not None
        self.assertEqual(total([(summarise([judged], flagged), None, True)], 1).size[0], 1.0)

    @given(st.floats(20, 130), st.floats(60, 120), st.floats(0, 40), st.floats(0, 15))
    def test_a_tighter_limit_never_judges_milder(
        self, bend: float, value: float, tighter: float, spread: float
    ) -> None:
        at = posture(hip_bend=[bend - spread, bend, bend + spread])
        loose = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value)), at)
        tight = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value - tighter)), at)
        self.assertGreaterEqual(tight, loose)


def reference(of: Limit, at: Posture, setup: int) -> tuple[Severity, float] | None:
    """One limit at one set-up in plain Python, straight from the rules: the slow way to the same answer."""
    worst = np.inf
    band = np.inf
    varies = False
    levels = range(3)
    columns = []
    for term in of.terms:
        if term.flag is not None:
            masks = [at.flags[(term.flag, s)] for s in (Side.RIGHT, None) if (term.flag, s) in at.flags]
            if not any(mask.any() for mask in masks):
                return None
            columns.append([-np.inf if any(mask[setup] for mask in masks) else np.inf] * 3)
        else:
            key = at.key(term.readout, Side.RIGHT)
            if key is None:
                return None
            values = [float(v) for v in at.readouts[key].at(setup)]
            varies |= max(values) - min(values) > VARIES_BEYOND.get(unit_of(term.readout), 1e-9)
            error = max((max(values) - min(values)) / 2, LEAST_ERROR[unit_of(term.readout)])
            raw = [(term.value - v if term.above is not None else v - term.value) / error for v in values]
            columns.append(raw)
    for level in levels:
        margin = max(column[level] for column in columns)
        worst, band = min(worst, margin), min(band, margin)
    if worst < -1e-9:
        return of.severity, worst
    numbers = any(term.readout is not None for term in of.terms)
    within = numbers and not of.exact and not at.exempt_from_band and not varies and band < 1 - 1e-9
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


@st.composite
def postures(draw: st.DrawFn) -> Posture:
    """Postures over a few set-ups that share the cases of what they read."""
    n = draw(st.integers(1, 5))

    def column() -> Column:
        cases = draw(st.integers(1, 3))
        values = draw(st.lists(st.floats(0, 140), min_size=3 * cases, max_size=3 * cases))
        rows = draw(st.lists(st.integers(0, cases - 1), min_size=n, max_size=n))
        return Column(np.array(values).reshape(3, cases), np.array(rows, dtype=np.int32))

    none = np.zeros((3, n))
    kneeling = draw(st.lists(st.booleans(), min_size=n, max_size=n))
    return Posture(
        n, {}, {}, none, none, np.zeros(n), {(Readout(r), Side.RIGHT): column() for r in READ},
        {("kneeling", Side.RIGHT): np.array(kneeling)}, {}, {}, {}, exempt_from_band=draw(st.booleans()),
    )  # fmt: skip


class Together(TestCase):
    """Many limits at once are what each would be alone."""

    @settings(max_examples=150)
    @given(postures(), st.lists(rules, min_size=1, max_size=8))
    def test_every_limit_is_judged_as_the_rules_say(self, at: Posture, limits: list[Limit]) -> None:
        judged = {id(j.limit): j for j in judge_all(limits, at, "pose")}
        for each in limits:
            for setup in range(at.size):
                expected = reference(each, at, setup)
                found = judged.get(id(each))
                if expected is None:
                    self.assertIsNone(found)
                    continue
                assert found is not None
                self.assertEqual(found.severity_at(setup), expected[0])
                np.testing.assert_allclose(found.margin_at(setup), expected[1], atol=1e-9)

    @settings(max_examples=100)
    @given(postures(), st.lists(rules, min_size=1, max_size=8), st.data())
    def test_totals_count_every_kind_once_by_its_hardest(
        self, at: Posture, limits: list[Limit], data: st.DataObject
    ) -> None:
        """Also where a posture serves set-ups in another order, some of them twice."""
        judged = judge_all(limits, at, "pose")
        rows = np.array(data.draw(st.lists(st.integers(0, at.size - 1), min_size=1, max_size=6)), dtype=np.int32)
        sums = total([(summarise(judged, at), rows, True)], len(rows))
        for place, row in enumerate(rows):
            hardest: dict[object, int] = {}
            for j in judged:
                hardest[j.limit.kind] = max(hardest.get(j.limit.kind, 0), j.severity_at(int(row)))
            counts = [sum(level == int(s) for level in hardest.values()) for s in (Severity.STOP, Severity.ASK)]
            self.assertEqual([sums.stops[place], sums.asks[place]], counts)
            largest: dict[object, float] = {}
            for j in judged:
                if (weight := j.weight_at(int(row))) > 0:
                    largest[j.quantity] = max(largest.get(j.quantity, 0.0), weight)
            self.assertEqual(sums.cautions[place], len(largest))
            self.assertAlmostEqual(sums.size[place], np.ceil(sum(largest.values()) * 2 - 1e-9) / 2)
            least = min((j.margin_at(int(row)) for j in judged), default=np.inf)
            np.testing.assert_allclose(sums.margin[place], least)
