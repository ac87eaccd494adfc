"""A practice's own variations: a rung copied, adjusted and kept as a file.

The file (``asketa-variation``, schema in ``docs/schemas/variation.json``) holds one rung in full, in the
grammar of the pose files, and says in which family and below which rung it stands. It may change
figures, slots, dose and words; what limits speak of (flags, tests, ways in and out) it keeps from the rung it was
copied from, so that no copy escapes a limit.
"""

from __future__ import annotations

import copy
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal, get_args

from pydantic import ValidationError

from asketa_core.datafiles import Record, place_of
from asketa_core.errors import InputError
from asketa_core.parsing import parse
from asketa_core.poses.flags import marks_of
from asketa_core.poses.library import FILLED_IN, INHERITED, Family, Library, Steps, Variation, grammar
from asketa_core.poses.recipe import ChoiceSlot, ImpliedFlag, NumberSlot, PlaceSlot, Recipe, ShareOfRange, StandBase
from asketa_core.screening.detail import no_stack_words
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.texts import REFERENCE, Words, words_in
from asketa_core.units import Side

FORMAT = "asketa-variation"
VERSION = 5
OWN_PREFIX = "own_"
MOST_SETUPS = 20_000
"""A variation with more set-ups than this in a well-stocked room would keep everyone waiting."""


class OwnFile(Record):
    """One variation as a file. ``after`` is the full id of the rung it was made from and stands below."""

    format: Literal["asketa-variation"]
    version: Literal[5]
    family: str
    after: str
    variation: dict[str, Any]


@dataclass(frozen=True, slots=True)
class OwnVariation:
    """A checked variation of a practice and the rung it stands below."""

    rung: Variation
    after: str

    def file(self, words: Words) -> dict[str, Any]:
        return file_of(self.rung, self.after, words)


def own_schema() -> dict[str, Any]:
    """JSON Schema of the file: a rung as in a family's file, complete in itself."""
    schema = OwnFile.model_json_schema()
    schema["$defs"] = grammar()["$defs"]
    # A family's rung may leave these to its family; a file that travels alone says them itself.
    schema["$defs"]["Variation"]["required"] += INHERITED
    schema["properties"]["variation"] = {"$ref": "#/$defs/Variation"}
    return schema


def up_to_date(raw: Any) -> Any:
    """A file of an earlier version as today's writes it; anything else as it is.

    Version 1 named flags that are worked out now. Of those only a crossing of legs held by their joints or resting
    knee and ankle has to be said, as part of the leg. Version 2 knew less of what limits depend on: that is taken from
    the copied rung, see ``_taken_over``.
    """
    if not isinstance(raw, dict) or raw.get("version") != 1 or raw.get("format") != FORMAT:
        return raw
    new = copy.deepcopy(raw) | {"version": 2}
    recipe = new["variation"].get("recipe") if isinstance(new.get("variation"), dict) else None
    if not isinstance(recipe, dict) or not isinstance(flags := recipe.get("flags", {}), dict):
        return new
    for who, leg in (("worked", "worked_leg"), ("other", "other_leg")):
        crossing = {*flags.get(who, ()), *flags.get("both", ())}
        rule = recipe.get(leg)
        if isinstance(rule, dict) and rule.get("rule") in ("free", "forced"):
            if "crossed_ankle_over_knee" in crossing:
                rule["crosses"] = "ankle"
            elif "crossed_knee_over_knee" in crossing:
                rule["crosses"] = "knee"
    implied = get_args(ImpliedFlag)
    recipe["flags"] = {who: [flag for flag in named if flag not in implied] for who, named in flags.items()}
    return new


COPIED_AS_IT_IS = ("rising", "shares", "pelvis_follows", "hollow_deg")
NEW_IN_3 = (*COPIED_AS_IT_IS, "aims")
"""What a shape could not say before version 3. A copy stored earlier may keep aims of its own, and nothing else of it."""
NEW_ON_FEET_IN_3 = ("steps_up", "seat_carries", "heels_free")


