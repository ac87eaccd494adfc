"""Checks at start: mistakes in data files and permissions are found before anyone uses them."""

from __future__ import annotations

from typing import Any

from django.core.checks import CheckMessage, Error, register

from asketa_core import DataError, check_data


@register()
def core_data_loads(**_: Any) -> list[CheckMessage]:
    """Every data file of the core loads, and every word in it is known."""
    try:
        check_data()
    except DataError as error:
        return [Error(str(error), id="asketa.E001")]
    return []
