"""Checks at start: mistakes in data files and permissions are found before anyone uses them."""

from __future__ import annotations

from typing import Any

from django.core.checks import CheckMessage, Error, register

from asketa_core import DataError, sources, standard_library


@register()
def core_data_loads(**_: Any) -> list[CheckMessage]:
    """Every pose and limit file of the core loads."""
    try:
        standard_library()
        sources()
    except DataError as error:
        return [Error(str(error), id="asketa.E001")]
    return []
