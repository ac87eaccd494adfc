"""The pose library: every file loads, and a wrong one says where."""

from __future__ import annotations

import copy
from typing import Any
from unittest import TestCase

from jsonschema import Draft202012Validator

from asketa_core import DataError, InputError, say
from asketa_core.datafiles import Document, read_yaml
from asketa_core.poses.library import POSES, family_schema, parse_family
from tests.library import families, variation, variations


class EveryFile(TestCase):
    def test_loads(self) -> None:
        self.assertEqual(set(families), {path.stem for path in POSES.glob("*.yaml")})

    def test_has_words_for_every_cue_and_sign(self) -> None:
        for rung in variations():
            for cue in rung.cues:
                self.assertTrue(say("cues", cue))
            for sign in rung.watch:
                self.assertTrue(say("watch", sign))

    def test_steps_back_and_forward_agree(self) -> None:
        for rung in variations():
            if rung.step_forward is not None and rung.step_forward.split(".")[0] == rung.family:
                self.assertEqual(variation(rung.step_forward).step_back, rung.id)

    def test_an_unknown_variation_is_named(self) -> None:
        with self.assertRaises(InputError):
            variation("figure_four.flying")


class WrongFiles(TestCase):
    def setUp(self) -> None:
        self.raw: dict[str, Any] = copy.deepcopy(read_yaml(POSES / "figure_four.yaml"))

    def load(self) -> str:
        with self.assertRaises(DataError) as caught:
            parse_family(Document("figure_four.yaml", self.raw, None))
        return str(caught.exception)

    def test_a_slot_the_recipe_does_not_have(self) -> None:
        self.raw["variations"][1]["recipe"]["worked_leg"] = {
            "rule": "dropped", "rests_on": "foot_bolck", "ahead": 40, "across": 0.5, "let_out_deg": 40,
        }  # fmt: skip
        message = self.load()
        self.assertIn("figure_four.yaml", message)
        self.assertIn("figure_four.block_flat", message)
        self.assertIn("foot_bolck", message)

    def test_a_misspelt_field(self) -> None:
        self.raw["variations"][0]["watches"] = []
        message = self.load()
        self.assertIn("figure_four.foot_on_floor", message)
        self.assertIn("watches", message)

    def test_a_foot_in_two_places(self) -> None:
        self.raw["variations"][4]["recipe"]["worked_leg"] = {
            "rule": "dropped", "over_thigh": 0.8, "rests_on": "floor", "ahead": 40, "across": 0.5, "let_out_deg": 40,
        }  # fmt: skip
        self.assertIn("over_thigh", self.load())

    def test_what_the_geometry_implies_cannot_be_typed(self) -> None:
        for flag in ("standing", "kneeling", "supine", "crossed_ankle_over_knee", "arms_overhead"):
            raw = copy.deepcopy(self.raw)
            raw["variations"][0]["recipe"]["flags"] = {"overall": [flag]}
            with self.assertRaises(DataError):
                parse_family(Document("figure_four.yaml", raw, None))

    def test_one_leg_that_carries_is_said(self) -> None:
        raw = read_yaml(POSES / "leg_on_chair.yaml")
        for rung in raw["variations"]:
            rung["recipe"]["flags"] = {}
        with self.assertRaises(DataError) as caught:
            parse_family(Document("leg_on_chair.yaml", raw, None))
        self.assertIn("'one_leg'", str(caught.exception))


class PublishedSchema(TestCase):
    """What authors check a file against says the same as the loader."""

    schema = Draft202012Validator(family_schema())

    def test_every_family_file_keeps_it(self) -> None:
        for path in sorted(POSES.glob("*.yaml")):
            self.assertEqual([error.message for error in self.schema.iter_errors(read_yaml(path))], [], path.name)

    def test_refuses_what_the_loader_refuses(self) -> None:
        for spoil in (
            lambda raw: raw["variations"][0].pop("recipe"),
            lambda raw: raw["variations"][0].update(shared=True),
            lambda raw: raw["variations"][0]["recipe"].update(flags={"overall": ["upside_down"]}),
            lambda raw: raw.update(side_means="both"),
        ):
            raw = read_yaml(POSES / "squat.yaml")
            spoil(raw)
            self.assertFalse(self.schema.is_valid(raw))
            if "shared" not in raw["variations"][0]:
                with self.assertRaises(DataError):
                    parse_family(Document("squat.yaml", raw, None))
