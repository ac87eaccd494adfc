"""Django's test runner with one plain closing line."""

from __future__ import annotations

import logging
import unittest
from typing import Any

from django.conf import settings
from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Prints how many tests passed, failed and were skipped as the last line."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        # Slow hashing protects real passwords; test passwords need none of it.
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
        # Refusals are what half of the tests are about: they need not be logged.
        logging.getLogger("django.request").setLevel(logging.ERROR)
        logging.getLogger("axes").setLevel(logging.ERROR)

    def suite_result(self, suite: unittest.TestSuite, result: unittest.TestResult, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self.closing_line = f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, test_labels: list[str], **kwargs: Any) -> int:
        failures = super().run_tests(test_labels, **kwargs)
        print(self.closing_line, flush=True)
        return failures
