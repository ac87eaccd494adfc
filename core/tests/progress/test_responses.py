"""What a response means."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from asketa_core import Response, Tolerance, parse
from asketa_core.progress.responses import judge_response
from tests.strategies import TODAY, client

LATER = dt.datetime.combine(TODAY + dt.timedelta(days=5), dt.time(9), tzinfo=dt.UTC)


def response(**changes: Any) -> Response:
    known: dict[str, Any] = {
        "id": "r", "date": TODAY, "variation": "figure_four.block_end", "side": "left", "setup": {}, "dose_s": 40,
        "before": 0, "during": 1, "after": 0, "kind": "stretch", "place": "wanted", "signs": [],
        "settled_next_morning": "yes",
    }  # fmt: skip
    return parse(Response, {**known, **changes})


def meaning(allowed: int = 2, now: dt.datetime = LATER, **changes: Any) -> Tolerance:
    return judge_response(response(**changes), allowed, now).tolerance


class Calm(TestCase):
    def test_up_to_what_is_allowed(self) -> None:
        self.assertIs(meaning(before=1, during=2), Tolerance.CALM)
        self.assertIs(meaning(before=2, during=3), Tolerance.WATCH)
        self.assertIs(meaning(allowed=3, before=2, during=3), Tolerance.CALM)

    def test_the_larger_of_during_and_after_counts(self) -> None:
        self.assertIs(meaning(during=0, after=4, before=3), Tolerance.WATCH)


class Watch(TestCase):
    def test_a_rise_of_two(self) -> None:
        self.assertIs(meaning(before=0, during=2), Tolerance.WATCH)

    def test_a_sign_seen(self) -> None:
        for sign in ("breath_held", "grimace", "wobble", "knee_rides_up"):
            self.assertIs(meaning(signs=[sign]), Tolerance.WATCH)

    def test_with_nothing_allowed_an_unchanged_arrival_is_watched(self) -> None:
        self.assertIs(meaning(allowed=0, before=1, during=1), Tolerance.WATCH)
        self.assertIs(meaning(allowed=0, before=0, during=0), Tolerance.CALM)


class Flare(TestCase):
    def test_height(self) -> None:
        self.assertIs(meaning(before=4, during=5), Tolerance.FLARE)
        self.assertIs(meaning(before=3, during=4), Tolerance.WATCH)
        self.assertIs(meaning(allowed=5, before=5, during=6), Tolerance.FLARE)

    def test_rise_of_three(self) -> None:
        self.assertIs(meaning(allowed=5, before=0, during=3), Tolerance.FLARE)

    def test_kind_place_and_signs_whatever_the_number(self) -> None:
        for kind in ("sharp", "pinching", "tingling", "numb"):
            self.assertIs(meaning(kind=kind), Tolerance.FLARE)
        self.assertIs(meaning(place="knee"), Tolerance.FLARE)
        self.assertIs(meaning(signs=["clunk"]), Tolerance.FLARE)

    def test_a_morning_that_did_not_settle(self) -> None:
        self.assertIs(meaning(settled_next_morning="no"), Tolerance.FLARE)


class Mornings(TestCase):
    def test_asked_and_not_answered_it_is_pending_until_noon_two_days_later(self) -> None:
        noon = dt.datetime.combine(TODAY + dt.timedelta(days=2), dt.time(12), tzinfo=dt.UTC)
        before = noon - dt.timedelta(minutes=1)
        asked = {"settled_next_morning": "unknown", "morning_asked": True}
        self.assertIs(meaning(now=before, **asked), Tolerance.PENDING)
        self.assertIs(meaning(now=noon, **asked), Tolerance.WATCH)

    def test_one_that_nobody_asked_about_counts_as_neither_however_long_ago(self) -> None:
        later = dt.datetime.combine(TODAY + dt.timedelta(days=90), dt.time(12), tzinfo=dt.UTC)
        self.assertIs(meaning(now=later, settled_next_morning="unknown"), Tolerance.PENDING)

    def test_it_is_to_be_asked_about_until_it_was_asked_in_vain(self) -> None:
        held = {"settled_next_morning": "unknown", "date": TODAY}
        file = client().model_copy(
            update={"responses": (response(**held, id="a"), response(**held, id="b", morning_asked=True))}
        )

        def open_on(days: int) -> list[str]:
            return [each.id for each in file.mornings_open(TODAY + dt.timedelta(days=days))]

        self.assertEqual([open_on(days) for days in (0, 1, 2, 3)], [[], ["a", "b"], ["a", "b"], ["a"]])

    def test_a_flare_does_not_wait_for_the_morning(self) -> None:
        soon = dt.datetime.combine(TODAY, dt.time(18), tzinfo=dt.UTC)
        self.assertIs(meaning(now=soon, kind="sharp", settled_next_morning="unknown"), Tolerance.FLARE)


class NotSaid(TestCase):
    def test_what_nobody_said_is_never_calm_and_no_watch_by_itself(self) -> None:
        for unsaid in ("kind", "place", "signs"):
            judged = judge_response(response(**{unsaid: None}), 2, LATER)
            self.assertIs(judged.tolerance, Tolerance.PENDING, unsaid)
            self.assertEqual(judged.why, "not_said")

    def test_what_was_said_still_counts(self) -> None:
        self.assertIs(meaning(kind="sharp", place=None, signs=None), Tolerance.FLARE)
        self.assertIs(meaning(kind=None, place=None, signs=None, during=6), Tolerance.FLARE)
        self.assertIs(meaning(kind=None, signs=["breath_held"], place=None), Tolerance.WATCH)

    def test_looked_and_nothing_seen_is_said(self) -> None:
        self.assertIs(meaning(kind="calm", place="wanted", signs=[]), Tolerance.CALM)

    def test_an_arrival_nobody_asked_for_counts_as_none_so_the_rise_is_the_whole(self) -> None:
        self.assertIs(meaning(before=None, during=2), Tolerance.WATCH)
        self.assertIs(meaning(before=None, during=3, allowed=5), Tolerance.FLARE)
        self.assertIs(meaning(before=1, during=2, after=None), Tolerance.CALM)
