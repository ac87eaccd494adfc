"""What is asked of a kind of record, as JSON Schema that an interface can draw a form from.

Beside the usual words of JSON Schema: ``x-order`` names the facts in the order they are asked, ``x-when`` what a question
depends on, ``x-group`` the heading it stands under, ``x-if-any`` that no answer is none missing, ``x-unit`` what a number is meant in.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from asketa_core.errors import DataError
from asketa_core.records.kind import Kind, Question, Sides, When
from asketa_core.records.registry import KINDS
from asketa_core.texts import Phrase, Words, codes, has, say

UNITS = {"_deg": "deg", "_cm": "cm", "_s": "s"}
"""What numbers are meant in, by how the name of their fact ends."""


@dataclass(frozen=True, slots=True)
class FormOf:
    """One kind of record for an interface: its name, where it belongs, what is asked, and what may be cleared."""

    code: str
    name: Phrase
    sides: Sides
    place: tuple[float, float]
    doctor: Phrase
    scopes: dict[str, Phrase]
    """What a clearance may be or may have been about, in words."""
    offered_scopes: tuple[str, ...]
    schema: dict[str, Any]
    """With phrases where JSON Schema has its titles; see ``said``."""


def forms() -> list[FormOf]:
    """Every kind that can be recorded, in the order of lists."""
    return [form_of(kind) for kind in KINDS.values() if kind.can_be_recorded]


def form_of(kind: Kind) -> FormOf:
    form = FormOf(
        kind.code,
        kind.say("name"),
        kind.sides,
        kind.place,
        kind.say("doctor"),
        {scope: kind.say("scopes", scope) for scope in kind.scopes + kind.read_only_scopes},
        kind.scopes,
        schema_of(kind),
    )
    said = {"ask": set(_titles(form.schema)), "scopes": set(form.scopes)}
    for section, used in said.items():
        written = codes("records", kind.code, section) if has("records", kind.code, section) else ()
        for code in set(written) - used:
            raise DataError(f"{kind.code}/en.yaml", f"{section}.{code}", "nothing uses these words")
    return form


def said(schema: Any, words: Words) -> Any:
    """A form's schema in a language."""
    if isinstance(schema, Phrase):
        return words(schema)
    if isinstance(schema, dict):
        return {key: said(each, words) for key, each in schema.items()}
    return [said(each, words) for each in schema] if isinstance(schema, list) else schema


def _titles(schema: dict[str, Any], before: str = "") -> Iterator[str]:
    for fact, said in schema["properties"].items():
        yield before + fact
        if "properties" in said.get("items", {}):
            yield from _titles(said["items"], f"{before}{fact}.")


def schema_of(kind: Kind) -> dict[str, Any]:
    """The facts that are asked, with their words."""
    whole = kind.facts.model_json_schema()
    defs = whole.get("$defs", {})
    properties = {}
    for question in kind.questions:
        said = _described(kind, question.fact, whole["properties"][question.fact], defs)
        if question.when:
            said["x-when"] = [_condition(when) for when in question.when]
        if question.if_any:
            said["x-if-any"] = True
        if (group := _group(kind, question)) is not None:
            said["x-group"] = say("groups", group)
        properties[question.fact] = said
    order = [question.fact for question in kind.questions]
    return {"type": "object", "properties": properties, "x-order": order, "additionalProperties": False}


def _group(kind: Kind, question: Question) -> str | None:
    """What a question stands under; signs that belong to a doctor under a heading of their own."""
    if question.group is None and kind.signs is not None and question.fact == kind.signs.fact:
        return "now"
    return question.group


def _condition(when: When) -> dict[str, Any]:
    return {"fact": when.fact, "is": list(when.among)} if when.among else {"fact": when.fact, "answered": when.answered}


def _described(kind: Kind, fact: str, raw: dict[str, Any], defs: dict[str, Any]) -> dict[str, Any]:
    """One fact: what it is, its question, and its answers in words."""
    found = {**_plain(raw, defs), "title": kind.say("ask", fact)}
    for key in ("default", "description"):
        found.pop(key, None)
    if found.get("type") in ("number", "integer"):
        unit = next((unit for ending, unit in UNITS.items() if fact.endswith(ending)), None)
        found |= {"x-unit": unit} if unit is not None else {}
    if "enum" in found:
        found["oneOf"] = _options(kind, fact, found.pop("enum"))
    if found.get("type") == "array":
        item = _plain(found["items"], defs)
        if item.get("type") == "object":
            item["properties"] = {
                name: _described(kind, f"{fact}.{name}", each, defs) for name, each in item["properties"].items()
            }
            item = {key: item[key] for key in ("type", "properties", "required") if key in item}
        else:
            item = {"type": "string", "oneOf": _options(kind, fact, item["enum"])}
        found["items"] = item
        found["uniqueItems"] = item["type"] == "string"
    return found


def _options(kind: Kind, fact: str, answers: Sequence[str]) -> list[dict[str, Any]]:
    """Answers in words: the kind's own, else those every kind may use."""
    at = ("records", kind.code, "answers", fact)
    own, shared = set(codes(*at) if has(*at) else ()), set(codes("answers"))
    for code in (*(set(answers) - own - shared), *(own - set(answers))):
        raise DataError(f"{kind.code}/en.yaml", f"answers.{fact}.{code}", "words and answers differ")
    return [{"const": code, "title": say(*at, code) if code in own else say("answers", code)} for code in answers]


def _plain(raw: dict[str, Any], defs: dict[str, Any]) -> dict[str, Any]:
    """A schema without references, and without the ``null`` of what may be left out."""
    if "$ref" in raw:
        return _plain({**defs[raw["$ref"].rpartition("/")[2]], **{k: v for k, v in raw.items() if k != "$ref"}}, defs)
    if "anyOf" in raw:
        real = [each for each in raw["anyOf"] if each.get("type") != "null"]
        return _plain({**{k: v for k, v in raw.items() if k != "anyOf"}, **real[0]}, defs)
    return dict(raw)
