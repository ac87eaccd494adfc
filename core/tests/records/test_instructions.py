"""What the treating professional said: figures in the place of the rules' own, and words."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import (
    ClientFile,
    InputError,
    Instruction,
    NoGrid,
    Side,
    Situation,
    changes_ahead,
    figures_of,
    implausible_file,
    limit_lines,
    limits_of,
    mind_of,
    next_tightening,
    parse,
    standard_library,
    words_in,
)
from asketa_core.limits.model import Limit
from tests.strategies import ROOM, TODAY, client, hip, knee

WORDS = words_in("en")


def said(value: float | None = 80, since: int = 0, **more: Any) -> dict[str, Any]:
    """A surgeon's word about hip bend, ``since`` days before today."""
    figures = [] if value is None else [{"rule": "hip.bend", "readout": "hip_bend", "value": value}]
    date = TODAY - dt.timedelta(days=since)
    return {"id": f"said{value}{since}", "who": "surgeon", "date": date, "figures": figures, **more}


def told(*instructions: dict[str, Any], **facts: Any) -> ClientFile:
    return client([{**hip(**facts), "instructions": list(instructions)}])


def bend(file: ClientFile, date: dt.date = TODAY) -> Limit:
    limits = limits_of(file.entries[0], file, date, file.latest_ranges(date))
    return next(limit for limit in limits if limit.code == "hip.bend")


class Figures(TestCase):
    def test_it_takes_the_place_of_the_rule_from_its_day_through_its_last(self) -> None:
        file = told(said(75, until=TODAY + dt.timedelta(days=7)))
        days = {-1: 90, 0: 75, 7: 75, 8: 90}
        for ahead, value in days.items():
            with self.subTest(ahead=ahead):
                self.assertEqual(bend(file, TODAY + dt.timedelta(days=ahead)).terms[0].value, value)

    def test_the_later_word_counts(self) -> None:
        self.assertEqual(bend(told(said(100, since=1), said(70, since=10))).terms[0].value, 100)

    def test_how_hard_it_is_and_which_way_it_binds_stay_the_rules_own(self) -> None:
        plain, set_otherwise = bend(told()), bend(told(said(110)))
        self.assertEqual(set_otherwise.severity, plain.severity)
        self.assertEqual(set_otherwise.terms[0].kind, plain.terms[0].kind)

    def test_a_neutral_boundary_that_was_set_is_a_boundary_like_any_other(self) -> None:
        figure = {"rule": "hip.midline", "readout": "hip_abduction", "value": 10}
        file = told(said(None, figures=[figure]))
        limits = limits_of(file.entries[0], file, TODAY, file.latest_ranges(TODAY))
        (term,) = next(limit for limit in limits if limit.code == "hip.midline").terms
        self.assertEqual((term.below, term.neutral), (10, False))

    @settings(max_examples=15, deadline=None)
    @given(st.floats(60, 130), st.floats(0, 30))
    def test_a_tighter_word_opens_nothing(self, value: float, tighter: float) -> None:
        rung = standard_library().variation("squat.chair")

        def is_open(figure: float) -> bool:
            screened = Situation.of(told(said(figure)), TODAY, ROOM).screen(rung, Side.RIGHT)
            assert not isinstance(screened, NoGrid)
            return screened.allowed(screened.recommended)

        self.assertLessEqual(is_open(value - tighter), is_open(value))

    def test_a_surgeons_bend_holds_whatever_the_approach(self) -> None:
        for approach in ("posterior", "direct_anterior", "anterolateral", "lateral", "unknown"):
            with self.subTest(approach=approach):
                self.assertEqual(bend(told(said(85), approach=approach)).terms[0].value, 85)

    @given(word=st.integers(0, 60), cleared=st.integers(0, 60))
    def test_of_a_word_and_a_clearance_the_later_counts(self, word: int, cleared: int) -> None:
        given_on = {"who": "surgeon", "date": TODAY - dt.timedelta(days=cleared), "scope": ["all"]}
        record = {**hip(), "instructions": [said(85, since=word)], "clearances": [given_on]}
        file = client([record])
        holds = "hip.bend" in {
            limit.code for limit in limits_of(file.entries[0], file, TODAY, file.latest_ranges(TODAY))
        }
        self.assertEqual(holds, cleared >= word)

    def test_its_authority_is_named_where_the_limit_is(self) -> None:
        lines = limit_lines(limits_of((file := told(said(80))).entries[0], file, TODAY, file.latest_ranges(TODAY)))
        (line,) = [line for line in lines if line.code == "hip.bend"]
        self.assertEqual(WORDS(line.source), "The surgeon’s word of 10 June 2026")

    def test_figures_that_hold_are_offered_hardest_first(self) -> None:
        file = told(said(80))
        offered = figures_of(file.entries[0], file, TODAY, file.latest_ranges(TODAY))
        self.assertEqual(len({(each.rule, each.readout) for each in offered}), len(offered))
        self.assertEqual([int(e.severity) for e in offered], sorted((int(e.severity) for e in offered), reverse=True))
        (ours,) = [each for each in offered if each.rule == "hip.bend"]
        assert ours.by is not None
        self.assertEqual((ours.value, ours.above, ours.by.who), (80, True, "surgeon"))


