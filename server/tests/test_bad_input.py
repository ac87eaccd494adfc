"""Anything may arrive: it is taken, or refused in one shape with words, and never a fault of the server."""

from __future__ import annotations

import json
from typing import Any

from django.db import OperationalError
from django.test import override_settings

from clients.models import Client, Entry
from common.middleware import ErrorsInOneShape
from config.api import api
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import LoggedItem

NUL, HALF = "\x00", "\ud800"


class EveryAddress(ApiTest):
    """Each of the causes, at every address that takes something of the kind."""

    def bodies(self) -> dict[str, dict[str, Any]]:
        at = f"/api/practices/{self.house.practice.pk}"
        entry = {"kind": "knee_pain", "side": "left", "facts": {"site": "front"}}
        setup = {"setup": {"seat": {"number": 45}}}
        return {
            f"{at}/clients": {"name": "Ada", "occupation": "weaver"},
            f"{at}/clients/search": {"text": "Ada"},
            f"{at}/clients/import": {"format": "asketa-client", "version": 1, "client": {"id": "x", "name": "Ada"}},
            self.url("/entries"): {"entry": entry},
            self.url("/entries/preview"): {"entry": entry},
            self.url("/measures"): {"readings": [{"quantity": "stature", "value": 170}]},
            self.url("/measures/soles-together"): {
                "side": "left", "knee_height_cm": 20, "foot_distance_cm": 30, "seat_height_cm": 5,
            },
            self.url("/setups/figure_four.block_flat/left"): setup,
            self.url("/mat"): {"variation": "figure_four.block_flat", "side": "left", "dose_s": 30, **setup},
            self.url("/items"): self.house.item().model_dump(mode="json", exclude_none=True),
            f"{at}/library/variations": {"format": "asketa-variation", "version": 2, "family": "squat"},
            "/api/auth/sign-in": {"email": "a@b.example", "password": "long enough to try"},
        }  # fmt: skip

    def spoilt(self, body: Any, value: Any) -> list[Any]:
        """The body with one value after the other replaced."""
        if isinstance(body, dict):
            return [
                {**body, key: inner} for key, each in body.items() for inner in [*self.spoilt(each, value), value]
            ] + [{**body, "unknown_key": value}]
        if isinstance(body, list):
            return [[inner] for each in body for inner in [*self.spoilt(each, value), value]]
        return []

    def test_takes_or_refuses_in_words(self) -> None:
        values: list[Any] = [
            f"a{NUL}b", f"a{HALF}b", "x" * 30_000, "", "   ", None, True, -1, 1e308, 10**30, [], {}, "9999-12-31",
            "0001-01-01", {"a": {"b": [NUL]}},
        ]  # fmt: skip
        tried = 0
        for url, body in self.bodies().items():
            for value in values:
                for spoilt in self.spoilt(body, value):
                    # json.dumps keeps halves of pairs as escapes, as a browser does.
                    response = self.client.post(url, json.dumps(spoilt), content_type="application/json")
                    where = f"{url} {value!r:.40} {response.content[:200]!r}"
                    self.assertLess(response.status_code, 500, where)
                    if response.status_code >= 400:
                        self.assertIn("message", response.json(), where)
                    tried += 1
        self.assertGreater(tried, 700)

    def test_numbers_without_an_end_are_refused_with_their_place(self) -> None:
        for url, body in self.bodies().items():
            for word in ("NaN", "Infinity", "-Infinity"):
                text = json.dumps({**body, "endless": 0}).replace('"endless": 0', f'"endless": {word}')
                response = self.client.post(url, text, content_type="application/json")
                self.assertEqual(response.status_code, 422, url)
                self.assertEqual(response.json()["fields"][0]["field"], "endless")

    def test_what_is_no_json_is_refused_in_the_same_shape(self) -> None:
        for text in ("{", "[1,", b"\xff\xfe", "nul", '{"a":' * 5000):
            for url in self.bodies():
                response = self.client.post(url, text, content_type="application/json")
                self.assertIn(response.status_code, (400, 422), url)
                self.assertTrue(response.json()["message"])

    def test_addresses_with_control_characters_lead_nowhere(self) -> None:
        at = f"/api/practices/{self.house.practice.pk}"
        for path in ("/library/variations/x.%00", "/library/families/%00", f"/clients/{self.house.client.pk}/ladders/a%00b",
                     f"/clients/{self.house.client.pk}/setups/x%00.y/left", "/library/variations/x%0A/versions"):  # fmt: skip
            response = self.client.get(at + path)
            self.assertEqual(response.status_code, 404, path)
            self.assertEqual(response.json()["message"], "There is nothing at this address.")


