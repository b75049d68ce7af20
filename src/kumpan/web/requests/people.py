"""What people type to come in, and what the office says of them."""

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool

from kumpan.services.people.access import Role
from kumpan.web.requests.base import Strict

Login = Annotated[str, Field(max_length=254)]
Password = Annotated[str, Field(max_length=1000)]
Code = Annotated[str, Field(max_length=20)]
Secret = Annotated[str, Field(max_length=100)]
Name = Annotated[str, Field(max_length=120)]


class SignInIn(Strict):
    """`code` is that of the second factor; empty until it is asked for."""

    login: Login
    password: Password
    code: Code = ""


class PasskeyIn(Strict):
    """What the browser's credential says, as JSON text; `name` of the device for a new one."""

    credential: Annotated[str, Field(max_length=20_000)]
    name: Annotated[str, Field(max_length=80)] = ""


class DemoIn(Strict):
    person_id: UUID


class FirstIn(Strict):
    """The first person of an installation, with the code that stands in the terminal."""

    code: Annotated[str, Field(max_length=80)]
    name: Name
    login: Login
    password: Password


class SecretIn(Strict):
    """The secret of a link: the part after the last slash."""

    secret: Secret


class JoinIn(SecretIn):
    """A reset needs no login: it stays."""

    login: Login = ""
    password: Password


class PasswordIn(Strict):
    old: Password
    new: Password


class SecondFactorIn(Strict):
    """The secret that was offered, and a first code made of it."""

    secret: Annotated[str, Field(max_length=64)]
    code: Code


class ConfirmedIn(Strict):
    password: Password


class RoleIn(Strict):
    role: Role
    pools: Annotated[list[UUID], Field(max_length=5000)] = []


class RenameIn(Strict):
    name: Name
    initials: Annotated[str, Field(max_length=8)] = ""


class WorkspaceIn(Strict):
    name: Name


class EndIn(Strict):
    """`erase`: the name goes as well."""

    erase: StrictBool = False


class InviteIn(Strict):
    """`reset`: for somebody who has a login and forgot the password. `address`: sent there by mail."""

    reset: StrictBool = False
    address: Annotated[str, Field(max_length=254)] = ""


class TokenIn(Strict):
    name: Annotated[str, Field(max_length=80)]
    scope: Annotated[str, Field(max_length=10)] = "read"
