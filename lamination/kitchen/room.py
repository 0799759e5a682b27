"""The bakehouse as a room: what stands in it, how large it is drawn, where it stands."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Protocol

from lamination.terms.limits import Checked, Range
from lamination.terms.trade import Worded

_WALL_MM = 500.0  # left free behind what stands furthest
_LEAST_ROOM_MM = (6_000.0, 4_000.0)
_FRAME_MM = 150.0  # a machine is so much larger all round than what goes into it
_GRIP_MM = 120.0  # a pin is so much longer at each end than its barrel


class Fixture(Worded):
    """What stands in a bakehouse."""

    BENCH = "bench", "Bench"
    PINS = "pins", "Rolling pins"
    SHEETER = "sheeter", "Sheeter"
    CRANK = "crank", "Hand roller"
    MIXER = "mixer", "Mixer"
    SCALES = "scales", "Scales"
    TUBS = "tubs", "Tubs"
    FRIDGE = "fridge", "Fridge"
    FREEZER = "freezer", "Freezer"
    BUTTERS = "butters", "Butter shelf"
    FRAMES = "frames", "Frames"
    RACK = "rack", "Trays and tins"
    PROOFER = "proofer", "Proofer"
    OVEN = "oven", "Oven"


@dataclass(frozen=True)
class Spot(Checked):
    """Where one of them was put: its near corner from the room's, mm; ``turned`` by a quarter."""

    what: Fixture
    x_mm: Annotated[float, Range(0, 30_000, "mm")]
    y_mm: Annotated[float, Range(0, 30_000, "mm")]
    turned: bool = False


@dataclass(frozen=True, slots=True)
class Furnished:
    """One of them as it stands: ``many`` beside each other, each of two sides, mm.

    ``there``: false for a machine this bakehouse has not. ``rows``: the keys of its few values, the
    first ones its size where it is ``sized``; ``holds``: of these the one
    that says how many places it has, one below another.
    """

    what: Fixture
    said: str
    x_mm: float
    y_mm: float
    turned: bool
    length_mm: float
    width_mm: float
    many: int
    there: bool
    rows: tuple[str, ...]
    sized: bool
    holds: str | None = None


@dataclass(frozen=True, slots=True)
class Room:
    """The room and what stands in it; its own sides, mm, reach behind what stands furthest."""

    length_mm: float
    width_mm: float
    things: tuple[Furnished, ...]


class Values(Protocol):
    """What a kitchen answers: the value in force for a row."""

    def __getitem__(self, key: str) -> float: ...


Sized = Callable[[Values], tuple[float, float]]


@dataclass(frozen=True, slots=True)
class _Larger:
    """The same values, some of them larger: what follows them shows."""

    values: Values
    keys: tuple[str, ...]

    def __getitem__(self, key: str) -> float:
        return self.values[key] + (key in self.keys)


@dataclass(frozen=True, slots=True)
class _Known:
    rows: tuple[str, ...]
    size: Sized
    at: tuple[float, float]
    count: str | None = None
    needs: str | None = None  # the row that is nothing where there is none
    holds: str | None = None  # the row that says how many places it has


def _by(length: str, width: str, more: float = _FRAME_MM) -> Sized:
    return lambda k: (k[length] + 2 * more, k[width] + 2 * more)


def _always(length: float, width: float) -> Sized:
    return lambda _: (length, width)


