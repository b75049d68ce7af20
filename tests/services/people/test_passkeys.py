"""Passkeys over HTTP, made by an authenticator of ours: W3C Web Authentication Level 3, ES256, no attestation.

The layout of authenticator data (6.1) and of the signature (6.3.3) is from memory of the standard.
"""

import json
from collections.abc import AsyncIterator
from dataclasses import dataclass, field
from hashlib import sha256
from secrets import token_bytes

import cbor2
import pytest_asyncio
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from webauthn.helpers import base64url_to_bytes, bytes_to_base64url

from kumpan.services.people.throttle import PER_ACCOUNT
from kumpan.web.auth.door import Door
from tests.web.conftest import Api, Json, running

FIRM = {"code": "terminal", "name": "Mara Vell", "login": "mara", "password": "three words of mine"}
PRESENT_AND_VERIFIED, PRESENT, ATTESTED = 0x05, 0x01, 0x40


@dataclass
class Device:
    """One device with a lock: a key pair, a counter, and the origin that its browser tells."""

    origin: str = "http://localhost"
    flags: int = PRESENT_AND_VERIFIED
    key: ec.EllipticCurvePrivateKey = field(default_factory=lambda: ec.generate_private_key(ec.SECP256R1()))
    id: bytes = field(default_factory=lambda: token_bytes(32))
    counter: int = 0

    def made(self, options: Json) -> str:
        numbers = self.key.public_key().public_numbers()
        key = {1: 2, 3: -7, -1: 1, -2: numbers.x.to_bytes(32), -3: numbers.y.to_bytes(32)}
        attested = bytes(16) + len(self.id).to_bytes(2) + self.id + cbor2.dumps(key)
        data = self._data(options["rp"]["id"], ATTESTED) + attested
        statement = cbor2.dumps({"fmt": "none", "attStmt": {}, "authData": data})
        response = {"attestationObject": bytes_to_base64url(statement)}
        return self._credential("webauthn.create", options["challenge"], response)

    def proved(self, options: Json) -> str:
        self.counter += 1
        data = self._data(options["rpId"], 0)
        client = self._client("webauthn.get", options["challenge"])
        signature = self.key.sign(data + sha256(client).digest(), ec.ECDSA(hashes.SHA256()))
        response = {
            "authenticatorData": bytes_to_base64url(data),
            "signature": bytes_to_base64url(signature),
        }
        return self._credential("webauthn.get", options["challenge"], response)

    def _data(self, rp_id: str, more: int) -> bytes:
        return sha256(rp_id.encode()).digest() + bytes([self.flags | more]) + self.counter.to_bytes(4)

    def _client(self, kind: str, challenge: str) -> bytes:
        return json.dumps({"type": kind, "challenge": challenge, "origin": self.origin}).encode()

    def _credential(self, kind: str, challenge: str, response: dict[str, str]) -> str:
        client = bytes_to_base64url(self._client(kind, challenge))
        id_ = bytes_to_base64url(self.id)
        return json.dumps(
            {
                "id": id_,
                "rawId": id_,
                "type": "public-key",
                "response": {"clientDataJSON": client, **response},
            }
        )


@pytest_asyncio.fixture
async def house(database_url: str) -> AsyncIterator[Api]:
    async with running(
        database_url, Door(first_code="terminal", hosts=frozenset({"localhost", "10.0.0.7"}))
    ) as api:
        await api.post("/auth/first", FIRM)
        yield api


async def offered(house: Api, path: str) -> Json:
    return json.loads((await house.post(path, {}))["options"])


async def enrolled(house: Api) -> Device:
    device = Device()
    made = device.made(await offered(house, "/me/passkeys/offer"))
    await house.post("/me/passkeys", {"credential": made, "name": "a phone"})
    return device


async def entered(house: Api, credential: str) -> int:
    house.client.cookies.clear()
    reply = await house.client.post("/api/v1/auth/passkey", json={"credential": credential})
    return reply.status_code


async def test_a_device_signs_in_by_its_lock_and_a_second_factor_is_not_asked(house: Api) -> None:
    device = await enrolled(house)
    assert [one["name"] for one in (await house.get("/me"))["passkeys"]] == ["a phone"]
    assert await entered(house, device.proved(await offered(house, "/auth/passkey/offer"))) == 200
    me = await house.get("/me")
    assert me["me"]["name"] == "Mara Vell"
    assert me["passkeys"][0]["used_at"] is not None


async def test_an_answer_counts_once_and_for_what_was_asked(house: Api) -> None:
    device = await enrolled(house)
    proof = device.proved(await offered(house, "/auth/passkey/offer"))
    assert await entered(house, proof) == 200
    assert await entered(house, proof) == 401
    own = {"rpId": "localhost", "challenge": bytes_to_base64url(token_bytes(64))}
    assert await entered(house, device.proved(own)) == 401
    late = device.proved(await offered(house, "/auth/passkey/offer"))
    house.pass_time(minutes=6)
    assert await entered(house, late) == 401


async def test_another_key_another_site_an_old_counter_and_an_open_lock_open_nothing(house: Api) -> None:
    device = await enrolled(house)

    async def tried(**changes: Json) -> int:
        options = await offered(house, "/auth/passkey/offer")
        made: dict[str, Json] = {"key": device.key, "id": device.id, "counter": 10} | changes
        return await entered(house, Device(**made).proved(options))

    assert await tried(key=ec.generate_private_key(ec.SECP256R1())) == 401
    assert await tried(origin="https://elsewhere.example") == 401
    assert await tried(flags=PRESENT) == 401
    assert await tried(id=token_bytes(32)) == 401
    assert await tried() == 200
    assert await tried(counter=5) == 401  # a copy of the device


async def test_nonsense_is_refused_and_wrong_ones_are_counted(house: Api) -> None:
    for text in ("", "{}", "[]", "null", '{"rawId": 3}', '{"response": {"clientDataJSON": "!"}}'):
        assert await entered(house, text) == 401, text
    for _ in range(PER_ACCOUNT.amount):
        await entered(house, "{}")
    assert await entered(house, "{}") == 429


async def test_who_is_signed_in_takes_a_passkey_away_and_only_the_own(house: Api) -> None:
    device = await enrolled(house)
    bad = await house.client.post("/api/v1/me/passkeys", json={"credential": "{}"})
    assert bad.status_code == 422
    id_ = (await house.get("/me"))["passkeys"][0]["id"]
    assert (await house.client.post("/api/v1/me/passkeys/none/end")).status_code == 404
    await house.post(f"/me/passkeys/{id_}/end", {})
    assert await entered(house, device.proved(await offered(house, "/auth/passkey/offer"))) == 401


async def test_at_a_bare_address_none_is_offered(house: Api) -> None:
    there = {"host": "10.0.0.7"}
    reply = await house.client.post("/api/v1/auth/passkey/offer", headers=there)
    assert reply.status_code == 422
    assert "at a bare address use your password" in reply.json()["error"]["message"]
    state = await house.client.get("/api/v1/auth/state", headers=there)
    assert state.json()["passkeys"] is False
    assert len(base64url_to_bytes((await offered(house, "/auth/passkey/offer"))["challenge"])) >= 16
