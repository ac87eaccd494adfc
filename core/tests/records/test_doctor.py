"""Signs that belong to a doctor, kind by kind."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from asketa_core import KINDS, checks_of, doctor_page, words_in
from asketa_core.records.doctor import MOST_URGENT_FIRST
from asketa_core.records.kind import Kind
from tests.strategies import TODAY, client, hip, pregnancy

WORDS = words_in("en")
WITH_SIGNS = [kind for kind in KINDS.values() if kind.signs is not None]


def record(kind: Kind, *signs: str, **more: Any) -> dict[str, Any]:
    assert kind.signs is not None
    usual = {"hip_replacement": hip(), "pregnancy": pregnancy()}.get(kind.code, {"id": "it", "kind": kind.code})
    side = {} if kind.sides == "middle" else {"side": "left"}
    return {**usual, **side, "facts": {**usual.get("facts", {}), kind.signs.fact: list(signs)}, **more}


class EveryKind(TestCase):
    def test_every_kind_that_asks_for_what_may_not_wait_says_whom_to_call(self) -> None:
        self.assertLessEqual({kind.code for kind in KINDS.values() if kind.asks_symptoms}, {k.code for k in WITH_SIGNS})

    def test_every_sign_leads_to_a_call_and_none_of_them_to_none(self) -> None:
        for kind in WITH_SIGNS:
            assert kind.signs is not None
            self.assertIsNone(doctor_page(client([record(kind, "none")]), TODAY))
            self.assertIsNone(doctor_page(client([record(kind)]), TODAY))
            for sign, urgency in kind.signs.signs.items():
                with self.subTest(kind=kind.code, sign=sign):
                    page = doctor_page(client([record(kind, sign)]), TODAY)
                    assert page is not None
                    (call,) = page.calls
                    self.assertEqual(call.urgency, urgency)
                    self.assertEqual(
                        [WORDS(each) for each in call.signs], [WORDS(kind.answer_words(kind.signs.fact, sign))]
                    )

    def test_what_is_gone_through_is_what_the_record_asks(self) -> None:
        for kind in WITH_SIGNS:
            assert kind.signs is not None
            with self.subTest(kind=kind.code):
                (check,) = checks_of(client([record(kind)]), TODAY)
                self.assertEqual((tuple(check.signs), check.answered), (tuple(kind.signs.signs), ()))


class Page(TestCase):
    def test_the_most_urgent_call_leads(self) -> None:
        file = client([hip(symptoms_now=["hot_wound_or_fever"]), pregnancy(symptoms_now=["chest_pain", "calf_pain"])])
        page = doctor_page(file, TODAY)
        assert page is not None
        self.assertEqual([call.urgency for call in page.calls], ["emergency", "today"])
        self.assertEqual(WORDS(page.headline), "Call the emergency number now")
        self.assertIn("nothing is offered", WORDS(page.meanwhile))

    def test_the_one_who_treats_it_is_named(self) -> None:
        page = doctor_page(client([pregnancy(symptoms_now=["bleeding"])]), TODAY)
        assert page is not None
        self.assertEqual(WORDS(page.headline), "Call the midwife or the maternity unit now")

    def test_a_sign_a_doctor_has_seen_leads_nowhere_any_more(self) -> None:
        seen = [{"who": "doctor", "date": TODAY, "scope": ["seen"]}]
        kind = KINDS["warning_signs"]
        page = doctor_page(client([record(kind, "night_pain")]), TODAY)
        assert page is not None
        self.assertIn("gentle", WORDS(page.meanwhile))
        self.assertIsNone(doctor_page(client([record(kind, "night_pain", clearances=seen)]), TODAY))

    def test_urgencies_are_in_order(self) -> None:
        self.assertEqual(MOST_URGENT_FIRST, ("emergency", "now", "today", "soon"))
