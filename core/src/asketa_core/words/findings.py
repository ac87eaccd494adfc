"""Findings: what a judgement says in words and numbers."""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import Any, get_args

from asketa_core.client.measures import Bound
from asketa_core.limits.judge import FLAG_SIZE, WAYS, Judgement, bound_quantity
from asketa_core.limits.model import Ends, Limit, Severity, Term
from asketa_core.poses.posture import Posture, Trouble, unit_of
from asketa_core.records.catalogue import sources
from asketa_core.records.entry import Entry
from asketa_core.records.registry import KINDS, kind_of
from asketa_core.setup.screened import Screened, Stage
from asketa_core.units import Side
from asketa_core.words import numbers
from asketa_core.words.catalogue import listing, lookup, say, sentence_case
from asketa_core.words.limits import display_term, limit_words, missing_facts, short_words


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing that binds at one set-up, already combined over every entry that asks for it.

    ``value``, ``limit`` and ``error`` are in ``unit``; all three are ``None`` for flags and open
    questions. ``margin`` is positive inside. ``side`` is the side of the body it concerns, ``None``
    for the middle.
    """

    severity: str
    side: str | None
    phase: str
    codes: tuple[str, ...]
    entry_ids: tuple[str, ...]
    readout: str | None
    value: float | None
    limit: float | None
    margin: float | None
    error: float | None
    unit: str | None
    within_error: bool
    size: float
    """How large a caution is; 0 for stops, questions, and what is only on the way in or out."""
    brief: str
    """What it is about in a few words, with its figure and its limit where there are any."""
    sentence: str
    client_sentence: str
    source: str

    @property
    def shown(self) -> str:
        """The value as the sentence writes it; empty for flags and open questions."""
        if self.value is None or self.limit is None or self.unit is None or self.margin is None:
            return ""
        above = abs(self.margin - (self.limit - self.value)) < SAME
        return numbers.against(self.value, self.limit, self.unit, above, beyond=not self.within_error)

    @property
    def said(self) -> tuple[str, str]:
        """The sentence around its value, without its side."""
        plain = self.sentence.removeprefix(f"{sentence_case(self.side)}: ") if self.side is not None else self.sentence
        before, _, after = plain.partition(self.shown) if self.shown else (plain, "", "")
        return before, after


SAME = 1e-9


def told_once(findings: Iterable[Finding]) -> list[Finding]:
    """Findings for reading: what binds left and right alike is one line that names both sides."""
    told: list[Finding] = []
    for finding in findings:
        alike = next((k for k, other in enumerate(told) if _mirrored(finding, other)), None)
        if alike is None:
            told.append(finding)
            continue
        before, after = finding.said
        pair = sorted((told[alike], finding), key=lambda each: each.side or "")
        values = " and ".join(dict.fromkeys(each.shown for each in pair if each.shown))
        told[alike] = replace(pair[0], side=None, sentence=f"{say('sides', 'each')}: {before}{values}{after}")
    return list({finding.sentence: finding for finding in told}.values())


def _mirrored(one: Finding, other: Finding) -> bool:
    return (
        one.side is not None
        and other.side is not None
        and one.side != other.side
        and (one.severity, one.phase, one.codes, one.said) == (other.severity, other.phase, other.codes, other.said)
    )


def entry_label(limit: Limit) -> str:
    """Which record a limit comes from, in a few words."""
    kind = KINDS.get(limit.entry_kind)
    return say("entries", limit.entry_kind, "therapist") if kind is None else kind.label_of(limit.params)


def entry_words(entry: Entry[Any], date: dt.date) -> str:
    """A record in a few words as of a date."""
    return sentence_case(kind_of(entry).label_on(entry, date))


@dataclass(frozen=True, slots=True)
class LimitLine:
    """A limit for a list: few words, the whole reason, how hard it is, and on which authority."""

    code: str
    short: str
    reason: str
    severity: str
    source: str


def limit_lines(limits: Iterable[Limit]) -> list[LimitLine]:
    """Limits as lines, hardest first, each wording once; what nobody knows and would decide stands above them."""
    limits = list(limits)
    facts = missing_facts(limits)
    asked = say("mind", "ask", what=", ".join(facts)) if facts else ""
    asks = (
        [LimitLine("missing", asked, say("open", "why"), Severity.ASK.code, sources()["everyone.house"])]
        if facts
        else []
    )
    lines = {
        LimitLine(
            limit.code,
            sentence_case(short_words([limit])[0]),
            limit_words(limit, "therapist"),
            limit.severity.code,
            sources()[limit.source],
        ): -int(limit.severity)
        for limit in limits
    }
    return [*asks, *sorted(lines, key=lambda line: lines[line])]


def _judged_value(term: Term, side: Side | None, ends: Ends, posture: Posture, row: int) -> tuple[float, float]:
    """The value that is judged, at the worst of the client's ranges or at their middle, and its error."""
    assert term.readout is not None
    key = posture.key(term.readout, side)
    assert key is not None
    low, high, error = posture.spread_at(*key, row)
    if ends == "middle":
        return posture.middle(*key, row), error
    return (high if term.above is not None else low), error


