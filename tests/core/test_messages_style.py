"""How it speaks (product.md): short plain sentences, no exclamation marks, no scolding, the trade's words;
in every table.
"""

import re
from collections.abc import Iterator

import pytest

from kumpan.core.algae.boosters import BOOSTERS, RULE
from kumpan.core.algae.causes import PREVENTION
from kumpan.core.algae.drain_day import BEFORE, EMPTY, OUT, STARTUP
from kumpan.core.algae.identify import KINDS, QUESTIONS
from kumpan.core.algae.preparing import AFTER, CLEAN_FILTER, PREPARE
from kumpan.core.algae.severity import SEVERITIES
from kumpan.core.hazards import EMERGENCIES, HAZARDS, STORAGE_RULES
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.messages import Message
from kumpan.core.season.plans import CLOSING, OPENING
from kumpan.core.training.scenarios import SCENARIOS
from tests.words import told

SCOLDING = re.compile(
    r"\byou (forgot|failed|should have|must have|neglected)\b|\b(shame|careless|stupid|lazy|obviously)\b",
    re.I,
)
LONGEST_SENTENCE = 40  # words: more and nobody reads it at the water's edge


def _of_safety_and_season() -> Iterator[tuple[str, Message]]:
    for row in (*OPENING, *CLOSING):
        yield f"season/{row.key}", row.title
        yield f"season/{row.key}", row.text
    for hazard in HAZARDS.values():
        yield from ((f"hazard/{hazard.hazard}", caution) for caution in hazard.cautions)
    for emergency in EMERGENCIES:
        yield from ((f"emergency/{emergency.key}", measure) for measure in emergency.measures)
    yield from (("storage", rule) for rule in STORAGE_RULES)
    for scenario in SCENARIOS.values():
        yield from (
            (f"practice/{scenario.key}", text) for text in (scenario.title, scenario.story, scenario.lesson)
        )
    for booster in BOOSTERS:
        yield f"booster/{booster.key}", booster.text
    yield "boosters", RULE


def _of_the_rescue() -> Iterator[tuple[str, Message]]:
    yield from (("prevention", line) for line in PREVENTION)
    for step in (*BEFORE, *OUT, *EMPTY, *STARTUP):
        yield "drain day", step.title
        yield "drain day", step.why
    for kind in KINDS:
        yield from ((f"kind/{kind.kind}", text) for text in (kind.name, kind.what, kind.settles, kind.then))
    for question in QUESTIONS:
        yield f"key/{question.key}", question.text
        yield from ((f"key/{question.key}", choice.label) for choice in question.choices)
    for prepared in PREPARE:
        yield "prepare", prepared.title
        yield "prepare", prepared.why
    for title, why, _ in AFTER:
        yield "after", title
        yield "after", why
    for title, _ in CLEAN_FILTER.values():
        yield "filter", title
    for severity in SEVERITIES.values():
        yield from (
            (f"severity/{severity.severity}", text)
            for text in (severity.name, severity.visual_check, severity.brush)
        )


def _of_care() -> Iterator[tuple[str, Message]]:
    for procedure in PROCEDURES.values():
        yield f"procedure/{procedure.key}", procedure.title
        yield from ((f"procedure/{procedure.key}", step.text) for step in procedure.steps)
    for task in TASKS.values():
        yield "task", task.title


# Every sentence of a table that a person reads, with where it stands.
ALL = [(where, told(text)) for where, text in (*_of_safety_and_season(), *_of_the_rescue(), *_of_care())]


def test_there_is_much_to_read() -> None:
    assert len(ALL) > 350


@pytest.mark.parametrize(
    ("rule", "wrong"),
    [
        ("no exclamation mark", re.compile("!")),
        ("no scolding", SCOLDING),
        (
            "no capitals but those on a valve",
            re.compile(r"\b(?!BACKWASH|RINSE|FILTER|WASTE|CLOSED|WINTER|RECIRCULATE)[A-Z]{5,}\b"),
        ),
        ("no space doubled or before a stop", re.compile(r"  | [,.;:](?!\d)")),
        ("no dash in place of a comma", re.compile("—| -- ")),
        ("no please", re.compile(r"\bplease\b", re.IGNORECASE)),
    ],
)
def test_every_table_speaks_plainly(rule: str, wrong: re.Pattern[str]) -> None:
    assert [(where, text) for where, text in ALL if wrong.search(text)] == [], rule


def test_no_sentence_is_longer_than_one_breath() -> None:
    long = [
        (where, sentence)
        for where, text in ALL
        for sentence in re.split(r"(?<=[.;:?])\s", text)
        if len(sentence.split()) > LONGEST_SENTENCE
    ]
    assert long == []


def test_nothing_is_empty_and_every_line_begins_like_a_sentence() -> None:
    for where, text in ALL:
        assert text.strip() == text, where
        assert text, where
        assert text[0].isupper() or text[0].isdigit() or text.startswith("pH"), (where, text)


def test_temperatures_are_told_in_both_units_where_both_are_read() -> None:
    """A Fahrenheit in a table has its Celsius beside it: the words are the same in both systems."""
    alone = [(where, text) for where, text in ALL if re.search(r"\d\s?°F(?! \()", text)]
    assert alone == []


def test_what_is_done_with_a_product_defers_to_its_label() -> None:
    """Sequestrant, algaecide, boosters: by the label, since their strengths are their makers'."""
    for where, text in ALL:
        if where == "prepare" and "Sequestrant" in text:
            assert "label" in text
    assert "label" in told(RULE)
    algaecides = [
        row
        for row in (*OPENING, *CLOSING)
        if row.key == "sequestrant" or "algaecide, if" in told(row.text).lower()
    ]
    assert all("label" in told(row.text) for row in algaecides)
