"""Fault interviews: each can be gone through to each of its ends, and no end sends anybody into danger."""

from collections.abc import Iterator
from itertools import pairwise

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.maintenance.fault_tree import ASKS, ENDS, TREES, Part, Tree, interview
from kumpan.core.maintenance.procedures import OF_FILTER, PROCEDURES, own_key, procedures_for
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from tests.words import told


def paths(tree: Tree) -> Iterator[tuple[list[str], list[str]]]:
    """Each way through a tree: the answers, and the keys that it passes, the end's last."""
    open_ways: list[tuple[list[str], list[str]]] = [([], [tree.first])]
    while open_ways:
        answers, keys = open_ways.pop()
        ask = ASKS.get(keys[-1])
        if ask is None:
            yield answers, keys
            continue
        assert len(keys) <= 12, "an interview that goes round in circles"
        open_ways += [([*answers, reply.key], [*keys, reply.leads_to]) for reply in ask.replies]


ALL = [(tree, answers, keys) for tree in TREES for answers, keys in paths(tree)]


def test_every_way_comes_to_an_end_that_says_what_to_do() -> None:
    for tree, answers, keys in ALL:
        found = interview(tree.key, answers)
        assert found.end == ENDS[keys[-1]]
        assert told(ENDS[keys[-1]].action)


def test_nothing_stands_in_the_tables_that_nobody_comes_to() -> None:
    passed = {key for _, _, keys in ALL for key in keys}
    assert passed == set(ASKS) | set(ENDS)
    assert {tree.part for tree in TREES} == set(Part)


def test_no_key_is_a_question_and_an_end() -> None:
    assert not set(ASKS) & set(ENDS)


@pytest.mark.parametrize("kind", list(Filter))
def test_every_end_leads_to_a_procedure_of_this_filter(kind: Filter) -> None:
    traits = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=kind)
    here = {row.key for row in procedures_for(traits)}
    for end in ENDS.values():
        if end.procedure is not None:
            assert own_key(end.procedure, traits) in here, end.key
    assert all(set(row) == set(Filter) for row in OF_FILTER.values())
    assert not set(OF_FILTER) & set(PROCEDURES)


# Facts of the trade that cost a hand or a life where they are left out; common practice and handbook 06, 08, 11.
@pytest.mark.parametrize(
    ("end", "says"),
    [
        ("fix_timer", "Never bridge the flow switch"),
        ("heat_needs_flow", "Never bridge"),
        ("gas_trade", "touch no switch, everybody away"),
        ("motor_hums", "Off at once"),
        ("union_drips", "never tighten under pressure"),
        ("open_suction", "Never run it against a closed valve"),
        ("cleaner_starved", "nobody in the water while the main drain"),
        ("robot_service", "Never open it"),
        ("dilute_salt", "Never dose by the lamp"),
        ("sand_back", "pump off until the tank has been opened"),
        ("too_cold_outside", "never chip"),
    ],
)
def test_the_caution_stands_at_the_end_itself(end: str, says: str) -> None:
    assert says in told(ENDS[end].action)


@pytest.mark.parametrize(
    "end", ["impeller", "motor_hums", "bearings", "shaft_seal", "robot_service", "heater_trade"]
)
def test_work_on_motors_carries_the_cautions_of_electricity(end: str) -> None:
    assert ENDS[end].hazard is Hazard.ELECTRICITY
    (answers, tree) = next((answers, tree) for tree, answers, keys in ALL if keys[-1] == end)
    assert interview(tree.key, answers).cautions == HAZARDS[Hazard.ELECTRICITY].cautions


def test_a_filter_is_judged_by_a_gauge_only_once_the_gauge_was() -> None:
    """Handbook 08: it must read zero when off; gauges fail."""
    for tree, _, keys in ALL:
        if tree.key in ("pressure_high", "pressure_low"):
            assert keys[0].startswith("gauge")
            assert all(after != "gauge_new" or before.startswith("gauge") for before, after in pairwise(keys))


def test_an_unknown_fault_or_answer_is_refused_with_what_to_do() -> None:
    with pytest.raises(InvalidInput, match="use one of"):
        interview("nothing", [])
    with pytest.raises(InvalidInput, match="one step back"):
        interview("no_prime", ["maybe"])
