"""The treating professional's word, signs that belong to a doctor, and cautions taken on."""

from __future__ import annotations

import datetime as dt
from typing import Any

from clients.models import Entry, Instruction, Person
from practices.tenancy import opened
from tests.base import ApiTest
from visits.models import LoggedItem

OVER = "figure_four.over_thigh"


class Words(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.entry = self.house.record_hip()

    def word(self, **more: Any) -> dict[str, Any]:
        figures = [{"rule": "hip.bend", "readout": "hip_bend", "value": 80}]
        return {"who": "surgeon", "date": str(self.house.today), "figures": figures, **more}

    def give(self, **more: Any) -> Any:
        return self.post(self.url(f"/entries/{self.entry.pk}/instructions"), self.word(**more))

    def limit(self, answer: Any) -> dict[str, Any]:
        (entry,) = answer.json()
        return next(limit for limit in entry["limits"] if limit["code"] == "hip.bend")

    def test_a_figure_takes_the_place_of_the_rules_own_and_says_whose_it_is(self) -> None:
        answer = self.give(text="Not below the chair’s edge.")
        self.assertEqual(answer.status_code, 201, answer.content)
        limit = self.limit(answer)
        self.assertEqual(limit["short"], "Hip bend 80°")
        self.assertIn("surgeon", limit["source"])
        (said,) = answer.json()[0]["instructions"]
        self.assertEqual(
            (said["text"], said["figures"], said["counts"]),
            (
                "Not below the chair’s edge.",
                [{"words": "Hip bend 80°", "holds": True}],
                True,
            ),
        )
        (figure,) = [each for each in answer.json()[0]["figures"] if each["rule"] == "hip.bend"]
        self.assertEqual((figure["value"], figure["above"], figure["unit"]), (80, True, "deg"))

    def test_taken_back_the_rule_counts_again_and_the_history_stays(self) -> None:
        said = self.give().json()[0]["instructions"][0]
        url = self.url(f"/entries/{self.entry.pk}/instructions/{said['id']}")
        self.assertEqual(self.limit(self.client.delete(url))["short"], "Hip bend 90°")
        self.assertEqual(self.client.delete(url).status_code, 404)
        with opened(self.house.practice):
            self.assertEqual(Instruction.objects.count(), 2)

    def test_it_stays_with_the_record_through_a_correction_and_says_what_it_sets_then(self) -> None:
        turned_in = {"rule": "hip.turned_in", "readout": "hip_external_rotation", "value": -5}
        self.give(figures=[*self.word()["figures"], turned_in])
        facts = {**self.entry.facts, "approach": "anterolateral"}
        entry = {"kind": "hip_replacement", "side": "right", "facts": {k: v for k, v in facts.items() if v is not None}}
        answer = self.put(self.url(f"/entries/{self.entry.pk}"), {"entry": entry})
        (said,) = answer.json()[0]["instructions"]
        self.assertEqual([figure["holds"] for figure in said["figures"]], [True, False])
        self.assertEqual(self.limit(answer)["short"], "Hip bend 80°")

    def test_free_words_are_kept_with_the_person_and_go_with_it(self) -> None:
        self.give(text="Ask Mrs Rill before stairs.")
        with opened(self.house.practice):
            person = Person.objects.get(client=self.house.client)
            self.assertIn("Ask Mrs Rill before stairs.", person.notes.values())
            self.assertFalse(
                [
                    f
                    for f in Instruction._meta.concrete_fields
                    if "Rill" in str(getattr(Instruction.objects.get(), f.attname))
                ]
            )

    def test_it_stands_in_the_mind_column_and_goes_out_and_in_with_the_file(self) -> None:
        self.give(text="No low sofas.")
        notes = [note["text"] for note in self.client.get(self.url()).json()["notes"]]
        self.assertTrue([note for note in notes if note.endswith("No low sofas.")], notes)
        file = self.client.get(self.url("/file")).json()
        came = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file)
        self.assertEqual(came.status_code, 201, came.content)
        again = self.client.get(self.url("/file", client=came.json()["id"])).json()

        def said(each: Any) -> list[Any]:
            return [{k: v for k, v in one.items() if k != "id"} for one in each["entries"][0]["instructions"]]

        self.assertEqual(said(again), said(file))

    def test_what_cannot_be_names_its_field(self) -> None:
        tomorrow, long_ago = str(self.house.today + dt.timedelta(days=1)), str(self.house.today - dt.timedelta(days=90))
        stray = [{"rule": "bones.row1_flexion", "readout": "spine_flexion", "value": 5}]
        for more, field in (
            ({"date": tomorrow}, "date"),
            ({"date": long_ago}, "date"),
            ({"figures": stray}, "figures"),
        ):
            with self.subTest(more=more):
                problems = self.fields(self.give(**more))
                self.assertTrue(any(name.startswith(field) for name in problems), problems)
        self.assertEqual(self.give(figures=[], text=" ").status_code, 422)


