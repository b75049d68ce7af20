"""Paper: a document of plain parts as a tagged PDF (PDF/UA-1) in our own font, printed or read aloud."""

from dataclasses import dataclass
from html import escape
from pathlib import Path
from urllib.parse import quote

FONTS = Path(__file__).parent / "fonts"


@dataclass(frozen=True)
class Heading:
    """Of a part."""

    text: str


@dataclass(frozen=True)
class Lines:
    """One under the other; `numbered` steps, `strong` for what must be seen first, such as a caution."""

    lines: tuple[str, ...]
    numbered: bool = False
    strong: bool = False


@dataclass(frozen=True)
class Grid:
    """A table; a cell is text. `wide` columns, by number, may wrap."""

    header: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    caption: str = ""


@dataclass(frozen=True, kw_only=True)
class Chart:
    """One measure over days: points (day number, value), its band, and words for who sees none."""

    title: str
    points: tuple[tuple[float, float], ...]
    low: float | None
    high: float | None
    first: str
    last: str
    words: str


@dataclass(frozen=True)
class Picture:
    """An SVG or a JPEG, with words for who sees none; `width_mm` on paper."""

    content: bytes
    media_type: str
    words: str
    width_mm: float = 60.0


Part = Heading | Lines | Grid | Chart | Picture


@dataclass(frozen=True, kw_only=True)
class Document:
    """A page or more. `sender` and `mark`: who hands it out. `footer` stands on each page."""

    title: str
    subtitle: str
    parts: tuple[Part, ...]
    sender: str = ""
    mark: bytes | None = None
    footer: str = ""
    language: str = "en"
    wide: bool = False
    notice: bool = False


def pdf_of(document: Document) -> bytes:
    """The PDF. Nothing is fetched: every part of it is in the document or beside this file."""
    from kumpan.formats.printing import printed

    return printed(html_of(document), FONTS)


def html_of(document: Document) -> str:
    """The page that the PDF is made from."""
    mark = (
        ""
        if document.mark is None
        else _image(Picture(document.mark, "image/jpeg", f"Mark of {document.sender}", 28.0), "mark")
    )
    sender = (
        f"<p class=sender>{mark}<span>{escape(document.sender)}</span></p>" if document.sender or mark else ""
    )
    subtitle = f"<p class=subtitle>{escape(document.subtitle)}</p>" if document.subtitle else ""
    body = "".join(_part(part) for part in document.parts)
    return (
        f'<!DOCTYPE html><html lang="{escape(document.language)}"><head><meta charset=utf-8>'
        f"<title>{escape(document.title)}</title><style>{_style(document)}</style></head>"
        f"<body class={'notice' if document.notice else 'report'}>{sender}"
        f"<h1>{escape(document.title)}</h1>{subtitle}{body}</body></html>"
    )


def _part(part: Part) -> str:
    match part:
        case Heading(text):
            return f"<h2>{escape(text)}</h2>"
        case Lines(lines, numbered, strong):
            kind = "ol" if numbered else "ul"
            items = "".join(f"<li>{escape(line)}</li>" for line in lines)
            return f"<{kind} class={'strong' if strong else 'plain'}>{items}</{kind}>"
        case Grid():
            return _table(part)
        case Chart():
            return _chart(part)
        case Picture():
            return _image(part, "figure")


def _table(grid: Grid) -> str:
    caption = f"<caption>{escape(grid.caption)}</caption>" if grid.caption else ""
    head = "".join(f"<th scope=col>{escape(cell)}</th>" for cell in grid.header)
    rows = "".join(
        "<tr>" + "".join(f"<td>{escape(cell)}</td>" for cell in row) + "</tr>" for row in grid.rows
    )
    return f"<table>{caption}<thead><tr>{head}</tr></thead><tbody>{rows}</tbody></table>"


def _image(picture: Picture, kind: str) -> str:
    source = f"data:{picture.media_type},{quote(picture.content)}"
    return (
        f'<img class={kind} style="width:{picture.width_mm}mm" alt="{escape(picture.words)}" src="{source}">'
    )


WIDTH, HEIGHT, LEFT = 640.0, 110.0, 44.0


