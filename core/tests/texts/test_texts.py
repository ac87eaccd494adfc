"""Phrases are codes until a language says them; every language says all of them."""

from __future__ import annotations

import datetime as dt
import os
import pickle
import shutil
import string
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import (
    NOTHING,
    PSEUDO,
    REFERENCE,
    USUAL,
    DataError,
    Manner,
    Own,
    Said,
    Words,
    disguised,
    listed,
    say,
    words_in,
)
from asketa_core.datafiles import DATA
from asketa_core.texts.catalogue import catalogue, check_language, item, leaves, parameters
from asketa_core.texts.words import MINUS
from tests.speech import english

OWN = {
    "own": {
        "n": "{n}",
        "day": "{d:day}",
        "date": "{d}",
        "month": "{d:month}",
        "list": "{parts}",
        "either": "{parts:or}",
        "row": "{parts:comma}",
        "start": "{words:sentence}",
        "inside": "{words:inside}",
        "wrong": "{words:loud}",
    }
}


def filled(language: str, code: str, **params: Any) -> str:
    return Words(language, OWN)(Said(("own", code), tuple(params.items())))


class Written(TestCase):
    def test_numbers(self) -> None:
        for value, shown in ((45, "45"), (2.7, "2.7"), (45.0, "45"), (-3.0, "−3"), (0.25, "0.25"), (1200, "1200")):
            self.assertEqual(filled("en", "n", n=value), shown)

    def test_dates(self) -> None:
        day = dt.date(2026, 11, 7)
        self.assertEqual(filled("en", "day", d=day), "7 November")
        self.assertEqual(filled("en", "date", d=day), "7 November 2026")
        self.assertEqual(filled("en", "month", d=day), "November 2026")

    def test_lists(self) -> None:
        three = (Own("a"), Own("b"), Own("c"))
        self.assertEqual(filled("en", "list", parts=three), "a, b and c")
        self.assertEqual(filled("en", "list", parts=three[:1]), "a")
        self.assertEqual(filled("en", "either", parts=three[:2]), "a or b")
        self.assertEqual(filled("en", "row", parts=three), "a, b, c")
        self.assertEqual(english(listed([Own("a"), NOTHING, Own("b")])), "a, b")
        self.assertFalse(listed([NOTHING]))

    def test_how_a_phrase_stands(self) -> None:
        self.assertEqual(filled("en", "start", words=Own("hip bend")), "Hip bend")
        self.assertEqual(filled("en", "inside", words=Own("Under the knee")), "under the knee")
        self.assertEqual(english(say("sides", "left").sentence), "Left")

    def test_what_cannot_be_said_is_an_error(self) -> None:
        with self.assertRaises(ValueError):
            filled("en", "wrong", words=Own("hush"))
        with self.assertRaises(DataError):
            filled("en", "n")
        with self.assertRaises(TypeError):
            filled("en", "n", n="a bare text")
        with self.assertRaises(ValueError):
            Words("tlh")
        with self.assertRaises(DataError):
            say("units")


class Values(TestCase):
    def test_what_a_sentence_does_not_ask_for_makes_no_difference(self) -> None:
        self.assertEqual(say("sides", "left", n=1), say("sides", "left"))
        self.assertNotEqual(say("units", "cm", n=1), say("units", "cm", n=2))

    def test_the_codes_of_a_sentence_are_its_parameters(self) -> None:
        self.assertEqual(parameters("units", "span"), {"low", "high"})

    def test_a_phrase_is_the_same_once_packed_and_opened(self) -> None:
        height = say("units", "cm", n=12.5)
        for phrase in (height, height.sentence, NOTHING, Own("a strap"), listed([height, Own("a strap")], "or").inside):
            opened = pickle.loads(pickle.dumps(phrase, pickle.HIGHEST_PROTOCOL))
            self.assertEqual((type(opened), opened, english(opened)), (type(phrase), phrase, english(phrase)))


def fillings(*path: str) -> dict[str, Any]:
    """Something of the kind each parameter of a sentence is written as."""
    kinds: dict[str, Any] = {"day": dt.date(2026, 5, 1), "month": dt.date(2026, 5, 1), "semicolon": (NOTHING, NOTHING)}
    kinds |= {"length": 12.0, "size": 12.0, "weight": 12.0}
    parts = string.Formatter().parse(str(item(*path)))
    return {name: kinds.get(spec or "", say("sides", "left")) for _, name, spec, _ in parts if name}


