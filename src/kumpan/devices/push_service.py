"""A stand-in for a push service: takes encrypted messages as RFC 8030 has them, and holds them.

It checks what a real one checks: the house's signature (RFC 8292), that the message is encrypted (RFC 8188),
that it lives for a while, and that the address is known; it cannot read what it carries.
"""

import json
from base64 import urlsafe_b64decode
from collections import deque
from collections.abc import Mapping
from dataclasses import dataclass, field

from cryptography.exceptions import InvalidSignature
from cryptography.hazmat.primitives.asymmetric import ec, utils
from cryptography.hazmat.primitives.hashes import SHA256

MOST, MOST_BYTES = 200, 4096
CREATED, BAD, NOT_SIGNED, GONE, TOO_LARGE = 201, 400, 401, 410, 413


def _raw(text: str) -> bytes:
    return urlsafe_b64decode(text + "=" * (-len(text) % 4))


@dataclass
class PushService:
    """Messages by the address that they were sent to; `gone` are addresses that nobody listens at."""

    origin: str
    taken: deque[tuple[str, bytes]] = field(default_factory=lambda: deque(maxlen=MOST))
    gone: set[str] = field(default_factory=set)

    def take(self, address: str, headers: Mapping[str, str], body: bytes, *, now_s: float) -> int:
        """The status that a push service answers with."""
        if address in self.gone:
            return GONE
        if len(body) > MOST_BYTES:
            return TOO_LARGE
        if headers.get("content-encoding") != "aes128gcm" or not headers.get("ttl", "").isdigit():
            return BAD
        if not self._is_signed(headers.get("authorization", ""), now_s):
            return NOT_SIGNED
        self.taken.append((address, body))
        return CREATED

    def _is_signed(self, authorization: str, now_s: float) -> bool:
        scheme, _, rest = authorization.partition(" ")
        fields = dict(part.strip().partition("=")[::2] for part in rest.split(","))
        if scheme != "vapid" or not {"t", "k"} <= fields.keys():
            return False
        head, _, signature = fields["t"].rpartition(".")
        try:
            raw = _raw(signature)
            pair = utils.encode_dss_signature(int.from_bytes(raw[:32]), int.from_bytes(raw[32:]))
            key = ec.EllipticCurvePublicKey.from_encoded_point(ec.SECP256R1(), _raw(fields["k"]))
            key.verify(pair, head.encode(), ec.ECDSA(SHA256()))
        except (InvalidSignature, ValueError):
            return False
        claims = json.loads(_raw(head.partition(".")[2]))
        return bool(claims["aud"] == self.origin and now_s < claims["exp"] <= now_s + 24 * 3600)
