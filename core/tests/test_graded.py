"""Limits of one kind said as one line."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import SIDES, Side, limit_lines, limits_on, words_in
from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.posture import Readout
from asketa_core.words.limits import _steps, graded
from tests.strategies import TODAY, bones, client, hip, knee, pain, pregnancy

WORDS = words_in("en")
SEVERITIES = (Severity.CAUTION, Severity.ASK, Severity.STOP)


def limit(severity: Severity, value: float, above: bool = True, side: Side = Side.LEFT) -> Limit:
    term = Term(Readout.KNEE_TWIST, above=value) if above else Term(Readout.KNEE_TWIST, below=value)
    return Limit("knee.twist", "knee", "knee_pain", side, severity, (term,))


def hardest(limits: list[Limit], value: float) -> Severity:
    bite = [
        each.severity
        for each in limits
        if (t := each.terms[0]) and (value > t.value if t.above is not None else value < t.value)
    ]
    return max(bite, default=Severity.NONE)


class Graded(TestCase):
    @given(
        st.lists(st.tuples(st.sampled_from(SEVERITIES), st.integers(0, 40)), min_size=1, max_size=5),
        st.booleans(),
        st.integers(-5, 45),
    )
    def test_what_is_left_out_changes_nothing(self, rows: list[tuple[Severity, int]], above: bool, value: int) -> None:
        limits = [limit(severity, figure, above) for severity, figure in rows]
        self.assertEqual(hardest(_steps(limits), value), hardest(limits, value))

    @given(st.lists(st.tuples(st.sampled_from(SEVERITIES), st.integers(0, 40)), min_size=1, max_size=5), st.booleans())
    def test_each_step_is_harder_and_further_than_the_one_before(
        self, rows: list[tuple[Severity, int]], above: bool
    ) -> None:
        limits = [limit(severity, figure, above) for severity, figure in rows]
        steps = _steps(limits)
        for one, next_one in pairwise(steps):
            self.assertLess(one.severity, next_one.severity)
            self.assertTrue(one.terms[0].leaves_less_than(next_one.terms[0]))
        ((members, _),) = graded(limits)
        self.assertEqual(members[0].severity, max(each.severity for each in limits))
        self.assertEqual(len(members), len(limits))

    def test_with_care_then_not(self) -> None:
        ((_, words),) = graded([limit(Severity.STOP, 15), limit(Severity.CAUTION, 5)])
        self.assertEqual(WORDS(words), "turning the knee must take: over 5° with care, over 15° not")

    def test_a_caution_that_a_stop_covers_is_not_said(self) -> None:
        ((members, words),) = graded([limit(Severity.STOP, 5), limit(Severity.CAUTION, 15)])
        self.assertEqual(len(members), 2)
        self.assertNotIn("15", WORDS(words))

    def test_the_hardest_leads_though_a_softer_one_was_told_first(self) -> None:
        ((members, _),) = graded([limit(Severity.CAUTION, 5), limit(Severity.STOP, 5)])
        self.assertIs(members[0].severity, Severity.STOP)

    def test_what_else_has_to_be_the_case_is_said_with_the_figures(self) -> None:
        thin = client([bones(t_score=-2.5, fractures=[])])
        said = {WORDS(line.short) for line in limit_lines(limits_on(thin, TODAY))}
        self.assertIn("Back rounding, upright: over 10° with care, over 20° not", said)

    def test_of_two_paddings_the_thicker_is_told(self) -> None:
        sore = client([knee(diagnosis="kneecap")], daily=[pain(4)])
        lines = [line for line in limit_lines(limits_on(sore, TODAY)) if "under the knee" in WORDS(line.short)]
        self.assertEqual([(WORDS(line.short), line.severity) for line in lines], [("5 cm under the knee", "stop")])
        self.assertIn("3 cm of padding", WORDS(lines[0].reason))

    def test_sides_and_directions_stay_apart(self) -> None:
        apart = [limit(Severity.STOP, 5, side=side, above=above) for side in SIDES for above in (True, False)]
        self.assertEqual(len(graded(apart)), 4)

    def test_no_record_says_one_quantity_on_two_lines(self) -> None:
        people = [hip(), knee(diagnosis="arthritis"), bones(), pregnancy()]
        for entry in people:
            file = client([entry], daily=[pain(2)] if entry["kind"] == "knee_pain" else [])
            limits = [each for each in limits_on(file, TODAY) if each.entry_id is not None]
            lines = limit_lines(limits)
            with self.subTest(kind=entry["kind"]):
                self.assertEqual(len({line.short for line in lines}), len(lines))
                self.assertLessEqual(len(lines), len({each.code for each in limits}) + 1)
