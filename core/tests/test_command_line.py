"""The core from the command line: JSON in, JSON out, clear refusals."""

from __future__ import annotations

import io
import json
from contextlib import redirect_stdout
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any, ClassVar
from unittest import TestCase
from xml.etree import ElementTree

from asketa_core.__main__ import main, schemas
from asketa_core.figure.palette import palettes
from tests.strategies import ROOM, TODAY, client, hip


def run(command: str, request: Any = None, raw: str | None = None) -> tuple[int, Any]:
    with TemporaryDirectory() as folder, redirect_stdout(io.StringIO()) as out:
        file = Path(folder) / "request.json"
        file.write_text(raw if raw is not None else json.dumps(request, default=str), encoding="utf-8")
        code = main([command, str(file)])
    return code, json.loads(out.getvalue())


class Angles(TestCase):
    def test_answers_the_documented_keys(self) -> None:
        code, answer = run("angles", {"side": "left", "hip": [0, 10, 50], "knee": [40, 10, 50], "ankle": [40, 10, 10]})
        self.assertEqual(code, 0)
        self.assertLessEqual(
            {
                "flexion_deg", "abduction_deg", "external_rotation_deg", "hip_closing_deg", "knee_flexion_deg", "knee",
                "stopped_by", "reach_shortfall_cm", "knee_flexion_shortfall_deg", "near_singular",
            },
            set(answer),
        )  # fmt: skip

    def test_two_ways_to_the_knee_are_one_too_many(self) -> None:
        code, answer = run(
            "angles", {"side": "left", "hip": [0, 10, 50], "knee": [40, 10, 50], "ankle": [40, 10, 10], "swivel_deg": 3}
        )
        self.assertEqual(code, 2)
        self.assertEqual(set(answer["error"]), {"field", "reason", "remedy"})
        self.assertIn("exactly one", answer["error"]["reason"])


class Figures(TestCase):
    def drawn(self, **request: Any) -> tuple[int, str]:
        with TemporaryDirectory() as folder, redirect_stdout(io.StringIO()) as out:
            file = Path(folder) / "request.json"
            file.write_text(json.dumps(request, default=str), encoding="utf-8")
            code = main(["figure", str(file)])
        return code, out.getvalue()

    def test_gives_svg_in_the_colours_asked_for(self) -> None:
        for light, colours in palettes().items():
            code, svg = self.drawn(variation="figure_four.block_flat", side="right", light=light)
            self.assertEqual(code, 0)
            self.assertEqual(ElementTree.fromstring(svg).tag, "{http://www.w3.org/2000/svg}svg")
            self.assertIn(colours["right"], svg)
            self.assertNotIn("var(", svg)

    def test_a_set_up_can_be_named(self) -> None:
        rung = {"variation": "figure_four.block_flat", "side": "left"}
        _, plain = self.drawn(**rung)
        code, let_out = self.drawn(**rung, setup={"knee_out": {"number": 30}})
        self.assertEqual(code, 0)
        self.assertNotEqual(plain, let_out)

    def test_a_client_is_drawn_in_their_room_on_a_day(self) -> None:
        rung = {"variation": "figure_four.block_flat", "side": "left"}
        file, room = client([hip()]).model_dump(mode="json"), ROOM.model_dump(mode="json")
        code, svg = self.drawn(**rung, client=file, room=room, date=str(TODAY))
        self.assertEqual((code, svg[:4]), (0, "<svg"))
        for left_out in ({"client": file}, {"client": file, "room": room}):
            code, answer = self.drawn(**rung, **left_out)
            self.assertEqual(code, 2)
            self.assertIn("Give both", json.loads(answer)["error"]["remedy"])

    def test_an_unknown_slot_is_named(self) -> None:
        code, answer = self.drawn(variation="figure_four.block_flat", side="left", setup={"hammock": {"number": 3}})
        self.assertEqual((code, json.loads(answer)["error"]["field"]), (2, "setup.hammock"))


class Screen(TestCase):
    def request(self, **more: Any) -> dict[str, Any]:
        file = client([hip()]).model_dump(mode="json")
        return {"client": file, "date": str(TODAY), "room": ROOM.model_dump(mode="json"), **more}

    def test_one_variation_both_sides(self) -> None:
        code, answer = run("screen", self.request(variations=["figure_four.block_flat"]))
        self.assertEqual(code, 0)
        (only,) = answer["variations"]
        self.assertEqual(only["id"], "figure_four.block_flat")
        for side in ("left", "right"):
            self.assertEqual(only["sides"][side]["verdict"], "with_setup")
            self.assertTrue(only["sides"][side]["best"]["setup"]["seat"]["stack"])
            self.assertTrue(only["sides"][side]["margins"][side])

    def test_an_unknown_key_is_refused_with_its_path(self) -> None:
        request = self.request()
        request["client"]["entries"][0]["facts"]["aproach"] = "posterior"
        code, answer = run("screen", request)
        self.assertEqual(code, 2)
        self.assertIn("facts.aproach", answer["error"]["field"])

    def test_an_unknown_variation_is_refused(self) -> None:
        self.assertEqual(run("screen", self.request(variations=["figure_four.flying"]))[0], 2)

    def test_a_client_without_stature_is_refused(self) -> None:
        request = self.request()
        request["client"]["body"] = []
        code, answer = run("screen", request)
        self.assertEqual((code, answer["error"]["field"]), (2, "body"))


