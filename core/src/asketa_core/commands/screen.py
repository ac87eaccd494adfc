"""The ``screen`` command: verdicts for a client file on a date in a room, as JSON."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import fields
from typing import Any

from asketa_core.clientfile import ClientFile
from asketa_core.commands.speech import ENGLISH
from asketa_core.datafiles import Record
from asketa_core.poses.library import Variation
from asketa_core.props.kinds import Room
from asketa_core.screening.detail import detail_at
from asketa_core.screening.lanes import lane_answer_of
from asketa_core.screening.rulers import Ruler, rulers_on
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.texts import Phrase
from asketa_core.units import SIDES, Side
from asketa_core.words.findings import Finding


class ScreenRequest(Record):
    """``variations`` are full ids; all when left out."""

    client: ClientFile
    date: dt.date
    room: Room
    variations: tuple[str, ...] | None = None


def run_screen(request: ScreenRequest) -> dict[str, Any]:
    return screen_client(request.client, request.date, request.room, request.variations)


def screen_client(
    client: ClientFile, date: dt.date, room: Room, variation_ids: Iterable[str] | None = None
) -> dict[str, Any]:
    """Verdicts for variations (all when none are named) and both sides, as JSON-ready values."""
    situation = Situation.of(client, date, room)
    library = situation.library
    chosen = list(library.variations()) if variation_ids is None else [library.variation(v) for v in variation_ids]
    return {
        "date": date.isoformat(),
        "variations": [
            {
                "id": variation.id,
                "sides": {side.value: _side(situation, variation, side) for side in SIDES},
            }
            for variation in chosen
        ],
    }


def _side(situation: Situation, variation: Variation, side: Side) -> dict[str, Any]:
    screened = situation.screen(variation, side)
    answer = lane_answer_of(variation, side, screened)
    if answer.best is None or isinstance(screened, NoGrid):
        return {
            "verdict": answer.verdict.value,
            "best": None,
            "margins": [],
            "cautions": [],
            "reasons": [] if answer.no_stack is None else [ENGLISH(answer.no_stack)],
        }
    best = detail_at(situation, screened, answer.best.index)
    findings = [_finding(finding) for finding in best.findings]
    return {
        "verdict": answer.verdict.value,
        "best": {
            "setup": {name: value.model_dump(exclude_none=True) for name, value in best.setup.items()},
            "words": {name: ENGLISH(words) for name, words in best.words.items()},
            "fetch": [ENGLISH(each) for each in best.fetch],
            "technique": best.technique,
            "purpose_percent": None if best.purpose_percent is None else round(best.purpose_percent, 1),
        },
        "margins": {
            side: [_ruler(ruler) for ruler in rulers]
            for side, rulers in rulers_on(situation, screened, best.index).items()
        },
        "cautions": [f for f in findings if f["severity"] == "caution"],
        "reasons": [ENGLISH(reason) for reason in best.closing],
    }


def _finding(finding: Finding) -> dict[str, Any]:
    words = {"brief": finding.brief, "sentence": finding.sentence, "client_sentence": finding.client_sentence}
    return {**finding.facts(), **{name: ENGLISH(said) for name, said in words.items()}}


def _ruler(ruler: Ruler) -> dict[str, Any]:
    values = {each.name: getattr(ruler, each.name) for each in fields(ruler)}
    return {name: ENGLISH(value) if isinstance(value, Phrase) else value for name, value in values.items()}
