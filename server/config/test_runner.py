"""Django's test runner with one plain closing line, which finds names of people in logs."""

from __future__ import annotations

import io
import logging
import unittest
from pathlib import Path
from typing import Any

import yaml
from django.conf import settings
from django.test.runner import DiscoverRunner

from common.logs import NoValues, Scrubbed


class CountingRunner(DiscoverRunner):
    """Prints how many tests passed, failed and were skipped as the last line."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        self.logged = watched_log()
        # Slow hashing protects real passwords; test passwords need none of it.
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
        # Refusals are what half of the tests are about: they need not be logged.
        logging.getLogger("django.request").setLevel(logging.ERROR)
        logging.getLogger("django.security").setLevel(logging.ERROR)
        logging.getLogger("axes").setLevel(logging.ERROR)

    def suite_result(self, suite: unittest.TestSuite, result: unittest.TextTestResult[Any], **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self.closing_line = f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, test_labels: list[str], **kwargs: Any) -> int:
        before = _size(settings.DATABASE_LOG)
        failures = super().run_tests(test_labels, **kwargs)
        leaked = sorted(name for name in names_of_people() if name in self.logged.getvalue() + _since(before))
        if leaked:
            print(f"FAIL: names of people stand in a log: {', '.join(leaked)}", flush=True)
            passed, failed, rest = self.closing_line.split(", ")
            self.closing_line = f"{passed}, {int(failed.split()[0]) + 1} failed, {rest}"
            failures += 1
        print(self.closing_line, flush=True)
        return failures


def watched_log() -> io.StringIO:
    """Everything logged from here on, written as the console's handler writes it."""
    out = io.StringIO()
    handler = logging.StreamHandler(out)
    handler.setFormatter(Scrubbed("%(name)s %(message)s"))
    handler.addFilter(NoValues())
    for name in ("", "django"):
        logging.getLogger(name).addHandler(handler)
    return out


def names_of_people() -> set[str]:
    """Names and birth dates of everybody in the demo, and the names tests give."""
    raw = yaml.safe_load((settings.ROOT / "server" / "demo" / "people.yaml").read_text(encoding="utf-8"))
    clients = [client for practice in raw["practices"] for client in practice["clients"]]
    return {client["name"] for client in clients} | {str(c["birth_date"]) for c in clients} | {"Client of Mill"}


def _size(log: Path | None) -> int:
    return log.stat().st_size if log is not None and log.exists() else 0


def _since(size: int) -> str:
    """What the database wrote into its log since it had a size."""
    log = settings.DATABASE_LOG
    if log is None or not log.exists():
        return ""
    with log.open("rb") as file:
        file.seek(size)
        return file.read().decode("utf-8", errors="replace")
