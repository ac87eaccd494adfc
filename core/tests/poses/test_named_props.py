"""What a name or a cue speaks of is in the recipe, or the file is refused."""

from __future__ import annotations

import copy
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from asketa_core import cue_words
from asketa_core.datafiles import DATA, read
from asketa_core.errors import DataError
from asketa_core.poses.library import parse_family
from asketa_core.poses.named_props import prop_words, spoken_of
from asketa_core.texts.catalogue import catalogue
from tests.library import variations
from tests.speech import english


def renamed(family: str, rung: str, name: str) -> None:
    """A family's file read while one of its rungs has another name."""
    with patch.dict(catalogue()["poses"][family]["variations"][rung], {"name": name}):
        changed(family, rung)


def changed(family: str, rung: str, **new: Any) -> None:
    """A family's file with one rung changed, read."""
    document = read(DATA / "poses" / f"{family}.yaml")
    content = copy.deepcopy(document.content)
    found = next(each for each in content["variations"] if each["id"] == rung)
    found.update(new)
    parse_family(type(document)(**{**vars(document), "content": content}))


class Spoken(TestCase):
    def test_props_are_heard_and_verbs_are_not(self) -> None:
        self.assertEqual(set(spoken_of("Knees wide over a bolster, a roll behind the knees")), {"bolster", "roll"})
        self.assertEqual(set(spoken_of("Roll up slowly, roll down more slowly.")), set())
        self.assertEqual(set(spoken_of("Forehead on a support")), {"support"})


class Unspoken(TestCase):
    """What lies at the body or stands beside it is what name or cues speak of: nothing slips in from a rung copied."""

    GOES_WITHOUT_SAYING = frozenset({"under_head", "under_shins", "under_back_knee", "behind_back"})

    def test_no_wall_and_no_prop_that_nobody_speaks_of(self) -> None:
        for rung in variations():
            told = " ".join(map(english, [rung.name, rung.short, *cue_words(rung)]))
            spoken = set(spoken_of(told))
            if rung.recipe.walls:
                self.assertIn("wall", spoken, rung.id)
            for place, slot in rung.recipe.props.items():
                if place in self.GOES_WITHOUT_SAYING:
                    continue
                kinds = set(rung.slots[slot].kinds)
                meant = {kind for word in spoken for kind in prop_words()[word].kinds}
                self.assertTrue(kinds & meant, f"{rung.id}: {slot}")


class Loading(TestCase):
    def test_the_files_as_they_are_load(self) -> None:
        changed("hero", "floor")

    def test_a_cue_that_speaks_of_an_absent_roll_is_refused(self) -> None:
        with self.assertRaisesRegex(DataError, "hero.floor: 'A roll behind the knees.' speaks of a roll"):
            changed("hero", "floor", cues=["roll_behind_knees"])

    def test_so_is_a_name(self) -> None:
        with self.assertRaisesRegex(DataError, "speaks of a chair"):
            renamed("hero", "floor", "Hero with a chair in front")

    def test_words_in_the_file_itself_are_refused(self) -> None:
        with self.assertRaisesRegex(DataError, "words stand in the file of the same name"):
            changed("hero", "floor", name="Hero")

    def test_a_head_that_rests_on_nothing_is_refused(self) -> None:
        content = read(DATA / "poses" / "child.yaml").content
        recipe = next(each for each in content["variations"] if each["id"] == "together")["recipe"]
        with self.assertRaisesRegex(DataError, "a head rests on something"):
            changed("child", "together", recipe={k: v for k, v in recipe.items() if k != "head_on"})

    def test_a_stack_that_may_be_nothing_does_not_serve(self) -> None:
        """The seat of the low bound angle is bounded; the support under its thighs is not."""
        with self.assertRaisesRegex(DataError, "speaks of a block"):
            renamed("bound_angle", "low_seat", "Bound angle, blocks under the thighs")