# Sizes that no row gives are only drawn: nothing is worked from them.
_KNOWN: dict[Fixture, _Known] = {
    Fixture.BENCH: _Known(
        ("bench.length_mm", "bench.width_mm", "bench.top", "fit.slack_mm"),
        _by("bench.length_mm", "bench.width_mm", 0),
        (1_700, 1_700),
    ),
    Fixture.PINS: _Known(
        ("pin.length_mm",), lambda k: (k["pin.length_mm"] + 2 * _GRIP_MM, 160), (2_600, 1_240)
    ),
    Fixture.SHEETER: _Known(
        ("sheeter.belt_length_mm", "sheeter.belt_width_mm", "sheeter.count", "sheeter.widest_mm",
         "sheeter.narrowest_mm", "sheeter.step_mm", "sheeter.thick_mm", "sheeter.share_thick",
         "sheeter.share_thin", "sheeter.spring_back"),
        _by("sheeter.belt_length_mm", "sheeter.belt_width_mm"),
        (400, 3_000),
        "sheeter.count",
        "sheeter.belt_width_mm",
    ),
    Fixture.CRANK: _Known(
        ("crank.width_mm", "crank.longest_mm", "crank.most_strips",
         *(f"crank.{n}_mm" for n in range(1, 10))),
        _by("crank.width_mm", "crank.width_mm", 90),
        (1_150, 1_800),
    ),
    Fixture.MIXER: _Known(
        ("mixer.most_g", "mixer.least_g", "mixer.count", "mixer.slow_k_min", "mixer.fast_k_min",
         "mixer.by_hand_k_min", "mixer.by_hand_most_g", "mixer.cold_c", "mixer.hottest_c",
         "mixer.dough_most_c"),
        _always(650, 850),
        (300, 300),
        "mixer.count",
    ),
    Fixture.SCALES: _Known(
        ("scale.step_g", "scale.fine_step_g", "scale.fine_below_g"), _always(350, 350), (300, 1_600)
    ),
    Fixture.TUBS: _Known(
        ("tub.length_mm", "tub.width_mm", "tub.lump_high", "preferment.tub_l"),
        _by("tub.length_mm", "tub.width_mm", 0),
        (300, 2_300),
    ),
    Fixture.FRIDGE: _Known(
        ("shelf.length_mm", "shelf.width_mm", "fridge.c", "fridge.film", "fridge.holds",
         "fridge.shelves"),
        _by("shelf.length_mm", "shelf.width_mm", 60),
        (1_900, 300),
        holds="fridge.holds",
    ),
    Fixture.FREEZER: _Known(
        ("shelf.length_mm", "shelf.width_mm", "freezer.c", "freezer.film", "freezer.holds",
         "freezer.shelves"),
        _by("shelf.length_mm", "shelf.width_mm", 60),
        (3_000, 300),
        holds="freezer.holds",
    ),
    Fixture.BUTTERS: _Known(
        ("plaque.length_mm", "plaque.width_mm", "plaque.mass_g", "butter.at_lock_in_c",
         "butter.usual"),
        _always(800, 350),
        (4_100, 300),
    ),
    Fixture.FRAMES: _Known(
        ("frame.length_mm", "frame.width_mm", "frame.height_mm"),
        _by("frame.length_mm", "frame.width_mm", 20),
        (4_250, 900),
    ),
    Fixture.RACK: _Known(
        ("tray.length_mm", "tray.width_mm", "bake_tray.length_mm", "bake_tray.width_mm",
         "bake_tray.gap_mm", "tin.length_mm", "tin.width_mm", "tin.cup_mm"),
        _by("bake_tray.length_mm", "bake_tray.width_mm", 40),
        (5_200, 300),
    ),
    Fixture.PROOFER: _Known(
        ("proofer.trays", "proofer.c", "proofer.follows_pct", "proofer.at_room_c", "proofer.film"),
        _by("bake_tray.length_mm", "bake_tray.width_mm"),
        (5_100, 1_700),
        holds="proofer.trays",
    ),
    Fixture.OVEN: _Known(
        ("oven.trays", "oven.count", "oven.fan_less_k", "oven.fan_minutes_pct"),
        _by("bake_tray.length_mm", "bake_tray.width_mm", 250),
        (4_900, 2_900),
        "oven.count",
        holds="oven.trays",
    ),
}  # fmt: skip


def room_of(values: Values, spots: tuple[Spot, ...] = ()) -> Room:
    """The room with what stands in it, at its spots or where it stands until it is moved.

    ``values``: a kitchen, whose rows say how large a thing is, mm. Its sizes are drawn and its values
    are worked with; where it stands is only drawn. Source: our own drawing.
    """
    put = {spot.what: spot for spot in spots}
    things = []
    for what, known in _KNOWN.items():
        x, y = known.at
        spot = put.get(what) or Spot(what, x, y)
        length, width = known.size(values)
        things.append(
            Furnished(
                what=what,
                said=what.said,
                x_mm=spot.x_mm,
                y_mm=spot.y_mm,
                turned=spot.turned,
                length_mm=width if spot.turned else length,
                width_mm=length if spot.turned else width,
                many=max(round(values[known.count]), 1) if known.count else 1,
                there=known.needs is None or values[known.needs] > 0,
                rows=known.rows,
                sized=known.size(_Larger(values, known.rows)) != (length, width),
                holds=known.holds,
            )
        )
    long = max(t.x_mm + t.length_mm * (1 if t.turned else t.many) for t in things)
    wide = max(t.y_mm + t.width_mm * (t.many if t.turned else 1) for t in things)
    return Room(
        max(long + _WALL_MM, _LEAST_ROOM_MM[0]),
        max(wide + _WALL_MM, _LEAST_ROOM_MM[1]),
        tuple(things),
    )
