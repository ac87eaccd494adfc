"""What happened on the mat is kept as it was said: every hold its own, nothing overwritten, nothing dropped."""

from __future__ import annotations

import datetime as dt
import threading
import uuid
from typing import Any
from unittest.mock import patch

from django.db import connection
from django.test import Client as Browser
from django.test import TransactionTestCase

from accounts.models import User
from asketa_core import Side, Situation
from audit.models import AuditEvent
from common import clock
from engine.answers import forget
from practices.models import Membership
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import Incident, LoggedItem, Trial, Visit

FLAT, SIDE_ON = "figure_four.block_flat", "figure_four.block_side"


class Rounds(ApiTest):
    def mat_side(self) -> Any:
        (family,) = self.client.get(self.url("/mat")).json()["families"]
        return family["left"]

    def plan(self) -> None:
        plan = {"variation": FLAT, "side": "left", "setup": {}, "dose_s": 40}
        self.assertEqual(self.post(self.url("/mat"), plan).status_code, 200)

    def test_second_and_third_rounds_are_holds_of_their_own(self) -> None:
        self.plan()
        for during in (1, 2, 3):
            self.assertEqual(self.post(self.url("/items"), self.house.item(during=during)).status_code, 201)
        self.assertEqual([hold["during"] for hold in self.mat_side()["logged_today"]], [1, 2, 3])

    def test_after_a_step_back_the_first_hold_stays_what_it_was(self) -> None:
        self.plan()
        flare = self.house.item(during=6, kind="pinching")
        self.post(self.url("/items"), flare)
        back = self.mat_side()["step_back"]
        gentler = self.house.item(variation=back["variation"], during=1)
        self.assertEqual(self.post(self.url("/items"), gentler).status_code, 201)
        first, second = self.mat_side()["logged_today"]
        self.assertEqual((first["variation"], first["kind"], first["tolerance"]), (FLAT, "pinching", "flare"))
        self.assertEqual(second["variation"], back["variation"])

    def test_seconds_really_held_stand_beside_those_planned(self) -> None:
        self.post(self.url("/items"), self.house.item(held_s=5))
        (hold,) = self.client.get(self.url("/items")).json()
        self.assertEqual((hold["dose_s"], hold["dose"], hold["held_s"]), (40, "40 s", 5))

    def test_what_nobody_said_stays_empty(self) -> None:
        bare = {"id": str(uuid.uuid4()), "variation": FLAT, "side": "left", "setup_used": {}, "dose_s": 30, "during": 1}
        self.assertEqual(self.post(self.url("/items"), bare).status_code, 201)
        (hold,) = self.client.get(self.url("/items")).json()
        self.assertEqual([hold[name] for name in ("before", "after", "kind", "place", "signs", "held_s")], [None] * 6)
        self.assertEqual(hold["tolerance"], "pending")


class ChangedSince(ApiTest):
    """A plan made when a rung was built otherwise is shown as it was, with both verdicts."""

    def planned(self, **changes: Any) -> Any:
        plan = {"variation": FLAT, "side": "left", "setup": {}, "dose_s": 40}
        self.post(self.url("/mat"), plan)
        with opened(self.house.practice):
            visit = Visit.objects.get()
            visit.plan[0]["left"] |= changes
            visit.save(update_fields=["plan"])
        (family,) = self.client.get(self.url("/mat")).json()["families"]
        return family["left"]

    def test_what_is_as_it_was_planned_is_not_marked(self) -> None:
        self.assertIsNone(self.planned()["changed_since"])

    def test_a_height_nobody_builds_now_is_marked(self) -> None:
        old = {"seat": {"stack": "chair:seat+blanket:16", "number": 53.4}, "foot_lift": {"number": 4}}
        changed = self.planned(setup=old, verdict="clear")["changed_since"]
        self.assertIn("seat 53", changed["was"])
        self.assertEqual(changed["verdict_then"], "clear")

    def test_so_is_another_verdict(self) -> None:
        side = self.planned(verdict="leave_out")
        self.assertEqual(side["changed_since"]["verdict_then"], "leave_out")
        self.assertEqual(side["changed_since"]["verdict_now"], side["verdict"])