def _finding(stage: Stage, judgements: list[Judgement], index: int) -> Finding:
    """Judgements of one kind at one set-up as one finding; the tightest leads, all are named."""
    row = int(stage.rows[index])
    judgements = sorted(judgements, key=lambda j: (-j.severity_at(row), j.margin_at(row)))
    lead = judgements[0]
    limit = lead.limit
    binding = [j for j in judgements if j.severity_at(row) == lead.severity_at(row)]
    labels = listing(list(dict.fromkeys(entry_label(j.limit) for j in binding)))
    within = lead.within_error_at(row)
    why = limit_words(limit, "therapist")
    value = edge = margin = error = unit = None
    readout = None
    term = display_term(limit)
    if term is not None and term.readout is not None:
        value, error = _judged_value(term, limit.side, limit.ends, stage.posture, row)
        edge = term.value
        unit = unit_of(term.readout)
        readout = term.readout.value
        margin = edge - value if term.above is not None else value - edge
        shown = numbers.against(value, edge, unit, term.above is not None, beyond=not within)
        name = lookup("readouts", readout, "name")
        who = f"{limit.side.value}: {name}" if limit.side is not None else name
        of = "" if shown.startswith("just") else f" (limit {numbers.exact(edge, unit)})"
        what = f"{sentence_case(who)} {shown}{of} {say('phases', stage.phase)}"
        brief = f"{name} {shown}{of}"
        if within:
            sentence = f"{what}: inside, but within the measuring error — {labels}"
        else:
            sentence = f"{what}. {why} — {labels}"
    else:
        who = f"{sentence_case(limit.side.value)}: " if limit.side is not None else ""
        sentence, brief = f"{who}{why} — {labels}", short_words([limit])[0]
    return Finding(
        severity=Severity(lead.severity_at(row)).code,
        side=limit.side.value if limit.side is not None else None,
        phase=stage.phase,
        codes=tuple(dict.fromkeys(j.limit.code for j in binding)),
        entry_ids=tuple(dict.fromkeys(j.limit.entry_id for j in binding if j.limit.entry_id is not None)),
        readout=readout,
        value=value,
        limit=edge,
        margin=margin,
        error=error,
        unit=unit,
        within_error=within,
        size=0.0 if stage.phase in WAYS else lead.weight_at(row),
        brief=brief,
        sentence=sentence,
        client_sentence=limit_words(limit, "client"),
        source=limit.source,
    )


