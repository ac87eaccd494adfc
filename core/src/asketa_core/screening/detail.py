"""One set-up in full: its verdict, what it is built of, and everything that binds, in words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from asketa_core.client.holds import SlotValue
from asketa_core.kernel.codes import StoppedBy
from asketa_core.poses.recipe import StackSlot, side_slot
from asketa_core.props.stacks import Stack
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.order import PURPOSE_BAND
from asketa_core.setup.screened import Screened, Verdict
from asketa_core.texts import NOTHING, Phrase, listed, say
from asketa_core.units import SIDES, Side
from asketa_core.words.findings import Finding, Unmet, findings_at, told_once, unmet_at
from asketa_core.words.stacks import built_words, fetch_list, hand_supports, home_list, says_where, stack_words


@dataclass(frozen=True, slots=True)
class SetupAnswer:
    """What a lane says of the set-up its verdict rests on."""

    index: int
    setup: dict[str, SlotValue]
    line: Phrase
    """The set-up in one line, as its lane sees it; of a shape both legs share that is the whole of it."""
    purpose_percent: float | None
    """``None`` where the range it is a share of is zero or below."""
    findings: list[Finding]
    unmet: list[Unmet]

    @property
    def troubles(self) -> list[Phrase]:
        """What this body cannot meet, in words."""
        return [unmet.words for unmet in self.unmet]

    @property
    def closing(self) -> list[Phrase]:
        """What keeps this set-up from being offered: stops, open questions, and what this body cannot meet, each once."""
        closing = [finding for finding in self.findings if finding.severity != "caution"]
        return list(dict.fromkeys([*(finding.sentence for finding in told_once(closing)), *self.troubles]))

    @property
    def brief(self) -> Phrase:
        """What closes this set-up in few words, else the largest thing to mind in it; nothing where there is neither."""
        closing = [finding.brief for finding in self.findings if finding.severity != "caution"] + self.troubles
        minded = [finding.brief for finding in self.findings if finding.size > 0]
        return next(iter(closing or minded), NOTHING)

    @property
    def reasons(self) -> list[Phrase]:
        """What closes this set-up, else what to mind in it, and whether it gives less than is wanted."""
        return self.closing or [*(finding.sentence for finding in told_once(self.findings)), *self.outside_band]

    @property
    def outside_band(self) -> list[Phrase]:
        """That the purpose is kept less, or used further, than is wanted; empty where it is within the band."""
        kept = self.purpose_percent
        if kept is None or PURPOSE_BAND[0] <= round(kept) <= PURPOSE_BAND[1]:
            return []
        code = "purpose_short" if kept < PURPOSE_BAND[0] else "purpose_whole"
        return [say("open", code, percent=round(kept))]


@dataclass(frozen=True, slots=True)
class SetupDetail(SetupAnswer):
    """One set-up in full: what goes where, what it asks, what binds."""

    side: Side
    verdict: Verdict
    allowed: bool
    words: dict[str, Phrase]
    whole_line: Phrase
    """The set-up in one line for both sides at once."""
    fetch: list[Phrase]
    home: list[Phrase]
    """What of it is found at home."""
    folds: bool
    """Whether a blanket is to be folded for it."""
    items: int
    technique: str
    technique_words: Phrase
    stopped_by: Phrase


def setup_answer(screened: Screened, index: int) -> SetupAnswer:
    """What a lane says of one set-up."""
    return _answer(screened, index, _Slots.of(screened, index))


def detail_at(situation: Situation, screened: Screened, index: int) -> SetupDetail:
    """One set-up in full, but for its rulers, which few places show (``rulers_on``)."""
    grid, slots = screened.grid, _Slots.of(screened, index)
    stopped = screened.pose_at(index).stopped_by(screened.side)
    technique = screened.way_at(index).name if screened.ways else ""
    supports = grid.supports(index)
    hands = hand_supports(screened.variation.recipe)
    said = _answer(screened, index, slots)
    return SetupDetail(
        index=index,
        setup=said.setup,
        line=said.line,
        purpose_percent=said.purpose_percent,
        findings=said.findings,
        unmet=said.unmet,
        side=screened.side,
        verdict=screened.verdict_at(index),
        allowed=screened.allowed(index),
        words={name: slots.words(name) for name in slots.setup},
        whole_line=_line(screened, slots),
        fetch=[*fetch_list(supports, situation.room), *hands],
        home=[*home_list(supports), *hands],
        folds=any(layer.piled for stack in supports for layer in stack.layers),
        items=sum(stack.items for stack in supports),
        technique=technique,
        technique_words=say("techniques", technique) if technique else NOTHING,
        stopped_by=NOTHING if stopped is None else say("stopped_by", _stopped_code(screened, stopped)),
    )


def _answer(screened: Screened, index: int, slots: _Slots) -> SetupAnswer:
    return SetupAnswer(
        index,
        slots.setup,
        _line(screened, slots, None if screened.variation.shared else screened.side),
        None if screened.no_range else screened.purpose_at(index),
        findings_at(screened, index),
        unmet_at(screened, index),
    )


@dataclass(frozen=True, slots=True)
class _Slots:
    """What is in the slots of one set-up."""

    setup: dict[str, SlotValue]
    stacks: Mapping[str, Stack]
    under_heels: frozenset[str]
    """Stacks that heels stand on."""

    @staticmethod
    def of(screened: Screened, index: int) -> _Slots:
        grid = screened.grid
        heels = {axis.name for axis in grid.axes if isinstance(axis.slot, StackSlot) and axis.slot.base == "heels"}
        return _Slots(grid.setup(index), grid.stacks(index), frozenset(heels))

    def words(self, name: str) -> Phrase:
        value = self.setup[name]
        if name in self.stacks:
            return stack_words(self.stacks[name], "heels" if name in self.under_heels else "floor")
        if value.choice is not None:
            return say("choices", value.choice)
        return NOTHING if value.number is None else say("units", "bare", n=value.number)


def _stopped_code(screened: Screened, stopped: StoppedBy) -> str:
    """What stopped the knee; under it is a chair's edge or what was put there."""
    code = stopped.code
    return "floor_support" if code == "support" and screened.variation.position != "chair" else code


