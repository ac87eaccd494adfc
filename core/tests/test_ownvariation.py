"""A practice's own variations: files in and out, and what no copy may get round."""

from __future__ import annotations

import json
from collections.abc import Iterator
from copy import deepcopy
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import (
    NOTHING,
    InputError,
    NoGrid,
    OwnVariation,
    Side,
    Situation,
    file_of,
    lineage,
    read_own,
    step_back_from,
    with_own,
)
from asketa_core.ownvariation import MOST_SETUPS
from tests.library import LIBRARY, variation, variations
from tests.speech import english


def copy_of(rung: str, **changes: Any) -> dict[str, Any]:
    """A built-in rung as a file, with some of its fields replaced."""
    file = json.loads(json.dumps(file_of(variation(rung), rung, english)))
    file["variation"].update(changes)
    return file


class RoundTrip(TestCase):
    def test_every_built_in_rung_survives_as_a_file(self) -> None:
        for rung in variations():
            file = json.loads(json.dumps(file_of(rung, rung.id, english)))
            own = read_own(file, LIBRARY, "own_1", stored=True)
            self.assertEqual(own.file(english), {**file, "variation": {**file["variation"], "id": "own_1"}})

    def test_a_copy_is_judged_as_what_it_was_copied_from(self) -> None:
        situation = Situation.of_nobody(170)
        own = read_own(copy_of("figure_four.block_flat"), LIBRARY, "own_1")
        ours, theirs = (situation.screen(rung, Side.LEFT) for rung in (own.rung, variation("figure_four.block_flat")))
        self.assertEqual(ours.totals.cautions.tolist(), theirs.totals.cautions.tolist())
        self.assertEqual(ours.verdict, theirs.verdict)

    def test_slots_keep_their_order_whatever_order_the_file_comes_in(self) -> None:
        for rung in variations():
            file = copy_of(rung.id)
            file["variation"]["slots"] = dict(sorted(file["variation"]["slots"].items()))
            own = read_own(file, LIBRARY, "own_1", stored=True)
            self.assertEqual(list(own.rung.slots), list(rung.slots), rung.id)


class Placed(TestCase):
    def test_a_rung_stands_below_what_it_was_copied_from(self) -> None:
        own = read_own(copy_of("figure_four.block_flat"), LIBRARY, "own_1", stored=True)
        ids = [rung.id for rung in with_own(LIBRARY, [own]).families["figure_four"].variations]
        self.assertEqual(ids.index("figure_four.own_1"), ids.index("figure_four.block_flat") + 1)

    def test_where_its_neighbour_was_put_away_it_stands_last(self) -> None:
        first = read_own(copy_of("figure_four.block_flat"), LIBRARY, "own_1", stored=True)
        file = {**copy_of("figure_four.block_flat"), "after": "figure_four.own_1"}
        second = read_own(file, with_own(LIBRARY, [first]), "own_2", stored=True)
        library = with_own(LIBRARY, [second], [first.rung])
        self.assertEqual(library.families["figure_four"].variations[-1].id, "figure_four.own_2")
        known = {each.rung.id: each for each in (first, second)}
        self.assertEqual(
            lineage(known, "figure_four.own_2"), ["figure_four.own_2", "figure_four.own_1", "figure_four.block_flat"]
        )

    def test_a_retired_rung_is_known_and_not_offered(self) -> None:
        own = read_own(copy_of("figure_four.block_flat"), LIBRARY, "own_1", stored=True)
        library = with_own(LIBRARY, [], [own.rung])
        self.assertEqual(library.variation("figure_four.own_1"), own.rung)
        self.assertNotIn(own.rung, list(library.variations()))

    def test_the_standard_library_stays_as_it_is(self) -> None:
        own = read_own(copy_of("figure_four.block_flat"), LIBRARY, "own_1", stored=True)
        with_own(LIBRARY, [own])
        self.assertFalse(LIBRARY.knows("figure_four.own_1"))


