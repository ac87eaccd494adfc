"""A session planned: the same as last time, its order and minutes, what is left out, and templates."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from audit.models import AuditEvent
from clients.models import Client
from common import clock
from plans.models import Template
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import Visit


class PlanTest(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.house.measured_before(60)

    def plan(self, days_ahead: int | None = None, expect: int = 200) -> dict[str, Any]:
        query = {} if days_ahead is None else {"date": (self.house.today + dt.timedelta(days=days_ahead)).isoformat()}
        answer = self.client.get(self.url("/plan"), query)
        self.assertEqual(answer.status_code, expect, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def held(self, days_ago: int = 7, settled: bool | None = True, **changes: Any) -> None:
        """A hold on a day before, and what was said of the next morning."""
        item = self.house.item(**changes)
        with clock.set_to(clock.now() - dt.timedelta(days=days_ago)):
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        if settled is not None:
            self.post(self.url(f"/items/{item.id}/morning"), {"settled": settled})

    def both(self, variation: str, **more: Any) -> None:
        for side in ("left", "right"):
            self.held(variation=variation, side=side, **more)

    def again(self, version: int = 0, expect: int = 200, **more: Any) -> dict[str, Any]:
        answer = self.post(self.url("/plan/again"), {"version": version, **more})
        self.assertEqual(answer.status_code, expect, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def add(self, family: str, expect: int = 200, **more: Any) -> dict[str, Any]:
        answer = self.post(self.url("/plan/poses"), {"version": self.plan()["version"], "family": family, **more})
        self.assertEqual(answer.status_code, expect, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def save(self, plan: dict[str, Any], **changes: Any) -> Any:
        poses = [
            {
                "family": pose["family"],
                "fixed": pose["fixed"],
                **{s: {k: pose[s][k] for k in ("dose_s", "rounds")} for s in ("left", "right") if pose[s] is not None},
            }
            for pose in plan["poses"]
        ]
        return self.put(self.url("/plan"), {"version": plan["version"], "poses": poses, **changes})


def families(plan: dict[str, Any]) -> list[str]:
    return [pose["family"] for pose in plan["poses"]]


class SameAsLastTime(PlanTest):
    def test_every_ladder_with_each_sides_next_step_in_one_go(self) -> None:
        self.both("figure_four.block_flat", dose_s=60, days_ago=14)
        self.both("figure_four.block_flat", dose_s=60)
        self.held(variation="hip_hinge.wall", dose_s=24)
        plan = self.again()
        self.assertEqual(families(plan), ["figure_four", "hip_hinge"])
        figure_four, hinge = plan["poses"]
        for side in ("left", "right"):
            self.assertEqual(figure_four[side]["variation"], "figure_four.block_side")
            self.assertTrue(figure_four[side]["changed"])
            self.assertIn("one rung on", figure_four[side]["since"])
            self.assertIn("Calm 2 times", figure_four[side]["why"])
        self.assertTrue(hinge["shared"])
        self.assertEqual((hinge["left"]["since"], hinge["left"]["changed"]), ("same", False))
        self.assertEqual(plan["last_ladders"], 2)

    def test_a_flare_goes_one_step_back_on_its_side_only(self) -> None:
        self.held(variation="figure_four.block_side", side="left", settled=False)
        self.held(variation="figure_four.block_side", side="right")
        (pose,) = self.again()["poses"]
        self.assertIn("a rung back", pose["left"]["since"])
        self.assertIn("not settled next morning", pose["left"]["why"])
        self.assertEqual(pose["right"]["since"], "same")

    def test_what_is_closed_now_is_left_out_with_its_reason_or_gives_way(self) -> None:
        self.held(variation="squat.free")
        self.both("figure_four.leaning")
        self.held(variation="low_lunge.blanket", side="right")
        self.house.record_hip(days_ago=20, side="right")
        plan = self.again()
        self.assertEqual(
            set(families(plan)) | {each["family"] for each in plan["left_out"]}, {"squat", "figure_four", "low_lunge"}
        )
        for pose in plan["poses"]:
            for side in ("left", "right"):
                if pose[side] is not None:
                    self.assertTrue(pose[side]["allowed"], (pose["family"], side))
                    self.assertEqual(pose[side]["changed"], bool(pose[side]["why"]), (pose["family"], side))
                elif not pose["shared"]:
                    self.assertTrue(pose[f"{side}_missing"], (pose["family"], side))
        for each in plan["left_out"]:
            self.assertTrue(each["reason"])
            self.assertFalse(each["open"])

    def test_rounds_and_fixed_places_come_along(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.add("breath")
            plan = self.add("figure_four")
            plan["poses"][0]["fixed"] = True
            plan["poses"][1]["left"]["rounds"] = 3
            self.assertEqual(self.save(plan).status_code, 200)
            self.post(self.url("/items"), self.house.item(variation="figure_four.foot_on_floor"))
        plan = self.again()
        self.assertEqual([pose["fixed"] for pose in plan["poses"]], [True, False])
        self.assertEqual(plan["poses"][1]["left"]["rounds"], 3)

    def test_what_is_planned_already_stays_as_it_is(self) -> None:
        self.both("figure_four.block_flat")
        self.held(variation="hip_hinge.wall")
        plan = self.add("hip_hinge")
        again = self.again(plan["version"])
        self.assertEqual(families(again), ["hip_hinge", "figure_four"])

    def test_a_plan_alone_is_no_visit(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.add("breath")
        plan = self.again()
        self.assertEqual((plan["last_visit"], plan["poses"]), (None, []))

    def test_taken_out_is_offered_back(self) -> None:
        self.both("figure_four.block_flat")
        self.held(variation="hip_hinge.wall")
        plan = self.again()
        left = self.save({**plan, "poses": plan["poses"][:1]}).json()
        (out,) = left["left_out"]
        self.assertEqual((out["family"], out["reason"], out["open"]), ("hip_hinge", "Left out by you.", True))
        back = self.add("hip_hinge")
        self.assertEqual((families(back), back["left_out"]), (["figure_four", "hip_hinge"], []))

    def test_as_last_time_instead_of_the_step_offered(self) -> None:
        self.both("figure_four.block_flat", dose_s=60, days_ago=14)
        self.both("figure_four.block_flat", dose_s=60)
        self.again()
        (pose,) = self.add("figure_four", as_last_time=True)["poses"]
        self.assertEqual((pose["left"]["variation"], pose["left"]["since"]), ("figure_four.block_flat", "same"))


class Planning(PlanTest):
    def test_nobody_has_planned_yet(self) -> None:
        plan = self.plan()
        self.assertEqual((plan["version"], plan["poses"], plan["pieces"], plan["minutes"]), (0, [], [], 60))

    def test_somebody_new_begins_with_what_holds_most(self) -> None:
        (pose,) = self.add("figure_four")["poses"]
        self.assertEqual(pose["left"]["variation"], "figure_four.foot_on_floor")
        self.assertEqual(pose["left"]["since"], "new here")

    def test_nothing_open_is_refused_and_said(self) -> None:
        self.house.record_hip(days_ago=20, side="right")
        self.house.record_hip(days_ago=20, side="left")
        answer = self.post(self.url("/plan/poses"), {"version": 0, "family": "shoelace"})
        self.assertIn("Nothing of this ladder is open", self.fields(answer)["family"])
        self.assertIn("family", self.fields(self.post(self.url("/plan/poses"), {"version": 0, "family": "nowhere"})))

    def test_order_doses_rounds_and_sides_are_kept(self) -> None:
        for family in ("breath", "figure_four", "rest"):
            plan = self.add(family)
        plan["poses"].reverse()
        plan["poses"][1] |= {"fixed": True, "right": None}
        plan["poses"][1]["left"] |= {"dose_s": 50, "rounds": 2}
        saved = self.save(plan, minutes=45).json()
        self.assertEqual(families(saved), ["rest", "figure_four", "breath"])
        pose = saved["poses"][1]
        self.assertEqual(
            (pose["fixed"], pose["right"], pose["left"]["dose_s"], pose["left"]["rounds"]), (True, None, 50, 2)
        )
        self.assertEqual((saved["minutes"], saved["version"]), (45, plan["version"] + 1))
        self.assertEqual(self.plan(), saved)

    def test_an_old_plan_is_refused_and_nothing_changes(self) -> None:
        old = self.add("breath")
        now = self.add("rest")
        answer = self.save(old)
        self.assertEqual((answer.status_code, answer.json()["current"]["version"]), (409, now["version"]))
        self.assertEqual(self.again(old["version"], 409)["code"], "stale")
        self.assertEqual(families(self.plan()), ["breath", "rest"])

    def test_nonsense_is_refused(self) -> None:
        plan = self.add("breath")
        self.assertIn("poses", self.fields(self.save({**plan, "poses": plan["poses"] * 2})))
        strange = [{**plan["poses"][0], "family": "lotus"}]
        self.assertIn("poses.0.family", self.fields(self.save({**plan, "poses": strange})))
        self.assertIn("minutes", self.fields(self.save(plan, minutes=4)))

    def test_a_set_up_taken_from_set_up_keeps_place_and_rounds(self) -> None:
        for family in ("figure_four", "rest"):
            plan = self.add(family)
        plan["poses"][0]["left"]["rounds"] = 2
        self.save(plan)
        setup = {"variation": "figure_four.block_flat", "side": "left", "setup": {}, "dose_s": 40}
        self.assertEqual(self.post(self.url("/mat"), setup).status_code, 200)
        after = self.plan()
        self.assertEqual(families(after), ["figure_four", "rest"])
        left = after["poses"][0]["left"]
        self.assertEqual((left["variation"], left["dose_s"], left["rounds"]), ("figure_four.block_flat", 40, 2))

    def test_the_length_is_as_booked_or_as_said(self) -> None:
        when = {"date": self.house.today.isoformat(), "time": "10:15", "minutes": 45}
        self.post(
            f"/api/practices/{self.house.practice.pk}/appointments", {**when, "client_id": str(self.house.client.pk)}
        )
        plan = self.plan()
        self.assertEqual((plan["minutes"], plan["time"][:5]), (45, "10:15"))
        self.assertEqual(self.save(self.add("breath"), minutes=30).json()["minutes"], 30)

    def test_another_day_is_planned_on_its_own_limits(self) -> None:
        self.house.record_hip(days_ago=80, side="right")
        tomorrow = (self.house.today + dt.timedelta(days=21)).isoformat()
        answer = self.post(f"{self.url('/plan/poses')}?date={tomorrow}", {"version": 0, "family": "breath"})
        self.assertEqual((answer.status_code, answer.json()["date"]), (200, tomorrow))
        self.assertEqual((self.plan()["poses"], len(self.plan(21)["poses"])), ([], 1))
        self.plan(-1, expect=422)
        self.plan(60)
        self.plan(61, expect=422)

    def test_minutes_go_by_this_clients_breath(self) -> None:
        plan = self.add("hip_hinge")
        slow = self.put(self.url("/breath"), {"seconds": 12}).json()
        self.assertEqual(slow["breath_s"], 12)
        dose = plan["poses"][0]["left"]["dose_s"]
        self.assertEqual(slow["seconds"] - plan["seconds"], dose)
        self.assertEqual(self.put(self.url("/breath"), {"seconds": 1}).status_code, 422)

    def test_what_needs_settling_is_said_with_a_counter_pose_at_hand(self) -> None:
        plan = self.add("bound_angle")
        self.assertIn("counter", [each["code"] for each in plan["concerns"]])
        (counter,) = plan["counters"]
        self.assertEqual(counter["after"], "bound_angle")
        self.add("rest")
        after = self.add(counter["family"], after="bound_angle")
        self.assertEqual(families(after), ["bound_angle", counter["family"], "rest"])
        self.assertEqual((after["counters"], "counter" in [c["code"] for c in after["concerns"]]), ([], False))

    def test_a_counter_pose_is_added_on_the_level_of_what_it_undoes(self) -> None:
        self.add("figure_four")
        seated = self.add("wipers", after="figure_four")
        self.assertEqual(seated["poses"][1]["left"]["variation"], "wipers.chair")
        used = self.house.item(variation="half_pigeon.lying").model_dump(mode="json")["setup_used"]
        self.save({**seated, "poses": []})
        down = {"variation": "half_pigeon.lying", "side": "left", "setup": used, "dose_s": 30}
        self.assertEqual(self.post(self.url("/mat"), down).status_code, 200)
        (counter,) = self.plan()["counters"]
        plan = self.add(counter["family"], after="half_pigeon")
        self.assertEqual(plan["poses"][1]["left"]["variation"], "wipers.lying")
        self.assertEqual(counter["short"], plan["poses"][1]["left"]["short"])

    def test_a_set_up_that_closes_is_said_and_can_still_be_moved(self) -> None:
        used = self.house.item(variation="figure_four.over_thigh").model_dump(mode="json")["setup_used"]
        setup = {"variation": "figure_four.over_thigh", "side": "left", "setup": used, "dose_s": 30}
        self.assertEqual(self.post(self.url("/mat"), setup).status_code, 200)
        self.add("breath")
        self.house.record_hip(days_ago=10, side="left")
        plan = self.plan()
        self.assertIn("closed", [each["code"] for each in plan["concerns"]])
        self.assertFalse(plan["poses"][0]["left"]["allowed"])
        plan["poses"].reverse()
        self.assertEqual(families(self.save(plan).json()), ["breath", "figure_four"])

    def test_an_order_is_suggested_and_not_stored(self) -> None:
        for family in ("rest", "squat", "breath"):
            self.add(family)
        found = self.client.get(self.url("/plan/order")).json()
        self.assertEqual((found["families"], found["changes"]), (["breath", "squat", "rest"], True))
        self.assertIn("rests", [each["code"] for each in found["reasons"]])
        self.assertEqual(families(self.plan()), ["rest", "squat", "breath"])

    def test_queries_do_not_grow_with_the_plan(self) -> None:
        self.add("breath")
        self.plan()
        with CaptureQueriesContext(connection) as few:
            self.plan()
        for family in ("figure_four", "squat", "rest", "side_bend"):
            self.add(family)
        self.plan()
        with CaptureQueriesContext(connection) as many:
            self.plan()
        self.assertEqual(len(few), len(many))


class Templates(PlanTest):
    def at(self, path: str = "", house: House | None = None) -> str:
        return f"/api/practices/{(house or self.house).practice.pk}/templates{path}"

    def keep(self, name: str = "Knees and hips", expect: int = 201) -> Any:
        answer = self.post(self.at(), {"name": name, "client_id": str(self.house.client.pk)})
        self.assertEqual(answer.status_code, expect, answer.content)
        return answer

    def test_kept_listed_used_and_put_away(self) -> None:
        for family in ("breath", "figure_four"):
            plan = self.add(family)
        plan["poses"][0]["fixed"] = True
        plan["poses"][1]["right"]["rounds"] = 2
        plan = self.save(plan).json()
        kept = self.keep().json()
        self.assertEqual(len(kept["families"]), 2)
        empty = self.save({**plan, "poses": []}).json()
        filled = self.again(empty["version"], template_id=kept["id"])
        self.assertEqual(families(filled), ["breath", "figure_four"])
        self.assertTrue(filled["poses"][0]["fixed"])
        self.assertEqual(filled["poses"][1]["right"]["rounds"], 2)
        self.assertEqual(self.client.delete(self.at(f"/{kept['id']}")).json(), [])
        self.assertEqual(self.client.delete(self.at(f"/{kept['id']}")).status_code, 404)
        self.assertEqual(self.again(filled["version"], 404, template_id=kept["id"])["code"], "")

    def test_each_name_once_and_something_in_it(self) -> None:
        self.assertIn("name", self.fields(self.keep(expect=422)))
        self.add("breath")
        first = self.keep().json()
        self.assertIn("name", self.fields(self.keep(expect=422)))
        self.client.delete(self.at(f"/{first['id']}"))
        self.keep()

    def test_another_practices_templates_are_not_there(self) -> None:
        other = House("Loft", "owner@loft.example")
        with opened(other.practice):
            theirs = Template.objects.create(
                practice=other.practice, created_by=other.user, name="Theirs", poses=[{"family": "breath"}]
            )
        self.assertEqual(self.client.get(self.at()).json(), [])
        self.assertEqual(self.client.delete(self.at(f"/{theirs.pk}")).status_code, 404)
        self.assertEqual(self.again(0, 404, template_id=str(theirs.pk))["code"], "")
        self.assertEqual(self.client.get(self.at(house=other)).status_code, 404)
        unknown = {"name": "x", "client_id": str(other.client.pk)}
        self.assertEqual(self.post(self.at(), unknown).status_code, 404)

    def test_changes_are_noted_with_who_made_them(self) -> None:
        self.add("breath")
        kept = self.keep().json()
        with opened(self.house.practice):
            visit = Visit.objects.get(client=Client.objects.get(pk=self.house.client.pk))
            actions = set(
                AuditEvent.objects.filter(row_id__in=[visit.pk, uuid.UUID(kept["id"])]).values_list("action", flat=True)
            )
        self.assertEqual(actions, {"visit.opened", "visit.planned", "template.kept"})
