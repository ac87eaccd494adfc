"""Words: every code has them, and numbers never contradict a verdict."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import DataError, cue_words, hold_words, recipe_lines, say, slot_words, sources
from asketa_core.clientfile import HipReplacementFacts, KneeFacts
from asketa_core.limits.catalogue import all_rows
from asketa_core.poses.library import Hold
from asketa_core.poses.posture import Readout, Trouble
from asketa_core.poses.recipe import ChoiceSlot
from asketa_core.poses.transfers import transfers
from asketa_core.words.catalogue import lookup, texts
from asketa_core.words.numbers import against
from tests.library import variations


class EveryCode(TestCase):
    def test_limits_have_two_voices_and_short_words(self) -> None:
        for _, row in all_rows():
            for part in ("short", "therapist", "client"):
                self.assertTrue(say("limits", row.code, part, limit="1", limits="1"), row.code)

    def test_no_words_are_left_over(self) -> None:
        gates = {gate for rung in variations() for gate in rung.gates}
        tests = {f"gate.{gate.code}" for gate in gates}
        unmeasured = {f"gate.{gate.code}_unmeasured" for gate in gates if gate.range is not None}
        used = {row.code for _, row in all_rows()} | {"shape.shin_level"} | tests | unmeasured
        self.assertEqual(set(texts()["limits"]), used)

    def test_every_row_names_a_source(self) -> None:
        for file, row in all_rows():
            self.assertIn(f"{file}.{row.source}", sources())

    def test_readouts_troubles_techniques_and_choices(self) -> None:
        for readout in Readout:
            self.assertTrue(lookup("readouts", readout.value, "name"))
        for trouble in Trouble:
            self.assertTrue(say("troubles", trouble.value, side="left", amount="1"))
        for technique in (*transfers().chair, *transfers().floor):
            self.assertTrue(say("techniques", technique.id))
        for rung in variations():
            for slot in rung.slots.values():
                if isinstance(slot, ChoiceSlot):
                    for option in slot.options:
                        self.assertTrue(say("choices", option))

    def test_every_decision_says_what_would_change_it(self) -> None:
        self.assertEqual(set(texts()["would_change"]), set(texts()["steps"]))

    def test_facts(self) -> None:
        approaches = HipReplacementFacts.model_json_schema()["properties"]["approach"]["enum"]
        diagnoses = KneeFacts.model_json_schema()["properties"]["diagnosis"]["enum"]
        for value in [*approaches, *(d for d in diagnoses if d != "unknown"), "unknown_diagnosis"]:
            self.assertTrue(say("facts", value))

    def test_a_missing_code_is_an_error_not_an_empty_sentence(self) -> None:
        with self.assertRaises(DataError):
            say("limits", "hip.nonsense", "therapist")

    def test_what_clients_read_does_not_frighten(self) -> None:
        forbidden = ("danger", "risk", "dislocat", "stop", "never", "damage", "injur", "must not")
        for code, words in texts()["limits"].items():
            for word in forbidden:
                self.assertNotIn(word, words["client"].lower(), code)


class Numbers(TestCase):
    @given(st.floats(0, 170), st.floats(10, 160))
    def test_rounding_never_contradicts_a_verdict(self, value: float, boundary: float) -> None:
        beyond = value > boundary
        shown = against(value, boundary, "deg", above_is_beyond=True, beyond=beyond)
        if shown.startswith("just"):
            self.assertEqual(shown.startswith("just over"), beyond)
        else:
            self.assertEqual(float(shown.rstrip("°")) > boundary, beyond)

    def test_just_over_and_just_under(self) -> None:
        self.assertEqual(against(91, 90, "deg", True, True), "just over 90°")
        self.assertEqual(against(4, 5, "cm", False, True), "4 cm")
        self.assertEqual(against(4.8, 5, "cm", False, True), "just under 5 cm")


class Recipes(TestCase):
    """What the Library shows of a variation."""

    def test_every_variation_can_be_told(self) -> None:
        for rung in variations():
            about = [line.about for line in recipe_lines(rung)]
            self.assertEqual(len(about), len(set(about)), rung.id)
            self.assertEqual(about[0], "Base", rung.id)
            for line in recipe_lines(rung):
                self.assertTrue(line.words[0].isupper() or line.words[0].isdigit(), f"{rung.id}: {line.words}")
                self.assertNotRegex(line.words, r"[{}_]|None|nan", rung.id)
            for slot in rung.slots.values():
                self.assertTrue(slot_words(slot), rung.id)

    def test_the_dose_in_its_own_unit(self) -> None:
        self.assertEqual(
            hold_words(Hold.model_validate({"style": "breaths", "from": 5, "to": 10, "step": 1})), "5–10 breaths"
        )
        self.assertEqual(
            hold_words(Hold.model_validate({"style": "reps", "from": 8, "to": 8, "step": 1, "sets": 2})),
            "2 sets of 8 repetitions",
        )

    def test_own_cues_come_after_those_of_the_catalogue(self) -> None:
        rung = next(variations()).model_copy(update={"own_cues": ("Feel the floor.",)})
        self.assertEqual(cue_words(rung)[-1], "Feel the floor.")
        self.assertEqual(len(cue_words(rung)), len(rung.cues) + 1)
