"""Knee pain: by diagnosis, by today's answers, and by what is not known."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from asketa_core import NoGrid, Room, Side, Situation, Verdict, limits_on, parse
from asketa_core.words.findings import findings_at
from tests.library import variation
from tests.strategies import ROOM, TODAY, client, knee, pain


def codes(entry: dict[str, Any], *daily: dict[str, Any], on: dt.date = TODAY, **more: Any) -> dict[str, str]:
    file = client([entry], daily=list(daily), **more)
    return {limit.code: limit.severity.code for limit in limits_on(file, on) if limit.entry_id is not None}


class ByPain(TestCase):
    def test_four_of_ten_tightens_the_front_of_the_knee(self) -> None:
        self.assertNotIn("knee.front_bend_sore", codes(knee(), pain(3)))
        self.assertEqual(codes(knee(), pain(4))["knee.front_bend_sore"], "stop")

    def test_an_irritable_knee_counts_as_sore(self) -> None:
        self.assertEqual(codes(knee(), pain(1, irritable="yes"))["knee.front_bend_sore"], "stop")

    def test_arthritis_tightens_at_five(self) -> None:
        self.assertNotIn("knee.arthritis_bend_sore", codes(knee(diagnosis="arthritis"), pain(4)))
        self.assertEqual(codes(knee(diagnosis="arthritis"), pain(5))["knee.arthritis_bend_sore"], "stop")

    def test_pain_nobody_asked_about_is_asked_where_it_would_stop(self) -> None:
        found = codes(knee())
        self.assertEqual(found["knee.front_bend_sore"], "ask")
        self.assertEqual(found["knee.twist_painful"], "ask")
        self.assertEqual(found["knee.kneeling_padding"], "caution")

    def test_no_pain_lifts_the_painful_rule(self) -> None:
        self.assertNotIn("knee.twist_painful", codes(knee(), pain(0)))

    def test_an_answer_counts_fourteen_days(self) -> None:
        self.assertEqual(codes(knee(), pain(2, days_ago=14))["knee.twist_painful"], "stop")
        self.assertEqual(codes(knee(), pain(2, days_ago=15))["knee.twist_painful"], "ask")

    def test_the_latest_answer_counts(self) -> None:
        self.assertIn("knee.front_bend_sore", codes(knee(), pain(6), pain(1, days_ago=3)))


class ByDiagnosis(TestCase):
    def test_meniscus(self) -> None:
        found = codes(knee(diagnosis="inner_meniscus"), pain(1))
        self.assertEqual(found["knee.meniscus_bend"], "stop")
        self.assertEqual(found["knee.meniscus_fold"], "caution")

    def test_a_fresh_repair_asks_for_six_months(self) -> None:
        def repaired(days: int) -> dict[str, str]:
            date = TODAY - dt.timedelta(days=days)
            return codes(knee(diagnosis="meniscus_repaired", operated="yes", operation_date=date), pain(1))

        self.assertEqual(repaired(181)["knee.repair_bend"], "ask")
        self.assertNotIn("knee.repair_bend", repaired(182))
        self.assertEqual(repaired(182)["knee.meniscus_bend"], "stop")

    def test_outer_ligament_leaves_the_crossed_figure_four_out(self) -> None:
        self.assertEqual(codes(knee(diagnosis="lcl"), pain(1))["knee.lcl_crossing"], "stop")

    def test_a_replaced_knee_is_measured_first(self) -> None:
        old = {"operated": "yes", "operation_date": TODAY - dt.timedelta(days=900)}
        self.assertEqual(codes(knee(diagnosis="replacement", **old))["knee.replaced_measure"], "ask")
        file = client([knee(diagnosis="replacement")], ranges={("knee_flexion", "left"): 110})
        bend = next(limit for limit in limits_on(file, TODAY) if limit.code == "knee.replaced_range")
        self.assertEqual([term.above for term in bend.terms if term.readout is not None], [105])


class Unknowns(TestCase):
    def test_without_a_diagnosis_what_any_of_them_would_stop_is_asked(self) -> None:
        found = codes(knee(diagnosis="unknown", site="unknown"), pain(2))
        for code in ("knee.meniscus_bend", "knee.pcl_kneeling", "knee.lcl_crossing"):
            self.assertEqual(found[code], "ask", code)
        self.assertEqual(found["knee.arthritis_bend"], "caution")
        self.assertNotIn("knee.replaced_propped", found)

    def test_an_operation_nobody_knows_about_is_asked(self) -> None:
        for unknown in ({"operated": "unknown"}, {"operated": "yes", "operation_date": None}):
            limits = limits_on(client([knee(**unknown)]), TODAY)
            asks = [limit for limit in limits if limit.code == "knee.ask_operation"]
            self.assertTrue(asks)
            self.assertTrue(all(limit.missing == ("operation_fresh",) and limit.terms for limit in asks))

    def test_what_is_asked_is_what_was_not_said_yet(self) -> None:
        def asked(*daily: dict[str, Any], **facts: Any) -> set[str]:
            limits = limits_on(client([knee(**facts)], daily=list(daily)), TODAY)
            return {fact for limit in limits for fact in limit.missing}

        self.assertEqual(asked(), {"pain_today", "irritable"})
        self.assertEqual(asked(pain(3, irritable="unknown")), {"irritable"})
        self.assertEqual(asked(pain(3)), set())
        # Sore by the pain alone, whatever it is like the next day.
        self.assertEqual(asked(pain(5, irritable="unknown")), set())
        self.assertEqual(asked(pain(3), diagnosis="mcl"), {"injury_fresh"})

    def test_a_new_score_does_not_renew_whether_it_lasts(self) -> None:
        def sore(told_days_ago: int, irritable: str) -> str | None:
            told, now = pain(3, irritable=irritable, days_ago=told_days_ago), pain(3, irritable="unknown")
            return codes(knee(), told, now).get("knee.front_bend_sore")

        self.assertEqual([sore(14, "no"), sore(15, "no")], [None, "ask"])
        self.assertEqual([sore(14, "yes"), sore(15, "yes")], ["stop", "ask"])

    def test_twelve_weeks_after_an_operation(self) -> None:
        def operated(days: int) -> dict[str, str]:
            return codes(knee(operated="yes", operation_date=TODAY - dt.timedelta(days=days)), pain(1))

        self.assertEqual(operated(83)["knee.ask_operation"], "ask")
        self.assertNotIn("knee.ask_operation", operated(84))

    def test_locking_with_swelling_goes_to_a_doctor(self) -> None:
        self.assertEqual(codes(knee(swelling="yes", locks_or_gives_way="yes"))["knee.see_doctor"], "stop")


class Kneeling(TestCase):
    def test_weight_on_the_kneecap_is_a_caution_and_a_stop_when_sore(self) -> None:
        calm, sore = codes(knee(), pain(1)), codes(knee(), pain(4))
        self.assertEqual(calm["knee.front_weight"], "caution")
        self.assertEqual(sore["knee.front_weight_sore"], "stop")
        self.assertEqual(sore["knee.front_padding_sore"], "stop")
        self.assertNotIn("knee.front_weight", codes(knee(diagnosis="inner_meniscus"), pain(1)))

    def test_a_folded_blanket_pads_and_a_thin_one_does_not(self) -> None:
        file = client([knee(diagnosis="inner_meniscus")], daily=[pain(1)])
        thin = ROOM.model_dump()
        thin["props"] = [{**prop, "layer_cm": 0.3} if prop["kind"] == "blanket" else prop for prop in thin["props"]]
        for room, padded in ((ROOM, True), (parse(Room, thin), False)):
            screened = Situation.of(file, TODAY, room).screen(variation("lotus.closing"), Side.LEFT)
            assert not isinstance(screened, NoGrid)
            said = {code for finding in findings_at(screened, screened.best) for code in finding.codes}
            self.assertEqual("knee.kneeling_padding" not in said, padded)

    def test_a_cleared_replacement_kneels_on_thick_padding(self) -> None:
        cleared = {**knee(diagnosis="replacement"), "clearances": [
            {"who": "surgeon", "date": TODAY, "scope": ["all"]}]}  # fmt: skip
        self.assertIn("knee.replaced_kneeling", codes(knee(diagnosis="replacement")))
        self.assertNotIn("knee.replaced_kneeling", codes(cleared))
        self.assertEqual(codes(cleared)["knee.replaced_padding"], "caution")
        other = {**cleared, "clearances": [{"who": "surgeon", "date": TODAY, "scope": ["loading"]}]}
        self.assertIn("knee.replaced_kneeling", codes(other))


class ForcedKnee(TestCase):
    """Knee and ankle of a turned-out leg under load: left out by today's answers, by time, and by the last place."""

    def answer(self, *daily: dict[str, Any], responses: list[dict[str, Any]] | None = None, **facts: Any) -> str:
        old = {"since": TODAY - dt.timedelta(days=400)}
        found = codes(knee(diagnosis="arthritis", **{**old, **facts}), *daily, responses=responses or [])
        return found.get("knee.forced", "open")

    def test_by_pain_and_irritability(self) -> None:
        self.assertEqual(self.answer(), "ask")
        self.assertEqual(self.answer(pain(3)), "open")
        self.assertEqual(self.answer(pain(4)), "stop")
        self.assertEqual(self.answer(pain(0, irritable="yes")), "stop")

    def test_by_time_since_it_began(self) -> None:
        def since(days: int, diagnosis: str = "mcl") -> str:
            found = codes(knee(diagnosis=diagnosis, since=TODAY - dt.timedelta(days=days)), pain(1))
            return found.get("knee.forced", "open")

        self.assertEqual(since(83), "stop")
        self.assertEqual(since(84), "open")
        self.assertEqual(since(83, "arthritis"), "open")
        self.assertEqual(codes(knee(diagnosis="mcl"), pain(1))["knee.forced"], "ask")
        self.assertEqual(self.answer(pain(1), operated="unknown"), "ask")

    def test_by_the_last_place_of_sensation_on_that_side(self) -> None:
        def felt(place: str, days_ago: int, side: str = "left") -> dict[str, Any]:
            return {
                "id": f"{place}{days_ago}{side}", "date": TODAY - dt.timedelta(days=days_ago), "side": side,
                "variation": "figure_four.block_flat", "setup": {}, "dose_s": 30,
                "before": 0, "during": 1, "after": 1, "place": place,
            }  # fmt: skip

        self.assertEqual(self.answer(pain(1), responses=[felt("knee", 2)]), "stop")
        self.assertEqual(self.answer(pain(1), responses=[felt("knee", 9), felt("wanted", 2)]), "open")
        self.assertEqual(self.answer(pain(1), responses=[felt("wanted", 2), felt("knee", 2)]), "stop")
        self.assertEqual(self.answer(pain(1), responses=[felt("knee", 2, "right")]), "open")

    def test_leaves_pigeon_out(self) -> None:
        file = client([knee(diagnosis="arthritis")], daily=[pain(5)])
        screened = Situation.of(file, TODAY, ROOM).screen(variation("half_pigeon.shin_back"), Side.LEFT)
        assert not isinstance(screened, NoGrid)
        self.assertIs(screened.verdict, Verdict.LEAVE_OUT)
