"""Screening a client: from the client's file, a date and a room to verdicts per variation and side.

This is the core's front door for the server and the command line.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from typing import Any, Literal

import numpy as np

from asketa_core.body.drop import StoppedBy
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.client.holds import SlotValue
from asketa_core.clientfile import ClientFile, Person
from asketa_core.limits.judge import judge
from asketa_core.limits.model import Limit
from asketa_core.poses.library import Library, Variation, standard_library
from asketa_core.poses.posture import Readout, unit_of
from asketa_core.poses.recipe import DroppedLeg, ForcedLeg, FreeLeg, StackSlot, TurnedInLeg, side_slot
from asketa_core.props.kinds import Room, generic_room
from asketa_core.props.stacks import Stack
from asketa_core.records.calendar import with_todays_answers
from asketa_core.records.catalogue import limits_on
from asketa_core.records.registry import kind_of
from asketa_core.setup.grid import NoGrid, grid_axes, lengths_of
from asketa_core.setup.search import PURPOSE_BAND, Memo, Screened, Trade, Verdict, best_few, remembering, screen
from asketa_core.units import SIDES, Side
from asketa_core.words.catalogue import lookup, say
from asketa_core.words.findings import Finding, Unmet, entry_label, findings_at, told_once, unmet_at
from asketa_core.words.stacks import built_words, fetch_list, hand_supports, in_sentence, says_where, stack_words

TURNING: tuple[tuple[Readout, Quantity | None], ...] = (
    (Readout.HIP_EXTERNAL_ROTATION, Quantity.OPEN_EXTERNAL_ROTATION),
    (Readout.HIP_ABDUCTION, Quantity.OPEN_ABDUCTION),
    (Readout.KNEE_TWIST, None),
)
"""Demands of a leg turned out, with the client's range each is compared with where no limit binds."""

FOLDING: tuple[tuple[Readout, Quantity | None], ...] = ((Readout.HAMSTRING_USED_PERCENT, None),)
"""Demands of legs that stay ahead of the body."""

ALWAYS: tuple[tuple[Readout, Quantity | None], ...] = (
    (Readout.HIP_CLOSING, Quantity.HIP_FLEXION),
    (Readout.KNEE_FLEXION, Quantity.KNEE_FLEXION),
    (Readout.SPINE_FLEXION, None),
)
WHOLE_RANGE_PERCENT = 100.0

TYPICAL_STATURE_CM = 170.0
"""The body the library shows when it shows nobody in particular."""


@dataclass(frozen=True, slots=True)
class Demand:
    """What a ruler reads: one read-out on one leg, the limit that is reached first, and the client's range it is compared
    with where none binds."""

    readout: Readout
    leg: Side
    range: Quantity | None
    at_least: bool
    """Less of it is worse: room that is left."""
    limit: Limit | None
    edge: float | None

    @property
    def end(self) -> Literal["low", "middle", "high"]:
        """At which end of the client's ranges it is judged, and so shown."""
        if self.limit is not None and self.limit.ends == "middle":
            return "middle"
        return "low" if self.at_least else "high"


def rulers_of(situation: Situation, screened: Screened, side: Side) -> tuple[Demand, ...]:
    """The demands worth a ruler on one side of a screened variation. Where a limit on the hip bend binds either side, the
    bend; where a pinch is recorded, the room before it."""

    def demand(readout: Readout, leg: Side, quantity: Quantity | None = None, at_least: bool = False) -> Demand:
        tightest = _tightest(situation.limits, screened, readout, leg, at_least)
        return Demand(readout, leg, quantity, at_least, *tightest)

    found = [
        demand(readout, leg_read(screened.variation, readout, side), quantity)
        for readout, quantity in demands_of(screened.variation)
    ]
    # The trunk over the thigh is what limits speak of; a range is a joint's own and is compared with its closing.
    bends = {each: demand(Readout.HIP_BEND, each) for each in SIDES}
    if any(bend.limit is not None for bend in bends.values()):
        found.append(bends[side])
    if screened.pose.key(Readout.GROIN_ROOM, side) is not None:
        found.append(demand(Readout.GROIN_ROOM, side, at_least=True))
    return tuple(found)


