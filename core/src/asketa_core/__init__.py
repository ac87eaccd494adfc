"""Asketa's core: body model, props, poses, limits, set-ups and progression, without a server.

Everything other parts may use is named in ``__all__``; the same is reachable from the command line
with ``python -m asketa_core``.
"""

from asketa_core.answers import Day, Professional, TriState
from asketa_core.body.measures import Body
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity, typical_range
from asketa_core.body.tape import turning_out_from_tape
from asketa_core.checks import check_data
from asketa_core.client.holds import Place, Response, Sensation, Sign, SlotValue, Trial
from asketa_core.client.measures import PLAUSIBLE_BODY, TEST_RESULTS, BodyQuantity, Bound, Conditions, check_plausible
from asketa_core.clientfile import ClientFile
from asketa_core.clinical import days as clinical_days
from asketa_core.closers import Closer, usual_closers
from asketa_core.datafiles import fingerprint
from asketa_core.errors import AsketaError, DataError, InputError
from asketa_core.figure.figure import describe, figure, lane_view, side_view
from asketa_core.figure.motion import way_of
from asketa_core.figure.palette import palettes
from asketa_core.figure.views import View
from asketa_core.limits.dates import AHEAD_DAYS
from asketa_core.loading import load
from asketa_core.mind import Mind, change_note, mind_of, rungs_of_change, waiting_on
from asketa_core.openers import Closed, Opener, WhyNot, why_not
from asketa_core.ownvariation import OWN_PREFIX, OwnVariation, file_of, lineage, read_own, todays, with_own
from asketa_core.parsing import parse
from asketa_core.plain_text import FreeText, Key, Name, check_json, read_json
from asketa_core.plausible import (
    implausible_beside,
    implausible_clearance,
    implausible_entry,
    implausible_file,
    implausible_instruction,
    implausible_setup,
)
from asketa_core.poses.library import Family, Library, Variation, standard_library
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import NumberSlot, StackSlot
from asketa_core.progress.again import Proposal, first_open, proposal, since
from asketa_core.progress.demand import StepBack, step_back_from
from asketa_core.progress.responses import Judged, Tolerance, judge_responses, worked_families
from asketa_core.progress.step import (
    Action,
    Bearing,
    Decision,
    Otherwise,
    Step,
    keeps_range,
    next_step,
    recently_operated,
    same_step,
    shared_decision,
    step_of,
    why_words,
)
from asketa_core.progress.trend import Support, Trend, furthest_words, slope_words, support_of, trend_of
from asketa_core.progress.trials import Way, standing, tried_on, try_again, value_words, way_words, ways, with_kept
from asketa_core.progress.values import same_setup, same_value
from asketa_core.props.kinds import Room
from asketa_core.recent import Itself, Recent
from asketa_core.records.asked import irritable_on
from asketa_core.records.calendar import change_between, changes_ahead, next_change, next_tightening
from asketa_core.records.catalogue import figures_of, limits_of, limits_on
from asketa_core.records.doctor import Call, Check, DoctorPage, checks_of, doctor_page
from asketa_core.records.entry import Clearance, Scope
from asketa_core.records.forms import FormOf, forms, said
from asketa_core.records.implausible import Implausible, past_date
from asketa_core.records.instructions import Figure, Instruction, OfferedFigure
from asketa_core.records.kind import Kind, Note
from asketa_core.records.registry import KINDS, AnyEntry, facts_field, kind_of, side_field
from asketa_core.screening.detail import SetupDetail, detail_at, no_stack_words
from asketa_core.screening.lanes import LaneAnswer, lane_answer, lane_answer_of
from asketa_core.screening.rulers import rulers_of, rulers_on
from asketa_core.screening.situation import Situation
from asketa_core.screening.table import (
    LETTERS,
    NOT_BUILDABLE,
    Steps,
    Table,
    place_of,
    plain_closed_by,
    rounding_of,
    steps_of,
    table_of,
)
from asketa_core.session.counters import countered, nearest_first
from asketa_core.session.order import MOST_POSES, suggest
from asketa_core.session.pose import (
    Level,
    Most,
    Part,
    Pose,
    Strain,
    held_s,
    hold_s,
    level_of_rung,
    level_with,
    most_in_one_go,
    part_of,
    pose_of,
)
from asketa_core.session.remarks import Concern, Reason, concerns, reasons
from asketa_core.session.timing import Piece, Timeline, timeline
from asketa_core.setup.grid import Axis, NoGrid
from asketa_core.setup.screened import Screened, Verdict
from asketa_core.setup.trades import Trade, best_few
from asketa_core.texts import (
    NOTHING,
    PSEUDO,
    REFERENCE,
    USUAL,
    Manner,
    Own,
    Param,
    Phrase,
    Said,
    Words,
    codes,
    disguised,
    languages,
    listed,
    say,
    words_in,
)
from asketa_core.units import SIDES, Side
from asketa_core.words.findings import Finding, LimitLine, entry_words, limit_lines, told_once
from asketa_core.words.limits import figure_words, instruction_words
from asketa_core.words.recipe import (
    Line,
    amount_of,
    cue_words,
    dose_words,
    doses,
    hold_words,
    less_support_words,
    prop_words,
    recipe_lines,
    slot_words,
)
from asketa_core.words.search import found_by
from asketa_core.words.stacks import chosen_words, heights_words, stack_words

