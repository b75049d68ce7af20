"""A sign-in of nobody takes as long as one of somebody."""

from pwdlib import PasswordHash

from kumpan.services.people import passwords


async def test_the_hash_of_nobody_is_as_dear_as_any_that_is_stored_today() -> None:
    stored = await passwords.hashed("three words of somebody")
    hasher = PasswordHash.recommended()
    assert passwords.NOBODYS.split("$")[:4] == stored.split("$")[:4]
    assert [len(part) for part in passwords.NOBODYS.split("$")] == [len(part) for part in stored.split("$")]
    assert not hasher.current_hasher.check_needs_rehash(passwords.NOBODYS)
    assert not await passwords.matches("nobody has this password", passwords.NOBODYS)
