"""Records as the core's values, one by one."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from asketa_core import AnyEntry, ClientFile, InputError, parse
from clients.models import Entry, Instruction


def entry_raw(
    entry: Entry, clearances: Sequence[dict[str, Any]] = (), instructions: Sequence[dict[str, Any]] = ()
) -> dict[str, Any]:
    """One standing row in the client file's terms."""
    return {
        "id": str(entry.root),
        "kind": entry.kind,
        "side": entry.side,
        "facts": entry.facts,
        "from_date": entry.from_date,
        "until_date": entry.until_date,
        "clearances": clearances,
        "instructions": instructions,
    }


def instruction_raw(row: Instruction, text: str) -> dict[str, Any]:
    """One standing word in the client file's terms; ``text`` is what was said in free words."""
    said = {"id": str(row.pk), "who": row.who, "date": row.date, "text": text, "figures": row.figures}
    return said if row.until is None else {**said, "until": row.until}


def read_entry(raw: dict[str, Any]) -> AnyEntry:
    """One record as a core value; one that cannot be read keeps what was stored and why it cannot."""
    file = {"format": "asketa-client", "version": 1, "client": {"id": "x"}}
    try:
        return parse(ClientFile, {**file, "entries": [raw]}).entries[0]
    except InputError as error:
        # The fact at fault by its name; what was stored stands beside it.
        fact = error.field.rpartition(".")[2].replace("_", " ")[:400]
        stored = {key: str(value) for key, value in raw["facts"].items()} if isinstance(raw["facts"], dict) else {}
        facts = {"kind": str(raw["kind"])[:60], "fact": fact, "stored": stored}
        entry = {"id": raw["id"], "kind": "unreadable", "side": raw["side"], "facts": facts}
        return parse(ClientFile, {**file, "entries": [entry]}).entries[0]
