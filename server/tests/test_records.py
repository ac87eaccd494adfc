"""Records, clearances and daily answers: what is stored, what is refused, what is never lost."""

from __future__ import annotations

import datetime as dt
from typing import Any

from audit.models import AuditEvent
from clients.models import Entry
from practices.tenancy import opened
from tests.base import ApiTest


def hip(side: str = "right", **facts: Any) -> dict[str, Any]:
    return {"entry": {"kind": "hip_replacement", "side": side, "facts": {"approach": "posterior", **facts}}}


class Recording(ApiTest):
    def test_a_record_turns_into_limits_at_once(self) -> None:
        answer = self.post(self.url("/entries"), hip(date=str(self.house.today - dt.timedelta(weeks=9))))
        self.assertEqual(answer.status_code, 201)
        (entry,) = answer.json()
        self.assertEqual(entry["label"], "Hip replaced, posterior, week 9")
        self.assertIn("hip.bend", {limit["code"] for limit in entry["limits"]})
        self.assertTrue(all(limit["source"] for limit in entry["limits"]))

    def test_a_preview_stores_nothing(self) -> None:
        answer = self.post(self.url("/entries/preview"), hip())
        self.assertIn("the date of the operation", " ".join(limit["reason"] for limit in answer.json()))
        self.assertEqual(self.client.get(self.url("/entries")).json(), [])

    def test_a_date_in_the_future_names_its_field(self) -> None:
        problems = self.fields(self.post(self.url("/entries"), hip(date=str(self.house.today + dt.timedelta(days=1)))))
        self.assertIn("future", problems["facts.date"])

    def test_today_is_no_future(self) -> None:
        self.assertEqual(self.post(self.url("/entries"), hip(date=str(self.house.today))).status_code, 201)

    def test_a_missing_side_names_its_field(self) -> None:
        entry = hip()
        del entry["entry"]["side"]
        problems = self.fields(self.post(self.url("/entries"), entry))
        self.assertTrue(any(field.endswith("side") for field in problems), problems)

    def test_errors_never_echo_what_was_typed(self) -> None:
        answer = self.post(self.url("/entries"), hip(approach="the-secret-approach"))
        self.assertEqual(answer.status_code, 422)
        self.assertNotIn("secret", answer.content.decode())

    def test_unknown_facts_are_refused(self) -> None:
        self.assertEqual(self.post(self.url("/entries"), hip(aproach="posterior")).status_code, 422)


class Correcting(ApiTest):
    def test_a_correction_replaces_and_keeps_the_history(self) -> None:
        first = self.house.record_hip()
        answer = self.put(self.url(f"/entries/{first.pk}"), hip(approach="lateral"))
        (entry,) = answer.json()
        self.assertEqual(entry["entry"]["facts"]["approach"], "lateral")
        self.assertEqual(entry["root"], str(first.pk))
        with opened(self.house.practice):
            self.assertEqual(Entry.objects.count(), 2)
            self.assertEqual(Entry.objects.get(pk=first.pk).facts["approach"], "posterior")

    def test_a_stale_correction_is_refused_and_shows_what_stands(self) -> None:
        first = self.house.record_hip()
        self.put(self.url(f"/entries/{first.pk}"), hip(approach="lateral"))
        answer = self.put(self.url(f"/entries/{first.pk}"), hip(approach="anterolateral"))
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["current"]["facts"]["approach"], "lateral")

    def test_clearances_stay_with_the_record_through_corrections(self) -> None:
        first = self.house.record_hip()
        given = {"who": "surgeon", "date": str(self.house.today), "scope": ["bend"]}
        self.post(self.url(f"/entries/{first.pk}/clearances"), given)
        (entry,) = self.put(self.url(f"/entries/{first.pk}"), hip(dislocated="no")).json()
        self.assertEqual(entry["clearances"], [given])
        self.assertNotIn("hip.bend", {limit["code"] for limit in entry["limits"]})

    def test_taking_back_hides_and_keeps(self) -> None:
        first = self.house.record_hip()
        self.assertEqual(self.client.delete(self.url(f"/entries/{first.pk}")).json(), [])
        with opened(self.house.practice):
            self.assertEqual(Entry.objects.count(), 2)

    def test_every_change_is_in_the_audit(self) -> None:
        first = self.house.record_hip()
        self.put(self.url(f"/entries/{first.pk}"), hip())
        with opened(self.house.practice):
            actions = set(AuditEvent.objects.values_list("action", flat=True))
        self.assertLessEqual({"entry.recorded", "entry.corrected"}, actions)


class Arrival(ApiTest):
    def test_todays_pain_moves_the_limits(self) -> None:
        entry = self.house.record_knee()
        before = self.client.get(self.url("/entries")).json()[0]
        self.assertEqual({m["code"]: m["severity"] for m in before["limits"]}["knee.front_bend_sore"], "ask")
        answer = self.post(self.url(f"/entries/{entry.pk}/daily"), {"pain_today": 5, "irritable": "no"})
        codes = {limit["code"]: limit["severity"] for limit in answer.json()[0]["limits"]}
        self.assertEqual(codes["knee.front_bend_sore"], "stop")

    def test_eleven_of_ten_is_refused(self) -> None:
        entry = self.house.record_knee()
        self.assertIn("pain_today", self.fields(self.post(self.url(f"/entries/{entry.pk}/daily"), {"pain_today": 11})))