def _chart(chart: Chart) -> str:
    """A line with its band; the words beside it say the same."""
    values = [value for _, value in chart.points]
    ends = [one for one in (chart.low, chart.high) if one is not None]
    low, high = min([*values, *ends]), max([*values, *ends])
    room = (high - low) * 0.1 or 1.0
    low, high = low - room, high + room
    days = [day for day, _ in chart.points]
    span = (max(days) - min(days)) or 1.0

    def x(day: float) -> float:
        return LEFT + (day - min(days)) / span * (WIDTH - LEFT - 8)

    def y(value: float) -> float:
        return 6 + (high - value) / (high - low) * (HEIGHT - 12)

    top = y(chart.high if chart.high is not None else high)
    bottom = y(chart.low if chart.low is not None else low)
    line = " ".join(f"{x(day):.1f},{y(value):.1f}" for day, value in chart.points)
    dots = "".join(f"<circle cx='{x(day):.1f}' cy='{y(value):.1f}' r='1.8'/>" for day, value in chart.points)
    scale = "".join(
        f"<text x='{LEFT - 6}' y='{y(one) + 4:.1f}' text-anchor='end'>{one:g}</text>"
        for one in sorted(set(ends)) or [min(values), max(values)]
    )
    svg = (
        f"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 {WIDTH:g} {HEIGHT + 16:g}' font-size='11' "
        "font-family='Atkinson'>"
        f"<rect x='{LEFT}' y='{top:.1f}' width='{WIDTH - LEFT - 8:g}' height='{max(0.0, bottom - top):.1f}' "
        "fill='#e3ecea'/>"
        f"<polyline points='{line}' fill='none' stroke='#15242b' stroke-width='1.4'/>"
        f"<g fill='#15242b'>{dots}{scale}"
        f"<text x='{LEFT}' y='{HEIGHT + 13:g}'>{escape(chart.first)}</text>"
        f"<text x='{WIDTH - 8:g}' y='{HEIGHT + 13:g}' text-anchor='end'>{escape(chart.last)}</text></g></svg>"
    )
    picture = _image(Picture(svg.encode(), "image/svg+xml;charset=utf-8", chart.words, 176.0), "chart")
    return f"<section class=chart><h3>{escape(chart.title)}</h3>{picture}</section>"


def _style(document: Document) -> str:
    size = "Letter landscape" if document.wide else "Letter"
    footer = document.footer.replace("\\", "").replace('"', "'").replace("\n", " ")
    return f"""
@font-face {{ font-family: Atkinson; src: url(atkinson-hyperlegible-next-latin-wght-normal.woff2);
  font-weight: 200 800; unicode-range: U+0000-00FF, U+2000-206F, U+20AC, U+2212; }}
@font-face {{ font-family: Atkinson; src: url(atkinson-hyperlegible-next-latin-ext-wght-normal.woff2);
  font-weight: 200 800; unicode-range: U+0100-02BA, U+1E00-1E9F; }}
@page {{ size: {size}; margin: 16mm 16mm 18mm;
  @bottom-left {{ content: "{footer}"; font: 8pt Atkinson; color: #4c5b61; }}
  @bottom-right {{ content: counter(page) " / " counter(pages); font: 8pt Atkinson; color: #4c5b61; }} }}
body {{ font: 10.5pt/1.4 Atkinson; color: #15242b; }}
h1 {{ font-size: 21pt; line-height: 1.15; margin: 0; }}
h2 {{ font-size: 13pt; margin: 5mm 0 1.5mm; break-after: avoid; }}
h3 {{ font-size: 10.5pt; margin: 0 0 1mm; }}
p {{ margin: 0 0 2mm; }}
.sender {{ font-weight: 650; margin-bottom: 4mm; }}
.mark {{ max-height: 16mm; object-fit: contain; margin-right: 4mm; }}
.subtitle {{ color: #4c5b61; font-size: 12pt; }}
ul, ol {{ margin: 0 0 2mm; padding-left: 5mm; }} li {{ margin-bottom: 0.8mm; }}
.strong {{ list-style: none; padding: 2.5mm 4mm; border: 1.5pt solid #15242b; border-radius: 2mm; }}
.strong li {{ font-weight: 650; }}
table {{ width: 100%; border-collapse: collapse; font-size: 9pt; margin-bottom: 3mm; }}
caption {{ text-align: left; font-weight: 650; margin-bottom: 1mm; }}
th {{ text-align: left; border-bottom: 1pt solid #15242b; padding: 1mm 1.5mm; vertical-align: bottom; }}
td {{ border-bottom: 0.4pt solid #b9b39f; padding: 1mm 1.5mm; vertical-align: top; }}
tr {{ break-inside: avoid; }} thead {{ display: table-header-group; }}
.chart {{ break-inside: avoid; margin-bottom: 3mm; }} img {{ display: block; }}
.notice {{ text-align: center; }} .notice h1 {{ font-size: 46pt; margin-top: 18mm; }}
.notice .subtitle {{ font-size: 20pt; color: #15242b; }}
.notice ul {{ list-style: none; padding: 3mm 6mm; font-size: 15pt; }}
.notice .strong {{ font-size: 20pt; }} .notice .figure {{ margin: 10mm auto 3mm; }}
"""
