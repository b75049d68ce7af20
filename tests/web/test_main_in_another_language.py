"""A reader of the pseudo language sees every sentence accented: what is plain was not a template, or was
glued.

Names are left alone in every language: people, pools, products, chemicals, units, and the trade's signs.
"""

import re
from typing import Any
from uuid import uuid4

import pytest

from kumpan.core.products.catalogue import CATALOGUE
from tests.web.conftest import Api

# Words that stay as they are in any language: units, signs of the trade, and this pool's own names.
NAMES = {"The", "Office",
    "pH", "ppm", "mg", "L", "mL", "gal", "fl", "oz", "lb", "kg", "g", "min", "h", "psi", "bar", "gpm", "AM", "PM", "mol",
    "Test", "pool", "now", "about", "days", "weeks", "today", "tomorrow", "on", "years",
    *(word for row in CATALOGUE.values() for word in row.name.replace("(", "").replace(")", "").split()),
    "January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December",
    "Jan", "Feb", "Mar", "Apr", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec",
    "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday",
    "Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun",
}  # fmt: skip
ACCENTED = re.compile(r"[àéîöûýÀÉÎÖÛÝçñšťž⟦⟧]")
WORD = re.compile(r"[A-Za-zàéîöûýÀÉÎÖÛÝçñšťž]+")
# Fields that hold codes, references to papers, what was typed, or a person's own words.
NOT_TOLD = {
    "reference",
    "note",
    "kind",
    "typed",
    "name",
    "by",
    "place",
    "station",
    "code",
    "key",
    "label",
    "verdict",
    "days",
}


def plain_words(value: Any, field: str = "") -> list[str]:
    """Words of told fields that no template brought."""
    if isinstance(value, dict):
        return [word for name, inner in value.items() for word in plain_words(inner, name)]
    if isinstance(value, list):
        return [word for inner in value for word in plain_words(inner, field)]
    told = isinstance(value, str) and " " in value and field not in NOT_TOLD
    if not told:
        return []
    words = [word for word in WORD.findall(value) if len(word) > 1 and not ACCENTED.search(word)]
    return [f"{field}: {word} in {value!r}" for word in words if word not in NAMES and not _no_vowel(word)]


def _no_vowel(word: str) -> bool:
    """A word that accenting would leave alone."""
    return not re.search(r"[aeiouyAEIOUYcnstz]", word)


@pytest.mark.parametrize(
    "path",
    ["", "/board", "/sheet", "/today", "/care", "/log", "/outlook", "/report", "/rescue", "/season", "/benches",
     "/offer?plan=shock", "/offer?plan=lower_chlorine", "/procedures/backwash", "/season-plan?which=closing&day=2026-09-20"],
)  # fmt: skip
async def test_every_sentence_is_a_template_of_its_own(api: Api, path: str) -> None:
    pool = await api.new_pool()
    look = {"id": str(uuid4()), "clarity": "hazy", "level": "low"}
    await api.post(f"/pools/{pool}/looks", look)
    await api.test(
        pool,
        free_chlorine="0.5",
        total_chlorine="1.5",
        ph="8.2",
        total_alkalinity="60",
        calcium_hardness="700",
        cyanuric_acid="110",
        temperature_c="82",
    )
    reply = await api.client.get(f"/api/v1/pools/{pool}{path}", headers={"accept-language": "en-XA"})
    assert reply.status_code == 200
    assert plain_words(reply.json()) == []
