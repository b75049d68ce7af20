"""Papers as PDF: tagged for screen readers (ISO 14289-1, PDF/UA-1), our own font inside, nothing fetched."""

import io
import socket
from typing import Any

import pytest
from pypdf import PdfReader

from kumpan.formats.pdf import Chart, Document, Grid, Heading, Lines, Picture, html_of, pdf_of
from tests.formats.test_images import picture

CHART = Chart(
    title="pH",
    points=((0.0, 7.2), (3.0, 7.6), (9.0, 7.4)),
    low=7.2,
    high=7.6,
    first="Jun 1",
    last="Jun 10",
    words="last 7.4",
)
WHOLE = Document(
    title="Mill <pond> & weir",
    subtitle="Visit of June 3",
    sender='Varga "Care" & Co',
    mark=picture(60, 40),
    footer='a "quoted" footer \\ line',
    parts=(
        Heading("The water"),
        Lines(("Goggles on.", "<b>No tag</b>"), strong=True),
        Lines(("first", "second"), numbered=True),
        Grid(("Day", "pH"), tuple((f"2026-06-{n:02}", "7.4") for n in range(1, 31)), caption="Tests"),
        CHART,
        Picture(b"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 1 1'/>", "image/svg+xml", "a code"),
    ),
)


def read(document: Document) -> PdfReader:
    return PdfReader(io.BytesIO(pdf_of(document)))


def test_it_is_tagged_titled_and_says_its_language() -> None:
    found = read(WHOLE)
    root: Any = found.trailer["/Root"]
    assert root["/MarkInfo"]["/Marked"] == True  # noqa: E712 - a value of the file's own kind
    assert root["/Lang"] == "en"
    assert "/StructTreeRoot" in root
    assert found.metadata is not None
    assert found.metadata.title == "Mill <pond> & weir"
    assert b"pdfuaid:part" in root["/Metadata"].get_object().get_data()


def test_words_stand_as_they_are_and_never_as_markup() -> None:
    text = "".join(page.extract_text() for page in read(WHOLE).pages)
    for words in ("Mill <pond> & weir", "<b>No tag</b>", 'Varga "Care" & Co', "2026-06-30", "Goggles on."):
        assert words in text
    assert "<b>No tag" not in html_of(WHOLE)


def test_only_our_font_is_inside() -> None:
    resources: list[Any] = [page["/Resources"] for page in read(WHOLE).pages]
    fonts = {str(font.get_object()["/BaseFont"]) for one in resources for font in one["/Font"].values()}
    assert fonts
    assert all("Atkinson" in name for name in fonts), fonts


def test_nothing_is_fetched(monkeypatch: pytest.MonkeyPatch) -> None:
    def refused(*_: object, **__: object) -> None:
        raise AssertionError("a paper reached for the network")

    monkeypatch.setattr(socket, "create_connection", refused)
    monkeypatch.setattr(socket.socket, "connect", refused)
    assert pdf_of(WHOLE).startswith(b"%PDF-1.")


def test_a_long_table_repeats_its_head_on_each_page() -> None:
    rows = tuple((f"row {n}", "x") for n in range(120))
    found = read(Document(title="t", subtitle="", parts=(Grid(("Head of it", "b"), rows),)))
    assert len(found.pages) > 2
    assert all("Head of it" in page.extract_text() for page in found.pages)


@pytest.mark.parametrize("points", [((0.0, 5.0), (0.0, 5.0)), ((0.0, -1.0), (1.0, 1e9))])
def test_a_chart_of_one_value_or_of_extremes_is_drawn(points: tuple[tuple[float, float], ...]) -> None:
    chart = Chart(title="x", points=points, low=None, high=None, first="a", last="b", words="w")
    assert "nan" not in html_of(Document(title="t", subtitle="", parts=(chart,))).lower()