class Signs(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.entry = self.house.record_hip()

    def answer(self, *signs: str) -> Any:
        return self.post(self.url(f"/entries/{self.entry.root}/signs"), {"signs": list(signs)})

    def head(self) -> Any:
        return self.client.get(self.url()).json()

    def test_a_yes_leads_to_whom_to_call_and_closes_everything(self) -> None:
        self.assertEqual(self.answer("chest_pain_or_breathless").status_code, 201)
        doctor = self.head()["doctor"]
        self.assertEqual(doctor["headline"], "Call the emergency number now")
        self.assertEqual([call["signs"] for call in doctor["calls"]], [["chest pain or breathlessness"]])
        verdicts = {rung["verdict"] for rung in self.client.get(self.url("/ladders/breath")).json()["left"]["rungs"]}
        self.assertEqual(verdicts, {"leave_out"})

    def test_what_the_doctor_said_opens_it_again_and_is_kept(self) -> None:
        self.answer("hot_wound_or_fever")
        body = {"who": "surgeon", "date": str(self.house.today), "text": "A cold, the hip is fine."}
        answer = self.post(self.url(f"/entries/{self.entry.root}/seen"), body)
        self.assertEqual(answer.status_code, 201, answer.content)
        self.assertIsNone(self.head()["doctor"])
        self.assertEqual(answer.json()[0]["instructions"][0]["text"], "A cold, the hip is fine.")

    def test_a_word_from_before_the_sign_opens_nothing(self) -> None:
        self.answer("hot_wound_or_fever")
        for days_ago, status in ((1, 422), (0, 201)):
            body = {"who": "surgeon", "date": str(self.house.today - dt.timedelta(days=days_ago)), "text": "Fine."}
            answer = self.post(self.url(f"/entries/{self.entry.root}/seen"), body)
            self.assertEqual(answer.status_code, status, answer.content)
            self.assertEqual(self.head()["doctor"] is None, status == 201)

    def test_a_clearance_is_given_where_the_record_knows_one_for_it(self) -> None:
        entry = {"entry": {"kind": "warning_signs", "facts": {"signs": ["night_pain"]}}}
        recorded = self.post(self.url("/entries"), entry).json()
        (signs,) = [each for each in recorded if each["entry"]["kind"] == "warning_signs"]
        self.assertEqual(self.head()["doctor"]["headline"], "See a doctor before the work goes on")
        body = {"who": "doctor", "date": str(self.house.today)}
        self.assertEqual(self.post(self.url(f"/entries/{signs['root']}/seen"), body).status_code, 201)
        self.assertIsNone(self.head()["doctor"])

    def test_gone_through_today_is_kept_and_makes_no_new_version_where_nothing_changed(self) -> None:
        for _ in range(2):
            self.answer("none")
        (check,) = self.client.get(self.url("/mat")).json()["checks"]
        self.assertEqual((check["answered"], check["asked_on"]), (["none"], str(self.house.today)))
        with opened(self.house.practice):
            self.assertEqual(Entry.objects.filter(root=self.entry.root).count(), 2)

    def test_signs_a_record_does_not_ask_about_are_refused(self) -> None:
        for signs in (["bleeding"], ["none", "calf_pain_or_swelling"]):
            with self.subTest(signs=signs):
                self.assertIn("signs", self.fields(self.answer(*signs)))


class Cautions(ApiTest):
    def finding(self) -> dict[str, Any]:
        option = self.client.get(self.url(f"/setups/{OVER}/left")).json()["options"][0]["detail"]
        return next(each for each in option["findings"] if each["severity"] == "caution")

    def take_on(self, finding: dict[str, Any], **more: Any) -> Any:
        body = {"family": "figure_four", "codes": finding["codes"], "reason": "Knows this shape well.", **more}
        if finding["side"] is not None:
            body["side"] = finding["side"]
        return self.post(self.url("/cautions"), body)

    def test_it_is_shown_next_time_with_why_who_and_when_and_changes_no_verdict(self) -> None:
        before = self.client.get(self.url(f"/setups/{OVER}/left")).json()["verdict"]
        self.assertEqual(self.take_on(self.finding()).status_code, 204)
        accepted = self.finding()["accepted"]
        self.assertEqual((accepted["reason"], accepted["by"]), ("Knows this shape well.", "Owner of Mill"))
        self.assertEqual(self.client.get(self.url(f"/setups/{OVER}/left")).json()["verdict"], before)
        self.post(self.url("/items"), self.house.item(variation=OVER))
        with opened(self.house.practice):
            snapshot = LoggedItem.objects.get().snapshot
        self.assertTrue(snapshot["accepted"])
        self.assertNotIn("Knows this shape", str(snapshot))

    def test_it_may_be_opened_again(self) -> None:
        self.take_on(self.finding())
        self.take_on(self.finding(), accepted=False, reason="")
        self.assertIsNone(self.finding()["accepted"])

    def test_another_ladder_is_not_meant(self) -> None:
        self.take_on(self.finding(), family="half_pigeon")
        self.assertIsNone(self.finding()["accepted"])

    def test_without_a_reason_nothing_is_taken_on(self) -> None:
        self.assertIn("reason", self.fields(self.take_on(self.finding(), reason=" ")))
