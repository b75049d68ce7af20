"""Mail that people choose, the outbox, and other programs that are told."""

from uuid import UUID

from fastapi import APIRouter

from kumpan.services.outgoing import choices, hooks, push
from kumpan.web.requests.outgoing import HookIn, MailChoiceIn, PushDeviceIn
from kumpan.web.requests.people import SecretIn
from kumpan.web.responses.outgoing import HookLine, MailChosen, MailLine, NewHook, PushDevices
from kumpan.web.scope import HouseDep, ScopeDep

router = APIRouter(prefix="/api/v1", tags=["people"])
open_router = APIRouter(prefix="/api/v1", tags=["people"])


@router.get("/mail-choice")
async def mail_choice(scope: ScopeDep) -> MailChosen:
    """What who asks wants by mail."""
    return MailChosen.of(await choices.choice_of(scope))


@router.post("/mail-choice")
async def choose_mail(given: MailChoiceIn, scope: ScopeDep) -> bool:
    """Reports after visits, what is due today, the week: each as chosen, each with a link that ends it."""
    await choices.choose(scope, **dict(given))
    return True


@open_router.post("/auth/unsubscribe")
async def unsubscribe(given: SecretIn, scope: HouseDep) -> bool:
    """No more mail to whoever the link is of; nobody has to be signed in."""
    await choices.end_by_link(scope.tx, given.secret)
    return True


@router.get("/outbox")
async def outbox(scope: ScopeDep) -> list[MailLine]:
    """The last messages, sent, waiting or given up, the newest first."""
    return [MailLine.of(one) for one in await choices.outbox(scope)]


@router.post("/outbox/{mail_id}/again")
async def send_again(mail_id: UUID, scope: ScopeDep) -> bool:
    """A message that was given up is tried once more."""
    await choices.send_again(scope, mail_id)
    return True


@router.get("/me/push")
async def push_devices(scope: ScopeDep) -> PushDevices:
    """Browsers that messages come to, and the key that a browser needs to let them come."""
    return PushDevices.of_all(await push.public_key(scope.tx), await push.devices_of(scope))


@router.post("/me/push", status_code=201)
async def let_come(given: PushDeviceIn, scope: ScopeDep) -> bool:
    """Messages come to this browser from now on: what is due, a step of a plan, a pool that is open again."""
    await push.let_come(scope, **dict(given))
    return True


@router.post("/me/push/{device_id}/end")
async def end_push(device_id: UUID, scope: ScopeDep) -> bool:
    """Nothing comes to it any more."""
    await push.end_device(scope, device_id)
    return True


@router.get("/hooks")
async def list_hooks(scope: ScopeDep) -> list[HookLine]:
    """Other programs that are told of every entry."""
    return [HookLine.of(one) for one in await hooks.hooks(scope)]


@router.post("/hooks", status_code=201)
async def add_hook(given: HookIn, scope: ScopeDep) -> NewHook:
    """One more, told from now on; its secret is shown this once."""
    return NewHook.of(await hooks.add_hook(scope, given.url))


@router.post("/hooks/{hook_id}/end")
async def end_hook(hook_id: UUID, scope: ScopeDep) -> bool:
    """It is told nothing more."""
    await hooks.end_hook(scope, hook_id)
    return True
