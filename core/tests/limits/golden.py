"""Every rule and clinical figure as one line each, for the golden table beside the tests.

``python -m tests.limits.golden`` writes the table anew, from the folder ``core``; read the difference as a clinician would
before it is kept.
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from asketa_core.clinical import figures, groups
from asketa_core.limits.model import ALL_PHASES, Bounds, Condition, FigureFromFact, FigureFromRange, Row, TermRow
from asketa_core.records.catalogue import all_rows

TABLE = Path(__file__).with_name("golden.txt")


def lines() -> Iterator[str]:
    for file, row in all_rows():
        yield f"{file} | {row.code} | {_when(row)} | {row.severity} | {row.side} | {_terms(row)} | {_how(row)}"
    for code, figure in figures().items():
        yield f"figure | {code} | {figure.value:g} {figure.unit} | {figure.source} | {figure.reviewed}"
    for code, group in groups().items():
        yield f"group | {code} | {', '.join(group.of)} | {group.source} | {group.reviewed}"


def _when(row: Row) -> str:
    said = [f"{key} {_condition(wanted)}" for key, wanted in row.when.items()]
    if row.scope is not None:
        said.append(f"until cleared for {row.scope}")
    return ", ".join(said) or "always"


def _condition(wanted: Condition) -> str:
    if isinstance(wanted, Bounds):
        ends = ((">=", wanted.at_least), ("<", wanted.below))
        return " and ".join(f"{sign} {end}" for sign, end in ends if end is not None)
    return " or ".join(map(str, wanted)) if isinstance(wanted, tuple) else str(wanted)


def _terms(row: Row) -> str:
    return " and ".join(map(_term, row.terms)) or f"everything ({row.everything})"


def _term(term: TermRow) -> str:
    if term.flag is not None:
        return str(term.flag)
    assert term.readout is not None
    bound = f"> {_figure(term)}" if term.above is not None else f"< {term.below:g}"
    return f"{term.readout.value} {bound}{' beyond neutral' * term.neutral}"


def _figure(term: TermRow) -> str:
    if isinstance(term.above, FigureFromRange):
        return f"{term.above.times:g} × own {term.above.range.value} − {term.above.less:g}"
    if isinstance(term.above, FigureFromFact):
        return f"{term.above.times:g} × recorded {term.above.fact}"
    said = f" or the record's {term.or_fact}" if term.or_fact else ""
    return f"{term.above:g}{said}"


def _how(row: Row) -> str:
    phases = "all phases" if row.phases == ALL_PHASES else "/".join(row.phases)
    return f"{phases}{', exact' * row.exact} | {row.source}"


if __name__ == "__main__":
    TABLE.write_text("".join(f"{line}\n" for line in lines()), encoding="utf-8")
