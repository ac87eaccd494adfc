"""The text file: every sentence by section and code. Below everything else, so that data files that name a code are
checked against it when they are loaded."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Annotated, Any

from pydantic import AfterValidator

from asketa_core.datafiles import DATA, read, read_yaml
from asketa_core.errors import DataError

FILE = DATA / "texts" / "en.yaml"


VOICES: dict[str, tuple[set[str], set[str]]] = {
    "limits": ({"short", "therapist", "client"}, set()),
    "readouts": ({"name", "technical"}, {"opposite"}),
    "steps": ({"therapist", "client"}, set()),
    "verdicts": ({"therapist", "client"}, set()),
}
"""Sections whose codes are said in several ways: those that must be there, and those that may."""


@cache
def texts() -> dict[str, Any]:
    raw = read_yaml(FILE)
    if not isinstance(raw, dict):
        raise DataError(FILE.name, "(top level)", "this must be a mapping of sections")
    for section, (needed, allowed) in VOICES.items():
        for code, words in raw[section].items():
            said = set(words) if isinstance(words, dict) else set()
            if not needed <= said or not said <= needed | allowed:
                expected = f"{', '.join(sorted(needed))} stand here" + (f", or {', '.join(allowed)}" if allowed else "")
                raise read(FILE).error((section, code), f"exactly {expected}")
    return raw


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
