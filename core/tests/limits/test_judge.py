"""Judging: inclusive boundaries, the error band, neutral boundaries, conjunctions, and monotony."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from asketa_core import Side
from asketa_core.limits.judge import judge, summarise, total
from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.posture import Column, Posture, Readout


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

    def test_a_wide_spread_widens_the_band(self) -> None:
        self.assertEqual(self.bend(62, 72, 82), Severity.CAUTION)

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
        self.assertEqual(int(total([(summarise([j for j in judged if j is not None], 1), None)], 1).cautions[0]), 1)

    @given(st.floats(20, 130), st.floats(60, 120), st.floats(0, 40), st.floats(0, 15))
    def test_a_tighter_limit_never_judges_milder(
        self, bend: float, value: float, tighter: float, spread: float
    ) -> None:
        at = posture(hip_bend=[bend - spread, bend, bend + spread])
        loose = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value)), at)
        tight = severity_of(limit(Term(readout=Readout.HIP_BEND, above=value - tighter)), at)
        self.assertGreaterEqual(tight, loose)
