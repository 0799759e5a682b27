"""What to have in the house the day before, and what is prepared there: over all that is weighed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.dough.recipe import Contents, contents_of
from lamination.dough.weighing import OLD_DOUGH, WeighLine, WeighSheet
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Kind, Shelf
from lamination.materials.preparations import batches
from lamination.terms.said import named


@dataclass(frozen=True, slots=True)
class Needed:
    """An ingredient and how much of it is needed in all, g."""

    ingredient: str
    name: str
    grams: float


def needed(sheets: Iterable[tuple[WeighSheet, int]], shelf: Shelf) -> tuple[Needed, ...]:
    """Everything that is weighed, each sheet so many times; the heaviest first.

    Old dough is not bought, nor is what is prepared here: what that is made of has a sheet of its own.
    """
    names: dict[str, str] = {}
    grams: dict[str, float] = {}

    def add(key: str, name: str, mass_g: float) -> None:
        names.setdefault(key, name)
        grams[key] = grams.get(key, 0.0) + mass_g

    for sheet, times in sheets:
        for line in sheet.lines:
            bought = (
                line.ingredient not in shelf or shelf[line.ingredient].kind is not Kind.PREPARED
            )
            if line.ingredient != OLD_DOUGH and bought:
                add(line.ingredient, line.name, line.grams * times)
    found = (Needed(key, names[key], round(mass_g, 1)) for key, mass_g in grams.items())
    return tuple(sorted(found, key=lambda n: -n.grams))


def declared_of(what: Iterable[Needed], shelf: Shelf) -> str:
    """What a list of things to have in the house says of allergens."""
    held = list(what)
    known = [shelf[n.ingredient] for n in held if n.ingredient in shelf]
    return contents_of(known, [n.name for n in held if n.ingredient not in shelf]).declared()


def sheet_of(
    stop: str,
    name: str,
    minute: float,
    lines: tuple[WeighLine, ...],
    contents: Contents,
    says: str = "",
) -> WeighSheet:
    """A weigh-out sheet with its sum, and what it says of allergens."""
    return WeighSheet(
        stop,
        name,
        minute,
        lines,
        round(sum(line.grams for line in lines), 1),
        tuple(a.said for a in contents.allergens),
        contents.unknown,
        contents.declared(),
        says,
    )


def prepared_sheets(
    sheets: Iterable[tuple[WeighSheet, int]], shelf: Shelf, kitchen: Kitchen
) -> tuple[WeighSheet, ...]:
    """A sheet for each preparation that these sheets use, each so many times: what goes into all of it.

    What goes into another comes before it.
    """
    wanted = [(line.ingredient, line.grams * times) for s, times in sheets for line in s.lines]
    found = []
    for batch in batches(wanted, kitchen.preparations):
        of = batch.preparation
        stop = f"make-{of.key}"
        lines, contents = weigh_lines(stop, [(p.what, p.grams) for p in batch.parts], shelf)
        name = f"Make {named(of.name.lower())}"
        found.append(sheet_of(stop, name, 0.0, lines, contents, of.says()))
    return tuple(found)


def weigh_lines(
    stop: str, of: Iterable[tuple[str, float]], shelf: Shelf
) -> tuple[tuple[WeighLine, ...], Contents]:
    """So much of each, by key or name, g, as lines to weigh at a stop; what is named twice stands once.

    What is not on the shelf keeps its name, and is unknown.
    """
    grams: dict[str, float] = {}
    for what, mass_g in of:
        thing = shelf.find(what)
        key = thing.key if thing else what
        grams[key] = grams.get(key, 0.0) + mass_g
    lines, known, unknown = [], [], []
    for key, mass_g in grams.items():
        pieces, name = None, named(key)
        if key in shelf:
            thing = shelf[key]
            name = thing.name
            known.append(thing)
            pieces = round(mass_g / thing.piece_g, 1) if thing.piece_g else None
        else:
            unknown.append(key)
        lines.append(WeighLine(f"{stop}/{key}", key, name, round(mass_g, 1), mass_g, pieces=pieces))
    return tuple(lines), contents_of(known, unknown)