def demands_of(variation: Variation) -> tuple[tuple[Readout, Quantity | None], ...]:
    """What a variation asks that is worth a ruler, whoever does it."""
    rules = (variation.recipe.worked_rule, variation.recipe.other_rule)
    turned = any(isinstance(rule, DroppedLeg | ForcedLeg | FreeLeg | TurnedInLeg) for rule in rules)
    works = tuple(
        (Readout(work.quantity), work.range)
        for work in variation.recipe.works
        if work.quantity not in ("effort", "hip_closing")
    )
    return tuple(dict.fromkeys((*ALWAYS, *(TURNING if turned else FOLDING), *works)))


def leg_read(variation: Variation, readout: Readout, side: Side) -> Side:
    """Which leg a side's ruler reads: the worked one, but the other where the work is done there."""
    on_other = any(work.leg == "other" and work.quantity == readout.value for work in variation.recipe.works)
    return side.other if on_other else side


@dataclass(frozen=True, slots=True)
class Situation:
    """Everything a screening depends on, worked out once for a client, a date and a room."""

    client: ClientFile
    date: dt.date
    room: Room
    body: Body
    ranges: Ranges
    limits: tuple[Limit, ...]
    library: Library = field(default_factory=standard_library)
    memo: Memo = field(default_factory=dict, compare=False, repr=False)

    @staticmethod
    def of(client: ClientFile, date: dt.date, room: Room, library: Library | None = None) -> Situation:
        """``InputError`` when the stature is missing: nothing can be computed without it."""
        known = client.as_of(date)
        ranges = known.latest_ranges(date)
        return Situation(
            known, date, room, known.latest_body(date), ranges, tuple(limits_on(known, date, ranges)),
            library or standard_library(),
        )  # fmt: skip

    def on(self, date: dt.date) -> Situation:
        """The same client and room on another date."""
        client = with_todays_answers(self.client, self.date, date)
        ranges = client.latest_ranges(date)
        limits = tuple(limits_on(client, date, ranges))
        return replace(self, client=client, date=date, ranges=ranges, limits=limits, memo={})

    @staticmethod
    def without_body(client: ClientFile, date: dt.date) -> Situation:
        """A situation in which nothing can be screened yet, for what depends on records alone."""
        known = client.as_of(date)
        ranges = known.latest_ranges(date)
        return Situation(
            known, date, Room(props=()), Body.of_average_adult(), ranges, tuple(limits_on(known, date, ranges))
        )

    @staticmethod
    def of_nobody(stature_cm: float = TYPICAL_STATURE_CM, ranges: Ranges | None = None) -> Situation:
        """A body without records in a generic room, for the library's own figures."""
        nobody = ClientFile(format="asketa-client", version=1, client=Person(id="nobody"))
        own = ranges if ranges is not None else Ranges.from_measured({})
        today = dt.date(2000, 1, 1)
        return Situation(
            nobody, today, generic_room(), Body(stature_cm, 70.0), own, tuple(limits_on(nobody, today, own))
        )

    def screen(
        self, variation: Variation, side: Side, last_used: Mapping[str, SlotValue] | None = None
    ) -> Screened | NoGrid:
        """Every set-up judged. In shared shapes the answer is the same for both sides."""
        worked = SIDES[0] if variation.shared else side
        choices = self.starting_choices(side)
        found = screen(variation, worked, self.body, self.ranges, self.room, self.limits, choices, self.memo)
        if isinstance(found, NoGrid):
            return found
        found = found if worked is side else replace(found, side=side)
        return found if last_used is None else self.remembering(found, last_used)

    def remembering(self, screened: Screened, last_used: Mapping[str, SlotValue]) -> Screened:
        """The same grid with what was last used preferred among equals, and the foot held as it was."""
        choices = {name: value.choice for name, value in last_used.items() if value.choice is not None}
        return remembering(screened, last_used, self.starting_choices(screened.side) | choices)

    def combinations(self, variation: Variation, side: Side) -> int:
        """How many set-ups would be tried, before the room's stock is counted; 0 when a slot can't be met."""
        axes = grid_axes(variation, side, self.body, self.ranges, self.room, {}, self.memo)
        return 0 if isinstance(axes, NoGrid) else math.prod(lengths_of(axes))

    def starting_choices(self, side: Side) -> dict[str, str]:
        """Where two-way trials start for this side: a sore inner meniscus is kinder with the foot drawn
        up, everything else at rest."""
        return {
            slot: choice
            for entry in self.client.entries
            if entry.side is side
            for slot, choice in kind_of(entry).starting_choices(entry.facts).items()
        }


