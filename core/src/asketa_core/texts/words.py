"""Saying phrases in a language: templates from its catalogue; numbers, dates and lists as the language writes them."""

from __future__ import annotations

import datetime as dt
import string
import unicodedata
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Any, Literal

from babel import Locale
from babel.dates import format_skeleton
from babel.lists import format_list
from babel.numbers import format_decimal

from asketa_core.errors import DataError
from asketa_core.texts.catalogue import REFERENCE, catalogue, languages
from asketa_core.texts.phrases import Listed, Own, Param, Phrase, Said, Shape, Shaped, Style
from asketa_core.texts.pseudo import PSEUDO, disguised

MINUS = "\N{MINUS SIGN}"
REGIONS = {REFERENCE: "en_GB"}
"""How a language writes numbers, dates and lists, where that is not its plain form."""

DATES = {"": "yMMMMd", "day": "MMMMd", "month": "yMMMM"}
"""How a template writes a date: ``{date}`` with its year, ``{date:day}`` without, ``{date:month}`` no nearer than that."""

INCH_CM, POUND_KG = 2.54, 0.45359237


@dataclass(frozen=True, slots=True)
class Manner:
    """How one writes what a language leaves open: what lengths are written in, and the order of a date's parts."""

    units: Literal["metric", "imperial"] = "metric"
    dates: Literal["day_month_year", "month_day_year", "year_month_day"] = "day_month_year"


USUAL = Manner()
MONTH_FIRST = {REFERENCE: "en_US"}
"""How a language writes dates with the month first; others keep their own order."""
ISO_DATES = {"": "%Y-%m-%d", "day": "%m-%d", "month": "%Y-%m"}

_LISTS: Mapping[Style, Literal["standard", "or"]] = {"and": "standard", "or": "or"}
_JOINED: Mapping[Style, str] = {"blank": " ", "comma": ", ", "semicolon": "; "}


class Words:
    """One language. Calling it with a phrase gives the sentence; the same phrase always the same one.

    Templates are filled as ``str.format`` fills them: ``{name}``, and after a colon how it is written: ``sentence`` (its
    first letter large), ``inside`` (small), ``and``, ``or``, ``comma``, ``semicolon`` (lists), ``day``, ``month`` (dates),
    ``length`` and ``size`` (centimetres in the units one writes, with the unit and without), ``weight`` (kilograms). In the
    place of a name a figure may stand: ``{3:length}``.
    """

    def __init__(self, language: str, more: Mapping[str, Any] | None = None, manner: Manner = USUAL) -> None:
        """``more`` are sections of a catalogue of one's own, in this language. ``ValueError`` for an unknown language."""
        if language != PSEUDO and language not in languages():
            raise ValueError(f"there is no catalogue of '{language}'")
        self.language = language
        self.manner = manner
        base = REFERENCE if language == PSEUDO else language
        self._catalogue = {**catalogue(base), **(more or {})}
        self._locale = Locale.parse(REGIONS.get(base, base))
        first = MONTH_FIRST.get(base) if manner.dates == "month_day_year" else None
        self._calendar = self._locale if first is None else Locale.parse(first)
        self._shown = disguised if language == PSEUDO else str
        self._number = lru_cache(maxsize=4096)(self._written_number)

    def __call__(self, phrase: Phrase) -> str:
        match phrase:
            case Said(path, params):
                return self._filled(path, dict(params))
            case Own(text):
                return text
            case Listed(parts, style):
                return self._list([self(part) for part in parts], style)
            case Shaped(inner, shape):
                return shaped(self(inner), shape)
        raise TypeError(f"{phrase!r} is no phrase")

    def sort_key(self, phrase: Phrase) -> str:
        """What phrases are put in order by, as people look them up."""
        plain = unicodedata.normalize("NFKD", self(phrase))
        return "".join(each for each in plain if not unicodedata.combining(each)).casefold()

    def _template(self, path: tuple[str, ...]) -> str:
        found: Any = self._catalogue
        try:
            for part in path:
                found = found[part]
        except (KeyError, TypeError) as error:
            raise DataError(f"{self.language}.yaml", ".".join(path), "there are no words for this code") from error
        return str(found)

    def _filled(self, path: tuple[str, ...], params: Mapping[str, Param]) -> str:
        written = []
        for plain, name, spec in _parts(self._template(path)):
            written.append(self._shown(plain))
            if name is not None and name.isdecimal():
                # A figure that is always the same stands in the sentence itself.
                written.append(self._param(int(name), spec))
            elif name is not None:
                if name not in params:
                    raise DataError(f"{self.language}.yaml", ".".join(path), f"the sentence needs '{name}'")
                written.append(self._param(params[name], spec))
        return "".join(written)

    def _param(self, value: Param, spec: str) -> str:
        if isinstance(value, tuple):
            return self._list([self(part) for part in value], spec or "and")  # type: ignore[arg-type]
        if isinstance(value, Phrase):
            text = self(value)
            return shaped(text, spec) if spec else text  # type: ignore[arg-type]
        if isinstance(value, dt.date):
            return self._shown(self._date(value, spec))
        if isinstance(value, int | float):
            match spec:
                case "length":
                    return self.length(value)
                case "size":
                    return self.size(value)
                case "weight":
                    return self.weight(value)
            return self._number(value)
        raise TypeError(f"{value!r} cannot be said")

    def _date(self, value: dt.date, spec: str) -> str:
        if self.manner.dates == "year_month_day":
            return value.strftime(ISO_DATES[spec])
        return str(format_skeleton(DATES[spec], value, locale=self._calendar))

    def size(self, cm: float) -> str:
        """A length without its unit, to the centimetre or the tenth of an inch as it came."""
        return self._number(cm if self.manner.units == "metric" else round(cm / INCH_CM, 1))

    def length(self, cm: float) -> str:
        unit = "centimetres" if self.manner.units == "metric" else "inches"
        return self._filled(("units", unit), {"n": Own(self.size(cm))})

    def weight(self, kg: float) -> str:
        if self.manner.units == "metric":
            return self._filled(("units", "kilograms"), {"n": Own(self._number(kg))})
        return self._filled(("units", "pounds"), {"n": Own(self._number(round(kg / POUND_KG)))})

    def _written_number(self, value: float) -> str:
        return format_decimal(value, format="0.##", locale=self._locale).replace("-", MINUS)

    def _list(self, parts: list[str], style: Style) -> str:
        if style in _JOINED:
            return _JOINED[style].join(parts)
        if len(parts) < 2:
            return "".join(parts)
        # What joins them is the language's; they themselves have been said.
        held = [f"\0{place}\0" for place in range(len(parts))]
        joined = self._shown(format_list(held, style=_LISTS[style], locale=self._locale))
        for place, part in zip(held, parts, strict=True):
            joined = joined.replace(place, part)
        return joined


@cache
def words_in(language: str, manner: Manner = USUAL) -> Words:
    """The words of the core in a language."""
    return Words(language, manner=manner)


@cache
def _parts(template: str) -> tuple[tuple[str, str | None, str], ...]:
    return tuple((plain, name, spec or "") for plain, name, spec, _ in string.Formatter().parse(template))


def shaped(text: str, shape: Shape) -> str:
    if shape == "sentence":
        return text[:1].upper() + text[1:]
    if shape == "inside":
        return text[:1].lower() + text[1:]
    raise ValueError(f"'{shape}' is no shape of a phrase")