def _taken_over(raw: Any, library: Library) -> Any:
    """A file of version 2 with what it could not say yet as the rung says it that it was copied from: what the shape
    counts as, and where its weight goes."""
    if not isinstance(raw, dict) or raw.get("version") != 2 or not library.knows(str(raw.get("after"))):
        return raw
    new = copy.deepcopy(raw) | {"version": 3}
    recipe = new["variation"].get("recipe") if isinstance(new.get("variation"), dict) else None
    if not isinstance(recipe, dict):
        return new
    base = library.variation(str(raw["after"])).recipe.model_dump(mode="json", by_alias=True, exclude_none=True)
    flags = recipe["flags"] if isinstance(recipe.get("flags"), dict) else {}
    recipe["flags"] = {
        who: list(dict.fromkeys([*flags.get(who, ()), *base["flags"].get(who, ())])) for who in base["flags"]
    }
    recipe |= {name: base[name] for name in NEW_IN_3 if name in base and name not in recipe}
    if isinstance(recipe.get("base"), dict) and recipe["base"].get("rule") == "stand" and "base" in base:
        recipe["base"] |= {
            n: base["base"][n] for n in NEW_ON_FEET_IN_3 if n in base["base"] and n not in recipe["base"]
        }
    return new


def _with_walls(raw: Any) -> Any:
    """A file of version 3, which knew of one wall only, as today's names them."""
    if not isinstance(raw, dict) or raw.get("version") != 3 or raw.get("format") != FORMAT:
        return raw
    new = copy.deepcopy(raw) | {"version": 4}
    recipe = new["variation"].get("recipe") if isinstance(new.get("variation"), dict) else None
    if isinstance(recipe, dict) and recipe.pop("wall_behind", False) is True:
        recipe["walls"] = ["behind"]
    return new


PLACE_WORDS = ("Under", "Between", "Behind", "On", "Along", "Around", "Outside")
"""How a label began that said where a stack lies, while labels were English and nothing else said so."""


def _with_one_name(raw: Any) -> Any:
    """A file of version 4, which named by language and told by its first word whether a label names a place, as today's
    says both."""
    if not isinstance(raw, dict) or raw.get("version") != 4 or raw.get("format") != FORMAT:
        return raw
    new = copy.deepcopy(raw) | {"version": VERSION}
    body = new.get("variation")
    if not isinstance(body, dict):
        return new
    if isinstance(names := body.get("name"), dict):
        body["name"] = names.get("en")
        body |= {"sanskrit": names["sa"]} if names.get("sa") is not None else {}
    for slot in body["slots"].values() if isinstance(body.get("slots"), dict) else ():
        if isinstance(slot, dict) and slot.get("type") == "stack":
            slot["names_place"] = str(slot.get("label")).split(" ", maxsplit=1)[0] in PLACE_WORDS
    return new


def todays(raw: Any, library: Library) -> Any:
    """A file of any earlier version as today's writes it; what cannot be read as it is."""
    return _with_one_name(_with_walls(_taken_over(up_to_date(raw), library)))


def file_of(rung: Variation, after: str, words: Words) -> dict[str, Any]:
    """A rung as a file: complete, whatever its family leaves to defaults, and with its words in one language."""
    body = rung.model_dump(
        mode="json", by_alias=True, exclude={*FILLED_IN}, exclude_none=True, context={"words": words}
    )
    body["id"] = rung.id.split(".", maxsplit=1)[1]
    return {"format": FORMAT, "version": VERSION, "family": rung.family, "after": after, "variation": body}


def read_own(raw: Any, library: Library, key: str, *, stored: bool = False) -> OwnVariation:
    """Check a file against the schema, the library and the engine; the rung is called ``family.key``.
    ``stored`` files passed every check before: left out are the slow one, and whether what they step to is there,
    since variations that step to each other are read one after the other.

    Raises ``InputError`` naming the field: unknown family or neighbour, a field the grammar does not have, words
    nobody wrote, figures outside their span, flags a limit needs, or a shape the engine cannot settle.
    """
    file = parse(OwnFile, todays(raw, library))
    family = library.families.get(file.family)
    if family is None:
        raise InputError("family", "no family has this id.", f"Use one of: {', '.join(sorted(library.families))}.")
    base = _base(file.after, family, library)
    body = {**file.variation, "id": f"{family.family}.{key}", "family": family.family, "shared": family.shared}
    if isinstance(slots := body.get("slots"), dict):
        body["slots"] = _in_order(slots, family, base)
    for filled in FILLED_IN:
        if filled in file.variation:
            raise InputError(f"variation.{filled}", "this follows from the family.", "Leave it out.")
    try:
        rung = Variation.model_validate(body)
    except ValidationError as error:
        first = error.errors(include_input=False, include_url=False)[0]
        raise InputError(
            f"variation.{place_of(first['loc'])}", f"{first['msg']}.", "Correct it as the schema says."
        ) from error
    _check_slots(rung)
    _check_kept(rung, base, stored)
    if not stored:
        _check_steps(rung, library)
        _check_settles(rung)
    return OwnVariation(rung, file.after)


