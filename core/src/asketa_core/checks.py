"""Every data file of the core, read and checked at once: for the start of an application, and for the command line."""

from __future__ import annotations

from asketa_core.body.measures import NORMS, body_norms
from asketa_core.body.ranges import Quantity
from asketa_core.clinical import figures, groups
from asketa_core.closers import typical_situations
from asketa_core.datafiles import read
from asketa_core.errors import DataError
from asketa_core.figure.palette import palettes
from asketa_core.poses.library import Variation, standard_library
from asketa_core.poses.transfers import transfers
from asketa_core.props.kinds import generic_room, kinds
from asketa_core.records.catalogue import all_rows
from asketa_core.records.forms import forms
from asketa_core.records.registry import KINDS
from asketa_core.texts.catalogue import REFERENCE, TEXTS, check_language, codes, file_of_limit, item, languages


def check_data() -> None:
    """Raises ``DataError`` for the first word, figure or file that is wrong, naming file, line and column."""
    figures()
    groups()
    norms = read(NORMS)
    for quantity in body_norms().ranges:
        if quantity not in set(Quantity):
            raise norms.error(("ranges", quantity), "there is no such range")
    for quantity in Quantity:
        if quantity not in body_norms().ranges:
            raise norms.error(("ranges",), f"'{quantity}' is missing")
    kinds()
    generic_room()
    palettes()
    transfers()
    rungs = list(standard_library().variations())
    typical_situations()
    forms()
    for kind in KINDS.values():
        _ = kind.signs
    used = {
        "limits": {row.code for _, row in all_rows()} | {"shape.shin_level", "shape.perhaps"} | _gate_codes(rungs),
        "cues": {cue for rung in rungs for cue in rung.cues},
        "purposes": {purpose for family in standard_library().families.values() for purpose in family.purposes},
    }
    document = read(TEXTS / f"{REFERENCE}.yaml")
    for section, needed in used.items():
        for code in codes(section):
            if code not in needed:
                where, place = file_of_limit(code) if section == "limits" else (document, (section, code))
                raise where.error(place, "nothing uses these words")
        for code in sorted(needed):
            item(section, code)
    for file in {name for name, _ in all_rows()}:
        named = {row.source for name, row in all_rows() if name == file}
        for code in set(codes("sources", file)) - named:
            raise DataError(f"{file}/{REFERENCE}.yaml", f"sources.{code}", "no row names this source")
    for language in languages():
        check_language(language)


def _gate_codes(rungs: list[Variation]) -> set[str]:
    gates = {gate for rung in rungs for gate in rung.gates}
    return {f"gate.{gate.code}{ending}" for gate in gates for ending in ("", "_unmeasured")}
