"""The authority of an installation: its certificate convinces TLS, holds a year, and is renewed in time."""

import ssl
import stat
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509

from kumpan.tools.local_authority import Files, ensure, main, names_here

NOW = datetime.now(UTC)  # TLS itself looks at the clock
NAMES = ["localhost", "127.0.0.1", "shed.local"]


def certificate(files: Files) -> x509.Certificate:
    return x509.load_pem_x509_certificate(files.certificate.read_bytes())


def test_the_certificate_is_signed_by_the_authority_for_these_names(tmp_path: Path) -> None:
    files = ensure(tmp_path / "tls", NAMES, NOW)
    authority = x509.load_pem_x509_certificate(files.authority.read_bytes())
    own = certificate(files)
    own.verify_directly_issued_by(authority)
    lasts = own.not_valid_after_utc - own.not_valid_before_utc
    assert lasts <= timedelta(days=397), "phones refuse longer ones (common practice of their makers)"
    constraints = authority.extensions.get_extension_for_class(x509.BasicConstraints).value
    assert (constraints.ca, constraints.path_length) == (True, 0)
    assert not own.extensions.get_extension_for_class(x509.BasicConstraints).value.ca


def test_keys_are_readable_by_their_owner_only(tmp_path: Path) -> None:
    files = ensure(tmp_path / "tls", NAMES, NOW)
    assert [stat.S_IMODE(one.stat().st_mode) for one in (files.key, files.authority_key)] == [0o600, 0o600]


@pytest.mark.parametrize(
    ("names", "later", "renewed"),
    [
        (NAMES, timedelta(days=1), False),
        ([*NAMES, "192.168.1.5"], timedelta(days=1), True),
        (NAMES, timedelta(days=370), True),
    ],
)
def test_it_is_made_anew_for_other_names_or_near_its_end(
    tmp_path: Path, names: list[str], later: timedelta, renewed: bool
) -> None:
    files = ensure(tmp_path / "tls", NAMES, NOW)
    first, authority = certificate(files).serial_number, files.authority.read_bytes()
    ensure(tmp_path / "tls", names, NOW + later)
    assert (certificate(files).serial_number != first) == renewed
    assert files.authority.read_bytes() == authority, "phones trust it already"


def test_this_machine_is_called_by_its_names(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([str(tmp_path / "tls")]) == 0
    assert names_here()[0] == "localhost"
    assert '"127.0.0.1"' in capsys.readouterr().out
    context = ssl.create_default_context(cafile=tmp_path / "tls/authority.pem")
    assert context.get_ca_certs()
