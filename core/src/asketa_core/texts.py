"""Every sentence by section and code: the text file, and the words of each kind of record from its own folder. Below
everything else, so that data files that name a code are checked against it when they are loaded."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from typing import Annotated, Any

from pydantic import AfterValidator

from asketa_core.datafiles import DATA, Document, read
from asketa_core.errors import DataError

FILE = DATA / "texts" / "en.yaml"
RECORDS = DATA.parent / "records"

VOICES: dict[str, tuple[set[str], set[str]]] = {
    "limits": ({"short", "therapist", "client"}, set()),
    "readouts": ({"name", "technical"}, {"opposite"}),
    "steps": ({"therapist", "client"}, set()),
    "verdicts": ({"therapist", "client"}, set()),
}
"""Sections whose codes are said in several ways: those that must be there, and those that may."""

KIND_SECTIONS = {"name", "entry", "doctor", "ask", "answers", "scopes", "facts", "mind", "missing", "limits"}
"""What the words of a kind of record are about; the grammar is explained in ``records/README.md``."""


@cache
def texts() -> dict[str, Any]:
    document = read(FILE)
    raw = document.content
    if not isinstance(raw, dict):
        raise DataError(FILE.name, "(top level)", "this must be a mapping of sections")
    for section in VOICES:
        _check_voices(document, section, raw[section])
    found = {**raw, "entries": dict(raw["entries"]), "limits": dict(raw["limits"]), "missing": {}, "records": {}}
    for code, words in words_of_kinds():
        own = words.content
        if not isinstance(own, dict) or not {"name", "entry", "doctor", "limits"} <= set(own) <= KIND_SECTIONS:
            raise words.error((), f"these may stand here: {', '.join(sorted(KIND_SECTIONS))}")
        _check_voices(words, "limits", own["limits"])
        for limit, said in own["limits"].items():
            if limit in found["limits"]:
                raise words.error(("limits", limit), "these words stand elsewhere already")
            found["limits"][limit] = said
        found["entries"][code], found["missing"][code] = own["entry"], own.get("missing", {})
        found["records"][code] = own
    return found


def words_of_kinds() -> Iterator[tuple[str, Document]]:
    """The words of each kind of record, by its code: a file beside its rules."""
    for path in sorted(RECORDS.glob("*/en.yaml")):
        document = read(path)
        yield path.parent.name, Document(f"{path.parent.name}/{path.name}", document.content, document.root)


def file_of_limit(code: str) -> tuple[Document, tuple[str, ...]]:
    """The file in which a rule's words stand, and where."""
    for _, document in words_of_kinds():
        if code in document.content["limits"]:
            return document, ("limits", code)
    return read(FILE), ("limits", code)


def _check_voices(document: Document, section: str, said_by_code: dict[str, Any]) -> None:
    needed, allowed = VOICES[section]
    for code, words in said_by_code.items():
        said = set(words) if isinstance(words, dict) else set()
        if not needed <= said or not said <= needed | allowed:
            expected = f"{', '.join(sorted(needed))} stand here" + (f", or {', '.join(allowed)}" if allowed else "")
            raise document.error((section, code), f"exactly {expected}")


def _known(section: str, prefix: str = "") -> Callable[[str], str]:
    def check(code: str) -> str:
        if f"{prefix}{code}" not in texts()[section]:
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
