"""A variation's recipe, slots and dose in words: what the Library shows beside the figure."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from asketa_core.poses.library import SECONDS_PER, Hold, Variation
from asketa_core.poses.recipe import (
    Base,
    ChoiceSlot,
    DroppedLeg,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    GroundLeg,
    KneelBase,
    LegRule,
    LiftFoot,
    LongLeg,
    NumberSlot,
    PlaceSlot,
    PlantedLeg,
    Scaled,
    ShareOfRange,
    SitBase,
    Slot,
    StandBase,
    StrideBase,
    TurnedInLeg,
    Value,
)
from asketa_core.texts import NOTHING, Phrase, has, listed, say
from asketa_core.words.stacks import says_where


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a recipe: of what it speaks and what it says."""

    about: Phrase
    words: Phrase


def hold_words(hold: Hold) -> Phrase:
    """'30–60 s', '2 sets of 8–12 repetitions'."""
    span = hold.start if hold.start == hold.to else say("units", "span", low=hold.start, high=hold.to)
    words = say("recipe", "hold", hold.style, span=span)
    return words if hold.sets == 1 else say("recipe", "hold", "sets", sets=hold.sets, words=words)


def dose_words(hold: Hold, seconds: int) -> Phrase:
    """A dose in the unit its rung counts in: '40 s', '5 breaths', '2 min', '3 × 10'. Seconds that make no whole
    number of it are said as seconds."""
    amount, rest = divmod(seconds, SECONDS_PER[hold.style])
    if rest:
        return say("recipe", "dose", "seconds", n=seconds)
    if hold.style == "reps" and hold.sets > 1:
        return say("recipe", "dose", "sets", sets=hold.sets, n=amount)
    return say("recipe", "dose", hold.style, n=amount)


def amount_of(hold: Hold, seconds: int) -> int:
    """How many of its own unit a dose is; at least one."""
    return max(1, round(seconds / SECONDS_PER[hold.style]))


def doses(hold: Hold) -> list[int]:
    """Every dose of a rung from its start to its usual top, in seconds."""
    return [*range(hold.start_s, hold.to_s, hold.step_s), hold.to_s]


def cue_words(variation: Variation) -> list[Phrase]:
    """Cues in order: those of the catalogue, then the practice's own."""
    return [*(say("cues", cue) for cue in variation.cues), *variation.own_cues]


def prop_words(kind: str) -> Phrase:
    return say("recipe", "prop", kind)


def _span(low: float, high: float, unit: str) -> Phrase:
    """From one value to another; lengths are written one by one, because their unit may be another."""
    if unit == "cm":
        return say("units", "cm_span", low=low, high=high)
    return say("units", unit, n=say("units", "span", low=low, high=high))


def slot_words(slot: Slot) -> Phrase:
    """What may be set, within which bounds and where it starts."""
    if isinstance(slot, ChoiceSlot | PlaceSlot):
        return listed((say("choices", option) for option in slot.options), "and")
    if isinstance(slot, NumberSlot):
        usual = (
            say("units", slot.unit, n=slot.plain)
            if not isinstance(slot.plain, ShareOfRange)
            else say("recipe", "slot", "share", percent=slot.plain.percent, range=say("recipe", "range", slot.plain.of))
        )
        if slot.start == slot.to:
            return say("units", slot.unit, n=slot.start)
        span = _span(slot.start, slot.to, slot.unit)
        return say("recipe", "slot", "number", span=span, step=slot.step, usual=usual)
    parts = [listed((prop_words(kind) for kind in slot.kinds), "and")]
    if slot.faces is not None:
        ways = [("stacks", "way", face) for face in slot.faces]
        parts.append(listed((say(*way) for way in ways if has(*way)), "and"))
    parts.append(say("recipe", "slot", "layers" if slot.max_layers > 1 else "one_layer", most=slot.max_layers))
    if slot.between_cm is not None:
        parts.append(_span(*slot.between_cm, "cm"))
    if slot.includes:
        always = [prop_words(kind) for kind in slot.includes]
        parts.append(say("recipe", "slot", "includes", props=tuple(always)))
    elif slot.required:
        parts.append(say("recipe", "slot", "required"))
    if slot.twice:
        parts.append(say("recipe", "slot", "twice"))
    words = listed(parts)
    return words if slot.base == "floor" else say("recipe", "slot", f"on_{slot.base}", words=words)


def less_support_words(slot: Slot) -> Phrase:
    """Which way less help lies; nothing where it makes no difference."""
    code = ("recipe", "less", f"{slot.type}_{slot.less_support}")
    return say(*code) if has(*code) else NOTHING


def recipe_lines(variation: Variation) -> list[Line]:
    """The recipe from the ground up: base, legs, trunk, hands, the way in."""
    return [Line(say("recipe", "about", about), words.sentence) for about, words in _Words(variation).lines()]


