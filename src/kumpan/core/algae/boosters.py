"""What is sold to go along with a shock, by kind, and what it does besides. Source: boosters."""

from dataclasses import dataclass

from kumpan.core.messages import Message

SOURCE = "boosters"


@dataclass(frozen=True)
class Booster:
    """A kind of booster. `refused`: nothing here plans it."""

    key: str
    name: Message
    text: Message
    refused: bool = False


BOOSTERS: tuple[Booster, ...] = (
    Booster(
        "monopersulfate",
        Message("Monopersulfate (non-chlorine shock)"),
        Message(
            "Oxidizes and kills no algae; for days it reads as combined chlorine, and it drives pH "
            "down: raise pH to 7.8 first."
        ),
    ),
    Booster(
        "ammonium",
        Message("Ammonium salts"),
        Message(
            "They make chloramine, and after it chlorine is used up in large amounts: the pool gets no "
            "clearer sooner."
        ),
    ),
    Booster(
        "bromide",
        Message("Bromide"),
        Message(
            "It turns the pool into a bromine pool for good, and what is here for chlorine no longer "
            "holds: refused."
        ),
        refused=True,
    ),
    Booster(
        "algaecide",
        Message("Strong algaecide"),
        Message(
            "For black spots, with 30 to 40 % active content or more, when free chlorine is under 5; "
            "on spots that were brushed open."
        ),
    ),
)
RULE = Message(
    "Never more than one product at a time, each only by its label, straight to the pool, "
    "never mixed in a bucket."
)
