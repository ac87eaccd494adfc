"""The catalogues: every sentence by section and code, one for each language.

A language is ``data/texts/<language>.yaml``, the words of each kind of record (``records/<kind>/<language>.yaml``) and
of each pose family (``data/poses/<language>/<family>.yaml``). English is the reference: other languages have the same codes
with the same parameters. Below everything else, so that data files that name a code are checked against it when they are
loaded.
"""

from __future__ import annotations

import string
from collections.abc import Callable, Iterator
from functools import cache
from typing import Annotated, Any

from pydantic import AfterValidator

from asketa_core.datafiles import DATA, Document, read
from asketa_core.errors import DataError

TEXTS = DATA / "texts"
POSES = DATA / "poses"
RECORDS = DATA.parent / "records"
REFERENCE = "en"

VOICES: dict[str, tuple[set[str], set[str]]] = {
    "limits": ({"short", "therapist", "client"}, set()),
    "readouts": ({"name", "technical"}, {"opposite"}),
    "steps": ({"therapist", "client"}, set()),
    "verdicts": ({"therapist", "client"}, set()),
}
"""Sections whose codes are said in several ways: those that must be there, and those that may."""

KIND_SECTIONS = {
    "name",
    "entry",
    "doctor",
    "ask",
    "answers",
    "scopes",
    "facts",
    "mind",
    "missing",
    "limits",
    "sources",
    "implausible",
}
"""What the words of a kind of record are about; the grammar is explained in ``records/README.md``."""

FAMILY_SECTIONS = {"name", "about", "also", "slots", "variations"}
"""What the words of a pose family are about."""


def languages() -> tuple[str, ...]:
    """Every language there is a catalogue of, the reference first."""
    return (REFERENCE, *sorted(path.stem for path in TEXTS.glob("*.yaml") if path.stem != REFERENCE))


def catalogue(language: str = REFERENCE) -> dict[str, Any]:
    """Everything said in a language. Read once."""
    return _read(language)


@cache
def _read(language: str) -> dict[str, Any]:
    document = read(TEXTS / f"{language}.yaml")
    raw = document.content
    if not isinstance(raw, dict):
        raise DataError(document.file, "(top level)", "this must be a mapping of sections")
    for section in VOICES:
        _check_voices(document, section, raw[section])
    found = {**raw, "entries": dict(raw["entries"]), "limits": dict(raw["limits"]), "missing": {}, "records": {}}
    found["sources"] = dict(raw["sources"])
    for code, words in words_of_kinds(language):
        own = words.content
        if not isinstance(own, dict) or not {"name", "entry", "doctor", "limits"} <= set(own) <= KIND_SECTIONS:
            raise words.error((), f"these may stand here: {', '.join(sorted(KIND_SECTIONS))}")
        _check_voices(words, "limits", own["limits"])
        for limit, said in own["limits"].items():
            if limit in found["limits"]:
                raise words.error(("limits", limit), "these words stand elsewhere already")
            found["limits"][limit] = said
        found["entries"][code], found["missing"][code] = own["entry"], own.get("missing", {})
        found["sources"][code] = own.get("sources", {})
        found["records"][code] = own
    found["poses"] = {family: _family(words) for family, words in words_of_families(language)}
    return found


def _family(document: Document) -> dict[str, Any]:
    """The words of a family, each slot's as a mapping."""
    raw = document.content
    if not isinstance(raw, dict) or not {"name", "about", "variations"} <= set(raw) <= FAMILY_SECTIONS:
        raise document.error((), f"these stand here: {', '.join(sorted(FAMILY_SECTIONS))}")
    variations = {rung: {**words, "slots": _slots(words.get("slots", {}))} for rung, words in raw["variations"].items()}
    return {**raw, "slots": _slots(raw.get("slots", {})), "variations": variations}


def _slots(slots: dict[str, Any]) -> dict[str, dict[str, str]]:
    return {name: words if isinstance(words, dict) else {"label": words} for name, words in slots.items()}


def words_of_kinds(language: str = REFERENCE) -> Iterator[tuple[str, Document]]:
    """The words of each kind of record, by its code: a file beside its rules."""
    for path in sorted(RECORDS.glob(f"*/{language}.yaml")):
        document = read(path)
        yield path.parent.name, Document(f"{path.parent.name}/{path.name}", document.content, document.root)


