"""A limit in words: its sentence with its figures, the few words for lists, and the facts it hangs on."""

from __future__ import annotations

from collections.abc import Iterable

from asketa_core.limits.model import Limit, SaidBy, Severity, Term
from asketa_core.poses.posture import unit_of
from asketa_core.texts import NOTHING, Phrase, listed, say
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


def stop_words(limits: Iterable[Limit]) -> Phrase:
    """Everything that limits close as one line; nothing where they close nothing."""
    return _line(limit for limit in limits if limit.severity is Severity.STOP)


def binding_words(limits: Iterable[Limit]) -> Phrase:
    """Everything that limits close or keep under the eye as one line; nothing where there is nothing."""
    return _line(limit for limit in limits if limit.severity in (Severity.STOP, Severity.CAUTION))


def _line(limits: Iterable[Limit]) -> Phrase:
    words = short_words(limits)
    return full_stop(listed(words)) if words else NOTHING


def full_stop(phrase: Phrase) -> Phrase:
    """A few words as a sentence."""
    return say("lines", "sentence", words=phrase)
