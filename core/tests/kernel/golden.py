"""What the engine answers, recorded: for everybody and nobody in particular, all rungs.

``python -m tests.kernel.golden`` (from ``core``) records anew. Do so only where answers are meant to change, and read what
changed: every line is one grid.
"""

from __future__ import annotations

import json
import random
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from asketa_core import SIDES, NoGrid, Side, Situation, Variation
from tests.kernel.anybody import any_situation
from tests.library import variation, variations

RECORDED = Path(__file__).parent / "golden.jsonl"

Where = tuple[int, str, str]
"""Whose grid it is: the seed of somebody by chance or ``NOBODY``, the rung and the worked side."""

NOBODY = -1
SOMEBODY = range(24)
RUNGS_EACH = 12
FIRST_ROWS = 12
READ_OFF_EVERY = 4


def somebody(seed: int) -> Situation:
    return Situation.of_nobody(163) if seed == NOBODY else any_situation(random.Random(seed))


def cases() -> Iterator[Where]:
    """Every rung for nobody, and some rungs for everybody."""
    for rung in variations():
        for side in SIDES[:1] if rung.shared else SIDES:
            yield NOBODY, rung.id, side.value
    rungs = sorted(rung.id for rung in variations())
    for seed in SOMEBODY:
        chance = random.Random(f"rungs of {seed}")
        for rung_id in chance.sample(rungs, RUNGS_EACH):
            yield seed, rung_id, chance.choice(SIDES).value


def answer(situation: Situation, rung: Variation, side: Side, read_off: bool) -> dict[str, Any]:
    """What is recorded of a grid: sums over all its set-ups, the first in order, and what the best comes to."""
    found = situation.screen(rung, side)
    if isinstance(found, NoGrid):
        return {"nothing_for": found.slot}
    # Looked for by itself, before all are judged.
    best, verdict, sums = found.best, found.verdict, found.totals
    answered: dict[str, Any] = {
        "verdict": verdict.value, "best": best, "recommended": found.recommended, "setups": found.grid.size,
        "possible": int(found.possible.sum()), "stops": int(sums.stops.sum()), "asks": int(sums.asks.sum()),
        "cautions": int(sums.cautions.sum()), "on_the_way": int(sums.on_the_way.sum()), "size": float(sums.size.sum()),
        "technique": int(found.chosen[found.way_of].sum()), "first": found.order[:FIRST_ROWS].tolist(),
        "margin": _number(found.margin_at(best)), "purpose": _number(found.purpose_at(best)),
    }  # fmt: skip
    if read_off:
        posture = found.pose_at(best)
        answered["read"] = {
            f"{readout.value} {'whole' if of is None else of.value}": [_number(v) for v in posture.levels(readout, of)]
            for readout, of in posture.readouts
        }
    return answered


def _number(value: float) -> float | None:
    """Six digits of what is a number at all."""
    return round(float(value), 6) if abs(value) < 1e6 else None


def answers() -> Iterator[dict[str, Any]]:
    seed, situation = None, somebody(NOBODY)
    for at, (whose, rung_id, side) in enumerate(cases()):
        if whose != seed:
            seed, situation = whose, somebody(whose)
        read_off = at % READ_OFF_EVERY == 0
        yield {"of": [whose, rung_id, side], **answer(situation, variation(rung_id), Side(side), read_off)}


def recorded() -> list[dict[str, Any]]:
    return [json.loads(line) for line in RECORDED.read_text(encoding="utf-8").splitlines()]


if __name__ == "__main__":
    RECORDED.write_text("".join(json.dumps(each) + "\n" for each in answers()), encoding="utf-8")