class BothLegs(ApiTest):
    """A hold of a shape both legs share is said once and stands on both sides."""

    RUNG = "seated_fold.chair"

    def said(self, **changes: Any) -> Any:
        return self.house.item(variation=self.RUNG, **changes)

    def points(self) -> tuple[list[int], list[int]]:
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertTrue(family["shared"])
        return tuple([point["during"] for point in family[side]["points"]] for side in ("left", "right"))  # type: ignore[return-value]

    def test_is_stored_for_both_and_sent_again_stores_nothing_twice(self) -> None:
        item = self.said(during=2)
        for _ in range(2):
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        self.assertEqual(self.points(), ([2], [2]))

    def test_is_corrected_on_both(self) -> None:
        item = self.said(during=2)
        self.post(self.url("/items"), item)
        fixed = {"id": str(uuid.uuid4()), "during": 4, "kind": "pressure", "place": "wanted", "signs": []}
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), fixed).status_code, 200)
        again = {**fixed, "id": str(uuid.uuid4()), "during": 3}
        self.assertEqual(self.put(self.url(f"/items/{fixed['id']}"), again).status_code, 200)
        self.assertEqual(self.points(), ([3], [3]))

    def test_is_asked_about_once_the_next_morning_and_answered_for_both(self) -> None:
        self.house.measured_before()
        with clock.set_to(clock.now() - dt.timedelta(days=1)):
            self.post(self.url("/items"), self.said(during=1))
        (open_one,) = self.client.get(self.url("/mat")).json()["morning_open"]
        answer = self.post(self.url(f"/items/{open_one['id']}/morning"), {"settled": True})
        self.assertEqual(answer.json()["morning_open"], [])
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual([family[side]["points"][0]["settled"] for side in ("left", "right")], [True, True])

    def test_a_hold_of_one_leg_stays_on_its_side(self) -> None:
        self.post(self.url("/items"), self.house.item())
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual((len(family["left"]["points"]), len(family["right"]["points"])), (1, 0))


class Correcting(ApiTest):
    def test_keeps_the_holds_own_rung_set_up_dose_and_day(self) -> None:
        self.house.measured_before()
        yesterday = clock.now() - dt.timedelta(days=1)
        with clock.set_to(yesterday):
            item = self.house.item(during=6, kind="pinching")
            self.post(self.url("/items"), item)
        fixed = {"id": str(uuid.uuid4()), "during": 5, "kind": "pressure", "place": "wanted", "signs": []}
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), fixed).status_code, 200)
        (hold,) = self.client.get(self.url("/items")).json()
        self.assertEqual((hold["variation"], hold["during"], hold["dose_s"]), (FLAT, 5, 40))
        with opened(self.house.practice):
            old, new = LoggedItem.objects.order_by("created_at")
            self.assertEqual((new.replaces_id, new.setup_used, new.visit_id), (old.pk, old.setup_used, old.visit_id))
            self.assertEqual(new.snapshot, old.snapshot)
            self.assertEqual(old.kind, "pinching")

    def test_opens_no_visit_today(self) -> None:
        self.house.measured_before()
        with clock.set_to(clock.now() - dt.timedelta(days=3)):
            item = self.house.item()
            self.post(self.url("/items"), item)
        self.put(self.url(f"/items/{item.id}"), {"id": str(uuid.uuid4()), "during": 2})
        with opened(self.house.practice):
            self.assertEqual(Visit.objects.count(), 1)

    def test_keeps_its_place_among_the_holds_of_its_day(self) -> None:
        """The last hold decides what is next: a corrected first one may not become the last."""
        first, second = self.house.item(during=6, kind="pinching"), self.house.item(variation=SIDE_ON, during=1)
        for item in (first, second):
            self.post(self.url("/items"), item)
        for during in (7, 5):
            (standing, _) = self.client.get(self.url("/items")).json()
            correction = {"id": str(uuid.uuid4()), "during": during, "kind": "pinching"}
            self.assertEqual(self.put(self.url(f"/items/{standing['id']}"), correction).status_code, 200)
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual([point["during"] for point in family["left"]["points"]], [5, 1])

    def test_cannot_name_another_rung(self) -> None:
        item = self.house.item()
        self.post(self.url("/items"), item)
        body = {"id": str(uuid.uuid4()), "during": 2, "variation": SIDE_ON}
        self.assertIn("variation", self.fields(self.put(self.url(f"/items/{item.id}"), body)))

    def test_of_another_client_is_nothing(self) -> None:
        other = House("Loft", "owner@loft.example")
        item = other.item()
        self.sign_in(other)
        self.post(self.url("/items", house=other), item)
        self.sign_in(self.house)
        body = {"id": str(uuid.uuid4()), "during": 2}
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), body).status_code, 404)


