"""What a default that comes from practice is, and the sources that several of them share."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Origin = Literal["published", "trade practice", "yours"]

TRADE: Literal["trade practice"] = "trade practice"
HEAT_BOOK = (
    "Incropera and DeWitt, Fundamentals of Heat and Mass Transfer, 6th edition (2007), table 1.1: "
    "free convection of gases 2 to 25, forced 25 to 250"
)
SOLIDS_BOOK = (
    "Incropera and DeWitt, Fundamentals of Heat and Mass Transfer, 6th edition (2007), appendix A: "
    "solids"
)
DOUGH_GAS = "Bloksma, Cereal Foods World 35 (1990), 237: gas in dough after mixing, about a tenth"
STARCH = "BeMiller and Whistler, Starch, 3rd edition (2009), chapter 10: large wheat granules, 15 to 35 µm"
PROOF_CURVE = (
    "activity by Rosso, Lobry and Flandrois, Journal of Theoretical Biology 162 (1993), 447; "
    "its length from trade practice"
)
FOODS = "Choi and Okos (1986), in ASHRAE Handbook: Refrigeration (2018), chapter 19, table 1"


@dataclass(frozen=True, slots=True)
class Default:
    """A starting point with a name. ``low`` and ``high`` bound what a baker may put in its place.

    ``choices``: the value is the number of one of these, counted from 0. ``whole``: it counts things.
    """

    key: str
    group: str
    label: str
    value: float
    unit: str
    low: float
    high: float
    origin: Origin
    source: str
    choices: tuple[str, ...] = ()
    whole: bool = False


def row(
    key: str,
    label: str,
    value: float,
    unit: str,
    low: float,
    high: float,
    source: str = TRADE,
    group: str | None = None,
    choices: tuple[str, ...] = (),
    whole: bool = False,
) -> Default:
    """A default; its group is the first part of its key unless it is said."""
    origin: Origin = "trade practice" if source == TRADE else "published"
    return Default(
        key, group or key.split(".")[0], label, value, unit, low, high, origin, source, choices,
        whole or bool(choices),
    )  # fmt: skip
