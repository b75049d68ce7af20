"""On the local network: TLS that a phone can trust, the page that says how, and nothing on plain http."""

import json
import re
import ssl
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running, answers
from kumpan.tools.trust_page import page_for


def test_the_page_leads_to_the_certificate_and_the_address() -> None:
    page = page_for('https://shed.local:8000/"><script>')
    assert "<script>" not in page
    assert page.count("<li>") == 4
    assert 'href="/authority.pem"' in page


def test_a_phone_of_the_network_trusts_it_once_it_trusts_the_authority(
    tmp_path: Path, capfd: pytest.CaptureFixture[str]
) -> None:
    running = Running(free_port(), tmp_path / "data", lan=True)
    try:
        running.start(demo=False)
        assert running.address.startswith("https://")
        assert answers(f"{running.address}/api/health", running.trusted)
        with pytest.raises(urllib.error.URLError, match="CERTIFICATE_VERIFY_FAILED"):
            urllib.request.urlopen(f"{running.address}/api/health", timeout=5)
        stranger = urllib.request.Request(f"{running.address}/api/health", headers={"Host": "evil.example"})
        with pytest.raises(urllib.error.HTTPError, match="421"):
            urllib.request.urlopen(stranger, timeout=5, context=running.trusted)
        first = {
            "code": running.first_code,
            "name": "Mara",
            "login": "mara",
            "password": "three words of mine",
        }
        post = urllib.request.Request(
            f"{running.address}/api/v1/auth/first",
            json.dumps(first).encode(),
            {"content-type": "application/json", "x-forwarded-for": "203.0.113.9"},
        )
        with urllib.request.urlopen(post, timeout=20, context=running.trusted) as reply:
            cookie = reply.headers["set-cookie"]
        assert cookie.startswith("__Host-kumpan=")
        assert "; Secure" in cookie
        said = ""
        while "on plain http" not in said:
            said += capfd.readouterr().out
        page = re.search(r"on plain http: (http://\S+)", said)
        assert page is not None
        local = re.sub(r"//[^:/]+", "//127.0.0.1", page.group(1))
        with urllib.request.urlopen(local, timeout=5) as reply:
            assert "Trust this Kumpan" in reply.read().decode()
        with urllib.request.urlopen(f"{local}authority.pem", timeout=5) as reply:
            assert ssl.PEM_cert_to_DER_cert(reply.read().decode())
        with urllib.request.urlopen(f"{local}api/v1/pools", timeout=5) as reply:
            assert "Trust this Kumpan" in reply.read().decode(), "nothing else is there"
    finally:
        running.stop()