def lineage(own: Mapping[str, OwnVariation], variation_id: str) -> list[str]:
    """A rung, what it was made from, and so on; the last is of the standard library, which every practice has."""
    line = [variation_id]
    while line[-1] in own and own[line[-1]].after not in line:
        line.append(own[line[-1]].after)
    return line


def with_own(library: Library, own: Iterable[OwnVariation], retired: Iterable[Variation] = ()) -> Library:
    """A library with a practice's own rungs, each below the rung it was made from, last where that was put away.

    Each takes its place in the steps too: back to the rung it was made from, on to where that one went; its neighbours step
    to it. Steps that its file names otherwise than the copied rung are kept.
    """
    families: dict[str, Family] = dict(library.families)
    known = {rung.id: rung for rung in library.variations()}
    placed = dict(library.placed)
    for each in own:
        rung = known[each.rung.id] = each.rung
        family = families[rung.family]
        rungs = list(family.variations)
        at = next((k for k, other in enumerate(rungs) if other.id == each.after), None)
        rungs.insert(len(rungs) if at is None else at + 1, rung)
        families[family.family] = family.model_copy(update={"variations": tuple(rungs)})
        if at is not None:
            placed |= _steps_of(rung, known[each.after], known, placed)
    return Library(families, {**library.retired, **{rung.id: rung for rung in retired}}, placed)


def _steps_of(own: Variation, copied: Variation, known: Mapping[str, Variation], placed: Steps) -> Steps:
    """The steps that putting a rung below the one it was made from changes."""
    onward = placed.get((copied.id, "step_forward"), copied.step_forward)
    steps: Steps = {}
    if own.step_forward in (None, copied.step_forward):
        steps[(own.id, "step_forward")] = onward
    if own.step_back in (None, copied.step_back):
        steps[(own.id, "step_back")] = copied.id
        steps[(copied.id, "step_forward")] = own.id
        ahead = known.get(onward or "")
        if ahead is not None and placed.get((ahead.id, "step_back"), ahead.step_back) == copied.id:
            steps[(ahead.id, "step_back")] = own.id
    return steps


def _base(after: str, family: Family, library: Library) -> Variation:
    if not library.knows(after) or library.variation(after).family != family.family:
        raise InputError(
            "after",
            "this family has no such rung; what limits depend on is kept from it.",
            "Name a rung of the family.",
        )
    return library.variation(after)


def _in_order(slots: Mapping[str, Any], family: Family, base: Variation) -> dict[str, Any]:
    """Slots as the family and the copied rung order them, since ties go by slot order and JSON keeps none."""
    known = [*family.slots, *base.slots]
    ranks = {name: rank for rank, name in reversed(list(enumerate(known)))}
    return dict(sorted(slots.items(), key=lambda item: (ranks.get(item[0], len(known)), item[0])))


def _check_slots(rung: Variation) -> None:
    if rung.hold.start > rung.hold.to:
        raise InputError("variation.hold", "the hold begins above its top.", "Give 'from' no higher than 'to'.")
    for name, slot in rung.slots.items():
        field = f"variation.slots.{name}"
        if isinstance(slot, NumberSlot):
            if slot.start > slot.to:
                raise InputError(f"{field}.from", "the lowest value lies above the highest.", "Exchange them.")
            if not isinstance(slot.plain, ShareOfRange) and not slot.start <= slot.plain <= slot.to:
                raise InputError(
                    f"{field}.plain", f"the usual value lies outside {slot.start:g}–{slot.to:g}.", "Choose one inside."
                )
        elif isinstance(slot, ChoiceSlot):
            if slot.plain not in slot.options:
                raise InputError(f"{field}.plain", "the usual choice is not among the options.", "Choose one of them.")
        elif isinstance(slot, PlaceSlot):
            if slot.plain not in slot.options:
                raise InputError(f"{field}.plain", "the usual place is not among the options.", "Choose one of them.")
        elif slot.between_cm is not None and slot.between_cm[0] > slot.between_cm[1]:
            raise InputError(f"{field}.between_cm", "the lowest height lies above the highest.", "Exchange them.")


