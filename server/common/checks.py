"""Checks at start: mistakes in data files and permissions are found before anyone uses them."""

from __future__ import annotations

from typing import Any

from django.core.checks import CheckMessage, Error, register

from asketa_core import REFERENCE, DataError, check_data, languages
from common.speech import TEXTS, own_codes


@register()
def core_data_loads(**_: Any) -> list[CheckMessage]:
    """Every data file of the core loads, and every word in it is known."""
    try:
        check_data()
    except DataError as error:
        return [Error(str(error), id="asketa.E001")]
    return []


@register()
def every_language_is_whole(**_: Any) -> list[CheckMessage]:
    """Every language of the core says what the server itself has to say, code by code."""
    wanted = set(own_codes(REFERENCE))
    found: list[CheckMessage] = []
    for language in languages():
        if not (TEXTS / f"{language}.yaml").exists():
            found.append(Error(f"server/common/texts/{language}.yaml is missing", id="asketa.E002"))
            continue
        for path in sorted(wanted ^ set(own_codes(language))):
            message = f"server/common/texts/{language}.yaml: {'.'.join(path)}: differs from {REFERENCE}.yaml"
            found.append(Error(message, id="asketa.E002"))
    return found