class Pseudo(TestCase):
    def test_nothing_the_catalogue_says_has_a_plain_letter(self) -> None:
        pseudo = words_in(PSEUDO)
        for path, _ in leaves(catalogue()):
            self.assertNotRegex(pseudo(say(*path, **fillings(*path))), r"[A-Za-z]", ".".join(path))

    @given(st.text())
    def test_what_somebody_typed_stays(self, text: str) -> None:
        self.assertEqual(words_in(PSEUDO)(Own(text)), text)

    def test_months_and_joining_words_are_disguised_too(self) -> None:
        self.assertEqual(filled(PSEUDO, "day", d=dt.date(2026, 5, 1)), disguised("1 May"))
        self.assertEqual(filled(PSEUDO, "list", parts=(Own("a"), Own("b"))), f"a {disguised('and')} b")


class InAManner(TestCase):
    """The same sentences with lengths in inches, or with dates in another order."""

    def said(self, phrase: Said, manner: Manner) -> str:
        return words_in(REFERENCE, manner)(phrase)

    def test_lengths(self) -> None:
        imperial = Manner(units="imperial")
        for cm, metric, inches in ((2.54, "2.54 cm", "1 in"), (49.0, "49 cm", "19.3 in"), (-4.0, "−4 cm", "−1.6 in")):
            self.assertEqual(self.said(say("units", "cm", n=cm), USUAL), metric)
            self.assertEqual(self.said(say("units", "cm", n=cm), imperial), inches)

    def test_a_figure_in_the_sentence_itself(self) -> None:
        closeness = say("limits", "pregnancy.belly_close", "therapist", limit=2.0, limits=())
        self.assertIn("to within 3 cm.", self.said(closeness, USUAL))
        self.assertIn("to within 1.2 in.", self.said(closeness, Manner(units="imperial")))

    def test_weights(self) -> None:
        self.assertEqual(words_in(REFERENCE).weight(70), "70 kg")
        self.assertEqual(words_in(REFERENCE, Manner(units="imperial")).weight(70), "154 lb")

    @given(st.integers(-300, 300), st.integers(-300, 300))
    def test_inches_keep_apart_and_in_order_what_centimetres_do(self, one: int, other: int) -> None:
        size = words_in(REFERENCE, Manner(units="imperial")).size
        as_number = [float(size(cm).replace(MINUS, "-")) for cm in (one, other)]
        self.assertEqual(as_number[0] < as_number[1], one < other)

    def test_no_sentence_writes_centimetres_by_itself(self) -> None:
        for path, template in leaves(catalogue()):
            if path[:2] not in (("units", "centimetres"), ("readouts", "knee_moment_ratio")):
                said = "".join(plain for plain, *_ in string.Formatter().parse(template))
                self.assertNotRegex(said, r"\bcm\b", ".".join(path))

    def test_dates(self) -> None:
        day = dt.date(2026, 5, 1)
        for order, whole, short, month in (
            ("day_month_year", "1 May 2026", "1 May", "May 2026"),
            ("month_day_year", "May 1, 2026", "May 1", "May 2026"),
            ("year_month_day", "2026-05-01", "05-01", "2026-05"),
        ):
            words = words_in(REFERENCE, Manner(dates=order))  # type: ignore[arg-type]
            said = [words._param(day, spec) for spec in ("", "day", "month")]
            self.assertEqual(said, [whole, short, month])


class AnotherLanguage(TestCase):
    def differing(self, change: Any) -> str:
        theirs = {section: dict(words) if isinstance(words, dict) else words for section, words in catalogue().items()}
        change(theirs)
        ours = catalogue()
        with (
            patch("asketa_core.texts.catalogue._read", side_effect=lambda code: theirs if code == "xx" else ours),
            self.assertRaises(DataError) as caught,
        ):
            check_language("xx")
        return str(caught.exception)

    def test_says_all_there_is_and_nothing_else(self) -> None:
        self.assertIn("sides.left", self.differing(lambda words: words["sides"].pop("left")))
        self.assertIn("sides.up", self.differing(lambda words: words["sides"].update(up="up")))
        self.assertIn("units.cm", self.differing(lambda words: words["units"].update(cm="{length} cm")))

    def test_needs_its_files_and_no_code(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / DATA.parent.name
            shutil.copytree(DATA.parent, copy, ignore=shutil.ignore_patterns("__pycache__"))
            for english_file in [copy / "data" / "texts" / "en.yaml", *copy.glob("records/*/en.yaml")]:
                shutil.copy(english_file, english_file.with_name("de.yaml"))
            shutil.copytree(copy / "data" / "poses" / "en", copy / "data" / "poses" / "de")
            tried = (
                "from asketa_core import check_data, say, words_in; check_data(); "
                "print(words_in('de')(say('units', 'cm', n=1.5)))"
            )
            ran = subprocess.run(
                [sys.executable, "-c", tried],
                env={**os.environ, "PYTHONPATH": folder}, capture_output=True, text=True, check=False,
            )  # fmt: skip
            self.assertEqual(ran.stdout.strip(), "1,5 cm", ran.stderr[-400:])