@dataclass(frozen=True, slots=True)
class Ruler:
    """One demand of the pose on one leg. All numbers in ``unit``; ``boundary_kind`` says whether the
    boundary is a limit or the client's own range; ``typical`` marks a range not measured on this client; ``at_least`` a
    boundary that may not be fallen short of."""

    readout: str
    name: str
    technical: str
    unit: str
    value: float
    low: float
    high: float
    error: float
    shown: float
    """The value at the end of the client's ranges at which it is judged."""
    boundary: float | None
    boundary_kind: str | None
    boundary_label: str | None
    margin: float | None
    own_range: float | None
    typical: bool
    opposite: str | None = None
    """What a value below zero is called: hollowing for a back that does not round."""
    at_least: bool = False


def rulers_at(situation: Situation, screened: Screened, index: int, side: Side) -> list[Ruler]:
    """Demands of the pose on one leg against the tightest limit, else the client's range; worst first."""
    posture = screened.pose
    found = []
    for demand in rulers_of(situation, screened, side):
        readout, leg, quantity = demand.readout, demand.leg, demand.range
        key = posture.key(readout, leg)
        assert key is not None
        value = posture.middle(*key, index)
        low, high, error = posture.spread_at(*key, index)
        shown = {"low": low, "middle": value, "high": high}[demand.end]
        boundary, kind = demand.edge, None if demand.limit is None else "limit"
        own = situation.ranges.get(quantity, leg) if quantity is not None else None
        usual = next((w.of_deg for w in screened.variation.recipe.works if w.quantity == readout.value), None)
        if boundary is None and usual is not None:
            boundary, kind = usual, "range"
        if boundary is None and own is not None:
            boundary, kind = own.value_deg, "range"
        if boundary is None and readout is Readout.HAMSTRING_USED_PERCENT:
            boundary, kind = WHOLE_RANGE_PERCENT, "range"
        found.append(
            Ruler(
                readout=readout.value,
                name=str(lookup("readouts", readout.value, "name")),
                technical=str(lookup("readouts", readout.value, "technical")),
                unit=unit_of(readout),
                value=value,
                low=low,
                high=high,
                error=error,
                boundary=boundary,
                boundary_kind=kind,
                boundary_label=None if demand.limit is None else entry_label(demand.limit),
                shown=shown,
                margin=None if boundary is None else (shown - boundary if demand.at_least else boundary - shown),
                own_range=None if own is None else own.value_deg,
                typical=usual is not None or (own is not None and not own.measured),
                opposite=lookup("readouts", readout.value).get("opposite"),
                at_least=demand.at_least,
            )
        )
    return sorted(found, key=lambda r: r.margin if r.margin is not None else np.inf)


def _tightest(
    limits: Sequence[Limit], screened: Screened, readout: Readout, side: Side, at_least: bool
) -> tuple[Limit | None, float | None]:
    """The limit on one read-out that is reached first, of those that the pose's flags bring into play, and its figure."""
    candidates: list[tuple[float, int, Limit, float]] = []
    for limit in limits:
        terms = [term for term in limit.terms if term.readout is readout and (term.above is None) == at_least]
        numbers = sum(term.readout is not None for term in limit.terms)
        if limit.side not in (side, None) or numbers != 1 or not terms or "pose" not in limit.phases:
            continue
        if judge(limit, screened.pose, "pose") is not None:
            value = terms[0].value
            candidates.append((-value if at_least else value, -int(limit.severity), limit, value))
    if not candidates:
        return None, None
    _, _, limit, value = min(candidates, key=lambda c: c[:2])
    return limit, value


