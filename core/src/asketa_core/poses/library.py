"""The pose library: families and their rungs, read from ``data/poses`` and checked.

The grammar of the files is described in ``data/poses/README.md``.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import cache, cached_property
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError, model_validator

from asketa_core.datafiles import DATA, Document, Record, read
from asketa_core.errors import InputError
from asketa_core.plain_text import Key, Name
from asketa_core.poses.named_props import missing_props
from asketa_core.poses.recipe import LYING, Gate, Position, Recipe, Slot, StackSlot, side_slot, slot_names
from asketa_core.texts.catalogue import REFERENCE, Cue, Purpose, WatchSign, has, words_of_families
from asketa_core.texts.phrases import Phrase, say
from asketa_core.texts.typed import CueText, LabelText, NameText
from asketa_core.texts.words import words_in
from asketa_core.units import SIDES, Side

POSES = DATA / "poses"


SECONDS_PER: Mapping[str, int] = {"seconds": 1, "breaths": 6, "minutes": 60, "reps": 5}
"""What one unit of a dose takes: a calm breath about six seconds, a repetition about five (judgement)."""


class Hold(Record):
    """The usual dose in its own unit; ``sets`` for repetitions. The clock runs in seconds."""

    style: Literal["seconds", "breaths", "minutes", "reps"]
    start: int = Field(alias="from", ge=1)
    to: int
    step: int = Field(ge=1)
    sets: int = Field(default=1, ge=1, le=5)

    @property
    def start_s(self) -> int:
        return self.start * SECONDS_PER[self.style]

    @property
    def to_s(self) -> int:
        return self.to * SECONDS_PER[self.style]

    @property
    def step_s(self) -> int:
        return self.step * SECONDS_PER[self.style]


Counter = Literal["sit_quiet", "legs_long", "stand_quiet"]
"""Postures offered afterwards."""

Stage = Literal["arrive", "warm", "work", "rest"]
"""Where in a session a family belongs, in this order."""


class CounterPoses(Record):
    """Families that undo what a pose leaves behind, the fittest first; ``wanted`` where a session should not go on without
    one."""

    wanted: bool
    of: tuple[Key, ...] = Field(min_length=2, max_length=6)


class Schools(Record):
    """Slots that stand for the two schools of a stiff seated shape."""

    raise_seat: str
    support_knees: str


class Variation(Record):
    """One rung. ``shared`` marks two-sided shapes: one seat, supports per side, one verdict."""

    id: Key
    family: Key
    name: NameText
    sanskrit: Name | None = None
    short: LabelText
    position: Position
    shared: bool
    slots: Annotated[dict[Key, Slot], Field(max_length=20)]
    recipe: Recipe
    hold: Hold
    cues: Annotated[tuple[Cue, ...], Field(max_length=20)]
    own_cues: Annotated[tuple[CueText, ...], Field(max_length=20)] = ()
    """A practice's own words, said after the cues of the catalogue."""
    watch: Annotated[tuple[WatchSign, ...], Field(max_length=20)]
    counter: tuple[Counter, ...]
    seen_from: Literal["side", "front", "behind", "above"] = "side"
    """Where a figure shows most of the pose."""
    schools: Schools | None = None
    gentle: bool = False
    """Open whatever is asked about everything: breath, rest, quiet sitting and standing with support, ankle pumps,
    small pelvic tilts, walking on the spot."""
    long_quiet_fold: bool = False
    """The school of long quiet folds, in which the back may round further."""
    gates: Annotated[tuple[Gate, ...], Field(max_length=10)] = ()
    step_back: str | None = None
    step_forward: str | None = None

    @model_validator(mode="after")
    def slots_are_known(self) -> Variation:
        schools = [] if self.schools is None else [self.schools.raise_seat, self.schools.support_knees]
        for name in [*self.recipe.slots(), *schools]:
            if name not in self.slots:
                raise ValueError(f"the recipe names slot '{name}', which this variation does not have")
        for name in slot_names(self.recipe.base_values()):
            slot = self.slots[name]
            if isinstance(slot, StackSlot) and slot.per_side:
                raise ValueError(f"slot '{name}' carries the body as a whole and cannot be set per side")
        if self.recipe.head_rests and self.recipe.head_on is None and self.position not in LYING:
            raise ValueError("a head rests on something: name the support under it with 'head_on'")
        if self.shared != (self.recipe.both_legs is not None):
            raise ValueError("'both_legs' belongs to families whose 'side_means' is none, and to no other")
        return self

    @property
    def watched(self) -> tuple[str, ...]:
        """What to watch for: the variation's own signs, and the knee's drift, which no posture shows."""
        return tuple(dict.fromkeys((*self.watch, "knee_drifts")))

    @cached_property
    def setup_slots(self) -> dict[str, Slot]:
        """Every set-up value in order; slots set per side come once for each."""
        found: dict[str, Slot] = {}
        for name, slot in self.slots.items():
            if isinstance(slot, StackSlot) and slot.per_side:
                found.update({side_slot(name, side): slot for side in SIDES})
            else:
                found[name] = slot
        return found

    @cached_property
    def shaping_slots(self) -> frozenset[str]:
        """The set-up values a joint angle or a bound depends on; others only lie at the body."""
        named = set(self.recipe.shaping_slots())
        return frozenset(
            n for n in self.setup_slots if n in named or any(n == side_slot(m, s) for m in named for s in SIDES)
        )

    def side_of(self, name: str) -> Side | None:
        """Which side a set-up value belongs to; ``None`` for what both share."""
        return next((s for s in SIDES if name not in self.slots and name.endswith(f"_{s.value}")), None)

    def label_of(self, name: str) -> Phrase:
        """What a set-up value is called, with its side where it has one."""
        side = self.side_of(name)
        label = self.setup_slots[name].label
        return label if side is None else say("stacks", "on_side", label=label, side=say("sides", side.value))


