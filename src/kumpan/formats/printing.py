"""HTML printed to a tagged PDF (PDF/UA-1) by WeasyPrint, which is loaded with the first paper asked for."""

from pathlib import Path

from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse


def printed(html: str, fonts: Path) -> bytes:
    """The PDF. Nothing is fetched: every part of it is in the document or in the folder of fonts.

    Raises ValueError for an address outside them.
    """
    page = HTML(string=html, base_url=fonts.as_uri() + "/", url_fetcher=_OwnOnly(fonts))
    return bytes(page.write_pdf(font_config=FontConfiguration(), pdf_variant="pdf/ua-1", pdf_tags=True))


class _OwnOnly(URLFetcher):  # type: ignore[misc]  # WeasyPrint has no types
    """The fonts and the data in the document; anything else is a fault."""

    def __init__(self, fonts: Path) -> None:
        super().__init__()
        self._fonts = fonts

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        """What stands at an address of the document. Raises ValueError for one outside it."""
        if url.startswith("data:"):
            return super().fetch(url, headers)
        file = self._fonts / url.rpartition("/")[2]
        if file.suffix != ".woff2" or not file.is_file():
            raise ValueError(f"{url} is not of this document")
        return URLFetcherResponse(url, file.read_bytes(), {"Content-Type": "font/woff2"})