def _line(screened: Screened, slots: _Slots, lane: Side | None = None) -> Phrase:
    """A set-up in one line: what is sat on, what is under the foot. Of supports per side a lane has its own only;
    without a lane, what is the same on both sides is said once."""
    variation = screened.variation
    props: list[Phrase] = []
    for name, value in slots.setup.items():
        side = variation.side_of(name)
        if value.stack in (None, "floor") or (lane is not None and side is lane.other):
            continue
        label = variation.label_of(name)
        if lane is None and side is not None:
            slot = name.removesuffix(f"_{side.value}")
            alike = slots.words(side_slot(slot, side)) == slots.words(side_slot(slot, side.other))
            if alike and side is SIDES[1]:
                continue
            label = say("stacks", "each_side", label=variation.setup_slots[name].label) if alike else label
        built = built_words(slots.stacks[name]) if name in slots.stacks else slots.words(name)
        there = says_where(variation.setup_slots[name])
        props.append(say("stacks", "placed", words=built, label=label) if there else built)
    return listed(props)


def no_stack_words(missing: NoGrid) -> Phrase:
    """Why nothing can be set up: which heights were looked for, and the nearest the room can build."""
    where = missing.label.inside if missing.names_place else say("stacks", "for", label=missing.label)
    if missing.nearest_cm is None or missing.wanted_cm is None:
        return say("troubles", "no_stack", where=where)
    low, high = (round(cm, 1) for cm in missing.wanted_cm)
    return say("troubles", "no_height", where=where, low=low, high=high, nearest=round(missing.nearest_cm, 1))
