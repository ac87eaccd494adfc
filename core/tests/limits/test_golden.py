"""The golden table: no rule or clinical figure changes without somebody reading the difference."""

from __future__ import annotations

from unittest import TestCase

from asketa_core.clinical import figures, groups
from tests.limits.golden import TABLE, lines


class Golden(TestCase):
    maxDiff = None

    def test_every_rule_and_figure_is_as_it_was_last_read(self) -> None:
        self.assertEqual(
            list(lines()),
            TABLE.read_text(encoding="utf-8").splitlines(),
            "Read the difference; if it is meant, write the table anew: see golden.py.",
        )

    def test_nobody_is_named_who_has_not_signed(self) -> None:
        self.assertEqual({str(each.reviewed) for each in (*figures().values(), *groups().values())}, {"not yet"})
