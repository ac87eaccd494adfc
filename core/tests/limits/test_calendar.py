"""Coming changes of limits."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import AHEAD_DAYS, change_between, changes_ahead, limits_on, next_change, next_tightening
from tests.strategies import TODAY, bones, client, hip, knee, pain, pregnancy


class Coming(TestCase):
    def test_week_twelve_is_announced_on_its_day(self) -> None:
        change = next_change(client([hip(days_ago=63)]), TODAY)
        assert change is not None
        self.assertEqual(change.date, TODAY + dt.timedelta(days=21))
        self.assertIn("hip.pivot", {limit.code for limit in change.ends})
        self.assertFalse(change.begins)
        self.assertFalse(change.tightens)

    def test_a_question_replacing_a_stop_is_no_tightening(self) -> None:
        changes = list(changes_ahead(client([hip(days_ago=40)]), TODAY))
        self.assertEqual(changes[0].date, TODAY + dt.timedelta(days=2))
        self.assertIsNone(next_tightening(client([hip(days_ago=40)]), TODAY))

    def test_answers_growing_old_are_no_change(self) -> None:
        self.assertIsNone(next_change(client([knee()], daily=[pain(2)]), TODAY))

    def test_between_two_days_only_what_differs_on_them_counts(self) -> None:
        file = client([hip(days_ago=100)])
        since = TODAY - dt.timedelta(days=60)
        change = change_between(file, since, TODAY)
        assert change is not None
        on = {limit.identity for limit in limits_on(file, TODAY)}
        before = {limit.identity for limit in limits_on(file, since)}
        self.assertEqual({limit.identity for limit in change.begins}, on - before)
        self.assertEqual({limit.identity for limit in change.ends}, before - on)
        self.assertIn("hip.pivot", {limit.code for limit in change.ends})
        self.assertIsNone(change_between(file, TODAY, TODAY))
        self.assertIsNone(change_between(client([knee()], daily=[pain(2)]), TODAY, TODAY + dt.timedelta(days=3)))

    def test_a_day_ahead_changes_what_it_changes_from_the_day_before(self) -> None:
        file = client([hip(days_ago=63)])
        for change in changes_ahead(file, TODAY):
            self.assertEqual(change_between(file, change.date - dt.timedelta(days=1), change.date), change)

    def test_nothing_ahead(self) -> None:
        self.assertIsNone(next_change(client(), TODAY))


leap_years_too = st.dates(dt.date(2027, 12, 20), dt.date(2028, 3, 20))
records = st.lists(
    st.one_of(
        st.builds(lambda days: hip(days_ago=days, entry_id="hip"), st.integers(0, 120)),
        st.builds(
            lambda days: hip(days_ago=days, entry_id="other", approach="unknown", side="left"), st.integers(0, 120)
        ),
        st.builds(lambda week: pregnancy(week=week), st.integers(0, 38)),
        st.builds(lambda pain: knee(diagnosis=pain), st.sampled_from(["acl", "meniscus_repaired", "kneecap"])),
        st.builds(lambda t: bones(t_score=t), st.sampled_from([-2.6, -1.5, None])),
    ),
    max_size=3,
    unique_by=lambda entry: entry["id"],
)


class EveryDay(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(records, st.integers(0, 700))
    def test_the_changes_ahead_are_what_differs_from_one_day_to_the_next(
        self, entries: list[dict[str, Any]], later: int
    ) -> None:
        file, today = client(entries), TODAY + dt.timedelta(days=later)
        days = (today + dt.timedelta(days=ahead) for ahead in range(AHEAD_DAYS))
        by_day = (change_between(file, day, day + dt.timedelta(days=1)) for day in days)
        self.assertEqual(list(changes_ahead(file, today)), [change for change in by_day if change is not None])

    @given(leap_years_too)
    def test_weeks_are_counted_through_a_leap_day(self, operated: dt.date) -> None:
        file = client([hip(date=operated)])
        (change,) = [c for c in changes_ahead(file, operated + dt.timedelta(days=60)) if c.ends]
        self.assertEqual(change.date, operated + dt.timedelta(weeks=12))