class OneShape(ApiTest):
    def shape(self, response: Any, status: int) -> None:
        self.assertEqual(response.status_code, status, response.content[:200])
        self.assertEqual(set(response.json()) - {"current"}, {"message", "code", "fields"})

    def test_whoever_raises_it(self) -> None:
        self.shape(self.client.get("/api/nothing"), 404)
        self.shape(self.client.delete(self.url()), 405)
        self.shape(self.client.post(self.url("/items"), {}, content_type="application/json"), 422)
        self.shape(self.client.get(self.url(client=self.house.practice.pk)), 404)
        self.client.logout()
        self.shape(self.client.get(self.url()), 401)

    def test_a_request_without_its_token(self) -> None:
        from django.test import Client as Browser  # noqa: PLC0415

        browser = Browser(enforce_csrf_checks=True)
        browser.force_login(self.house.user, backend="django.contrib.auth.backends.ModelBackend")
        response = browser.post(self.url("/items"), {}, content_type="application/json")
        self.shape(response, 403)
        self.assertIn("Reload", response.json()["message"])

    def test_what_comes_as_a_form(self) -> None:
        """With and without what a form needs: nothing tries to take it apart."""
        for kind in ("multipart/form-data", "multipart/form-data; boundary=x", "application/x-www-form-urlencoded"):
            for send in (self.client.post, self.client.put):
                self.shape(send(self.url("/items"), b"name=x", content_type=kind), 415)

    @override_settings(DATA_UPLOAD_MAX_MEMORY_SIZE=1000)
    def test_a_body_too_large(self) -> None:
        body = {"name": "x" * 3000}
        self.shape(self.post(f"/api/practices/{self.house.practice.pk}/clients", body), 413)

    def test_faults_and_a_database_that_is_away(self) -> None:
        for error, status in ((RuntimeError("a name"), 500), (OperationalError("a name"), 503)):

            def fail(request: Any, error: Exception = error) -> Any:
                raise error

            request = self.client.get(self.url()).wsgi_request
            with self.assertLogs("common.errors"):
                handled = api.on_exception(request, error)
                outside = ErrorsInOneShape(fail).process_exception(request, error)
            for response in (handled, outside):
                assert response is not None
                self.assertEqual(response.status_code, status)
                self.assertNotIn("a name", response.content.decode())
                self.assertEqual("Retry-After" in response.headers, status == 503)

    def test_an_unknown_host(self) -> None:
        response = self.client.get("/api/auth/me", headers={"host": "elsewhere.example"})
        self.shape(response, 400)


