"""Translations by language, read with gettext from the compiled catalogs that ship with the package.

US English is the source: its templates are their own translation. The pseudo language marks and accents every
template, so that a test sees what was not one.
"""

import gettext
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Protocol

from babel.core import negotiate_locale

from kumpan.wording.reader import PSEUDO

CATALOGS = Path(__file__).parent / "catalogs"
DOMAIN = "kumpan"
_ACCENTS = str.maketrans("aeiouyAEIOUYcnstz", "àéîöûýÀÉÎÖÛÝçñšťž")


class Catalog(Protocol):
    """The texts of one language."""

    def one(self, template: str) -> str:
        """The template in this language."""
        ...

    def plural(self, one: str, many: str, n: int) -> str:
        """The form that this language has for `n`."""
        ...


@dataclass(frozen=True)
class _Gettext:
    translations: gettext.NullTranslations

    def one(self, template: str) -> str:
        return self.translations.gettext(template)

    def plural(self, one: str, many: str, n: int) -> str:
        return self.translations.ngettext(one, many, n)


class _Pseudo:
    """Every template accented, the names of its values left alone."""

    def one(self, template: str) -> str:
        return accented(template)

    def plural(self, one: str, many: str, n: int) -> str:
        return accented(one if n == 1 else many)


def accented(template: str) -> str:
    """A template as the pseudo language has it: marked at both ends, its letters accented."""
    parts = template.split("{")
    rest = [
        f"{{{name}}}{words.translate(_ACCENTS)}" for name, _, words in (p.partition("}") for p in parts[1:])
    ]
    return "⟦" + parts[0].translate(_ACCENTS) + "".join(rest) + "⟧"


@lru_cache(maxsize=32)
def catalog_of(language: str) -> Catalog:
    """The catalog of a language; US English where there is none."""
    if language == PSEUDO:
        return _Pseudo()
    return _Gettext(gettext.translation(DOMAIN, CATALOGS, [language], fallback=True))


def languages() -> tuple[str, ...]:
    """The source language and those that the program ships a catalog of."""
    shipped = (path.parent.parent.name for path in CATALOGS.glob(f"*/LC_MESSAGES/{DOMAIN}.mo"))
    return ("en_US", PSEUDO, *sorted(shipped))


def best_language(accepted: Sequence[str]) -> str:
    """The first language that a client accepts and the program has; US English where there is none."""
    return negotiate_locale([tag.replace("-", "_") for tag in accepted], languages()) or "en_US"