class Posture(TestCase):
    REQUEST: ClassVar[dict[str, Any]] = {
        "variation": "figure_four.block_end",
        "side": "left",
        "body": {"stature_cm": 172},
        "ranges": [{"quantity": "open_external_rotation", "side": "left", "value_deg": 60}],
        "setup": {"seat": 49, "foot_block": 23, "knee_out": 50},
    }

    def readout(self, answer: Any, name: str, side: str | None) -> dict[str, float]:
        return next(r for r in answer["readouts"] if (r["readout"], r["side"]) == (name, side))

    def test_joints_stand_where_the_set_up_puts_them(self) -> None:
        code, answer = run("posture", self.REQUEST)
        self.assertEqual(code, 0)
        self.assertAlmostEqual(answer["joints"]["left"]["hip"][2], 49 + 0.05 * 172, places=6)
        self.assertAlmostEqual(answer["joints"]["left"]["ankle"][2], 23 + 0.025 * 172, places=6)
        self.assertAlmostEqual(answer["joints"]["right"]["ankle"][2], 0.039 * 172, places=6)
        turned = self.readout(answer, "hip_external_rotation", "left")
        self.assertAlmostEqual(turned["value"], 50, places=6)
        self.assertEqual(turned["error"], 5)

    def test_the_leg_in_the_angles_command_agrees(self) -> None:
        _, answer = run("posture", self.REQUEST)
        leg = answer["joints"]["left"]
        pelvis = {"pitch_deg": answer["pelvis"]["pitch_deg"]}
        _, angles = run("angles", {"side": "left", **leg, "pelvis": pelvis})
        for name, key in (
            ("hip_flexion", "flexion_deg"),
            ("hip_abduction", "abduction_deg"),
            ("knee_flexion", "knee_flexion_deg"),
        ):
            self.assertAlmostEqual(self.readout(answer, name, "left")["value"], angles[key], places=5)

    def test_slots_left_out_stay_plain(self) -> None:
        _, answer = run("posture", {**self.REQUEST, "setup": {}})
        level = self.readout(answer, "hip_above_knee_cm", "right")
        self.assertAlmostEqual(level["value"], 0, places=6)

    def test_a_slot_it_does_not_have_and_a_range_nobody_has(self) -> None:
        code, answer = run("posture", {**self.REQUEST, "setup": {"sofa": 40}})
        self.assertEqual((code, answer["error"]["field"]), (2, "setup.sofa"))
        wrong = [{"quantity": "knee_flexion", "side": "left", "value_deg": 300}]
        code, answer = run("posture", {**self.REQUEST, "ranges": wrong})
        self.assertEqual((code, answer["error"]["field"]), (2, "ranges.0.value_deg"))


class Library(TestCase):
    def test_lists_every_variation_in_order(self) -> None:
        with redirect_stdout(io.StringIO()) as out:
            self.assertEqual(main(["library"]), 0)
        families = {family["id"]: family for family in json.loads(out.getvalue())["families"]}
        self.assertTrue({"figure_four", "seated_fold", "bound_angle", "cross_legged"} <= set(families))
        family = families["figure_four"]
        self.assertEqual(family["variations"][0]["id"], "figure_four.foot_on_floor")
        self.assertEqual(family["variations"][-1]["id"], "figure_four.leaning")


class Other(TestCase):
    def test_broken_json_says_where(self) -> None:
        code, answer = run("angles", raw='{"side": ')
        self.assertEqual(code, 2)
        self.assertIn("line 1", answer["error"]["field"])

    def test_published_schemas_are_current(self) -> None:
        folder = Path(__file__).resolve().parents[2] / "docs" / "schemas"
        published = sorted(folder.glob("*.json"))
        self.assertEqual([path.stem for path in published], ["client_file", "family", "room", "variation"])
        for path in published:
            self.assertEqual(json.loads(path.read_text("utf-8")), schemas()[path.stem], "run ./asketa schemas")

    def test_schemas_of_everything_that_is_read(self) -> None:
        with redirect_stdout(io.StringIO()) as out:
            self.assertEqual(main(["schema"]), 0)
        self.assertEqual(
            set(json.loads(out.getvalue())),
            {"angles", "figure", "posture", "screen", "client_file", "room", "family", "variation"},
        )
