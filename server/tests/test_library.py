"""The Library: reading it for a typical body and a client, and a practice's own variations."""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError, connection, transaction
from django.test.utils import CaptureQueriesContext

from asketa_core import standard_library
from library.models import OwnRung
from practices.tenancy import opened
from room.models import RoomProp
from tests.base import ApiTest, House
from visits.models import LoggedItem

BLOCK = "figure_four.block_flat"


class LibraryTest(ApiTest):
    def at(self, path: str, house: House | None = None) -> str:
        return f"/api/practices/{(house or self.house).practice.pk}{path}"

    def read(self, path: str, house: House | None = None) -> Any:
        answer = self.client.get(self.at(path, house))
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def copy(self, of: str = BLOCK, name: str = "Foot on a low block", **changes: Any) -> dict[str, Any]:
        file = self.client.get(self.at(f"/library/variations/{of}/file")).json()
        file["variation"].update({"name": name, **changes})
        return file

    def add(self, **changes: Any) -> str:
        answer = self.post(self.at("/library/variations"), self.copy(**changes))
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.json()["id"]


class Reading(LibraryTest):
    def test_every_family_and_rung_is_there(self) -> None:
        found = {rung["id"] for family in self.read("/library")["families"] for rung in family["rungs"]}
        self.assertEqual(found, {rung.id for rung in standard_library().variations()})

    def test_rungs_are_drawn_for_a_typical_body_without_a_verdict(self) -> None:
        family = self.read("/library/families/figure_four")
        self.assertEqual(family["stature_cm"], 170)
        for rung in family["rungs"]:
            self.assertTrue(rung["figure"].startswith("<svg"))
            self.assertIsNone(rung["verdict"])

    def test_for_a_client_they_are_this_bodys_with_todays_verdicts(self) -> None:
        self.house.record_hip(days_ago=20)
        family = self.client.get(self.url("/library/families/figure_four?side=right")).json()
        self.assertEqual(family["stature_cm"], 172)
        ladder = self.client.get(self.url("/ladders/figure_four")).json()["right"]["rungs"]
        self.assertEqual([r["verdict"] for r in family["rungs"]], [r["verdict"] for r in ladder])
        closed = [rung for rung in family["rungs"] if rung["verdict"] == "leave_out"]
        self.assertTrue(closed and all(rung["reason"] for rung in closed))

    def test_a_variation_tells_its_recipe_words_and_four_views(self) -> None:
        rung = self.read(f"/library/variations/{BLOCK}?side=right")
        self.assertEqual([d["view"] for d in rung["drawings"]], ["side_right", "front", "behind", "above"])
        self.assertEqual(rung["recipe"][0]["about"], "Base")
        self.assertTrue(rung["cues"] and rung["watch"] and rung["slots"] and rung["fetch"])
        self.assertIsNone(rung["own"])

    def test_what_usually_closes_it(self) -> None:
        found = self.read("/library/variations/figure_four.leaning/closers")
        self.assertEqual(found[0]["verdict"], "leave_out")
        self.assertTrue(found[0]["reason"])

    def test_nothing_unknown_is_found(self) -> None:
        for path in ("/library/families/levitation", "/library/variations/a.b", "/library/variations/a.b/closers",
                     f"/library/variations/{BLOCK}/versions"):  # fmt: skip
            self.assertEqual(self.client.get(self.at(path)).status_code, 404, path)

    def test_own_variations_cost_no_more_queries(self) -> None:
        def queries() -> int:
            with CaptureQueriesContext(
                connection,
            ) as counted:
                self.client.get(self.url("/ladders/figure_four"))
            return len(counted)

        self.add()
        queries()
        one = queries()
        self.add(name="Another")
        queries()
        self.assertEqual(queries(), one)


