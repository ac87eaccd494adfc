"""A step back asks less of what spoke, on any body, and stays on its seat where it can."""

from __future__ import annotations

from collections.abc import Mapping
from unittest import TestCase

from asketa_core import SIDES, NoGrid, Screened, Side, SlotValue, Variation
from asketa_core.client.holds import Place
from asketa_core.progress.demand import LESS_BY, LESS_BY_AGAINST_THE_LADDER, demand, step_back_from
from asketa_core.screening.situation import Situation
from tests.builds.page import described, situation

FELT: tuple[Place | None, ...] = ("knee", "hip", "back", None)


class Body:
    """One person whose screenings are remembered while a ladder is walked."""

    def __init__(self, at: Situation, side: Side) -> None:
        self.at, self.side = at, side
        self.known: dict[str, Screened | NoGrid] = {}

    def screen(self, rung: Variation, used: Mapping[str, SlotValue] | None = None) -> Screened | NoGrid:
        if rung.id not in self.known:
            self.known[rung.id] = self.at.screen(rung, self.side)
        return self.known[rung.id]


def asked(found: Screened, row: int, place: Place | None) -> float:
    sides = SIDES if found.variation.shared else (found.side,)
    return float(demand(found, sides, place)[row])


class StepBack(TestCase):
    def test_asks_less_where_it_was_felt_over_a_spread_of_bodies(self) -> None:
        steps = 0
        for number, person in enumerate(described()["people"]):
            body = Body(situation(person), SIDES[number % 2])
            families = list(body.at.library.families.values())
            for family in families[number % 4 :: 4]:
                for rung in family.variations:
                    here = body.screen(rung)
                    if isinstance(here, NoGrid) or not here.allowed(here.recommended):
                        continue
                    row = here.recommended
                    for place in FELT:
                        back = step_back_from(body.at.library, rung.id, here.grid.setup(row), body.screen, place)
                        if back is None:
                            continue
                        steps += 1
                        before, after = asked(here, row, place), asked(back.screened, back.row, place)
                        where = f"{person} {rung.id} → {back.variation.id} {place}"
                        self.assertTrue(back.screened.allowed(back.row), where)
                        if back.against_the_ladder:
                            self.assertLessEqual(after, before - LESS_BY_AGAINST_THE_LADDER, where)
                        elif place is None:
                            self.assertLessEqual(after, before + LESS_BY, where)
                        else:
                            self.assertLessEqual(after, before - LESS_BY, where)
        self.assertGreater(steps, 500)

    def test_keeps_the_seat_where_a_gentler_set_up_has_it(self) -> None:
        body = Body(situation("weaver"), Side.LEFT)
        here = body.screen(body.at.library.variation("figure_four.block_end"))
        assert isinstance(here, Screened)
        used = here.grid.setup(here.recommended)
        back = step_back_from(body.at.library, "figure_four.block_end", used, body.screen, "hip")
        assert back is not None
        self.assertEqual(back.setup["seat"].stack, used["seat"].stack)

    def test_a_ladder_that_inverts_is_left_for_the_rung_that_asks_less(self) -> None:
        """Lying over a pillow asks less of the back than pressing into a wall, though it stands further on."""
        body = Body(situation("weaver"), Side.LEFT)
        here = body.screen(body.at.library.variation("back_lift.wall"))
        assert isinstance(here, Screened)
        back = step_back_from(body.at.library, "back_lift.wall", here.grid.setup(here.recommended), body.screen, "knee")
        assert back is not None
        self.assertTrue(back.against_the_ladder)
