"""Reading the core's own data files and checking them against their schema.

Whatever is wrong in a file is said with file, line and column.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any, TypeVar, cast

import yaml
from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError

from asketa_core.errors import DataError

DATA = Path(__file__).parent / "data"


class Record(BaseModel):
    """Base of every record read from data or requests: frozen, unknown keys and numbers without an end refused."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False, defer_build=True)


Read = TypeVar("Read")
Location = Sequence[int | str]


def place_of(location: Location) -> str:
    return ".".join(str(part) for part in location) or "(top level)"


class _Reader(yaml.CSafeLoader):
    """YAML in which only true and false are truth values (yes, no and on are words here), and in which no key may
    stand twice: the second would silently win."""

    def construct_mapping(self, node: yaml.MappingNode, deep: bool = False) -> dict[Hashable, Any]:
        seen: set[str] = set()
        for key, _ in node.value:
            if key.value in seen and key.tag != "tag:yaml.org,2002:merge":
                raise yaml.MarkedYAMLError(problem=f"'{key.value}' stands twice", problem_mark=key.start_mark)
            seen.add(key.value)
        return super().construct_mapping(node, deep)


_Reader.yaml_implicit_resolvers = {
    first: [(tag, pattern) for tag, pattern in found if tag != "tag:yaml.org,2002:bool"]
    for first, found in yaml.SafeLoader.yaml_implicit_resolvers.items()
}
_Reader.add_implicit_resolver("tag:yaml.org,2002:bool", re.compile(r"^(?:true|false)$"), list("tf"))


@dataclass(frozen=True)
class Document:
    """A data file's content, and the nodes that say where each part of it stands."""

    file: str
    content: Any
    root: yaml.Node | None

    def place(self, location: Location) -> str:
        """Line, column and path of a part of the content; of what encloses it where it is missing. Parts of the
        location that name no key (a choice among several models) are passed over."""
        node, start = self.root, self.root.start_mark if self.root is not None else None
        for part in location:
            if isinstance(node, yaml.SequenceNode) and isinstance(part, int) and part < len(node.value):
                node = node.value[part]
                start = node.start_mark
            elif isinstance(node, yaml.MappingNode):
                # What is merged in comes first and gives way to what is written here.
                found = [(key, value) for key, value in node.value if key.value == str(part)]
                if found:
                    key, node = found[-1]
                    start = key.start_mark
        where = place_of(location)
        return where if start is None else f"line {start.line + 1}, column {start.column + 1}: {where}"

    def error(self, location: Location, reason: str) -> DataError:
        return DataError(self.file, self.place(location), reason)


def read(path: Path) -> Document:
    """One data file; ``DataError`` names the line where it is no YAML."""
    loader = _Reader(path.read_text(encoding="utf-8"))
    try:
        root = loader.get_single_node()
        # Constructing folds merged keys into the nodes, so that their marks are found as well.
        content = None if root is None else loader.construct_document(root)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        place = f"line {mark.line + 1}, column {mark.column + 1}" if mark else "(file)"
        problem = getattr(error, "problem", None)
        raise DataError(path.name, place, f"this is not valid YAML: {problem}") from error
    finally:
        loader.dispose()
    return Document(path.name, content, root)


def read_yaml(path: Path) -> Any:
    return read(path).content


def load(path: Path, model: type[Read]) -> Read:
    """Read one data file into ``model``; a ``DataError`` names file, line, column and reason."""
    return checked(read(path), model)


@cache
def _adapter(model: Any) -> TypeAdapter[Any]:
    """What checks against one model; making it takes longer than checking a file."""
    return TypeAdapter(model)


def checked(document: Document, model: type[Read]) -> Read:
    try:
        found: Read = _adapter(cast(Any, model)).validate_python(document.content)
    except ValidationError as error:
        first = error.errors()[0]
        raise document.error(first["loc"], first["msg"]) from error
    return found


PARTS: dict[str, tuple[str, ...]] = {
    "poses": ("data/poses",),
    "limits": ("data/limits", "records"),
    "engine": ("",),
}
"""What may be told apart by its fingerprint: the poses, every rule, or everything."""


def fingerprint(part: str) -> str:
    """Short hash over every file of a part, kept with each logged item."""
    digest, package = hashlib.sha256(), DATA.parent
    files = (path for folder in PARTS[part] for path in (package / folder).rglob("*"))
    for path in sorted(p for p in files if p.suffix in {".yaml", ".py"}):
        digest.update(path.relative_to(package).as_posix().encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]