class MakingOnesOwn(LibraryTest):
    def test_a_copy_is_offered_on_choose_below_its_original(self) -> None:
        own = self.add(own_cues=["Let the block take the foot."])
        ladder = [rung["id"] for rung in self.client.get(self.url("/ladders/figure_four")).json()["rungs"]]
        self.assertEqual(ladder.index(own), ladder.index(BLOCK) + 1)
        setup = self.client.get(self.url(f"/setups/{own}/left")).json()
        self.assertIn("Let the block take the foot.", setup["cues"])

    def test_its_slots_are_what_is_searched(self) -> None:
        file = self.copy()
        file["variation"]["slots"]["knee_out"].update({"from": 20, "to": 30, "step": 5, "plain": 25})
        own = self.post(self.at("/library/variations"), file).json()["id"]
        axes = {axis["name"]: axis for axis in self.client.get(self.url(f"/setups/{own}/left")).json()["axes"]}
        self.assertEqual([choice["number"] for choice in axes["knee_out"]["choices"]], [20, 25, 30])

    def test_it_can_be_logged_and_read_back_after_it_was_retired(self) -> None:
        own = self.add()
        item = self.house.item(variation=own)
        self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        retired = self.post(self.at(f"/library/variations/{own}/retire"), {"number": 1})
        self.assertEqual(retired.json(), {"id": own, "number": 2})
        ladder = self.client.get(self.url("/ladders/figure_four")).json()
        self.assertNotIn(own, [rung["id"] for rung in ladder["rungs"]])
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual(family["left"]["points"][0]["variation"], own)
        self.assertEqual([line["variation"] for line in self.read("/library")["retired"]], [own])

    def test_what_was_put_away_is_not_planned(self) -> None:
        own = self.add()
        plan = {"variation": own, "side": "left", "setup": {}, "dose_s": 30}
        self.assertEqual(self.post(self.url("/mat"), plan).status_code, 200)
        self.post(self.at(f"/library/variations/{own}/retire"), {"number": 1})
        self.assertIn("put away", self.fields(self.post(self.url("/mat"), plan))["variation"])
        # What is on today's plan already stays there.
        (family,) = self.client.get(self.url("/mat")).json()["families"]
        self.assertEqual(family["left"]["variation"], own)

    def test_a_hold_remembers_which_version_it_was(self) -> None:
        own = self.add()
        for number, name in ((1, "Other words"), (2, "Other words again")):
            self.assertEqual(self.post(self.url("/items"), self.house.item(variation=own)).status_code, 201)
            self.put(self.at(f"/library/variations/{own}"), {"number": number, "file": self.copy(name=name)})
        with opened(self.house.practice):
            hashes = {item.snapshot["hashes"]["variation"] for item in LoggedItem.objects.all()}
        self.assertEqual(len(hashes), 2)

    def test_bad_figures_name_their_field_and_store_nothing(self) -> None:
        file = self.copy()
        file["variation"]["slots"]["knee_out"]["from"] = 95
        fields = self.fields(self.post(self.at("/library/variations"), file))
        self.assertEqual(list(fields), ["variation.slots.knee_out.from"])
        with opened(self.house.practice):
            self.assertFalse(OwnRung.objects.exists())

    def test_an_exported_own_variation_comes_in_at_another_practice(self) -> None:
        own = self.add()
        file = self.client.get(self.at(f"/library/variations/{own}/file"))
        self.assertEqual(file["Content-Disposition"], f'attachment; filename="{own}.asketa.json"')
        other = House("Loft", "owner@loft.example")
        self.sign_in(other)
        self.assertEqual(self.client.get(self.at(f"/library/variations/{own}", other)).status_code, 404)
        brought = self.post(self.at("/library/variations", other), file.json()).json()["id"]
        self.assertNotEqual(brought, own)
        self.assertEqual(self.read(f"/library/variations/{brought}", other)["name"], "Foot on a low block")

    def test_a_copy_of_a_copy_is_understood_elsewhere(self) -> None:
        first = self.add()
        file = self.client.get(self.at(f"/library/variations/{first}")).json()["file"]
        second = self.post(self.at("/library/variations"), {**file, "after": first}).json()["id"]
        self.assertEqual(self.read(f"/library/variations/{second}")["own"]["after"], first)
        out = self.client.get(self.at(f"/library/variations/{second}/file")).json()
        self.assertEqual(out["after"], BLOCK)
        other = House("Loft", "owner@loft.example")
        self.sign_in(other)
        self.assertEqual(self.post(self.at("/library/variations", other), out).status_code, 201)

    def test_a_reader_looks_and_does_not_touch(self) -> None:
        own = self.add()
        self.house.practice.memberships.update(role="reader")
        self.assertEqual(self.client.get(self.at(f"/library/variations/{own}")).status_code, 200)
        for method, path, body in (
            (self.post, "/library/variations", self.copy()),
            (self.put, f"/library/variations/{own}", {"number": 1, "file": self.copy()}),
            (self.post, f"/library/variations/{own}/retire", {"number": 1}),
        ):
            self.assertEqual(method(self.at(path), body).status_code, 403, path)


