"""Measure the engine and the answers that lean on it, on the demo data: ratios and counts, warm.

Absolute times differ between machines; each is given as a multiple of a bare view (the room's list, one
query beside those of signing in), timed in the same run.
"""

from __future__ import annotations

import gc
import statistics
import time
import tracemalloc
from collections.abc import Callable
from functools import partial
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.test import Client as Browser
from django_scopes import scopes_disabled

from asketa_core import SIDES, NoGrid, Variation
from clients.models import Client
from engine.answers import Today, forget
from practices.models import Membership

REPEATS = 5

FIRST_PAGE = ("figure_four", "half_pigeon", "bound_angle", "seated_fold")
"""Four ladders as a first page of Choose may have them, among them the dearest there are."""


def median_ms(run: Callable[[], Any]) -> float:
    """Median of a few runs in milliseconds, after one to warm up."""
    run()
    times = []
    for _ in range(REPEATS):
        start = time.perf_counter()
        run()
        times.append(1000 * (time.perf_counter() - start))
    return statistics.median(times)


def judge_all(today: Today, rung: Variation) -> int:
    """Every set-up of a rung, put in order; how many there are."""
    found = today.situation.screen(rung, SIDES[0])
    return 0 if isinstance(found, NoGrid) else len(found.order)


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
                    if not isinstance(found, NoGrid):
                        assert found.recommended >= 0
                        size += found.grid.size
            return size

        setups = screen_everything()
        # As the server is: what is loaded is not looked through again.
        gc.collect()
        gc.freeze()
        bare = median_ms(lambda: browser.get(address.split("/clients", maxsplit=1)[0] + "/room"))
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
        ladders = {family: self._ladder(today, browser, address, family) for family in FIRST_PAGE}
        page = {what: sum(each[what] for each in ladders.values()) for what in ("cold", "cached", "engine")}
        dearest = max(ladders, key=lambda family: ladders[family]["cold"])
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
            ("the largest Set-up answer on the wire", f"{self._largest_kb(browser, address, sizes[-8:]):.1f} kB"),
            (
                f"the dearest ladder of Choose, {dearest}",
                f"{ladders[dearest]['cold'] / bare:.1f} × the unit cold, {ladders[dearest]['cached'] / bare:.1f} × cached",
            ),
            (
                "first page of Choose, cold",
                f"{page['cold'] / (page['cached'] + page['engine']):.1f} × cached and its engine time "
                f"({page['cold'] / bare:.0f}, {page['cached'] / bare:.0f} and {page['engine'] / bare:.0f} × the unit)",
            ),
        ]
        for name, value in lines:
            self.stdout.write(f"{name:40} {value}")

    def _largest_kb(self, browser: Browser, address: str, largest: list[tuple[int, str]]) -> float:
        """The largest answer of Set up over the largest grids, packed as it is sent."""
        paths = [f"{address}/setups/{rung}/{side.value}" for _, rung in largest for side in SIDES]
        return max(len(browser.get(path, headers={"accept-encoding": "gzip"}).content) for path in paths) / 1000

    def _ladder(self, today: Today, browser: Browser, address: str, family: str) -> dict[str, float]:
        """One ladder of Choose in milliseconds: worked out, from what is kept, and its rungs judged by the engine alone."""
        path, rungs = f"{address}/ladders/{family}", today.library.families[family].variations

        def cold() -> None:
            forget()
            browser.get(path)

        def judge() -> None:
            forget()
            for side in SIDES:
                for rung in rungs:
                    today.lane(rung, side)
                today.decision(family, side)

        return {
            "cold": median_ms(cold),
            "cached": median_ms(lambda: browser.get(path)),
            "engine": median_ms(judge),
        }

    def _per_setup(self, today: Today, rungs: list[str]) -> list[tuple[str, str]]:
        """What a set-up costs in a middling, a large and the largest grid: it may not grow with the grid."""
        lines = []
        for rung in map(today.library.variation, rungs):
            size = judge_all(today, rung)
            cost = median_ms(partial(judge_all, today, rung))
            lines.append((f"one grid, {rung.id}", f"{size} set-ups, {1000 * cost / size:.1f} µs each"))
        return lines
