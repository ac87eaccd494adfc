"""Findings: what a judgement says in words and numbers."""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any, get_args

from asketa_core.client.measures import Bound
from asketa_core.kernel.shared import FLAG_SIZE
from asketa_core.limits.judge import WAYS, Judgement, Stage, bound_quantity
from asketa_core.limits.model import Ends, Limit, Severity, Term
from asketa_core.poses.posture import Trouble, unit_of
from asketa_core.poses.settle import Posture
from asketa_core.records.entry import Entry
from asketa_core.records.registry import KINDS, kind_of
from asketa_core.setup.screened import Screened
from asketa_core.texts import NOTHING, Phrase, Said, listed, parameters, say
from asketa_core.units import Side
from asketa_core.words import numbers
from asketa_core.words.limits import display_term, graded, instruction_words, limit_words, missing_facts, short_words


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
    brief: Phrase
    """What it is about in a few words, with its figure and its limit where there are any."""
    around: Said
    """The sentence without its value and its side."""
    shown: Phrase
    """The value as the sentence writes it; nothing for flags and open questions."""
    client_sentence: Phrase
    source: str
    authority: Phrase
    """The same in words: whose word it is, else where the rule is from; nothing for what the shape itself asks."""
    told_of: str | None = None
    """The side or sides the sentence begins with; ``None`` where it names its side itself, or there is none."""

    @property
    def sentence(self) -> Phrase:
        words = self.around.given(shown=self.shown) if self.shown else self.around
        if self.told_of is None:
            return words.sentence
        return say("findings", "of_side", side=say("sides", self.told_of), words=words)

    def facts(self) -> dict[str, Any]:
        """What was found, in figures and codes."""
        told = ("brief", "around", "shown", "client_sentence", "authority", "told_of")
        return {each.name: getattr(self, each.name) for each in fields(self) if each.name not in told}


def told_once(findings: Iterable[Finding]) -> list[Finding]:
    """Findings for reading: what binds left and right alike is one line that names both sides."""
    told: list[Finding] = []
    for finding in findings:
        alike = next((k for k, other in enumerate(told) if _mirrored(finding, other)), None)
        if alike is None:
            told.append(finding)
            continue
        pair = sorted((told[alike], finding), key=lambda each: each.side or "")
        values = dict.fromkeys(each.shown for each in pair)
        told[alike] = replace(pair[0], side=None, told_of="each", shown=listed(values, "and"))
    return list({finding.sentence: finding for finding in told}.values())


def _mirrored(one: Finding, other: Finding) -> bool:
    return (
        one.side is not None
        and other.side is not None
        and one.side != other.side
        and (one.severity, one.phase, one.codes, one.around) == (other.severity, other.phase, other.codes, other.around)
    )


def entry_label(limit: Limit) -> Phrase:
    """Which record a limit comes from, in a few words."""
    kind = KINDS.get(limit.entry_kind)
    return say("entries", limit.entry_kind, "therapist") if kind is None else kind.label_of(limit.params)


def entry_words(entry: Entry[Any], date: dt.date) -> Phrase:
    """A record in a few words as of a date."""
    return kind_of(entry).label_on(entry, date).sentence


@dataclass(frozen=True, slots=True)
class LimitLine:
    """A limit for a list: few words, the whole reason, how hard it is, and on which authority."""

    code: str
    short: Phrase
    reason: Phrase
    severity: str
    source: Phrase


def authority_words(limit: Limit) -> Phrase:
    """On which authority a limit stands: whose word its figure is, else where its rule is from."""
    if limit.said_by is not None:
        return instruction_words(limit.said_by)
    return source_words(limit.source) if limit.source else NOTHING


def source_words(source: str) -> Phrase:
    """On which authority a row stands, by ``kind.source id``."""
    return say("sources", *source.split(".", maxsplit=1))


def limit_lines(limits: Iterable[Limit]) -> list[LimitLine]:
    """Limits as lines, hardest first, each wording once; what nobody knows and would decide stands above them."""
    limits = list(limits)
    facts = missing_facts(limits)
    asks = (
        [
            LimitLine(
                "missing",
                say("mind", "ask", what=listed(facts)),
                say("open", "why"),
                Severity.ASK.code,
                source_words("everyone.house"),
            )
        ]
        if facts
        else []
    )
    lines = {
        LimitLine(
            of_one_kind[0].code,
            words.sentence,
            _reasons(of_one_kind),
            of_one_kind[0].severity.code,
            authority_words(of_one_kind[0]),
        ): -int(of_one_kind[0].severity)
        for of_one_kind, words in graded(limits)
    }
    return [*asks, *sorted(lines, key=lambda line: lines[line])]


def _reasons(limits: Sequence[Limit]) -> Phrase:
    """Why limits hold, each sentence once."""
    return listed(list(dict.fromkeys(limit_words(limit, "therapist") for limit in limits)), "blank")


def _judged_value(term: Term, side: Side | None, ends: Ends, posture: Posture) -> tuple[float, float]:
    """The value that is judged, at the worst of the client's ranges or at their middle, and its error."""
    assert term.readout is not None
    key = posture.key(term.readout, side)
    assert key is not None
    low, high, error = posture.spread(*key)
    if ends == "middle":
        return posture.middle(*key), error
    return (high if term.above is not None else low), error


