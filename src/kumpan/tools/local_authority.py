"""TLS for the local network: an authority of this installation's own, and a certificate for this machine.

The authority is made once and trusted by hand on each phone; the certificate is made anew when its names
change or its end comes near. Phones refuse one of more than 398 days (from memory of their makers' rules).
"""

import ipaddress
import json
import socket
import sys
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_LASTS, LEAF_LASTS = timedelta(days=3650), timedelta(days=397)
RENEW_BEFORE = timedelta(days=30)
NOWHERE = ("192.0.2.1", 9)  # documentation's own network (RFC 5737): nothing is sent to learn the own address
Key = ec.EllipticCurvePrivateKey


@dataclass(frozen=True)
class Files:
    """Where the authority and the certificate of this machine stand; only their owner reads the keys."""

    folder: Path

    @property
    def authority(self) -> Path:
        """What is trusted on a phone."""
        return self.folder / "authority.pem"

    @property
    def authority_key(self) -> Path:
        """It never leaves this machine."""
        return self.folder / "authority-key.pem"

    @property
    def certificate(self) -> Path:
        """That of this machine."""
        return self.folder / "certificate.pem"

    @property
    def key(self) -> Path:
        """Its key."""
        return self.folder / "key.pem"


def names_here() -> list[str]:
    """The names and addresses that this machine may be called by in its network."""
    names = ["localhost", "127.0.0.1", socket.gethostname().lower()]
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(NOWHERE)
            names.append(probe.getsockname()[0])
        except OSError:
            pass  # without a network there is only this machine
    return list(dict.fromkeys(names))


def ensure(folder: Path, names: Sequence[str], now: datetime) -> Files:
    """Authority and certificate for these names, made where they are missing or no longer hold."""
    files = Files(folder)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    if not (files.authority.exists() and files.authority_key.exists()):
        _make_authority(files, now)
    if not _holds(files, names, now):
        _make_certificate(files, names, now)
    return files


def _holds(files: Files, names: Sequence[str], now: datetime) -> bool:
    if not (files.certificate.exists() and files.key.exists()):
        return False
    known = x509.load_pem_x509_certificate(files.certificate.read_bytes())
    listed = known.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    called = {str(name.value) for name in listed}
    return called == set(names) and known.not_valid_after_utc - now > RENEW_BEFORE


def _make_authority(files: Files, now: datetime) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    name = _name(f"Kumpan on {socket.gethostname()}")
    built = (
        _begun(name, name, key, now=now, lasts=AUTHORITY_LASTS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
    )
    _write(files.authority_key, _pem(key))
    files.authority.write_bytes(_public(built.sign(key, hashes.SHA256())))


def _make_certificate(files: Files, names: Sequence[str], now: datetime) -> None:
    authority = x509.load_pem_x509_certificate(files.authority.read_bytes())
    by = serialization.load_pem_private_key(files.authority_key.read_bytes(), None)
    assert isinstance(by, ec.EllipticCurvePrivateKey)
    key = ec.generate_private_key(ec.SECP256R1())
    built = (
        _begun(_name(names[0]), authority.subject, key, now=now, lasts=LEAF_LASTS)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectAlternativeName([_general(one) for one in names]), critical=False)
    )
    _write(files.key, _pem(key))
    files.certificate.write_bytes(_public(built.sign(by, hashes.SHA256())))


def _begun(
    subject: x509.Name, issuer: x509.Name, key: Key, *, now: datetime, lasts: timedelta
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(hours=1))
        .not_valid_after(now - timedelta(hours=1) + lasts)
    )


def _name(text: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, text[:64])])


def _general(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=signs,
        crl_sign=signs,
        encipher_only=False,
        decipher_only=False,
    )


def _pem(key: Key) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )


def _public(certificate: x509.Certificate) -> bytes:
    return certificate.public_bytes(serialization.Encoding.PEM)


def _write(file: Path, data: bytes) -> None:
    file.unlink(missing_ok=True)
    file.touch(mode=0o600)
    file.write_bytes(data)


def main(arguments: Sequence[str]) -> int:
    """Make what is missing in a folder; say the names as JSON."""
    names = names_here()
    ensure(Path(arguments[0]), names, datetime.now(UTC))
    print(json.dumps(names))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
