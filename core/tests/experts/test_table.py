"""The engine against what a careful therapist expects, and how much of the library stays open to whom.

``python -m tests.experts.run`` prints the same, row by row, with every share counted in full.
"""

from __future__ import annotations

from collections import Counter
from unittest import TestCase

from tests.experts.run import Judged, judge_table, rows, share_of


class ExpertTable(TestCase):
    judged: list[Judged]

    @classmethod
    def setUpClass(cls) -> None:
        cls.judged = judge_table()

    def _faults(self, which: str) -> list[str]:
        return [
            f"{each.row.client} {each.row.day} {each.row.rung} {each.row.side}: {each.got}, not {each.row.expect}"
            for each in self.judged
            if each.fault == which
        ]

    def test_nothing_is_offered_that_a_therapist_would_stop(self) -> None:
        self.assertEqual(self._faults("unsafe"), [])

    def test_what_needs_an_eye_says_so(self) -> None:
        self.assertLessEqual(len(quiet := self._faults("too_quiet")), 0.02 * len(self.judged), quiet)

    def test_what_a_therapist_would_allow_is_open(self) -> None:
        self.assertLessEqual(len(shut := self._faults("over_blocked")), 0.03 * len(self.judged), shut)

    def test_every_row_can_be_recorded_and_judged(self) -> None:
        self.assertEqual(self._faults("unrecordable"), [])
        self.assertGreaterEqual(len(self.judged), 150)
        self.assertGreaterEqual(len({each.row.client for each in self.judged}), 15)

    def test_no_lane_of_a_day_is_judged_twice(self) -> None:
        lanes = Counter((row.client, row.day, row.rung, row.side) for row in rows())
        self.assertEqual([lane for lane, times in lanes.items() if times > 1], [])


class OpenShare(TestCase):
    """Bars are shares of the library in the demo's room; a missing fact shuts only what it decides."""

    def test_a_healthy_body_has_nearly_all_it_reaches(self) -> None:
        share = share_of("healthy typical")
        self.assertGreaterEqual(share.open_of_reached_percent, 95)
        self.assertLessEqual(share.eye_percent, 15)

    def test_a_very_stiff_body_has_most_of_what_it_reaches(self) -> None:
        self.assertGreaterEqual(share_of("very stiff").open_of_reached_percent, 75)

    def test_a_record_without_facts_leaves_a_quarter_and_what_is_gentle(self) -> None:
        # Lying flat is what the week decides, the bend at the hip what the pinch decides.
        by_its_own_terms = {"pregnancy": {"rest.calves", "rest.bolster"}, "groin pinch": {"rest.calves"}}
        for kind in ("hip", "knee", "pregnancy", "bones", "groin pinch", "hamstrings", "low back", "wrist"):
            share = share_of(f"{kind} without facts", every=4)
            self.assertGreaterEqual(share.open_percent, 25, kind)
            self.assertLessEqual(set(share.gentle_shut), by_its_own_terms.get(kind, set()), kind)

    def test_two_weeks_after_birth_what_is_gentle_is_open(self) -> None:
        self.assertEqual(share_of("2 weeks after birth", every=4).gentle_shut, ())

    def test_a_pinch_on_both_sides_leaves_half(self) -> None:
        self.assertGreaterEqual(share_of("groin pinch 85 both sides", every=2).open_percent, 50)

    def test_an_unreadable_record_leaves_what_is_gentle_and_no_more(self) -> None:
        share = share_of("unreadable record", every=4)
        self.assertEqual(share.gentle_shut, ())
