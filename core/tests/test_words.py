"""Words: every code has them, and numbers never contradict a verdict."""

from __future__ import annotations

import re
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import (
    DataError,
    NoGrid,
    Own,
    Side,
    Situation,
    cue_words,
    detail_at,
    dose_words,
    doses,
    hold_words,
    recipe_lines,
    say,
    slot_words,
)
from asketa_core.poses.library import Hold
from asketa_core.poses.posture import Readout, Trouble, unit_of
from asketa_core.poses.recipe import ChoiceSlot
from asketa_core.poses.transfers import transfers
from asketa_core.records.catalogue import all_rows
from asketa_core.texts.catalogue import catalogue, codes, has
from asketa_core.words.numbers import against, plain
from tests.library import variation, variations
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, pregnancy


class EveryCode(TestCase):
    def test_limits_have_two_voices_and_short_words(self) -> None:
        for _, row in all_rows():
            for part in ("short", "therapist", "client"):
                self.assertTrue(say("limits", row.code, part), row.code)

    def test_no_words_are_left_over(self) -> None:
        gates = {gate for rung in variations() for gate in rung.gates}
        tests = {f"gate.{gate.code}{ending}" for gate in gates for ending in ("", "_unmeasured")}
        used = {row.code for _, row in all_rows()} | {"shape.shin_level", "shape.perhaps"} | tests
        self.assertEqual(set(codes("limits")), used)

    def test_every_row_names_a_source(self) -> None:
        for file, row in all_rows():
            self.assertTrue(has("sources", file, row.source), f"{file}.{row.source}")

    def test_readouts_troubles_techniques_and_choices(self) -> None:
        for readout in Readout:
            self.assertTrue(say("readouts", readout.value, "name"))
        for trouble in Trouble:
            self.assertTrue(say("troubles", trouble.value))
        for technique in (*transfers().chair, *transfers().floor):
            self.assertTrue(say("techniques", technique.id))
        for rung in variations():
            for slot in rung.slots.values():
                if isinstance(slot, ChoiceSlot):
                    for option in slot.options:
                        self.assertTrue(say("choices", option))

    def test_every_decision_says_what_would_change_it(self) -> None:
        self.assertEqual(set(codes("would_change")), set(codes("steps")))

    def test_a_missing_code_is_an_error_not_an_empty_sentence(self) -> None:
        with self.assertRaises(DataError):
            say("limits", "hip.nonsense", "therapist")

    def test_what_clients_read_does_not_frighten(self) -> None:
        forbidden = ("danger", "risk", "dislocat", "stop", "never", "damage", "injur", "must not")
        for code, words in catalogue()["limits"].items():
            for word in forbidden:
                self.assertNotIn(word, words["client"].lower(), code)


