"""The demo data loads through the services and shows what it is meant to show."""

from __future__ import annotations

from django.core.cache import cache
from django.test import TestCase

from asketa_core import Side, Verdict
from clients.models import Client
from common.speech import words
from demo import loader
from engine.answers import Today
from engine.shelf import practice_library
from practices.models import Practice
from practices.tenancy import opened


class Demo(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        cache.clear()
        loader.load()

    def test_two_practices_each_with_its_own_clients(self) -> None:
        self.assertTrue(loader.is_loaded())
        for name, count in (("The Weir Room", 8), ("The Tithe Loft", 1)):
            practice = Practice.objects.get(name=name)
            with opened(practice):
                self.assertEqual(Client.objects.count(), count)

    def test_one_practice_has_a_variation_of_its_own(self) -> None:
        for name, own in (("The Weir Room", ["inner corner"]), ("The Tithe Loft", [])):
            with opened(Practice.objects.get(name=name)):
                shelf = practice_library()
                self.assertEqual([words()(each.rung.short) for each in shelf.own.values()], own)
                self.assertEqual(shelf.troubles, {})

    def test_the_clock_repairer_and_the_postwoman_stand_where_the_story_puts_them(self) -> None:
        practice = Practice.objects.get(name="The Weir Room")
        with opened(practice):
            by_work = {c.person.occupation: c for c in Client.objects.known().select_related("practice")}
            clock_repairer = Today.of(by_work["clock repairer"])
            self.assertEqual(clock_repairer.decision("figure_four", Side.RIGHT).action.value, "offer")
            postwoman = Today.of(by_work["postwoman"])
            self.assertEqual(postwoman.decision("figure_four", Side.RIGHT).action.value, "step_back")

    def test_the_others_stand_where_the_story_puts_them(self) -> None:
        with opened(Practice.objects.get(name="The Weir Room")):
            by_work = {c.person.occupation: c for c in Client.objects.known().select_related("practice")}
            engraver = Today.of(by_work["glass engraver"])
            # One seat for both: the side that flared decides for the other. The groin spoke, and no rung of the ladder
            # closes the hip less: there is nothing to step back to.
            for side in Side:
                self.assertEqual(engraver.decision("seated_fold", side).code, "step_back_none")
            baker = Today.of(by_work["baker"])
            self.assertEqual(baker.situation.body.pregnancy.week, 22)
            self.assertEqual(
                baker.lane(baker.library.variation("bound_angle.lying_free"), Side.LEFT).verdict, Verdict.LEAVE_OUT
            )
            beekeeper = Today.of(by_work["beekeeper"])
            self.assertIn("bones.flexion_loaded", {limit.code for limit in beekeeper.situation.limits})
