"""A limit in words: its sentence with its figures, the few words for lists, and the facts it hangs on."""

from __future__ import annotations

from collections.abc import Iterable

from asketa_core.limits.model import Limit, Severity, Term
from asketa_core.poses.posture import unit_of
from asketa_core.words import numbers
from asketa_core.words.catalogue import listing, lookup, say, sentence_case


def display_term(limit: Limit) -> Term | None:
    """The term a sentence quotes: the last read-out, which is the one the row is about."""
    return next((term for term in reversed(limit.terms) if term.readout is not None), None)


def limit_words(limit: Limit, voice: str) -> str:
    """The catalogue's sentence for a limit, with its figures."""
    figures = [numbers.exact(term.value, unit_of(term.readout)) for term in limit.terms if term.readout is not None]
    last = display_term(limit)
    shown = f"{round(last.value, 1):g}" if last is not None else ""
    words = say("limits", limit.code, voice, limit=shown, limits=listing(figures))
    if not limit.missing or voice != "therapist":
        return words
    return say("open", "therapist", facts=listing(missing_facts([limit])), why=words[:1].lower() + words[1:])


def missing_facts(limits: Iterable[Limit]) -> list[str]:
    """The facts nobody knows and that decide whether limits hold, each once."""
    return list(
        dict.fromkeys(str(lookup("missing", limit.entry_kind, fact)) for limit in limits for fact in limit.missing)
    )


def short_words(limits: Iterable[Limit]) -> list[str]:
    """The few words each limit has for lists, each once."""
    return list(dict.fromkeys(_short(limit) for limit in limits))


def _short(limit: Limit) -> str:
    term = display_term(limit)
    return say("limits", limit.code, "short", limit="" if term is None else f"{round(term.value, 1):g}")


def stop_words(limits: Iterable[Limit]) -> str:
    """Everything that limits close as one line; empty where they close nothing."""
    return _line(limit for limit in limits if limit.severity is Severity.STOP)


def binding_words(limits: Iterable[Limit]) -> str:
    """Everything that limits close or keep under the eye as one line; empty where there is nothing."""
    return _line(limit for limit in limits if limit.severity in (Severity.STOP, Severity.CAUTION))


def _line(limits: Iterable[Limit]) -> str:
    words = ", ".join(short_words(limits))
    return f"{sentence_case(words)}." if words else ""
