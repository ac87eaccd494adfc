"""The set-ups offered to invented people are those that were read and approved."""

from __future__ import annotations

from difflib import unified_diff
from unittest import TestCase

from tests.builds.page import APPROVED, as_text


class Approved(TestCase):
    def test_nothing_is_offered_that_nobody_has_read(self) -> None:
        """A change of set-ups is meant to be seen: read the page, then ``python -m tests.builds.page --approve``."""
        before, now = APPROVED.read_text("utf-8").splitlines(), as_text().splitlines()
        changes = "\n".join(unified_diff(before, now, "approved", "offered now", lineterm="", n=1))
        self.assertFalse(changes, changes)