class Versions(LibraryTest):
    def test_every_change_is_a_version_and_the_latest_counts(self) -> None:
        own = self.add()
        changed = self.put(self.at(f"/library/variations/{own}"), {"number": 1, "file": self.copy(name="Lower still")})
        self.assertEqual(changed.json(), {"id": own, "number": 2})
        shown = self.read(f"/library/variations/{own}")
        self.assertEqual((shown["name"], shown["own"]["number"]), ("Lower still", 2))
        names = [
            (v["number"], v["file"]["variation"]["name"]) for v in self.read(f"/library/variations/{own}/versions")
        ]
        self.assertEqual(names, [(2, "Lower still"), (1, "Foot on a low block")])

    def test_a_model_changed_later_still_carries_what_was_made_from_it(self) -> None:
        first = self.add(name="First")
        file = {**self.copy(name="Second"), "after": first}
        second = self.post(self.at("/library/variations"), file).json()["id"]
        self.put(self.at(f"/library/variations/{first}"), {"number": 1, "file": self.copy(name="First again")})
        shelf = self.read("/library")
        ids = [rung["id"] for family in shelf["families"] for rung in family["rungs"]]
        self.assertEqual(shelf["troubles"], [])
        self.assertEqual(ids.index(second), ids.index(first) + 1)

    def test_two_that_step_to_each_other_are_both_read(self) -> None:
        first = self.add(name="First")
        second = self.add(name="Second", step_back=first)
        edit = self.copy(name="First", step_forward=second)
        self.assertEqual(
            self.put(self.at(f"/library/variations/{first}"), {"number": 1, "file": edit}).status_code, 200
        )
        self.assertEqual(self.read("/library")["troubles"], [])
        self.assertEqual(self.read(f"/library/variations/{second}")["step_back"]["id"], first)

    def test_nothing_stands_below_itself(self) -> None:
        first = self.add(name="First")
        second = self.post(self.at("/library/variations"), {**self.copy(name="Second"), "after": first}).json()["id"]
        for own, after in ((first, first), (first, second)):
            edit = {"number": 1, "file": {**self.copy(), "after": after}}
            self.assertEqual(list(self.fields(self.put(self.at(f"/library/variations/{own}"), edit))), ["after"])

    def test_a_stale_edit_keeps_both(self) -> None:
        own = self.add()
        edit = {"number": 1, "file": self.copy(name="Mine")}
        self.put(self.at(f"/library/variations/{own}"), {"number": 1, "file": self.copy(name="Theirs")})
        answer = self.put(self.at(f"/library/variations/{own}"), edit)
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["current"]["file"]["variation"]["name"], "Theirs")

    def test_saving_a_version_brings_a_retired_one_back(self) -> None:
        own = self.add()
        self.post(self.at(f"/library/variations/{own}/retire"), {"number": 1})
        before = self.read(f"/library/variations/{own}/versions")[1]["file"]
        self.put(self.at(f"/library/variations/{own}"), {"number": 2, "file": before})
        self.assertEqual(self.read("/library")["retired"], [])

    def test_a_verdict_follows_the_version(self) -> None:
        """A wider slot opens what a narrow one kept shut: nothing answered before the change is served after it."""
        own = self.add()
        before = self.client.get(self.url(f"/setups/{own}/left")).json()["axes"]
        file = self.copy()
        file["variation"]["slots"]["knee_out"].update({"from": 10, "to": 15, "plain": 10})
        self.put(self.at(f"/library/variations/{own}"), {"number": 1, "file": file})
        self.assertNotEqual(self.client.get(self.url(f"/setups/{own}/left")).json()["axes"], before)

    def test_what_can_no_longer_be_read_is_named_and_closes_nothing(self) -> None:
        own = self.add()
        with opened(self.house.practice):
            row = OwnRung.objects.get()
            broken = {**row.content, "variation": {**row.content["variation"], "cues": ["gone_from_the_catalogue"]}}
            OwnRung.objects.create(
                practice=self.house.practice,
                created_by=self.house.user,
                key=row.key,
                number=2,
                replaces=row,
                content=broken,
            )
        (trouble,) = self.read("/library")["troubles"]
        self.assertEqual((trouble["variation"], trouble["number"]), (own, 2))
        self.assertIn("variation.cues.0", trouble["message"])
        self.assertEqual(self.client.get(self.url("/ladders/figure_four")).status_code, 200)

    def test_two_second_versions_are_one_too_many(self) -> None:
        self.add()
        with opened(self.house.practice):
            row = OwnRung.objects.get()
            again = {"practice": self.house.practice, "key": row.key, "number": 2, "content": row.content}
            OwnRung.objects.create(**again, replaces=row)
            with self.assertRaises(IntegrityError), transaction.atomic():
                OwnRung.objects.create(**again, replaces=None)