class NothingTypedIsLost(ApiTest):
    def test_null_where_something_was_typed_is_refused(self) -> None:
        """A form makes null of '70°'; taken as not known the laxer rule would stand."""
        for facts in ({"surgeon_bend_deg": None}, {"date": None}, {"approach": None}):
            entry = {"entry": {"kind": "hip_replacement", "side": "right", "facts": facts}}
            for url in ("/entries", "/entries/preview"):
                (problem,) = self.fields(self.post(self.url(url), entry)).items()
                self.assertIn("Nothing arrived", problem[1])
                self.assertTrue(problem[0].endswith(next(iter(facts))), problem)
        entry = {"entry": {"kind": "bones", "facts": {"t_score": None}}}
        self.assertEqual(self.post(self.url("/entries"), entry).status_code, 422)
        reading = {"readings": [{"quantity": "weight", "value": 70, "error": None}]}
        self.assertEqual(self.post(self.url("/measures"), reading).status_code, 422)
        with opened(self.house.practice):
            self.assertFalse(Entry.objects.exists())

    def test_null_in_a_file_is_refused_with_its_path(self) -> None:
        file = {
            "format": "asketa-client", "version": 1, "client": {"id": "x"},
            "entries": [{"id": "b", "kind": "bones", "facts": {"t_score": None}}],
        }  # fmt: skip
        response = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file)
        self.assertIn("entries.0.facts.t_score", self.fields(response))

    def test_a_truth_value_is_no_number_and_an_unknown_field_no_field(self) -> None:
        item = self.house.item().model_dump(mode="json", exclude_none=True)
        self.assertIn("before", self.fields(self.post(self.url("/items"), {**item, "before": True})))
        self.assertIn("during", self.fields(self.post(self.url("/items"), {**item, "during": "3"})))
        self.assertIn("befor", self.fields(self.post(self.url("/items"), {**item, "befor": 1})))


class Impossible(ApiTest):
    """Facts that cannot be are refused with the reason, from a form and from a file alike."""

    def refused(self, kind: str, facts: dict[str, Any], field: str, says: str, side: str | None = None) -> None:
        entry = {"kind": kind, "facts": facts, **({"side": side} if side else {})}
        problems = self.fields(self.post(self.url("/entries"), {"entry": entry}))
        self.assertIn(says, problems[field])
        self.assertEqual(self.post(self.url("/entries/preview"), {"entry": entry}).status_code, 422)
        file = {"format": "asketa-client", "version": 1, "client": {"id": "x"}, "entries": [{"id": "e", **entry}]}
        at = f"/api/practices/{self.house.practice.pk}/clients/import"
        self.assertIn(says, self.fields(self.post(at, file))[f"entries.0.{field}"])

    def day(self, days: int) -> str:
        import datetime as dt  # noqa: PLC0415

        return (self.house.today + dt.timedelta(days=days)).isoformat()

    def taken(self, kind: str, facts: dict[str, Any], side: str | None = None) -> None:
        entry = {"kind": kind, "facts": facts, **({"side": side} if side else {})}
        self.assertEqual(self.post(self.url("/entries/preview"), {"entry": entry}).status_code, 200, entry)

    def test_an_operation_ahead(self) -> None:
        self.refused("hip_replacement", {"date": self.day(1)}, "facts.date", "future", "left")
        self.refused("knee_pain", {"operation_date": self.day(1)}, "facts.operation_date", "future", "left")
        self.taken("hip_replacement", {"date": self.day(0)}, "left")

    def test_a_birth_too_far_ahead_or_behind(self) -> None:
        self.refused("pregnancy", {"due_date": self.day(42 * 7 + 1)}, "facts.due_date", "42 weeks")
        self.taken("pregnancy", {"due_date": self.day(42 * 7)})
        self.refused("pregnancy", {"due_date": self.day(-22)}, "facts.due_date", "3 weeks ago")
        self.taken("pregnancy", {"due_date": self.day(-21)})
        self.taken("pregnancy", {"due_date": self.day(-22), "born_on": self.day(-20)})
        self.refused("pregnancy", {"last_period": self.day(-400)}, "facts.last_period", "weeks ago")

    def test_a_score_no_report_gives(self) -> None:
        self.refused("bones", {"t_score": 4.1}, "facts.t_score", "between −6 and 4")
        self.refused("bones", {"t_score": -6.1}, "facts.t_score", "between −6 and 4")
        for score in (-6, 4):
            self.taken("bones", {"t_score": score})

    def test_a_stature_no_body_has(self) -> None:
        for value, status in ((89, 422), (90, 201), (230, 201), (231, 422)):
            body = {"readings": [{"quantity": "stature", "value": value}]}
            self.assertEqual(self.post(self.url("/measures"), body).status_code, status, value)

    def test_two_hips_on_one_side_and_two_sets_of_bones(self) -> None:
        self.house.record_hip()
        again = {"entry": {"kind": "hip_replacement", "side": "right", "facts": {}}}
        self.assertIn("already", self.fields(self.post(self.url("/entries"), again))["side"])
        other = {"entry": {"kind": "hip_replacement", "side": "left", "facts": {}}}
        self.assertEqual(self.post(self.url("/entries"), other).status_code, 201)

    def test_a_clearance_before_the_operation(self) -> None:
        entry = self.house.record_hip(days_ago=10)
        given = {"who": "surgeon", "scope": ["all"]}
        url = self.url(f"/entries/{entry.pk}/clearances")
        self.assertIn("before the operation", self.fields(self.post(url, {**given, "date": self.day(-11)}))["date"])
        self.assertEqual(self.post(url, {**given, "date": self.day(-10)}).status_code, 201)

    def test_choices_and_slots_a_rung_does_not_have(self) -> None:
        url = self.url("/setups/figure_four.block_flat/left")
        for setup in ({"nowhere": {"number": 3}}, {"foot": {"choice": "sideways"}}, {"seat": {"choice": "drawn_up"}}):
            problems = self.fields(self.post(url, {"setup": setup}))
            self.assertEqual(set(problems), {f"setup.{next(iter(setup))}"})