def words_of_families(language: str = REFERENCE) -> Iterator[tuple[str, Document]]:
    """The words of each pose family, by its id."""
    for path in sorted((POSES / language).glob("*.yaml")):
        document = read(path)
        yield path.stem, Document(f"{language}/{path.name}", document.content, document.root)


def file_of_limit(code: str) -> tuple[Document, tuple[str, ...]]:
    """The file in which a rule's words stand, and where."""
    for _, document in words_of_kinds():
        if code in document.content["limits"]:
            return document, ("limits", code)
    return read(TEXTS / f"{REFERENCE}.yaml"), ("limits", code)


def item(*path: str) -> Any:
    """What stands at a place of the reference; ``DataError`` where nothing does."""
    found: Any = catalogue()
    try:
        for part in path:
            found = found[part]
    except (KeyError, TypeError) as error:
        raise DataError(f"{REFERENCE}.yaml", ".".join(path), "there are no words for this code") from error
    return found


def has(*path: str) -> bool:
    """Whether there are words at a place of the reference."""
    found: Any = catalogue()
    for part in path:
        if not isinstance(found, dict) or part not in found:
            return False
        found = found[part]
    return True


def codes(*path: str) -> tuple[str, ...]:
    """What a section has words for, in its order."""
    return tuple(item(*path))


@cache
def _parameters(template: str) -> frozenset[str]:
    return frozenset(name for _, name, _, _ in string.Formatter().parse(template) if name and not name.isdecimal())


@cache
def parameters(*path: str) -> frozenset[str]:
    """What a sentence is filled with; ``DataError`` where there are no words."""
    template = item(*path)
    if not isinstance(template, str):
        raise DataError(f"{REFERENCE}.yaml", ".".join(path), "there are no words for this code")
    return _parameters(template)


def check_language(language: str) -> None:
    """A catalogue has what the reference has, code by code and parameter by parameter; ``DataError`` names the first
    that differs."""
    file = f"{language}.yaml"
    here, reference = dict(leaves(catalogue(language))), dict(leaves(catalogue()))
    for path in reference.keys() ^ here.keys():
        what = "there are no words for this code" if path in reference else "nothing uses these words"
        raise DataError(file, ".".join(path), what)
    for path, template in here.items():
        if not _parameters(template) <= _parameters(reference[path]):
            wanted = ", ".join(sorted(_parameters(reference[path]))) or "none"
            raise DataError(file, ".".join(path), f"this sentence has other parameters; there are: {wanted}")


def leaves(words: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[tuple[str, ...], str]]:
    """Every sentence of a catalogue with its place."""
    if isinstance(words, dict):
        for code, each in words.items():
            yield from leaves(each, (*path, str(code)))
    else:
        yield path, str(words)


def _check_voices(document: Document, section: str, said_by_code: dict[str, Any]) -> None:
    needed, allowed = VOICES[section]
    for code, words in said_by_code.items():
        said = set(words) if isinstance(words, dict) else set()
        if not needed <= said or not said <= needed | allowed:
            expected = f"{', '.join(sorted(needed))} stand here" + (f", or {', '.join(allowed)}" if allowed else "")
            raise document.error((section, code), f"exactly {expected}")


def _known(section: str, prefix: str = "") -> Callable[[str], str]:
    def check(code: str) -> str:
        if not has(section, f"{prefix}{code}"):
            raise ValueError(f"there are no words for '{code}' among the {section}")
        return code

    return check


Cue = Annotated[str, AfterValidator(_known("cues"))]
WatchSign = Annotated[str, AfterValidator(_known("watch"))]
Purpose = Annotated[str, AfterValidator(_known("purposes"))]
Technique = Annotated[str, AfterValidator(_known("techniques"))]
Choice = Annotated[str, AfterValidator(_known("choices"))]
RuleCode = Annotated[str, AfterValidator(_known("limits"))]
GateCode = Annotated[str, AfterValidator(_known("limits", "gate."))]
"""Codes of a data file that must have words."""
