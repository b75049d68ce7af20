"""What is recorded as an example is cut short, fits its schema, and stays while it does."""

from typing import Any

from kumpan.tools.api_examples import gathered, missing, shortened

NUMBER = {"type": "object", "properties": {"n": {"type": "integer"}}, "required": ["n"]}


def document(schema: dict[str, Any]) -> dict[str, Any]:
    content = {"content": {"application/json": {"schema": schema}}}
    operation = {"requestBody": content, "responses": {"200": content, "404": content}}
    return {"components": {"schemas": {}}, "paths": {"/a": {"post": operation}}}


def test_lists_hold_two_items_and_texts_are_short() -> None:
    assert shortened({"a": [[1, 2, 9], [3], 4], "b": "x" * 999}) == {"a": [[1, 2], [3]], "b": "x" * 300}


def test_what_fits_stays_and_what_does_not_is_recorded_anew() -> None:
    known: dict[str, dict[str, Any]] = {
        "POST /a": {"body": {"n": 1}, "answer": {"n": "old"}},
        "POST /gone": {"body": {}},
    }
    heard: list[dict[str, Any]] = [
        {"route": "POST /a", "body": {"n": 2}, "answer": {"m": 2}},
        {"route": "POST /a", "body": {"n": 3}, "answer": {"n": 3}},
        {"route": "POST /else", "answer": {"n": 4}},
    ]
    assert gathered(document(NUMBER), known, iter(heard)) == {
        "POST /a": {"body": {"n": 1}, "answer": {"n": 3}}
    }


def test_what_only_says_that_it_was_done_needs_no_record() -> None:
    assert gathered(document({"type": "boolean"}), {}, iter(())) == {"POST /a": {"answer": True}}


def test_what_has_none_or_one_that_does_not_fit_is_named() -> None:
    assert missing(document(NUMBER), {"POST /a": {"body": {"n": "x"}}}) == [
        "POST /a: body",
        "POST /a: answer",
    ]
    assert missing(document(NUMBER), {"POST /a": {"body": {"n": 1}, "answer": {"n": 1}}}) == []
