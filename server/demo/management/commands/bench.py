"""Measure the engine and the answers that lean on it, on the demo data: ratios and counts, warm.

Absolute times differ between machines; each is given as a multiple of a bare view (the room's list, one
query beside those of signing in), timed in the same run.
"""

from __future__ import annotations

import statistics
import time
import tracemalloc
from collections.abc import Callable
from functools import partial
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.test import Client as Browser
from django_scopes import scopes_disabled

from asketa_core import SIDES, NoGrid
from clients.models import Client
from engine.answers import Today, forget
from practices.models import Membership

REPEATS = 5


def median_ms(run: Callable[[], Any]) -> float:
    """Median of a few runs in milliseconds, after one to warm up."""
    run()
    times = []
    for _ in range(REPEATS):
        start = time.perf_counter()
        run()
        times.append(1000 * (time.perf_counter() - start))
    return statistics.median(times)


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        membership = Membership.objects.filter(practice__name="The Weir Room").select_related("user").first()
        if membership is None:
            raise CommandError("The demo data is not loaded. Run ./asketa demo once.")
        with scopes_disabled():
            client = Client.objects.select_related("practice").get(person__occupation="clock repairer")
            today = Today.of(client)
            browser = Browser()
            browser.force_login(membership.user, backend="django.contrib.auth.backends.ModelBackend")
            address = f"/api/practices/{membership.practice_id}/clients/{client.pk}"
            self._report(today, browser, address)

    def _report(self, today: Today, browser: Browser, address: str) -> None:
        def screen_everything() -> int:
            size = 0
            for rung in today.library.variations():
                for side in SIDES:
                    found = today.situation.screen(rung, side)
                    size += 0 if isinstance(found, NoGrid) else found.grid.size
            return size

        def cold(path: str) -> Callable[[], Any]:
            def run() -> Any:
                forget()
                return browser.get(address + path)

            return run

        bare = median_ms(lambda: browser.get(address.split("/clients", maxsplit=1)[0] + "/room"))
        setups = screen_everything()
        screening = median_ms(screen_everything)
        sizes = sorted(
            (found.grid.size, rung.id)
            for rung in today.library.variations()
            if not isinstance(found := today.situation.screen(rung, SIDES[0]), NoGrid)
        )
        tracemalloc.start()
        screen_everything()
        peak_mb = tracemalloc.get_traced_memory()[1] / 1e6
        tracemalloc.stop()
        ladder = "/ladders/figure_four"
        choose_cold, choose_warm = median_ms(cold(ladder)), median_ms(lambda: browser.get(address + ladder))
        family = today.library.families["figure_four"]

        def judge_ladder() -> None:
            forget()
            for side in SIDES:
                for rung in family.variations:
                    today.lane(rung, side)
                today.decision(family.family, side)

        engine = median_ms(judge_ladder)
        rungs = sum(1 for _ in today.library.variations())
        lines = [
            ("variations × sides", f"{rungs} × {len(SIDES)}"),
            ("set-ups judged", f"{setups}"),
            ("bare view, one list of rows (the unit)", f"{bare:.2f} ms"),
            (
                "screening everything",
                f"{screening / bare:.0f} × the unit ({1000 * screening / setups:.1f} µs a set-up)",
            ),
            *self._per_setup(today, [sizes[len(sizes) * part // 10 - 1][1] for part in (5, 9, 10)]),
            ("memory at its highest", f"{peak_mb:.0f} MB"),
            (
                "one ladder of Choose, cold",
                f"{choose_cold / bare:.1f} × the unit, its engine time {engine / bare:.1f} ×",
            ),
            ("one ladder of Choose, cached", f"{choose_warm / bare:.1f} × the unit"),
        ]
        for name, value in lines:
            self.stdout.write(f"{name:40} {value}")

    def _per_setup(self, today: Today, rungs: list[str]) -> list[tuple[str, str]]:
        """What a set-up costs in a middling, a large and the largest grid: it may not grow with the grid."""
        lines = []
        for rung in map(today.library.variation, rungs):
            found = today.situation.screen(rung, SIDES[0])
            size = 0 if isinstance(found, NoGrid) else found.grid.size
            cost = median_ms(partial(today.situation.screen, rung, SIDES[0]))
            lines.append((f"one grid, {rung.id}", f"{size} set-ups, {1000 * cost / size:.1f} µs each"))
        return lines