class Calendar(TestCase):
    def test_a_tighter_word_ahead_is_a_tightening_on_its_day(self) -> None:
        self.assertEqual(next_tightening(told(said(80, since=-10)), TODAY), TODAY + dt.timedelta(days=10))

    def test_a_looser_word_is_none_and_its_running_out_is_one(self) -> None:
        looser = told(said(110, since=-5, until=TODAY + dt.timedelta(days=9)))
        changes = {change.date: change.tightens for change in changes_ahead(looser, TODAY)}
        self.assertEqual(changes[TODAY + dt.timedelta(days=5)], False)
        self.assertEqual(changes[TODAY + dt.timedelta(days=10)], True)


class Words(TestCase):
    def notes(self, file: ClientFile) -> list[str]:
        return [WORDS(note.text) for note in mind_of(Situation.of(file, TODAY, ROOM)).notes]

    def test_free_words_stand_in_what_to_mind_beside_whose_they_are(self) -> None:
        notes = self.notes(told(said(None, text="No low sofas.")))
        self.assertIn("The surgeon’s word of 10 June 2026: No low sofas.", notes)

    def test_figures_without_words_name_what_they_set(self) -> None:
        self.assertIn("The surgeon’s word of 10 June 2026: hip bend 80°", self.notes(told(said(80))))

    def test_a_figure_whose_rule_does_not_hold_is_asked_about(self) -> None:
        figure = {"rule": "hip.turned_in", "readout": "hip_external_rotation", "value": 5}
        idle = told(said(None, figures=[figure]), approach="direct_anterior")
        (note,) = [note for note in self.notes(idle) if "sets nothing today" in note]
        self.assertIn("The surgeon’s word of 10 June 2026, not turned in, sets nothing today", note)
        self.assertFalse([note for note in self.notes(told(said(80))) if "sets nothing" in note])

    def test_what_has_run_out_is_not_minded(self) -> None:
        past = said(None, since=20, text="No low sofas.", until=TODAY - dt.timedelta(days=1))
        self.assertFalse([note for note in self.notes(told(past)) if "sofas" in note])


class Refused(TestCase):
    def test_a_figure_no_rule_of_the_record_has_is_never_silently_left_out(self) -> None:
        figure = {"rule": "hip.bend", "readout": "hip_bend", "value": 80}
        with self.assertRaisesRegex(InputError, "no rule of this record"):
            client([{**knee(), "instructions": [said(None, figures=[figure])]}])

    def test_what_says_nothing_names_a_figure_twice_or_ends_before_it_begins(self) -> None:
        yesterday = TODAY - dt.timedelta(days=1)
        figure = {"rule": "hip.bend", "readout": "hip_bend", "value": 80}
        for raw in (said(None), said(None, text="  "), said(80, until=yesterday), said(None, figures=[figure] * 2)):
            with self.subTest(raw=raw), self.assertRaises(InputError):
                parse(Instruction, raw)

    def test_a_word_before_the_operation_or_ahead_cannot_be_entered(self) -> None:
        for since, why in ((200, "operation"), (-1, "future")):
            with self.subTest(since=since):
                found = list(implausible_file(told(said(80, since=since)), standard_library(), TODAY))
                self.assertEqual([each.field for each in found], ["entries.0.instructions.0.date"])
                self.assertIn(why, WORDS(found[0].message))