class EditingClients(ApiTest):
    def test_a_stale_edit_keeps_both_texts(self) -> None:
        edit = {"name": "New name", "occupation": "weaver", "version": 1}
        self.assertEqual(self.put(self.url(), edit).json()["version"], 2)
        answer = self.put(self.url(), {**edit, "name": "Other name"})
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["current"]["name"], "New name")

    def test_a_client_needs_a_name(self) -> None:
        url = f"/api/practices/{self.house.practice.pk}/clients"
        self.assertIn("name", self.fields(self.post(url, {"name": ""})))

    def test_clients_are_listed_by_name(self) -> None:
        url = f"/api/practices/{self.house.practice.pk}/clients"
        for name in ("Zeno", "Abel", "Moss"):
            self.post(url, {"name": name})
        names = [line["name"] for line in self.post(f"{url}/search", {"text": ""}).json()]
        self.assertEqual(names, ["Abel", "Client of Mill", "Moss", "Zeno"])

    def test_a_client_is_put_away_and_brought_back_with_everything_kept(self) -> None:
        self.house.record_hip()
        search = f"/api/practices/{self.house.practice.pk}/clients/search"

        def listed(**asked: Any) -> list[str]:
            return [each["id"] for each in self.post(search, {"text": "", **asked}).json()]

        own = str(self.house.client.pk)
        self.assertEqual((listed(), listed(archived=True)), ([own], []))
        for _ in range(2):
            away = self.put(self.url("/archived"), {"archived": True})
            self.assertEqual((away.status_code, away.json()["archived"]), (200, True))
        self.assertEqual((listed(), listed(archived=True)), ([], [own]))
        # Whoever has the address sees everything, and that it is put away.
        head = self.client.get(self.url()).json()
        self.assertTrue(head["client"]["archived"])
        self.assertEqual(len(self.client.get(self.url("/entries")).json()), 1)
        self.put(self.url("/archived"), {"archived": False})
        self.assertEqual((listed(), listed(archived=True)), ([own], []))
        with opened(self.house.practice):
            done = AuditEvent.objects.filter(action__in=("client.archived", "client.restored")).order_by("created_at")
            self.assertEqual([each.action for each in done], ["client.archived", "client.restored"])

    def test_search_by_name_or_occupation(self) -> None:
        url = f"/api/practices/{self.house.practice.pk}/clients/search"
        for text, found in (("mill", 1), ("WEAV", 1), ("zzz", 0), ("", 1)):
            self.assertEqual(len(self.post(url, {"text": text}).json()), found, text)


class WholeBody(ApiTest):
    """Records that have no side: pregnancy and bones."""

    def record(self, kind: str, **facts: Any) -> Any:
        return self.post(self.url("/entries"), {"entry": {"kind": kind, "side": None, "facts": facts}})

    def test_are_stored_listed_and_turned_into_limits(self) -> None:
        due = self.house.today + dt.timedelta(days=126)
        self.assertEqual(
            self.record("pregnancy", due_date=str(due), babies="one", ticks=["none"], girdle_pain="no").status_code, 201
        )
        (entry,) = self.client.get(self.url("/entries")).json()
        self.assertEqual((entry["entry"]["side"], entry["label"]), (None, "Pregnant, week 22"))
        self.assertIn("pregnancy.supine_quiet", {limit["code"] for limit in entry["limits"]})
        head = self.client.get(self.url()).json()
        self.assertTrue(any(n["side"] is None and n["text"].startswith("Pregnant, week 22") for n in head["notes"]))
        self.assertEqual(head["next_change"]["date"], str(self.house.today + dt.timedelta(weeks=6)))

    def test_a_side_is_refused_where_there_is_none_and_asked_for_where_there_is(self) -> None:
        wrong = self.post(self.url("/entries"), {"entry": {"kind": "bones", "side": "left", "facts": {}}})
        self.assertIn("body as a whole", " ".join(self.fields(wrong).values()))
        sideless = self.post(self.url("/entries"), {"entry": {"kind": "groin_pinch", "side": None, "facts": {}}})
        self.assertEqual(sideless.status_code, 422)

    def test_a_due_date_years_away_is_a_slip(self) -> None:
        far = self.house.today + dt.timedelta(days=700)
        self.assertIn("42 weeks ahead", " ".join(self.fields(self.record("pregnancy", due_date=str(far))).values()))

    def test_a_fracture_in_the_future_is_refused(self) -> None:
        ahead = str(self.house.today + dt.timedelta(days=3))
        problems = self.fields(self.record("bones", t_score=-2, fractures=[{"bone": "wrist", "date": ahead}]))
        self.assertIn("future", " ".join(problems.values()))

    def test_a_shared_shape_goes_to_the_mat_for_both_sides(self) -> None:
        rung = "seated_fold.chair"
        for side in ("left", "right"):
            answer = self.client.get(self.url(f"/setups/{rung}/{side}")).json()
            self.assertTrue(answer["shared"])
        setup = answer["options"][0]["detail"]["setup"]
        plan = {"variation": rung, "side": "right", "setup": setup, "dose_s": 45}
        self.assertEqual(self.post(self.url("/mat"), plan).status_code, 200)
        (family,) = self.client.get(self.url("/mat")).json()["families"]
        self.assertEqual(family["left"]["setup"], family["right"]["setup"])