class SentAgain(ApiTest):
    def test_the_same_content_is_stored_once(self) -> None:
        item = self.house.item()
        for _ in range(2):
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        with opened(self.house.practice):
            self.assertEqual(LoggedItem.objects.count(), 1)
            self.assertEqual(AuditEvent.objects.filter(action="item.logged").count(), 1)

    def test_other_content_under_the_same_id_is_told_of_both(self) -> None:
        """The answer was lost, then the score changed: the change may not vanish behind a success."""
        item = self.house.item(during=4)
        self.post(self.url("/items"), item)
        changes = (
            {"during": 7},
            {"note": "left the room"},
            {"dose_s": 50},
            {"variation": SIDE_ON},
            {"side": Side.RIGHT},
        )
        for change in changes:
            response = self.post(self.url("/items"), item.model_copy(update=change))
            self.assertEqual(response.status_code, 409, change)
            problem = response.json()
            self.assertEqual((problem["code"], problem["current"]["during"]), ("sent_before", 4))

    def test_a_correction_sent_again_is_the_same_correction(self) -> None:
        item = self.house.item()
        self.post(self.url("/items"), item)
        fixed = {"id": str(uuid.uuid4()), "during": 3}
        for _ in range(2):
            self.assertEqual(self.put(self.url(f"/items/{item.id}"), fixed).status_code, 200)
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), {**fixed, "during": 4}).status_code, 409)

    def test_an_id_of_another_practice_leads_nowhere(self) -> None:
        other = House("Loft", "owner@loft.example")
        item = other.item()
        self.sign_in(other)
        self.post(self.url("/items", house=other), item)
        self.sign_in(self.house)
        self.assertEqual(self.post(self.url("/items"), self.house.item(id=item.id)).status_code, 404)


