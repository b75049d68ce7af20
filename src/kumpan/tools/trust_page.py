"""The page on plain http that tells a phone in four steps how to trust this installation, and no more."""

import html
import http.server
import sys
from collections.abc import Sequence
from pathlib import Path

import segno

PAGE = """<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1"><title>Trust this Kumpan</title>
<style>body{{font:1.1rem/1.5 sans-serif;max-width:34rem;margin:1rem auto;padding:0 1rem;color:#14242c;
background:#f7f4ee}}li{{margin:.8rem 0}}a{{color:#0b4f6c}}</style>
<h1>Trust this Kumpan</h1>
<p>This phone does not know yet who is at {address}. Once for each phone:</p>
<ol>
<li><a href="/authority.pem">Get the authority's certificate</a> and let the phone keep it. Do this at home,
in a network that you trust.</li>
<li>In the phone's settings look for "certificate" or "profile" (often under Security, or under General), and
install the file as a certificate authority.</li>
<li>Some phones then want it switched on: under About, Certificate Trust Settings.</li>
<li>Open <a href="{address}">{address}</a>. It stays trusted; take it out again the same way.</li>
</ol>"""
PEM = "application/x-x509-ca-cert"


def page_for(address: str) -> str:
    """The page, for the address that it leads to."""
    return PAGE.format(address=html.escape(address, quote=True))


def handler_for(address: str, authority: Path) -> type[http.server.BaseHTTPRequestHandler]:
    """Answers with the page or the certificate, and with nothing else."""

    class Handler(http.server.BaseHTTPRequestHandler):
        server_version = "trust"
        sys_version = ""

        def log_message(self, format: str, *args: object) -> None:
            """Say nothing."""

        def do_GET(self) -> None:
            """The page, or the certificate."""
            wants_pem = self.path == "/authority.pem"
            body = authority.read_bytes() if wants_pem else page_for(address).encode()
            self.send_response(200)
            self.send_header("content-type", PEM if wants_pem else "text/html; charset=utf-8")
            self.send_header("content-length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

    return Handler


def main(arguments: Sequence[str]) -> int:
    """Print the addresses with a QR code of the page, and serve it until ended: PORT ADDRESS PAGE FILE."""
    port, address, page, authority = arguments
    print(f"On a phone of this network: {address}\nHow to trust it, on plain http: {page}", flush=True)
    segno.make(page, error="m").terminal(out=sys.stdout, compact=True)
    sys.stdout.flush()
    server = http.server.ThreadingHTTPServer(("0.0.0.0", int(port)), handler_for(address, Path(authority)))
    server.serve_forever()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