def _finding(stage: Stage, judgements: list[Judgement]) -> Finding:
    """Judgements of one kind at one set-up as one finding; the tightest leads, all are named."""
    judgements = sorted(judgements, key=_hardness)
    lead = judgements[0]
    limit = lead.limit
    binding = [j for j in judgements if j.severity == lead.severity]
    labels = tuple(dict.fromkeys(entry_label(j.limit) for j in binding))
    within = lead.within_error
    why = limit_words(limit, "therapist")
    value = edge = margin = error = unit = None
    readout = None
    shown: Phrase = NOTHING
    term = display_term(limit)
    if term is not None and term.readout is not None:
        value, error = _judged_value(term, limit.side, limit.ends, stage.posture)
        edge = term.value
        unit = unit_of(term.readout)
        readout = term.readout.value
        margin = edge - value if term.above is not None else value - edge
        shown, names_edge = numbers.against(value, edge, unit, term.above is not None, beyond=not within)
        name = say("readouts", readout, "name")
        # 'just over 90°' says the limit already.
        of = NOTHING if names_edge else say("findings", "limit", limit=numbers.exact(edge, unit))
        brief: Phrase = say("findings", "brief", name=name, shown=shown, of=of)
        phase = say("phases", stage.phase)
        if within:
            around = say("findings", "within", name=name, of=of, phase=phase, labels=labels)
        else:
            around = say("findings", "beyond", name=name, of=of, phase=phase, why=why, labels=labels)
    else:
        brief = short_words([limit])[0]
        around = say("findings", "flag", why=why, labels=labels)
    return Finding(
        severity=Severity(lead.severity).code,
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
        size=0.0 if stage.phase in WAYS else lead.weight,
        brief=brief,
        around=around,
        shown=shown,
        told_of=limit.side.value if limit.side is not None else None,
        client_sentence=limit_words(limit, "client"),
        source=limit.source,
        authority=authority_words(limit),
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
            severity = judgement.severity
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
        hardest_stage = min(members, key=lambda m: _hardness(m[1]))[0]
        found.append(_finding(hardest_stage, [j for s, j in members if s is hardest_stage]))
    found += _perhaps_at(screened, index, grouped)
    rank = {severity.code: -int(severity) for severity in Severity}
    return sorted(found, key=lambda f: (rank[f.severity], -f.size, f.margin if f.margin is not None else -99.0))


def _perhaps_at(screened: Screened, index: int, said_already: Collection[tuple[object, ...]]) -> list[Finding]:
    """Bounds that only the worst end of the client's ranges passes, as cautions; one line for each quantity."""
    said: dict[Phrase, Finding] = {}
    for stage in screened.stages_at(index):
        for trouble, side in stage.posture.perhaps:
            known = ("caution", stage.phase in WAYS, bound_quantity(trouble, side))
            if known in said_already:
                continue
            told = "seen" if (trouble.value, side) in stage.posture.seen else "perhaps"
            what = say(told, trouble.value, side=say("sides", side.value))
            said.setdefault(what, Finding(
                severity=Severity.CAUTION.code, side=side.value if "side" in parameters(told, trouble.value) else None,
                phase=stage.phase, codes=("shape.perhaps",), entry_ids=(), readout=None, value=None, limit=None,
                margin=None, error=None, unit=None, within_error=False, size=0.0 if stage.phase in WAYS else FLAG_SIZE,
                brief=say("limits", "shape.perhaps", "short"), around=what, shown=NOTHING,
                client_sentence=say("limits", "shape.perhaps", "client"), source="everyone.house", authority=source_words("everyone.house"),
            ))  # fmt: skip
    return list(said.values())


@dataclass(frozen=True, slots=True)
class Unmet:
    """What this body cannot meet at one set-up, in words. ``bound`` and ``sides`` say what a therapist may have seen
    otherwise; ``None`` where nothing lifts it."""

    words: Phrase
    bound: str | None
    sides: tuple[str, ...]


LIFTED_BY_SEEING = frozenset(get_args(Bound))


def unmet_at(screened: Screened, index: int) -> list[Unmet]:
    """What this body cannot meet at one set-up; each thing once, by its largest amount."""
    most: dict[tuple[Trouble, Side | None], tuple[Side, float]] = {}
    sides: dict[tuple[Trouble, Side | None], set[str]] = {}
    for trouble, side, amount in screened.troubles_at(index):
        # The back is one, whichever leg asks it of it.
        key = (trouble, side if "side" in parameters("troubles", trouble.value) else None)
        sides.setdefault(key, set()).add(side.value)
        if key not in most or amount > most[key][1]:
            most[key] = (side, amount)
    found = [
        Unmet(
            say("troubles", "no_range", side=say("sides", side.value), range=say("recipe", "range", quantity.value)),
            None,
            (),
        )
        for quantity, side in screened.no_range
    ]
    for key, (side, amount) in most.items():
        code = key[0].value
        words = say("troubles", code, side=say("sides", side.value), amount=round(max(amount, 1)))
        found.append(Unmet(words, code if code in LIFTED_BY_SEEING else None, tuple(sorted(sides[key]))))
    return found


def _hardness(judgement: Judgement) -> tuple[int, float]:
    return (-judgement.severity, judgement.margin)
