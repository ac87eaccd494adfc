"""Data files cannot lie: a word the engine does not know is refused when the file is read, with its line and column."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from asketa_core import DataError, check_data
from asketa_core.clinical import ClinicalFile, clinical, days, figures, group, groups
from asketa_core.datafiles import DATA, load, read
from asketa_core.limits.model import rows_of
from asketa_core.poses.library import parse_family
from asketa_core.records.registry import KINDS
from asketa_core.texts.catalogue import catalogue, has

HEAD = "# Rules of a test.\nrows:\n"
ROW = "  - {code: hip.bend, when: {approach: posterior}, severity: stop, side: same, terms: [{flag: floor}], source: usual}\n"


class Rows(TestCase):
    def refusal(self, text: str) -> str:
        hip = KINDS["hip_replacement"]
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "rules.yaml"
            path.write_text(text, encoding="utf-8")
            with self.assertRaises(DataError) as caught:
                rows_of(path, hip.code, hip.asked_of, hip.facts, hip.scopes)
        return str(caught.exception)

    def test_a_value_the_condition_never_takes(self) -> None:
        """It would silently switch a safety rule off."""
        message = self.refusal(HEAD + ROW.replace("posterior", "posteror"))
        self.assertIn("line 3, column 29", message)
        self.assertIn("never 'posteror'", message)

    def test_a_value_in_a_list(self) -> None:
        self.assertIn("never 'side'", self.refusal(HEAD + ROW.replace("posterior", "[posterior, side]")))

    def test_a_condition_nobody_works_out(self) -> None:
        message = self.refusal(HEAD + ROW.replace("approach:", "aproach:"))
        self.assertIn("there is no such condition", message)
        self.assertIn("line 3", message)

    def test_a_word_where_a_number_is_asked_and_the_reverse(self) -> None:
        self.assertIn("not a number", self.refusal(HEAD + ROW.replace("posterior", "{below: 6}")))
        self.assertIn("never '6'", self.refusal(HEAD + ROW.replace("posterior", "6")))

    def test_a_code_without_words(self) -> None:
        message = self.refusal(HEAD + ROW.replace("hip.bend", "hip.bendd"))
        self.assertIn("no words for 'hip.bendd'", message)
        self.assertIn("line 3, column 6", message)

    def test_an_unknown_flag_scope_readout_or_source(self) -> None:
        for old, new in (
            ("flag: floor", "flag: flor"),
            ("severity: stop", "severity: stop, holds: until_cleared, scope: bnd"),
            ("{flag: floor}", "{readout: hip_bnd, above: 3}"),
            ("source: usual}", "source: unusual}"),
            ("{flag: floor}", "{readout: hip_bend, above: {fact: approach}}"),
        ):
            self.assertIn("line 3", self.refusal(HEAD + ROW.replace(old, new)), new)

    def test_a_row_about_everything_says_so(self) -> None:
        bare = ROW.replace("terms: [{flag: floor}], ", "")
        self.assertIn("every shape", self.refusal(HEAD + bare))
        self.assertIn("every shape", self.refusal(HEAD + ROW.replace("terms:", "everything: symptom, terms:")))
        self.assertIn("can only ask", self.refusal(HEAD + bare.replace("source", "everything: question, source")))

    def test_a_scope_without_a_clearance_and_the_reverse(self) -> None:
        for more in ("scope: bend", "holds: until_cleared"):
            self.assertIn("goes with", self.refusal(HEAD + ROW.replace("side: same", f"side: same, {more}")))

    def test_a_key_that_stands_twice(self) -> None:
        self.assertIn(
            "stands twice", self.refusal(HEAD + ROW.replace("severity: stop", "severity: stop, severity: ask"))
        )


class Families(TestCase):
    def refusal(self, old: str, new: str, name: str = "squat") -> str:
        text = (DATA / "poses" / f"{name}.yaml").read_text(encoding="utf-8")
        self.assertIn(old, text)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / f"{name}.yaml"
            path.write_text(text.replace(old, new, 1), encoding="utf-8")
            with self.assertRaises(DataError) as caught:
                parse_family(read(path))
        return str(caught.exception)

    def test_every_word_has_its_line(self) -> None:
        for old, new in (
            ("purposes: [", "purposes: [balence, "),
            ("cues: [", "cues: [sit_tal, "),
            ("watch: [", "watch: [knees_lock, "),
            ("counter: [", "counter: [sit_loud, "),
            ("style: ", "style: x"),
            ("kinds: [", "kinds: [bloc, "),
        ):
            self.assertRegex(self.refusal(old, new), r"squat\.yaml: line \d+, column \d+", new)

    def test_a_slot_of_the_family_is_found_where_it_is_written(self) -> None:
        text = (DATA / "poses" / "squat.yaml").read_text(encoding="utf-8").splitlines()
        line = next(n for n, each in enumerate(text, 1) if "less_support: " in each)
        self.assertIn(f"line {line}", self.refusal("less_support: ", "less_support: x"))


class Figures(TestCase):
    def test_a_figure_is_asked_for_in_its_unit(self) -> None:
        self.assertEqual(clinical("bones.steady_stand", "seconds"), 10)
        for wrong in (lambda: clinical("bones.steady_stand", "days"), lambda: clinical("bones.steady", "seconds"),
                      lambda: days("bones.steady_stand"), lambda: group("nobody", ())):  # fmt: skip
            with self.assertRaises(DataError):
                wrong()

    def test_weeks_are_seven_days(self) -> None:
        self.assertEqual(days("knee.operation_fresh"), 84)
        self.assertEqual(days("knee.ligament_fresh"), 365)

    def test_every_figure_says_its_unit_source_and_review(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "clinical.yaml"
            good = "sources: {s: S}\nfigures:\n  a.b: {value: 1, unit: days, about: long enough words, source: s, reviewed: not yet}\ngroups: {}\n"
            for old, new in (("unit: days, ", ""), ("days", "dys"), ("source: s", "source: t"), ("not yet", "me")):
                path.write_text(good.replace(old, new), encoding="utf-8")
                with self.assertRaises(DataError):
                    load(path, ClinicalFile)
            path.write_text(good, encoding="utf-8")
            self.assertEqual(load(path, ClinicalFile).figures["a.b"].value, 1)


class Everything(TestCase):
    def test_all_of_it_is_in_order(self) -> None:
        check_data()

    def test_words_nothing_uses_are_found(self) -> None:
        spare = {**catalogue()}
        spare["cues"] = {**spare["cues"], "unused_cue": "Nobody says this."}
        with patch("asketa_core.texts.catalogue.catalogue", return_value=spare), self.assertRaises(DataError) as caught:
            check_data()
        self.assertIn("cues.unused_cue", str(caught.exception))

    def test_a_source_no_row_names_is_found(self) -> None:
        spare = {**catalogue()}
        spare["sources"] = {**spare["sources"], "wrist": {**spare["sources"]["wrist"], "other": "Somebody"}}
        with patch("asketa_core.texts.catalogue.catalogue", return_value=spare), self.assertRaises(DataError) as caught:
            check_data()
        self.assertIn("sources.other", str(caught.exception))

    def test_a_wrong_word_in_any_kind_of_file_is_found(self) -> None:
        """One letter too many, in a copy of the whole package: the start of an application stops with file and line."""
        package = DATA.parent
        spoilt = (
            ("clinical.yaml", "of: [pinching, sharp, tingling", "of: [pinching, sharp, tinglingx"),
            ("norms/body.yaml", "  head_and_neck: {", "  head_and_neckx: {"),
            ("norms/body.yaml", "  hip_adduction: {", "  hip_adductionx: {"),
            ("norms/transfers.yaml", "id: left_forward", "id: left_forwardx"),
            ("props/room.yaml", "kind: bolster", "kind: bolsterx"),
            ("poses/sit_to_stand.yaml", "faces: [flat", "faces: [flatx"),
            ("limits/everyone.yaml", "severity: ask", "severity: askx"),
            ("texts/en.yaml", "everyone.twist: {short:", "everyone.twist: {shortx:"),
            ("../records/knee_pain/rules.yaml", "severity: ask", "severity: askx"),
            ("../records/hip_replacement/en.yaml", "hip.bend: {short:", "hip.bend: {shortx:"),
            ("../records/wrist/clinical.yaml", "unit: of_10", "unit: of_10x"),
            ("../records/bones/en.yaml", '  t_score: "Lowest', '  t_scorex: "Lowest'),
            ("poses/en/squat.yaml", "slots:", "slotsx:"),
        )
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / package.name
            shutil.copytree(package, copy, ignore=shutil.ignore_patterns("__pycache__"))
            for name, old, new in spoilt:
                with self.subTest(file=name, word=new):
                    file = copy / "data" / name
                    good = file.read_text(encoding="utf-8")
                    self.assertIn(old, good)
                    file.write_text(good.replace(old, new, 1), encoding="utf-8")
                    ran = subprocess.run(
                        [sys.executable, "-c", "from asketa_core.checks import check_data; check_data()"],
                        env={**os.environ, "PYTHONPATH": folder}, capture_output=True, text=True, check=False,
                    )  # fmt: skip
                    file.write_text(good, encoding="utf-8")
                    self.assertRegex(ran.stderr.strip().splitlines()[-1], rf"DataError: .*{Path(name).name}: ")


class AskedFor(TestCase):
    """Codes that stand in the source: each has its figure or its words, and every figure is asked for."""

    source = "\n".join(path.read_text(encoding="utf-8") for path in sorted(DATA.parent.rglob("*.py")))

    def test_figures(self) -> None:
        asked = set(re.findall(r'\b(?:clinical|days)\(\s*"([\w.]+)"', self.source))
        # One is asked for by whoever shows the working order.
        self.assertEqual(asked | {"measure.stale"}, set(figures()))
        self.assertEqual(set(re.findall(r'\bgroup\(\s*"([\w.]+)"', self.source)), set(groups()))

    def test_words(self) -> None:
        found = re.findall(r'(?<![.\w])say\(\s*"(\w+)",\s*"([\w.]+)"', self.source)
        self.assertGreater(len(found), 40)
        for section, code in found:
            self.assertTrue(has(section, code), f"{section}.{code}")