class ToldOnce(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.at = Situation.of(client([pregnancy(22)], stature=165), TODAY, ROOM)

    def sentences(self, rung: str, side: Side) -> list[str]:
        found = self.at.screen(variation(rung), side)
        assert not isinstance(found, NoGrid)
        return [english(reason) for reason in detail_at(self.at, found, found.recommended).reasons]

    def test_what_binds_left_and_right_alike_is_one_line_with_both_figures(self) -> None:
        lines = self.sentences("cross_legged.floor", Side.LEFT)
        self.assertTrue(any(line.startswith("Left and right: share of opening range used") for line in lines), lines)
        stems = [re.sub(r"^(Left and right|Left|Right): |[−\d]+", "", line) for line in lines]
        self.assertEqual(len(stems), len(set(stems)), lines)

    def test_what_binds_one_side_names_it(self) -> None:
        at = Situation.of(client([hip(side="right")]), TODAY, ROOM)
        found = at.screen(variation("squat.free"), Side.LEFT)
        assert not isinstance(found, NoGrid)
        sides = {english(line).split(":")[0] for line in detail_at(at, found, found.recommended).closing}
        self.assertIn("Right", sides)
        self.assertNotIn("Left and right", sides)

    def test_left_is_a_side_and_never_what_remains(self) -> None:
        for section in ("readouts", "limits", "troubles"):
            for code, words in catalogue()[section].items():
                text = " ".join(str(w) for w in words.values()) if isinstance(words, dict) else str(words)
                self.assertNotRegex(text, r"\bleft\b", f"{section}.{code}")


class Doses(TestCase):
    def test_each_style_counts_in_its_own_unit(self) -> None:
        def hold(style: str, sets: int = 1) -> Hold:
            return Hold.model_validate({"style": style, "from": 4, "to": 10, "step": 3, "sets": sets})

        self.assertEqual(english(dose_words(hold("seconds"), 40)), "40 s")
        self.assertEqual(english(dose_words(hold("breaths"), 30)), "5 breaths")
        self.assertEqual(english(dose_words(hold("minutes"), 120)), "2 min")
        self.assertEqual(english(dose_words(hold("reps", sets=3), 50)), "3 × 10")
        self.assertEqual(english(dose_words(hold("reps"), 50)), "10 repetitions")
        self.assertEqual(english(dose_words(hold("breaths"), 31)), "31 s")

    def test_doses_run_to_the_usual_top_in_the_rungs_own_steps(self) -> None:
        for rung in variations():
            offered = doses(rung.hold)
            self.assertEqual((offered[0], offered[-1]), (rung.hold.start_s, rung.hold.to_s), rung.id)
            self.assertEqual(offered, sorted(set(offered)))
        self.assertEqual(doses(Hold.model_validate({"style": "breaths", "from": 4, "to": 8, "step": 2})), [24, 36, 48])

    def test_shares_say_what_they_are_shares_of(self) -> None:
        self.assertEqual(english(plain(0.4, unit_of(Readout.KNEECAP_SHARE))), "40 % of the leg's load")
        self.assertEqual(english(plain(0.4, unit_of(Readout.HANDS_SHARE))), "40 % of what is above")
        self.assertEqual(english(plain(0.4, unit_of(Readout.KNEE_LOAD_SHARE))), "40 % of body weight")


class Numbers(TestCase):
    @given(st.floats(0, 170), st.floats(10, 160))
    def test_rounding_never_contradicts_a_verdict(self, value: float, boundary: float) -> None:
        beyond = value > boundary
        phrase, names_boundary = against(value, boundary, "deg", above_is_beyond=True, beyond=beyond)
        shown = english(phrase)
        self.assertEqual(shown.startswith("just"), names_boundary)
        if names_boundary:
            self.assertEqual(shown.startswith("just over"), beyond)
        else:
            self.assertEqual(float(shown.rstrip("°")) > boundary, beyond)

    def test_just_over_and_just_under(self) -> None:
        for value, edge, unit, above, shown in (
            (91, 90, "deg", True, "just over 90°"),
            (4, 5, "cm", False, "4 cm"),
            (4.8, 5, "cm", False, "just under 5 cm"),
        ):
            self.assertEqual(english(against(value, edge, unit, above, beyond=True)[0]), shown)


class Recipes(TestCase):
    """What the Library shows of a variation."""

    def test_every_variation_can_be_told(self) -> None:
        for rung in variations():
            about = [english(line.about) for line in recipe_lines(rung)]
            self.assertEqual(len(about), len(set(about)), rung.id)
            self.assertEqual(about[0], "Base", rung.id)
            for line in recipe_lines(rung):
                words = english(line.words)
                self.assertTrue(words[0].isupper() or words[0].isdigit(), f"{rung.id}: {words}")
                self.assertNotRegex(words, r"[{}_]|None|nan", rung.id)
            for slot in rung.slots.values():
                self.assertTrue(english(slot_words(slot)), rung.id)

    def test_the_dose_in_its_own_unit(self) -> None:
        self.assertEqual(
            english(hold_words(Hold.model_validate({"style": "breaths", "from": 5, "to": 10, "step": 1}))),
            "5–10 breaths",
        )
        self.assertEqual(
            english(hold_words(Hold.model_validate({"style": "reps", "from": 8, "to": 8, "step": 1, "sets": 2}))),
            "2 sets of 8 repetitions",
        )

    def test_own_cues_come_after_those_of_the_catalogue(self) -> None:
        rung = next(variations()).model_copy(update={"own_cues": (Own("Feel the floor."),)})
        self.assertEqual(english(cue_words(rung)[-1]), "Feel the floor.")
        self.assertEqual(len(cue_words(rung)), len(rung.cues) + 1)