class Unreadable(ApiTest):
    """One stored record that cannot be read is one line of trouble, and closes until it is entered again."""

    def store(self, house: House, facts: dict[str, Any], kind: str = "pregnancy", side: str | None = None) -> None:
        import uuid  # noqa: PLC0415

        new = uuid.uuid4()
        with opened(house.practice):
            Entry.objects.create(
                id=new, root=new, practice=house.practice, client=house.client, kind=kind, side=side, facts=facts
            )

    def views(self) -> list[str]:
        return ["", "/entries", "/measures", "/families", "/ladders/figure_four", "/mat", "/responses", "/items", "/file",
                "/coming", "/ladders/figure_four/drawings"]  # fmt: skip

    def test_every_view_of_its_client_and_the_list_still_answer(self) -> None:
        for facts in (
            {"last_period": "9999-12-31"},
            {"weeks_known": 20, "weeks_known_on": "9999-12-30"},
            {"moon": "full"},
        ):
            self.store(self.house, facts)
        for view in self.views():
            self.assertEqual(self.client.get(self.url(view)).status_code, 200, view)
        listed = self.post(f"/api/practices/{self.house.practice.pk}/clients/search", {"text": ""})
        (line,) = listed.json()
        self.assertIn("cannot be read", line["trouble"])
        notes = self.client.get(self.url()).json()["notes"]
        self.assertTrue(any("cannot be read" in note["text"] and note["weight"] == "ask" for note in notes))
        # In a therapist's words: the fact at fault, no path into a file.
        self.assertFalse(any("facts." in note["text"] or "_" in note["text"] for note in notes))

    def test_unknown_is_never_taken_as_fine(self) -> None:
        self.store(self.house, {"moon": "full"}, kind="hip_replacement", side="right")
        ladder = self.client.get(self.url("/ladders/figure_four")).json()
        self.assertNotIn("clear", {rung["verdict"] for rung in ladder["left"]["rungs"]})

    def test_it_can_be_taken_back(self) -> None:
        self.store(self.house, {"moon": "full"})
        (entry,) = self.client.get(self.url("/entries")).json()
        self.assertEqual(entry["entry"]["kind"], "unreadable")
        self.assertEqual(entry["entry"]["facts"]["stored"], {"moon": "full"})
        self.assertEqual(self.client.delete(self.url(f"/entries/{entry['id']}")).json(), [])

    def test_a_hold_or_measure_that_cannot_be_read_is_left_out_and_told(self) -> None:
        self.post(self.url("/items"), self.house.item())
        with opened(self.house.practice):
            held = LoggedItem.objects.get()
            LoggedItem.objects.create(
                visit=held.visit, practice=held.practice, variation=held.variation, side="left", setup_used={"seat": 3},
                dose_s=30, during=1, snapshot={},
            )  # fmt: skip
        self.assertEqual(len(self.client.get(self.url("/items")).json()), 1)
        notes = " ".join(note["text"] for note in self.client.get(self.url()).json()["notes"])
        self.assertIn("A logged hold cannot be read", notes)
        for view in self.views():
            self.assertEqual(self.client.get(self.url(view)).status_code, 200, view)

    def test_nothing_of_the_kind_comes_in(self) -> None:
        for facts in ({"last_period": "9999-12-31"}, {"weeks_known": 20, "weeks_known_on": "9999-12-30"}):
            file = {
                "format": "asketa-client", "version": 1, "client": {"id": "x"},
                "entries": [{"id": "e", "kind": "pregnancy", "facts": facts}],
            }  # fmt: skip
            at = f"/api/practices/{self.house.practice.pk}/clients/import"
            self.assertEqual(self.post(at, file).status_code, 422)
            self.assertEqual(
                self.post(self.url("/entries/preview"), {"entry": file["entries"][0] | {}}).status_code, 422
            )
        with opened(self.house.practice):
            self.assertEqual(Client.objects.count(), 1)


