"""Common names find ladders."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import found_by
from tests.library import LIBRARY
from tests.speech import english


def finding(text: str) -> set[str]:
    """The families whose words have every word typed."""
    wanted = text.lower().split()
    return {
        name
        for name, family in LIBRARY.families.items()
        if all(
            word in f"{english(family.name)} {english(family.about)} {english(found_by(family))}".lower()
            for word in wanted
        )
    }


class CommonNames(TestCase):
    def test_what_people_say(self) -> None:
        for said, meant in (
            ("butterfly", {"bound_angle"}),
            ("chair pose", {"squat"}),
            ("pigeon", {"half_pigeon", "fire_log"}),
            ("savasana", {"rest"}),
            ("cat cow", {"table"}),
            ("tree", {"standing_balance"}),
            ("clamshell", {"clam"}),
        ):
            self.assertLessEqual(meant, finding(said), said)

    def test_what_people_ask_for(self) -> None:
        for said, meant in (
            ("hip opener", {"figure_four", "half_pigeon", "bound_angle"}),
            ("knee pain", {"wall_slide"}),
            ("pinch", {"wipers"}),
            ("sciatica", {"figure_four"}),
            ("falls", {"standing_balance", "floor_transfer"}),
            ("back pain", {"knee_to_chest"}),
        ):
            self.assertLessEqual(meant, finding(said), said)

    def test_every_family_has_other_names_and_every_purpose_other_words(self) -> None:
        for family in LIBRARY.families.values():
            self.assertGreaterEqual(len(english(family.also).split(", ")), 3, family.family)

    def test_a_name_finds_few(self) -> None:
        for said in ("butterfly", "chair pose", "savasana", "clamshell", "locust"):
            self.assertLessEqual(len(finding(said)), 4, said)