class Family(Record):
    family: str
    name: NameText
    sanskrit: Name | None = None
    about: NameText
    also: NameText
    """Other names it goes by, and what people ask for when they mean it: what a search finds it under."""
    purposes: tuple[Purpose, ...] = Field(min_length=1)
    side_means: Literal["worked_leg", "front_leg", "turn_toward", "none"]
    stage: Stage
    counter_poses: CounterPoses
    position: Position
    slots: dict[str, Slot]
    variations: tuple[Variation, ...] = Field(min_length=1)

    @property
    def shared(self) -> bool:
        return self.side_means == "none"


def _own_slots(rung: dict[str, Any], palette: dict[str, Any]) -> dict[str, Any]:
    """The slots of the palette a rung's recipe names, and every choice, in the palette's order."""
    try:
        used = set(Recipe.model_validate(rung["recipe"]).slots())
    except ValidationError:
        # Said with its place when the whole rung is read.
        return palette
    named = used | set(rung.get("schools", {}).values()) | set(rung.get("slots", {}))
    return {name: slot for name, slot in palette.items() if name in named or slot.get("type") == "choice"}


def _no_words_in(document: Document) -> None:
    """Words stand in the catalogues: what a family's own file says of them would be passed over."""
    for location in _keys(document.content):
        if location[-1] in WORDS:
            raise document.error(location, "words stand in the file of the same name in the folder of a language")


def _keys(value: Any, path: tuple[int | str, ...] = ()) -> Iterator[tuple[int | str, ...]]:
    """Every key of a file with its place."""
    pairs = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, each in pairs:
        if isinstance(value, dict):
            yield (*path, key)
        yield from _keys(each, (*path, key))


def _named(family: str, rung: str, slots: dict[str, Any]) -> dict[str, Any]:
    """Slots with their words: a rung's own, else those of its family."""
    return {name: {**slot, **_slot_words(family, rung, name)} for name, slot in slots.items()}


def _slot_words(family: str, rung: str, slot: str) -> dict[str, Phrase]:
    own = ("poses", family, "variations", rung, "slots", slot)
    at = own if has(*own) else ("poses", family, "slots", slot)
    return {word: say(*at, word) for word in ("label", "low_means", "high_means") if word == "label" or has(*at, word)}


def parse_family(document: Document) -> Family:
    """Check one family file's content; ``DataError`` names file, line, variation and field."""
    raw = document.content
    _no_words_in(document)
    try:
        family_id = raw["family"]
        shared = raw["slots"]
        rungs = [
            {
                **rung,
                "id": f"{family_id}.{rung['id']}",
                "family": family_id,
                "name": say("poses", family_id, "variations", rung["id"], "name"),
                "short": say("poses", family_id, "variations", rung["id"], "short"),
                "position": rung.get("position", raw["position"]),
                "shared": raw["side_means"] == "none",
                "slots": _named(family_id, rung["id"], _own_slots(rung, {**shared, **rung.get("slots", {})})),
            }
            for rung in raw["variations"]
        ]
    except (KeyError, TypeError) as error:
        raise document.error((), f"missing or malformed: {error}") from error
    body = {key: value for key, value in raw.items() if key != "defaults"}
    try:
        named = {each: say("poses", family_id, each) for each in ("name", "about", "also")}
        palette = _named(family_id, "", shared)
        family = Family.model_validate({**body, **named, "slots": palette, "variations": rungs})
    except ValidationError as error:
        first = error.errors()[0]
        raise document.error(*_where(raw, rungs, first["loc"], first["msg"])) from error
    for number, rung in enumerate(family.variations):
        stacks = {name: slot for name, slot in rung.slots.items() if isinstance(slot, StackSlot)}
        said = (rung.name, rung.short, *rung.own_cues, *(say("cues", cue) for cue in rung.cues))
        for word, text in missing_props(rung.recipe, stacks, map(words_in(REFERENCE), said)):
            message = f"'{text}' speaks of a {word} that its recipe does not always have"
            raise document.error(("variations", number), f"{rung.id}: {message}")
    return family


