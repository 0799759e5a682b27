"""Learning a place: readings of a probe re-fit how much heat its air takes."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated

import numpy as np

from lamination.heat.body import Body, body, middle_of
from lamination.heat.conduction import Air, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import Composition
from lamination.materials.thermal import Profile, thermal_of
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import kelvin, say
from lamination.terms.tables import read_table
from lamination.terms.trade import Place

_LOW, _HIGH = 1.0, 150.0  # film coefficients that a place can have
_SEARCHES = 20  # golden sections of that range, on a logarithmic scale
_OUTLIER = 4.0  # readings this many times the usual error off are left out
_LEAST_ERROR_K = 0.15
_FEWEST = 5


@dataclass(frozen=True)
class ProbeReading(Checked):
    """The middle of a dough, °C, so many minutes after it went in."""

    minute: Annotated[float, Range(0, 10_080, "min")]
    t_c: Annotated[float, Range(-60, 80, "°C")]


@dataclass(frozen=True)
class PlaceReadings(Checked):
    """A wrapped dough of so many mm that went into a place at a temperature, and its readings.

    Without readings there is nothing to learn; the simulated probe makes some up.
    """

    place: Place
    thickness_mm: Annotated[float, Range(5, 200, "mm")]
    start_c: Annotated[float, Range(-30, 60, "°C")]
    readings: Annotated[tuple[ProbeReading, ...], Length(0, 5_000, "readings")] = ()


@dataclass(frozen=True, slots=True)
class Fit:
    """A film coefficient, W/(m²·K), before and after, and how well each follows the readings.

    Errors are root mean squares over the readings that were kept, K. ``left_out`` are the numbers of
    readings that no film could explain (a slipped probe). The two curves are for the chart.
    """

    before_w_m2k: float
    after_w_m2k: float
    before_error_k: float
    after_error_k: float
    left_out: tuple[int, ...]
    minutes: tuple[float, ...]
    before_c: tuple[float, ...]
    after_c: tuple[float, ...]


def fit_film(
    start: Body, air_c: float, film_w_m2k: float, wrap_w_m2k: float, read: tuple[ProbeReading, ...]
) -> Fit:
    """The film coefficient that makes the model follow the readings, by least squares.

    ``start``: the body as it went in; the wrap lies in series with the film. Readings far off are
    left out and the fit is made once more. Raises Faults with fewer than five readings, or when the
    dough is as cold as the air already, so that nothing can be learned. Source: least squares.
    """
    if len(read) < _FEWEST:
        text = f"{len(read)} readings are too few: at least {_FEWEST}, over half an hour or so."
        raise Faults(Fault("readings", text))
    minutes = np.array([r.minute for r in read])
    measured = np.array([r.t_c for r in read])
    if abs(start.middle_c - air_c) < 2 or minutes.max() < 5:
        text = "Too little happens in these readings: begin with a dough that is still warm."
        raise Faults(Fault("readings", text))

    def modelled(film: float) -> Profile:
        return _middles(start, air_c, film, wrap_w_m2k, minutes)

    def error(film: float) -> float:
        return float(np.sqrt(((modelled(film) - measured)[kept] ** 2).mean()))

    # Sums of errors at first, not of their squares: a slipped probe must not pull the fit to itself.
    rough = _golden(lambda h: float(np.abs(modelled(h) - measured).sum()))
    off = np.abs(modelled(rough) - measured)
    kept = off <= _OUTLIER * max(1.5 * float(np.median(off)), _LEAST_ERROR_K)
    after = _golden(lambda h: float(((modelled(h) - measured)[kept] ** 2).sum()))
    chart = np.linspace(0, float(minutes.max()), 60)
    return Fit(
        film_w_m2k,
        after,
        error(film_w_m2k),
        error(after),
        tuple(int(i) for i in np.flatnonzero(~kept)),
        tuple(round(float(m), 2) for m in chart),
        tuple(round(float(t), 2) for t in _middles(start, air_c, film_w_m2k, wrap_w_m2k, chart)),
        tuple(round(float(t), 2) for t in _middles(start, air_c, after, wrap_w_m2k, chart)),
    )


def _middles(start: Body, air_c: float, film: float, wrap: float, at: Profile) -> Profile:
    air = Air(air_c, 1 / (1 / film + 1 / wrap))
    course = conduct(start, air, air, float(at.max()))
    found: Profile = middle_of(course.at(at))
    return found


def _golden(cost: Callable[[float], float]) -> float:
    """The film at which a cost is least, by golden sections of its logarithm."""
    ratio = (math.sqrt(5) - 1) / 2
    low, high = math.log(_LOW), math.log(_HIGH)
    a, b = high - ratio * (high - low), low + ratio * (high - low)
    at_a, at_b = cost(math.exp(a)), cost(math.exp(b))
    for _ in range(_SEARCHES):
        if at_a < at_b:
            high, b, at_b = b, a, at_a
            a = high - ratio * (high - low)
            at_a = cost(math.exp(a))
        else:
            low, a, at_a = a, b, at_b
            b = low + ratio * (high - low)
            at_b = cost(math.exp(b))
    return math.exp((low + high) / 2)


def simulated(
    start: Body,
    air_c: float,
    film_w_m2k: float,
    wrap_w_m2k: float,
    minutes: float,
    seed: int,
    noise_k: float = 0.15,
    every_min: float = 1.0,
) -> tuple[ProbeReading, ...]:
    """What a probe would have said: the model with noise, drop-outs and one slip of the probe.

    The same seed gives the same readings. A drop-out leaves a gap; a slipped probe reads the air for
    a few minutes.
    """
    chance = np.random.default_rng(seed)
    at = np.arange(0, minutes + every_min / 2, every_min)
    true = _middles(start, air_c, film_w_m2k, wrap_w_m2k, at)
    said = true + chance.normal(0, noise_k, len(at))
    slips = int(chance.integers(len(at) // 3, max(len(at) // 3 + 1, 2 * len(at) // 3)))
    for i in range(slips, min(slips + 4, len(at))):
        said[i] = air_c + (true[i] - air_c) * 0.3 + chance.normal(0, 0.5)
    heard = chance.random(len(at)) > 0.08
    heard[0] = True
    return tuple(
        ProbeReading(round(float(m), 2), round(float(t), 2))
        for m, t, ok in zip(at, said, heard, strict=True)
        if ok
    )


_LAMINATED = Composition(36, 6.5, 15, 41, 1.5, 6.0)  # dough and butter together, as is usual
_SIMULATED_BY = 1.7  # the simulated fridge takes so much more heat than the kitchen assumes
_SIMULATED_MIN, _SIMULATED_SEED = 75.0, 8


def _of(taken: PlaceReadings) -> Body:
    table = thermal_of(_LAMINATED)
    layers = [(False, taken.thickness_mm)]
    return body(layers, (table, 1080.0), (table, 1080.0), taken.start_c)


def _checked(taken: PlaceReadings) -> None:
    if taken.place is Place.BENCH:
        text = "The bench has two faces of its own: learn a fridge or a freezer."
        raise Faults(Fault("place", text))


def learn_place(taken: PlaceReadings, kitchen: Kitchen) -> Fit:
    """Fit the film coefficient of a fridge or freezer from readings taken there; see :func:`fit_film`."""
    _checked(taken)
    place = taken.place
    film, air = kitchen[f"{place}.film"], kitchen[f"{place}.c"]
    return fit_film(_of(taken), air, film, kitchen["wrap.film"], taken.readings)


def simulated_readings(taken: PlaceReadings, kitchen: Kitchen) -> tuple[ProbeReading, ...]:
    """Readings of the simulated probe, in a place that takes 1.7 times the heat assumed."""
    _checked(taken)
    film, air = kitchen[f"{taken.place}.film"], kitchen[f"{taken.place}.c"]
    stands_in = min(film * _SIMULATED_BY, _HIGH / 2)
    return simulated(
        _of(taken), air, stands_in, kitchen["wrap.film"], _SIMULATED_MIN, _SIMULATED_SEED
    )


def read_logger_csv(text: str) -> tuple[ProbeReading, ...]:
    """Readings from any logger's table of time and temperature, in two columns.

    Times are minutes, ``h:mm`` or ``h:mm:ss``, or dates with a time; the first counts as zero. Commas
    in numbers, other separators and a line of headings are understood. Raises Faults naming the line
    that is no reading.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines:
        raise Faults(Fault("", "There is nothing in this table."))
    separator = ";" if ";" in lines[0] else "\t" if "\t" in lines[0] else ","
    found: list[tuple[float, float]] = []
    for n, row in enumerate(read_table("\n".join(lines), separator), 1):
        cells = [c.strip() for c in row if c.strip()]
        try:
            if len(cells) < 2:
                raise ValueError
            found.append((_minutes(cells[0]), float(cells[1].replace(",", "."))))
        except ValueError:
            if n == 1:
                continue
            text = f"Line {n} is not a time and a temperature: “{', '.join(cells)[:60]}”."
            raise Faults(Fault("", text)) from None
    if not found:
        raise Faults(Fault("", "This table has headings and no readings."))
    first = found[0][0]
    return tuple(ProbeReading(round(m - first, 3), t) for m, t in sorted(found))


def _minutes(cell: str) -> float:
    clock = cell.replace("T", " ").split(" ")[-1]
    days = 0.0
    if " " in cell.replace("T", " "):
        date = cell.replace("T", " ").split(" ")[0]
        year, month, day = (int(x) for x in date.replace("/", "-").split("-"))
        days = float(np.datetime64(f"{year:04}-{month:02}-{day:02}").astype(int))
    if ":" in clock:
        parts = [float(x) for x in clock.split(":")]
        hours, minutes, seconds = (*parts, 0.0, 0.0)[:3]
        return days * 1440 + hours * 60 + minutes + seconds / 60
    return float(cell.replace(",", "."))


def learned(fit: Fit, place: str) -> str:
    """The sentence that offers a fit."""
    word = "harder" if fit.after_w_m2k > fit.before_w_m2k else "more gently"
    left = f" {len(fit.left_out)} readings were left out." if fit.left_out else ""
    return (
        f"This {place} cools {word} than assumed: {say(fit.after_w_m2k)} W/(m²·K), not "
        f"{say(fit.before_w_m2k)}. The readings then lie within {kelvin(fit.after_error_k)} of the "
        f"model, before {kelvin(fit.before_error_k)}.{left}"
    )
