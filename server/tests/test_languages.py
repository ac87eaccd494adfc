"""In which language an answer is, and that no language gets another one's."""

from __future__ import annotations

import re
from unittest.mock import patch

from django.test import SimpleTestCase, override_settings

from asketa_core import PSEUDO
from common import speech
from common.checks import every_language_is_whole
from common.speech import TEXTS, own, own_codes, speaking, words, words_of
from tests.base import ApiTest


class Negotiation(ApiTest):
    def head(self, asked: str) -> tuple[str, str]:
        """The language of an answer about a client, and its first note."""
        response = self.client.get(self.url(), headers={"Accept-Language": asked})
        self.assertIn("Accept-Language", response.headers["Vary"])
        return response.headers["Content-Language"], response.json()["disclaimer"]

    def test_the_first_language_there_is(self) -> None:
        for asked in ("", "en", "en-GB", "tlh, en;q=0.5", "de-CH, fr"):
            language, words = self.head(asked)
            self.assertEqual(language, "en", asked)
            self.assertTrue(words.startswith("Supports your judgement"))

    def test_the_made_up_one_only_where_it_is_switched_on(self) -> None:
        self.assertEqual(self.head(PSEUDO)[0], "en")
        self.assertEqual(self.client.get("/api/auth/me").json()["languages"], ["en"])
        with override_settings(PSEUDO_LANGUAGE=True):
            language, words = self.head(PSEUDO)
            self.assertEqual(language, PSEUDO)
            self.assertNotRegex(words, "[A-Za-z]")
            self.assertEqual(self.client.get("/api/auth/me").json()["languages"], ["en", PSEUDO])

    def test_refusals_too(self) -> None:
        with override_settings(PSEUDO_LANGUAGE=True):
            for url, body in ((f"{self.url()}/nowhere", {}), (self.url("/entries"), {"entry": {"kind": "wrist"}})):
                response = self.client.post(
                    url, body, content_type="application/json", headers={"Accept-Language": PSEUDO}
                )
                self.assertGreaterEqual(response.status_code, 400)
                self.assertNotRegex(response.json()["message"], "[A-Za-z]")

    @override_settings(PSEUDO_LANGUAGE=True)
    def test_what_is_kept_is_kept_by_language(self) -> None:
        """Figures are described in words: asked for in one language after the other, each is in its own."""
        self.house.record_hip()
        address = self.url("/ladders/figure_four/drawings")
        for asked in ("en", PSEUDO, "en", PSEUDO):
            figures = self.client.get(address, headers={"Accept-Language": asked}).json()["left"]
            described = re.findall(r'aria-label="([^"]*)"', "".join(figures.values()))
            self.assertGreater(len(described), 2)
            for each in described:
                self.assertEqual(re.search("[A-Za-z]", each) is None, asked == PSEUDO, each)


class OwnWords(SimpleTestCase):
    """What the server says itself."""

    def test_every_sentence_is_asked_for(self) -> None:
        source = "\n".join(
            path.read_text(encoding="utf-8")
            for path in TEXTS.parents[1].rglob("*.py")
            if "tests" not in path.parts and "migrations" not in path.parts
        )
        for path in own_codes("en"):
            # Statuses, units and parts of a file are named by what they are about.
            if path[0] not in ("status", "unread") and path[-1] not in ("stale", "sent_before"):
                self.assertRegex(source, r"own\(\s*" + r",\s*".join(f'"{part}"' for part in path), ".".join(path))

    def test_a_language_lasts_as_long_as_its_block(self) -> None:
        with override_settings(PSEUDO_LANGUAGE=True), speaking(PSEUDO):
            self.assertNotRegex(words()(own("not_allowed")), "[A-Za-z]")
        self.assertIs(words(), words_of("en"))
        self.assertEqual(speech.offered_languages(), ("en",))

    def test_a_language_without_what_the_server_says_stops_the_start(self) -> None:
        with patch("common.checks.languages", return_value=("en", "xx")):
            (error,) = every_language_is_whole()
        self.assertIn("texts/xx.yaml is missing", error.msg)
        with (
            patch("common.checks.languages", return_value=("en",)),
            patch("common.checks.own_codes", side_effect=[[("stale",)], [("stale",), ("other",)]]),
        ):
            (error,) = every_language_is_whole()
        self.assertIn("other: differs", error.msg)