def _check_steps(rung: Variation, library: Library) -> None:
    for field in ("step_back", "step_forward"):
        target = getattr(rung, field)
        if target == rung.id or (target is not None and not library.knows(target)):
            raise InputError(
                f"variation.{field}", "this steps to no rung of the library.", "Name a full id, or leave it out."
            )


def _check_kept(rung: Variation, base: Variation, stored: bool = False) -> None:
    """A copy keeps what limits speak of: the shape and what it counts as, tests and ways, and who carries the weight.
    What was ``stored`` when the copied rung was still written otherwise keeps its own lean and aims."""
    if rung.position != base.position:
        raise InputError("variation.position", f"the copied rung is {base.position}.", "Keep its position.")
    if _shape(rung.recipe, stored) != _shape(base.recipe, stored):
        raise InputError(
            "variation.recipe", "the base and the legs follow other rules than in the copied rung.",
            "Keep the rules; the figures may change.",
        )  # fmt: skip
    if rung.recipe.hands.carry > base.recipe.hands.carry:
        raise InputError(
            "variation.recipe.hands.carry", "the hands carry more than in the copied rung; knees and back would seem lighter.",
            f"Give at most {base.recipe.hands.carry:g}.",
        )  # fmt: skip
    for name in COPIED_AS_IT_IS if stored else NEW_IN_3:
        if getattr(rung.recipe, name) != getattr(base.recipe, name):
            raise InputError(
                f"variation.recipe.{name}", "this is not as in the copied rung; limits depend on it.", "Keep it.",
            )  # fmt: skip
    own_base, copied_base = rung.recipe.stands_on, base.recipe.stands_on
    if (isinstance(own_base, StandBase) and isinstance(copied_base, StandBase)) and (
        own_base.seat_carries > copied_base.seat_carries or own_base.steps_up != copied_base.steps_up
    ):
        raise InputError(
            "variation.recipe.base", "the legs would carry less than in the copied rung.", "Keep who carries the weight.",
        )  # fmt: skip
    for name in ("gentle", "long_quiet_fold"):
        if getattr(rung, name) and not getattr(base, name):
            raise InputError(
                f"variation.{name}", "the copied rung is not; limits would be passed over.", "Leave it out."
            )
    own, copied = marks_of(rung.recipe, rung.position), marks_of(base.recipe, base.position)
    for who in ("worked", "other", "overall"):
        missing = sorted(getattr(copied, who) - getattr(own, who))
        if missing:
            raise InputError(
                f"variation.recipe.flags.{who}", f"the copied rung counts as {', '.join(missing)}; limits depend on it.",
                "Keep it among the flags, or keep the hands, legs and trunk that make it so.",
            )  # fmt: skip
    if set(base.gates) - set(rung.gates):
        raise InputError("variation.gates", "the copied rung has tests that come before it.", "Keep them.")
    if set(base.recipe.way) - set(rung.recipe.way) or set(base.counter) - set(rung.counter):
        raise InputError("variation.recipe.way", "the copied rung's ways in and out are screened too.", "Keep them.")


def _shape(recipe: Recipe, whatever_its_lean: bool) -> tuple[object, ...]:
    rests = [leg.rule for leg in (recipe.worked_rule, recipe.other_rule)]
    return (type(recipe.stands_on), *rests, None if whatever_its_lean else recipe.lean)


def _check_settles(rung: Variation) -> None:
    """The engine must come to a posture in numbers, for a typical body in a well-stocked room."""
    situation = Situation.of_nobody()
    if (tried := situation.combinations(rung, Side.LEFT)) > MOST_SETUPS:
        raise InputError(
            "variation.slots", f"these slots make {tried} set-ups to try; {MOST_SETUPS} is the most.",
            "Use larger steps, fewer layers, heights further apart or fewer slots.",
        )  # fmt: skip
    screened = situation.screen(rung, Side.LEFT)
    if isinstance(screened, NoGrid):
        raise InputError(
            f"variation.slots.{screened.slot}",
            words_in(REFERENCE)(no_stack_words(screened)),
            "Allow more kinds, layers or heights.",
        )
    if not screened.settles:
        raise InputError("variation.recipe", "the engine finds no posture for these figures.", "Change the figures.")