class AnotherPracticesVariations(LibraryTest):
    """Known by their id or not: they are not there."""

    def setUp(self) -> None:
        super().setUp()
        self.theirs = self.add(name="Theirs alone")
        self.other = House("Loft", "owner@loft.example")
        self.sign_in(self.other)

    def test_are_read_by_no_address(self) -> None:
        own = self.theirs
        for url in (
            self.at(f"/library/variations/{own}", self.other),
            self.at(f"/library/variations/{own}/file", self.other),
            self.at(f"/library/variations/{own}/versions", self.other),
            self.at(f"/library/variations/{own}/closers", self.other),
            self.url(f"/library/variations/{own}", self.other),
            self.url(f"/setups/{own}/left", self.other),
            self.at(f"/library/variations/{own}"),
        ):
            self.assertEqual(self.client.get(url).status_code, 404, url)
        listed = {rung["id"] for family in self.read("/library", self.other)["families"] for rung in family["rungs"]}
        self.assertNotIn(own, listed)
        ladder = self.client.get(self.url("/ladders/figure_four", self.other)).json()
        self.assertNotIn(own, [rung["id"] for rung in ladder["rungs"]])

    def test_are_changed_planned_and_logged_by_none(self) -> None:
        own = self.theirs
        file = self.client.get(self.at(f"/library/variations/{BLOCK}/file", self.other)).json()
        item = self.other.item().model_dump(mode="json", exclude_none=True) | {"variation": own}
        for method, url, body in (
            (self.put, self.at(f"/library/variations/{own}", self.other), {"number": 1, "file": file}),
            (self.post, self.at(f"/library/variations/{own}/retire", self.other), {"number": 1}),
            (self.post, self.url(f"/setups/{own}/left", self.other), {"setup": {}}),
            (self.post, self.url("/mat", self.other), {"variation": own, "side": "left", "setup": {}, "dose_s": 30}),
            (self.post, self.url("/items", self.other), item),
        ):
            self.assertEqual(method(url, body).status_code, 404, url)
        self.sign_in(self.house)
        self.assertEqual(self.read(f"/library/variations/{own}")["own"]["number"], 1)

    def test_cannot_be_copied_below(self) -> None:
        file = self.client.get(self.at(f"/library/variations/{BLOCK}/file", self.other)).json()
        answer = self.post(self.at("/library/variations", self.other), {**file, "after": self.theirs})
        self.assertEqual(list(self.fields(answer)), ["after"])

    def test_the_database_lets_no_version_follow_another_practices(self) -> None:
        with opened(self.house.practice):
            theirs = OwnRung.objects.get()
        with self.assertRaises(IntegrityError), transaction.atomic(), opened(self.other.practice):
            OwnRung.objects.create(
                practice=self.other.practice, key=theirs.key, number=2, replaces=theirs, content=theirs.content
            )
            with connection.cursor() as cursor:
                cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")

    def test_the_same_key_may_stand_in_both(self) -> None:
        """Keys are random; should two ever meet, each practice has its own."""
        with opened(self.house.practice):
            theirs = OwnRung.objects.get()
        with opened(self.other.practice):
            content = {**theirs.content, "variation": {**theirs.content["variation"], "name": "Ours"}}
            OwnRung.objects.create(practice=self.other.practice, key=theirs.key, content=content)
        self.assertEqual(self.read(f"/library/variations/{self.theirs}", self.other)["name"], "Ours")
        self.sign_in(self.house)
        self.assertEqual(self.read(f"/library/variations/{self.theirs}")["name"], "Theirs alone")


class Drawn(LibraryTest):
    def test_a_right_lane_is_drawn_from_the_right_in_its_colour(self) -> None:
        left, right = (self.read(f"/library/variations/{BLOCK}?side={side}") for side in ("left", "right"))
        self.assertIn("--fig-left", left["drawings"][0]["figure"])
        self.assertNotIn("--fig-right", left["drawings"][0]["figure"])
        self.assertIn("--fig-right", right["drawings"][0]["figure"])
        self.assertIn("Right leg worked", right["figure_words"])

    def test_a_room_that_lacks_a_prop_says_so_for_a_client_and_not_for_a_typical_body(self) -> None:
        with opened(self.house.practice):
            RoomProp.objects.filter(kind="block").update(count=0)
        self.assertIsNone(self.read(f"/library/variations/{BLOCK}")["no_stack"])
        client = self.client.get(self.url(f"/library/variations/{BLOCK}")).json()
        self.assertEqual(client["no_stack"], "Nothing in this room serves for the foot block.")
        self.assertEqual((client["drawings"], client["verdict"]), ([], "leave_out"))

    def test_words_of_the_catalogue_have_codes(self) -> None:
        words = self.read("/library/words")
        rung = standard_library().variation(BLOCK)
        for section, used in (("cues", rung.cues), ("watch", rung.watch)):
            codes = {each["code"]: each["words"] for each in words[section]}
            self.assertLessEqual(set(used), set(codes))
            self.assertTrue(all(codes.values()))

    def test_a_client_without_a_stature_is_told_what_is_missing(self) -> None:
        nobody = self.post(self.at("/clients"), {"name": "Unmeasured"}).json()["id"]
        answer = self.client.get(self.url("/library/families/figure_four", client=nobody))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("stature", answer.json()["message"].lower())
