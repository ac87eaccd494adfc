"""Every kind of record, found by its folder, and records as values."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cache, reduce
from importlib import import_module
from operator import or_
from pkgutil import iter_modules
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import Field, create_model, field_validator

from asketa_core.records.entry import Entry
from asketa_core.records.instructions import unknown_figure
from asketa_core.records.kind import FOLDER, Kind, Opened
from asketa_core.units import Side


def _found() -> Iterator[Kind]:
    for module in iter_modules([str(FOLDER)]):
        if module.ispkg:
            kind = import_module(f"asketa_core.records.{module.name}").KIND
            assert kind.code == module.name, f"a kind is called as its folder: {module.name}"
            yield kind


KINDS: Mapping[str, Kind] = {kind.code: kind for kind in sorted(_found(), key=lambda kind: (kind.rank, kind.code))}


def kind_of(entry: Entry[Any]) -> Kind:
    return KINDS[entry.kind]


def side_field(kind: Kind) -> tuple[Any, Any]:
    """The field a record's side is read into: needed, refused, or left to the record."""
    return {"sided": (Side, ...), "middle": (None, None), "either": (Side | None, None)}[kind.sides]


def facts_field(kind: Kind) -> tuple[Any, Any]:
    """The field facts are read into; a kind that asks nothing needs none."""
    return (kind.facts, ... if kind.questions else kind.facts())


@cache
def model_of(kind: Kind) -> type[Entry[Any]]:
    """The model one kind of record is read into."""

    def of_the_kind(cls: type[Entry[Any]], value: Any) -> Any:
        if (stray := unknown_figure(kind.rows, value)) is not None:
            raise ValueError(f"no rule of this record has the figure {stray.rule}, {stray.readout.value}")
        return value

    fields: Any = {"kind": (Literal[kind.code], ...), "side": side_field(kind), "facts": facts_field(kind)}
    name = "".join(part.capitalize() for part in kind.code.split("_"))
    check = {"figures_of_the_kind": field_validator("instructions")(of_the_kind)}
    return create_model(name, __base__=Entry, __module__=__name__, __validators__=check, **fields)


def opened(entry: Entry[Any], follows: Opened) -> Entry[Any]:
    """A record that another one opens, under the same id."""
    kind = KINDS[follows.kind]
    return model_of(kind)(id=entry.id, kind=kind.code, facts=kind.facts.model_validate(dict(follows.facts)))


if TYPE_CHECKING:
    AnyEntry = Entry[Any]
else:
    AnyEntry = Annotated[reduce(or_, map(model_of, KINDS.values())), Field(discriminator="kind")]
