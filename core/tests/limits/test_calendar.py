"""Coming changes of limits."""

from __future__ import annotations

import datetime as dt
from unittest import TestCase

from asketa_core import changes_ahead, next_change, next_tightening
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

    def test_nothing_ahead(self) -> None:
        self.assertIsNone(next_change(client(), TODAY))