class Steps(TestCase):
    def own(self, key: str, **steps: str | None) -> OwnVariation:
        library = with_own(LIBRARY, self.known)
        self.known.append(read_own(copy_of("figure_four.block_flat", **steps), library, key, stored=True))
        return self.known[-1]

    def setUp(self) -> None:
        self.known: list[OwnVariation] = []

    def test_rungs_that_step_to_each_other_are_each_met_once(self) -> None:
        self.own("own_1", step_back="figure_four.foot_on_floor")
        self.own("own_2", step_back="figure_four.own_1")
        circle = [
            each.rung.model_copy(update={"step_back": "figure_four.own_2"}) if each.rung.id.endswith("1") else each.rung
            for each in self.known
        ]
        library = with_own(LIBRARY, [OwnVariation(rung, "figure_four.block_flat") for rung in circle])
        met = [rung.id for rung in library.steps(circle[1], "step_back")]
        self.assertEqual(met, ["figure_four.own_1"])

    def test_an_own_rung_stands_in_the_chain_in_both_directions(self) -> None:
        self.own("own_1")
        self.own("own_2")
        library = with_own(LIBRARY, self.known)
        onward = [
            rung.id.split(".")[1]
            for rung in library.steps(library.variation("figure_four.foot_on_floor"), "step_forward")
        ]
        self.assertEqual(onward[:4], ["block_flat", "own_2", "own_1", "block_side"])
        back = [
            rung.id.split(".")[1] for rung in library.steps(library.variation("figure_four.block_side"), "step_back")
        ]
        self.assertEqual(back, ["own_1", "own_2", "block_flat", "foot_on_floor"])
        shown = [rung.id.split(".")[1] for rung in library.families["figure_four"].variations]
        self.assertEqual(shown[1:5], ["block_flat", "own_2", "own_1", "block_side"])

    def test_steps_a_file_names_otherwise_are_kept(self) -> None:
        self.own("own_1", step_back="figure_four.foot_on_floor", step_forward="figure_four.leaning")
        library = with_own(LIBRARY, self.known)
        own = library.variation("figure_four.own_1")
        self.assertEqual([rung.id for rung in library.steps(own, "step_forward")], ["figure_four.leaning"])

    def test_a_retired_rung_is_passed_over(self) -> None:
        put_away = self.own("own_1", step_back="figure_four.foot_on_floor")
        onto = self.own("own_2", step_back="figure_four.own_1")
        library = with_own(LIBRARY, [onto], [put_away.rung])
        self.assertEqual([rung.id for rung in library.steps(onto.rung, "step_back")], ["figure_four.foot_on_floor"])

    def test_a_step_back_that_is_nowhere_open_ends(self) -> None:
        """Every rung of a circle closed: nothing gentler is offered, and the search comes to an end."""
        self.own("own_1", step_back="figure_four.foot_on_floor")
        rung = self.known[0].rung.model_copy(update={"step_back": "figure_four.own_1"})
        library = with_own(LIBRARY, [OwnVariation(rung, "figure_four.block_flat")])
        self.assertIsNone(step_back_from(library, rung.id, {}, lambda *_: NoGrid("seat", NOTHING, False)))


