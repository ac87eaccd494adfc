"""What is said: phrases (codes and parameters), their catalogues, and ``Words``, which says them in a language."""

from asketa_core.texts.catalogue import REFERENCE, codes, has, languages, parameters
from asketa_core.texts.phrases import NOTHING, Listed, Own, Param, Phrase, Said, listed, say
from asketa_core.texts.pseudo import PSEUDO, disguised
from asketa_core.texts.words import USUAL, Manner, Words, words_in

__all__ = [
    "NOTHING",
    "PSEUDO",
    "REFERENCE",
    "USUAL",
    "Listed",
    "Manner",
    "Own",
    "Param",
    "Phrase",
    "Said",
    "Words",
    "codes",
    "disguised",
    "has",
    "languages",
    "listed",
    "parameters",
    "say",
    "words_in",
]