class AtOnce(TransactionTestCase):
    def test_the_same_twice_at_once_is_stored_once_and_both_are_answered(self) -> None:
        house = House("Mill", "owner@mill.example")
        house.measured_before(30)
        foot = {"slot": "foot", "setup": {"foot": {"choice": "at_rest"}}, "other": {"choice": "drawn_up"}}
        tried = {"variation": "figure_four.block_flat", "side": "left", **foot, "felt_a": 2, "felt_b": 1, "kept": "b"}
        for model, address, said in (
            (LoggedItem, "items", house.item().model_dump(mode="json", exclude_none=True)),
            (Incident, "incidents", {"text": "She slipped."}),
            (Trial, "trials", tried),
        ):
            url = f"/api/practices/{house.practice.pk}/clients/{house.client.pk}/{address}"
            for _ in range(4):
                body = {**said, "id": str(uuid.uuid4())}
                with self.subTest(address):
                    self.assertEqual(self.sent_twice(house, url, body), [201, 201])
                    with opened(house.practice):
                        self.assertEqual(model.objects.filter(pk=body["id"]).count(), 1)

    def sent_twice(self, house: House, url: str, body: Any) -> list[int]:
        gate, statuses = threading.Barrier(2), []

        def send() -> None:
            browser = Browser()
            browser.force_login(house.user, backend="django.contrib.auth.backends.ModelBackend")
            gate.wait()
            statuses.append(browser.post(url, body, content_type="application/json").status_code)
            connection.close()

        threads = [threading.Thread(target=send) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        return statuses


class Order(ApiTest):
    def test_the_plan_keeps_the_order_in_which_it_was_taken(self) -> None:
        rungs = ["wide_angle.upright", "squat.chair_back", "hip_hinge.chair_back", "figure_four.block_flat"]
        taken = []
        for rung in rungs:
            plan = {"variation": rung, "side": "left", "setup": {}, "dose_s": 30}
            if self.post(self.url("/mat"), plan).status_code == 200:
                taken.append(rung.split(".")[0])
        self.assertGreaterEqual(len(taken), 3)
        self.assertNotEqual(taken, sorted(taken, key=len))
        again = {"variation": rungs[-1], "side": "right", "setup": {}, "dose_s": 30}
        shown = self.post(self.url("/mat"), again).json()["families"]
        self.assertEqual([family["family"] for family in shown], taken)
        self.assertEqual([f["family"] for f in self.client.get(self.url("/mat")).json()["families"]], taken)


class TakenBack(ApiTest):
    def test_can_be_undone(self) -> None:
        entry = self.house.record_hip()
        self.assertEqual(self.client.delete(self.url(f"/entries/{entry.pk}")).json(), [])
        (again,) = self.post(self.url(f"/entries/{entry.pk}/restore"), {}).json()
        self.assertEqual((again["root"], again["entry"]["facts"]["approach"]), (str(entry.root), "posterior"))
        limits = {limit["code"] for limit in again["limits"]}
        self.assertIn("hip.bend", limits)

    def test_undoing_what_stands_or_was_undone_is_refused(self) -> None:
        entry = self.house.record_hip()
        self.assertEqual(self.post(self.url(f"/entries/{entry.pk}/restore"), {}).status_code, 409)
        self.client.delete(self.url(f"/entries/{entry.pk}"))
        self.post(self.url(f"/entries/{entry.pk}/restore"), {})
        self.assertEqual(self.post(self.url(f"/entries/{entry.pk}/restore"), {}).status_code, 409)


class WhoDidIt(ApiTest):
    def test_a_colleagues_change_carries_the_colleagues_name(self) -> None:
        tobias = User.objects.create_user("colleague@mill.example", "a-long-test-password", full_name="A Colleague")
        Membership.objects.create(practice=self.house.practice, user=tobias, role="therapist")
        entry = self.house.record_hip()
        item = self.house.item()
        plan = {"variation": FLAT, "side": "left", "setup": {}, "dose_s": 40}
        self.post(self.url("/items"), item)
        self.client.force_login(tobias, backend="django.contrib.auth.backends.ModelBackend")
        self.put(self.url(), {"name": "Renamed", "version": 1})
        planned = self.post(self.url("/mat"), {**plan, "variation": "hip_hinge.chair_back"})
        self.assertEqual(planned.status_code, 200, planned.content)
        self.put(self.url(f"/items/{item.id}"), {"id": str(uuid.uuid4()), "during": 2})
        self.client.delete(self.url(f"/entries/{entry.pk}"))
        self.post(self.url(f"/entries/{entry.pk}/restore"), {})
        with opened(self.house.practice):
            by = {event.action: event.created_by_id for event in AuditEvent.objects.order_by("created_at")}
        self.assertEqual(by["client.created"], self.house.user.pk)
        self.assertEqual(by["item.logged"], self.house.user.pk)
        for action in ("client.updated", "visit.planned", "item.corrected", "entry.withdrawn", "entry.restored"):
            self.assertEqual(by[action], tobias.pk, action)


class Head(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        entry = self.house.record_hip()
        given = {"who": "surgeon", "date": self.house.today.isoformat(), "scope": ["all"]}
        self.post(self.url(f"/entries/{entry.pk}/clearances"), given)
        self.post(self.url("/items"), self.house.item())
        forget()

    def test_screens_nothing(self) -> None:
        """What the next change lets in is worked out apart, so that no first screen waits for it."""
        with patch.object(Situation, "screen", side_effect=AssertionError("the head screened a rung")):
            head = self.client.get(self.url())
        self.assertEqual(head.status_code, 200)
        self.assertIsNotNone(head.json()["next_change"])

    def test_what_the_next_change_lets_in_is_an_answer_of_its_own(self) -> None:
        lines = self.client.get(self.url("/coming")).json()["lines"]
        self.assertTrue(any(line.startswith("Lets in") for line in lines), lines)

    def test_a_ladders_figures_are_an_answer_of_their_own(self) -> None:
        ladder = self.client.get(self.url("/ladders/figure_four"))
        self.assertNotIn(b"<svg", ladder.content)
        drawn = self.client.get(self.url("/ladders/figure_four/drawings")).json()
        for side in ("left", "right"):
            named = {rung["variation"] for rung in ladder.json()[side]["rungs"] if rung["drawn"]}
            self.assertEqual(set(drawn[side]), named)
            self.assertTrue(all(figure.startswith("<svg") for figure in drawn[side].values()))