class Bounded(ApiTest):
    def test_names_and_words_of_a_variation(self) -> None:
        at = f"/api/practices/{self.house.practice.pk}/library/variations"
        file = self.client.get(f"{at}/figure_four.block_flat/file").json()
        for change in (
            {"name": "x" * 121}, {"name": "\u200b\u200b"}, {"name": "  "}, {"short": "x" * 61},
            {"own_cues": ["Breathe."] * 21}, {"own_cues": ["x" * 161]}, {"cues": ["breathe_low"] * 21},
        ):  # fmt: skip
            response = self.post(at, {**file, "variation": {**file["variation"], **change}})
            self.assertEqual(response.status_code, 422, change)

    def test_a_clients_name_from_a_file(self) -> None:
        for name in ("x" * 121, " ", "\u200b"):
            file = {"format": "asketa-client", "version": 1, "client": {"id": "x", "name": name}}
            response = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file)
            self.assertEqual(response.status_code, 422, name)

    def test_many_holds_are_read_in_pages_and_views_stay_small(self) -> None:
        holds = [
            {
                "id": str(k), "date": f"20{10 + k % 15}-0{1 + k % 9}-1{k % 9}", "variation": "figure_four.block_flat",
                "side": "left", "setup": {}, "dose_s": 30, "during": 1,
            }
            for k in range(3000)
        ]  # fmt: skip
        file = {
            "format": "asketa-client", "version": 1, "client": {"id": "x", "name": "Many"}, "responses": holds,
            "body": [{"quantity": "stature", "value": 170, "date": "2020-01-01"}],
        }  # fmt: skip
        response = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file)
        self.assertEqual(response.status_code, 201, response.content[:300])
        many = response.json()["id"]
        first = self.client.get(self.url("/items", client=many)).json()
        self.assertEqual(len(first), 100)
        before = self.client.get(self.url(f"/items?before={first[0]['id']}&limit=50", client=many)).json()
        self.assertEqual(len(before), 50)
        self.assertFalse({item["id"] for item in first} & {item["id"] for item in before})
        self.assertLessEqual(before[-1]["date"], first[0]["date"])
        self.assertEqual(self.client.get(self.url("/items?limit=5000", client=many)).status_code, 422)
        (family,) = self.client.get(self.url("/responses", client=many)).json()
        self.assertEqual((len(family["left"]["points"]), family["left"]["earlier"]), (60, True))
        for view in ("/mat", "/responses", "/items"):
            self.assertLess(len(self.client.get(self.url(view, client=many)).content), 150_000, view)