__version__ = "0.1.0"

__all__ = [
    "AHEAD_DAYS",
    "KINDS",
    "LETTERS",
    "MOST_POSES",
    "NOTHING",
    "NOT_BUILDABLE",
    "OWN_PREFIX",
    "PLAUSIBLE_BODY",
    "PLAUSIBLE_DEG",
    "PSEUDO",
    "REFERENCE",
    "SIDES",
    "TEST_RESULTS",
    "USUAL",
    "Action",
    "AnyEntry",
    "AsketaError",
    "Axis",
    "Bearing",
    "Body",
    "BodyQuantity",
    "Bound",
    "Call",
    "Check",
    "Clearance",
    "ClientFile",
    "Closed",
    "Closer",
    "Concern",
    "Conditions",
    "DataError",
    "Day",
    "Decision",
    "DoctorPage",
    "Family",
    "Figure",
    "Finding",
    "FormOf",
    "FreeText",
    "Implausible",
    "InputError",
    "Instruction",
    "Itself",
    "Judged",
    "Key",
    "Kind",
    "LaneAnswer",
    "Level",
    "Library",
    "LimitLine",
    "Line",
    "Manner",
    "Mind",
    "Most",
    "Name",
    "NoGrid",
    "Note",
    "NumberSlot",
    "OfferedFigure",
    "Opener",
    "Otherwise",
    "Own",
    "OwnVariation",
    "Param",
    "Part",
    "Phrase",
    "Piece",
    "Place",
    "Pose",
    "Professional",
    "Proposal",
    "Quantity",
    "Readout",
    "Reason",
    "Recent",
    "Response",
    "Room",
    "Said",
    "Scope",
    "Screened",
    "Sensation",
    "SetupDetail",
    "Side",
    "Sign",
    "Situation",
    "SlotValue",
    "StackSlot",
    "Step",
    "StepBack",
    "Steps",
    "Strain",
    "Support",
    "Table",
    "Timeline",
    "Tolerance",
    "Trade",
    "Trend",
    "TriState",
    "Trial",
    "Variation",
    "Verdict",
    "View",
    "Way",
    "WhyNot",
    "Words",
    "amount_of",
    "best_few",
    "change_between",
    "change_note",
    "changes_ahead",
    "check_data",
    "check_json",
    "check_plausible",
    "checks_of",
    "chosen_words",
    "clinical_days",
    "codes",
    "concerns",
    "countered",
    "cue_words",
    "describe",
    "detail_at",
    "disguised",
    "doctor_page",
    "dose_words",
    "doses",
    "entry_words",
    "facts_field",
    "figure",
    "figure_words",
    "figures_of",
    "file_of",
    "fingerprint",
    "first_open",
    "forms",
    "found_by",
    "furthest_words",
    "heights_words",
    "held_s",
    "hold_s",
    "hold_words",
    "implausible_beside",
    "implausible_clearance",
    "implausible_entry",
    "implausible_file",
    "implausible_instruction",
    "implausible_setup",
    "instruction_words",
    "irritable_on",
    "judge_responses",
    "keeps_range",
    "kind_of",
    "lane_answer",
    "lane_answer_of",
    "lane_view",
    "languages",
    "less_support_words",
    "level_of_rung",
    "level_with",
    "limit_lines",
    "limits_of",
    "limits_on",
    "lineage",
    "listed",
    "load",
    "mind_of",
    "most_in_one_go",
    "nearest_first",
    "next_change",
    "next_step",
    "next_tightening",
    "no_stack_words",
    "palettes",
    "parse",
    "part_of",
    "past_date",
    "place_of",
    "plain_closed_by",
    "pose_of",
    "prop_words",
    "proposal",
    "read_json",
    "read_own",
    "reasons",
    "recently_operated",
    "recipe_lines",
    "rounding_of",
    "rulers_of",
    "rulers_on",
    "rungs_of_change",
    "said",
    "same_setup",
    "same_step",
    "same_value",
    "say",
    "shared_decision",
    "side_field",
    "side_view",
    "since",
    "slope_words",
    "slot_words",
    "stack_words",
    "standard_library",
    "standing",
    "step_back_from",
    "step_of",
    "steps_of",
    "suggest",
    "support_of",
    "table_of",
    "timeline",
    "todays",
    "told_once",
    "trend_of",
    "tried_on",
    "try_again",
    "turning_out_from_tape",
    "typical_range",
    "usual_closers",
    "value_words",
    "waiting_on",
    "way_of",
    "way_words",
    "ways",
    "why_not",
    "why_words",
    "with_kept",
    "with_own",
    "words_in",
    "worked_families",
]
