"""Messages in words, for one reader. The only place where a template meets its values.

A template is looked up whole in the catalog of the reader's language; US English is the source language and
needs none. Values are rendered by what they are; a message inside a message is a name, translated by itself.
"""

import re
from functools import singledispatch
from typing import cast

from kumpan.core.messages import Cased, Listed, Message, Plural, Value, Verbatim
from kumpan.core.quantity import Quantity
from kumpan.wording.catalogs import catalog_of
from kumpan.wording.quantities import quantity_text
from kumpan.wording.reader import US_READER, Reader

_NAME = re.compile(r"\{(\w+)\}")


def render(message: Message, reader: Reader = US_READER) -> str:
    """The message in the reader's words. Raises KeyError where a template names a value that is not given."""
    if not message.template:
        return ""
    values = dict(message.values)
    template = catalog_of(reader.language).one(message.template)
    return _NAME.sub(lambda found: value_text(values[found[1]], reader), template)


def value_text(value: Value, reader: Reader = US_READER) -> str:
    """One value of a message in the reader's words."""
    return _render_value(value, reader)


@singledispatch
def _render_value(value: Value, reader: Reader) -> str:
    return quantity_text(cast("Quantity", value), reader)


@_render_value.register
def _(value: Message, reader: Reader) -> str:
    return render(value, reader)


@_render_value.register
def _(value: Verbatim, reader: Reader) -> str:  # noqa: ARG001
    return value.text


@_render_value.register
def _(value: Cased, reader: Reader) -> str:
    text = render(value.words, reader)
    if value.upper:
        return text[:1].upper() + text[1:]
    return text if text.startswith("pH") else text[:1].lower() + text[1:]


@_render_value.register
def _(value: Plural, reader: Reader) -> str:
    words = catalog_of(reader.language).plural(value.one, value.many, value.n)
    return words.replace("{n}", str(value.n))


@_render_value.register
def _(value: Listed, reader: Reader) -> str:
    texts = [text for item in value.items if (text := value_text(item, reader))]
    if value.joined_by != "and":
        return value.joined_by.join(texts)
    if len(texts) < 2:
        return "".join(texts)
    last_two = catalog_of(reader.language).one("{first} and {last}")
    return last_two.replace("{first}", ", ".join(texts[:-1])).replace("{last}", texts[-1])