def _where(
    raw: Any, rungs: list[dict[str, Any]], location: tuple[int | str, ...], message: str
) -> tuple[tuple[int | str, ...], str]:
    """Where an error stands in the file as it is written, and its message with the variation it is about."""
    if len(location) < 2 or location[0] != "variations" or not isinstance(location[1], int):
        return location, message
    at, within = location[1], location[2:]
    message = f"{message} (in {rungs[at]['id']})"
    if len(within) > 1 and within[0] == "slots" and within[1] not in raw["variations"][at].get("slots", {}):
        return within, message
    return location, message


StepWay = Literal["step_back", "step_forward"]
Steps = dict[tuple[str, StepWay], str | None]
"""Where rungs step to, by their id and the way."""


@dataclass(frozen=True)
class Library:
    """Families by id with their rungs in order, and variations no longer offered that records still name. ``placed`` says
    where rungs step to because of what was put between them, whatever their files say."""

    families: Mapping[str, Family]
    retired: Mapping[str, Variation] = field(default_factory=dict)
    placed: Mapping[tuple[str, StepWay], str | None] = field(default_factory=dict)

    def variations(self) -> Iterator[Variation]:
        for family in self.families.values():
            yield from family.variations

    @cached_property
    def _by_id(self) -> dict[str, Variation]:
        return {**self.retired, **{variation.id: variation for variation in self.variations()}}

    def variation(self, variation_id: str) -> Variation:
        """One variation by its full id ``family.rung``; ``InputError`` when there is none."""
        found = self._by_id.get(variation_id)
        if found is None:
            raise InputError("variation", "no variation has this id.", "Ask `library` for the list.")
        return found

    def knows(self, variation_id: str) -> bool:
        return variation_id in self._by_id

    def _step(self, variation: Variation, way: StepWay) -> str | None:
        """Where a rung steps to: as its place in this library has it, else as its file says."""
        written: str | None = getattr(variation, way)
        return self.placed.get((variation.id, way), written)

    def steps(self, variation: Variation, way: StepWay) -> Iterator[Variation]:
        """The rungs from one on, in one direction: retired ones passed over, none twice."""
        seen = {variation.id}
        target = self._step(variation, way)
        while target is not None and target not in seen and self.knows(target):
            seen.add(target)
            rung = self.variation(target)
            if target not in self.retired:
                yield rung
            target = self._step(rung, way)


@cache
def standard_library() -> Library:
    """The library that ships with the product, steps checked."""
    documents = {path.stem: read(path) for path in sorted(POSES.glob("*.yaml"))}
    for name, words in words_of_families():
        if name not in documents:
            raise words.error((), "there is no family of this name")
    families = {name: parse_family(document) for name, document in documents.items()}
    for name, family in families.items():
        if family.family != name:
            raise documents[name].error(("family",), f"the file is called {name}")
    library = Library(families)
    for name, family in families.items():
        for place, other in enumerate(family.counter_poses.of):
            if other == name or other not in families:
                raise documents[name].error(("counter_poses", "of", place), f"'{other}' is no other family")
        for place, variation in enumerate(family.variations):
            for way in ("step_back", "step_forward"):
                target = getattr(variation, way)
                if target is not None and not library.knows(target):
                    raise documents[name].error(("variations", place, way), f"steps to unknown '{target}'")
    return library


FILLED_IN = ("family", "shared")
"""What a loaded variation knows and its file never says."""
INHERITED = ("slots", "position")
"""What a variation's file may leave to its family."""


WORDS = ("name", "short", "about", "also", "label", "low_means", "high_means")
"""What stands in the catalogues for the library's own families."""


def family_schema() -> dict[str, Any]:
    """JSON Schema of one family file as it is written, before the loader fills variations in."""
    schema = grammar()
    for each in (schema, *schema["$defs"].values()):
        each["properties"] = {name: said for name, said in each.get("properties", {}).items() if name not in WORDS}
        each["required"] = [name for name in each.get("required", ()) if name not in WORDS]
    return schema


def grammar() -> dict[str, Any]:
    """JSON Schema of a family with its words, before the loader fills variations in."""
    schema = TypeAdapter(Family).json_schema()
    schema["properties"]["defaults"] = {"type": "object", "description": "What variations merge in by reference."}
    rung = schema["$defs"]["Variation"]
    rung["description"] = (
        "One rung, from most held up to least. What it leaves out of position and slots is its family's."
    )
    for name in FILLED_IN:
        del rung["properties"][name]
    rung["required"] = [name for name in rung["required"] if name not in (*FILLED_IN, *INHERITED)]
    return schema
