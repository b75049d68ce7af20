"""The template catalog is the one of this code."""

import io

from babel.messages.pofile import write_po

from kumpan.tools import messages


def test_the_catalog_of_templates_is_current() -> None:
    out = io.BytesIO()
    write_po(out, messages.gathered(), omit_header=True, sort_output=True, no_location=True, width=0)
    assert messages.TEMPLATE.read_bytes() == out.getvalue(), "run ./run messages"