class Refused(TestCase):
    def refusal(self, file: dict[str, Any]) -> InputError:
        with self.assertRaises(InputError) as caught:
            read_own(file, LIBRARY, "own_1")
        return caught.exception

    def test_names_the_field_and_the_way_out(self) -> None:
        base = copy_of("figure_four.block_flat")
        slots = base["variation"]["slots"]
        numbers = next(name for name, slot in slots.items() if slot["type"] in ("angle", "distance"))
        broken = deepcopy(slots)
        broken[numbers]["from"] = broken[numbers]["to"] + 5
        hold = {**base["variation"]["hold"], "from": 90, "to": 30}
        for field, file in {
            "family": {**base, "family": "levitation"},
            "after": {**base, "after": "half_pigeon.nothing"},
            "variation.cues.0": copy_of("figure_four.block_flat", cues=["be_well"]),
            "variation.watch.0": copy_of("figure_four.block_flat", watch=["nothing"]),
            "variation.hold": copy_of("figure_four.block_flat", hold=hold),
            f"variation.slots.{numbers}.from": copy_of("figure_four.block_flat", slots=broken),
            "variation.step_back": copy_of("figure_four.block_flat", step_back="figure_four.nowhere"),
            "variation.shared": copy_of("figure_four.block_flat", shared=True),
            "variation.colour": copy_of("figure_four.block_flat", colour="red"),
        }.items():
            error = self.refusal(file)
            self.assertEqual(error.field, field)
            self.assertTrue(error.reason and error.remedy)

    def test_a_copy_keeps_the_flags_limits_depend_on(self) -> None:
        marked = next(rung for rung in variations() if rung.recipe.flags.worked and not rung.shared)
        recipe = json.loads(json.dumps(file_of(marked, marked.id, english)))["variation"]["recipe"]
        recipe["flags"] = {**recipe["flags"], "worked": []}
        self.assertIn("flags", self.refusal(copy_of(marked.id, recipe=recipe)).field)

    def test_a_copy_keeps_tests_and_ways(self) -> None:
        tested = next(rung for rung in variations() if rung.gates)
        self.assertEqual(self.refusal(copy_of(tested.id, gates=[])).field, "variation.gates")
        way = next(rung for rung in variations() if rung.recipe.way)
        recipe = json.loads(json.dumps(file_of(way, way.id, english)))["variation"]["recipe"]
        recipe["way"] = []
        self.assertEqual(self.refusal(copy_of(way.id, recipe=recipe)).field, "variation.recipe.way")

    def test_a_copy_keeps_shape_position_and_who_carries_the_weight(self) -> None:
        base = copy_of("seated_fold.high_seat")["variation"]
        lighter = {**base["recipe"], "hands": {**base["recipe"]["hands"], "carry": 0.5}}
        other_legs = {**base["recipe"], "both_legs": {"rule": "folded"}}
        for field, changes in {
            "variation.position": {"position": "chair"},
            "variation.recipe.hands.carry": {"recipe": lighter},
            "variation.recipe": {"recipe": other_legs},
        }.items():
            self.assertEqual(self.refusal(copy_of("seated_fold.high_seat", **changes)).field, field)

    def test_a_file_that_says_not_what_it_was_made_from(self) -> None:
        """Without it nobody knows which flags, tests and ways were left out."""
        file = copy_of("figure_four.block_flat")
        del file["after"]
        self.assertEqual(self.refusal(file).field, "after")

    def test_too_many_set_ups_are_refused_before_any_is_tried(self) -> None:
        file = copy_of("figure_four.block_flat")
        for slot in file["variation"]["slots"].values():
            if slot["type"] in ("angle", "distance"):
                slot["step"] = 0.5
        self.assertIn("set-ups to try", self.refusal(file).reason)

    def test_a_height_no_prop_reaches_says_what_is_nearest(self) -> None:
        rung = next(r for r in variations() if any(s.type == "stack" and s.between_cm for s in r.slots.values()))
        file = copy_of(rung.id)
        slot = next(s for s in file["variation"]["slots"].values() if s["type"] == "stack" and "between_cm" in s)
        slot["between_cm"] = [90, 95]
        self.assertRegex(self.refusal(file).reason, r"reaches 90–95 cm .*; the nearest is \d+\.\d cm")


def leaves(value: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Every place in a file, inner ones included."""
    if path:
        yield path
    inner = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, each in inner:
        yield from leaves(each, (*path, key))


def replaced(file: Any, path: tuple[Any, ...], value: Any) -> Any:
    file = deepcopy(file)
    inside = file
    for key in path[:-1]:
        inside = inside[key]
    inside[path[-1]] = value
    return file


JUNK = st.one_of(
    st.none(), st.booleans(), st.text(max_size=6), st.integers(-10**12, 10**12), st.floats(), st.just([]), st.just({}),
    st.sampled_from(["floor", "seat", "worked", "hands", -1, 0, 0.0, 1e300, [0, 0], {"slot": "seat"}]),
)  # fmt: skip


class AnyFile(TestCase):
    """Whatever a file says, it is read or refused in words; nothing else happens, and it does not take long."""

    RUNGS = ("figure_four.block_flat", "seated_fold.high_seat", "warrior_one.free", "lotus.half", "hip_hinge.blocks")

    @settings(max_examples=250)
    @given(st.sampled_from(RUNGS), st.data())
    def test_a_file_with_something_wrong_in_it(self, rung_id: str, data: st.DataObject) -> None:
        file = copy_of(rung_id)
        for _ in range(data.draw(st.integers(1, 2))):
            file = replaced(file, data.draw(st.sampled_from(list(leaves(file)))), data.draw(JUNK))
        try:
            own = read_own(file, LIBRARY, "own_1")
        except InputError as error:
            self.assertTrue(error.field and error.reason and error.remedy)
            return
        situation = Situation.of_nobody(170)
        self.assertLessEqual(situation.combinations(own.rung, Side.LEFT), MOST_SETUPS)
        self.assertEqual(read_own(own.file(english), LIBRARY, "own_1", stored=True).file(english), own.file(english))

    @settings(max_examples=60)
    @given(st.one_of(JUNK, st.dictionaries(st.text(max_size=8), JUNK, max_size=4)))
    def test_what_is_no_file_at_all(self, raw: Any) -> None:
        with self.assertRaises(InputError):
            read_own(raw, LIBRARY, "own_1")
