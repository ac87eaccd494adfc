"""Django's test runner with one plain closing line."""

from __future__ import annotations

import unittest
from typing import Any

from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Prints how many tests passed, failed and were skipped as the last line."""

    def suite_result(self, suite: unittest.TestSuite, result: unittest.TestResult, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self.closing_line = f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, test_labels: list[str], **kwargs: Any) -> int:
        failures = super().run_tests(test_labels, **kwargs)
        print(self.closing_line, flush=True)
        return failures
