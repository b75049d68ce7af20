"""Passwords: argon2id by `pwdlib`, and which are refused.

The rules are those of NIST SP 800-63B-4 (from memory): a password that stands alone has at least 15
characters, up to 128 are taken, all characters are allowed, no mixture is demanded, common ones and those
made of the context are refused.
"""

import asyncio
import unicodedata

from pwdlib import PasswordHash

from kumpan.core.messages import Message
from kumpan.core.quantity import Number

LEAST, MOST = 15, 128
# From memory of published lists of leaked passwords; only what is long enough to pass the length can be here.
COMMON = frozenset({
    "123456789012345", "1234567890123456", "12345678901234567890", "111111111111111", "000000000000000",
    "passwordpassword", "password12345678", "password123456789", "password1234567890", "passw0rdpassw0rd",
    "mypasswordispassword", "correcthorsebatterystaple", "correct horse battery staple", "qwertyuiopasdfgh",
    "qwertyuiopasdfghjkl", "qwertyuiopasdfghjklzxcvbnm", "qwertyuiop123456", "qwertyqwertyqwerty",
    "1qaz2wsx3edc4rfv", "1q2w3e4r5t6y7u8i", "zaq12wsxzaq12wsx", "asdfghjklasdfghjkl", "abcdefghijklmno",
    "abcdefghijklmnop", "abcdefghijklmnopqrstuvwxyz", "iloveyouiloveyou", "iloveyousomuch123",
    "letmeinletmeinletmein", "administrator123", "adminadminadmin", "administratoradministrator",
    "welcome123456789", "welcomewelcome1", "trustno1trustno1", "swimmingpool1234", "swimming pool 123",
    "swimmingpoolswimmingpool", "changemechangeme", "changemeplease123", "monkeymonkeymonkey",
    "dragondragondragon", "sunshinesunshine", "princessprincess", "footballfootball", "baseballbaseball",
    "let me in please", "password password", "i love you so much", "thisismypassword", "this is my password",
})  # fmt: skip
PRODUCT = "kumpan"
_HASHER = PasswordHash.recommended()


def problem_with(password: str, login: str) -> Message | None:
    """Why a password is refused, with the cure; None for a good one."""
    text = normalized(password)
    if len(text) < LEAST:
        return Message(
            "A password needs {least} characters or more: three or four words are easiest to type.",
            least=Number(LEAST),
        )
    if len(text) > MOST:
        return Message("A password has at most {most} characters.", most=Number(MOST))
    plain = text.casefold()
    if plain in COMMON or _repeats(plain):
        return Message("This password is among those that are tried first; choose another.")
    name = login.split("@", maxsplit=1)[0].casefold()
    rest = plain.replace(PRODUCT, "").replace(name, "") if len(name) > 2 else plain.replace(PRODUCT, "")
    if len(rest) < LEAST // 2:
        return Message("This password is mostly your own name or the program's; choose another.")
    return None


def normalized(password: str) -> str:
    """The same characters, however a keyboard composes them (NFKC)."""
    return unicodedata.normalize("NFKC", password)


def _repeats(text: str) -> bool:
    """One short piece again and again."""
    return any(len(text) % n == 0 and text == text[:n] * (len(text) // n) for n in range(1, 6))


async def hashed(password: str) -> str:
    """The hash to store; slow on purpose, so off the event loop."""
    return await asyncio.to_thread(_HASHER.hash, normalized(password))


async def matches(password: str, stored: str) -> bool:
    """Whether it is the password, in the same time whether it is or not."""
    return await asyncio.to_thread(_HASHER.verify, normalized(password)[:1000], stored)


# Compared with where there is no account, so that the answer takes as long.
# Of a random password that nobody kept, made with the hasher's own parameters (a test holds them to it).
NOBODYS = "$argon2id$v=19$m=65536,t=3,p=4$Tt+Av8b9GLk4fGv5hnOZLg$4swcLsZxoPfxS4fI1Rxw1MikkF4hQ+PUbAYxymr9pJg"
