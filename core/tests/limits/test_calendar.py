"""Coming changes of limits."""

from __future__ import annotations

import datetime as dt
from unittest import TestCase

from asketa_core import change_between, changes_ahead, limits_on, next_change, next_tightening
from tests.strategies import TODAY, client, hip, knee, pain


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