@dataclass(frozen=True, slots=True)
class SetupDetail:
    """One set-up in full: what goes where, what it asks, what binds."""

    index: int
    side: Side
    verdict: Verdict
    allowed: bool
    setup: dict[str, SlotValue]
    words: dict[str, str]
    line: str
    """The set-up in one line, as its lane sees it; of a shape both legs share that is the whole of it."""
    whole_line: str
    """The same for both sides at once."""
    fetch: list[str]
    folds: bool
    """Whether a blanket is to be folded for it."""
    items: int
    purpose_percent: float | None
    """``None`` where the range it is a share of is zero or below."""
    technique: str
    technique_words: str
    stopped_by: str
    findings: list[Finding]
    unmet: list[Unmet]
    rulers: dict[str, list[Ruler]]

    @property
    def troubles(self) -> list[str]:
        """What this body cannot meet, in words."""
        return [unmet.words for unmet in self.unmet]

    @property
    def closing(self) -> list[str]:
        """What keeps this set-up from being offered: stops, open questions, and what this body cannot meet, each once."""
        closing = [finding for finding in self.findings if finding.severity != "caution"]
        return list(dict.fromkeys([*(finding.sentence for finding in told_once(closing)), *self.troubles]))

    @property
    def reasons(self) -> list[str]:
        """What closes this set-up, else what to mind in it, and whether it gives less than is wanted."""
        return self.closing or [*(finding.sentence for finding in told_once(self.findings)), *self.outside_band]

    @property
    def outside_band(self) -> list[str]:
        """That the purpose is kept less, or used further, than is wanted; empty where it is within the band."""
        kept = self.purpose_percent
        if kept is None or PURPOSE_BAND[0] <= round(kept) <= PURPOSE_BAND[1]:
            return []
        code = "purpose_short" if kept < PURPOSE_BAND[0] else "purpose_whole"
        return [say("open", code, percent=f"{kept:.0f}")]


def detail_at(situation: Situation, screened: Screened, index: int) -> SetupDetail:
    grid = screened.grid
    stacks = grid.stacks(index)
    setup = grid.setup(index)
    stopped = screened.pose.stopped_by.get(screened.side)
    stopped_by = "" if stopped is None else say("stopped_by", _stopped_code(screened, int(stopped[1, index])))
    technique = screened.ways[int(screened.technique[index])].name if screened.ways else ""
    bases = {axis.name: axis.slot.base for axis in grid.axes if isinstance(axis.slot, StackSlot)}
    words = {
        name: _slot_words(name, value, stacks, "heels" if bases.get(name) == "heels" else "floor")
        for name, value in setup.items()
    }
    return SetupDetail(
        index=index,
        side=screened.side,
        verdict=screened.verdict_at(index),
        allowed=screened.allowed(index),
        setup=setup,
        words=words,
        line=_line(screened, setup, words, stacks, None if screened.variation.shared else screened.side),
        whole_line=_line(screened, setup, words, stacks),
        fetch=[*fetch_list(grid.supports(index), situation.room), *hand_supports(screened.variation.recipe)],
        folds=any(layer.piled for stack in grid.supports(index) for layer in stack.layers),
        items=sum(stack.items for stack in grid.supports(index)),
        purpose_percent=None if screened.no_range else float(screened.purpose[index]),
        technique=technique,
        technique_words=say("techniques", technique) if technique else "",
        stopped_by=stopped_by,
        findings=findings_at(screened, index),
        unmet=unmet_at(screened, index),
        rulers={side.value: rulers_at(situation, screened, index, side) for side in SIDES},
    )


def _stopped_code(screened: Screened, stopped: int) -> str:
    """What stopped the knee; under it is a chair's edge or what was put there."""
    code = StoppedBy(stopped).code
    return "floor_support" if code == "support" and screened.variation.position != "chair" else code


def _slot_words(name: str, value: SlotValue, stacks: Mapping[str, Any], base: str) -> str:
    if name in stacks:
        return stack_words(stacks[name], base)
    if value.choice is not None:
        return str(lookup("choices", value.choice))
    return f"{value.number:g}"


