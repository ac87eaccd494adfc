"""Reading the core's own data files and checking them against their schema."""

from __future__ import annotations

import hashlib
import re
from pathlib import Path
from typing import Any, TypeVar

import yaml
from pydantic import BaseModel, ConfigDict, ValidationError

from asketa_core.errors import DataError

DATA = Path(__file__).parent / "data"


class Record(BaseModel):
    """Base of every record read from data or requests: frozen, and unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)


Model = TypeVar("Model", bound=BaseModel)


def place_of(error_location: tuple[int | str, ...]) -> str:
    return ".".join(str(part) for part in error_location) or "(top level)"


class _Reader(yaml.SafeLoader):
    """YAML in which only true and false are truth values: yes, no and on are words here."""


_Reader.yaml_implicit_resolvers = {
    first: [(tag, pattern) for tag, pattern in found if tag != "tag:yaml.org,2002:bool"]
    for first, found in yaml.SafeLoader.yaml_implicit_resolvers.items()
}
_Reader.add_implicit_resolver("tag:yaml.org,2002:bool", re.compile(r"^(?:true|false)$"), list("tf"))


def read_yaml(path: Path) -> Any:
    try:
        return yaml.load(path.read_text(encoding="utf-8"), Loader=_Reader)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        place = f"line {mark.line + 1}" if mark else "(file)"
        raise DataError(path.name, place, "this is not valid YAML") from error


def load(path: Path, model: type[Model]) -> Model:
    """Read one data file into ``model``; a ``DataError`` names file, place and reason."""
    try:
        return model.model_validate(read_yaml(path))
    except ValidationError as error:
        first = error.errors()[0]
        raise DataError(path.name, place_of(first["loc"]), first["msg"]) from error


def fingerprint(folder: str) -> str:
    """Short hash over every file of a data folder or of the code, kept with each logged item."""
    digest = hashlib.sha256()
    root = DATA / folder if folder else DATA.parent
    for path in sorted(p for p in root.rglob("*") if p.suffix in {".yaml", ".py"}):
        digest.update(path.relative_to(root).as_posix().encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]