class _Words:
    """Phrases of one variation's recipe; values are named by their slot's label where a slot supplies them."""

    def __init__(self, variation: Variation) -> None:
        self._variation = variation

    def lines(self) -> Iterator[tuple[str, Phrase]]:
        recipe = self._variation.recipe
        yield "base", self._base(recipe.stands_on)
        if self._variation.shared:
            yield "both_legs", self._leg(recipe.worked_rule)
        else:
            yield "worked_leg", self._leg(recipe.worked_rule)
            yield "other_leg", self._leg(recipe.other_rule)
        trunk = list(self._trunk())
        if trunk:
            yield "trunk", listed(trunk)
        hands: Phrase = say("recipe", "hands", recipe.hands.on)
        if recipe.hands.carry:
            hands = say("recipe", "phrase", "carry", hands=hands, percent=round(100 * recipe.hands.carry))
        yield "hands", listed([hands, *(say("recipe", "phrase", f"wall_{wall}") for wall in recipe.walls)], "semicolon")
        way = [
            say("recipe", "way", "lift_foot", cm=step.lift_foot_cm)
            if isinstance(step, LiftFoot)
            else say("recipe", "way", step)
            for step in recipe.way
        ]
        if way:
            yield "way", listed(way)
        works = list(dict.fromkeys(say("recipe", "works", work.quantity) for work in recipe.works))
        yield "works", listed(works, "and")

    def _value(self, value: Value, unit: str = "cm") -> Phrase:
        """A figure without its sign, or the span a slot lets it have."""
        span = self._span(value)
        if span is None:
            if isinstance(value, Scaled):
                return say(
                    "recipe", "phrase", "above", more=self._value(value.plus, unit), what=self._surface(value.slot)
                )
            assert isinstance(value, str)
            return say("recipe", "phrase", "height_of", what=self._surface(value))
        low, high = sorted((abs(span[0]), abs(span[1])) if max(span) <= 0 else span)
        return say("units", unit, n=low) if low == high else _span(low, high, unit)

    def _span(self, value: Value) -> tuple[float, float] | None:
        """Lowest and highest figure; ``None`` for the height of a stack."""
        if isinstance(value, float | int):
            return value, value
        name, times, plus = (value.slot, value.times, value.plus) if isinstance(value, Scaled) else (value, 1.0, 0.0)
        slot, more = self._variation.slots[name], self._span(plus)
        if not isinstance(slot, NumberSlot) or more is None:
            return None
        low, high = sorted((slot.start * times, slot.to * times))
        return low + more[0], high + more[1]

    def _direction(self, name: str, value: Value) -> str:
        """The phrase for a joint angle: backward, crossed or turned in where the figure is negative."""
        span = self._span(value)
        return f"{name}_reversed" if span is not None and span[1] <= 0 else name

    def _surface(self, name: str | None) -> Phrase:
        if name is None or name == "floor":
            return say("recipe", "phrase", "floor")
        slot = self._variation.slots[name]
        if isinstance(slot, PlaceSlot):
            return listed((say("recipe", "place", place) for place in slot.options), "or")
        return say("recipe", "phrase", "lies" if says_where(slot) else "named", label=slot.label)

    def _base(self, base: Base) -> Phrase:
        if isinstance(base, SitBase):
            lying = self._variation.position in ("lying", "side_lying")
            words = say("recipe", "base", "lie" if lying else "sit", surface=self._surface(base.rests_on))
            if base.raised_cm == 0:
                return words
            return listed([words, say("recipe", "phrase", "raised", value=self._value(base.raised_cm))])
        if isinstance(base, StandBase):
            kind = "stand_one" if base.one_leg else "stand"
            how = (
                say("recipe", "phrase", "knee_bend", value=self._value(base.knee_deg, "deg"))
                if base.knee_deg is not None
                else say("recipe", "phrase", "hips_at", value=self._value(base.hips_on or 0.0))
            )
            words = say("recipe", "base", kind, how=how)
            if base.heels_on is None:
                return words
            return listed([words, say("recipe", "phrase", "heels_on", surface=self._surface(base.heels_on))])
        if isinstance(base, StrideBase):
            if base.stance_cm is not None:
                how = say("recipe", "phrase", "stance", value=self._value(base.stance_cm))
            elif base.thigh_on is not None:
                how = say("recipe", "phrase", "thigh_on", surface=self._surface(base.thigh_on))
            else:
                how = say("recipe", "phrase", "thigh_slope", value=self._value(base.thigh_down_deg or 0.0, "deg"))
            return say("recipe", "base", "stride", how=how)
        assert isinstance(base, KneelBase)
        return say("recipe", "base", "kneel", surface=self._surface(base.pad))

    def _leg(self, rule: LegRule) -> Phrase:
        values: dict[str, Phrase] = {}
        match rule:
            case PlantedLeg():
                values = {"surface": self._surface(rule.rests_on)}
            case GroundLeg():
                values = {"surface": self._surface(rule.rests_on), "ahead": self._value(rule.ahead)}
            case DroppedLeg():
                where = (
                    say("recipe", "phrase", "over_thigh")
                    if rule.over_thigh is not None
                    else say(
                        "recipe",
                        "phrase",
                        "soles_together" if rule.soles_together else "ankle_on",
                        surface=self._surface(rule.rests_on),
                        ahead=self._value(rule.ahead or 0.0),
                    )
                )
                out = (
                    say("recipe", "phrase", "let_out", value=self._value(rule.let_out_deg, "deg"))
                    if rule.let_out_deg is not None
                    else NOTHING
                )
                rest = (
                    say("recipe", "phrase", "knee_on", surface=self._surface(rule.knee_rests_on))
                    if rule.knee_rests_on is not None
                    else NOTHING
                )
                values = {"where": where, "out": out, "rest": rest}
            case LongLeg():
                knee = (
                    say("recipe", "phrase", "bent_over", surface=self._surface(rule.knee_rests_on))
                    if rule.knee_rests_on is not None
                    else NOTHING
                )
                apart = (
                    say("recipe", "phrase", "apart", value=self._value(rule.apart_deg, "deg"))
                    if rule.apart_deg != 0
                    else NOTHING
                )
                if rule.bend_deg != 0:
                    knee = say("recipe", "phrase", "knee_soft", value=self._value(rule.bend_deg, "deg"))
                values = {"knee": knee, "apart": apart}
            case FreeLeg() if rule.wall_cm is not None:
                code = "sole_on_wall" if rule.sole_on_wall else "over_wall"
                return say("recipe", "leg", code, value=self._value(rule.wall_cm))
            case FreeLeg():
                held = [
                    say("recipe", "phrase", self._direction(name, value), value=self._value(value, "deg"))
                    for name, value in (
                        ("flexion", rule.flexion),
                        ("abduction", rule.abduction),
                        ("rotation", rule.rotation),
                        ("knee", rule.knee),
                    )
                    if value != 0
                ]
                return say("recipe", "leg", "free", held=tuple(held)) if held else say("recipe", "leg", "free_straight")
            case ForcedLeg():
                values = {
                    "out": self._value(rule.thigh_out, "deg"),
                    "shin": self._value(rule.shin, "deg"),
                    "surface": self._surface(rule.knee_rests_on),
                }
                if rule.stacked:
                    return say("recipe", "leg", "stacked", **values)
            case FoldedLeg():
                values = {
                    "apart": say("recipe", "phrase", "apart", value=self._value(rule.apart_deg, "deg"))
                    if rule.apart_deg != 0
                    else NOTHING
                }
            case TurnedInLeg():
                values = {"out": self._value(rule.thigh_out, "deg")}
            case _:
                pass
        code = f"{rule.rule}_straight" if getattr(rule, "straight", False) and rule.rule == "front" else rule.rule
        return say("recipe", "leg", code, **values)

    def _trunk(self) -> Iterator[Phrase]:
        recipe = self._variation.recipe
        if recipe.lean != "given":
            code = "chest_on_thighs" if recipe.chest_on == "thighs" else recipe.lean
            surface = recipe.hands_on if recipe.chest_on in (None, "thighs") else recipe.chest_on
            yield say("recipe", "trunk", code, surface=self._surface(surface))
        elif isinstance(recipe.stands_on, StandBase) and recipe.stands_on.balance == "lean":
            yield say("recipe", "trunk", "balance")
        elif recipe.recline_deg is not None:
            yield (
                say("recipe", "trunk", "recline", value=self._value(recipe.recline_deg, "deg"))
                if recipe.recline_deg != 0
                else say("recipe", "trunk", "flat")
            )
        elif recipe.lean_deg == 0:
            if self._variation.position not in ("lying", "side_lying"):
                yield say("recipe", "trunk", "upright")
        else:
            yield say(
                "recipe", "trunk", self._direction("lean", recipe.lean_deg), value=self._value(recipe.lean_deg, "deg")
            )
        for name, value in (("turn", recipe.turn_deg), ("bend", recipe.side_bend_deg), ("roll", recipe.roll_deg)):
            if value != 0:
                yield say("recipe", "trunk", name, value=self._value(value, "deg"))
        if recipe.head_on is not None:
            yield say("recipe", "trunk", "head_on", surface=self._surface(recipe.head_on))
        elif recipe.head_rests:
            yield say("recipe", "trunk", "head_rests")
        for slot in recipe.props.values():
            yield self._variation.slots[slot].label.inside
