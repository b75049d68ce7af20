"""Behind nginx from Debian, with the very file of `deploy/`: TLS ends there, and nobody claims another address."""

import ssl
import subprocess
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

import httpx
import pytest

from kumpan.tools.local_authority import ensure
from kumpan.tools.packages import NGINX, ROOT
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running

pytestmark = pytest.mark.browser
CODE, WORDS = "terminal", "three words of mine"
AROUND = """
daemon off;
pid {folder}/nginx.pid;
error_log {folder}/error.log;
events {{ }}
http {{
    access_log off;
    client_body_temp_path {folder}/body;
    proxy_temp_path {folder}/proxy;
    fastcgi_temp_path {folder}/fastcgi;
    uwsgi_temp_path {folder}/uwsgi;
    scgi_temp_path {folder}/scgi;
    include {folder}/kumpan.conf;
}}
"""


@dataclass
class Proxied:
    """Kumpan behind nginx: where it answers with and without TLS, and what is to be trusted."""

    running: Running
    secure: str
    plain: str
    trusted: ssl.SSLContext

    def client(self, **headers: str) -> httpx.Client:
        return httpx.Client(base_url=self.secure, verify=self.trusted, headers=headers, timeout=30)


@pytest.fixture(scope="module")
def proxied() -> Iterator[Proxied]:
    with tempfile.TemporaryDirectory(prefix="kumpan-proxy-") as name, pytest.MonkeyPatch.context() as patch:
        folder = Path(name)
        patch.setenv("KUMPAN_HOSTS", "localhost,127.0.0.1")
        patch.setenv("KUMPAN_FIRST_CODE", CODE)
        running = Running(free_port(), folder / "data", proxy=True)
        nginx: subprocess.Popen[bytes] | None = None
        try:
            running.start(demo=False)
            files = ensure(folder / "tls", ["localhost"], datetime.now(UTC))
            secure, plain = free_port(), free_port()
            ours = (ROOT / "deploy/nginx.conf").read_text()
            for theirs, here in (
                ("listen 80;", f"listen 127.0.0.1:{plain};"),
                ("listen 443 ssl;", f"listen 127.0.0.1:{secure} ssl;"),
                ("server_name pools.example.org;", "server_name localhost;"),
                ("/etc/ssl/kumpan/certificate.pem", str(files.certificate)),
                ("/etc/ssl/kumpan/key.pem", str(files.key)),
                ("127.0.0.1:8000", f"127.0.0.1:{running.port}"),
            ):
                assert theirs in ours
                ours = ours.replace(theirs, here)
            (folder / "kumpan.conf").write_text(ours)
            (folder / "nginx.conf").write_text(AROUND.format(folder=folder))
            nginx = subprocess.Popen([NGINX, "-p", name, "-c", str(folder / "nginx.conf")])
            found = Proxied(
                running,
                f"https://localhost:{secure}",
                f"http://localhost:{plain}",
                ssl.create_default_context(cafile=files.authority),
            )
            transport = httpx.HTTPTransport(verify=found.trusted, retries=8)  # until nginx listens
            with httpx.Client(transport=transport) as first:
                first.get(found.secure + "/api/health").raise_for_status()
            yield found
        finally:
            if nginx is not None:
                nginx.terminate()
                nginx.wait(20)
            running.stop()


def test_tls_ends_at_the_proxy_and_the_session_is_bound_to_it(proxied: Proxied) -> None:
    away = httpx.get(proxied.plain + "/pools?x=1", follow_redirects=False)
    assert (away.status_code, away.headers["location"]) == (308, "https://localhost/pools?x=1")
    with proxied.client(origin=proxied.secure) as client:
        first = {"code": CODE, "name": "Mara Vell", "login": "mara", "password": WORDS}
        begun = client.post("/api/v1/auth/first", json=first)
        assert begun.status_code == 200, begun.text
        cookie = begun.headers["set-cookie"]
        assert cookie.startswith("__Host-kumpan=")
        assert {"Secure", "HttpOnly", "Path=/"} <= {part.strip() for part in cookie.split(";")}
        assert begun.headers["strict-transport-security"].startswith("max-age=")
        assert "nginx/" not in begun.headers.get("server", "")
        assert client.get("/api/v1/me").json()["me"]["name"] == "Mara Vell"
        assert client.get("/").headers["content-security-policy"].startswith("default-src 'self'")


def test_another_sites_page_and_another_name_are_refused_there_too(proxied: Proxied) -> None:
    with proxied.client(origin="https://elsewhere.example") as client:
        assert client.post("/api/v1/auth/sign-in", json={"login": "a", "password": "b"}).status_code == 403
    with proxied.client(host="elsewhere.example") as client:
        assert client.get("/api/v1/auth/state").status_code == 421


def test_a_sender_who_claims_another_address_is_counted_under_its_own(proxied: Proxied) -> None:
    """Each attempt names another address; all the same they are counted as one sender's."""
    statuses = []
    for n in range(12):
        headers = {"x-forwarded-for": f"198.51.100.{n}", "forwarded": f"for=198.51.100.{n}"}
        with proxied.client(**headers) as client:
            tried = client.post("/api/v1/auth/sign-in", json={"login": "nobody", "password": f"wrong {n}"})
        statuses.append(tried.status_code)
    assert statuses == [401] * 10 + [429] * 2


def test_a_body_over_the_limit_ends_at_the_proxy(proxied: Proxied) -> None:
    with proxied.client() as client:
        sent = client.post("/api/v1/auth/sign-in", content=b" " * 1_100_000)
    assert sent.status_code == 413
