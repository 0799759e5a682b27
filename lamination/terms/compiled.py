"""Compiling a loop: for the few that are too slow in plain Python.

numba takes half a second to import, so whoever has such loops imports them when they are first needed.
What it compiles is kept beside the source, in ``__pycache__``, where every command finds it and a folder
that is moved takes it along. A loop that calls those of another file has them in it, which numba does not
look at: so when any of the files is another, all that was kept is thrown away.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any, TypeVar, cast

from numba import njit, typeof, types
from numba.extending import register_jitable

_Loop = TypeVar("_Loop", bound=Callable[..., object])
_LAMINATION = Path(__file__).parents[1]
# the files with compiled loops, what is compiled into them, and this one, which says how
SOURCES = (
    "day/by_minute.py",
    "day/eased.py",
    "day/loom.py",
    "day/loops.py",
    "day/lowest.py",
    "day/moves.py",
    "day/net.py",
    "day/reach.py",
    "day/tries.py",
    "day/working.py",
    "heat/stepping.py",
    "materials/thermal.py",
    "terms/compiled.py",
)


def _mark() -> Path:
    """The file that says that all loops of just these sources have been compiled and kept."""
    made = hashlib.sha1(usedforsecurity=False)
    for name in SOURCES:
        found = (_LAMINATION / name).stat()
        made.update(f"{name} {found.st_mtime_ns} {found.st_size}\n".encode())
    return _LAMINATION / "__pycache__" / f"compiled-{made.hexdigest()[:12]}"


def all_kept() -> bool:
    """Whether all loops have been compiled, so that having them at hand takes no time."""
    return _mark().exists()


def keep_all() -> None:
    """Say that all loops have been compiled."""
    with suppress(OSError):
        _mark().touch()


def _forget_others() -> None:
    """Throw away what was compiled from other sources."""
    folder = _LAMINATION / "__pycache__"
    of_these = folder / f"for-{_mark().name}"
    if of_these.exists():
        return
    with suppress(OSError):
        for old in (*folder.glob("*compiled-*"), *_LAMINATION.glob("*/__pycache__/*.nb[ic]")):
            old.unlink(missing_ok=True)
        folder.mkdir(exist_ok=True)
        of_these.touch()


_forget_others()


def compiled(signature: object) -> Callable[[_Loop], _Loop]:
    """Compile a loop for its one signature, and keep what was compiled where that can be written."""

    def made(loop: _Loop) -> _Loop:
        try:
            fast: Any = njit(signature, cache=True, nogil=True)(loop)
        except RuntimeError:  # nowhere to keep it: compiled at each start
            fast = njit(signature, nogil=True)(loop)
        return cast(_Loop, fast)

    return made


def inlined(loop: _Loop) -> _Loop:
    """A loop that others call: compiled into them when they are, and never by itself.

    A start has half as many to read. Called from Python it is plain Python.
    """
    made: Any = register_jitable
    return cast(_Loop, made(loop))


def takes(*examples: object, gives: object = "void") -> object:
    """The signature of a loop that takes things like some examples, and numbers or arrays.

    Those, and ``gives``, are named as in a signature that is written out: ``i8``, ``f8``, ``i8[::1]``.
    """

    def known(one: object) -> Any:
        like: Any = typeof
        return _named(one) if isinstance(one, str) else like(one)

    return known(gives)(*(known(one) for one in examples))


def _named(name: str) -> Callable[..., object]:
    of, array, dims = name.partition("[")
    found = getattr(types, of)
    if array:
        found = found[:, ::1] if dims.startswith(":,") else found[::1]
    return cast(Callable[..., object], found)
