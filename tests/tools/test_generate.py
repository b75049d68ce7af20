"""The OpenAPI document and the emergency page are those of this code, not of an older one."""

from kumpan.tools import generate
from kumpan.tools.packages import OPENAPI


def test_the_openapi_document_is_current() -> None:
    assert OPENAPI.read_text() == generate.openapi_text(), "run ./run generate"


def test_the_emergency_page_is_current() -> None:
    assert generate.EMERGENCY.read_text() == generate.emergency_text(), "run ./run generate"


def test_the_hazardous_classes_are_current() -> None:
    assert generate.HAZARDOUS.read_text() == generate.hazardous_text(), "run ./run generate"


def test_the_digits_of_a_reading_are_current() -> None:
    assert generate.SHOWN.read_text() == generate.shown_digits_text(), "run ./run generate"
