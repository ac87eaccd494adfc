"""Answers every process of the server finds: computed once, for one practice, and not longer than they hold."""

from __future__ import annotations

import datetime as dt
import pickle
from collections.abc import Callable
from unittest.mock import Mock, patch

from django.core.cache import cache
from django.db import connection
from django.test.utils import CaptureQueriesContext

from common import clock
from engine.answers import cached
from engine.models import Answer
from engine.shared import KEPT, _opened
from practices.tenancy import opened
from tests.base import ApiTest, House


def never() -> str:
    raise AssertionError("this was answered before")


class SharedAnswers(ApiTest):
    def ask(
        self, compute: Callable[[], object], key: str = "a-state", house: House | None = None, part: str = "part"
    ) -> object:
        with opened((house or self.house).practice):
            return cached(key, part, about="a ladder", compute=compute)

    def elsewhere(self) -> None:
        """As another process, which has answered nothing yet."""
        cache.clear()

    def rows(self) -> int:
        with opened(self.house.practice):
            return int(Answer.objects.count())

    def test_another_process_need_not_compute(self) -> None:
        self.assertEqual(self.ask(lambda: {"side": "left"}), {"side": "left"})
        self.elsewhere()
        self.assertEqual(self.ask(never), {"side": "left"})

    def test_an_answer_of_nothing_is_an_answer(self) -> None:
        self.assertIsNone(self.ask(lambda: None))
        self.assertIsNone(self.ask(never))
        self.elsewhere()
        self.assertIsNone(self.ask(never))

    def test_another_state_of_things_is_another_answer(self) -> None:
        self.ask(lambda: "before")
        self.assertEqual(self.ask(lambda: "after", key="another-state"), "after")

    def test_another_practice_computes_for_itself(self) -> None:
        other = House("Loft", "owner@loft.example")
        self.ask(lambda: "of the mill")
        self.elsewhere()
        self.assertEqual(self.ask(lambda: "of the loft", house=other), "of the loft")
        self.elsewhere()
        self.assertEqual((self.ask(never), self.ask(never, house=other)), ("of the mill",) * 2)

    def test_what_an_error_ends_is_not_kept(self) -> None:
        with self.assertRaises(ZeroDivisionError), opened(self.house.practice):
            cached("a-state", "part", compute=lambda: "half done")
            1 / 0  # noqa: B018
        self.assertEqual(self.rows(), 0)

    def test_what_the_server_did_not_write_is_not_read(self) -> None:
        self.ask(lambda: "ours")
        with opened(self.house.practice):
            row = Answer.objects.get()
            row.body = bytes(row.body)[:-1] + b"!"
            row.save()
        self.elsewhere()
        self.assertEqual(self.ask(lambda: "computed again"), "computed again")

    def test_what_an_older_server_wrote_is_computed_again(self) -> None:
        self.ask(lambda: "ours")
        self.elsewhere()
        unreadable = Mock(wraps=pickle, HIGHEST_PROTOCOL=pickle.HIGHEST_PROTOCOL)
        unreadable.loads.side_effect = AttributeError
        with patch("engine.shared.pickle", unreadable):
            self.assertEqual(self.ask(lambda: "computed again"), "computed again")

    def test_what_no_longer_holds_is_swept(self) -> None:
        self.ask(lambda: "of the day before yesterday")
        with opened(self.house.practice):
            Answer.objects.update(created_at=clock.now() - KEPT - dt.timedelta(minutes=1))
        self.elsewhere()
        self.ask(lambda: "of today", key="a-new-state")
        self.assertEqual(self.rows(), 1)

    def test_the_table_is_not_logged(self) -> None:
        with connection.cursor() as cursor:
            cursor.execute("SELECT relpersistence::text FROM pg_class WHERE relname = %s", [Answer._meta.db_table])
            self.assertEqual(cursor.fetchone(), ("u",))

    def test_erasing_a_person_takes_what_was_answered(self) -> None:
        self.ask(lambda: "about somebody")
        with opened(self.house.practice):
            self.house.client.person.delete()
        self.assertEqual(self.rows(), 0)

    def test_no_row_says_whom_it_is_about(self) -> None:
        self.house.record_hip()
        self.client.get(self.url("/ladders/figure_four"))
        with opened(self.house.practice):
            kept = [_opened(bytes(body)) for body in Answer.objects.values_list("body", flat=True)]
        told = b"".join(key.encode() + packed for key, packed in filter(None, kept))
        self.assertIn(b"figure_four", told)
        for said in (str(self.house.client.pk), self.house.client.person.name):
            self.assertNotIn(said.encode(), told)

    def test_a_process_looks_up_what_it_has_not_seen(self) -> None:
        self.ask(lambda: "seen", part="first")
        self.elsewhere()
        self.ask(never, part="first")
        here = cache.get("a-state:en:metric:day_month_year:first")
        self.assertIsNotNone(here)
        with patch.dict(cache._cache), patch.dict(cache._expire_info):
            # Meanwhile in another process.
            cache.clear()
            self.ask(lambda: "written since", part="second")
        self.assertEqual(self.ask(never, part="second"), "written since")

    def test_what_was_forgotten_here_is_found_by_itself(self) -> None:
        self.ask(lambda: "long ago")
        with opened(self.house.practice):
            Answer.objects.update(created_at=clock.now() - dt.timedelta(hours=3))
        self.elsewhere()
        self.ask(never)
        cache.delete("a-state:en:metric:day_month_year:part")
        self.assertEqual(self.ask(never), "long ago")

    def test_another_process_asks_once_however_much_it_is(self) -> None:
        self.house.record_hip()

        def queries(*families: str) -> int:
            asked = "&".join(f"family={family}" for family in families)
            with CaptureQueriesContext(connection) as found:
                self.assertEqual(len(self.client.get(self.url(f"/ladders?{asked}")).json()), len(families))
            return len(found)

        families = ("figure_four", "bound_angle", "seated_fold")
        # The client is read with the first of all.
        queries("fire_log")
        cold = queries(*families)
        known = queries(*families)
        self.elsewhere()
        other_process = queries(*families)
        self.elsewhere()
        self.assertEqual(queries(families[0]), other_process)
        self.assertEqual(other_process, known + 1)
        # Looked up, and written and swept together.
        self.assertLessEqual(cold - known, 5)
