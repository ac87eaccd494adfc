"""Asketa's core: body model, props, poses, limits, set-ups and progression, without a server.

Everything other parts may use is named in ``__all__``; the same is reachable from the command line
with ``python -m asketa_core``.
"""

from asketa_core.clientfile import ClientFile, Response, SlotValue, check_plausible, parse
from asketa_core.datafiles import fingerprint
from asketa_core.errors import AsketaError, DataError, InputError
from asketa_core.figure.figure import describe, figure, outward_view
from asketa_core.figure.svg import View
from asketa_core.limits.calendar import changes_ahead, next_change, next_tightening
from asketa_core.limits.catalogue import limits_of, limits_on, sources
from asketa_core.mind import Mind, Note, mind_of
from asketa_core.poses.library import Family, Variation, families, variation, variations
from asketa_core.progress.responses import Tolerance, judge_response
from asketa_core.progress.step import Decision, next_step, step_back_from
from asketa_core.props.kinds import Room
from asketa_core.screening import LaneAnswer, SetupDetail, Situation, best_few, detail_at, lane_answer, screen_client
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.search import Screened, Trade, Verdict
from asketa_core.units import SIDES, Side

__version__ = "0.1.0"

__all__ = [
    "SIDES",
    "AsketaError",
    "ClientFile",
    "DataError",
    "Decision",
    "Family",
    "InputError",
    "LaneAnswer",
    "Mind",
    "NoGrid",
    "Note",
    "Response",
    "Room",
    "Screened",
    "SetupDetail",
    "Side",
    "Situation",
    "SlotValue",
    "Tolerance",
    "Trade",
    "Variation",
    "Verdict",
    "View",
    "best_few",
    "changes_ahead",
    "check_plausible",
    "describe",
    "detail_at",
    "families",
    "figure",
    "fingerprint",
    "judge_response",
    "lane_answer",
    "limits_of",
    "limits_on",
    "mind_of",
    "next_change",
    "next_step",
    "next_tightening",
    "outward_view",
    "parse",
    "screen_client",
    "sources",
    "step_back_from",
    "variation",
    "variations",
]