def _line(
    screened: Screened,
    setup: Mapping[str, SlotValue],
    words: Mapping[str, str],
    stacks: Mapping[str, Stack],
    lane: Side | None = None,
) -> str:
    """A set-up in one line: what is sat on, what is under the foot. Of supports per side a lane has its own only;
    without a lane, what is the same on both sides is said once."""
    variation = screened.variation
    props: list[str] = []
    for name, value in setup.items():
        side = variation.side_of(name)
        if value.stack in (None, "floor") or (lane is not None and side is lane.other):
            continue
        label = variation.label_of(name)
        if lane is None and side is not None:
            slot = name.removesuffix(f"_{side.value}")
            alike = words[side_slot(slot, side)] == words[side_slot(slot, side.other)]
            if alike and side is SIDES[1]:
                continue
            label = f"{variation.setup_slots[name].label}, each side" if alike else label
        built = built_words(stacks[name]) if name in stacks else words[name]
        props.append(f"{built} {in_sentence(label)}" if says_where(label) else built)
    return ", ".join(props)


def no_stack_words(missing: NoGrid) -> str:
    """Why nothing can be set up: which heights were looked for, and the nearest the room can build."""
    label = in_sentence(missing.label)
    where = label if says_where(missing.label) else f"for the {label}"
    if missing.nearest_cm is None or missing.wanted_cm is None:
        return say("troubles", "no_stack", where=where)
    low, high = (f"{cm:.0f}" if cm == round(cm) else f"{cm:.1f}" for cm in missing.wanted_cm)
    return say("troubles", "no_height", where=where, low=low, high=high, nearest=f"{missing.nearest_cm:.1f}")


@dataclass(frozen=True, slots=True)
class LaneAnswer:
    """The verdict on one variation for one side, with the set-up it rests on."""

    variation: str
    side: str
    verdict: Verdict
    best: SetupDetail | None
    margin_in_errors: float | None
    no_stack: str | None = None


def lane_answer(situation: Situation, variation: Variation, side: Side) -> LaneAnswer:
    """The verdict on one variation for one side."""
    return lane_answer_of(situation, variation, side, situation.screen(variation, side))


def lane_answer_of(situation: Situation, variation: Variation, side: Side, screened: Screened | NoGrid) -> LaneAnswer:
    """The same from a grid already screened without a remembered set-up."""
    if isinstance(screened, NoGrid):
        return LaneAnswer(variation.id, side.value, Verdict.LEAVE_OUT, None, None, no_stack_words(screened))
    chosen = screened.recommended
    margin = float(screened.totals.margin[chosen])
    return LaneAnswer(
        variation.id,
        side.value,
        screened.verdict,
        detail_at(situation, screened, chosen),
        margin if np.isfinite(margin) else None,
    )


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
                "sides": {side.value: _as_json(lane_answer(situation, variation, side)) for side in SIDES},
            }
            for variation in chosen
        ],
    }


def _as_json(answer: LaneAnswer) -> dict[str, Any]:
    best = answer.best
    if best is None:
        return {
            "verdict": answer.verdict.value,
            "best": None,
            "margins": [],
            "cautions": [],
            "reasons": [answer.no_stack],
        }
    findings = [asdict(finding) for finding in best.findings]
    return {
        "verdict": answer.verdict.value,
        "best": {
            "setup": {name: value.model_dump(exclude_none=True) for name, value in best.setup.items()},
            "words": best.words,
            "fetch": best.fetch,
            "technique": best.technique,
            "purpose_percent": None if best.purpose_percent is None else round(best.purpose_percent, 1),
        },
        "margins": {side: [asdict(ruler) for ruler in rulers] for side, rulers in best.rulers.items()},
        "cautions": [f for f in findings if f["severity"] == "caution"],
        "reasons": best.closing,
    }


__all__ = [
    "LaneAnswer",
    "Ruler",
    "SetupDetail",
    "Situation",
    "Trade",
    "best_few",
    "detail_at",
    "lane_answer",
    "screen_client",
]
