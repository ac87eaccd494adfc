"""A limit in words: its sentence with its figures, the few words for lists, and the facts it hangs on."""

from __future__ import annotations

from collections.abc import Iterable

from asketa_core.limits.model import Limit, SaidBy, Severity, Term
from asketa_core.poses.posture import unit_of
from asketa_core.texts import NOTHING, Phrase, has, listed, say
from asketa_core.words import numbers


def display_term(limit: Limit) -> Term | None:
    """The term a sentence quotes: the last read-out, which is the one the row is about."""
    return next((term for term in reversed(limit.terms) if term.readout is not None), None)


def limit_words(limit: Limit, voice: str) -> Phrase:
    """The catalogue's sentence for a limit, with its figures."""
    figures = [numbers.exact(term.value, unit_of(term.readout)) for term in limit.terms if term.readout is not None]
    words = say("limits", limit.code, voice, limit=_figure(limit), limits=tuple(figures))
    if not limit.missing or voice != "therapist":
        return words
    return say("open", "therapist", facts=tuple(missing_facts([limit])), why=words)


def _figure(limit: Limit) -> Phrase | float:
    """The bare figure a sentence quotes."""
    term = display_term(limit)
    return NOTHING if term is None else round(term.value, 1)


def instruction_words(said: SaidBy) -> Phrase:
    """Whose word it is, and of which day."""
    return say("instructions", "of", who=say("professionals", said.who), date=said.date)


def figure_words(rule: str, value: float) -> Phrase:
    """A rule in few words with the figure that was set for it."""
    return say("limits", rule, "short", limit=round(value, 1)).sentence


def missing_facts(limits: Iterable[Limit]) -> list[Phrase]:
    """The facts nobody knows and that decide whether limits hold, each once."""
    return list(dict.fromkeys(say("missing", limit.entry_kind, fact) for limit in limits for fact in limit.missing))


def short_words(limits: Iterable[Limit]) -> list[Phrase]:
    """The few words each limit has for lists, each once."""
    return list(dict.fromkeys(say("limits", limit.code, "short", limit=_figure(limit)) for limit in limits))


def graded(limits: Iterable[Limit]) -> list[tuple[tuple[Limit, ...], Phrase]]:
    """Limits with the few words for them, the one that leads first. Those that differ in nothing but their figure and how
    hard they are are one: 'knee twist: over 5° with care, over 15° not'. What a harder one covers is not said beside it."""
    kinds: dict[object, list[Limit]] = {}
    for limit in limits:
        kinds.setdefault(_gradable(limit), []).append(limit)
    found = []
    for members in kinds.values():
        steps = _steps(members) if len(members) > 1 else members
        if len(steps) > 1 and (words := _graded_words(steps)) is not None:
            found.append((tuple(sorted(members, key=lambda limit: -int(limit.severity))), words))
        else:
            found += [(tuple(covered), short_words(covered[:1])[0]) for covered in _by_step(members, steps)]
    return found


def _graded_term(limit: Limit) -> Term:
    term = display_term(limit)
    assert term is not None
    return term


def _gradable(limit: Limit) -> object:
    """What limits share that can be said as one: everything but the figure they end with; one of flags alone, or that
    hangs on what nobody knows, stands by itself."""
    term = display_term(limit)
    if term is None or limit.missing:
        return id(limit)
    given = tuple(each for each in limit.terms if each is not term)
    return (limit.entry_id, limit.side, given, term.kind, limit.phases, limit.ends)


def _steps(limits: list[Limit]) -> list[Limit]:
    """From the one that begins first to the hardest; one that a harder one covers is none of them."""
    steps: list[Limit] = []
    for limit in sorted(limits, key=lambda each: (-int(each.severity), _graded_term(each).room)):
        if not steps or _graded_term(limit).leaves_less_than(_graded_term(steps[-1])):
            steps.append(limit)
    return steps[::-1]


def _by_step(limits: list[Limit], steps: list[Limit]) -> list[list[Limit]]:
    """Each step with what it covers, the hardest first."""
    covered = [[step] for step in reversed(steps)]
    for limit in limits:
        if not any(limit is step for step in steps):
            own = next(k for k in covered if not _graded_term(limit).leaves_less_than(_graded_term(k[0])))
            own.append(limit)
    return covered


def _graded_words(steps: list[Limit]) -> Phrase | None:
    """Several steps as one line; ``None`` where there is no word for what else has to be the case."""
    term = _graded_term(steps[0])
    given = [each.kind[0] for each in steps[0].terms if each is not term]
    if len(given) > 1 or not all(has("lines", "graded_where", code) for code in given):
        return None
    assert term.readout is not None
    section = "graded_above" if term.above is not None else "graded_below"
    parts = tuple(
        say(
            "lines", section, limit.severity.code, limit=numbers.exact(_graded_term(limit).value, unit_of(term.readout))
        )
        for limit in steps
    )
    where = say("lines", "graded_where", given[0]) if given else NOTHING
    return say(
        "lines", "graded", name=say("readouts", term.readout.value, "name"), where=where, parts=listed(parts, "comma")
    )


def stop_words(limits: Iterable[Limit]) -> Phrase:
    """Everything that limits close as one line; nothing where they close nothing."""
    return _line(limit for limit in limits if limit.severity is Severity.STOP)


def binding_words(limits: Iterable[Limit]) -> Phrase:
    """Everything that limits close or keep under the eye as one line; nothing where there is nothing."""
    return _line(limit for limit in limits if limit.severity in (Severity.STOP, Severity.CAUTION))


def _line(limits: Iterable[Limit]) -> Phrase:
    words = list(dict.fromkeys(words for _, words in graded(limits)))
    return full_stop(listed(words)) if words else NOTHING


def full_stop(phrase: Phrase) -> Phrase:
    """A few words as a sentence."""
    return say("lines", "sentence", words=phrase)
