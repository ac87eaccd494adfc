"""The short answer for one variation and side."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.poses.library import Variation
from asketa_core.screening.detail import SetupAnswer, no_stack_words, setup_answer
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Screened, Verdict
from asketa_core.texts import Phrase
from asketa_core.units import Side


@dataclass(frozen=True, slots=True)
class LaneAnswer:
    """The verdict on one variation for one side, with the set-up it rests on."""

    variation: str
    side: str
    verdict: Verdict
    best: SetupAnswer | None
    margin_in_errors: float | None
    no_stack: Phrase | None = None


def lane_answer(situation: Situation, variation: Variation, side: Side) -> LaneAnswer:
    """The verdict on one variation for one side."""
    return lane_answer_of(variation, side, situation.screen(variation, side))


def lane_answer_of(variation: Variation, side: Side, screened: Screened | NoGrid) -> LaneAnswer:
    """The same from a grid already screened without a remembered set-up."""
    if isinstance(screened, NoGrid):
        return LaneAnswer(variation.id, side.value, Verdict.LEAVE_OUT, None, None, no_stack_words(screened))
    chosen = screened.recommended
    margin = screened.margin_at(chosen)
    return LaneAnswer(
        variation.id,
        side.value,
        screened.verdict,
        setup_answer(screened, chosen),
        margin if np.isfinite(margin) else None,
    )