def findings_at(screened: Screened, index: int) -> list[Finding]:
    """Everything that binds at one set-up: stops first, then questions, then cautions, the largest first.

    A limit that bites in several phases is reported once, where it bites hardest; a quantity that several limits caution
    about is one line, the largest, and none where the same quantity is stopped.
    """
    grouped: dict[tuple[object, ...], list[tuple[Stage, Judgement]]] = {}
    stopped: set[tuple[object, ...]] = set()
    for stage in screened.stages_at(index):
        for judgement in stage.judgements:
            severity = judgement.severity_at(int(stage.rows[index]))
            if severity == int(Severity.CAUTION):
                grouped.setdefault(("caution", stage.phase in WAYS, judgement.quantity), []).append((stage, judgement))
            elif severity:
                grouped.setdefault(judgement.limit.kind, []).append((stage, judgement))
            if severity == int(Severity.STOP):
                stopped.add(("caution", stage.phase in WAYS, judgement.quantity))
    found = []
    for kind, members in grouped.items():
        if kind in stopped:
            continue
        hardest_stage = min(members, key=lambda m: _hardness(m[0], m[1], index))[0]
        found.append(_finding(hardest_stage, [j for s, j in members if s is hardest_stage], index))
    found += _perhaps_at(screened, index, grouped)
    rank = {severity.code: -int(severity) for severity in Severity}
    return sorted(found, key=lambda f: (rank[f.severity], -f.size, f.margin if f.margin is not None else -99.0))


def _perhaps_at(screened: Screened, index: int, said_already: Collection[tuple[object, ...]]) -> list[Finding]:
    """Bounds that only the worst end of the client's ranges passes, as cautions; one line for each quantity."""
    said: dict[str, Finding] = {}
    for stage in screened.stages_at(index):
        for (trouble, side), mask in stage.posture.perhaps.items():
            known = ("caution", stage.phase in WAYS, bound_quantity(trouble, side))
            if not mask[stage.rows[index]] or known in said_already:
                continue
            told = "seen" if (trouble.value, side) in stage.posture.seen else "perhaps"
            what = say(told, trouble.value, side=side.value)
            said.setdefault(what, Finding(
                severity=Severity.CAUTION.code, side=side.value if "{side}" in lookup(told, trouble.value) else None,
                phase=stage.phase, codes=("shape.perhaps",), entry_ids=(), readout=None, value=None, limit=None,
                margin=None, error=None, unit=None, within_error=False, size=0.0 if stage.phase in WAYS else FLAG_SIZE,
                brief=say("limits", "shape.perhaps", "short"), sentence=what,
                client_sentence=say("limits", "shape.perhaps", "client"), source="everyone.house",
            ))  # fmt: skip
    return list(said.values())


@dataclass(frozen=True, slots=True)
class Unmet:
    """What this body cannot meet at one set-up, in words. ``bound`` and ``sides`` say what a therapist may have seen
    otherwise; ``None`` where nothing lifts it."""

    words: str
    bound: str | None
    sides: tuple[str, ...]


LIFTED_BY_SEEING = frozenset(get_args(Bound))


def unmet_at(screened: Screened, index: int) -> list[Unmet]:
    """What this body cannot meet at one set-up; each thing once, by its largest amount."""
    most: dict[tuple[Trouble, Side | None], tuple[Side, float]] = {}
    sides: dict[tuple[Trouble, Side | None], set[str]] = {}
    for trouble, side, amount in screened.troubles_at(index):
        # The back is one, whichever leg asks it of it.
        key = (trouble, side if "{side}" in str(lookup("troubles", trouble.value)) else None)
        sides.setdefault(key, set()).add(side.value)
        if key not in most or amount > most[key][1]:
            most[key] = (side, amount)
    found = [
        Unmet(say("troubles", "no_range", side=side.value, range=lookup("recipe", "range", quantity.value)), None, ())
        for quantity, side in screened.no_range
    ]
    for key, (side, amount) in most.items():
        code = key[0].value
        words = say("troubles", code, side=side.value, amount=f"{max(amount, 1):.0f}")
        found.append(Unmet(words, code if code in LIFTED_BY_SEEING else None, tuple(sorted(sides[key]))))
    return found


def _hardness(stage: Stage, judgement: Judgement, index: int) -> tuple[int, float]:
    row = int(stage.rows[index])
    return (-judgement.severity_at(row), judgement.margin_at(row))
