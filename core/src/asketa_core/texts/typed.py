"""Words in records: said by the catalogue for what ships with the product, typed by somebody in what a practice made."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import (
    Field,
    PlainSerializer,
    PlainValidator,
    SerializationInfo,
    TypeAdapter,
    ValidationError,
    WithJsonSchema,
)
from pydantic_core import PydanticCustomError

from asketa_core.plain_text import Label, Line, Name
from asketa_core.texts.phrases import Own, Phrase, Said
from asketa_core.texts.words import Words


def _written(phrase: Phrase, info: SerializationInfo) -> str:
    """In the words handed over as context; without any, what was typed, or the place in the catalogue."""
    words = (info.context or {}).get("words")
    if isinstance(words, Words):
        return words(phrase)
    if isinstance(phrase, Own):
        return phrase.text
    assert isinstance(phrase, Said), "what a record holds is typed or said as it stands"
    return ".".join(phrase.path)


def _text(like: Any) -> Any:
    """A phrase, written down as a text that has to be like another kind of text."""
    adapter: TypeAdapter[str] = TypeAdapter(like)

    def read(value: Any) -> Phrase:
        if isinstance(value, Phrase):
            return value
        try:
            return Own(adapter.validate_python(value))
        except ValidationError as error:
            first = error.errors()[0]
            about = {**first.get("ctx", {}), "message": first["msg"]}
            raise PydanticCustomError(first["type"], "{message}", about) from None

    schema = adapter.json_schema()
    return Annotated[Phrase, PlainValidator(read), PlainSerializer(_written, return_type=str), WithJsonSchema(schema)]


NameText = _text(Name)
LabelText = _text(Label)
CueText = _text(Annotated[Line, Field(max_length=160)])
